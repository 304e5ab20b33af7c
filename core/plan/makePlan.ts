/**
 * From grain, skin, hair, screening and schools to a plan with its reasons: presses, rows of strokes, hands, order, time, kit.
 */
import { SERVICES } from '../services/index.ts'
import { type Figures, schoolWords } from '../house/index.ts'
import { DomainError } from '../errors.ts'
import type { ZoneId } from '../zones/index.ts'
import { findOrder, keepsOrder } from '../order/index.ts'
import { anyZoneOdds, SKIN_CONSTANTS } from '../skin/index.ts'
import { sum } from '../stats/index.ts'
import { capital, listWords } from '../words.ts'
import type { Front } from './front.ts'
import { kitFor } from './kit.ts'
import { fit } from './fit.ts'
import type { BareLane } from './laneWork.ts'
import { groupsOf, heavierSide, jobId, jobsOf, laneProblem, ORDER_CONSTANTS } from './order.ts'
import { nothingLeft, openZones, outline, type WorkedSet } from './outline.ts'
import type { Sequence } from './passes.ts'
import { paceReason } from './pace.ts'
import { ofJob, type JobInput, type PlanInput } from './planInput.ts'
import { holdPresses } from './pressWork.ts'
import type { Lane, LeftOut, Plan, PlanChoice, PlannedPress, Reason, ZonePlan } from './types.ts'
import { laneTitle, straysOf } from './walk.ts'
import { overLimitReason, planZone } from './zonePlan.ts'

/**
 * Makes a plan.
 * @throws DomainError `not-cleared` when asking has not cleared the service, `nothing-left` when every zone is left out,
 * `clippers-only`, `no-blade`, `no-lines`, `never-against`, `several-jobs`
 */
export function makePlan(asked: PlanInput): Plan {
  const input = ofJob(asked)
  const { service, screening, schools, choice } = input
  const slotMin = input.figures(SERVICES[service].slotMin)
  refuseUncleared(input)
  const opened = openZones(input)
  const { sets, front } = outline(input, opened.skins)
  const at = chosenOf(front, choice)
  const outlined = front.plans[at]
  if (!outlined) throw nothingLeft(opened.leftOut)
  const set = sets[outlined.set]!
  const draft = planZones(set, outlined.rows, opened.leftOut)
  const ordered = orderLanes(input, draft.lanes)
  const pressToward = new Map(
    draft.presses.flatMap((p) => (p.toward === undefined ? [] : [[p.id, p.toward] as const])),
  )
  const fitted = fit({ ...input, pressToward }, draft.zones, ordered, choice.within)
  const { steps, blades, totalMinutes } = fitted.walked
  const zones = [...fitted.zones].sort(
    (a, b) => firstAt(fitted.lanes, a.zoneId) - firstAt(fitted.lanes, b.zoneId),
  )
  const kit = kitFor(input.figures, service, fitted.lanes, blades, straysOf(input, zones).length)
  const reasons: Reason[] = [
    ...areaReasons(set, outlined),
    ...orderReasons(input, fitted.lanes),
    ...set.question.tools.reasons,
    { text: 'No pressure: the blade glides. If it needs pressure it is done.', mark: 'C' },
  ]
  const pace = paceReason(service, input.pace)
  if (pace) reasons.push(pace)
  const guesses = zones.filter((z) => z.grainSource === 'guess').length
  if (guesses > 0) {
    reasons.push({
      text: `${guesses} of ${zones.length} zones were not read: their direction is a starting guess. Feel before you cut.`,
      mark: 'H',
    })
  }
  const over = overLimitOf(input.figures, zones)
  const above = overLimitReason(input.figures, { zones, overLimit: over })
  if (above) reasons.unshift(above)
  const within = choice.within ?? slotMin
  if (totalMinutes > within + 0.5) {
    reasons.push({
      text:
        choice.within === undefined
          ? `This is ${Math.ceil(totalMinutes - slotMin)} min over the slot of ${slotMin} min.`
          : `${within} min cannot be reached: ${Math.ceil(totalMinutes)} min is the least for these zones.`,
      mark: 'H',
    })
  }
  return {
    version: 2,
    pace: input.pace.ratio,
    jobs: input.jobs,
    service,
    style: choice.style,
    schools,
    steps,
    zones,
    lanes: fitted.lanes,
    presses: pressesLeft(draft.presses, fitted.lanes),
    front: {
      points: front.plans.map(({ odds, hours, minutes, skin }) => ({ odds, hours, minutes, skin })),
      zones: front.zones,
      at,
      offered: front.offered,
      ...(front.why !== undefined && { why: front.why }),
    },
    odds: {
      any: anyZoneOdds(input.belief, Object.fromEntries(zones.map((z) => [z.zoneId, z.totalLoad]))),
      zones: sum(zones.map((z) => z.rednessOdds)),
      ...(input.record && { record: input.record }),
    },
    leftOut: draft.leftOut,
    totalMinutes,
    slotMinutes: slotMin,
    kit,
    bladeCount: [...blades.values()].reduce((s, n) => s + n, 0),
    cost: Math.round(kit.reduce((s, k) => s + k.cost, 0) * 100) / 100,
    dropped: fitted.dropped,
    overLimit: over,
    reasons,
    screening,
    noFragrance: screening.noFragrance,
    house: input.house,
    choice,
  }
}

