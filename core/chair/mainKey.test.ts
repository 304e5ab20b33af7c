/** The main key leads through a service by itself, and never does what the screen does not say. */
import { DEFAULTS } from '../house/index.ts'
import { makePlan } from '../plan/index.ts'
import { BLADE_LIFE, stepOf, tell, through } from '../testing/chair.ts'
import { planInput } from '../testing/plan.ts'
import { toFeel, turnedFelt } from './feel.ts'
import {
  lookedZones,
  pressNow,
  spokenWords,
  withTold,
  type OnScreen,
  type Tapped,
} from './mainKey.ts'
import { nextPress, resume } from './rules.ts'
import { begin, type Live } from './state.ts'

const SHAVE = makePlan(planInput())
const FUZZ = makePlan(planInput({ service: 'dermaplane' }))
const QUIET: OnScreen = { held: undefined, laying: false, patches: 0, missed: { pending: false } }
const NONE: Tapped = { zones: [], grades: {} }
const press = (live: Live, over: Partial<OnScreen> = {}, atMs = live.state.lastAtMs + 1000) =>
  pressNow(DEFAULTS, live, atMs, BLADE_LIFE, { ...QUIET, ...over })
const plain = (live: Live, atMs = live.state.lastAtMs + 1000) =>
  nextPress(DEFAULTS, live, atMs, BLADE_LIFE)
const started = (plan = SHAVE) => tell(begin(plan), { kind: 'started' }, 1000)
const atCheck = (plan = SHAVE) => through(started(plan), (l) => stepOf(l)?.kind === 'check')
const atFeel = () => through(started(), (l) => stepOf(l)?.kind === 'feel')

describe('before the start', () => {
  it('begins where nothing holds it back', () => {
    expect(press(begin(SHAVE))).toEqual({ words: 'Begin', draft: { kind: 'started' } })
  })

  it('does nothing while something does, whatever else is tapped', () => {
    for (const patches of [0, 3]) {
      const held = press(begin(SHAVE), { held: 'Ask first.', patches })
      expect(held.words).toBe('Not yet')
      expect(held.draft).toBeUndefined()
    }
  })
})

describe('under way', () => {
  it('is what the service says as long as the screen knows nothing besides', () => {
    let live = started()
    for (let i = 0; i < 60 && live.state.status === 'running'; i++) {
      const now = live.state.lastAtMs + 15_000
      expect(press(live, {}, now)).toEqual(plain(live, now))
      const { draft, waitMs } = plain(live, now)
      live = draft
        ? tell(live, draft, now)
        : { ...live, state: { ...live.state, lastAtMs: now + (waitMs ?? 0) } }
    }
    expect(live.state.index).toBeGreaterThan(5)
  })

  it('does nothing while a zone is laid anew: no stroke goes by a direction known to be wrong', () => {
    for (const live of [started(), atFeel(), atCheck()])
      expect(press(live, { laying: true })).toEqual({ words: 'Laying the zone anew …' })
  })

  it('asks for the zone to be laid anew before a lane whose hair was felt otherwise', () => {
    const feel = atFeel()
    const guess = toFeel(feel.plan, stepOf(feel)!.zoneId)!
    const told = tell(feel, {
      kind: 'felt',
      stepId: stepOf(feel)!.id,
      detail: turnedFelt(guess, Math.PI / 2),
    })
    const lane = told.plan.lanes.find((l) => l.zoneId === guess.zoneId && l.pass === 1)!
    const index = told.plan.steps.findIndex((s) => s.laneId === lane.id)
    expect(press({ ...told, state: { ...told.state, index } }).words).toBe('Lay the zone anew')
    // Another zone, felt as it was guessed, is not held up.
    const other = told.plan.steps.findIndex((s) => s.kind === 'close')
    expect(press({ ...told, state: { ...told.state, index: other } }).words).not.toMatch(/anew/)
  })

  it('goes on after a pause only with the news that was looked at', () => {
    const paused = tell(started(), { kind: 'paused', reason: 'The client answered: severe.' })
    const { draft, words, line } = press(paused)
    expect(draft).toEqual(resume(paused.state))
    expect(draft!.detail!.of).toBe(paused.state.pausedFor!.id)
    expect(words).toBe('Looked: go on')
    expect(line).toContain('severe')
  })
})

