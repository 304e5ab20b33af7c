/** Lanes: blade fit, and what must hold of them on any head, field and marks. */
import { DEFAULTS } from '../house/index.ts'
import { toDegrees, angleBetween } from '../grain/index.ts'
import {
  distance,
  tangentPart,
  unit,
  type Vec3,
  type ZonedMesh,
  type ZoneRecord,
} from '../head/index.ts'
import { isSkin, ZONE_IDS, zoneStem, type ZoneId } from '../zones/index.ts'
import { besidePath, LINE_CONSTANTS } from '../lines/index.ts'
import { usual } from '../testing/lines.ts'
import { mulberry32 } from '../stats/index.ts'
import { markMargin, type SkinMark } from '../screening/index.ts'
import { edgeRadiusMm, laneDirection, laneShapes, ninetyPercentWithinDeg } from './lanes.ts'
import { SERVICES, serviceZones } from '../services/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { planInput, surfaceOf } from '../testing/plan.ts'
import { sagittaMm, usableWidthMm, fitBlade } from './bladeFit.ts'
import { BLADES } from '../kit/index.ts'
import { unpackCover } from './cover.ts'
import { drawnLines, headGround } from './ground.ts'
import { makePlan } from './makePlan.ts'
import type { Lane } from './types.ts'
import { zoneSkin, type SkinFlow, type SkinGround } from './skin.ts'
import fc from 'fast-check'

const GROUND = headGround(HEAD, ZONES)
const cheek = ZONES.find((z) => z.id === 'cheek-lower-left')!
const N = HEAD.display.positions.length / 3
const normalAt = (v: number): Vec3 =>
  unit([0, 1, 2].map((k) => HEAD.display.normals[3 * v + k]!) as unknown as Vec3)

/** A flow from a rule that gives a direction in space for every vertex of some zones. */
function flowOf(rule: (p: Vec3, n: Vec3) => Vec3, zones: readonly ZoneId[] = [cheek.id]): SkinFlow {
  const vectors = new Float32Array(3 * N)
  const vertices = new Set<number>()
  for (const zone of zones) {
    const [first, count] = HEAD.display.ranges[ZONE_IDS.indexOf(zone)]!
    for (let i = 3 * first; i < 3 * (first + count); i++) vertices.add(HEAD.display.indices[i]!)
  }
  for (const v of vertices) {
    const p = [0, 1, 2].map((k) => HEAD.display.positions[3 * v + k]!) as unknown as Vec3
    const n = normalAt(v)
    vectors.set(unit(tangentPart(rule(p, n), n)), 3 * v)
  }
  return { vectors, trust: new Float32Array(N).fill(1), errorDeg: new Float32Array(N), turning: [] }
}

const WHOLE = { spots: [], lines: [], worked: { share: 1, from: 'top' }, bandOnly: false } as const
const skinOf = (flow: SkinFlow, zone: ZoneId = cheek.id) =>
  zoneSkin(DEFAULTS, GROUND, flow, zone, WHOLE)
