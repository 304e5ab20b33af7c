/** Walks through the lanes in order: steps with their times, lather renewed when it dries, a fresh blade where one is done. */
import { capital, listWords, lowerFirst } from '../words.ts'
import { sum } from '../stats/index.ts'
import { areaOf, zoneBase, type ZoneId, zoneSide, zoneStem } from '../zones/index.ts'
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { RELATION_WORDS } from '../grain/index.ts'
import { slipIn, type SurfaceNotes } from '../hair/index.ts'
import type { Screening } from '../screening/index.ts'
import { type RoutineWish, type ServiceId, SERVICES, ROUTINE_CONSTANTS } from '../services/index.ts'
import { type BladeId, BLADES } from '../kit/index.ts'
import { changeSeconds, groupsOf, type LaneGroup, ORDER_CONSTANTS } from './order.ts'
import {
  betweenPasses,
  closingSteps,
  clipperStep,
  renewFilm,
  feelStep,
  preparationSteps,
  renewLather,
  tweezeStep,
} from './routine.ts'
import { relaxWords } from './hands.ts'
import type { SkinGround } from './skin.ts'
import { bladeLifeStrokes } from './tools.ts'
import { stepMinutes, type Lane, type PlanStep, type ZonePlan } from './types.ts'

/** What walking depends on besides the lanes. */
export interface WalkInput {
  readonly figures: Figures
  readonly service: ServiceId
  readonly schools: Schools
  readonly screening: Pick<Screening, 'noFragrance'>
  readonly client: SkinAndHair
  readonly ground: Pick<SkinGround, 'records'>
  readonly notes: Pick<SurfaceNotes, 'strays'> & Partial<Pick<SurfaceNotes, 'hair' | 'lengthMm'>>
  /** The way of each press in words, by its step; of a single lane that of the lane. */
  readonly pressToward?: ReadonlyMap<string, string> | undefined
}

/** Steps with what they need and how long they take. */
export interface Walked {
  readonly steps: PlanStep[]
  readonly blades: Map<BladeId, number>
  readonly totalMinutes: number
}

/** The same in its parts: before the first stroke, from the first to the last, after it. */
export interface WalkedParts {
  readonly before: PlanStep[]
  readonly strokes: PlanStep[]
  readonly after: PlanStep[]
  readonly blades: Map<BladeId, number>
}

/** Walks through the lanes. */
export function walkThrough(
  input: WalkInput,
  lanes: readonly Lane[],
  zones: readonly ZonePlan[],
): Walked {
  const { before, strokes, after, blades } = walkParts(input, lanes, zones)
  const steps = [...before, ...strokes, ...after]
  return { steps, blades, totalMinutes: stepMinutes(steps) }
}

/** What lies under the blade in each zone, where fuzz is taken. */
export const slipsOf = (
  { service, schools, notes }: Pick<WalkInput, 'service' | 'schools' | 'notes'>,
  zones: readonly Pick<ZonePlan, 'zoneId'>[],
): NonNullable<RoutineWish['slips']> =>
  SERVICES[service].family === 'fuzz'
    ? zones.map(({ zoneId }) => ({ zoneId, slip: slipIn(schools, notes.hair?.[zoneId]) }))
    : []

