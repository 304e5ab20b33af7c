/** Plans seen in a mirror: the mirrored client under the other hand, and what must then be the same. */
import { mirrorZone, zoneStem } from '../zones/index.ts'
import { groupsOf, makePlan, type Plan, type PlanInput, PlanMemory } from '../plan/index.ts'
import { distance, type Vec3 } from '../head/index.ts'
import { isBodyService, leadJob } from '../services/index.ts'
import { mirrorFlow } from './plan.ts'

const flip = (p: Vec3): Vec3 => [0 - p[0], p[1], p[2]]

/** The same client in a mirror, under the other hand. */
function mirrorInput(input: PlanInput): PlanInput {
  const at = <T extends { readonly point: Vec3; readonly normal: Vec3 }>(p: T): T => ({
    ...p,
    point: flip(p.point),
    normal: flip(p.normal),
  })
  return {
    ...input,
    hand: input.hand === 'right' ? 'left' : 'right',
    flow: isBodyService(leadJob(input.jobs).service) ? mirrorSheet(input) : mirrorFlow(input.flow),
    lines: input.lines.map((l) => ({
      ...l,
      keep: l.keep === 'left' ? 'right' : 'left',
      path: l.path.map(at),
    })),
    screening: {
      ...input.screening,
      leaveOutZones: input.screening.leaveOutZones.map(mirrorZone),
      leaveOutSpots: input.screening.leaveOutSpots.map((s) => ({
        ...at(s),
        zoneId: mirrorZone(s.zoneId),
      })),
    },
    sensitivity: (zone) => input.sensitivity(mirrorZone(zone)),
    bumps: (zone) => input.bumps(mirrorZone(zone)),
    growth: (zone) => input.growth(mirrorZone(zone)),
    memory: new PlanMemory(),
  }
}

/** Growth over the sheet of the body, mirrored: each of its places has a twin. */
function mirrorSheet({ ground, flow }: PlanInput): PlanInput['flow'] {
  const { positions: p } = ground.mesh
  const n = p.length / 3
  const key = (x: number, v: number) =>
    [x, p[3 * v + 1]!, p[3 * v + 2]!].map((c) => c.toFixed(2)).join()
  const twins = new Map<string, number>()
  for (let v = 0; v < n; v++) twins.set(key(p[3 * v]!, v), v)
  const vectors = new Float32Array(3 * n)
  const trust = new Float32Array(n)
  const errorDeg = new Float32Array(n)
  for (let v = 0; v < n; v++) {
    const twin = twins.get(key(0 - p[3 * v]!, v))
    if (twin === undefined) throw new Error('The sheet of the body is not alike on both sides.')
    vectors.set(flip(flow.vectors.subarray(3 * twin, 3 * twin + 3) as unknown as Vec3), 3 * v)
    trust[v] = flow.trust[twin]!
    errorDeg[v] = flow.errorDeg[twin]!
  }
  return { vectors, trust, errorDeg, turning: [] }
}

/** Zones, passes, order, parts and stance of a plan. */
const shapeOf = (
  plan: Plan,
  zone: (id: Plan['zones'][number]['zoneId']) => string = (id) => id,
  hour: (h: number) => number = (h) => h,
) => ({
  zones: plan.zones
    .map((z) => `${zone(z.zoneId)} ${z.passes.map((x) => x.relation).join()}`)
    .sort(),
  steps: groupsOf(plan.lanes).map(({ lanes, lead }) => ({
    what: [
      lanes
        .map((l) => zone(l.zoneId))
        .sort()
        .join(),
      zoneStem(lead.zoneId),
      `pass ${lead.pass}`,
      `at ${hour(lead.stance.hour) % 12}`,
    ].join(' '),
    areaCm2: lanes.reduce((s, l) => s + l.areaCm2, 0),
    hold: lead.holds?.[0]?.point,
  })),
})

/** A cell goes to one part or the other by less than a rounding error: parts that differ by so much are alike, cm². */
const ALIKE_CM2 = 0.15

/** Holds farther apart than this are two, mm: less than a fingertip; the cells of the body’s sheet are 10 mm and more. */
const SAME_HOLD_MM = 8

/**
 * In what the plan of the mirrored client under the other hand differs from the mirrored plan: zones, passes, order, parts,
 * stances and holds.
 */
export function mirrorDifferences(input: PlanInput): string[] {
  const own = shapeOf(makePlan(input))
  const other = shapeOf(makePlan(mirrorInput(input)), mirrorZone, (h) => 12 - h)
  const out: string[] = []
  const told = (a: string | undefined, b: string | undefined) => out.push(`${a} | ${b}`)
  for (let i = 0; i < Math.max(own.zones.length, other.zones.length); i++)
    if (own.zones[i] !== other.zones[i]) told(own.zones[i], other.zones[i])
  for (let i = 0; i < Math.max(own.steps.length, other.steps.length); i++) {
    const [a, b] = [own.steps[i], other.steps[i]]
    const alike = a && b && Math.abs(a.areaCm2 - b.areaCm2) < ALIKE_CM2
    const apart = a?.hold && b?.hold && distance(a.hold, flip(b.hold))
    if (apart === undefined ? a?.hold !== b?.hold : apart > SAME_HOLD_MM)
      told(`${i} held at ${a?.hold?.join()}`, b?.hold?.join())
    if (a?.what !== b?.what || !alike)
      told(`${i} ${a?.what} ${a?.areaCm2.toFixed(2)}`, `${b?.what} ${b?.areaCm2.toFixed(2)}`)
  }
  return out
}