describe('what is told of a lane', () => {
  it('holds for nine tenths of it: of hair that lies one way, the reader’s errors alone', () => {
    const skin = skinOf(flowOf(() => [0, -1, 0]))
    const [whole] = laneShapes(skin, { lane: new Int16Array(skin.count), count: 1 })
    const turns = new Float64Array(whole!.turns.length)
    const bin = 12
    turns[bin] = 10
    const lane = { ...whole!, turns, growth: ((bin + 0.5) * 2 * Math.PI) / turns.length }
    // 1.645 standard deviations; lanes err 0.65 times what is told of their skin (docs/models.md).
    for (const errorDeg of [10, 20, 40])
      expect(ninetyPercentWithinDeg({ ...lane, errorDeg })).toBeCloseTo(
        1.645 * 0.65 * errorDeg,
        -0.31,
      )
    // A tenth of it turned a right angle off is left out of what is told; a fifth is not.
    const off = (share: number) => {
      const other = Float64Array.from(turns)
      other[bin] = 10 * (1 - share)
      other[(bin + turns.length / 4) % turns.length] = 10 * share
      return ninetyPercentWithinDeg({ ...lane, turns: other, errorDeg: 2 })
    }
    expect(off(0.08)).toBeLessThan(10)
    expect(off(0.2)).toBeGreaterThan(85)
    expect(off(0.2)).toBeLessThan(95)
  })

  it('hair by a turning point has no direction to go by, however far from the middle of the zone that lies', () => {
    const flow = flowOf(() => [0, -1, 0])
    const plain = skinOf(flow)
    expect(plain.loose.some((l) => l === 1)).toBe(false)
    const middle = (c: number): Vec3 => [
      plain.middle[3 * c]!,
      plain.middle[3 * c + 1]!,
      plain.middle[3 * c + 2]!,
    ]
    const far = (c: number) => distance(middle(c), cheek.centre.point)
    const rim = [...plain.loose.keys()].reduce((a, b) => (far(b) > far(a) ? b : a))
    expect(far(rim)).toBeGreaterThan(25)
    const turning = skinOf({ ...flow, turning: [middle(rim)] })
    turning.loose.forEach((l, c) => {
      expect(l === 1).toBe(distance(middle(c), middle(rim)) < 5)
    })
  })
})

describe('blade fit (M6)', () => {
  // Plane geometry, recomputed.
  it.each([
    [20, 100, 0.501],
    [20, 20, 2.679],
    [40, 60, 3.431],
    [12, 20, 0.921],
  ])('an edge of %d mm on a radius of %d mm stands off %d mm', (w, r, s) => {
    expect(sagittaMm(w, r)).toBeCloseTo(s, 3)
  })

  it('uses just the width that stands off by the give', () => {
    for (const r of [15, 30, 60, 90]) {
      expect(sagittaMm(usableWidthMm(DEFAULTS, 1000, r, 'soft'), r)).toBeCloseTo(0.8, 6)
      expect(sagittaMm(usableWidthMm(DEFAULTS, 1000, r, 'bony'), r)).toBeCloseTo(0.4, 6)
    }
    expect(usableWidthMm(DEFAULTS, 43, -200, 'soft')).toBe(43)
    expect(usableWidthMm(DEFAULTS, 43, 10_000, 'soft')).toBe(43)
    expect(sagittaMm(50, 20)).toBe(Infinity)
  })

  it('takes the widest that lies on, a wide one for cheeks, a small one for lip and brow (common practice)', () => {
    const fuzz = [BLADES.guarded, BLADES['brow-razor']]
    expect(fitBlade(DEFAULTS, fuzz, 10_000, 'soft', false).blade.id).toBe('guarded')
    expect(fitBlade(DEFAULTS, fuzz, 84, 'soft', false).blade.id).toBe('guarded')
    expect(fitBlade(DEFAULTS, fuzz, 30, 'bony', false).blade.id).toBe('brow-razor')
    expect(fitBlade(DEFAULTS, fuzz, 10_000, 'soft', true).blade.id).toBe('brow-razor')
    const bare = [BLADES['surgical-14'], BLADES['surgical-10']]
    expect(fitBlade(DEFAULTS, bare, 400, 'soft', false).blade.id).toBe('surgical-14')
    expect(fitBlade(DEFAULTS, bare, 60, 'bony', false).blade.id).toBe('surgical-10')
  })

  it('measures roundness along the edge: a cylinder is flat along and round across', () => {
    // The forehead's middle is rounder from side to side than from top to bottom.
    const zone = ZONES.find((z) => z.id === 'forehead-centre')!
    const skin = skinOf(
      flowOf(() => [0, -1, 0]),
      zone.id,
    )
    const [lane] = laneShapes(skin, { lane: new Int16Array(skin.count), count: 1 })
    const down = laneDirection(skin, lane!, Math.PI)
    const across = laneDirection(skin, lane!, Math.PI / 2)
    const [r1, r2] = [edgeRadiusMm(skin, lane!, down), edgeRadiusMm(skin, lane!, across)]
    // Against the principal radii of the head's own distance function.
    const { tightMm, flatMm } = zone.curvature
    for (const r of [r1, r2]) {
      expect(r).toBeGreaterThan(0.75 * Math.min(tightMm, flatMm))
      expect(r).toBeLessThan(1.5 * Math.max(tightMm, flatMm))
    }
    // Of fewer than twelve cells none is measured: the zone's own is taken.
    const of = (cells: number) =>
      edgeRadiusMm(skin, { ...lane!, cells: lane!.cells.slice(0, cells) }, across)
    expect(of(11)).toBe(tightMm)
    expect(of(12)).not.toBe(tightMm)
  })
})

