/** How often and which way: the passes of a zone under the client's skin limit (M7), with what each buys (M8). */
import { clockWords } from '../grain/clock.ts'
import { strokeAngle, relationToGrain, RELATION_WORDS, type Relation } from '../grain/relation.ts'
import { toDegrees, wrapTurn } from '../grain/circular.ts'
import type { Vec3 } from '../head/frames.ts'
import type { ZoneRecord } from '../head/head.ts'
import { bearingOf } from '../head/frames.ts'
import { schoolWords, type Schools } from '../house/schools.ts'
import type { Screening } from '../screening/screen.ts'
import type { ServiceFamily, ServiceId } from '../services.ts'
import { passLoad, type HairClass, type Slip, type ToolKind } from '../skin/load.ts'
import { rednessOdds, SKIN_CONSTANTS, type Sensitivity } from '../skin/sensitivity.ts'
import { CLOSENESS_CONSTANTS, smoothHours, stubbleLeftMm } from './closeness.ts'
import { acrossBearing } from './hands.ts'
import type { PlannedPass, Reason, RefusedPass } from './types.ts'

/** What the passes of a zone depend on. */
export interface PassQuestion {
  readonly zone: ZoneRecord
  readonly service: ServiceId
  readonly family: ServiceFamily
  readonly growthDirection: number
  readonly hair: HairClass
  readonly tool: ToolKind
  readonly growthMmPerDay: number
  readonly sensitivity: Sensitivity
  readonly bumpProne: boolean
  readonly curlTight: boolean
  readonly schools: Schools
  readonly screening: Pick<Screening, 'withGrainOnly' | 'onePass'>
  readonly hazards: readonly { name: string; at: Vec3 }[]
}

export interface PassAnswer {
  readonly passes: readonly PlannedPass[]
  readonly refused: readonly RefusedPass[]
  readonly reasons: readonly Reason[]
}

const percent = (p: number) => `${Math.round(100 * p)} %`

/** Decides the passes of a zone. At least the first is always planned; later ones must stay under the limit. */
export function planPasses(q: PassQuestion): PassAnswer {
  const reasons: Reason[] = []
  const wanted = wantedStrokes(q, reasons)
  const slip: Slip = q.family === 'razor' ? 'full' : slipOf(q.schools)
  const felt = q.hair === 'terminal' ? CLOSENESS_CONSTANTS.feltMm : CLOSENESS_CONSTANTS.feltFuzzMm
  const limit = SKIN_CONSTANTS.rednessLimit.value
  const passes: PlannedPass[] = []
  const refused: RefusedPass[] = []
  let load = 0
  let left = Infinity
  for (const stroke of wanted) {
    const angle = strokeAngle(stroke.bearing, q.growthDirection)
    const relation = relationToGrain(angle)
    const own = passLoad({ angle, tool: q.tool, slip, hair: q.hair, wear: 0, again: false })
    const odds = rednessOdds(q.sensitivity, load + own)
    const after = Math.min(left, stubbleLeftMm(angle))
    const hours = smoothHours(after, q.growthMmPerDay, felt.value)
    const before = passes.length > 0 ? smoothHours(left, q.growthMmPerDay, felt.value) : 0
    const barred = passes.length > 0 ? barredBy(q, relation) : undefined
    if (passes.length > 0 && (barred || odds > limit)) {
      refused.push({
        relation,
        reason:
          barred ??
          `Redness of 2 or more would come ${percent(odds)} of the time; the limit is ${percent(limit)}.`,
        load: load + own,
        gainHours: hours - before,
        rednessOdds: odds,
      })
      continue
    }
    passes.push({
      pass: passes.length + 1,
      relation,
      strokeBearing: stroke.bearing,
      load: own,
      smoothHours: hours,
      rednessOdds: odds,
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
  if (passes[0]!.rednessOdds > limit) {
    reasons.push({
      text: `Even one pass may redden this skin (${percent(passes[0]!.rednessOdds)}): light strokes, none twice.`,
      mark: 'H',
    })
  }
  return { passes, refused, reasons }
}

function barredBy(q: PassQuestion, relation: Relation): string | undefined {
  if (q.screening.onePass) return 'One pass only: what was asked calls for care.'
  if (q.screening.withGrainOnly && relation !== 'with') {
    return 'With the grain only: what was asked calls for care.'
  }
  return undefined
}

interface Wanted {
  readonly bearing: number
}

/** The strokes the school asks for, in order. */
function wantedStrokes(q: PassQuestion, reasons: Reason[]): Wanted[] {
  const along = q.growthDirection
  const against = wrapTurn(along + Math.PI)
  const across = () => {
    const way = acrossBearing(q.zone, along, q.hazards)
    reasons.push({
      text: `Across runs toward ${clockWords(way.bearing)}: away from the ${way.awayFrom}.`,
      mark: 'C',
    })
    return { bearing: way.bearing }
  }
  if (q.family === 'fuzz') return [fuzzStroke(q, reasons)]
  if (q.service === 'head-shave') {
    if (q.screening.withGrainOnly || q.bumpProne) {
      reasons.push({ text: 'With the grain: this skin asks for the gentlest stroke.', mark: 'C' })
      return [{ bearing: along }]
    }
    reasons.push({ text: 'A head shave takes one pass across.', mark: 'C' })
    return [across()]
  }
  if (q.bumpProne) {
    reasons.push({
      text: `Bump-prone: ${schoolWords('bumpProneShave', q.schools.bumpProneShave).toLowerCase()}.`,
      mark: 'C',
    })
    if (q.curlTight) {
      reasons.push({
        text: 'Tightly curled hair turns back into the skin: never against it.',
        mark: 'C',
      })
    }
    return [{ bearing: along }]
  }
  const school = q.schools.beardPasses
  reasons.push({ text: `School: ${schoolWords('beardPasses', school).toLowerCase()}.`, mark: 'C' })
  switch (school) {
    case 'one-across':
      return q.screening.withGrainOnly ? [{ bearing: along }] : [across()]
    case 'with-only':
      return [{ bearing: along }]
    case 'with-against':
      return [{ bearing: along }, { bearing: against }]
    case 'with-across':
      return [{ bearing: along }, across()]
  }
}

function fuzzStroke(q: PassQuestion, reasons: Reason[]): Wanted {
  reasons.push({ text: 'Fuzz is gone over once, never twice.', mark: 'C' })
  const school = q.schools.fuzzDirection
  reasons.push({
    text: `School: ${schoolWords('fuzzDirection', school).toLowerCase()}.`,
    mark: 'C',
  })
  if (school !== 'down-to-centre' || q.screening.withGrainOnly) {
    return { bearing: q.growthDirection }
  }
  const { point, normal } = q.zone.centre
  const inward = point[0] === 0 ? 0 : -Math.sign(point[0]) * 0.6
  const bearing = bearingOf(q.zone.id, point, normal, [inward, -0.8, 0])
  const off = Math.round(toDegrees(strokeAngle(bearing, q.growthDirection)))
  if (off > 0) reasons.push({ text: `That is ${off}° off the growth here.`, mark: 'H' })
  return { bearing }
}

function slipOf(schools: Schools): Slip {
  return { dry: 'dry', film: 'full', oil: 'full', damp: 'damp' }[schools.fuzzSlip] as Slip
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
