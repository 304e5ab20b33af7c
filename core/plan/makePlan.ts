/**
 * From grain, skin, hair, screening and schools to a plan with its reasons: presses, rows of strokes, hands, order, time, kit.
 */
import { bumpProneIn } from '../client.ts'
import {
  checkSitting,
  leadJob,
  plannedGroups,
  serviceZones,
  SERVICES,
  works,
} from '../services/index.ts'
import { type Figures, schoolWords } from '../house/index.ts'
import { DomainError } from '../errors.ts'
import type { ZoneId } from '../zones/index.ts'
import { findOrder, keepsOrder } from '../order/index.ts'
import { OUTLINE_WORDS, outlineCm2, outlineProblem, workedOutlines } from '../lines/index.ts'
import { anyZoneOdds, SKIN_CONSTANTS } from '../skin/index.ts'
import { sum } from '../stats/index.ts'
import { capital, listWords, lowerFirst } from '../words.ts'
import type { Front } from './front.ts'
import { handWork } from './handWork.ts'
import { jointFront, type JointFront } from './jointFront.ts'
import { kitFor, sittingKit } from './kit.ts'
import { fit } from './fit.ts'
import type { BareLane } from './laneWork.ts'
import { groupsOf, heavierSide, jobId, jobsOf, laneProblem, ORDER_CONSTANTS } from './order.ts'
import { NothingLeft, nothingLeft, openZones, outline, type WorkedSet } from './outline.ts'
import type { Sequence } from './passes.ts'
import { paceReason } from './pace.ts'
import { inGroups, type JobInput, type PlanInput } from './planInput.ts'
import { holdPresses } from './pressWork.ts'
import { inTurn, walkHand, walkSitting, type Part } from './sitting.ts'
import type {
  HandWork,
  Lane,
  LeftOut,
  Plan,
  PlanChoice,
  PlannedPress,
  Reason,
  ZonePlan,
} from './types.ts'
import { laneTitle, straysOf } from './walk.ts'
import { overLimitReason, planZone } from './zonePlan.ts'

/** A service of the sitting in outline. */
interface Outlined {
  readonly input: JobInput
  /** Its place among the services as they were put down. */
  readonly nth: number
  readonly opened: ReturnType<typeof openZones>
  readonly sets: readonly WorkedSet[]
  readonly front: Front
}

/**
 * Makes a plan of a sitting: each service and method is planned for itself, what is chosen, ordered and timed is the whole.
 * @throws DomainError `not-cleared` when asking has not cleared it, `nothing-left` when every zone is left out,
 * `clippers-only`, `strip-too-wide`, `no-blade`, `no-lines`, `never-against`, and those of `checkSitting`
 */