/** The head stretched along its axes, with its zones. */
function stretched(scale: Vec3): SkinGround {
  const mesh: ZonedMesh = {
    ...HEAD.display,
    positions: HEAD.display.positions.map((x, i) => x * scale[(i % 3) as 0 | 1 | 2]),
    normals: Float32Array.from({ length: 3 * N }, (_, i) => HEAD.display.normals[i]!),
  }
  for (let v = 0; v < N; v++) {
    const n = unit(
      [0, 1, 2].map(
        (k) => HEAD.display.normals[3 * v + k]! / scale[k as 0 | 1 | 2],
      ) as unknown as Vec3,
    )
    mesh.normals.set(n, 3 * v)
  }
  const move = (p: Vec3): Vec3 => [p[0] * scale[0], p[1] * scale[1], p[2] * scale[2]]
  const zones = ZONES.map((z): ZoneRecord => ({
    ...z,
    centre: { point: move(z.centre.point), normal: z.centre.normal },
  }))
  return headGround({ ...HEAD, display: { ...HEAD.display, ...mesh } }, zones, GROUND.neighbours)
}

describe('lanes on any head, field and marks', () => {
  const anyCase = fc.record({
    scale: fc.tuple(
      fc.double({ min: 0.88, max: 1.12, noNaN: true }),
      fc.double({ min: 0.88, max: 1.12, noNaN: true }),
      fc.double({ min: 0.88, max: 1.12, noNaN: true }),
    ),
    seed: fc.integer({ min: 1, max: 1e6 }),
    bumpProne: fc.boolean(),
    reactivity: fc.constantFrom('tough', 'average', 'reactive'),
    service: fc.constantFrom('face-shave', 'dermaplane', 'head-shave'),
    style: fc.constantFrom('gentlest', 'balanced', 'closest'),
    spots: fc.array(fc.record({ at: fc.nat(), radiusMm: fc.integer({ min: 2, max: 12 }) }), {
      maxLength: 3,
    }),
    line: fc.boolean(),
  })

  it('no lane crosses a mark or a keep-line or leaves skin; every worked cell is in one lane of each pass', () => {
    fc.assert(
      fc.property(anyCase, (c) => {
        const ground = stretched(c.scale)
        const random = mulberry32(c.seed)
        // A field that swings gently over the head, its own for every case.
        const w = Array.from({ length: 6 }, () => (random() - 0.5) * 0.05)
        const a = Array.from({ length: 3 }, () => random() - 0.5)
        const flow = flowOf(
          (p) => [
            a[0]! + Math.sin(w[0]! * p[1] + w[1]! * p[2]),
            a[1]! - 0.6 + Math.sin(w[2]! * p[0] + w[3]! * p[2]),
            a[2]! + Math.sin(w[4]! * p[0] + w[5]! * p[1]),
          ],
          serviceZones(c.service),
        )
        const zones = serviceZones(c.service)
        const spots = c.spots.map((s, i): SkinMark => {
          const zone = ground.records.get(zones[s.at % zones.length]!)!
          return {
            id: `${i}`,
            kind: 'mole',
            zoneId: zone.id,
            ...zone.centre,
            radiusMm: s.radiusMm,
          }
        })
        const drawn = c.line && c.service === 'face-shave'
        const lines = drawn
          ? drawnLines(surfaceOf, [usual('cheek', 'left')]).map((l) => ({
              ...l,
              path: l.path.map((p) => ({
                ...p,
                point: [0, 1, 2].map(
                  (k) => p.point[k]! * c.scale[k as 0 | 1 | 2],
                ) as unknown as Vec3,
              })),
            }))
          : []
        const input = planInput({
          service: c.service,
          skin: { bumpProne: c.bumpProne, reactivity: c.reactivity },
          spots,
          ground,
          flow,
          room: undefined,
          choice: { style: c.style },
        })
        const plan = makePlan({ ...input, lines })
        const { positions: p, indices } = ground.mesh
        for (const zone of plan.zones) {
          const number = ZONE_IDS.indexOf(zone.zoneId)
          expect(isSkin(zone.zoneId)).toBe(true)
          const [first, count] = ground.mesh.ranges[number]!
          const letters = unpackCover(zone.cover)
          expect(letters).toHaveLength(count)
          const used = new Set(letters.filter((l) => l !== '.'))
          for (const pass of zone.passes) {
            // One lane for each letter: every worked cell is in exactly one lane of each pass.
            const own = plan.lanes.filter((l) => l.zoneId === zone.zoneId && l.pass === pass.pass)
            expect(own.map((l) => l.letter).sort()).toEqual([...used].sort())
            expect(own.reduce((s, l) => s + l.areaCm2, 0)).toBeCloseTo(zone.areaCm2, 6)
          }
          // Counted first and told once: asking a million times over is slow.
          let inMark = 0
          let behindLine = 0
          const path = /^cheek|^mouth|^sideburn/.test(zoneStem(zone.zoneId))
            ? lines[0]?.path
            : undefined
          letters.forEach((letter, cell) => {
            if (letter === '.') return
            const corners = [0, 1, 2].map((k): Vec3 => {
              const v = indices[3 * (first + cell) + k]!
              return [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]
            })
            for (const at of corners) {
              for (const s of input.screening.leaveOutSpots) {
                const [x, y, z] = [at[0] - s.point[0], at[1] - s.point[1], at[2] - s.point[2]]
                const reach = s.radiusMm + markMargin(DEFAULTS, s)
                if (x * x + y * y + z * z <= reach * reach) inMark++
              }
            }
            if (path && zone.zoneId.endsWith('left')) {
              const sides = corners.map((at) => besidePath(path, at))
              if (
                sides.every((s) => s.distanceMm < LINE_CONSTANTS.reachMm.byDefault) &&
                sides.some((s) => s.side === lines[0]!.keep)
              )
                behindLine++
            }
          })
          expect({ inMark, behindLine }).toEqual({ inMark: 0, behindLine: 0 })
        }
        for (const lane of plan.lanes) {
          expect(lane.reasons.length).toBeGreaterThan(0)
          expect(lane.relation === 'against' && lane.bladeId === 'cartridge').toBe(false)
          expect(Number.isFinite(lane.seconds) && lane.seconds > 0).toBe(true)
        }
        if (SERVICES[c.service].family === 'fuzz')
          expect(Math.max(...plan.lanes.map((l) => l.pass))).toBe(1)
      }),
      { numRuns: 8 },
    )
  })

  it('a lane’s stroke turns with the chart: with the grain is the growth at its middle', () => {
    const plan = makePlan(planInput({ room: undefined }))
    // Beside an edge it may have been turned along it.
    const turned = (l: Lane) => l.reasons.some((r) => r.text.startsWith('Beside the '))
    for (const lane of plan.lanes.filter((l) => l.pass === 1 && !turned(l)))
      expect(toDegrees(angleBetween(lane.strokeBearing, lane.growthDirection))).toBeLessThan(1e-6)
  })
})
