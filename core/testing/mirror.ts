/** Plans seen in a mirror: the mirrored client under the other hand, and what must then be the same. */
import { mirrorZone, zoneStem } from '../zones/index.ts'
import { groupsOf, type Plan, type PlanInput, PlanMemory } from '../plan/index.ts'
import type { Vec3 } from '../head/index.ts'
import { isBodyService, leadJob } from '../services/index.ts'
import { mirrorFlow } from './plan.ts'

const flip = (p: Vec3): Vec3 => [0 - p[0], p[1], p[2]]

/** The same client in a mirror, under the other hand. */
export function mirrorInput(input: PlanInput): PlanInput {
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
  for (let v = 0; v < n; v++) {
    const twin = twins.get(key(0 - p[3 * v]!, v))
    if (twin === undefined) throw new Error('The sheet of the body is not alike on both sides.')
    vectors.set(flip(flow.vectors.subarray(3 * twin, 3 * twin + 3) as unknown as Vec3), 3 * v)
    trust[v] = flow.trust[twin]!
  }
  return { vectors, trust, turning: [] }
}

const shapeOf = (
  plan: Plan,
  zone: (id: Plan['zones'][number]['zoneId']) => string,
  hour: (h: number) => number,
) => ({
  zones: Object.fromEntries(
    plan.zones.map((z) => [zone(z.zoneId), z.passes.map((x) => x.relation).join()]),
  ),
  steps: groupsOf(plan.lanes).map(({ lanes, lead }) => ({
    zones: lanes
      .map((l) => zone(l.zoneId))
      .sort()
      .join(),
    stem: zoneStem(lead.zoneId),
    pass: lead.pass,
    hour: hour(lead.stance.hour) % 12,
    area: lanes.reduce((s, l) => s + l.areaCm2, 0).toFixed(1),
  })),
})

/** Zones, passes, order, parts and stance of a plan. */
export const planShape = (plan: Plan) =>
  shapeOf(
    plan,
    (id) => id,
    (h) => h,
  )

/** The same of a plan as a mirror shows it. */
export const mirroredShape = (plan: Plan) => shapeOf(plan, mirrorZone, (h) => 12 - h)