/** Walks through the lanes, in parts. */
export function walkParts(
  input: WalkInput,
  lanes: readonly Lane[],
  zones: readonly ZonePlan[],
): WalkedParts {
  const { service, schools, screening } = input
  const C = ORDER_CONSTANTS
  const slips = slipsOf(input, zones)
  const preparing: PlanStep[] = preparationSteps(
    input.figures,
    service,
    schools,
    screening.noFragrance,
    input.client.reactivity === 'reactive',
    slips,
  )
  const clip = clipStep(input, zones)
  if (clip) preparing.splice(1, 0, clip)
  const strays = straysOf(input, zones)
  if (strays.length > 0) {
    preparing.splice(
      1,
      0,
      tweezeStep(
        input.figures,
        strays.map((s) => input.ground.records.get(s.zoneId)!.name),
      ),
    )
  }
  // Dry skin shows which way its hair grows; under a towel or lather nothing can be felt any more.
  preparing.splice(1, 0, ...feelSteps(input, lanes))
  const steps: PlanStep[] = []
  const life = bladeLifeStrokes(input.figures, service, input.client)
  const all = lanes.reduce((s, l) => s + l.strokes, 0)
  const half =
    SERVICES[service].changesByFeel && schools.headBlade === 'by-feel' ? all / 2 : Infinity
  const blades = new Map<BladeId, number>()
  const onBlade = new Map<BladeId, number>()
  const groups = groupsOf(lanes)
  const parts = partsIn(groups)
  let pass = 1
  let fresh = 0
  let renewed = 0
  let strokes = 0
  let halfway = false
  let before: Lane | undefined
  let held = ''
  const surface = preparing.find((s) => s.lays === 'lather' && s.film)
  /** The film of a press that dries first; undefined where its skin is dry. */
  const filmOf = (ids: readonly ZoneId[]) =>
    ids
      .flatMap((id) => {
        const own = surface?.films?.[id]
        return own === null ? [] : [own ?? surface?.film]
      })
      .filter((f) => f !== undefined)
      .sort((a, b) => a.lastsMin - b.lastsMin)[0]
  groups.forEach((group, i) => {
    const lane = group.lead
    const film = filmOf(group.lanes.map((l) => l.zoneId))
    const wetMin = SERVICES[service].lather
      ? input.figures(ROUTINE_CONSTANTS.latherLastsMin)
      : film?.lastsMin
    const seconds0 = sum(group.lanes.map((l) => l.seconds))
    const strokes0 = sum(group.lanes.map((l) => l.strokes))
    if (lane.pass > pass) {
      const between = betweenPasses(input.figures, service, lane.pass)
      if (between) {
        steps.push(between)
        fresh = 0
        before = undefined
      }
      pass = lane.pass
    } else if (wetMin !== undefined && fresh + seconds0 > wetMin * 60 && i > 0) {
      renewed++
      steps.push(
        film
          ? renewFilm(input.figures, film, renewed, surface?.films)
          : renewLather(input.figures, renewed),
      )
      fresh = 0
    }
    let freshBlade = false
    const used = onBlade.get(lane.bladeId) ?? 0
    const first = !blades.has(lane.bladeId)
    if (first) blades.set(lane.bladeId, 1)
    else if (used + strokes0 > life || (!halfway && strokes >= half)) {
      freshBlade = true
      blades.set(lane.bladeId, blades.get(lane.bladeId)! + 1)
      onBlade.set(lane.bladeId, 0)
    }
    if (strokes >= half) halfway = true
    const change =
      input.figures(C.laneStartSeconds) +
      (before
        ? changeSeconds(input.figures, before, lane)
        : input.figures(C.stanceSeconds) + input.figures(C.headTurnSeconds)) +
      (freshBlade ? input.figures(C.toolSeconds) : 0)
    const seconds = seconds0 + change
    const stroke = strokeStep(
      group,
      parts,
      seconds / 60,
      freshBlade,
      input.pressToward?.get(group.id),
    )
    // A fresh edge bites (common practice).
    const keen =
      (first || freshBlade) && BLADES[lane.bladeId].tool !== 'trimmer'
        ? { text: `${stroke.text} Fresh blade: the first strokes lightest.` }
        : {}
    // What was drawn tight for the lane before is let go where this one does not need it.
    const relax = held && held !== relaxWords(lane.zoneId) ? held : ''
    steps.push({
      ...stroke,
      ...keen,
      ...(relax && { action: [relax, stroke.action].filter(Boolean).join(' ') }),
    })
    held = relaxWords(lane.zoneId)
    fresh += seconds
    strokes += strokes0
    // A lane longer than a blade's life wears out more than one.
    const after = (onBlade.get(lane.bladeId) ?? 0) + strokes0
    const extra = Math.max(0, Math.ceil(after / life) - 1)
    blades.set(lane.bladeId, blades.get(lane.bladeId)! + extra)
    onBlade.set(lane.bladeId, after - extra * life)
    before = lane
  })
  return {
    before: preparing,
    strokes: steps,
    after: closingSteps(input.figures, service, screening.noFragrance, {
      ...schools,
      // What was wet anywhere is rinsed.
      ...(slips.length > 0 && { fuzzSlip: slips.find((s) => s.slip !== 'dry')?.slip ?? 'dry' }),
    }).map((s) => (s.kind === 'check' ? { ...s, text: `${s.text}${feelAgain(input, zones)}` } : s)),
    blades,
  }
}

