/** What a row of strokes does to a zone: its load (M7), what it leaves (M8), its odds; and which rows the rules allow. */
import { relationToGrain, type Relation, toDegrees, angleBetween } from '../grain/index.ts'
import { constant, type Figures, type Schools } from '../house/index.ts'
import { slipIn, type ZoneHair } from '../hair/index.ts'
import { BLADES, type BladeId } from '../kit/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import { type ServiceId, SERVICES, type ServiceFamily, type Wanted } from '../services/index.ts'
import {
  passLoadBy,
  type Coarseness,
  type HairClass,
  type Slip,
  type ToolKind,
  rednessOdds,
  type Reactivity,
  type Sensitivity,
  type SkinRecord,
} from '../skin/index.ts'
import { shareCut, smoothHours, stubbleLeftMm } from './closeness.ts'
import { overLane, type LaneShape } from './lanes.ts'
import { multiBladeRefusal } from './multiBlade.ts'
import type { PlannedPass, Reason } from './types.ts'

export const PASS_CONSTANTS = {
  bumpsFrom: constant(3, 'bumps', 'Bumps or ingrown hairs in one zone that count as many', 'H'),
  bumpLimit: constant(
    0.2,
    'probability',
    'A pass is planned while P(many bumps in a zone) stays at or under this',
    'H',
  ),
} as const

/** One stroke of a row: where it is wanted, and with what where that is not the razor of the plan. */
export interface Stroke {
  readonly wanted: Wanted
  readonly bladeId?: BladeId | undefined
}

/** Strokes over one zone, first to last. */
export type Sequence = readonly Stroke[]

/** "with+across", "trimmer:against+with". */
export const sequenceKey = (sequence: Sequence): string =>
  sequence.map((s) => (s.bladeId ? `${s.bladeId}:${s.wanted}` : s.wanted)).join('+')

/** What the passes of a zone depend on. */
export interface PassQuestion {
  readonly figures: Figures
  readonly service: ServiceId
  readonly family: ServiceFamily
  readonly lanes: readonly LaneShape[]
  /** Stroke of each lane on the zone's chart for what is wanted. */
  readonly strokeOf: (lane: LaneShape, wanted: Wanted) => number
  /** The same in words. */
  readonly wordsOf: (lane: LaneShape, wanted: Wanted) => string
  readonly hair: HairClass
  readonly coarse: Coarseness
  /** Kind of the razor of the plan, and of the tool that goes before it, where one does. */
  readonly tool: ToolKind
  readonly firstTool?: BladeId | undefined
  readonly growth: Growth
  readonly sensitivity: Sensitivity
  /** Bumps per unit load. */
  readonly bumps: Sensitivity
  /** Mean used share of a blade's life in this service, 0 to 1. */
  readonly wear: number
  readonly reactivity: Reactivity
  /** Shown by the client's own visits to bear much: what was told does not open a third pass. */
  readonly tolerant: boolean
  /** A trimmer is set back by so much, mm. */
  readonly setBackMm?: number | undefined
  readonly bumpProne: boolean
  readonly curlTight: boolean
  /** Fine, sparse hair on a client known to take it: a head may be gone over against. */
  readonly thin: boolean
  readonly schools: Schools
  /** What lies between blade and skin. */
  readonly slip: Slip
  /** The client's own record of visits on which a zone reddened. */
  readonly record?: SkinRecord | undefined
  readonly screening: Pick<Screening, 'withGrainOnly' | 'onePass'>
}

/** What a row of strokes comes to. */
export interface SequenceFigures {
  readonly passes: readonly PlannedPass[]
  readonly load: number
  readonly hours: number
  readonly rednessOdds: number
  readonly bumpOdds: number
}

/** How a stroke meets the skin, besides its direction. */
export interface StrokeSkin {
  readonly tool: ToolKind
  readonly slip: Slip
  readonly hair: HairClass
  readonly wear: number
  /** Set on the first pass over terminal hair. */
  readonly uncut?: Coarseness | undefined
}

