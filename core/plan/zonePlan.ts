/** One zone's plan: its lanes, how often they are gone over, with what, where the hands go. */
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import { clockWords } from '../grain/clock.ts'
import { toRadians, wrapTurn } from '../grain/circular.ts'
import { withinDeg as trustWithin } from '../grain/confidence.ts'
import type { Locator } from '../head/locate.ts'
import { plannedHair, type SurfaceNotes } from '../hair/layer.ts'
import type { Vec3 } from '../head/frames.ts'
import { ZONE_FACTS, zoneName } from '../head/zoneFacts.ts'
import { isBody, zoneStem, type ZoneId, type ZoneStem } from '../head/zones.ts'
import { constant } from '../house/constants.ts'
import type { Schools } from '../house/schools.ts'
import type { Growth } from '../regrowth/growth.ts'
import { markMargin, markZones } from '../screening/marks.ts'
import { SPOT_WORDS } from '../screening/rules.ts'
import type { Screening } from '../screening/screen.ts'
import { SERVICES, type ServiceFamily, type ServiceId } from '../services.ts'
import { rednessOdds, type Sensitivity } from '../skin/sensitivity.ts'
import { BLADES, type Blade, type BladeId } from './blades.ts'
import { fitBlade, type Fit } from './bladeFit.ts'
import { CLOSENESS_CONSTANTS, smoothHours, stubbleLeftMm } from './closeness.ts'
import { coverZone, COVER_CONSTANTS, packCover, patchesOf, type Cover } from './cover.ts'
import { findStance, type Room } from './handle.ts'
import { acrossWay, clientAction, freeHand, headTurn, type Hand, type Hazard } from './hands.ts'
import {
  chartBearing,
  edgeRadiusMm,
  laneBearing,
  laneDirection,
  laneExtent,
  laneShapes,
  overLane,
  withinDeg,
  type LaneShape,
} from './lanes.ts'
import { laneLoad, laneRelation, planPasses, slipFor, type Wanted } from './passes.ts'
import type { ZoneSkin } from './skin.ts'
import type { Level, ToolChoice } from './tools.ts'
import type {
  Lane,
  LaneEdit,
  PlanChoice,
  PlannedPass,
  Reason,
  StrokeWay,
  ZonePlan,
} from './types.ts'

export const PLAN_CONSTANTS = {
  strokesPerSecond: constant(
    0.35,
    '1/s',
    'Strokes with feeling, wiping and re-stretching between',
    'H',
  ),
  strokesPerSecondFuzz: constant(0.5, '1/s', 'The same on fuzz, without lather', 'H'),
  strokesPerSecondBody: constant(0.6, '1/s', 'The same on arms and legs', 'H'),
  usedWidth: constant(
    0.6,
    '',
    'Share of the usable width that a stroke clears, the rest overlaps',
    'H',
  ),
  strokeFaceMm: constant(20, 'mm', 'Stroke length on the face and neck, at most', 'H'),
  strokeScalpMm: constant(30, 'mm', 'Stroke length on the scalp, at most', 'H'),
  strokeSmallMm: constant(10, 'mm', 'Stroke length on lip, chin, nose and brow, at most', 'H'),
  strokeBodyMm: constant(70, 'mm', 'Stroke length on arms and legs, at most', 'H'),
  falseLineMm: constant(3, 'mm', 'Where the beard is sparse its line is set this far in', 'H'),
} as const

const P = PLAN_CONSTANTS

/** What planning a zone depends on besides its skin. */
export interface ZoneQuestion {
  readonly service: ServiceId
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly hand: Hand
  readonly level: Level
  readonly tools: ToolChoice
  readonly room?: Room | undefined
  readonly hazards: readonly Hazard[]
  readonly sensitivity: (zoneId: ZoneId) => Sensitivity
  readonly growth: (zoneId: ZoneId) => Growth
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays'>
  readonly choice: PlanChoice
  readonly memory: PlanMemory
}

/** What does not change while plans of the same skin are compared and edited. */
export class PlanMemory {
  readonly skins = new Map<ZoneId, ZoneSkin>()
  readonly covers = new Map<string, { cover: Cover; shapes: LaneShape[]; packed: string }>()
  readonly lanes = new Map<string, LaneMeasure>()
  /** Orders found, by all that they hang on. */
  readonly orders = new Map<string, readonly number[]>()
}