/** Long hair goes down with clippers before anything is wetted; nothing where the length is not told, or fuzz is worked. */
function clipStep({ figures, service, notes }: WalkInput, zones: readonly ZonePlan[]) {
  const { lengthMm } = notes
  if (lengthMm === undefined || lengthMm <= figures(ROUTINE_CONSTANTS.clipperOverMm))
    return undefined
  if (SERVICES[service].family === 'fuzz') return undefined
  const area = sum(zones.map((z) => z.areaCm2))
  return clipperStep(figures, lengthMm, area)
}

/** Where hair hardly shows it is felt for once more: pale or grey hair is missed by eye (common practice). */
function feelAgain({ notes, client }: WalkInput, zones: readonly ZonePlan[]): string {
  if (client.contrast === 'low')
    return ' Hair hardly stands out here: feel everywhere again, the eye misses it.'
  const grey = zones.filter((z) => (notes.hair?.[z.zoneId]?.grey ?? 'none') !== 'none')
  if (grey.length === 0) return ''
  const areas = [...new Set(grey.map((z) => areaOf(zoneStem(z.zoneId)).name))]
  return ` Grey hair hides: feel again on ${listWords(areas)}.`
}

const nameOf = (input: WalkInput, lane: Lane) => input.ground.records.get(lane.zoneId)!.name

/** One step for each zone in which a lane goes by a guess, in the order in which they are worked. */
function feelSteps(input: WalkInput, lanes: readonly Lane[]): PlanStep[] {
  const seen = new Map<ZoneId, Lane>()
  for (const lane of lanes) {
    const had = seen.get(lane.zoneId)
    if (lane.grain === 'guess' && (!had || lane.areaCm2 > had.areaCm2)) seen.set(lane.zoneId, lane)
  }
  return [...seen.values()].map((lane) => ({
    ...feelStep(input.figures, lane, nameOf(input, lane)),
    short: `Feel first: ${laneTitle(lane, 1, true)}`,
  }))
}

/** Strays to tweeze in the zones that are worked. */
export function straysOf({ notes }: WalkInput, zones: readonly ZonePlan[]) {
  return notes.strays.filter((s) => zones.some((z) => z.zoneId === s.zoneId))
}

/** A part that holds this share of its zone is told as the zone: the others lie along its edges. */
const MAIN_SHARE = 0.75

/** How many steps of each pass have a part in a zone; 1 for the part that is nearly the whole of it. */
export function partsIn(
  groups: readonly LaneGroup[],
): (lane: Pick<Lane, 'zoneId' | 'pass' | 'areaCm2'>) => number {
  const parts = new Map<string, { count: number; areaCm2: number }>()
  const key = (l: Pick<Lane, 'zoneId' | 'pass'>) => `${l.zoneId}:${l.pass}`
  for (const { lanes } of groups)
    for (const l of lanes) {
      const { count, areaCm2 } = parts.get(key(l)) ?? { count: 0, areaCm2: 0 }
      parts.set(key(l), { count: count + 1, areaCm2: areaCm2 + l.areaCm2 })
    }
  return (lane) => {
    const own = parts.get(key(lane))
    return !own || lane.areaCm2 >= MAIN_SHARE * own.areaCm2 ? 1 : own.count
  }
}

