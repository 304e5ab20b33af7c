/**
 * Planning the rest of a service anew while it runs: gentler, around a place found, without a zone, to the end, with patches
 * that were missed, or the other side first. What is done stays done; else the order of what is left stays as it was.
 */
import { coverFrom, lettersUsed, sameSkins, shapesOf, within, type CellPlace } from './cells.ts'
import { newRest, type Replanned } from './newRest.ts'
import type { Live } from './state.ts'
import { DomainError } from '../errors.ts'
import type { HeavierSide } from '../hair/index.ts'
import { otherSide } from './otherSide.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import { SERVICES, type ServiceId } from '../services/index.ts'
import { LOAD_CONSTANTS, updateSensitivity, type Sensitivity } from '../skin/index.ts'
import { loadsGiven, redAtChair } from './outcome.ts'
import {
  EDGE_CONSTANTS,
  edgeBand,
  holdPresses,
  type LaneGroup,
  type LaneShape,
  type Parted,
  partedOf,
  type Sequence,
  stepLanes,
  largestFirst,
  stepZones,
  type ZoneWork,
  zoneQuestion,
  zoneSkinOf,
  type PlanInput,
  packCover,
  type Cover,
  makeLane,
  type ZoneSkin,
  type Lane,
  type PlanStep,
  laneTitle,
  strokeStep,
  planZone,
  type Plan,
  serviceIn,
} from '../plan/index.ts'

/** Why the rest is planned anew. */
export type Cause =
  | { readonly kind: 'stop' }
  | { readonly kind: 'skip-zone'; readonly zoneId: ZoneId }
  /** Redness or a welt: what is left gets the gentlest plan; the zone itself may be left. */
  | { readonly kind: 'gentler'; readonly zoneId?: ZoneId | undefined; readonly leaveZone: boolean }
  | { readonly kind: 'leave-out'; readonly place: CellPlace }
  | { readonly kind: 'missed'; readonly places: readonly CellPlace[] }
  /** Combed down, one side was seen to have more to do, or none. */
  | { readonly kind: 'heavier'; readonly side: HeavierSide }
  /** Hair was felt to grow otherwise than was guessed; the map that is planned on holds what was felt. */
  | { readonly kind: 'felt'; readonly zoneId: ZoneId }

/** Patches smaller than this are part of the lane beside them, cm². */
const LEAST_PATCH_CM2 = 0.15

/**
 * Plans the rest of a running service anew.
 * @param input what a plan of this client depends on, as it is now
 * @throws DomainError `nothing-to-change` when it would change nothing; `once-only` for missed fuzz; those of planning
 */
export function replan(input: PlanInput, live: Live, cause: Cause): Replanned {
  const rest = live.plan.steps.slice(live.state.index)
  // A service keeps the pace that its plan was made with, so that it tells of one pace when it ends.
  const pace = { ...input.pace, ratio: live.plan.pace }
  const learned = afterRedness({ ...input, pace }, live)
  switch (cause.kind) {
    case 'stop':
      return newRest(
        learned,
        live,
        closingOnly(rest),
        [],
        [],
        'Stopped at the client’s wish: no more strokes.',
      )
    case 'skip-zone':
      return newRest(
        learned,
        live,
        withoutZone(live, rest, cause.zoneId),
        [],
        [],
        `${zoneName(cause.zoneId)}: the rest of it is skipped.`,
      )
    case 'gentler':
      return gentler(learned, live, rest, cause)
    case 'leave-out':
      return leaveOut(learned, live, rest, cause.place)
    case 'missed':
      return missed(learned, live, rest, cause.places)
    case 'heavier':
      return otherSide(learned, live, rest, cause.side)
    case 'felt':
      return laidAnew(learned, live, rest, cause.zoneId)
  }
}