interface LaneMeasure {
  readonly stroke: Vec3
  readonly extent: { lengthMm: number; widthMm: number }
  readonly radiusMm: number
  readonly stances: Map<string, ReturnType<typeof findStance>>
  anchor?: string
}

/** Small places take short edges and short strokes (common practice). */
const SMALL: ReadonlySet<ZoneStem> = new Set([
  'upper-lip',
  'mouth-corner',
  'under-lip',
  'chin',
  'nose-bridge',
  'nose-side',
  'glabella',
  'brow',
  'underarm',
  'knee',
  'scalp-behind-ear',
])

function longestStrokeMm(zoneId: ZoneId): number {
  const stem = zoneStem(zoneId)
  if (SMALL.has(stem)) return isBody(zoneId) ? P.strokeFaceMm.value : P.strokeSmallMm.value
  if (isBody(zoneId)) return P.strokeBodyMm.value
  return stem.startsWith('scalp') || stem === 'occiput'
    ? P.strokeScalpMm.value
    : P.strokeFaceMm.value
}

/** Strokes that one pass over an area takes. */
export function passStrokes(areaCm2: number, widthMm: number, strokeMm: number): number {
  return Math.max(1, Math.round((areaCm2 * 100) / (widthMm * P.usedWidth.value * strokeMm)))
}

/** Seconds of work of so many strokes. */
export function strokeSeconds(strokes: number, zoneId: ZoneId, family: ServiceFamily): number {
  const rate = isBody(zoneId)
    ? P.strokesPerSecondBody
    : family === 'fuzz'
      ? P.strokesPerSecondFuzz
      : P.strokesPerSecond
  return strokes / rate.value
}

/** A zone's plan with its lanes, and those that were skipped by hand. */
export interface PlannedZone {
  readonly zone: ZonePlan
  readonly lanes: readonly Lane[]
  readonly skipped: readonly Lane[]
}

/** Parts a zone into lanes; remembered. */
export function coverOf(
  q: Pick<ZoneQuestion, 'client' | 'service' | 'schools' | 'screening' | 'memory'>,
  skin: ZoneSkin,
) {
  const fixed =
    SERVICES[q.service].family === 'fuzz' &&
    q.schools.fuzzDirection === 'down-to-centre' &&
    !q.screening.withGrainOnly
  const tolerance = q.client.bumpProne
    ? COVER_CONSTANTS.toleranceBumpDeg.value
    : COVER_CONSTANTS.toleranceDeg.value
  const key = `${skin.zone.id} ${fixed ? 'fixed' : tolerance}`
  let had = q.memory.covers.get(key)
  if (!had) {
    const cover = fixed ? patchesOf(skin) : coverZone(skin, toRadians(tolerance))
    had = { cover, shapes: laneShapes(skin, cover), packed: packCover(cover) }
    q.memory.covers.set(key, had)
  }
  return had
}

function measure(q: ZoneQuestion, skin: ZoneSkin, lane: LaneShape, chart: number): LaneMeasure {
  const key = `${lane.zoneId}${lane.letter}${lane.cells.length} ${chart.toFixed(4)}`
  let had = q.memory.lanes.get(key)
  if (!had) {
    const stroke = laneDirection(skin, lane, chart)
    had = {
      stroke,
      extent: laneExtent(skin, lane, stroke),
      radiusMm: edgeRadiusMm(skin, lane, stroke),
      stances: new Map(),
    }
    q.memory.lanes.set(key, had)
  }
  return had
}

const TURN: Readonly<Record<StrokeWay, number>> = {
  with: 0,
  'across-clockwise': Math.PI / 2,
  'across-anticlockwise': -Math.PI / 2,
  against: Math.PI,
}

