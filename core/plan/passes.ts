/** How often and which way: the passes of a zone under the client's skin limit (M7), with what each buys (M8). */
import { capital } from '../words.ts'
import {
  clockWords,
  relationToGrain,
  RELATION_WORDS,
  type Relation,
  toDegrees,
  angleBetween,
} from '../grain/index.ts'
import { constant, type Figures, type Schools } from '../house/index.ts'
import type { Screening } from '../screening/index.ts'
import {
  type ServiceId,
  SERVICES,
  type ServiceFamily,
  type Style,
  type Wanted,
} from '../services/index.ts'
import {
  passLoad,
  type HairClass,
  type Slip,
  type ToolKind,
  rednessOdds,
  SKIN_CONSTANTS,
  type Reactivity,
  type Sensitivity,
} from '../skin/index.ts'
import { oddsWords } from '../stats/index.ts'
import { CLOSENESS_CONSTANTS, smoothHours, stubbleLeftMm } from './closeness.ts'
import { overLane, type LaneShape } from './lanes.ts'
import type { PlannedPass, Reason, RefusedPass } from './types.ts'

export const PASS_CONSTANTS = {
  gentlestLimit: constant(
    0.5,
    '',
    'The gentlest plan keeps to this share of the redness limit',
    'H',
  ),
} as const

/** What the passes of a zone depend on. */
export interface PassQuestion {
  readonly figures: Figures
  readonly service: ServiceId
  readonly family: ServiceFamily
  readonly style: Style
  readonly lanes: readonly LaneShape[]
  /** Stroke of each lane on the zone's chart for what is wanted. */
  readonly strokeOf: (lane: LaneShape, wanted: Wanted) => number
  readonly hair: HairClass
  readonly tool: ToolKind
  /** Tool of the first pass, where another one goes before (a trimmer before the razor). */
  readonly firstTool?: ToolKind | undefined
  readonly growthMmPerDay: number
  readonly sensitivity: Sensitivity
  readonly reactivity: Reactivity
  readonly bumpProne: boolean
  readonly curlTight: boolean
  /** Fine, sparse hair on a client known to take it: a head may be gone over against. */
  readonly thin: boolean
  readonly schools: Schools
  readonly screening: Pick<Screening, 'withGrainOnly' | 'onePass'>
}

export interface PassAnswer {
  readonly passes: readonly (PlannedPass & { readonly wanted: Wanted; readonly tool: ToolKind })[]
  readonly refused: readonly RefusedPass[]
  readonly reasons: readonly Reason[]
}

/** Load of a pass over a zone with one tool: the mean over its lanes and their cells. */
export function zonePassLoad(
  figures: Figures,
  q: Pick<PassQuestion, 'lanes' | 'hair' | 'family' | 'schools' | 'strokeOf'>,
  tool: ToolKind,
  wanted: Wanted,
): number {
  const area = q.lanes.reduce((s, l) => s + l.areaCm2, 0)
  return q.lanes.reduce(
    (s, l) =>
      s +
      (l.areaCm2 / area) *
        laneLoad(figures, l, q.strokeOf(l, wanted), tool, slipFor(q.family, q.schools), q.hair),
    0,
  )
}

/** Load of one stroke's lane. */
export function laneLoad(
  figures: Figures,
  lane: LaneShape,
  stroke: number,
  tool: ToolKind,
  slip: Slip,
  hair: HairClass,
): number {
  return overLane(lane, stroke, (angle) =>
    passLoad(figures, { angle, tool, slip, hair, wear: 0, again: false }),
  )
}

/** What lies between blade and skin. */
export function slipFor(family: ServiceFamily, schools: Schools): Slip {
  return family === 'razor'
    ? 'full'
    : ({ dry: 'dry', film: 'full', oil: 'full', damp: 'damp' } as const)[schools.fuzzSlip]
}

/** The relation that a lane's stroke comes to on the whole. */
export function laneRelation(figures: Figures, lane: LaneShape, stroke: number): Relation {
  return relationToGrain(figures, angleBetween(lane.growth, stroke))
}

