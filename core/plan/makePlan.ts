/**
 * From grain, skin, hair, screening and schools to a plan with its reasons: presses, rows of strokes, hands, order, time, kit.
 */
import { withinDeg as trustWithin } from '../grain/index.ts'
import {
  plannedJob,
  type Job,
  ROUTINE_CONSTANTS,
  SERVICES,
  serviceZones,
  type ServiceId,
} from '../services/index.ts'
import { type Figures, schoolWords, type Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import { isSkin, mirrorZone, zoneStem, type ZoneId } from '../zones/index.ts'
import { findOrder, keepsOrder } from '../order/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import { anyZoneOdds, SKIN_CONSTANTS, type Sensitivity, type SkinBelief } from '../skin/index.ts'
import { sum } from '../stats/index.ts'
import { capital, listWords } from '../words.ts'
import type { BladeId, Level } from '../kit/index.ts'
import { packCover } from './cover.ts'
import { frontOf, type Front } from './front.ts'
import type { Room } from './handle.ts'
import type { Hand, Hazard } from './hands.ts'
import { kitFor } from './kit.ts'
import { fit } from './fit.ts'
import { laneShapes } from './lanes.ts'
import { laneStrokes, type BareLane } from './laneWork.ts'
import { groupsOf, heavierSide, jobId, jobsOf, laneProblem, ORDER_CONSTANTS } from './order.ts'
import type { Sequence } from './passes.ts'
import { PRESS_CONSTANTS, pressesOf } from './presses.ts'
import { holdPresses } from './pressWork.ts'
import type { Parted, PlanMemory, ZoneQuestion } from './question.ts'
import { zoneSkin, type DrawnLine, type SkinFlow, type SkinGround, type ZoneSkin } from './skin.ts'
import { bladeLifeStrokes, chooseTools, type ToolChoice } from './tools.ts'
import type { Lane, LeftOut, Plan, PlanChoice, PlannedPress, Reason, ZonePlan } from './types.ts'
import { unitsOf, type WorkedArea } from './units.ts'
import { laneTitle, straysOf, walkThrough } from './walk.ts'
import {
  acrossIn,
  fixedWay,
  overLimitReason,
  planZone,
  zoneWork,
  type ZoneWork,
} from './zonePlan.ts'

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
  /** What is believed of the client's skin as a whole. */
  readonly belief: SkinBelief
  /** Bumps and ingrown hairs per unit load. */
  readonly bumps: (zoneId: ZoneId) => Sensitivity
  /** The client's own record of visits on which a zone reddened. */
  readonly record?: { readonly visits: number; readonly reddened: number } | undefined
  readonly growth: (zoneId: ZoneId) => Growth
  /** What Read noted besides the grain. */
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays'>
  readonly house: Plan['house']
  readonly choice: PlanChoice
  /** Kept between plans of the same skin; a new one when grain, marks, lines, service or worker change. */
  readonly memory: PlanMemory
}

/** The same with the job that is planned. */
interface JobInput extends PlanInput {
  readonly job: Job
  readonly service: ServiceId
}

const ofJob = (input: PlanInput): JobInput => {
  const job = plannedJob(input.jobs)
  return { ...input, job, service: job.service }
}

