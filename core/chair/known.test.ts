/** What is known reaches the hand: guesses are felt, redness is looked at, what was wrong is taken back, nothing stays open. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { flowOf, planInput } from '../testing/plan.ts'
import { bearingOf, directionOf, type Vec3 } from '../head/index.ts'
import { readingFromBearing, toFieldReading, relationToGrain, strokeAngle } from '../grain/index.ts'
import { makePlan } from '../plan/index.ts'
import { ZONES } from '../testing/head.ts'
import { finishService } from '../visit/index.ts'
import { stepOf as step, tell, through } from '../testing/chair.ts'
import { NEW_SKIN, SKIN } from '../testing/client.ts'
import { ALWAYS_OPEN } from '../time/index.ts'
import { carePlan, careText, messagesFor } from '../care/index.ts'
import { feltTurns, toFeel } from './feel.ts'
import { leftOpenSince } from './leftOpen.ts'
import { zonesToLookAt } from './outcome.ts'
import { play } from './play.ts'
import { replan } from './replan.ts'
import { nextPress } from './rules.ts'
import { begin, type Live } from './state.ts'
import { elapsedMs, replay } from './service.ts'
import { LEFT_OPEN } from './kinds/flow.ts'
import type { ChairEvent } from './events.ts'

const press = (live: Live) => nextPress(DEFAULTS, live, live.state.lastAtMs + 1000, 400)
const HOUR = 3_600_000
const finish = ({ plan, state }: Live) =>
  finishService(
    DEFAULTS,
    {
      plan,
      state,
      skin: SKIN,
      calledName: '',
      products: [],
      answers: [],
      hair: [],
      skinOf: NEW_SKIN,
    },
    { name: 'Lantern Quay', products: [], closed: ALWAYS_OPEN },
    String,
    0,
  )

const READ = ZONES.flatMap((z) =>
  [z.centre, ...z.samples.slice(0, 6)].map((at, i) =>
    readingFromBearing(z.id, at, Math.PI, { id: `${z.id}${i}`, method: 'felt', atMs: 0 }),
  ),
)
const INPUT = planInput({ readings: READ })
const PLAN = makePlan(INPUT)
const GUESSED = makePlan(planInput({}))
const started = (plan = PLAN) => tell(begin(plan), { kind: 'started' }, 1000)

describe('feel first', () => {
  it('is a step of its own before the first lane of each zone that was not read, and of no other', () => {
    expect(PLAN.steps.some((s) => s.kind === 'feel')).toBe(false)
    const felt = GUESSED.steps.filter((s) => s.kind === 'feel').map((s) => s.zoneId)
    expect(felt).toEqual([...new Set(GUESSED.lanes.map((l) => l.zoneId))])
    const firstTowel = GUESSED.steps.findIndex((s) => s.lays === 'towel')
    const last = GUESSED.steps.map((s) => s.kind).lastIndexOf('feel')
    expect(last).toBeLessThan(firstTowel)
  })

  it('calls a guess a guess in what is told of the stroke', () => {
    for (const s of GUESSED.steps.filter((x) => x.kind === 'stroke'))
      expect(s.text).toMatch(/by a guess/)
    for (const s of PLAN.steps.filter((x) => x.kind === 'stroke'))
      expect(s.text).not.toMatch(/guess/)
  })

  it('lets no stroke on skin that was neither read nor felt, nor the feeling be skipped', () => {
    const feel = tell(started(GUESSED), { kind: 'done', stepId: GUESSED.steps[0]!.id })
    expect(step(feel)!.kind).toBe('feel')
    expect(() => tell(feel, { kind: 'done', stepId: step(feel)!.id })).toThrow('felt to grow')
    expect(() => tell(feel, { kind: 'skipped', stepId: step(feel)!.id, reason: 'x' })).toThrow(
      'feel it, or leave the whole zone out',
    )
    const first = GUESSED.steps.findIndex((s) => s.kind === 'stroke')
    const unfelt: Live = { plan: GUESSED, state: { ...feel.state, index: first } }
    const blade = tell(unfelt, press(unfelt).draft!)
    expect(() => tell(blade, { kind: 'done', stepId: step(blade)!.id })).toThrow('Feel it first')
  })

  it('goes on as planned where the guess was right, by presses alone', () => {
    const end = through(started(GUESSED), (l) => l.state.status === 'finished')
    expect(end.state.status).toBe('finished')
    expect(Object.keys(end.state.felt)).toHaveLength(
      GUESSED.steps.filter((s) => s.kind === 'feel').length,
    )
  })

  it('lays the zone anew by what was felt, and lets nobody stroke it before', () => {
    const zoneId = 'chin'
    const before = through(started(GUESSED), (l) => step(l)?.id === `feel:${zoneId}`)
    const guess = toFeel(before.plan, zoneId)!
    const bearing = bearingOf(zoneId, guess.point, guess.normal, guess.tangent)
    const tangent = directionOf(zoneId, guess.point, guess.normal, bearing + Math.PI / 2)
    const felt = { ...guess, tangent }
    expect(feltTurns(DEFAULTS, before.plan, zoneId, guess)).toBe(false)
    expect(feltTurns(DEFAULTS, before.plan, zoneId, felt)).toBe(true)
    const told = tell(before, { kind: 'felt', stepId: `feel:${zoneId}`, detail: felt })
    expect(told.state.felt[zoneId]!.tangent).toEqual(tangent)
    // As laid by the guess it may not be stroked.
    const lane = GUESSED.lanes.find((l) => l.zoneId === zoneId && l.pass === 1)!
    const at = GUESSED.steps.findIndex((s) => s.id === lane.stepId)
    const there: Live = { plan: told.plan, state: { ...told.state, index: at } }
    const open = tell(there, { kind: 'blade-opened', detail: { bladeId: lane.bladeId } })
    expect(() => tell(open, { kind: 'done', stepId: lane.stepId! })).toThrow('Lay the zone anew')
    // Laid anew: every new lane keeps its relation to what was felt.
    const reading = toFieldReading(DEFAULTS, { id: 'f', method: 'felt', atMs: 0, ...felt }, 0)
    const input = { ...planInput({}), flow: flowOf([reading]) }
    const { amendment } = replan(input, told, { kind: 'felt', zoneId })
    const after = tell(told, { kind: 'amended', detail: { amendment } })
    const lanes = after.plan.lanes.filter(
      (l) => l.zoneId === zoneId && after.plan.steps.some((s) => s.id === l.stepId),
    )
    expect(lanes.length).toBeGreaterThan(0)
    for (const l of lanes) expect(l.grain).toBe('read')
    const far = (l: (typeof lanes)[number]) =>
      Math.hypot(...l.point.map((c, k) => c - felt.point[k]!))
    const near = lanes.filter((l) => l.pass === 1).sort((a, b) => far(a) - far(b))[0]!
    const feltBearing = bearingOf(zoneId, felt.point, felt.normal, felt.tangent)
    expect(relationToGrain(DEFAULTS, strokeAngle(near.strokeBearing, feltBearing))).toBe('with')
    expect(through(after, (l) => l.state.status === 'finished').state.status).toBe('finished')
  })

  it('takes no rest planned anew that calls a guess read, or works skin that was not planned', () => {
    const at = started(GUESSED)
    const rest = (lanes: typeof GUESSED.lanes) => ({
      kind: 'amended' as const,
      detail: { amendment: { text: 'x', after: 0, steps: GUESSED.steps, lanes, covers: [] } },
    })
    expect(tell(at, rest(GUESSED.lanes)).state.amendments).toHaveLength(1)
    const sure = GUESSED.lanes.map((l) => ({ ...l, grain: 'read' as const }))
    expect(() => tell(at, rest(sure))).toThrow('that lane is a guess too')
    const strange = { ...GUESSED.lanes[0]!, id: 'occiput:1:a', zoneId: 'occiput' as never }
    expect(() => tell(at, rest([...GUESSED.lanes, strange]))).toThrow('no part of the plan')
  })

  it('is no direction without one', () => {
    const at = tell(started(GUESSED), { kind: 'done', stepId: GUESSED.steps[0]!.id })
    const draft = press(at).draft!
    const nowhere = { ...draft, detail: { ...draft.detail!, tangent: [0, 0, 0] as const } }
    expect(() => tell(at, nowhere)).toThrow('Nobody said which way')
  })

  it('is felt once more when one goes back', () => {
    const feel = tell(started(GUESSED), { kind: 'done', stepId: GUESSED.steps[0]!.id })
    const told = tell(feel, press(feel).draft!)
    const back = tell(told, { kind: 'back' })
    expect(back.state.felt).toEqual({})
    expect(step(back)!.id).toBe(step(feel)!.id)
  })
})

describe('redness and nicks at the chair', () => {
  const atStroke = through(started(), (l) => step(l)?.zoneId === 'chin')
  const red = tell(atStroke, { kind: 'redness', detail: { zoneId: 'chin', grade: 3 } })
  const nicked = tell(red, { kind: 'nick', stepId: step(red)!.id })

  it('are what the main key of the first look keeps; "all clear" is not offered', () => {
    const look = through(nicked, (l) => nextPress(DEFAULTS, l, 0, 400).draft?.kind === 'looked')
    const main = nextPress(DEFAULTS, look, 0, 400)
    expect(main.words).toBe('Keep this reading')
    expect(main.draft!.detail!.zones).toEqual([{ zoneId: 'chin', redness: 3 }])
    const calm = through(started(), (l) => nextPress(DEFAULTS, l, 0, 400).draft?.kind === 'looked')
    expect(nextPress(DEFAULTS, calm, 0, 400).words).toBe('All clear')
  })

  it('give no load where no blade was planned', () => {
    const at = through(started(), (l) => step(l)?.kind === 'stroke')
    const red = tell(at, { kind: 'redness', detail: { zoneId: 'occiput' as never, grade: 2 } })
    const end = through(red, (l) => l.state.status === 'finished')
    const { jobs, atChair } = finish(end)
    const { loads } = jobs[0]!
    expect(atChair.redness).toEqual({ occiput: 2 })
    expect(loads).not.toHaveProperty('occiput')
    expect(zonesToLookAt(end.plan, loads, atChair)).toContain('occiput')
  })

  it('stand in what is kept of the service, in the care sheet and in the messages', () => {
    // The chin is left from here on.
    const { amendment } = replan(INPUT, nicked, {
      kind: 'gentler',
      zoneId: 'chin',
      leaveZone: true,
    })
    const left = tell(nicked, { kind: 'amended', detail: { amendment } })
    const end = through(left, (l) => l.state.status === 'finished')
    const kept = finish(end)
    expect(kept.atChair).toEqual({
      redness: { chin: 3 },
      leftOut: { chin: 'it reddened' },
      nicks: { chin: 1 },
    })
    // A zone that was left out is looked at all the same, and what reddened counts for learning.
    expect(zonesToLookAt(end.plan, kept.jobs[0]!.loads, kept.atChair)).toContain('chin')
    expect(kept.jobs[0]!.loads['chin']).toBeGreaterThanOrEqual(1)
    expect(kept.summary.worstRedness).toBe(3)
    expect(kept.firstLook!.zones).toEqual([{ zoneId: 'chin', redness: 3, bumps: 0 }])
    const care = carePlan(DEFAULTS, 'face-shave', SKIN, DEFAULT_SCHOOLS, false, 0, {
      atChair: kept.atChair,
    })
    expect(care.today.join(' ')).toMatch(
      /Reddened today: moderate on the chin.*nick on the chin.*Left out today: the chin/,
    )
    expect(care.clearances.find((c) => c.id === 'reddened')!.title).toMatch(
      /plain balm on the chin/,
    )
    const when = (ms: number) => String(ms)
    expect(careText(care, 'Ada', 'Shave', when)).toMatch(/Reddened today/)
    const drafts = messagesFor({
      care,
      what: 'Hot-towel face shave',
      name: 'Ada',
      house: 'H',
      when,
      offset: () => 0,
    })
    expect(drafts.every((d) => d.text.includes('Reddened today'))).toBe(true)
  })
})

describe('what was wrongly recorded', () => {
  const atStroke = through(started(), (l) => step(l)?.kind === 'stroke')

  it('is taken back: a nick, redness; once, and nothing else', () => {
    const nick = tell(atStroke, { kind: 'nick', stepId: step(atStroke)!.id })
    const red = tell(nick, { kind: 'redness', detail: { zoneId: 'chin', grade: 2 } })
    const nickId = red.state.nicks[0]!.id
    const redId = red.state.redness[0]!.id
    const back = tell(tell(red, { kind: 'taken-back', detail: { of: nickId } }), {
      kind: 'taken-back',
      detail: { of: redId },
    })
    expect(back.state).toMatchObject({ nicks: [], redness: [], takenBack: [nickId, redId] })
    expect(() => tell(back, { kind: 'taken-back', detail: { of: nickId } })).toThrow('each once')
    expect(() => tell(back, { kind: 'taken-back', detail: { of: 'p1' } })).toThrow('Only a nick')
  })

  it('is taken back after the end too', () => {
    const nick = tell(atStroke, { kind: 'nick', stepId: step(atStroke)!.id })
    const end = through(nick, (l) => l.state.status === 'finished')
    const of = end.state.nicks[0]!.id
    const back = tell(end, { kind: 'taken-back', detail: { of } }, end.state.lastAtMs + 9 * HOUR)
    expect(back.state.nicks).toEqual([])
    expect(back.state.finishedAtMs).toBe(end.state.finishedAtMs)
    expect(back.state.spentMs).toBe(end.state.spentMs)
    expect(finish(back).atChair.nicks).toEqual({})
  })

  it('is a start, while no blade was opened; then it can be started again', () => {
    const begun = tell(started(), { kind: 'done', stepId: PLAN.steps[0]!.id })
    const of = begun.state.startId!
    const back = tell(begun, { kind: 'taken-back', detail: { of } })
    expect(back.state).toMatchObject({ status: 'waiting', index: 0, outcomes: {}, spentMs: 0 })
    expect(tell(back, { kind: 'started' }, 9000).state.status).toBe('running')
    const blade = tell(atStroke, press(atStroke).draft!)
    expect(() => tell(blade, { kind: 'taken-back', detail: { of: blade.state.startId! } })).toThrow(
      'end the service instead',
    )
  })
})

describe('a service left open', () => {
  const at = through(started(), (l) => step(l)?.kind === 'stroke')
  const open = tell(at, press(at).draft!)
  const morning = open.state.lastAtMs + 16 * HOUR

  it('is one in which nothing happened for hours', () => {
    expect(leftOpenSince(DEFAULTS, open.state, open.state.lastAtMs + HOUR)).toBeUndefined()
    expect(leftOpenSince(DEFAULTS, open.state, morning)).toBe(open.state.lastAtMs)
    const end = through(open, (l) => l.state.status === 'finished')
    expect(leftOpenSince(DEFAULTS, end.state, morning + 100 * HOUR)).toBeUndefined()
  })

  it('is ended as of its last event: what was not reached was not done, no time is added', () => {
    const end = tell(open, { kind: 'ended-late' }, morning)
    expect(end.state).toMatchObject({
      status: 'finished',
      finishedAtMs: open.state.lastAtMs,
      spentMs: open.state.spentMs,
    })
    expect(elapsedMs(end.state, morning)).toBe(open.state.spentMs)
    expect(end.state.blades.every((b) => b.end === 'end')).toBe(true)
    const left = PLAN.steps.slice(open.state.index).map((s) => end.state.skipReasons[s.id])
    expect(new Set(left)).toEqual(new Set([LEFT_OPEN]))
  })

  it('is not what is going on', () => {
    expect(() => tell(open, { kind: 'ended-late' })).toThrow('going on')
  })
})

describe('a missed patch', () => {
  it('that is left stays in the record', () => {
    const at = through(started(), (l) => step(l)?.kind === 'check')
    const patches = [{ zoneId: 'chin' as const, point: [0, 0, 0] as Vec3 }]
    const left = tell(at, { kind: 'patches-left', detail: { patches } })
    expect(left.state.patchesLeft).toEqual(patches)
    expect(step(left)!.kind).toBe('check')
  })
})

it('every kind of event replays to the same state in any order of arrival', () => {
  let id = 0
  const events: ChairEvent[] = play(DEFAULTS, GUESSED, {
    startMs: 0,
    bladeLife: 400,
    screen: 's',
    newId: () => `p${id++}`,
  })
  const shuffled = [...events].sort((a, b) => ((a.seq * 7919) % 101) - ((b.seq * 7919) % 101))
  expect(replay(GUESSED, [...shuffled, ...events.slice(3, 9)])).toEqual(replay(GUESSED, events))
})
