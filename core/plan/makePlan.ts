/** From grain, skin, hair, screening and schools to a plan with its reasons: lanes, passes, hands, order, time, kit. */
import { plannedJob, type Job, SERVICES, serviceZones, type ServiceId } from '../services/index.ts'
import { type Figures, schoolWords, type Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import { isSkin, zoneStem, type ZoneId } from '../zones/index.ts'
import { findOrder, keepsOrder } from '../order/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import { SKIN_CONSTANTS, type Sensitivity } from '../skin/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import type { Room } from './handle.ts'
import type { Hand, Hazard } from './hands.ts'
import { kitFor } from './kit.ts'
import { fit } from './fit.ts'
import { heavierSide, jobsOf, laneProblem, ORDER_CONSTANTS } from './order.ts'
import { zoneSkin, type DrawnLine, type SkinFlow, type SkinGround, type ZoneSkin } from './skin.ts'
import { chooseTools } from './tools.ts'
import type { Lane, LeftOut, Plan, PlanChoice, Reason, ZonePlan } from './types.ts'
import { laneTitle, straysOf } from './walk.ts'
import type { PlanMemory, ZoneQuestion } from './question.ts'
import { overLimitReason, planZone } from './zonePlan.ts'

/** Everything a plan depends on. */
export interface PlanInput {
  readonly figures: Figures
  /** What of the visit is planned: one job so far. */
  readonly jobs: readonly Job[]
  readonly ground: SkinGround
  readonly flow: SkinFlow
  /** What the handle is cast against; left out where there is nothing to meet. */
  readonly room?: Room | undefined
  readonly lines: readonly DrawnLine[]
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly hand: Hand
  readonly level: Level
  /** Blades the house owns. */
  readonly kit: readonly BladeId[]
  readonly sensitivity: (zoneId: ZoneId) => Sensitivity
  readonly growth: (zoneId: ZoneId) => Growth
  /** What Read noted besides the grain. */
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays'>
  readonly house: Plan['house']
  readonly choice: PlanChoice
  /** Kept between plans of the same skin; a new one when grain, marks, lines, service or worker change. */
  readonly memory: PlanMemory
}

/** The same with the job that is planned. */
export interface JobInput extends PlanInput {
  readonly job: Job
  readonly service: ServiceId
}

const ofJob = (input: PlanInput): JobInput => {
  const job = plannedJob(input.jobs)
  return { ...input, job, service: job.service }
}

/** Least worked area of a zone, cm². */
const LEAST_CM2 = 0.3

interface Draft {
  readonly zones: readonly ZonePlan[]
  readonly lanes: readonly Lane[]
  readonly leftOut: readonly LeftOut[]
}

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
  const { question, tools } = zoneQuestion(input)
  const draft = planZones(input, question)
  const ordered = orderLanes(input, draft.lanes)
  const fitted = fit(input, draft.zones, ordered, choice.within)
  const { steps, blades, totalMinutes } = fitted.walked
  const zones = [...fitted.zones].sort(
    (a, b) => firstAt(fitted.lanes, a.zoneId) - firstAt(fitted.lanes, b.zoneId),
  )
  const kit = kitFor(input.figures, service, fitted.lanes, blades, straysOf(input, zones).length)
  const reasons: Reason[] = [
    ...orderReasons(input, fitted.lanes),
    ...tools.reasons,
    { text: 'No pressure: the blade glides. If it needs pressure it is done.', mark: 'C' },
  ]
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
    jobs: input.jobs,
    service,
    style: choice.style,
    schools,
    steps,
    zones,
    lanes: fitted.lanes,
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

/** Hazards a stroke runs away from: eyes, lips, ears, and hair that is kept. */
function hazardsOf({ ground, lines, notes }: PlanInput): Hazard[] {
  const out: Hazard[] = []
  for (const [id, zone] of ground.records) {
    if (!isSkin(id) && id !== 'base') out.push({ name: zoneStem(id), at: zone.centre.point })
    if (notes.keptZones.includes(id)) out.push({ name: 'kept hair', at: zone.centre.point })
  }
  for (const line of lines) {
    const step = Math.max(1, Math.floor(line.path.length / 8))
    for (let i = 0; i < line.path.length; i += step)
      out.push({ name: 'kept hair', at: line.path[i]!.point })
  }
  return out
}

/** What every zone is planned with. */
export function zoneQuestion(asked: PlanInput) {
  const input = ofJob(asked)
  const tools = chooseTools({
    service: input.service,
    style: input.choice.style,
    level: input.level,
    kit: input.kit,
    client: input.client,
    schools: input.schools,
  })
  const question: ZoneQuestion = {
    ...input,
    jobId: input.job.id,
    tools,
    hazards: hazardsOf(input),
  }
  return { question, tools }
}

/** The worked skin of a zone; remembered. */
export function zoneSkinOf(input: PlanInput, id: ZoneId): ZoneSkin {
  const { memory, screening, lines } = input
  const { service } = plannedJob(input.jobs)
  let skin = memory.skins.get(id)
  if (!skin) {
    skin = zoneSkin(input.figures, input.ground, input.flow, id, {
      spots: screening.leaveOutSpots,
      lines,
      worked: SERVICES[service].zones[zoneStem(id)]!,
      bandOnly: SERVICES[service].alongLines === true,
    })
    memory.skins.set(id, skin)
  }
  return skin
}

function planZones(input: JobInput, question: ZoneQuestion): Draft {
  const { service, ground, lines } = input
  const bandOnly = SERVICES[service].alongLines === true
  if (bandOnly && lines.every((l) => l.path.length < 2)) {
    throw new DomainError(
      'no-lines',
      'A line-up works along the lines: draw the cheek and the neck line at Read, under Lines.',
    )
  }
  const zones: ZonePlan[] = []
  const lanes: Lane[] = []
  const leftOut: LeftOut[] = []
  for (const id of input.job.zones ?? serviceZones(service)) {
    const record = ground.records.get(id)!
    const leave = (reason: string) => leftOut.push({ zoneId: id, name: record.name, reason })
    const why = staysWhole(input, id)
    if (why !== undefined) {
      leave(why)
      continue
    }
    const skin = zoneSkinOf(input, id)
    if (skin.openCm2 < LEAST_CM2) {
      // A zone that no line comes near is simply not part of a line-up.
      if (!bandOnly)
        leave(
          skin.keptCm2 > 0
            ? 'Kept: it lies behind a keep-line.'
            : 'Marks leave nothing to work here.',
        )
      continue
    }
    const planned = planZone(question, skin)
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
  if (zones.length === 0) {
    throw new DomainError(
      'nothing-left',
      'Every zone of this service is left out, so there is nothing to plan.',
    )
  }
  return { zones, lanes, leftOut }
}

/** Why a zone is not worked at all. */
function staysWhole({ screening, notes }: PlanInput, id: ZoneId): string | undefined {
  if (screening.leaveOutZones.includes(id)) {
    return screening.zoneReasons?.[id] ?? 'Marked at Ask: the whole zone stays.'
  }
  if (notes.keptZones.includes(id)) return 'Kept: marked at Read.'
  return notes.hair[id]?.density === 'none' ? 'No hair grows here.' : undefined
}

const firstAt = (lanes: readonly Lane[], zone: ZoneId) => {
  const at = lanes.findIndex((l) => l.zoneId === zone)
  return at < 0 ? lanes.length : at
}

/** Lanes in working order: the one kept with the choice while it still fits, else the one found now. */
function orderLanes(input: JobInput, lanes: readonly Lane[]): Lane[] {
  const { schools, service, choice, memory } = input
  const jobs = jobsOf(lanes, SERVICES[service].lather)
  const inOrder = (order: readonly number[]) =>
    order.flatMap((i) => {
      const job = jobs[i]!
      return 'lane' in job ? [job.lane] : []
    })
  const key = [
    schools.faceOrder,
    choice.order?.join(' ') ?? '',
    ...lanes.map((l) => `${l.id} ${l.bladeId} ${l.stance.hour}${l.stance.hand ?? ''}`),
  ].join()
  const had = memory.orders.get(key)
  if (had) return inOrder(had)
  const problem = laneProblem(input.figures, jobs, schools, service)
  const given = (choice.order ?? []).flatMap((id) => {
    const at = jobs.findIndex((j) => ('lane' in j ? j.lane.id : `lather:${j.lather}`) === id)
    return at < 0 ? [] : [at]
  })
  const order = keepsOrder(problem, given)
    ? given
    : findOrder(problem, input.figures(ORDER_CONSTANTS.searchRounds)).order
  memory.orders.set(key, order)
  return inOrder(order)
}

function orderReasons({ service, schools }: JobInput, lanes: readonly Lane[]): Reason[] {
  const { family, order } = SERVICES[service]
  if (order === 'fewest-changes' || typeof order === 'object') {
    return [{ text: 'Order: the fewest changes of stance, turn and tool.', mark: 'H' }]
  }
  if (order === 'heavier-side') {
    return [
      {
        text: `Order: the side with more to do first (client’s ${heavierSide(lanes)}); the other is matched to it.`,
        mark: 'C',
      },
    ]
  }
  const school =
    schools.faceOrder === 'most-work-first' && family === 'fuzz' ? 'flat-first' : schools.faceOrder
  return [{ text: `Order: ${schoolWords('faceOrder', school).toLowerCase()}.`, mark: 'C' }]
}