/** "Upper neck, part b, client's left" where a zone has several lanes; short: "Upper neck, part b, left". */
export function laneTitle(
  { zoneId, letter }: Pick<Lane, 'zoneId' | 'letter'>,
  parts: number,
  short = false,
): string {
  const side = zoneSide(zoneId)
  return [
    zoneBase(zoneId),
    ...(parts > 1 ? [`part ${letter}`] : []),
    ...(side ? [short ? side : `client's ${side}`] : []),
  ].join(', ')
}

/** What the names of zones on the midline end in, where there are others beside them. */
const MIDDLE = ', middle'
/** A part of less than this share of its press is not named in its title. */
const NAMED_SHARE = 0.15

/** "Lower cheek and jaw, client's left": the zones of a press, the largest first. */
export function groupTitle(
  { lanes, lead }: Pick<LaneGroup, 'lanes' | 'lead'>,
  parts: (lane: Lane) => number,
  short = false,
): string {
  const area = sum(lanes.map((l) => l.areaCm2))
  const named = lanes.filter((l) => l === lead || l.areaCm2 >= NAMED_SHARE * area)
  if (named.length === 1) return laneTitle(lead, parts(lead), short)
  // Several parts of a zone that are done in one go are told as the zone.
  const alone = (l: Lane) => named.filter((o) => o.zoneId === l.zoneId).length === 1
  const bases = [
    ...new Set(
      named.map((l) => zoneBase(l.zoneId) + (alone(l) && parts(l) > 1 ? `, part ${l.letter}` : '')),
    ),
  ]
  const sides = new Set(named.map((l) => zoneSide(l.zoneId)))
  const side = sides.size === 1 ? [...sides][0] : undefined
  // "Under the chin and upper neck, middle": where all lie in the middle it is said once.
  const middle = bases.every((b) => b.includes(MIDDLE))
  const places = listWords(
    bases
      .map((b) => (middle ? b.replace(MIDDLE, '') : b))
      .map((b, i) => (i === 0 ? b : lowerFirst(b))),
  )
  const where = middle ? MIDDLE : side ? `, ${short ? side : `client's ${side}`}` : ''
  return places + where
}

/** The step at the chair of lanes that are done in one go. */
export function strokeStep(
  { id, lead, lanes }: LaneGroup,
  parts: (lane: Lane) => number,
  minutes: number,
  freshBlade: boolean,
  toward = lead.toward,
): PlanStep {
  const lane = lead
  const guess = lanes.some((l) => l.grain === 'guess')
  const unsure = !guess && lanes.some((l) => l.grain === 'unsure')
  const length = Math.max(...lanes.map((l) => l.strokeLengthMm))
  const area = sum(lanes.map((l) => l.areaCm2))
  return {
    id,
    kind: 'stroke',
    title: groupTitle({ lead, lanes }, parts),
    short: groupTitle({ lead, lanes }, parts, true),
    text: `${capital(RELATION_WORDS[lane.relation])}, ${toward}${guess ? ', by a guess: go by what you felt' : ''}.${unsure ? ' Feel first: more than a tenth of it may grow over 45° otherwise.' : ''} ${length <= 10 ? 'Short strokes' : 'Strokes'} of about ${length < 10 ? `${length} mm` : `${(length / 10).toFixed(length % 10 === 0 ? 0 : 1)} cm`}. No pressure.`,
    minutes,
    jobId: lane.jobId,
    zoneId: lane.zoneId,
    pass: lane.pass,
    laneId: lane.id,
    ...(lanes.length > 1 && {
      laneIds: lanes.map((l) => l.id),
      zoneIds: [...new Set(lanes.map((l) => l.zoneId))],
    }),
    relation: lane.relation,
    strokeBearing: lane.strokeBearing,
    blade: freshBlade ? `${lane.blade}, a fresh one` : lane.blade,
    strokes: sum(lanes.map((l) => l.strokes)),
    areaCm2: area,
    leftMm: sum(lanes.map((l) => (l.areaCm2 / area) * l.leftMm)),
    ...(freshBlade && { freshBlade: true as const }),
  }
}
