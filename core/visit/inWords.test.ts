/** A visit in words: what the service came to, told against its plan, and nothing called clear that nobody looked at. */
import { begin, play, replayLive, type Draft } from '../chair/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { groupsOf, makePlan } from '../plan/index.ts'
import { NOTHING_AT_CHAIR } from '../looks/index.ts'
import { RULES } from '../screening/index.ts'
import { planInput } from '../testing/plan.ts'
import { DAY_MS } from '../time/index.ts'
import { askedInWords, serviceInWords, visitInWords, type VisitInWords } from './inWords.ts'

const PLAN = makePlan(planInput())

/** A whole service, with what happens before its first stroke. */
function served(besides: readonly Draft[] = []) {
  let [n, told] = [0, false]
  const events = play(DEFAULTS, PLAN, {
    ...{ startMs: 0, bladeLife: 400, screen: 's', newId: () => `e${++n}` },
    besides: ({ plan, state }) => {
      if (told || plan.steps[state.index]?.kind !== 'stroke') return []
      told = true
      return besides
    },
  })
  return replayLive(PLAN, events, begin(PLAN)).state
}
const CALM = served()
const words = (list: readonly { name: string; words: string; beside?: string }[], name: string) =>
  list.find((r) => r.name === name)!
const visit = (over: Partial<VisitInWords> = {}): VisitInWords => ({
  ...{ plan: PLAN, chair: CALM, endedAtMs: 0, loads: { chin: 2 }, answers: [], readings: [] },
  ...{ atChair: NOTHING_AT_CHAIR, ...over },
})
const look = (zones: { zoneId: 'chin'; redness: number; bumps: number }[], days: number) => ({
  ...{ moment: days === 1 ? ('24h' as const) : ('7d' as const), atMs: days * DAY_MS, zones },
})

describe('a finished service', () => {
  it('of calm skin: in the time it took, every lane done, the first look clear', () => {
    const told = serviceInWords(PLAN, CALM)
    expect(words(told, 'Time')).toEqual({
      ...{ name: 'Time', words: `${Math.round(CALM.spentMs / 60_000)} min` },
      beside: `planned ${Math.round(PLAN.totalMinutes)} min`,
    })
    expect(words(told, 'Blades').beside).toBe(`planned ${PLAN.bladeCount}`)
    expect(['Nicks', 'Skipped', 'First look'].map((n) => words(told, n).words)).toEqual([
      ...['0', '0', 'clear'],
    ])
    expect(words(told, 'First look').beside).toBeUndefined()
  })

  it('of skin that reddened and bled: the worst grade, where, and the nicks', () => {
    const told = serviceInWords(
      PLAN,
      served([
        { kind: 'redness', detail: { zoneId: 'chin', grade: 3 } },
        { kind: 'redness', detail: { zoneId: 'jaw-left', grade: 1 } },
        { kind: 'nick', detail: { zoneId: 'chin' } },
      ]),
    )
    expect(words(told, 'First look').words).toBe('grade 3')
    expect(words(told, 'First look').beside).toContain('Chin')
    expect(words(told, 'First look').beside).toContain('Jaw')
    expect(words(told, 'Nicks').words).toBe('1')
  })

  it('that nobody looked at is not called clear', () => {
    const told = serviceInWords(PLAN, { ...CALM, looked: undefined })
    expect(words(told, 'First look').words).toBe('not read')
  })
})

describe('a visit beside another', () => {
  it('tells map, plan, lanes and blades', () => {
    const told = visitInWords(DEFAULTS, visit())
    const lanes = groupsOf(PLAN.lanes).length
    expect(words(told, 'Map').words).toBe('0 readings')
    expect(words(told, 'Plan').words).toMatch(/^\d+ min, (one pass|up to \d passes), balanced$/)
    expect(words(told, 'Lanes').words).toBe(`${lanes} of ${lanes} done`)
    expect(words(told, 'Blades').words).toMatch(/^\d+ used: \w/)
  })

  it('counts what was left out', () => {
    const groups = groupsOf(PLAN.lanes)
    const [first] = groups
    const chair = { ...CALM, outcomes: { ...CALM.outcomes, [first!.id]: 'skipped' as const } }
    const told = visitInWords(DEFAULTS, visit({ chair }))
    expect(words(told, 'Lanes').words).toBe(
      `${groups.length - 1} of ${groups.length} done, 1 left out`,
    )
  })

  it('without a plan says so, and claims no lanes', () => {
    const told = visitInWords(DEFAULTS, visit({ plan: null }))
    expect([words(told, 'Plan').words, words(told, 'Lanes').words]).toEqual(['none', '–'])
  })

  it('tells redness and bumps of those who answered; no answer is not clear', () => {
    const silent = visitInWords(DEFAULTS, visit())
    expect(words(silent, 'Redness').words).toBe('not answered')
    expect(words(silent, 'Bumps').words).toBe('not counted')
    const chin = { zoneId: 'chin' as const, redness: 2, bumps: 0 }
    const answers = [look([chin], 1), look([{ ...chin, redness: 0, bumps: 4 }], 7)]
    const told = visitInWords(DEFAULTS, visit({ answers }))
    expect(words(told, 'Redness').words).toBe('worst 2')
    expect(words(told, 'Bumps').words).toBe('4')
    // While it runs nothing of it is known.
    const running = visitInWords(DEFAULTS, visit({ answers, endedAtMs: null }))
    expect(words(running, 'Redness').words).toBe('not answered')
  })

  it('tells the worst stinging of all looks', () => {
    const stung = (stinging: number, days: number) => ({ ...look([], days), feeling: { stinging } })
    const told = visitInWords(DEFAULTS, visit({ answers: [stung(2, 1), stung(7, 7)] }))
    expect(words(told, 'Felt').words).toBe('stung up to 7 of 10')
    expect(words(visitInWords(DEFAULTS, visit()), 'Felt').words).toBe('–')
  })
})

describe('what asking found', () => {
  const none = Object.fromEntries(RULES.map((r) => [r.id, { yes: false }]))

  it('is nothing only where somebody was asked', () => {
    expect(askedInWords({ answers: none, spots: [] })).toMatch(/^Nothing was found by asking/)
    expect(askedInWords({ answers: {}, spots: [] })).toContain('that is not "no"')
    expect(askedInWords(undefined)).toContain('once a visit is finished')
  })

  it('names each answer that is a yes, with its day where one was told', () => {
    const [a, b] = RULES
    const answers = { ...none, [a!.id]: { yes: true }, [b!.id]: { yes: true, date: '2026-05-02' } }
    const words = askedInWords({ answers: answers, spots: [] })
    for (const rule of [a, b]) expect(words.toLowerCase()).toContain(rule!.short.toLowerCase())
    expect(words).toContain('(2026-05-02)')
    expect(words.split(';')).toHaveLength(2)
  })
})