describe('patches tapped at the second look', () => {
  const planned = (minutesBefore: number, minutesNow: number): OnScreen['missed'] => ({
    replanned: { minutesBefore, minutesNow },
    pending: false,
  })

  it('are taken in the minutes they cost, never in none', () => {
    const live = atCheck()
    expect(press(live, { patches: 1, missed: planned(3, 5.2) }).words).toBe('Take the patch, 2 min')
    expect(press(live, { patches: 3, missed: planned(3, 3.1) }).words).toBe('Take 3 patches, 1 min')
    expect(press(live, { patches: 1, missed: planned(3, 5) }).draft).toBeDefined()
  })

  it('wait until it is worked out', () => {
    const waiting = press(atCheck(), { patches: 2, missed: { pending: true } })
    expect(waiting).toEqual({ words: 'Working it out …' })
  })

  it('that cannot be taken are only left by a choice with its name', () => {
    const stuck = press(atCheck(), { patches: 2 })
    expect(stuck).toEqual({ words: 'Choose what becomes of it' })
  })

  it('of fuzz are left for the next visit: it is not gone over twice (common practice)', () => {
    expect(press(atCheck(FUZZ), { patches: 1 }).words).toBe('Leave the patch for the next visit')
    expect(press(atCheck(FUZZ), { patches: 4 }).words).toBe('Leave 4 patches for the next visit')
  })

  it('mean nothing at any other step', () => {
    const live = started()
    expect(press(live, { patches: 2 })).toEqual(plain(live))
  })
})

describe('what a press tells', () => {
  const worked = SHAVE.zones[0]!.zoneId
  const red = (live: Live, zoneId = worked, grade = 2) =>
    tell(live, { kind: 'redness', detail: { zoneId, grade } })

  it('names what reddened at the chair, tapped or not: it is not forgotten at the first look', () => {
    const live = red(started())
    expect(lookedZones(live, NONE)).toEqual([{ zoneId: worked, redness: 2 }])
    // It may have faded, or come on: the grade of now counts.
    expect(lookedZones(live, { zones: [worked], grades: { [worked]: 0 } })).toEqual([
      { zoneId: worked, redness: 0 },
    ])
  })

  it('names each tapped zone once, lightly red until it is graded, and none that was not worked', () => {
    const [a, b] = SHAVE.zones.map((z) => z.zoneId)
    const tapped: Tapped = { zones: [a!, b!, a!, 'scalp-crown'], grades: { [b!]: 3 } }
    expect(lookedZones(started(), tapped)).toEqual([
      { zoneId: a, redness: 1 },
      { zoneId: b, redness: 3 },
    ])
  })

  it('takes along what was tapped with the first look, what was felt with a feel, nothing else', () => {
    const feel = atFeel()
    const guess = toFeel(feel.plan, stepOf(feel)!.zoneId)!
    const felt = turnedFelt(guess, 0.3)
    expect(withTold(press(feel).draft, feel, NONE, felt)).toEqual({
      ...press(feel).draft,
      detail: felt,
    })
    const end = through(started(), (l) => plain(l).draft?.kind === 'looked')
    const zones = [worked]
    expect(withTold(plain(end).draft, end, { zones, grades: {} }, undefined)).toEqual({
      kind: 'looked',
      detail: { zones: [{ zoneId: worked, redness: 1 }] },
    })
    const live = started()
    expect(withTold(plain(live).draft, live, { zones, grades: {} }, guess)).toEqual(
      plain(live).draft,
    )
    expect(withTold(undefined, live, NONE, undefined)).toBeUndefined()
  })
})

describe('what is said aloud', () => {
  it('is the step with what to do, the key’s own line first', () => {
    const live = started()
    const step = stepOf(live)!
    expect(spokenWords(step, { words: 'Done, next' }, 'running')).toBe(
      `${step.title}. ${step.text}`,
    )
    expect(spokenWords(step, { words: 'Laid', line: 'Lay it now.' }, 'running')).toBe(
      `${step.title}. Lay it now.`,
    )
    expect(spokenWords(undefined, { words: 'Finish' }, 'running')).toBe('Finish. ')
  })

  it('is nothing to a client who waits or has gone, and why in a pause', () => {
    for (const status of ['waiting', 'finished'] as const)
      expect(spokenWords(stepOf(started()), { words: 'x' }, status)).toBe('')
    expect(spokenWords(undefined, { words: 'Go on' }, 'paused')).toBe('Paused.')
    expect(spokenWords(undefined, { words: 'Go on', line: 'A severe answer.' }, 'paused')).toBe(
      'Look first. A severe answer.',
    )
  })
})
