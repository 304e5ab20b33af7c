/** A lane in one pass: its blade, its strokes, its time, where hands and feet are, and why. */
import { bumpProneIn } from '../client.ts'
import { isRead, wrapTurn } from '../grain/index.ts'
import type { Vec3 } from '../head/index.ts'
import { tellWay } from '../telling/index.ts'
import { plannedHair } from '../hair/index.ts'
import {
  ZONE_FACTS,
  bodyZone,
  bodyStem,
  isBody,
  zoneStem,
  type ZoneId,
  type ZoneStem,
} from '../zones/index.ts'
import { constant, type Constant, type Figures } from '../house/index.ts'
import { SERVICES, type ServiceFamily } from '../services/index.ts'
import { BLADES, type Blade, type BladeId } from '../kit/index.ts'
import { fitBlade, type Fit } from './bladeFit.ts'
import type { Coarseness, HairClass, ToolKind } from '../skin/index.ts'
import { stubbleLeftMm } from './closeness.ts'
import { checkHandEdit } from './handEdit.ts'
import {
  edgeRadiusMm,
  laneBearing,
  laneDirection,
  laneExtent,
  overLane,
  type LaneShape,
  ninetyPercentWithinDeg,
} from './lanes.ts'
import { laneLoad, setBack, laneRelation, slipFor } from './passes.ts'
import type { LaneMeasure, ZoneQuestion } from './question.ts'
import type { ZoneSkin } from './skin.ts'
import type { Press } from './pressField.ts'
import type { Lane, LaneEdit, Reason, StrokeWay } from './types.ts'

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
  paceOpen: constant(1, '', 'A stroke of an open edge takes so many times as long', 'H'),
  paceHeaded: constant(0.9, '', 'A stroke of a razor with a head', 'H'),
  paceGuarded: constant(0.95, '', 'A stroke of a guarded facial razor', 'H'),
  paceCartridge: constant(0.8, '', 'A stroke of a cartridge', 'H'),
  paceTrimmer: constant(0.75, '', 'A stroke of a trimmer', 'H'),
  dryStroke: constant(0.85, '', 'Strokes on dry skin are shorter: this much', 'H'),
  laxStroke: constant(0.65, '', 'Strokes on mature or lax skin are shorter: this much', 'H'),
  strokeSmallMm: constant(10, 'mm', 'Stroke length on lip, chin, nose and brow, at most', 'H'),
  strokeBodyMm: constant(70, 'mm', 'Stroke length on arms and legs, at most', 'H'),
  slowerFine: constant(0.95, '', 'Time of a stroke on fine terminal hair', 'H'),
  slowerMedium: constant(1, '', 'The same on medium hair', 'H'),
  slowerCoarse: constant(1.15, '', 'The same on coarse hair, which wants a rinse more often', 'H'),
  feelFromDeg: constant(
    45,
    '°',
    'A lane a tenth of which may lie farther off than this is felt first',
    'H',
  ),
  falseLineMm: constant(3, 'mm', 'Where the beard is sparse its line is set this far in', 'H'),
} as const

const P = PLAN_CONSTANTS