/** Load of one stroke's lane: the mean over its cells. */
export function laneLoad(
  figures: Figures,
  lane: LaneShape,
  stroke: number,
  skin: StrokeSkin,
): number {
  return overLane(lane, stroke, passLoadBy(figures, { ...skin, again: false }))
}

/** Mean over lanes by their area. */
export function overZone(lanes: readonly LaneShape[], of: (lane: LaneShape) => number): number {
  const area = lanes.reduce((s, l) => s + l.areaCm2, 0)
  return lanes.reduce((s, l) => s + (l.areaCm2 / area) * of(l), 0)
}

/** What lies between blade and skin in a zone. */
export function slipFor(
  family: ServiceFamily,
  schools: Pick<Schools, 'fuzzSlip'>,
  hair?: ZoneHair,
): Slip {
  return family === 'razor'
    ? 'full'
    : ({ dry: 'dry', film: 'full', lotion: 'full', oil: 'full', damp: 'damp' } as const)[
        slipIn(schools, hair)
      ]
}

/** The relation that a lane's stroke comes to on the whole. */
export function laneRelation(figures: Figures, lane: LaneShape, stroke: number): Relation {
  return relationToGrain(figures, angleBetween(lane.growth, stroke))
}

const toolOf = (q: Pick<PassQuestion, 'tool'>, stroke: Stroke): ToolKind =>
  stroke.bladeId ? BLADES[stroke.bladeId].tool : q.tool

export const SET_BACK_CONSTANTS = {
  calmsMm: constant(
    1.2,
    'mm',
    'Set back by so much a trimmer loads the skin by a third (1/e)',
    'H',
  ),
} as const

/** What a trimmer that is set back adds to the hair left, mm, and by how much it loads the skin less. */
export function setBack(
  figures: Figures,
  tool: ToolKind,
  setBackMm: number | undefined,
): { readonly mm: number; readonly times: number } {
  const mm = tool === 'trimmer' ? (setBackMm ?? 0) : 0
  return { mm, times: Math.exp(-mm / figures(SET_BACK_CONSTANTS.calmsMm)) }
}

/** Passes that leave hair as they find it do not count as cutting close. */
const cuts = (tool: ToolKind) => tool !== 'trimmer'

/** What single strokes of a zone come to: rows of strokes share them. */
const known = new WeakMap<PassQuestion, Map<string, { load: number; leftMm: number }>>()

/** Load of one stroke over a zone, and the hair that it leaves; remembered. */
function strokeFigures(q: PassQuestion, wanted: Wanted, skin: StrokeSkin) {
  let strokes = known.get(q)
  if (!strokes) known.set(q, (strokes = new Map<string, { load: number; leftMm: number }>()))
  const key = `${wanted} ${skin.tool} ${skin.uncut}`
  let had = strokes.get(key)
  if (!had) {
    const over = (of: (lane: LaneShape, stroke: number) => number) =>
      overZone(q.lanes, (l) => of(l, q.strokeOf(l, wanted)))
    const back = setBack(q.figures, skin.tool, q.setBackMm)
    had = {
      load: over((l, stroke) => laneLoad(q.figures, l, stroke, skin)) * back.times,
      leftMm:
        back.mm +
        over((l, stroke) =>
          overLane(l, stroke, (angle) => stubbleLeftMm(q.figures, angle, skin.tool)),
        ),
    }
    strokes.set(key, had)
  }
  return had
}

