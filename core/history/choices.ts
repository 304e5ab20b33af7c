/** What was done at a visit, zone by zone, as far as outcomes may hang on it: kept with the visit when it ends. */
import { nickZone, type ChairState } from '../chair/index.ts'
import type { Relation } from '../grain/index.ts'
import { BLADES, type BladeId } from '../kit/index.ts'
import { slipFor, stepLanes, type Plan } from '../plan/index.ts'
import { SERVICES } from '../services/index.ts'
import type { Slip, ToolKind } from '../skin/index.ts'

/** What was done to a zone. */
export interface ZoneChoice {
  /** The most against the grain that was done. */
  readonly relation: Relation
  readonly passes: number
  readonly tool: ToolKind
  /** Where it differed from that of the visit. */
  readonly slip?: Slip | undefined
  /** Mean used share of the blade's life, 0 to 1. */
  readonly wear: number
  /** Lanes done, and nicks. */
  readonly lanes: number
  readonly nicks: number
}

/** What was done at a visit. */
export interface VisitChoices {
  readonly zones: Readonly<Record<string, ZoneChoice>>
  readonly slip: Slip
  /** The blade of most lanes, by name. */
  readonly blade: string
  /** School of exfoliating between visits. */
  readonly exfoliate: string
}

const ORDER: readonly Relation[] = ['with', 'across', 'against']

/**
 * Reads off what was done.
 * @param bladeLife strokes a blade lasts
 */
export function choicesOf(
  plan: Pick<Plan, 'lanes' | 'steps' | 'service' | 'schools'> & Partial<Pick<Plan, 'zones'>>,
  state: Pick<ChairState, 'outcomes' | 'onBlade' | 'nicks'>,
  bladeLife: number,
): VisitChoices {
  const lanes = new Map(plan.lanes.map((l) => [l.id, l]))
  const used = new Map<number, number>()
  const blades = new Map<BladeId, number>()
  const zones: Record<string, ZoneChoice & { passList: Set<number> }> = {}
  const done = plan.steps
    .filter((s) => s.kind === 'stroke' && state.outcomes[s.id] === 'done')
    .flatMap((step) => {
      const ids = stepLanes(step)
      return (ids.length > 0 ? ids : [step.id]).flatMap((id) => {
        const lane = lanes.get(id)
        return lane ? [{ lane, blade: state.onBlade[step.id] }] : []
      })
    })
  for (const { lane, blade } of done) {
    const before = blade === undefined ? 0 : (used.get(blade) ?? 0)
    if (blade !== undefined) used.set(blade, before + lane.strokes)
    blades.set(lane.bladeId, (blades.get(lane.bladeId) ?? 0) + 1)
    const wear = Math.min(1, (before + lane.strokes / 2) / bladeLife)
    const had = zones[lane.zoneId]
    const relation =
      had && ORDER.indexOf(had.relation) > ORDER.indexOf(lane.relation)
        ? had.relation
        : lane.relation
    const count = (had?.lanes ?? 0) + 1
    const passList = new Set(had?.passList ?? []).add(lane.pass)
    zones[lane.zoneId] = {
      relation,
      passes: passList.size,
      passList,
      tool: had?.tool ?? BLADES[lane.bladeId].tool,
      wear: ((had?.wear ?? 0) * (count - 1) + wear) / count,
      lanes: count,
      nicks: 0,
    }
  }
  for (const nick of state.nicks) {
    const zoneId = nickZone(plan, nick)
    const zone = zoneId && zones[zoneId]
    if (zone) zones[zoneId] = { ...zone, nicks: zone.nicks + 1 }
  }
  const [most] = [...blades.entries()].sort((a, b) => b[1] - a[1])
  const slip = slipFor(SERVICES[plan.service].family, plan.schools)
  const own = new Map<string, Slip | undefined>(plan.zones?.map((z) => [z.zoneId, z.slip]))
  return {
    zones: Object.fromEntries(
      Object.entries(zones).map(([id, { passList: _list, ...z }]): [string, ZoneChoice] => {
        const here = own.get(id)
        return [
          id,
          {
            ...z,
            wear: Math.round(z.wear * 100) / 100,
            ...(here !== undefined && here !== slip && { slip: here }),
          },
        ]
      }),
    ),
    slip,
    blade: most ? BLADES[most[0]].name : '',
    exfoliate: plan.schools.exfoliate,
  }
}
