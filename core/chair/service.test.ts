import { DEFAULTS } from '../house/index.ts'
import { DomainError } from '../errors.ts'
import type { PlanStep } from '../plan/index.ts'
import { executedLoads } from './outcome.ts'
import { play } from './play.ts'
import { admit, nextPress, resume } from './rules.ts'
import { advance, elapsedMs, replay, replayLive } from './service.ts'
import { begin, type ChairPlan } from './state.ts'
import type { ChairEvent, Draft } from './events.ts'
import type { ChairEventKind } from './kinds.ts'
import fc from 'fast-check'

const STEPS: PlanStep[] = [
  { id: 'prepare:towel', kind: 'prepare', title: 'Towel', text: '', minutes: 4, lays: 'towel' },
  { id: 'prepare:lather', kind: 'prepare', title: 'Lather', text: '', minutes: 2, lays: 'lather' },
  stroke('chin', 30),
  stroke('jaw-left', 20),
  { id: 'check', kind: 'check', title: 'Look', text: '', minutes: 1 },
  { id: 'close:soothe', kind: 'close', title: 'Soothe', text: '', minutes: 2 },
]

function stroke(zoneId: 'chin' | 'jaw-left', strokes: number): PlanStep {
  const id = `${zoneId}:1:a`
  return { id, laneId: id, kind: 'stroke', title: zoneId, text: '', minutes: 1, zoneId, strokes }
}

const lane = (zoneId: string) => ({ id: `${zoneId}:1:a`, zoneId, letter: 'a', bladeId: 'shavette' })
/** As much of a plan as the chair follows. */
const PLAN = {
  steps: STEPS,
  lanes: [lane('chin'), lane('jaw-left')],
  zones: [],
} as unknown as ChairPlan
/** Without towel and blades: events as they were before those were told. */
const PLAIN: ChairPlan = { steps: STEPS.slice(1).map(({ laneId: _lane, ...s }) => s) }

const event = (
  seq: number,
  kind: ChairEventKind,
  stepId?: string,
  more: Partial<ChairEvent> = {},
): ChairEvent => ({
  id: `e${seq}`,
  seq,
  screen: 's',
  n: seq,
  kind,
  atMs: seq * 1000,
  stepId,
  ...more,
})

const played = (plan = PLAN, startMs = 0) => {
  let id = 0
  return play(DEFAULTS, plan, { startMs, bladeLife: 400, screen: 's', newId: () => `p${id++}` })
}

/** Things that may be told at any moment of a service, wise or not. */
const anything: fc.Arbitrary<Draft> = fc.oneof(
  fc
    .constantFrom<ChairEventKind>(
      'done',
      'skipped',
      'back',
      'nick',
      'tug',
      'pressure',
      'redness',
      'blade-changed',
      're-lathered',
      'paused',
      'resumed',
      'soaked',
      'towel-kept',
      'finished',
    )
    .map((kind) => ({ kind })),
  fc.constant({ kind: 'blade-opened' as const, detail: { bladeId: 'shavette' as const } }),
)

/** A service that goes on by its presses with anything told between; whatever is refused is left out. */
const possible = fc
  .array(fc.tuple(fc.boolean(), anything, fc.integer({ min: -100_000, max: 300_000 })), {
    minLength: 1,
    maxLength: 60,
  })
  .map((choices) => {
    let live = begin(PLAN)
    let clock = 1_000_000
    const events: ChairEvent[] = []
    for (const [go, other, dt] of choices) {
      clock += dt
      const press = nextPress(DEFAULTS, live, clock, 400).draft
      const draft = go && press ? press : other
      const seq = live.state.seq + 1
      const step = live.plan.steps[live.state.index]?.id
      const told = {
        ...event(seq, draft.kind, draft.stepId ?? step),
        detail: draft.detail,
        atMs: clock,
      }
      try {
        live = admit(DEFAULTS, live, told)
        events.push(told)
      } catch (error) {
        if (!(error instanceof DomainError)) throw error
      }
    }
    return { events, state: live.state }
  })

