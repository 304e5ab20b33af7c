import { joinThree } from '../merge/index.ts'
import { ANSWER_MANNER, ASKED_MANNER, CLIENT_MANNER, moreCareful } from './joining.ts'

const look = (source: string, atMs: number, ...zones: [string, number][]) => ({
  source,
  atMs,
  zones: zones.map(([zoneId, redness]) => ({ zoneId, redness, bumps: 0 })),
  feeling: {},
})
const NOTHING = look('seen', 0)

it('what the client told in alarm is not hushed by a worker’s entry that did not know of it', () => {
  const told = { ...look('client', 50, ['chin', 4]), feeling: { spreading: true, stinging: 9 } }
  const { value, differ } = joinThree(NOTHING, look('seen', 40, ['chin', 1]), told, ANSWER_MANNER)
  expect(value).toMatchObject({ source: 'client', atMs: 50, feeling: told.feeling })
  expect(value.zones[0]!.redness).toBe(4)
  // Both are told of the zone; of the source and the hour nobody is asked.
  expect(differ.map((d) => d.path)).toEqual([['zones', 'chin', 'redness']])
  const other = joinThree(NOTHING, told, look('seen', 60, ['chin', 1]), ANSWER_MANNER).value
  expect(other).toMatchObject({ source: 'client', atMs: 60, feeling: told.feeling })
})

it('of two answers the one that waits longer holds, whichever arrives first', () => {
  const asked = (over: object) => ({ answers: {}, spots: [], ...over })
  const test = (result: string) => ({ patchTest: { zoneId: 'chin', result } })
  const both = (a: object, b: object) =>
    [
      [a, b],
      [b, a],
    ].map(([x, y]) => joinThree(asked({}), asked(x!), asked(y!), ASKED_MANNER).value)
  for (const v of both(test('reacted'), test('calm'))) expect(v).toMatchObject(test('reacted'))
  const peel = (date: string) => ({ answers: { peel: { yes: true, date } } })
  for (const v of both(peel('2026-11-02'), peel('2026-11-20')))
    expect(v).toMatchObject(peel('2026-11-20'))
  const said = (word: string) => ({ clinician: { who: 'Dr', on: '2026-11-01', said: word } })
  for (const v of both(said('yes'), said('no'))) expect(v).toMatchObject(said('no'))
})

it('a mark that one took out and the other changed stays; the more reactive skin holds', () => {
  const mole = { id: 'a', kind: 'mole', radiusMm: 2 }
  const was = { answers: {}, spots: [mole] }
  const larger = { ...was, spots: [{ ...mole, radiusMm: 5 }] }
  const gone = { ...was, spots: [] }
  for (const [mine, theirs] of [
    [gone, larger],
    [larger, gone],
  ])
    expect(joinThree(was, mine!, theirs, ASKED_MANNER).value.spots).toHaveLength(1)
  const skin = (reactivity: string) => ({ skin: { reactivity } })
  for (const [mine, theirs] of [
    ['tough', 'reactive'],
    ['reactive', 'tough'],
  ])
    expect(
      joinThree(skin('average'), skin(mine!), skin(theirs!), CLIENT_MANNER).value.skin.reactivity,
    ).toBe('reactive')
})

it('never calls both of two words the more careful', () => {
  for (const [a, b, path] of [
    [true, false, ['yes']],
    [3, 1, ['redness']],
    ['open', 'scab', ['nicks', 'n1']],
    ['Ada', 'Bea', ['name']],
    [undefined, 1, ['x']],
  ] as const) {
    expect([moreCareful(a, b, path), moreCareful(b, a, path)]).not.toEqual([true, true])
  }
})
