/**
 * Planning the rest of a service anew while it runs: gentler, around a place found, without a zone, to the end, or with
 * patches that were missed. What is done stays done; the order of what is left stays as it was.
 */
import { coverFrom, lettersUsed, sameSkins, shapesOf, within, type CellPlace } from './cells.ts'
import { newRest, type Replanned } from './newRest.ts'
import type { Live } from './state.ts'
import { DomainError } from '../errors.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import { SERVICES } from '../services/index.ts'
import { LOAD_CONSTANTS, updateSensitivity, type Sensitivity } from '../skin/index.ts'
import { loadsGiven, redAtChair } from './outcome.ts'
import {
  zoneQuestion,
  zoneSkinOf,
  type PlanInput,
  packCover,
  type Cover,
  makeLane,
  type ZoneSkin,
  type Lane,
  type PlannedPass,
  type PlanStep,
  laneTitle,
  strokeStep,
  planZone,
} from '../plan/index.ts'

/** Why the rest is planned anew. */
export type Cause =
  | { readonly kind: 'stop' }
  | { readonly kind: 'skip-zone'; readonly zoneId: ZoneId }
  /** Redness or a welt: what is left gets the gentlest plan; the zone itself may be left. */
  | { readonly kind: 'gentler'; readonly zoneId?: ZoneId | undefined; readonly leaveZone: boolean }
  | { readonly kind: 'leave-out'; readonly place: CellPlace }
  | { readonly kind: 'missed'; readonly places: readonly CellPlace[] }
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
  const learned = afterRedness(input, live)
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
        rest.filter((s) => s.zoneId !== cause.zoneId),
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
    case 'felt':
      return laidAnew(learned, live, rest, cause.zoneId)
  }
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
    if (s.laneId === undefined) return [s]
    if (s.zoneId === leaves) return []
    const lane = lanes.get(s.laneId)
    return lane ? [restated(s, lane)] : []
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
  const steps = rest.flatMap((s) => {
    if (s.laneId === undefined || !touched.has(s.zoneId!)) return [s]
    const lane = own.get(s.laneId)
    return lane ? [restated(s, lane)] : []
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
  if (SERVICES[live.plan.service].family === 'fuzz') {
    throw new DomainError(
      'once-only',
      'Fuzz is never gone over twice: leave what was missed for the next visit.',
    )
  }
  const { question } = zoneQuestion({ ...input, memory: sameSkins(input.memory) })
  const lanes: Lane[] = []
  const steps: PlanStep[] = []
  const covers: { zoneId: ZoneId; cover: string }[] = []
  for (const zone of live.plan.zones) {
    const { zoneId } = zone
    const near = places.filter((p) => p.zoneId === zoneId)
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
    for (const shape of shapesOf(skin, { lane, count, bound: 0 }, first)) {
      if (shape.areaCm2 < LEAST_PATCH_CM2) continue
      const made = makeLane(
        question,
        skin,
        shape,
        AGAIN,
        `${zoneId}:9:${shape.letter}`,
        undefined,
        shape.growth,
        {
          hair: 'terminal',
          avoid: zone.avoid,
          why: undefined,
          first: undefined,
          parts: 1,
          curlTight: input.client.curl === 'tight',
        },
      )
      // It was felt, or read, before the zone was stroked at all.
      const known = live.plan.lanes.find((l) => l.zoneId === zoneId)?.grain
      const again = {
        ...made,
        ...(known && { grain: known }),
        load: made.load * input.figures(LOAD_CONSTANTS.goneOverAgain),
      }
      lanes.push(again)
      steps.push({
        ...strokeStep(again, 1, made.seconds / 60 + 0.1, false),
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
    `${lanes.length} missed ${lanes.length === 1 ? 'patch' : 'patches'}: once with the grain${SERVICES[live.plan.service].lather ? ', on fresh lather' : ''}.`,
  )
}

/** A zone is parted and stroked by what was felt in it; where its passes stood in the order its new lanes stand. */
function laidAnew(
  input: PlanInput,
  live: Live,
  rest: readonly PlanStep[],
  zoneId: ZoneId,
): Replanned {
  const { question, tools } = zoneQuestion({
    ...input,
    // Changes by hand were made to lanes that are no more.
    choice: { style: live.plan.choice.style, edits: {} },
  })
  const planned = planZone({ ...question, tools }, zoneSkinOf(input, zoneId))
  // What was felt speaks for the whole zone.
  const lanes = planned.lanes.map((l): Lane => ({ ...l, grain: 'read' }))
  const strokes = new Map<number, PlanStep[]>()
  for (const lane of lanes) {
    const parts = lanes.filter((l) => l.pass === lane.pass).length
    const made = strokeStep(lane, parts, lane.seconds / 60 + 0.1, false)
    strokes.set(lane.pass, [...(strokes.get(lane.pass) ?? []), made])
  }
  const steps = rest.flatMap((s) => {
    if (s.zoneId !== zoneId || s.kind !== 'stroke') return [s]
    const own = strokes.get(s.pass!) ?? []
    strokes.delete(s.pass!)
    return own
  })
  return newRest(
    input,
    live,
    steps,
    lanes,
    [{ zoneId, cover: planned.zone.cover }],
    `${zoneName(zoneId)}: felt to grow otherwise than was guessed; its lanes follow what was felt.`,
  )
}

const AGAIN: PlannedPass = {
  pass: 9,
  relation: 'with',
  strokeBearing: 0,
  load: 0,
  leftMm: 0,
  smoothHours: 0,
  rednessOdds: 0,
}

/** Lanes of the rest as they are made now, by id; those that no longer come up are absent. */
function remadeLanes(
  input: PlanInput,
  { plan }: Live,
  rest: readonly PlanStep[],
  coverFor: (zoneId: ZoneId, skin: ZoneSkin) => Cover | undefined,
): Map<string, Lane> {
  const { question, tools } = zoneQuestion(input)
  const wanted = new Set(rest.flatMap((s) => (s.laneId ? [s.laneId] : [])))
  const out = new Map<string, Lane>()
  for (const zone of plan.zones) {
    const { zoneId } = zone
    if (!plan.lanes.some((l) => l.zoneId === zoneId && wanted.has(l.id))) continue
    const skin = zoneSkinOf(input, zoneId)
    const cover = coverFor(zoneId, skin) ?? coverFrom(zone.cover, skin.count)
    const shapes = shapesOf(skin, cover).filter((s) => s.areaCm2 >= LEAST_PATCH_CM2)
    if (shapes.length === 0) continue
    const packed = packCover(cover)
    const planned = planZone({ ...question, tools }, skin, { shapes, packed })
    for (const lane of planned.lanes) {
      const before = plan.lanes.find((l) => l.id === lane.id)
      if (!wanted.has(lane.id) || !before) continue
      // What was felt on the way still speaks for the whole zone.
      out.set(lane.id, before.grain ? { ...lane, grain: before.grain } : lane)
    }
  }
  return out
}

/** A step with its lane's new figures; what the walk said of blades stays. */
function restated(step: PlanStep, lane: Lane): PlanStep {
  const made = strokeStep(lane, 1, step.minutes, step.freshBlade === true)
  const seconds = lane.seconds / 60
  return {
    ...made,
    title: step.title,
    ...(step.short !== undefined && { short: step.short }),
    minutes: Math.min(step.minutes, seconds + 0.2),
  }
}