/** Plans a zone of which something is left to work. */
export function planZone(q: ZoneQuestion, skin: ZoneSkin): PlannedZone {
  const { service, client, screening, schools, choice } = q
  const { family } = SERVICES[service]
  const id = skin.zone.id
  const { shapes, packed } = coverOf(q, skin)
  const layer = q.notes.hair[id]
  const kind = plannedHair(id, client, q.notes.hair)
  const hair = kind === 'vellus' ? 'fuzz' : 'terminal'
  const growthRate = q.growth(id)
  const sensitivity = q.sensitivity(id)
  const across = new Map<string, { chart: number; why: string }>()
  const strokeOf = (lane: LaneShape, wanted: Wanted): number => {
    if (wanted === 'with') return lane.growth
    if (wanted === 'against') return wrapTurn(lane.growth + Math.PI)
    if (wanted === 'fixed') {
      const inward = lane.point[0] === 0 ? 0 : -Math.sign(lane.point[0]) * 0.6
      return chartBearing(skin, lane, [inward, -0.8, 0])
    }
    let found = across.get(lane.letter)
    if (!found) {
      const charts = [
        wrapTurn(lane.growth + Math.PI / 2),
        wrapTurn(lane.growth - Math.PI / 2),
      ] as const
      const ways = [
        laneDirection(skin, lane, charts[0]),
        laneDirection(skin, lane, charts[1]),
      ] as const
      const { way, why } = acrossWay(id, lane.point, ways, q.hazards)
      found = { chart: charts[way], why }
      across.set(lane.letter, found)
    }
    return found.chart
  }
  const main = q.tools.blades[0]!
  const answer = planPasses({
    service,
    family,
    style: choice.style,
    lanes: shapes,
    strokeOf,
    hair,
    tool: main.tool,
    firstTool: q.tools.first && BLADES[q.tools.first].tool,
    growthMmPerDay: growthRate.mean,
    sensitivity,
    reactivity: client.reactivity,
    bumpProne: client.bumpProne,
    curlTight: (layer?.curl ?? client.curl) === 'tight',
    thin:
      client.reactivity === 'tough' &&
      ((layer?.coarseness ?? client.coarseness) === 'fine' || layer?.density === 'sparse'),
    schools,
    screening,
  })
  const spots = screening.leaveOutSpots.filter((s) => markZones(s).includes(id))
  const stays = skin.keptCm2 / (skin.keptCm2 + skin.openCm2)
  const avoid = [
    ...spots.map((s) =>
      s.trail
        ? `${SPOT_WORDS[s.kind]}: leave the patch and ${markMargin(s)} mm round it`
        : `${SPOT_WORDS[s.kind]}: leave ${s.radiusMm + markMargin(s)} mm round it`,
    ),
    ...(stays > 0.005
      ? [`keep-line: ${Math.max(1, Math.round(100 * stays))} % of this zone stays`]
      : []),
  ]
  const lanes: Lane[] = []
  const skipped: Lane[] = []
  for (const planned of answer.passes) {
    for (const shape of shapes) {
      const laneId = `${id}:${planned.pass}:${shape.letter}`
      const edit = choice.edits[laneId]
      const lane = makeLane(
        q,
        skin,
        shape,
        planned,
        laneId,
        edit,
        strokeOf(shape, planned.wanted),
        {
          hair,
          avoid,
          why: planned.relation === 'across' ? across.get(shape.letter)?.why : undefined,
          first: planned.pass === 1 ? q.tools.first : undefined,
          parts: shapes.length,
        },
      )
      if (edit?.skip) skipped.push(lane)
      else lanes.push(lane)
    }
  }
  const largest = shapes.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
  const trust = shapes.reduce((s, l) => s + l.trust * l.areaCm2, 0) / skin.openCm2
  const read = trustWithin(trust) !== undefined
  const reasons: Reason[] = [...answer.reasons]
  if (shapes.length > 1) {
    reasons.push({
      text: `The grain turns here: ${shapes.length} lanes, each with one straight stroke.`,
      mark: 'H',
    })
  }
  if (!read) reasons.push({ text: 'Not read: the direction is a starting guess.', mark: 'H' })
  if (service === 'beard-line' && layer?.density === 'sparse') {
    reasons.push({
      text: `Sparse here: a false line, set ${P.falseLineMm.value} mm into the beard where it stands dense.`,
      mark: 'H',
    })
  }
  const lead = lanes.find((l) => l.pass === 1) ?? lanes[0]
  const passes = totals(answer.passes, lanes, shapes, sensitivity, growthRate.mean, hair)
  const last = passes[passes.length - 1]
  return {
    lanes,
    skipped,
    zone: {
      zoneId: id,
      name: skin.zone.name,
      growthDirection: largest.growth,
      grainSource: read ? 'read' : 'guess',
      blade: lead?.blade ?? main.name,
      bladeAngleDeg: lead?.bladeAngleDeg ?? main.angleDeg,
      usableWidthMm: lead?.usableWidthMm ?? main.edgeMm,
      strokeLengthMm: lead?.strokeLengthMm ?? longestStrokeMm(id),
      areaCm2: skin.openCm2,
      passes,
      refused: answer.refused,
      totalLoad: passes.reduce((s, p) => s + p.load, 0),
      smoothHours: last?.smoothHours ?? 0,
      rednessOdds: last?.rednessOdds ?? 0,
      avoid,
      reasons,
      cover: packed,
    },
  }
}