/** Steps without one zone: those that work others too go on with them. */
function withoutZone(
  { plan }: Live,
  rest: readonly PlanStep[],
  zoneId: ZoneId | undefined,
): PlanStep[] {
  const byId = new Map(plan.lanes.map((l) => [l.id, l]))
  return rest.flatMap((s) => {
    if (!zoneId || !stepZones(s).includes(zoneId)) return [s]
    if (s.kind === 'hand') return withoutHandZone(s, zoneId)
    const others = stepLanes(s).flatMap((id) => {
      const lane = byId.get(id)
      return lane && lane.zoneId !== zoneId ? [lane] : []
    })
    return others.length > 0 ? [restated(s, others)] : []
  })
}

/** What is done by hand, without one zone of it. */
function withoutHandZone(step: PlanStep, zoneId: ZoneId): PlanStep[] {
  const zones = stepZones(step)
  const [first, ...more] = zones.filter((z) => z !== zoneId)
  if (!first) return []
  const share = (more.length + 1) / zones.length
  return [{ ...step, zoneId: first, zoneIds: [first, ...more], minutes: step.minutes * share }]
}

const closingOnly = (rest: readonly PlanStep[]) =>
  rest.filter((s) => s.kind === 'close' || (s.kind === 'check' && s.id !== 'check'))

/** What was seen at the chair counts at once: the zone's own sensitivity by its load so far, the others lean on it as they do between visits. */
function afterRedness(input: PlanInput, { plan, state }: Live): PlanInput {
  if (state.redness.length === 0) return input
  const loads = loadsGiven(input.figures, plan, state)
  const seen = Object.entries(redAtChair(state)).map(([zoneId, grade]) => ({
    zoneId: zoneId as ZoneId,
    grade,
    // Where no blade was planned it still says something of the skin beside it.
    load: loads[zoneId] ?? input.figures(LOAD_CONSTANTS.withGrain),
  }))
  const sensitivity = (zoneId: ZoneId): Sensitivity => {
    const before = input.sensitivity(zoneId)
    const own = seen.filter((s) => s.zoneId === zoneId)
    const others = seen.filter((s) => s.zoneId !== zoneId)
    const lean = others.map((o) => {
      const after = updateSensitivity(input.sensitivity(o.zoneId), [o])
      // Half a service's worth: one red zone says less of another than a whole answer does.
      return { grade: (0.5 * after.shape) / after.rate, load: 0.5 }
    })
    return updateSensitivity(before, [...own, ...lean])
  }
  return { ...input, sensitivity }
}

function gentler(
  input: PlanInput,
  live: Live,
  rest: readonly PlanStep[],
  cause: Extract<Cause, { kind: 'gentler' }>,
): Replanned {
  const mild: PlanInput = {
    ...input,
    screening: { ...input.screening, withGrainOnly: true, onePass: true },
    // The blades stay those in hand: a gentler plan is made of fewer strokes and a kinder direction.
    choice: { style: live.plan.choice.style, edits: {} },
    memory: sameSkins(input.memory),
  }
  const leaves = cause.leaveZone ? cause.zoneId : undefined
  const lanes = remadeLanes(mild, live, rest, () => undefined)
  const steps = rest.flatMap((s) => {
    if (s.kind === 'hand' && leaves && stepZones(s).includes(leaves))
      return withoutHandZone(s, leaves)
    if (s.laneId === undefined) return [s]
    const own = stepLanes(s).flatMap((id) => lanes.get(id) ?? [])
    const left = own.filter((l) => l.zoneId !== leaves)
    return left.length > 0 ? [restated(s, left)] : []
  })
  const where = cause.zoneId ? `${zoneName(cause.zoneId)} reddened: ` : ''
  return newRest(
    mild,
    live,
    steps,
    [...lanes.values()],
    [],
    `${where}${leaves ? 'it is left, and ' : ''}what is left gets one pass with the grain.`,
  )
}