describe('a live service', () => {
  it('goes step by step to its end, blades and towel included', () => {
    const events = played()
    expect(events.map((e) => e.kind)).toEqual([
      'started',
      'towel-out',
      'towel-wrist',
      'towel-laid',
      'done',
      'done',
      'blade-opened',
      'done',
      'done',
      'done',
      'done',
      'blades-binned',
      'looked',
      'finished',
    ])
    const { state } = replayLive(PLAN, events)
    expect(state).toMatchObject({ status: 'finished', index: 6, seq: 14, looked: [] })
    expect(state.blades).toEqual([
      expect.objectContaining({ bladeId: 'shavette', strokes: 50, end: 'end' }),
    ])
    expect(state.towels['prepare:towel']!.offAtMs).toBeGreaterThan(
      state.towels['prepare:towel']!.laidAtMs!,
    )
  })

  it('replays services of before, that told neither blades nor towels', () => {
    const s = replay(PLAIN, [
      event(1, 'started'),
      event(2, 'done', 'prepare:lather'),
      event(3, 'nick', 'chin:1:a'),
      event(4, 'done', 'chin:1:a'),
      event(5, 'blade-changed', 'jaw-left:1:a'),
      event(6, 'skipped', 'jaw-left:1:a', { reason: 'skin is red' }),
      event(7, 'done', 'check'),
      event(8, 'done', 'close:soothe'),
      event(9, 'finished'),
    ])
    expect(s).toMatchObject({
      status: 'finished',
      skipReasons: { 'jaw-left:1:a': 'skin is red' },
      nicks: [{ stepId: 'chin:1:a', atMs: 3000 }],
      startedAtMs: 1000,
      finishedAtMs: 9000,
    })
    expect(s.blades.map((b) => b.strokes)).toEqual([30, 0])
  })

  it('goes back and takes back what the step was, strokes too', () => {
    const s = replay(PLAIN, [
      event(1, 'started'),
      event(2, 'done', 'prepare:lather'),
      event(3, 'done', 'chin:1:a'),
      event(4, 'back'),
    ])
    expect(s).toMatchObject({ index: 1, outcomes: { 'prepare:lather': 'done' } })
    expect(s.blades[0]!.strokes).toBe(0)
  })

  it.each([
    ['before the start', [event(1, 'done', 'chin:1:a')], 'not been started'],
    ['started twice', [event(1, 'started'), event(2, 'started')], 'already been started'],
    ['another step', [event(1, 'started'), event(2, 'done', 'check')], 'not the current one'],
    ['finished early', [event(1, 'started'), event(2, 'finished')], 'neither done nor skipped'],
    ['back from the first', [event(1, 'started'), event(2, 'back')], 'first step'],
    ['a gap', [event(1, 'started'), event(3, 'done', 'prepare:lather')], 'came before'],
    ['going on unpaused', [event(1, 'started'), event(2, 'resumed')], 'not paused'],
    [
      'word of an unknown nick',
      [event(1, 'started'), event(2, 'nick-told', undefined, { detail: { of: 'x' } })],
      'not known',
    ],
    ['a towel never taken out', [event(1, 'started'), event(2, 'towel-asked', 'x')], 'taken out'],
  ])('refuses %s, in a sentence', (_name, events, sentence) => {
    expect(() => replay(PLAIN, events)).toThrow(sentence)
  })

  it('takes nothing after the end', () => {
    const events = played()
    expect(() => replay(PLAN, [...events, event(15, 'nick')])).toThrow('finished')
  })

  it('replays to the same state in whatever batches, order and number of copies', () => {
    fc.assert(
      fc.property(possible, fc.infiniteStream(fc.nat()), ({ events, state }, chance) => {
        expect(replay(PLAN, events)).toEqual(state)
        const draw = () => chance.next().value as number
        const copies = [...events, ...events.filter(() => draw() % 2 === 0)].sort(() =>
          draw() % 2 ? 1 : -1,
        )
        expect(replay(PLAN, copies)).toEqual(state)
        const cut = draw() % (events.length + 1)
        const first = replayLive(PLAN, events.slice(0, cut))
        // The second batch overlaps the first, as after a lost answer.
        const second = replayLive(PLAN, events.slice(Math.max(0, cut - 3)), first)
        expect(second.state).toEqual(state)
      }),
    )
  })

  it('never loses its place: the index is the number of steps settled', () => {
    fc.assert(
      fc.property(possible, ({ state }) => {
        expect(Object.keys(state.outcomes)).toHaveLength(state.index)
        for (const b of state.blades) expect(b.strokes).toBeGreaterThanOrEqual(0)
        const strokes = Object.keys(state.onBlade).length
        expect(strokes).toBeLessThanOrEqual(2)
        expect(state.spentMs).toBeGreaterThanOrEqual(0)
      }),
    )
  })

  it('keeps the same step whatever the clock does; a clock set back adds no time', () => {
    fc.assert(
      fc.property(
        possible,
        fc.array(fc.integer({ min: 0, max: 1e13 })),
        ({ events, state }, at) => {
          const jumped = events.map((e, i) => ({ ...e, atMs: at[i] ?? e.atMs }))
          const { outcomes, index, blades } = replay(PLAN, jumped)
          expect({ outcomes, index }).toEqual({ outcomes: state.outcomes, index: state.index })
          expect(blades.map((b) => b.strokes)).toEqual(state.blades.map((b) => b.strokes))
        },
      ),
    )
    // Set back by an hour between two events ten minutes apart, then ten minutes more.
    const s = replay(PLAIN, [
      event(1, 'started', undefined, { atMs: 3_600_000 }),
      event(2, 'done', 'prepare:lather', { atMs: 600_000 }),
      event(3, 'done', 'chin:1:a', { atMs: 1_200_000 }),
    ])
    expect(s.spentMs).toBe(600_000)
    expect(elapsedMs(s, 1_260_000)).toBe(660_000)
    expect(elapsedMs(s, 900_000)).toBe(600_000)
  })

  it('does not count pauses as work, and takes during one what is found and what changes the rest, no work', () => {
    const paused = replayLive(PLAIN, [
      event(1, 'started'),
      event(61, 'paused', undefined, { seq: 2 }),
    ])
    expect(elapsedMs(paused.state, 10_000_000)).toBe(60_000)
    expect(() => admit(DEFAULTS, paused, event(3, 'done', 'prepare:lather'))).toThrow('paused')
    expect(admit(DEFAULTS, paused, event(3, 'nick')).state.nicks).toHaveLength(1)
    const amendment = { text: 'left out', after: 0, steps: STEPS.slice(4), lanes: [], covers: [] }
    const amended = admit(
      DEFAULTS,
      paused,
      event(3, 'amended', undefined, { detail: { amendment } }),
    )
    expect([amended.state.status, amended.plan.steps.length]).toEqual(['paused', 2])
    const none: ChairEventKind[] = ['done', 'skipped', 'back', 'tug', 'blade-opened', 'looked']
    for (const kind of none) expect(() => admit(DEFAULTS, paused, event(3, kind))).toThrow('paused')
  })

  it('is paused for something to look at first, in a pause too, until somebody goes on', () => {
    const started = replayLive(PLAIN, [event(1, 'started')])
    const news = admit(DEFAULTS, started, event(2, 'paused', undefined, { reason: 'redness 4' }))
    expect(() => admit(DEFAULTS, news, event(3, 'done', 'prepare:lather'))).toThrow('paused')
    expect(nextPress(DEFAULTS, news, 0, 100)).toMatchObject({
      words: 'Looked: go on',
      line: 'redness 4',
      draft: { kind: 'resumed', detail: { of: news.state.pausedFor!.id } },
    })
    // Whoever has not heard of it cannot go on from it.
    expect(() => admit(DEFAULTS, news, event(3, 'resumed'))).toThrow('come in meanwhile')
    expect(() => admit(DEFAULTS, news, event(3, 'paused'))).toThrow('paused')
    const more = admit(DEFAULTS, news, event(3, 'paused', undefined, { reason: 'pus' }))
    expect(more.state.pausedFor).toMatchObject({ words: 'redness 4 pus', zones: [] })
    const first = { detail: { of: news.state.pausedFor!.id } }
    expect(() => admit(DEFAULTS, more, event(4, 'resumed', undefined, first))).toThrow(
      'come in meanwhile',
    )
    const on = admit(DEFAULTS, more, { ...event(4, 'resumed'), ...resume(more.state) })
    expect([on.state.status, on.state.pausedFor]).toEqual(['running', undefined])
    expect(admit(DEFAULTS, on, event(5, 'paused')).state.pausedFor).toBeUndefined()
  })
})