/** Decides the passes of a zone. The first is always planned; later ones must stay under the limit. */
export function planPasses(q: PassQuestion): PassAnswer {
  const reasons: Reason[] = []
  const wanted = wantedStrokes(q, reasons)
  const felt = q.hair === 'terminal' ? CLOSENESS_CONSTANTS.feltMm : CLOSENESS_CONSTANTS.feltFuzzMm
  const limit =
    q.figures(SKIN_CONSTANTS.rednessLimit) *
    (q.style === 'gentlest' ? q.figures(PASS_CONSTANTS.gentlestLimit) : 1)
  const area = q.lanes.reduce((s, l) => s + l.areaCm2, 0)
  const largest = q.lanes.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
  const passes: (PlannedPass & { wanted: Wanted; tool: ToolKind })[] = []
  const refused: RefusedPass[] = []
  let load = 0
  let left = Infinity
  for (const [i, want] of wanted.entries()) {
    const tool = i === 0 && q.firstTool ? q.firstTool : q.tool
    const stroke = q.strokeOf(largest, want)
    const relation = laneRelation(q.figures, largest, stroke)
    const own = zonePassLoad(q.figures, q, tool, want)
    const odds = rednessOdds(q.sensitivity, load + own)
    const leftMm =
      tool === 'trimmer'
        ? q.figures(CLOSENESS_CONSTANTS.trimmerLeavesMm)
        : q.lanes.reduce(
            (s, l) =>
              s +
              (l.areaCm2 / area) *
                overLane(l, q.strokeOf(l, want), (angle) => stubbleLeftMm(q.figures, angle)),
            0,
          )
    const after = Math.min(left, leftMm)
    const hours = smoothHours(after, q.growthMmPerDay, q.figures(felt))
    const before = passes.length > 0 ? smoothHours(left, q.growthMmPerDay, q.figures(felt)) : 0
    const barred = barredBy(q, tool, relation, passes.length)
    // The razor on the line is the service itself; a trimmer before it costs next to nothing.
    const needed = passes.length === 0 || (i === 1 && q.firstTool !== undefined)
    if (barred ?? (!needed && odds > limit)) {
      refused.push({
        relation,
        reason:
          barred ??
          `Redness of 2 or more would come ${oddsWords(odds)} of the time; the limit is ${oddsWords(limit)}.`,
        load: load + own,
        gainHours: hours - before,
        rednessOdds: odds,
      })
      continue
    }
    passes.push({
      pass: passes.length + 1,
      relation,
      strokeBearing: stroke,
      load: own,
      leftMm: after,
      smoothHours: hours,
      rednessOdds: odds,
      wanted: want,
      tool,
    })
    if (passes.length > 1) {
      reasons.push({
        text: `${capital(RELATION_WORDS[relation])} buys about ${Math.round(hours - before)} h of smoothness for a load of ${load.toFixed(1)} → ${(load + own).toFixed(1)}.`,
        mark: 'H',
      })
    }
    load += own
    left = after
  }
  const first = passes[0]!
  if (first.rednessOdds > limit) {
    reasons.push({
      text: `Even one pass may redden this skin (${oddsWords(first.rednessOdds)}): light strokes, none twice.`,
      mark: 'H',
    })
  }
  return { passes, refused, reasons }
}

function barredBy(
  q: PassQuestion,
  tool: ToolKind,
  relation: Relation,
  planned: number,
): string | undefined {
  if (tool === 'cartridge' && relation === 'against') {
    return 'A multi-blade cartridge never goes against the grain: it lifts and pulls.'
  }
  if (planned === 0) return undefined
  if (q.firstTool && planned === 1) return undefined
  if (q.screening.onePass) return 'One pass only: what was asked calls for care.'
  if (q.screening.withGrainOnly && relation !== 'with') {
    return 'With the grain only: what was asked calls for care.'
  }
  if (planned >= 2 && q.reactivity !== 'tough') return 'A third pass only on tough skin.'
  return undefined
}

/** The strokes that the service asks for, in order, with its reasons. */
function wantedStrokes(q: PassQuestion, reasons: Reason[]): Wanted[] {
  const wanted = SERVICES[q.service].strokes(
    {
      ...q,
      toolBefore: q.firstTool !== undefined,
      careful: q.screening.withGrainOnly,
    },
    (text) => reasons.push({ text, mark: 'C' }),
  )
  const lane = q.lanes[0]!
  if (wanted[0] !== 'fixed') return wanted
  const off = Math.round(toDegrees(angleBetween(q.strokeOf(lane, 'fixed'), lane.growth)))
  if (off > 0) {
    reasons.push({
      text: `That runs toward ${clockWords(q.strokeOf(lane, 'fixed'))}, ${off}° off the growth here.`,
      mark: 'H',
    })
  }
  return wanted
}
