/** The field as a current: carried to the display mesh, summed up by zone, drawn as streamlets; and where to read next. */
import { DEFAULTS } from '../house/index.ts'
import {
  bearingOf,
  directionOf,
  dot,
  type Vec3,
  SEED_SPACING_MM,
  triangleNeighbours,
} from '../head/index.ts'
import { normalAt, walk } from '../head/walk.ts'
import { isSkin, ZONE_IDS } from '../zones/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { carry, carryTold, displayCarry, displayVectors, sampleCarry } from './carry.ts'
import { inkOf, withinDeg, withinWords } from './confidence.ts'
import { fieldGround, GrainField, type FieldReading } from './field.ts'
import { guessReadings } from './guesses.ts'
import { fieldAt } from './sample.ts'
import { STREAMLET_POINTS, streamlets } from './streamlets.ts'
import { gainAt, whereNext } from './whereNext.ts'
import { zoneFlows } from './zoneFlow.ts'

const GROUND = fieldGround(DEFAULTS, HEAD.solve, guessReadings(DEFAULTS, ZONES))
const deg = (a: Vec3, b: Vec3) => (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI
const cheek = ZONES.find((z) => z.id === 'cheek-lower-left')!
const read = (hour: number): FieldReading[] =>
  cheek.samples.slice(0, 5).map(({ point, normal }, i) => ({
    id: `r${i}`,
    point,
    normal,
    tangent: directionOf(cheek.id, point, normal, (hour * Math.PI) / 6),
    weight: 1,
  }))
const field = new GrainField(DEFAULTS, GROUND)
field.setAll(read(7))
const ANSWER = field.answer()
const TOLD = field.told()
const DISPLAY = displayCarry(GROUND, HEAD.display)
const CARRIED = carry(DISPLAY, ANSWER)
const VECTORS = displayVectors(DISPLAY, HEAD.display, CARRIED)
const NEIGHBOURS = triangleNeighbours(HEAD.display)
const draw = (ink: Float32Array, count = HEAD.seeds.levels[1]!) =>
  streamlets(
    HEAD.display,
    NEIGHBOURS,
    { ...HEAD.seeds, count },
    { vectors: VECTORS, ink },
    ZONE_IDS.map((id) => !isSkin(id)),
    2 * SEED_SPACING_MM[1],
    0.9,
  )

describe('the field on the display mesh', () => {
  it('is the field of the solve mesh, tangent and of unit length', () => {
    const apart: number[] = []
    for (let v = 0; v < CARRIED.re.length; v += 997) {
      const at = {
        point: [0, 1, 2].map((k) => HEAD.display.positions[3 * v + k]!) as unknown as Vec3,
        normal: [0, 1, 2].map((k) => HEAD.display.normals[3 * v + k]!) as unknown as Vec3,
      }
      const vector = [0, 1, 2].map((k) => VECTORS[3 * v + k]!) as unknown as Vec3
      expect(Math.abs(dot(vector, at.normal))).toBeLessThan(0.02)
      expect(Math.hypot(...vector)).toBeCloseTo(1, 1)
      const there = fieldAt(GROUND, ANSWER, at)
      apart.push(deg(vector, there.direction))
      expect(CARRIED.trust[v]!).toBeCloseTo(there.trust, 4)
    }
    apart.sort((a, b) => a - b)
    expect(apart[apart.length >> 1]!).toBeLessThan(0.5)
    expect(apart[apart.length - 1]!).toBeLessThan(8)
  })
})

describe('a zone of the field', () => {
  const flows = zoneFlows(DEFAULTS, ZONES, carryTold(sampleCarry(GROUND, ZONES), TOLD))
  const flow = flows.find((z) => z.zoneId === cheek.id)!

  it('tells the direction on its own clock, how even it is and how far to trust it', () => {
    expect((flow.growthDirection! * 6) / Math.PI).toBeCloseTo(7, 0)
    expect(flow.meanResultantLength).toBeGreaterThan(0.97)
    expect(flow.within).toBeDefined()
    expect(flow.readInParts).toBe(false)
    expect(flows).toHaveLength(ZONES.length)
  })

  it('is not read where nothing lies near', () => {
    expect(flows.find((z) => z.zoneId === 'occiput')).toMatchObject({ within: undefined, trust: 0 })
  })

  it('wants to be read in parts where hair turns in it', () => {
    const turning = new GrainField(DEFAULTS, GROUND)
    turning.setAll(
      cheek.samples.map(({ point, normal }, i) => ({
        id: `t${i}`,
        point,
        normal,
        tangent: directionOf(cheek.id, point, normal, point[1] > cheek.centre.point[1] ? 1 : 3.6),
        weight: 1,
      })),
    )
    const parts = zoneFlows(DEFAULTS, ZONES, carryTold(sampleCarry(GROUND, ZONES), turning.told()))
    expect(parts.find((z) => z.zoneId === cheek.id)!.readInParts).toBe(true)
  })

  it('puts its trust in words', () => {
    expect([4, 12, 38, 170, NaN].map(withinDeg)).toEqual([5, 15, 40, 90, undefined])
    expect(withinWords(15)).toBe('within about 15°')
    expect(withinWords(undefined)).toBe('not read')
    expect(inkOf(DEFAULTS, 0)).toBe(0)
    expect(inkOf(DEFAULTS, 0.7)).toBe(1)
    expect(inkOf(DEFAULTS, 0.1)).toBeLessThan(inkOf(DEFAULTS, 0.4))
  })
})

describe('streamlets', () => {
  const ink = Float32Array.from(CARRIED.trust, (trust) => inkOf(DEFAULTS, trust))
  const marks = draw(ink)

  it('stand only where skin was read, and end in a point', () => {
    expect(marks.count).toBeGreaterThan(30)
    expect(marks.positions.length).toBe(marks.count * STREAMLET_POINTS * 6)
    expect(marks.positions.every(Number.isFinite)).toBe(true)
    for (const zone of marks.zones) expect(isSkin(ZONE_IDS[zone]!)).toBe(true)
    expect(draw(new Float32Array(ink.length)).count).toBe(0)
  })

  it('run root to tip along the growth', () => {
    let most = 0
    marks.zones.forEach((zone, m) => {
      if (ZONE_IDS[zone] !== cheek.id) return
      const at = (o: number) =>
        [0, 1, 2].map((k) => marks.spines[9 * m + o + k]!) as unknown as Vec3
      const [root, tip, normal] = [at(0), at(3), at(6)]
      const way: Vec3 = [tip[0] - root[0], tip[1] - root[1], tip[2] - root[2]]
      most = Math.max(most, Math.abs((bearingOf(cheek.id, root, normal, way) * 6) / Math.PI - 7))
    })
    expect(most).toBeLessThan(1.2)
  })

  it('are shorter where less is known', () => {
    const length = (of: ReturnType<typeof draw>) => {
      let sum = 0
      for (let m = 0; m < of.count; m++) {
        const s = of.spines
        sum += Math.hypot(
          s[9 * m + 3]! - s[9 * m]!,
          s[9 * m + 4]! - s[9 * m + 1]!,
          s[9 * m + 5]! - s[9 * m + 2]!,
        )
      }
      return sum / of.count
    }
    expect(length(draw(ink.map((x) => 0.3 * x)))).toBeLessThan(
      0.9 * length(draw(ink.map((x) => (x > 0 ? 1 : 0)))),
    )
  })

  it('walk as the slow walk does', () => {
    const one = draw(
      ink.map((x) => (x > 0 ? 1 : 0)),
      400,
    )
    const direction = (at: { triangle: number; point: Vec3 }): Vec3 => {
      const n = normalAt(HEAD.display, at)
      const { direction: d } = fieldAt(GROUND, ANSWER, { point: at.point, normal: n })
      return d
    }
    let checked = 0
    for (let m = 0; m < one.count && checked < 6; m += 5) {
      if (one.points[m] !== STREAMLET_POINTS) continue
      const seed = [...Array(400).keys()].find((s) => {
        const t = HEAD.seeds.triangles[s]!
        const corner = [0, 1, 2].map(
          (k) => HEAD.display.positions[3 * HEAD.display.indices[3 * t]! + k]!,
        )
        return (
          Math.hypot(
            corner[0]! - one.spines[9 * m]!,
            corner[1]! - one.spines[9 * m + 1]!,
            corner[2]! - one.spines[9 * m + 2]!,
          ) < 4
        )
      })
      if (seed === undefined) continue
      const root = [0, 1, 2].map((k) => one.spines[9 * m + k]!) as unknown as Vec3
      const path = walk(
        HEAD.display,
        NEIGHBOURS,
        { triangle: HEAD.seeds.triangles[seed]!, point: root },
        direction,
        2 * SEED_SPACING_MM[1],
        STREAMLET_POINTS - 1,
      )
      const tip = path[path.length - 1]!.point
      expect(
        Math.hypot(
          tip[0] - one.spines[9 * m + 3]!,
          tip[1] - one.spines[9 * m + 4]!,
          tip[2] - one.spines[9 * m + 5]!,
        ),
      ).toBeLessThan(1.2)
      checked++
    }
    expect(checked).toBeGreaterThan(0)
  })
})

describe('where next', () => {
  const wanted = new Float64Array(GROUND.connection.vertices).fill(1)
  const candidates = ['cheek-lower-left', 'cheek-lower-right', 'occiput'].map((id) => {
    const zone = ZONES.find((z) => z.id === id)!
    return { ...zone.centre, zoneId: zone.id }
  })

  it('sends one away from what is already read', async () => {
    const next = await whereNext(DEFAULTS, field, candidates, wanted, () => true)
    expect(next!.zoneId).not.toBe('cheek-lower-left')
    expect(next!.gain).toBeGreaterThan(1 / candidates.length)
  })

  it('gains less at a place once it is read', () => {
    const place = candidates[1]!
    const before = gainAt(DEFAULTS, field, place, wanted)
    const later = new GrainField(DEFAULTS, GROUND)
    later.setAll([
      ...read(7),
      {
        id: 'there',
        ...place,
        tangent: directionOf(place.zoneId, place.point, place.normal, mulberry32(1)()),
        weight: 1,
      },
    ])
    expect(gainAt(DEFAULTS, later, place, wanted)).toBeLessThan(0.6 * before)
  })

  it('stops when it is told to, and needs a candidate', async () => {
    expect(await whereNext(DEFAULTS, field, candidates, wanted, () => false)).toBeUndefined()
    expect(await whereNext(DEFAULTS, field, [], wanted, () => true)).toBeUndefined()
  })
})