describe('the rules of the chair', () => {
  const upTo = (kinds: number) => replayLive(PLAN, played().slice(0, kinds))

  it('lets no towel lie before the client was asked, nor while it is too hot', () => {
    const out = upTo(2)
    const at = out.state.lastAtMs
    const lay = (atMs: number) => event(out.state.seq + 1, 'towel-laid', 'prepare:towel', { atMs })
    expect(() => admit(DEFAULTS, out, lay(at + 600_000))).toThrow('Ask the client first')
    const asked = admit(
      DEFAULTS,
      out,
      event(3, 'towel-asked', 'prepare:towel', { atMs: at + 1000 }),
    )
    const later = (ms: number) => ({ ...lay(at + ms), seq: asked.state.seq + 1 })
    expect(() => admit(DEFAULTS, asked, later(20_000))).toThrow('too hot')
    expect(
      admit(DEFAULTS, asked, later(600_000)).state.towels['prepare:towel']!.laidAtMs,
    ).toBeDefined()
    // The wrist decides once even a slow towel is below what harms, and then at once.
    const felt = (ms: number) => event(4, 'towel-wrist', 'prepare:towel', { atMs: at + ms })
    expect(() => admit(DEFAULTS, asked, felt(60_000))).toThrow('Not yet')
    const wrist = admit(DEFAULTS, asked, felt(360_000))
    expect(
      admit(DEFAULTS, wrist, { ...lay(at + 361_000), seq: 5 }).state.towels['prepare:towel']!
        .laidAtMs,
    ).toBeDefined()
    // What the probe shows afterwards counts for more than the wrist.
    const detail = { tempC: 52, withinC: 0.4 }
    const read = admit(
      DEFAULTS,
      wrist,
      event(5, 'towel-read', 'prepare:towel', { atMs: at + 361_000, detail }),
    )
    expect(() => admit(DEFAULTS, read, { ...lay(at + 362_000), seq: 6 })).toThrow('too hot')
    expect(() => admit(DEFAULTS, asked, event(4, 'done', 'prepare:towel'))).toThrow('not been laid')
    expect(admit(DEFAULTS, asked, event(4, 'skipped', 'prepare:towel')).state.index).toBe(1)
  })

  it('takes no stroke before a fresh blade was opened, and no end before blades are binned', () => {
    const atChin = upTo(6)
    expect(atChin.plan.steps[atChin.state.index]!.id).toBe('chin:1:a')
    expect(() => admit(DEFAULTS, atChin, event(7, 'done', 'chin:1:a'))).toThrow(
      'one blade is for one person',
    )
    const all = upTo(11)
    expect(() => admit(DEFAULTS, all, event(12, 'finished'))).toThrow('sharps box')
  })

  it('asks for another blade after a tug, and for lather where it has dried', () => {
    let live = upTo(7)
    const now = live.state.lastAtMs
    expect(nextPress(DEFAULTS, live, now, 400).draft!.kind).toBe('done')
    live = admit(DEFAULTS, live, event(8, 'tug', 'chin:1:a', { atMs: now }))
    expect(nextPress(DEFAULTS, live, now, 400).draft).toMatchObject({
      kind: 'blade-changed',
      detail: { why: 'tug' },
    })
    live = admit(
      DEFAULTS,
      live,
      event(9, 'blade-changed', 'chin:1:a', { atMs: now, detail: { why: 'tug' } }),
    )
    expect(live.state.blades.map((b) => b.end)).toEqual(['tug', undefined])
    expect(nextPress(DEFAULTS, live, now, 400).draft!.kind).toBe('done')
    const dry = now + 7 * 60_000
    expect(nextPress(DEFAULTS, live, dry, 400).draft!.kind).toBe('re-lathered')
    live = admit(DEFAULTS, live, event(10, 're-lathered', 'chin:1:a', { atMs: dry }))
    expect(nextPress(DEFAULTS, live, dry, 400).draft!.kind).toBe('done')
  })

  it('leads any service that is possible to its end by presses alone', () => {
    fc.assert(
      fc.property(possible, ({ events }) => {
        let live = replayLive(PLAN, events)
        let clock = live.state.lastAtMs
        for (let i = 0; i < 60 && live.state.status !== 'finished'; i++) {
          const press = nextPress(DEFAULTS, live, clock, 400)
          clock += press.waitMs ?? 5000
          if (!press.draft) continue
          const { kind, stepId, detail } = press.draft
          live = admit(DEFAULTS, live, {
            ...event(live.state.seq + 1, kind, stepId),
            atMs: clock,
            detail,
          })
        }
        expect(live.state.status).toBe('finished')
      }),
    )
  })
})