export function makePlan(asked: PlanInput): Plan {
  const { figures, screening, schools, choice } = asked
  checkSitting(asked.jobs)
  refuseUncleared(asked)
  refuseWideStrip(asked)
  const { service } = leadJob(asked.jobs)
  const byHand = handWork(asked)
  const { outlined, leftOut } = outlineAll(asked, byHand.hand.length > 0)
  const slotMin = slotOf(figures, outlined, byHand.hand)
  const front = jointFront(
    figures,
    asked.belief,
    outlined.map((o) => ({
      front: o.front,
      areaCm2: sum(o.opened.skins.map((s) => s.openCm2)),
    })),
    handLoads(byHand.hand),
    savedMinutes(outlined, byHand.hand),
  )
  const at = outlined.length > 0 ? chosenOf(front, choice) : -1
  const joint = front.plans[at]
  if (!joint && outlined.length > 0) {
    const [first] = outlined
    throw nothingLeft(first!.opened.leftOut)
  }
  if (!joint && byHand.hand.length === 0) throw nothingLeft([...leftOut, ...byHand.leftOut])
  const made = outlined.map((o, i) => makePart(o, o.front.plans[joint!.parts[i]!]!))
  const fitted = fit(
    made.map((m) => m.part),
    byHand.hand,
    choice.within,
    { figures, noFragrance: screening.noFragrance },
  )
  const { steps, blades, totalMinutes } = fitted.walked
  const order = inTurn(fitted.parts)
  const lanes = order.flatMap((i) => fitted.parts[i]!.lanes)
  const zones = fitted.parts
    .flatMap((p) => p.zones)
    .sort((x, y) => firstAt(lanes, x.zoneId) - firstAt(lanes, y.zoneId))
  const kit = sittingKit(
    figures,
    outlined.map(({ input }, i) =>
      kitFor(
        figures,
        input.service,
        fitted.parts[i]!.lanes,
        blades[i]!,
        straysOf(input, fitted.parts[i]!.zones).length,
        input.schools,
      ),
    ),
    byHand.hand,
  )
  const over = overLimitOf(figures, zones)
  const reasons = [
    ...planReasons(asked, outlined, made, zones, over, fitted.parts),
    ...timeReasons(choice, totalMinutes, slotMin),
  ]
  const loads = handLoads(byHand.hand)
  for (const z of zones) loads[z.zoneId] = (loads[z.zoneId] ?? 0) + z.totalLoad
  return {
    version: 2,
    pace: asked.pace.ratio,
    jobs: asked.jobs,
    service,
    style: choice.style,
    schools,
    steps,
    zones,
    lanes,
    ...(byHand.hand.length > 0 && { hand: byHand.hand }),
    presses: pressesLeft(
      made.flatMap((m) => m.presses),
      lanes,
    ),
    ...(joint && {
      front: {
        points: front.plans.map(({ odds, hours, minutes, skin }) => ({
          odds,
          hours,
          minutes,
          skin,
        })),
        zones: front.zones,
        at,
        offered: front.offered,
        ...(front.why !== undefined && { why: front.why }),
      },
    }),
    odds: {
      any: anyZoneOdds(asked.belief, loads),
      zones: sum(zones.map((z) => z.rednessOdds)),
      ...(asked.record && { record: asked.record }),
    },
    leftOut: [...leftOut, ...made.flatMap((m) => m.leftOut), ...byHand.leftOut],
    totalMinutes,
    slotMinutes: slotMin,
    kit,
    bladeCount: sum(blades.flatMap((b) => [...b.values()])),
    cost: Math.round(kit.reduce((s, k) => s + k.cost, 0) * 100) / 100,
    dropped: fitted.dropped,
    overLimit: over,
    reasons,
    screening,
    noFragrance: screening.noFragrance,
    ...(asked.notes.heavier && { heavier: asked.notes.heavier }),
    ...(isTrial(asked) && outlined.length > 0 && { trial: true as const }),
    house: asked.house,
    choice,
  }
}

/** Every service in outline; of several one whose skin all stays is left away, with its zones. */
function outlineAll(
  asked: PlanInput,
  others: boolean,
): { readonly outlined: readonly Outlined[]; readonly leftOut: readonly LeftOut[] } {
  const leftOut: LeftOut[] = []
  const groups = inGroups(asked)
  const outlined = groups.flatMap((input, nth): Outlined[] => {
    try {
      const opened = openZones(input)
      return [{ input, nth, opened, ...outline(input, opened.skins) }]
    } catch (e) {
      const alone = groups.length === 1 && !others
      if (alone || !(e instanceof NothingLeft)) throw e
      leftOut.push(...e.leftOut)
      return []
    }
  })
  if (outlined.length === 0 && groups.length > 0 && !others) throw nothingLeft(leftOut)
  return { outlined, leftOut }
}

/**
 * A strip wide enough to be the service itself would go past what a first treatment waits for.
 * @throws DomainError `strip-too-wide`
 */
