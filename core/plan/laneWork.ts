/** A lane in one pass: its blade, its strokes, its time, where hands and feet are, and why. */
import { DomainError } from '../errors.ts'
import { clockWords, withinDeg as trustWithin, wrapTurn } from '../grain/index.ts'
import type { Vec3, Locator } from '../head/index.ts'
import {
  ZONE_FACTS,
  zoneName,
  bodyZone,
  bodyStem,
  isBody,
  zoneStem,
  type ZoneId,
  type ZoneStem,
} from '../zones/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { SERVICES, type ServiceFamily } from '../services/index.ts'
import { BLADES, type Blade, type BladeId } from '../kit/index.ts'
import { fitBlade, type Fit } from './bladeFit.ts'
import { CLOSENESS_CONSTANTS, stubbleLeftMm } from './closeness.ts'
import { checkHandEdit } from './handEdit.ts'
import { findStance, type Room } from './handle.ts'
import { clientAction, freeHand, poseFor } from './hands.ts'
import {
  edgeRadiusMm,
  laneBearing,
  laneDirection,
  laneExtent,
  overLane,
  type LaneShape,
  ninetyPercentWithinDeg,
} from './lanes.ts'
import { laneLoad, laneRelation, slipFor } from './passes.ts'
import type { LaneMeasure, ZoneQuestion } from './question.ts'
import type { ZoneSkin } from './skin.ts'
import type { Lane, LaneEdit, PlannedPass, Reason, StrokeWay } from './types.ts'

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
  'scalp-behind-ear',
])

/** Places that take a small blade and short strokes. */
function isSmall(zoneId: ZoneId): boolean {
  const part = bodyStem(zoneId)
  return part ? bodyZone(part).small === true : SMALL.has(zoneStem(zoneId))
}

/** Longest stroke that a place allows, mm. */
export function longestStrokeMm(figures: Figures, zoneId: ZoneId): number {
  const stem = zoneStem(zoneId)
  if (isBody(zoneId)) return figures(isSmall(zoneId) ? P.strokeFaceMm : P.strokeBodyMm)
  if (isSmall(zoneId)) return figures(P.strokeSmallMm)
  return stem.startsWith('scalp') || stem === 'occiput'
    ? figures(P.strokeScalpMm)
    : figures(P.strokeFaceMm)
}

/** Strokes that one pass over an area takes. */
export function passStrokes(
  figures: Figures,
  areaCm2: number,
  widthMm: number,
  strokeMm: number,
): number {
  return Math.max(1, Math.round((areaCm2 * 100) / (widthMm * figures(P.usedWidth) * strokeMm)))
}

/** Seconds of work of so many strokes. */
export function strokeSeconds(
  figures: Figures,
  strokes: number,
  zoneId: ZoneId,
  family: ServiceFamily,
): number {
  const rate = isBody(zoneId)
    ? P.strokesPerSecondBody
    : family === 'fuzz'
      ? P.strokesPerSecondFuzz
      : P.strokesPerSecond
  return strokes / figures(rate)
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

/** Makes a lane. */
export function makeLane(
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
    curlTight: boolean
  },
): Lane {
  const { family } = SERVICES[q.service]
  const id = shape.zoneId
  const chart = edit?.way === undefined ? wantedChart : wrapTurn(shape.growth + TURN[edit.way])
  const relation = laneRelation(q.figures, shape, chart)
  const m = measure(q, skin, shape, chart)
  const small = isSmall(id)
  const allowed: readonly Blade[] =
    edit?.bladeId !== undefined
      ? [BLADES[edit.bladeId]]
      : more.first
        ? [BLADES[more.first]]
        : q.tools.blades
  const fit: Fit = fitBlade(q.figures, allowed, m.radiusMm, skin.zone.bed, small, m.extent.widthMm)
  const { blade } = fit
  checkHandEdit(
    {
      ...q,
      pass: planned.pass,
      bladeId: blade.id as BladeId,
      hair: more.hair,
      curlTight: more.curlTight,
    },
    { blade: edit?.bladeId !== undefined, way: edit?.way !== undefined },
    relation,
  )
  const strokeLengthMm = Math.max(
    4,
    Math.round(Math.min(longestStrokeMm(q.figures, id), m.extent.lengthMm)),
  )
  const widthMm = Math.max(2, Math.round(Math.min(fit.widthMm, m.extent.widthMm)))
  const strokes = passStrokes(q.figures, shape.areaCm2, widthMm, strokeLengthMm)
  const strokeBearing = laneBearing(shape, m.stroke)
  const growthDirection = laneBearing(shape, laneDirection(skin, shape, shape.growth))
  const pose = poseFor(id)
  const towardWorker = family === 'fuzz' && q.schools.fuzzDirection === 'toward-worker'
  const stanceKey = `${blade.id} ${q.hand} ${towardWorker}`
  let found = m.stances.get(stanceKey)
  if (!found) {
    found = findStance(
      q.figures,
      q.room,
      blade,
      id,
      { ...shape, stroke: m.stroke },
      q.hand,
      family,
      pose.turnDeg,
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
    jobId: q.jobId,
    zoneId: id,
    pass: planned.pass,
    letter: shape.letter,
    relation,
    point: rounded(shape.point, 100),
    normal: rounded(shape.normal, 1e4),
    stroke: rounded(m.stroke, 1e4),
    strokeBearing,
    growthDirection,
    grain: trustWithin(q.figures, shape.trust) === undefined ? 'guess' : 'read',
    withinDeg: ninetyPercentWithinDeg(shape),
    areaCm2: shape.areaCm2,
    lengthMm: Math.round(m.extent.lengthMm),
    widthMm: Math.round(m.extent.widthMm),
    bladeId: blade.id as BladeId,
    blade: blade.name,
    bladeAngleDeg: q.figures(blade.angleDeg),
    usableWidthMm: widthMm,
    strokeLengthMm,
    strokes,
    seconds: strokeSeconds(q.figures, strokes, id, family),
    load: laneLoad(q.figures, shape, chart, blade.tool, slip, more.hair),
    leftMm:
      blade.tool === 'trimmer'
        ? q.figures(CLOSENESS_CONSTANTS.trimmerLeavesMm)
        : overLane(shape, chart, (angle) => stubbleLeftMm(q.figures, angle)),
    stance: found.stance,
    headTurn: pose.text,
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
  // + 0: a plan that is stored and read again has no −0.
  const to = (x: number) => Math.round(x * per) / per + 0
  return [to(v[0]), to(v[1]), to(v[2])]
}