/** Which plan of the front a choice means: one between the three by its hours, else its kind. */
function chosenOf({ plans, kinds }: Front, { style, hours }: PlanChoice): number {
  if (hours === undefined) return kinds[style]
  const off = (i: number) => Math.abs(plans[i]!.hours - hours)
  return plans.reduce(
    (best, p, i) =>
      best < 0 ||
      off(i) < off(best) - 0.05 ||
      (off(i) <= off(best) + 0.05 && p.odds < plans[best]!.odds)
        ? i
        : best,
    -1,
  )
}

/** Presses with the lanes that were not dropped. */
function pressesLeft(presses: readonly PlannedPress[], lanes: readonly Lane[]): PlannedPress[] {
  const kept = new Set(lanes.map((l) => l.id))
  return presses.flatMap((p) => {
    const laneIds = p.laneIds.filter((id) => kept.has(id))
    return laneIds.length > 0 ? [{ ...p, laneIds }] : []
  })
}

/** Zones whose odds of redness stand above the house's limit. */
function overLimitOf(figures: Figures, zones: readonly ZonePlan[]): NonNullable<Plan['overLimit']> {
  const limit = figures(SKIN_CONSTANTS.rednessLimit)
  return zones
    .filter((z) => z.rednessOdds > limit)
    .map((z) => ({ zoneId: z.zoneId, name: z.name, odds: z.rednessOdds, limit }))
}

function refuseUncleared({ service, screening, client, schools }: JobInput): void {
  if (screening.verdict === 'postpone' || screening.verdict === 'refer') {
    throw new DomainError(
      'not-cleared',
      'Asking has not cleared this service, so there is no plan to make. See Ask.',
    )
  }
  if (
    SERVICES[service].clippersSchool &&
    client.bumpProne &&
    schools.bumpProneShave === 'clippers'
  ) {
    throw new DomainError(
      'clippers-only',
      'The school for this bump-prone beard is clippers only until clear: no razor is planned. Change the school in House, or for this client at Ask.',
    )
  }
}

interface Draft {
  readonly zones: readonly ZonePlan[]
  readonly lanes: readonly Lane[]
  readonly presses: readonly PlannedPress[]
  readonly leftOut: readonly LeftOut[]
}

/** Plans every zone with its row of strokes, and joins their lanes. */
function planZones(
  { question, works, areas }: WorkedSet,
  rows: ReadonlyMap<ZoneId, Sequence>,
  stays: readonly LeftOut[],
): Draft {
  const zones: ZonePlan[] = []
  const lanes: BareLane[] = []
  const leftOut = [...stays]
  const answers = new Map(
    areas.flatMap(({ units }) =>
      units.flatMap((u) => (u.answer ? u.zones.map((z) => [z.id, u.answer!.why] as const) : [])),
    ),
  )
  for (const [id, work] of works) {
    const row = rows.get(id)
    const why = answers.get(id)
    if (!row) {
      leftOut.push({ zoneId: id, name: work.skin.zone.name, reason: why?.text ?? 'Left out.' })
      continue
    }
    const planned = planZone(question, work, row, why ? [why] : [])
    for (const lane of planned.skipped) {
      leftOut.push({
        zoneId: id,
        name: laneTitle(lane, 1),
        skipped: { laneId: lane.id, pass: lane.pass },
        reason: `Pass ${lane.pass} skipped by hand.`,
      })
    }
    if (planned.lanes.length === 0) continue
    zones.push(planned.zone)
    lanes.push(...planned.lanes)
  }
  if (zones.length === 0) throw nothingLeft(leftOut)
  return { zones, ...holdPresses(question, lanes), leftOut }
}