/** Works a row of strokes out, pass by pass. */
export function sequenceFigures(q: PassQuestion, sequence: Sequence): SequenceFigures {
  const passes: PlannedPass[] = []
  const largest = q.lanes.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
  const terminal = q.hair === 'terminal'
  let load = 0
  let left = Infinity
  let cutting = 0
  sequence.forEach((stroke, i) => {
    const tool = toolOf(q, stroke)
    const skin: StrokeSkin = {
      tool,
      slip: q.slip,
      hair: q.hair,
      wear: q.wear,
      uncut: i === 0 && terminal ? q.coarse : undefined,
    }
    const { load: own, leftMm } = strokeFigures(q, stroke.wanted, skin)
    left = Math.min(left, leftMm)
    load += own
    if (cuts(tool)) cutting++
    const bearing = q.strokeOf(largest, stroke.wanted)
    passes.push({
      pass: i + 1,
      relation: laneRelation(q.figures, largest, bearing),
      strokeBearing: bearing,
      load: own,
      leftMm: left,
      smoothHours: smoothHours(
        q.figures,
        left,
        q.growth,
        shareCut(q.figures, Math.max(1, cutting), terminal ? q.coarse : undefined),
      ),
      rednessOdds: rednessOdds(q.sensitivity, load),
      bumpOdds: bumpOdds(q.figures, q.bumps, load),
    })
  })
  const last = passes[passes.length - 1]
  return {
    passes,
    load,
    hours: last?.smoothHours ?? 0,
    rednessOdds: last?.rednessOdds ?? 0,
    bumpOdds: last?.bumpOdds ?? 0,
  }
}

/** P(many bumps in a zone within two weeks) for a load. */
export const bumpOdds = (figures: Figures, bumps: Sensitivity, load: number): number =>
  rednessOdds(bumps, load, figures(PASS_CONSTANTS.bumpsFrom))

/** The rows of strokes that service, school and rules allow, the gentlest first; at least one. */
export function sequencesFor(q: PassQuestion, say?: (reason: Reason) => void): Sequence[] {
  const rows = SERVICES[q.service].sequences(
    {
      ...q,
      toolBefore: q.firstTool !== undefined,
      careful: q.screening.withGrainOnly,
    },
    (text) => say?.({ text, mark: 'C' }),
  )
  const lane = q.lanes[0]!
  if (rows[0]![0] === 'fixed') {
    const off = Math.round(toDegrees(angleBetween(q.strokeOf(lane, 'fixed'), lane.growth)))
    if (off > 0) {
      say?.({
        text: `That runs ${q.wordsOf(lane, 'fixed')}, ${off}° off the growth here.`,
        mark: 'H',
      })
    }
  }
  const out: Sequence[] = []
  for (const row of rows) {
    const sequence = row.map((wanted, i): Stroke =>
      i === 0 && q.firstTool ? { wanted, bladeId: q.firstTool } : { wanted },
    )
    if (barredBy(q, sequence) !== undefined) continue
    if (!out.some((s) => sequenceKey(s) === sequenceKey(sequence))) out.push(sequence)
  }
  // Whatever is barred, once with the grain remains; a cartridge goes across.
  return out.length > 0 ? out : [[{ wanted: q.tool === 'cartridge' ? 'across' : 'with' }]]
}

/** Why a row of strokes may not be; undefined when it may. */
export function barredBy(q: PassQuestion, sequence: Sequence): string | undefined {
  const razor = q.firstTool ? sequence.slice(1) : sequence
  for (const [i, stroke] of sequence.entries()) {
    const tool = toolOf(q, stroke)
    const relation = stroke.wanted
    if (relation === 'against' && tool === 'cartridge') {
      const why = multiBladeRefusal(q.figures, q.schools, q.record)
      if (why !== undefined) return why
    }
    if (tool === 'trimmer') continue
    if (relation === 'against' && i === 0 && q.hair === 'terminal') {
      return 'Against the grain is never the first pass: uncut hair is pulled.'
    }
    if (relation === 'against' && q.curlTight) {
      return 'Tightly curled hair turns back into the skin: never against it.'
    }
    if (q.screening.withGrainOnly && relation !== 'with' && relation !== 'fixed') {
      return 'With the grain only: what was asked calls for care.'
    }
  }
  if (razor.length > 1 && q.screening.onePass) {
    return 'One pass only: what was asked calls for care.'
  }
  if (razor.length > 2 && !q.tolerant)
    return 'A third pass only on skin whose own visits have shown that it bears much.'
  return undefined
}