function leaveOut(
  input: PlanInput,
  live: Live,
  rest: readonly PlanStep[],
  place: CellPlace,
): Replanned {
  const covers: { zoneId: ZoneId; cover: string }[] = []
  const memory = sameSkins(input.memory)
  const question = { ...input, choice: live.plan.choice, memory }
  const clipped = (zoneId: ZoneId, skin: ZoneSkin): Cover | undefined => {
    const zone = live.plan.zones.find((z) => z.zoneId === zoneId)
    if (!zone) return undefined
    const cover = coverFrom(zone.cover, skin.count)
    let touched = false
    for (let c = 0; c < skin.count; c++) {
      if (cover.lane[c]! >= 0 && within(skin, c, place)) {
        cover.lane[c] = -1
        touched = true
      }
    }
    if (!touched) return undefined
    covers.push({ zoneId, cover: packCover(cover) })
    return cover
  }
  const lanes = remadeLanes(question, live, rest, clipped)
  const touched = new Set(covers.map((c) => c.zoneId))
  if (touched.size === 0) {
    throw new DomainError(
      'nothing-to-change',
      'Nothing that is still to be done lies within that place.',
    )
  }
  const own = new Map([...lanes].filter(([, l]) => touched.has(l.zoneId)))
  const before = new Map(live.plan.lanes.map((l) => [l.id, l]))
  const steps = rest.flatMap((s) => {
    if (!stepZones(s).some((z) => touched.has(z)) || s.laneId === undefined) return [s]
    const now = stepLanes(s).flatMap((id) => {
      const lane = before.get(id)
      return (lane && touched.has(lane.zoneId) ? own.get(id) : lane) ?? []
    })
    return now.length > 0 ? [restated(s, now)] : []
  })
  return newRest(
    question,
    live,
    steps,
    [...own.values()].map((l) => ({
      ...l,
      avoid: [...l.avoid, `leave ${place.radiusMm} mm round the place found`],
    })),
    covers,
    `${zoneName(place.zoneId)}: a place found on the way is left out, ${place.radiusMm} mm round it.`,
  )
}

/** Missed patches become short lanes with the grain, before the close. */
function missed(
  input: PlanInput,
  live: Live,
  rest: readonly PlanStep[],
  places: readonly CellPlace[],
): Replanned {
  const shaved = (zone: ZoneId) => SERVICES[serviceIn(live.plan, zone)].family !== 'fuzz'
  if (!places.some((p) => shaved(p.zoneId))) {
    throw new DomainError(
      'once-only',
      'Fuzz is never gone over twice: leave what was missed for the next visit.',
    )
  }
  const asked = { ...input, memory: sameSkins(input.memory) }
  const lanes: Lane[] = []
  const steps: PlanStep[] = []
  const covers: { zoneId: ZoneId; cover: string }[] = []
  for (const zone of live.plan.zones) {
    const { zoneId } = zone
    const near = places.filter((p) => p.zoneId === zoneId && shaved(zoneId))
    if (near.length === 0) continue
    const skin = zoneSkinOf(input, zoneId)
    const old = coverFrom(zone.cover, skin.count)
    const lane = new Int16Array(skin.count).fill(-1)
    let count = lettersUsed(live.plan, zoneId)
    const first = count
    for (const p of near) {
      let any = false
      for (let c = 0; c < skin.count; c++) {
        if (old.lane[c]! >= 0 && lane[c]! < 0 && within(skin, c, p)) {
          lane[c] = count
          old.lane[c] = count
          any = true
        }
      }
      if (any) count++
    }
    covers.push({ zoneId, cover: packCover(old) })
    const shapes = shapesOf(skin, { lane, count }, first, undefined, bandOf(asked, skin))
    const packed = packCover({ lane, count })
    const parted = new Map([[zoneId, { shapes, packed, tweezeCm2: 0 }]])
    const { question, works } = zoneQuestion(asked, [skin], parted)
    const work = works.get(zoneId)!
    const { hair, coarse, curlTight } = work.question
    const patches = shapes
      .filter((shape) => shape.areaCm2 >= LEAST_PATCH_CM2)
      .map((shape) =>
        makeLane(
          question,
          skin,
          shape,
          {
            pass: AGAIN,
            chart: work.question.strokeOf(shape, 'with'),
            laneId: `${zoneId}:${AGAIN}:${shape.letter}`,
          },
          {
            ...{ hair, coarse, avoid: zone.avoid, curlTight },
            beside: work.turned(shape, 'with') ? shape.beside?.name : undefined,
          },
        ),
      )
    for (const made of holdPresses(question, patches).lanes) {
      // It was felt, or read, before the zone was stroked at all.
      const known = live.plan.lanes.find((l) => l.zoneId === zoneId)?.grain
      const again = {
        ...made,
        ...(known && { grain: known }),
        load: made.load * input.figures(LOAD_CONSTANTS.goneOverAgain),
      }
      lanes.push(again)
      steps.push({
        ...strokeStep(alone(again), () => 1, made.seconds / 60 + 0.1, false),
        title: `Missed: ${laneTitle(again, 1).toLowerCase()}`,
        short: `Missed: ${laneTitle(again, 1, true).toLowerCase()}`,
      })
    }
  }
  if (lanes.length === 0) {
    throw new DomainError(
      'nothing-to-change',
      'Those places lie outside what this service works. Tap on the skin that was shaved.',
    )
  }
  // The second look comes once more after them, as long as it is still to be settled.
  const check = rest.findIndex((s) => s.kind === 'check')
  const at = check < 0 ? 0 : check
  return newRest(
    input,
    live,
    [...rest.slice(0, at), ...steps, ...rest.slice(at)],
    lanes,
    covers,
    `${lanes.length} missed ${lanes.length === 1 ? 'patch' : 'patches'}: once with the grain${lanes.some((l) => SERVICES[serviceIn(live.plan, l.zoneId)].lather) ? ', on fresh lather' : ''}.`,
  )
}