/** Least worked area of a zone, cm². */
const LEAST_CM2 = 0.3

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
  const fitted = fit(input, draft.zones, ordered, choice.within)
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
    presses: pressesLeft(draft.presses, fitted.lanes),
    front: {
      points: front.plans.map(({ odds, hours, minutes }) => ({ odds, hours, minutes })),
      at,
      offered: front.offered,
      ...(front.why !== undefined && { why: front.why }),
    },
    odds: {
      any: anyZoneOdds(
        input.figures,
        input.belief,
        Object.fromEntries(zones.map((z) => [z.zoneId, z.totalLoad])),
      ),
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

const nothingLeft = (leftOut: readonly LeftOut[]) =>
  new DomainError(
    'nothing-left',
    `Every zone of this service is left out, so there is nothing to plan. ${[...new Set(leftOut.map((z) => z.reason))].slice(0, 2).join(' ')}`.trim(),
  )

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

/** Hazards a stroke runs away from: eyes, lips, ears, and hair that is kept. */
function hazardsOf({
  ground,
  lines,
  notes,
}: Pick<PlanInput, 'ground' | 'lines' | 'notes'>): Hazard[] {
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

/** The zones that are worked at all, each with its skin. */
function openZones(input: JobInput): { skins: ZoneSkin[]; leftOut: LeftOut[] } {
  const { service, ground, lines, hand } = input
  const bandOnly = SERVICES[service].alongLines === true
  if (bandOnly && lines.every((l) => l.path.length < 2)) {
    throw new DomainError(
      'no-lines',
      'A line-up works along the lines: draw the cheek and the neck line at Read, under Lines.',
    )
  }
  const skins: ZoneSkin[] = []
  const leftOut: LeftOut[] = []
  const zones = input.job.zones ?? serviceZones(service)
  // A left hand goes over the zones as a right hand does in a mirror.
  for (const id of hand === 'left' ? zones.map(mirrorZone) : zones) {
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
    skins.push(skin)
  }
  if (skins.length === 0) throw nothingLeft(leftOut)
  return { skins, leftOut }
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

/** Parts the skin into presses; remembered. */
export function partedOf(
  input: Pick<
    PlanInput,
    'figures' | 'ground' | 'client' | 'schools' | 'screening' | 'hand' | 'memory'
  >,
  service: ServiceId,
  skins: readonly ZoneSkin[],
): ReadonlyMap<ZoneId, Parted> {
  const { figures, client, schools, screening, hand, memory } = input
  const fixed =
    SERVICES[service].family === 'fuzz' &&
    schools.fuzzDirection === 'down-to-centre' &&
    !screening.withGrainOnly
  const toleranceDeg = figures(
    client.bumpProne ? PRESS_CONSTANTS.toleranceBumpDeg : PRESS_CONSTANTS.toleranceDeg,
  )
  const key = [fixed, toleranceDeg, hand, ...skins.map((s) => s.zone.id)].join()
  let had = memory.presses.get(key)
  if (!had) {
    const map = pressesOf({
      figures,
      ground: input.ground,
      skins,
      toleranceDeg,
      fixed: fixed ? fixedWay : undefined,
      mirrored: hand === 'left',
    })
    const parted = new Map(
      skins.map((skin) => {
        const { cover, press } = map.zones.get(skin.zone.id)!
        return [
          skin.zone.id,
          {
            shapes: laneShapes(skin, cover, (l) => press[l], hand === 'left'),
            packed: packCover(cover),
          },
        ]
      }),
    )
    had = { map, parted }
    memory.presses.set(key, had)
  }
  return had.parted
}

/** A set of blades with the zones as they are worked with it. */
interface WorkedSet {
  readonly question: ZoneQuestion
  readonly works: ReadonlyMap<ZoneId, ZoneWork>
  readonly areas: readonly WorkedArea[]
}

/** What a zone is planned with, and the zones readied for it. */
function workedWith(
  input: JobInput,
  tools: ToolChoice,
  skins: readonly ZoneSkin[],
  parted: ReadonlyMap<ZoneId, Parted>,
): { question: ZoneQuestion; works: Map<ZoneId, ZoneWork> } {
  const hazards = hazardsOf(input)
  const parts = skins.flatMap((skin) =>
    parted.get(skin.zone.id)!.shapes.map((lane) => ({ skin, lane })),
  )
  const acrossOf = acrossIn({ hazards, hand: input.hand }, parts)
  const bare: ZoneQuestion = { ...input, jobId: input.job.id, tools, hazards, acrossOf, wear: 0 }
  const strokes = sum(
    parts.map(({ skin, lane }) => laneStrokes(bare, skin, lane, lane.growth, undefined).strokes),
  )
  const question = { ...bare, wear: meanWear(input, strokes) }
  const works = new Map(
    skins.map((skin) => [skin.zone.id, zoneWork(question, skin, parted.get(skin.zone.id)!)]),
  )
  return { question, works }
}

/** Mean used share of a blade's life over a pass of so many strokes. */
function meanWear({ figures, service, client, schools }: JobInput, strokes: number): number {
  const life = bladeLifeStrokes(figures, service, client)
  const onOne =
    SERVICES[service].changesByFeel && schools.headBlade === 'by-feel' ? strokes / 2 : strokes
  return 0.5 * Math.min(1, onOne / life)
}

/** What a zone is planned with by itself, at the chair. */
export function zoneQuestion(
  asked: PlanInput,
  skins: readonly ZoneSkin[],
  parted: ReadonlyMap<ZoneId, Parted> = partedOf(asked, plannedJob(asked.jobs).service, skins),
): { question: ZoneQuestion; works: ReadonlyMap<ZoneId, ZoneWork> } {
  const input = ofJob(asked)
  const [tools] = chooseTools(input)
  return workedWith(input, tools!, skins, parted)
}

/** The front of a service on this skin, with what each set of blades is planned with; remembered. */
function outline(input: JobInput, skins: readonly ZoneSkin[]): { sets: WorkedSet[]; front: Front } {
  const { service, figures, memory } = input
  const parted = partedOf(input, service, skins)
  const all = chooseTools(input).map((tools): WorkedSet => {
    const { question, works } = workedWith(input, tools, skins, parted)
    return { question, works, areas: unitsOf(question, works) }
  })
  // A set that no zone bears has nothing of its own to offer beside one that some do.
  const borne = all.filter(({ areas }) =>
    areas.some(({ units }) => units.some((u) => u.allowed.length > 0)),
  )
  const sets = borne.length > 0 ? borne : all.slice(0, 1)
  const key = JSON.stringify([
    [input.schools, input.client, input.notes, input.kit, input.level, input.hand, service],
    [input.screening.withGrainOnly, input.screening.onePass, input.screening.leaveOutZones],
    [
      input.belief,
      skins.map((s) => [
        s.zone.id,
        input.sensitivity(s.zone.id),
        input.bumps(s.zone.id),
        input.growth(s.zone.id),
      ]),
    ],
  ])
  let front = memory.fronts.get(key)
  if (!front) {
    const guesses = skins.filter((s) => isGuess(input, s)).length
    const base =
      60 * (walkThrough(input, [], []).totalMinutes + guesses * figures(ROUTINE_CONSTANTS.feelMin))
    front = frontOf(
      figures,
      service,
      input.belief,
      sets.map(({ areas, question }) => ({
        areas,
        extraSeconds: question.tools.first ? figures(ORDER_CONSTANTS.toolSeconds) : 0,
      })),
      base,
    )
    memory.fronts.set(key, front)
  }
  return { sets, front }
}

/** True where nobody has read the grain of a zone: it is felt first. */
const isGuess = ({ figures }: JobInput, skin: ZoneSkin) =>
  trustWithin(figures, skin.trust.reduce((s, t) => s + t, 0) / skin.count) === undefined

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