const SLOWER: Readonly<Record<Coarseness, Constant>> = {
  fine: P.slowerFine,
  medium: P.slowerMedium,
  coarse: P.slowerCoarse,
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

/** How long a stroke takes by what cuts, against an open edge. */
const BLADE_PACE: Readonly<Record<ToolKind, Constant>> = {
  'single-edge': P.paceOpen,
  dermaplaning: P.paceOpen,
  headed: P.paceHeaded,
  guarded: P.paceGuarded,
  cartridge: P.paceCartridge,
  trimmer: P.paceTrimmer,
}

/** Seconds of work of so many strokes, at the pace of whoever works. */
function strokeSeconds(
  { figures, pace }: Pick<ZoneQuestion, 'figures' | 'pace'>,
  strokes: number,
  zoneId: ZoneId,
  family: ServiceFamily,
  coarse?: Coarseness,
  tool: ToolKind = 'single-edge',
): number {
  const rate = isBody(zoneId)
    ? P.strokesPerSecondBody
    : family === 'fuzz'
      ? P.strokesPerSecondFuzz
      : P.strokesPerSecond
  const by = figures(BLADE_PACE[tool])
  return (strokes / figures(rate)) * (coarse ? figures(SLOWER[coarse]) : 1) * by * pace.ratio
}

/** Lax, and very dry, skin moves under the blade and drags: shorter strokes (common practice). */
function shorter({ client, figures }: ZoneQuestion): number {
  if (client.lax) return figures(P.laxStroke)
  return client.type === 'dry' ? figures(P.dryStroke) : 1
}

function measure(q: ZoneQuestion, skin: ZoneSkin, lane: LaneShape, chart: number): LaneMeasure {
  // Parts found for a left hand are those of the mirror, the same but for rounding.
  const key = `${q.hand} ${lane.zoneId}${lane.letter}${lane.cells.length} ${chart.toFixed(4)}`
  let had = q.memory.lanes.get(key)
  if (!had) {
    const stroke = laneDirection(skin, lane, chart)
    had = {
      stroke,
      extent: laneExtent(skin, lane, stroke),
      radiusMm: edgeRadiusMm(skin, lane, stroke),
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

/** The stroke that a hand asks for, on the zone's chart. */
export const handChart = (shape: LaneShape, way: StrokeWay): number =>
  wrapTurn(shape.growth + TURN[way])

/** What the strokes of a lane come to in one direction. */
export interface LaneStrokes {
  readonly fit: Fit
  readonly widthMm: number
  readonly strokeLengthMm: number
  readonly strokes: number
  readonly seconds: number
}

/**
 * The blade and the strokes of a lane.
 * @param chart stroke on the zone's chart
 * @param bladeId the blade that is taken; one of the plan's when left out
 */
export function laneStrokes(
  q: ZoneQuestion,
  skin: ZoneSkin,
  shape: LaneShape,
  chart: number,
  bladeId: BladeId | undefined,
): LaneStrokes {
  const id = shape.zoneId
  const m = measure(q, skin, shape, chart)
  const allowed: readonly Blade[] = bladeId ? [BLADES[bladeId]] : q.tools.blades
  const fit = fitBlade(q.figures, allowed, m.radiusMm, skin.zone.bed, isSmall(id), m.extent.widthMm)
  const strokeLengthMm = Math.max(
    4,
    Math.round(Math.min(longestStrokeMm(q.figures, id) * shorter(q), m.extent.lengthMm)),
  )
  const widthMm = Math.max(2, Math.round(Math.min(fit.widthMm, m.extent.widthMm)))
  const strokes = passStrokes(q.figures, shape.areaCm2, widthMm, strokeLengthMm)
  const { family } = SERVICES[q.service]
  const fuzz = plannedHair(id, q.client, q.notes.hair) === 'vellus'
  const coarse = fuzz ? undefined : (q.notes.hair[id]?.coarseness ?? q.client.coarseness)
  const seconds = strokeSeconds(q, strokes, id, family, coarse, fit.blade.tool)
  return { fit, widthMm, strokeLengthMm, strokes, seconds }
}

/** A lane before it is known where hands and feet are: that is settled for its whole press. */
export type BareLane = Omit<
  Lane,
  'stance' | 'headTurn' | 'freeHand' | 'holds' | 'pullBearing' | 'action' | 'stepId'
> & {
  readonly press?: Press | undefined
  /** The edge along which its stroke was turned. */
  readonly beside?: string | undefined
}

/** Makes a lane. */
export function makeLane(
  q: ZoneQuestion,
  skin: ZoneSkin,
  shape: LaneShape,
  planned: {
    readonly pass: number
    /** Stroke on the zone's chart. */
    readonly chart: number
    readonly laneId: string
    readonly edit?: LaneEdit | undefined
  },
  more: {
    readonly hair: HairClass
    readonly coarse: Coarseness
    readonly avoid: readonly string[]
    readonly why?: string | undefined
    /** The edge along which the stroke was turned. */
    readonly beside?: string | undefined
    readonly bladeId?: BladeId | undefined
    readonly curlTight: boolean
  },
): BareLane {
  const { family } = SERVICES[q.service]
  const id = shape.zoneId
  const { pass, edit, chart } = planned
  const relation = laneRelation(q.figures, shape, chart)
  const m = measure(q, skin, shape, chart)
  const { fit, widthMm, strokeLengthMm, strokes, seconds } = laneStrokes(
    q,
    skin,
    shape,
    chart,
    edit?.bladeId ?? more.bladeId,
  )
  const { blade } = fit
  checkHandEdit(
    {
      ...{ ...q, pass, bladeId: blade.id as BladeId, hair: more.hair, curlTight: more.curlTight },
      client: { ...q.client, bumpProne: bumpProneIn(q.client, id) },
    },
    { blade: edit?.bladeId !== undefined, way: edit?.way !== undefined },
    relation,
  )
  const back = setBack(q.figures, blade.tool, q.client.setBackMm)
  const strokeBearing = laneBearing(shape, m.stroke)
  const growth = laneDirection(skin, shape, shape.growth)
  const growthDirection = laneBearing(shape, growth)
  const withinDeg = ninetyPercentWithinDeg(shape)
  const tell = (way: Vec3) => tellWay(q.landmarks, id, shape.point, shape.normal, way)
  const reasons: Reason[] = [fit.reason]
  if (more.why) {
    reasons.unshift({
      text: `Across runs ${tell(m.stroke).words}: ${more.why}.`,
      mark: 'C',
    })
  }
  if (more.beside !== undefined) {
    reasons.unshift({
      text: `Beside the ${more.beside} no stroke runs at it: ${tell(m.stroke).words}, along its edge.`,
      mark: 'C',
    })
  }
  if (edit?.way !== undefined || edit?.bladeId !== undefined) {
    reasons.unshift({ text: 'Changed by hand.', mark: 'H' })
  }
  return {
    id: planned.laneId,
    jobId: q.jobOf(id),
    zoneId: id,
    pass,
    letter: shape.letter,
    press: shape.press,
    beside: more.beside,
    relation,
    point: rounded(shape.point, 100),
    normal: rounded(shape.normal, 1e4),
    stroke: rounded(m.stroke, 1e4),
    strokeBearing,
    growthDirection,
    toward: tell(m.stroke).text,
    growsToward: tell(growth).text,
    grain: !isRead(q.figures, shape.trust)
      ? 'guess'
      : withinDeg > q.figures(P.feelFromDeg)
        ? 'unsure'
        : 'read',
    withinDeg,
    areaCm2: shape.areaCm2,
    lengthMm: Math.round(m.extent.lengthMm),
    widthMm: Math.round(m.extent.widthMm),
    bladeId: blade.id as BladeId,
    blade: blade.name,
    bladeAngleDeg: q.figures(blade.angleDeg),
    usableWidthMm: widthMm,
    strokeLengthMm,
    strokes,
    seconds,
    load:
      back.times *
      laneLoad(q.figures, shape, chart, {
        tool: blade.tool,
        slip: slipFor(family, q.schools, q.notes.hair[id]),
        hair: more.hair,
        wear: q.wear,
        uncut: pass === 1 && more.hair === 'terminal' ? more.coarse : undefined,
      }),
    leftMm:
      back.mm + overLane(shape, chart, (angle) => stubbleLeftMm(q.figures, angle, blade.tool)),
    watch: ZONE_FACTS[zoneStem(id)].watch,
    avoid: more.avoid,
    reasons,
    ...(edit && { edited: true }),
  }
}

/** Kept plans need no more than a hundredth of a millimetre. */
export function rounded(v: Vec3, per: number): Vec3 {
  // + 0: a plan that is stored and read again has no −0.
  const to = (x: number) => Math.round(x * per) / per + 0
  return [to(v[0]), to(v[1]), to(v[2])]
}
