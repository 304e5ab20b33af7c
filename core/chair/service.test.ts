import fc from 'fast-check'
import type { PlanStep } from '../plan/types.ts'
import {
  applyEvent,
  BEFORE_START,
  latherLeftMs,
  replay,
  type ChairEvent,
  type ChairEventKind,
} from './service.ts'
import { executedLoads } from './outcome.ts'

const STEPS: PlanStep[] = [
  { id: 'prepare:lather', kind: 'prepare', title: 'Lather', text: '', minutes: 2 },
  { id: 'chin:1', kind: 'stroke', title: 'Chin', text: '', minutes: 1, strokes: 30 },
  { id: 'jaw-left:1', kind: 'stroke', title: 'Jaw', text: '', minutes: 1, strokes: 20 },
  { id: 'close:soothe', kind: 'close', title: 'Soothe', text: '', minutes: 2 },
]
const PLAN = { steps: STEPS }
const event = (
  seq: number,
  kind: ChairEventKind,
  stepId?: string,
  reason?: string,
): ChairEvent => ({
  id: `e${seq}`,
  seq,
  kind,
  atMs: seq * 1000,
  stepId,
  reason,
})

/** A possible service: at each point something that may happen there. */
const possible = fc
  .array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 40 })
  .map((choices) => {
    const events = [event(1, 'started')]
    let state = applyEvent(PLAN, BEFORE_START, events[0]!)
    for (const c of choices) {
      if (state.status !== 'running') break
      const seq = events.length + 1
      const step = STEPS[state.index]
      const next =
        c === 0 && state.index > 0
          ? event(seq, 'back')
          : !step
            ? event(seq, 'finished')
            : c === 1
              ? event(seq, 'nick', step.id)
              : c === 2
                ? event(seq, 'tug', step.id)
                : c === 3
                  ? event(seq, 'blade-changed', step.id)
                  : c === 4
                    ? event(seq, 'skipped', step.id, 'client asks')
                    : event(seq, 'done', step.id)
      state = applyEvent(PLAN, state, next)
      events.push(next)
    }
    return { events, state }
  })

describe('a live service', () => {
  it('goes step by step to its end', () => {
    const events = [
      event(1, 'started'),
      event(2, 'done', 'prepare:lather'),
      event(3, 'nick', 'chin:1'),
      event(4, 'done', 'chin:1'),
      event(5, 'blade-changed', 'jaw-left:1'),
      event(6, 'skipped', 'jaw-left:1', 'skin is red'),
      event(7, 'done', 'close:soothe'),
      event(8, 'finished'),
    ]
    expect(replay(PLAN, events)).toEqual({
      status: 'finished',
      index: 4,
      outcomes: {
        'prepare:lather': 'done',
        'chin:1': 'done',
        'jaw-left:1': 'skipped',
        'close:soothe': 'done',
      },
      skipReasons: { 'jaw-left:1': 'skin is red' },
      nicks: [{ stepId: 'chin:1', atMs: 3000 }],
      tugs: [],
      blade: 2,
      strokesOnBlade: 0,
      startedAtMs: 1000,
      finishedAtMs: 8000,
      seq: 8,
    })
  })

  it('goes back and takes back what the step was, strokes too', () => {
    const s = replay(PLAN, [
      event(1, 'started'),
      event(2, 'done', 'prepare:lather'),
      event(3, 'done', 'chin:1'),
      event(4, 'back'),
    ])
    expect(s).toMatchObject({ index: 1, strokesOnBlade: 0, outcomes: { 'prepare:lather': 'done' } })
  })

  it.each([
    ['before the start', [event(1, 'done', 'chin:1')], 'not been started'],
    ['started twice', [event(1, 'started'), event(2, 'started')], 'already been started'],
    ['another step', [event(1, 'started'), event(2, 'done', 'chin:1')], 'not the current one'],
    ['finished early', [event(1, 'started'), event(2, 'finished')], 'neither done nor skipped'],
    ['back from the first', [event(1, 'started'), event(2, 'back')], 'first step'],
    ['a gap', [event(1, 'started'), event(3, 'done', 'prepare:lather')], 'came before'],
  ])('refuses %s, in a sentence', (_name, events, sentence) => {
    expect(() => replay(PLAN, events)).toThrow(sentence)
  })

  it('takes nothing after the end', () => {
    const all = [...STEPS.map((s, i) => event(i + 2, 'done', s.id)), event(6, 'finished')]
    expect(() => replay(PLAN, [event(1, 'started'), ...all, event(7, 'nick')])).toThrow('finished')
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
        const first = replay(PLAN, events.slice(0, cut))
        // The second batch overlaps the first, as after a lost answer.
        expect(replay(PLAN, events.slice(Math.max(0, cut - 3)), first)).toEqual(state)
      }),
    )
  })

  it('never loses its place: the index is the number of steps settled', () => {
    fc.assert(
      fc.property(possible, ({ state }) => {
        expect(Object.keys(state.outcomes)).toHaveLength(state.index)
        expect(state.strokesOnBlade).toBeGreaterThanOrEqual(0)
      }),
    )
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

  it('knows when the lather dries', () => {
    expect(latherLeftMs([], 0, 360_000)).toBeUndefined()
    const laid = [event(1, 'started'), event(2, 'done', 'prepare:lather')]
    expect(latherLeftMs(laid, 62_000, 360_000)).toBe(300_000)
    expect(latherLeftMs([...laid, event(3, 'done', 'lather:2')], 603_000, 360_000)).toBe(-240_000)
  })
})