/** What a zone's passes come to once hands have changed or skipped some of their lanes. */
function totals(
  passes: readonly PlannedPass[],
  lanes: readonly Lane[],
  shapes: readonly LaneShape[],
  sensitivity: Sensitivity,
  growthMmPerDay: number,
  hair: 'terminal' | 'fuzz',
): PlannedPass[] {
  const felt = (hair === 'terminal' ? CLOSENESS_CONSTANTS.feltMm : CLOSENESS_CONSTANTS.feltFuzzMm)
    .value
  const area = shapes.reduce((s, l) => s + l.areaCm2, 0)
  const left = new Map<string, number>()
  let load = 0
  const out: PlannedPass[] = []
  for (const p of passes) {
    const own = lanes.filter((l) => l.pass === p.pass)
    if (own.length === 0) continue
    const share = own.reduce((s, l) => s + (l.areaCm2 / area) * l.load, 0)
    load += share
    for (const l of own) left.set(l.letter, Math.min(left.get(l.letter) ?? Infinity, l.leftMm))
    const done = shapes.filter((s) => left.has(s.letter))
    const leftMm =
      done.reduce((s, l) => s + l.areaCm2 * left.get(l.letter)!, 0) /
      done.reduce((s, l) => s + l.areaCm2, 0)
    const largest = own.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
    out.push({
      pass: p.pass,
      relation: largest.relation,
      strokeBearing: largest.strokeBearing,
      load: share,
      leftMm,
      smoothHours: smoothHours(leftMm, growthMmPerDay, felt),
      rednessOdds: rednessOdds(sensitivity, load),
    })
  }
  return out
}

