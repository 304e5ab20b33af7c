/** What turns (M4): whorls made on purpose are found where and as they were made; readings that clash are no whorl. */
import { DEFAULTS } from '../house/index.ts'
import { cross, tangentPart, unit, type Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { fieldGround, GrainField } from './field.ts'
import { guessReadings } from './guesses.ts'
import { turned } from './trials.ts'
import { findTurning, whorlWords, type ZonedReading } from './whorls.ts'

const GROUND = fieldGround(DEFAULTS, HEAD.solve, guessReadings(DEFAULTS, ZONES))
const MIDDLE: Vec3 = [8, 0, -66]

/** Readings in rings round a place of the crown; the angle is how far hair turns aside from straight outward. */
function rings(
  aside: number | ((round: number) => number),
  sizes: readonly (readonly [radius: number, count: number])[] = [
    [14, 6],
    [26, 8],
  ],
): ZonedReading[] {
  const middle = GROUND.locator.nearest([MIDDLE[0], 96, MIDDLE[2]])
  const at = (p: Vec3): { point: Vec3; normal: Vec3 } => {
    const { triangle, weights } = GROUND.locator.nearest(p)
    const mean = (a: ArrayLike<number>, x: number) =>
      [0, 1, 2].reduce(
        (s, k) => s + weights[k]! * a[3 * HEAD.solve.indices[3 * triangle + k]! + x]!,
        0,
      )
    return {
      point: [0, 1, 2].map((x) => mean(HEAD.solve.positions, x)) as unknown as Vec3,
      normal: unit([0, 1, 2].map((x) => mean(HEAD.solve.normals, x)) as unknown as Vec3),
    }
  }
  expect(middle.distanceMm).toBeLessThan(30)
  const centre = at([MIDDLE[0], 96, MIDDLE[2]])
  const u = unit(tangentPart([1, 0, 0], centre.normal))
  const v = cross(centre.normal, u)
  const out: ZonedReading[] = []
  for (const [radius, count] of sizes) {
    for (let i = 0; i < count; i++) {
      const a = (2 * Math.PI * i) / count
      const way: Vec3 = [0, 1, 2].map(
        (x) => Math.cos(a) * u[x]! + Math.sin(a) * v[x]!,
      ) as unknown as Vec3
      const place = at([0, 1, 2].map((x) => centre.point[x]! + radius * way[x]!) as unknown as Vec3)
      const outward = unit(tangentPart(way, place.normal))
      out.push({
        id: `${radius}:${i}`,
        ...place,
        tangent: turned(outward, place.normal, typeof aside === 'number' ? aside : aside(a)),
        weight: 1,
        zoneId: 'scalp-crown',
      })
    }
  }
  return out
}
const turning = (readings: readonly ZonedReading[]) => {
  const field = new GrainField(DEFAULTS, GROUND)
  field.setAll(readings)
  return findTurning(DEFAULTS, GROUND, field.answer(), readings, HEAD.solve.zones)
}

describe('whorls', () => {
  it.each([
    ['anticlockwise', 1.1],
    ['clockwise', -1.1],
    ['star', 0],
    ['star', Math.PI],
  ] as const)('%s is found on the crown, hair %f rad aside', (turn, aside) => {
    const found = turning(rings(aside))
    expect(found.indexSum).toBe(2)
    expect(found.disagreements).toEqual([])
    const whorls = found.whorls.filter((w) => w.kind === 'whorl')
    expect(whorls).toHaveLength(1)
    expect(whorls[0]!.turn).toBe(turn)
    expect(
      Math.hypot(whorls[0]!.point[0] - MIDDLE[0], whorls[0]!.point[2] - MIDDLE[2]),
    ).toBeLessThan(12)
  })

  it.each([0.6, -0.6, 2.2, -2.2])(
    'turn by the side to which hair leans, outward or inward: %f rad aside',
    (aside) => {
      const [whorl] = turning(rings(aside)).whorls.filter((w) => w.kind === 'whorl')
      expect(whorl!.turn).toBe(aside > 0 ? 'anticlockwise' : 'clockwise')
      expect(whorl!.zoneId).toBe('scalp-crown')
      expect(Math.hypot(...whorl!.normal)).toBeCloseTo(1, 6)
      expect(whorl!.trust).toBeGreaterThan(0.25)
    },
  )

  it('are stars up to 25° aside', () => {
    const turnAt = (deg: number) =>
      turning(rings((deg * Math.PI) / 180)).whorls.find((w) => w.kind === 'whorl')!.turn
    expect([turnAt(15), turnAt(165)]).toEqual(['star', 'star'])
    expect([turnAt(35), turnAt(145)]).toEqual(['anticlockwise', 'anticlockwise'])
  })

  it('are told from a place where hair meets: there it turns against the way one goes round', () => {
    const { whorls, indexSum } = turning(rings((round) => -2 * round))
    expect(indexSum).toBe(2)
    expect(whorls.map(({ kind, turn }) => ({ kind, turn }))).toEqual([
      { kind: 'meeting', turn: 'star' },
    ])
    expect(
      Math.hypot(whorls[0]!.point[0] - MIDDLE[0], whorls[0]!.point[2] - MIDDLE[2]),
    ).toBeLessThan(12)
  })

  it('may be narrow: readings close to one another that the field follows do not disagree', () => {
    // Neighbours of the inner ring are 72° and more apart.
    const narrow = rings(1.1, [
      [7.5, 5],
      [20, 8],
    ])
    const found = turning(narrow)
    expect(found.disagreements).toEqual([])
    expect(found.whorls.filter((w) => w.kind === 'whorl')).toHaveLength(1)
    // With one of the five turned round the field follows it no longer.
    const [one, ...rest] = narrow
    const clash = turning([
      { ...one!, tangent: turned(one!.tangent, one!.normal, Math.PI) },
      ...rest,
    ])
    expect(clash.disagreements.flatMap((d) => [d.a, d.b])).toContain(one!.id)
  })

  it('are not reported where nothing was read', () => {
    expect(turning([])).toEqual({ whorls: [], indexSum: 2, disagreements: [] })
  })

  it('says readings disagree instead of making a whorl of them', () => {
    const cheek = ZONES.find((z) => z.id === 'cheek-lower-left')!
    const down = unit(tangentPart([0, -1, 0], cheek.centre.normal))
    const make = (
      id: string,
      dx: number,
      turn: number,
      zoneId: ZoneId = cheek.id,
    ): ZonedReading => ({
      id,
      zoneId,
      point: [cheek.centre.point[0], cheek.centre.point[1] + dx, cheek.centre.point[2]],
      normal: cheek.centre.normal,
      tangent: turned(down, cheek.centre.normal, turn),
      weight: 1,
    })
    const clash = turning([make('a', 0, 0), make('b', 5, Math.PI * 0.95)])
    expect(clash.indexSum).toBe(2)
    expect(clash.whorls).toEqual([])
    expect(clash.disagreements).toHaveLength(1)
    expect([clash.disagreements[0]!.a, clash.disagreements[0]!.b].sort()).toEqual(['a', 'b'])
    expect(clash.disagreements[0]!.degrees).toBeCloseTo(171, 0)
    // Far enough apart that the field could follow both: two readings alone are still no star.
    const apart = turning([make('a', 0, 0), make('b', 15, Math.PI * 0.95)])
    expect(apart.disagreements).toHaveLength(1)
    expect(apart.whorls).toEqual([])
    expect(turning([make('a', 0, 0), make('b', 5, 0.3)]).disagreements).toEqual([])
    // A little under and a little over what near readings may differ by.
    expect(turning([make('a', 0, 0), make('b', 5, 0.98)]).disagreements).toEqual([])
    expect(turning([make('a', 0, 0), make('b', 5, 1.2)]).disagreements).toHaveLength(1)
    // Enough readings to believe a turn, and one of them that the others do not bear out.
    const four = [make('a', 0, 0), make('b', 5, 0.1), make('c', -5, -0.1), make('d', 9, 0)]
    expect(turning(four).disagreements).toEqual([])
    const fifth = turning([...four, make('e', 2, 2.8)])
    expect(fifth.disagreements.map((d) => [d.a, d.b].sort()).sort()).toEqual([
      ['a', 'e'],
      ['b', 'e'],
      ['c', 'e'],
      ['d', 'e'],
    ])
    const degrees = fifth.disagreements.map((d) => d.degrees)
    expect(degrees).toEqual([...degrees].sort((a, b) => b - a))
    expect(fifth.whorls).toEqual([])
    // Farther apart than skin turns in so little room: nothing is said.
    expect(turning([make('a', 0, 0), make('b', 16.5, 2)]).disagreements).toEqual([])
    expect(turning([make('a', 0, 0), make('b', 15.5, 2)]).disagreements).toHaveLength(1)
    // Over a border hair may part.
    expect(turning([make('a', 0, 0), make('b', 5, 2, 'mouth-corner-left')]).disagreements).toEqual(
      [],
    )
  })

  it('are told in words', () => {
    expect(whorlWords({ kind: 'whorl', turn: 'clockwise' })).toBe('turns clockwise')
    expect(whorlWords({ kind: 'whorl', turn: 'star' })).toContain('star')
    expect(whorlWords({ kind: 'meeting', turn: 'star' })).toContain('meets')
  })
})