describe('changing the rest', () => {
  const rest = (after: number, steps: readonly PlanStep[]) => ({
    detail: { amendment: { text: 'gentler', after, steps, lanes: [], covers: [] } },
  })

  it('keeps what is done and follows the new rest', () => {
    const live = replayLive(PLAN, played().slice(0, 8))
    expect(live.state.outcomes['chin:1:a']).toBe('done')
    const next = advance(live, event(9, 'amended', undefined, rest(3, STEPS.slice(4))))
    expect(next.plan.steps.map((s) => s.id)).toEqual([
      'prepare:towel',
      'prepare:lather',
      'chin:1:a',
      'check',
      'close:soothe',
    ])
    expect(next.state).toMatchObject({ index: 3, amendments: [{ text: 'gentler' }] })
  })

  it.each([
    ['worked out before a step was done', rest(2, STEPS.slice(4)), 'moved on'],
    ['doing again what is done', rest(3, STEPS.slice(2)), 'does not fit'],
    ['with a lane nobody knows', rest(3, [{ ...STEPS[3]!, laneId: 'x' }]), 'does not fit'],
  ])('refuses one %s', (_name, more, sentence) => {
    const live = replayLive(PLAN, played().slice(0, 8))
    expect(() => advance(live, event(9, 'amended', undefined, more))).toThrow(sentence)
  })
})

describe('what a service leaves', () => {
  it('counts the load of passes that were done', () => {
    const zones = [
      {
        zoneId: 'chin',
        passes: [
          { pass: 1, load: 1 },
          { pass: 2, load: 1.6 },
        ],
      },
    ] as never
    expect(executedLoads({ zones, lanes: [] }, { 'chin:1': 'done', 'chin:2': 'skipped' })).toEqual({
      chin: 1,
    })
    expect(executedLoads({ zones, lanes: [] }, { 'chin:1': 'done', 'chin:2': 'done' })).toEqual({
      chin: 2.6,
    })
    expect(executedLoads({ zones, lanes: [] }, {})).toEqual({})
  })
})
