/** A newcomer's first sessions: what is expected, what the verdict is, and that it holds on skins nobody tuned to. */
import { DEFAULTS } from '../house/index.ts'
import { COURSE_WORLDS, courseHeld } from '../testing/honest/course.ts'
import { courseOf, newcomerFactor, rangeWords } from './course.ts'
import type { VisitFacts } from './facts.ts'

const SKIN = { bumpProne: true, curl: 'wavy' } as const
const visit = (n: number, over: Partial<VisitFacts> = {}): VisitFacts => ({
  ...{ visitId: `v${n}`, service: 'dermaplane', workerId: 'w', endedAtMs: n * 86_400_000 },
  ...{ loads: { chin: 1.5, 'jaw-left': 2, 'jaw-right': 2 }, worst: {}, bumps: {}, choices: null },
  ...{ products: [], routine: '', answered: ['48h'], due: null, first: n === 1 },
  ...over,
})
const verdicts = (...visits: VisitFacts[]) =>
  courseOf(DEFAULTS, SKIN, visits, [])!.sessions.map((s) => s.verdict)
const choices = (relation: 'with' | 'across', passes: number) =>
  ({
    zones: { chin: { relation, passes, tool: 'shavette', wear: 0.2, lanes: 3, nicks: 0 } },
    ...{ slip: 'dry', blade: 'b', exfoliate: 'acid' },
  }) as unknown as NonNullable<VisitFacts['choices']>

describe('the course of a newcomer', () => {
  it('is only of those who were asked and said that it is their first', () => {
    expect(courseOf(DEFAULTS, SKIN, [visit(2)], [])).toBeUndefined()
    expect(courseOf(DEFAULTS, SKIN, [visit(1)], [])?.sessions).toHaveLength(1)
  })

  it('ends after four sessions; a trial strip is none of them', () => {
    const all = [
      visit(1, { trial: true, loads: { 'jaw-left': 1 } }),
      ...[2, 3, 4, 5, 6].map((n) => visit(n)),
    ]
    const course = courseOf(DEFAULTS, SKIN, all, [])!
    expect(course.sessions.map((s) => s.nth)).toEqual([0, 1, 2, 3, 4])
    expect(course.next).toBeUndefined()
    expect(courseOf(DEFAULTS, SKIN, all.slice(0, 3), [])!.next).toBeDefined()
  })

  it('expects bumps at first and fewer later: 2.2, 1.6, 1.3 times those of later sessions', () => {
    expect([1, 2, 3].map((n) => newcomerFactor(DEFAULTS, n))).toEqual([
      2.2,
      expect.closeTo(1.6, 9),
      expect.closeTo(1.3, 9),
    ])
    const [first] = courseOf(DEFAULTS, SKIN, [visit(1)], [])!.sessions
    // 0.3 bumps a load (bump-prone), 5.5 of load, 2.2 times: by hand.
    expect(first!.expected.mean).toBeCloseTo(0.3 * 5.5 * 2.2, 9)
    expect(first!.expected.low).toBeLessThan(first!.expected.mean)
    expect(first!.expected.high).toBeGreaterThan(first!.expected.mean)
    expect(rangeWords({ mean: 1, low: 0, high: 4 })).toBe('0 to 4')
  })

  it('says go on, change one thing, stop; and nothing before anybody has told', () => {
    expect(verdicts(visit(1, { bumps: { chin: 2 } }))).toEqual(['go-on'])
    expect(verdicts(visit(1, { bumps: null }))).toEqual(['wait'])
    expect(verdicts(visit(1, { worst: null, bumps: null }))).toEqual(['wait'])
    expect(verdicts(visit(1, { bumps: { chin: 11 } }))).toEqual(['change'])
    expect(verdicts(visit(1, { worst: { chin: 3 }, bumps: null }))).toEqual(['change'])
    expect(verdicts(visit(1, { bumps: { chin: 11 } }), visit(2, { bumps: { chin: 60 } }))).toEqual([
      'change',
      'stop',
    ])
    const severe = courseOf(
      DEFAULTS,
      SKIN,
      [visit(1)],
      [
        {
          visitId: 'v1',
          answer: { moment: '24h', atMs: 1, zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] },
        },
      ],
    )!.sessions[0]!
    expect(severe).toMatchObject({ verdict: 'stop', why: expect.stringMatching(/severe.*doctor/) })
  })

  it('changes what was done hardest first, and no thing twice', () => {
    const thing = (...visits: VisitFacts[]) =>
      courseOf(DEFAULTS, SKIN, visits, [])!.sessions.at(-1)!.thing
    const many = { bumps: { chin: 11 } }
    expect(thing(visit(1, { ...many, choices: choices('across', 2) }))).toBe('with-grain')
    expect(thing(visit(1, { ...many, choices: choices('with', 2) }))).toBe('one-pass')
    expect(thing(visit(1, { worst: { chin: 3 }, choices: choices('with', 1) }))).toBe('film')
    expect(thing(visit(1, many))).toBe('wait')
    const calm = visit(2, { bumps: { chin: 1 } })
    expect(
      thing(
        visit(1, { ...many, choices: choices('across', 2) }),
        calm,
        visit(3, { bumps: { chin: 60 }, choices: choices('across', 2) }),
      ),
    ).toBe('one-pass')
  })

  it('“common in the first sessions” is said to nobody else', () => {
    const later = courseOf(DEFAULTS, SKIN, [visit(1, { bumps: { chin: 1 } })], [])!
    expect(later.sessions[0]!.why).toMatch(/Common in the first sessions/)
    expect(courseOf(DEFAULTS, SKIN, [visit(2, { bumps: { chin: 1 } })], [])).toBeUndefined()
  })

  it.each(Object.entries(COURSE_WORLDS))(
    'holds at least three of four where the truth is: %s',
    (_name, world) => {
      const { within, above } = courseHeld(7, 1500, world)
      for (const share of within) expect(share).toBeGreaterThan(0.75)
      for (const share of above) expect(share).toBeLessThan(0.24)
    },
  )

  it('where skins are as assumed, holds four of five and alarms one in ten at most', () => {
    const { within, above } = courseHeld(8, 3000, COURSE_WORLDS['as expected']!)
    for (const share of within) expect(share).toBeGreaterThan(0.8)
    for (const share of above) expect(share).toBeLessThan(0.11)
  })
})