/** A zone is parted and stroked by what was felt in it; where its passes stood in the order its new lanes stand. */
function laidAnew(
  input: PlanInput,
  live: Live,
  rest: readonly PlanStep[],
  zoneId: ZoneId,
): Replanned {
  const skin = zoneSkinOf(input, zoneId)
  const { question, works } = zoneQuestion(
    {
      ...input,
      // Changes by hand were made to lanes that are no more.
      choice: { style: live.plan.choice.style, edits: {} },
    },
    [skin],
  )
  const work = works.get(zoneId)!
  const before = live.plan.zones.find((z) => z.zoneId === zoneId)
  const planned = planZone(question, work, rowBefore(live, zoneId, work))
  // What was felt speaks for the whole zone. Letters and presses of the whole map mean other parts: its steps are its own.
  const lanes = holdPresses(question, planned.lanes).lanes.map((l): Lane => ({
    ...l,
    grain: 'read',
    stepId: `${l.id}:felt`,
  }))
  const strokes = new Map<number, PlanStep[]>()
  for (const lane of lanes) {
    const parts = lanes.filter((l) => l.pass === lane.pass).length
    const made = strokeStep(
      { id: lane.stepId!, lead: lane, lanes: [lane] },
      () => parts,
      lane.seconds / 60 + 0.1,
      false,
    )
    strokes.set(lane.pass, [...(strokes.get(lane.pass) ?? []), made])
  }
  const steps = rest.flatMap((s) => {
    if (s.kind !== 'stroke' || !stepZones(s).includes(zoneId)) return [s]
    const own = strokes.get(s.pass!) ?? []
    strokes.delete(s.pass!)
    return [...withoutZone(live, [s], zoneId), ...own]
  })
  return newRest(
    input,
    live,
    steps,
    lanes,
    [{ zoneId, cover: planned.zone.cover }],
    `${zoneName(zoneId)}: felt to grow otherwise than was guessed; its strokes follow what was felt.${before ? '' : ' It was not planned before.'}`,
  )
}

/** Missed patches are told as a pass of their own, after all others. */
export const AGAIN = 9

/** The row of strokes that a zone was planned with; the gentlest where that is none of its rows any more. */
function rowBefore({ plan }: Live, zoneId: ZoneId, work: ZoneWork): Sequence {
  const had = plan.zones.find((z) => z.zoneId === zoneId)?.passes.map((p) => p.relation) ?? []
  return (
    work.sequences.find((s) => s.map((x) => x.wanted).join() === had.join()) ?? work.sequences[0]!
  )
}

const alone = (lane: Lane): LaneGroup => ({ id: lane.stepId ?? lane.id, lead: lane, lanes: [lane] })