/** What the chosen plan does, area by area, in a sentence; and where a zone does otherwise. */
function areaReasons({ areas }: WorkedSet, { byArea, rows }: Front['plans'][number]): Reason[] {
  const told = new Map<string, string[]>()
  for (const { area, key } of byArea) {
    if (key === '') continue
    const words = key
      .split('+')
      .map((s) => (s.includes(':') ? s.split(':')[1]! : s))
      .map((r) => (r === 'fixed' ? 'down and toward the centre' : r))
      .join(', then ')
    told.set(words, [...(told.get(words) ?? []), areas[area]!.area.name])
  }
  const out: Reason[] = [...told].map(([words, names]) => ({
    text: `${capital(words)} on ${listWords(names)}.`,
    mark: 'H',
  }))
  const milder = areas.flatMap(({ units }) => units.filter((u) => u.answer?.rows))
  if (milder.length > 0) {
    const zones = milder.flatMap((u) => u.zones.filter((z) => rows.has(z.id)))
    out.push({
      text: `${zones.length} of ${rows.size} zones get a milder tool: even one pass with the razor would be over the limit there.`,
      mark: 'H',
    })
  }
  return out
}

const firstAt = (lanes: readonly Lane[], zone: ZoneId) => {
  const at = lanes.findIndex((l) => l.zoneId === zone)
  return at < 0 ? lanes.length : at
}

/** Lanes in working order: the one kept with the choice while it still fits, else the one found now. */
function orderLanes(input: JobInput, lanes: readonly Lane[]): Lane[] {
  const { schools, service, choice, hand, memory } = input
  const jobs = jobsOf(lanes, SERVICES[service].lather)
  const inOrder = (order: readonly number[]) =>
    order.flatMap((i) => {
      const job = jobs[i]!
      return 'group' in job ? job.group.lanes : []
    })
  const key = [
    schools.faceOrder,
    choice.order?.join(' ') ?? '',
    ...groupsOf(lanes).map(
      ({ id, lead }) =>
        `${id} ${lead.id} ${lead.bladeId} ${lead.stance.hour}${lead.stance.hand ?? ''}`,
    ),
  ].join()
  const had = memory.orders.get(key)
  if (had) return inOrder(had)
  const problem = laneProblem(input.figures, jobs, schools, service, hand)
  const given = (choice.order ?? []).flatMap((id) => {
    const at = jobs.findIndex((j) => jobId(j) === id)
    return at < 0 ? [] : [at]
  })
  const order = keepsOrder(problem, given)
    ? given
    : findOrder(problem, input.figures(ORDER_CONSTANTS.searchRounds)).order
  memory.orders.set(key, order)
  return inOrder(order)
}

function orderReasons({ service, schools, hand }: JobInput, lanes: readonly Lane[]): Reason[] {
  const { family, order } = SERVICES[service]
  if (order === 'fewest-changes' || typeof order === 'object') {
    return [{ text: 'Order: the fewest changes of stance, turn and tool.', mark: 'H' }]
  }
  if (order === 'heavier-side') {
    return [
      {
        text: `Order: the side with more to do first (client’s ${heavierSide(lanes, hand)}); the other is matched to it.`,
        mark: 'C',
      },
    ]
  }
  const school =
    schools.faceOrder === 'most-work-first' && family === 'fuzz' ? 'flat-first' : schools.faceOrder
  return [{ text: `Order: ${schoolWords('faceOrder', school).toLowerCase()}.`, mark: 'C' }]
}