function refuseWideStrip({ figures, outlines, ground }: PlanInput): void {
  const strips = outlines.filter((o) => o.kind === 'trial')
  const cm2 = sum(strips.map((o) => outlineCm2(ground.mesh, o.inside)))
  const problem = strips.length > 0 ? outlineProblem(figures, 'trial', cm2) : undefined
  if (problem)
    throw new DomainError('strip-too-wide', `${problem} Draw it anew at Read, under Areas.`)
}

const isTrial = ({ outlines }: Pick<PlanInput, 'outlines'>) =>
  outlines.some((o) => o.kind === 'trial')

const handLoads = (hand: readonly HandWork[]): Record<string, number> => {
  const loads: Record<string, number> = {}
  for (const { zones, load } of hand) for (const z of zones) loads[z] = (loads[z] ?? 0) + load
  return loads
}

/** What a sitting takes less than its jobs apart: one preparation, one close. */
function savedMinutes(outlined: readonly Outlined[], hand: readonly HandWork[]): number {
  const bare = outlined.map(({ input }): Part => ({ input, zones: [], lanes: [] }))
  const [first] = bare
  if (!first) return 0
  const apart = sum(bare.map((p) => walkSitting([p], []).totalMinutes))
  return apart - walkSitting(bare, hand).totalMinutes
}

/** The slot on the book: that of each service, what is done by hand, less what they share. */
function slotOf(
  figures: Figures,
  outlined: readonly Outlined[],
  hand: readonly HandWork[],
): number {
  const slots = outlined.map(({ input }) => figures(SERVICES[input.service].slotMin))
  if (slots.length === 0) return Math.ceil(walkHand(figures, hand, false).totalMinutes)
  const byHand = sum(hand.map((h) => h.minutes))
  const saved = savedMinutes(outlined, hand) + byHand
  return Math.ceil(sum(slots) + byHand - Math.max(0, saved))
}

/** A service with its strokes laid and ordered. */
interface MadePart {
  readonly part: Part
  readonly presses: readonly PlannedPress[]
  readonly leftOut: readonly LeftOut[]
  readonly set: WorkedSet
  readonly outlined: Front['plans'][number]
}

function makePart(
  { input, nth, opened, sets }: Outlined,
  outlined: Front['plans'][number],
): MadePart {
  const set = sets[outlined.set]!
  const draft = ofSitting(planZones(set, outlined.rows, opened.leftOut), nth)
  const pressToward = new Map(
    draft.presses.flatMap((p) => (p.toward === undefined ? [] : [[p.id, p.toward] as const])),
  )
  const lanes = orderLanes(input, draft.lanes)
  return {
    part: { input: { ...input, pressToward }, zones: draft.zones, lanes },
    ...{ presses: draft.presses, leftOut: draft.leftOut, set, outlined },
  }
}

/** Steps of the services after the first are named apart from its own. */
function ofSitting(draft: Draft, nth: number): Draft {
  if (nth === 0) return draft
  const named = (id: string) => `${id}:s${nth + 1}`
  return {
    ...draft,
    lanes: draft.lanes.map((l) => ({ ...l, stepId: named(l.stepId ?? l.id) })),
    presses: draft.presses.map((p) => ({ ...p, id: named(p.id) })),
  }
}