/** Lanes of the rest as they are made now, by id; those that no longer come up are absent. */
function remadeLanes(
  input: PlanInput,
  { plan }: Live,
  rest: readonly PlanStep[],
  coverFor: (zoneId: ZoneId, skin: ZoneSkin) => Cover | undefined,
): Map<string, Lane> {
  const wanted = new Set(rest.flatMap(stepLanes))
  const own = plan.zones
    .filter((z) => plan.lanes.some((l) => l.zoneId === z.zoneId && wanted.has(l.id)))
    .map((zone) => ({ zone, skin: zoneSkinOf(input, zone.zoneId) }))
  const skins = own.map((o) => o.skin)
  const whole = new Map(
    byService(plan, skins).flatMap(([service, of]) => [...partedOf(input, service, of)]),
  )
  const parted = new Map<ZoneId, Parted>()
  for (const { zone, skin } of own) {
    const cover = coverFor(zone.zoneId, skin) ?? coverFrom(zone.cover, skin.count)
    const press = stillPress(whole.get(zone.zoneId)!, cover)
    const shapes = shapesOf(skin, cover, 0, press, bandOf(input, skin)).filter(
      (s) => s.areaCm2 >= LEAST_PATCH_CM2,
    )
    if (shapes.length > 0)
      parted.set(zone.zoneId, { shapes, packed: packCover(cover), tweezeCm2: 0 })
  }
  const left = skins.filter((s) => parted.has(s.zone.id))
  if (left.length === 0) return new Map()
  const out = new Map<string, Lane>()
  const made = byService(plan, left).flatMap(([, of]) => {
    const { question, works } = zoneQuestion(input, of, parted)
    const bare = of.flatMap((skin) => {
      const work = works.get(skin.zone.id)!
      return planZone(question, work, rowBefore({ plan } as Live, skin.zone.id, work)).lanes
    })
    return holdPresses(
      question,
      bare.filter((l) => wanted.has(l.id)),
    ).lanes
  })
  for (const lane of made) {
    const before = plan.lanes.find((l) => l.id === lane.id)
    if (!before) continue
    out.set(lane.id, {
      ...lane,
      stepId: before.stepId ?? before.id,
      // What was felt on the way still speaks for the whole zone.
      ...(before.grain && { grain: before.grain }),
    })
  }
  return out
}

/** Skins by the service that works them: each is planned for itself. */
function byService(plan: Plan, skins: readonly ZoneSkin[]): [ServiceId, ZoneSkin[]][] {
  const by = new Map<ServiceId, ZoneSkin[]>()
  for (const skin of skins) {
    const service = serviceIn(plan, skin.zone.id)
    by.set(service, [...(by.get(service) ?? []), skin])
  }
  return [...by]
}

/** The cells of a zone that lie beside an edge. */
const bandOf = ({ ground, figures }: PlanInput, skin: ZoneSkin) =>
  edgeBand(ground, skin, figures(EDGE_CONSTANTS.bandMm))

/** The press of each lane whose skin is still that of the whole map's part of that number. */
function stillPress(whole: Parted, cover: Cover): (lane: number) => LaneShape['press'] {
  const there = coverFrom(whole.packed, cover.lane.length)
  return (lane) => {
    const inside = cover.lane.every((l, c) => l !== lane || there.lane[c] === lane)
    return inside ? whole.shapes[lane]?.press : undefined
  }
}

/** A step with its lanes' new figures; what the walk said of blades stays. */
function restated(step: PlanStep, lanes: readonly Lane[]): PlanStep {
  const sorted = largestFirst(lanes)
  const group = { id: step.id, lead: sorted[0]!, lanes: sorted }
  const made = strokeStep(group, () => 1, step.minutes, step.freshBlade === true)
  const seconds = sorted.reduce((s, l) => s + l.seconds, 0) / 60
  const same = lanes.length === stepLanes(step).length
  return {
    ...made,
    ...(same && { title: step.title, ...(step.short !== undefined && { short: step.short }) }),
    minutes: Math.min(step.minutes, seconds + 0.2),
  }
}