function makeLane(
  q: ZoneQuestion,
  skin: ZoneSkin,
  shape: LaneShape,
  planned: PlannedPass,
  laneId: string,
  edit: LaneEdit | undefined,
  wantedChart: number,
  more: {
    hair: 'terminal' | 'fuzz'
    avoid: readonly string[]
    why: string | undefined
    first: BladeId | undefined
    parts: number
  },
): Lane {
  const { family } = SERVICES[q.service]
  const id = shape.zoneId
  const chart = edit?.way === undefined ? wantedChart : wrapTurn(shape.growth + TURN[edit.way])
  const relation = laneRelation(shape, chart)
  const m = measure(q, skin, shape, chart)
  const small = SMALL.has(zoneStem(id))
  const allowed: readonly Blade[] =
    edit?.bladeId !== undefined
      ? [BLADES[edit.bladeId]]
      : more.first
        ? [BLADES[more.first]]
        : q.tools.blades
  const fit: Fit = fitBlade(allowed, m.radiusMm, skin.zone.bed, small, m.extent.widthMm)
  const { blade } = fit
  if (blade.tool === 'cartridge' && relation === 'against') {
    throw new DomainError(
      'never-against',
      'A multi-blade cartridge never goes against the grain: it lifts and pulls. Choose another blade or direction for this lane.',
    )
  }
  const strokeLengthMm = Math.max(4, Math.round(Math.min(longestStrokeMm(id), m.extent.lengthMm)))
  const widthMm = Math.max(2, Math.round(Math.min(fit.widthMm, m.extent.widthMm)))
  const strokes = passStrokes(shape.areaCm2, widthMm, strokeLengthMm)
  const strokeBearing = laneBearing(shape, m.stroke)
  const growthDirection = laneBearing(shape, laneDirection(skin, shape, shape.growth))
  const turn = headTurn(id)
  const towardWorker = family === 'fuzz' && q.schools.fuzzDirection === 'toward-worker'
  const stanceKey = `${blade.id} ${q.hand} ${towardWorker}`
  let found = m.stances.get(stanceKey)
  if (!found) {
    found = findStance(
      q.room,
      blade,
      id,
      { ...shape, stroke: m.stroke },
      q.hand,
      family,
      turn,
      towardWorker,
    )
    m.stances.set(stanceKey, found)
  }
  m.anchor ??= q.room ? anchorZone(q.room, shape, m) : ''
  const hand = freeHand(id, strokeBearing, q.client.bumpProne, q.schools, m.anchor)
  const reasons: Reason[] = [fit.reason, found.reason]
  if (more.why) {
    reasons.unshift({
      text: `Across runs toward ${clockWords(strokeBearing)}: ${more.why}.`,
      mark: 'C',
    })
  }
  if (edit?.way !== undefined || edit?.bladeId !== undefined) {
    reasons.unshift({ text: 'Changed by hand.', mark: 'H' })
  }
  const slip = slipFor(family, q.schools)
  return {
    id: laneId,
    zoneId: id,
    pass: planned.pass,
    letter: shape.letter,
    relation,
    point: rounded(shape.point, 100),
    normal: rounded(shape.normal, 1e4),
    stroke: rounded(m.stroke, 1e4),
    strokeBearing,
    growthDirection,
    withinDeg: withinDeg(shape),
    areaCm2: shape.areaCm2,
    lengthMm: Math.round(m.extent.lengthMm),
    widthMm: Math.round(m.extent.widthMm),
    bladeId: blade.id as BladeId,
    blade: blade.name,
    bladeAngleDeg: blade.angleDeg,
    usableWidthMm: widthMm,
    strokeLengthMm,
    strokes,
    seconds: strokeSeconds(strokes, id, family),
    load: laneLoad(shape, chart, blade.tool, slip, more.hair),
    leftMm:
      blade.tool === 'trimmer'
        ? CLOSENESS_CONSTANTS.trimmerLeavesMm.value
        : overLane(shape, chart, stubbleLeftMm),
    stance: found.stance,
    headTurn: turn,
    freeHand: hand.text,
    anchor: m.anchor,
    pullBearing: hand.pullBearing,
    action: clientAction(id),
    watch: ZONE_FACTS[zoneStem(id)].watch,
    avoid: more.avoid,
    reasons,
    ...(edit && { edited: true }),
  }
}

/** Gap between the start of a stroke and the fingers that hold the skin, mm. */
const FINGER_GAP_MM = 14
/** Fingers lie on skin that is no farther off than this. */
const FINGERS_REACH_MM = 12

/** The zone that the free hand lies on, behind the stroke; empty when it would lie beside the head. */
function anchorZone(room: Room, lane: LaneShape, m: LaneMeasure): string {
  const back = Math.min(m.extent.lengthMm / 2, 40) + FINGER_GAP_MM
  const at = lane.point.map((c, k) => c - back * m.stroke[k]!) as unknown as Vec3
  const near = nearestZone(room.locator, room.zoneOf, at, lane.normal)
  if (near === undefined || near === lane.zoneId) return ''
  const facts = ZONE_FACTS[zoneStem(near)]
  return near === 'base' || facts.stretch === ''
    ? ''
    : zoneName(near).charAt(0).toLowerCase() + zoneName(near).slice(1)
}

function nearestZone(
  locator: Locator,
  zoneOf: Room['zoneOf'],
  at: Vec3,
  normal: Vec3,
): ZoneId | undefined {
  try {
    const near = locator.nearest(at, normal)
    return near.distanceMm < FINGERS_REACH_MM ? zoneOf(near.triangle) : undefined
  } catch (error) {
    if (error instanceof DomainError) return undefined
    throw error
  }
}

/** Kept plans need no more than a hundredth of a millimetre. */
function rounded(v: Vec3, per: number): Vec3 {
  return [Math.round(v[0] * per) / per, Math.round(v[1] * per) / per, Math.round(v[2] * per) / per]
}