/** Why the plan is as it is. */
function planReasons(
  asked: PlanInput,
  outlined: readonly Outlined[],
  made: readonly MadePart[],
  zones: readonly ZonePlan[],
  overLimit: NonNullable<Plan['overLimit']>,
  parts: readonly Part[],
): Reason[] {
  const area = sum(outlined.map((o) => sum(o.opened.skins.map((s) => s.openCm2))))
  const above = overLimitReason(asked.figures, { zones, overLimit })
  const reasons: Reason[] = above ? [above] : []
  const [only] = workedOutlines(asked.outlines)
  if (only && outlined.length > 0) {
    reasons.push({
      text: `${capital(OUTLINE_WORDS[only.kind])}: only what lies inside its outline is worked, ${Math.round(area)} cm².`,
      mark: 'C',
    })
  }
  made.forEach(({ set, outlined: chosen }, i) => {
    const { input } = outlined[i]!
    const own = [
      ...areaReasons(set, chosen),
      ...orderReasons(input, parts[i]!.lanes),
      ...set.question.tools.reasons,
    ]
    const pace = paceReason(input.service, input.pace)
    if (pace) own.push(pace)
    const name = SERVICES[input.service].name
    reasons.push(
      ...(made.length === 1
        ? own
        : own.map((r) => ({ ...r, text: `${name}: ${lowerFirst(r.text)}` }))),
    )
  })
  if (made.length > 0) {
    reasons.push({
      text: 'No pressure: the blade glides. If it needs pressure it is done.',
      mark: 'C',
    })
  }
  if (asked.jobs.length > 1) {
    reasons.push({
      text: 'One sitting: dry before wet, strays before fuzz, one preparation and one close for all.',
      mark: 'C',
    })
  }
  const guesses = zones.filter((z) => z.grainSource === 'guess').length
  if (guesses > 0) {
    reasons.push({
      text: `${guesses} of ${zones.length} zones were not read: their direction is a starting guess. Feel before you cut.`,
      mark: 'H',
    })
  }
  return reasons
}

function timeReasons({ within }: PlanChoice, totalMinutes: number, slotMin: number): Reason[] {
  if (totalMinutes <= (within ?? slotMin) + 0.5) return []
  return [
    {
      text:
        within === undefined
          ? `This is ${Math.ceil(totalMinutes - slotMin)} min over the slot of ${slotMin} min.`
          : `${within} min cannot be reached: ${Math.ceil(totalMinutes)} min is the least for these zones.`,
      mark: 'H',
    },
  ]
}

/** Which plan of the front a choice means: one between the three by its hours, else its kind. */
function chosenOf({ plans, kinds }: JointFront, { style, hours }: PlanChoice): number {
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

function refuseUncleared({ jobs, screening, client, schools }: PlanInput): void {
  if (screening.verdict === 'postpone' || screening.verdict === 'refer') {
    throw new DomainError(
      'not-cleared',
      'Asking has not cleared this service, so there is no plan to make. See Ask.',
    )
  }
  if (
    plannedGroups(jobs).some(
      (g) =>
        SERVICES[g.service].clippersSchool &&
        serviceZones(g.service).some((z) => works(g, z) && bumpProneIn(client, z)),
    ) &&
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
    input.notes.heavier,
    choice.order?.join(' ') ?? '',
    ...groupsOf(lanes).map(
      ({ id, lead }) =>
        `${id} ${lead.id} ${lead.bladeId} ${lead.stance.hour}${lead.stance.hand ?? ''}`,
    ),
  ].join()
  const had = memory.orders.get(key)
  if (had) return inOrder(had)
  const problem = laneProblem(input.figures, jobs, schools, service, hand, input.notes.heavier)
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

function orderReasons(
  { service, schools, hand, notes }: JobInput,
  lanes: readonly Lane[],
): Reason[] {
  const { family, order } = SERVICES[service]
  if (order === 'fewest-changes' || typeof order === 'object') {
    return [{ text: 'Order: the fewest changes of stance, turn and tool.', mark: 'H' }]
  }
  if (order === 'heavier-side') {
    return [
      {
        text: `Order: the side with more to do first (client’s ${heavierSide(lanes, hand, notes.heavier)}${notes.heavier && notes.heavier !== 'alike' ? ', as it was seen' : ''}); the other is matched to it.`,
        mark: 'C',
      },
    ]
  }
  const school =
    schools.faceOrder === 'most-work-first' && family === 'fuzz' ? 'flat-first' : schools.faceOrder
  return [{ text: `Order: ${schoolWords('faceOrder', school).toLowerCase()}.`, mark: 'C' }]
}
