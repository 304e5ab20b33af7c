/**
 * What is decided together: a zone and its twin on the other side take one row of strokes, unless marks, map or history set them
 * apart by more than is uncertain; units of one area share a row as far as each of them bears it (PLANS 3 and 5).
 */
import { constant, type Figures } from '../house/index.ts'
import { BLADES, type BladeId } from '../kit/index.ts'
import { areaOf, mirrorZone, zoneStem, type Area, type ZoneId } from '../zones/index.ts'
import { SERVICES } from '../services/index.ts'
import { SKIN_CONSTANTS, type Sensitivity } from '../skin/index.ts'
import { oddsWords } from '../stats/index.ts'
import { listWords } from '../words.ts'
import {
  PASS_CONSTANTS,
  sequenceFigures,
  sequenceKey,
  type Sequence,
  type SequenceFigures,
} from './passes.ts'
import type { ZoneQuestion } from './question.ts'
import type { Reason } from './types.ts'
import { sequenceSeconds, type ZoneWork } from './zonePlan.ts'

export const UNIT_CONSTANTS = {
  areasApart: constant(
    0.15,
    '',
    'Sides of which one has this much less skin to work are decided apart',
    'H',
  ),
  loadsApart: constant(
    0.2,
    '',
    'Sides that the same strokes load this differently are decided apart',
    'H',
  ),
  historyApart: constant(
    1.64,
    'standard deviations',
    'Sides whose skin has answered this differently are decided apart',
    'H',
  ),
  band: constant(
    0.03,
    'probability',
    'One side of a pair may stand this far above the limit while both together keep it',
    'H',
  ),
} as const

const U = UNIT_CONSTANTS

/** A row of strokes for one zone, worked out. */
export interface ZoneRow {
  readonly sequence: Sequence
  readonly figures: SequenceFigures
  readonly seconds: number
}

/** A zone of a unit with its rows by key. */
export interface UnitZone {
  readonly id: ZoneId
  readonly work: ZoneWork
  readonly rows: ReadonlyMap<string, ZoneRow>
}

/** Zones that take one row. */
export interface Unit {
  readonly zones: readonly UnitZone[]
  /** Keys of the rows that it bears, the gentlest first; none where even one pass is over the limit. */
  readonly allowed: readonly string[]
  /** What is done where nothing is allowed: a milder tool, or nothing. */
  readonly answer?: { readonly rows?: ReadonlyMap<ZoneId, ZoneRow>; readonly why: Reason }
}

/** Units that share a row as far as they bear it. */
export interface WorkedArea {
  readonly area: Area
  readonly units: readonly Unit[]
}

/** Makes the units of all areas. */
export function unitsOf(q: ZoneQuestion, works: ReadonlyMap<ZoneId, ZoneWork>): WorkedArea[] {
  const zones = new Map<ZoneId, UnitZone>()
  for (const [id, work] of works) {
    const rows = new Map<string, ZoneRow>()
    for (const sequence of work.sequences) {
      rows.set(sequenceKey(sequence), rowFor(q, work, sequence))
    }
    zones.set(id, { id, work, rows })
  }
  const areas = new Map<Area, Unit[]>()
  const done = new Set<ZoneId>()
  for (const zone of zones.values()) {
    if (done.has(zone.id)) continue
    const twin = zones.get(mirrorZone(zone.id))
    const pairs = twin && twin !== zone && together(q.figures, zone, twin)
    const units = pairs ? [[zone, twin]] : twin && twin !== zone ? [[zone], [twin]] : [[zone]]
    for (const own of units) {
      const area = areaOf(zoneStem(zone.id))
      areas.set(area, [...(areas.get(area) ?? []), unitOf(q, own)])
      for (const z of own) done.add(z.id)
    }
  }
  return [...areas].map(([area, units]) => ({ area, units }))
}

/** True where two sides are decided together. */
function together(figures: Figures, a: UnitZone, b: UnitZone): boolean {
  const keys = (z: UnitZone) => [...z.rows.keys()].join()
  if (keys(a) !== keys(b)) return false
  const apart = (x: number, y: number) => Math.abs(x - y) / Math.max(x, y)
  if (apart(a.work.skin.openCm2, b.work.skin.openCm2) > figures(U.areasApart)) return false
  for (const [key, row] of a.rows)
    if (apart(row.figures.load, b.rows.get(key)!.figures.load) > figures(U.loadsApart)) return false
  const k = (s: Sensitivity) => ({ mean: s.shape / s.rate, variance: s.shape / s.rate ** 2 })
  const [l, r] = [k(a.work.question.sensitivity), k(b.work.question.sensitivity)]
  const z = Math.abs(l.mean - r.mean) / Math.sqrt(l.variance + r.variance)
  return z <= figures(U.historyApart)
}

function unitOf(q: ZoneQuestion, zones: readonly UnitZone[]): Unit {
  const keys = [...zones[0]!.rows.keys()]
  const allowed = keys.filter((key, i) =>
    bears(
      q.figures,
      zones.map((z) => [z, z.rows.get(key)!.figures]),
      i > 0,
    ),
  )
  if (allowed.length > 0) return { zones, allowed }
  return { zones, allowed, answer: milder(q, zones) }
}

type Figured = readonly (readonly [UnitZone, Pick<SequenceFigures, 'rednessOdds' | 'bumpOdds'>])[]

/** True where zones together keep the limits: the mean over their skin, none of them far above. */
function bears(figures: Figures, zones: Figured, bumpsToo: boolean): boolean {
  const within = (limit: number, of: 'rednessOdds' | 'bumpOdds') => {
    const area = zones.reduce((s, [z]) => s + z.work.skin.openCm2, 0)
    const mean = zones.reduce((s, [z, f]) => s + (z.work.skin.openCm2 / area) * f[of], 0)
    const band = zones.length > 1 ? figures(U.band) : 0
    return mean <= limit && zones.every(([, f]) => f[of] <= limit + band)
  }
  return (
    within(figures(SKIN_CONSTANTS.rednessLimit), 'rednessOdds') &&
    (!bumpsToo || within(figures(PASS_CONSTANTS.bumpLimit), 'bumpOdds'))
  )
}

/** Rows that are milder than the gentlest of the plan, the closest first: its strokes with a guard, then a trimmer alone. */
function milderRows(q: ZoneQuestion, zone: UnitZone): Sequence[] {
  const { kit, service } = q
  const { family, blades } = SERVICES[service]
  const gentlest = [...zone.rows.values()][0]!.sequence
  const guard: BladeId = family === 'fuzz' ? 'guarded' : 'safety'
  const out: Sequence[] = []
  if (kit.includes(guard) && blades.includes(guard)) {
    const wanted = (s: Sequence[number]) => (s.wanted === 'fixed' ? s.wanted : 'with')
    out.push(
      gentlest.map((s) =>
        s.bladeId ? { ...s, wanted: 'with' } : { wanted: wanted(s), bladeId: guard },
      ),
    )
  }
  if (kit.includes('trimmer') && zone.work.question.hair === 'terminal')
    out.push([{ wanted: 'with', bladeId: 'trimmer' }])
  return out
}

/** Where even one pass is over the limit: a guard, a trimmer, or the zone is left out, with the numbers. */
function milder(q: ZoneQuestion, zones: readonly UnitZone[]): NonNullable<Unit['answer']> {
  const { figures } = q
  const limit = oddsWords(figures(SKIN_CONSTANTS.rednessLimit))
  const now = Math.max(...zones.map((z) => [...z.rows.values()][0]!.figures.rednessOdds))
  const began = `Even one pass would redden this skin ${oddsWords(now)} of the time, above the limit of ${limit}.`
  const tried: string[] = []
  for (const sequence of milderRows(q, zones[0]!)) {
    const rows = new Map(zones.map((z) => [z.id, rowFor(q, z.work, sequence)]))
    const odds = Math.max(...[...rows.values()].map((r) => r.figures.rednessOdds))
    if (odds >= now) continue
    const tools = listWords([...new Set(sequence.map((s) => BLADES[s.bladeId!].name))])
    if (
      bears(
        figures,
        zones.map((z) => [z, rows.get(z.id)!.figures]),
        false,
      )
    ) {
      const text = [began, ...tried, `With the ${tools}: ${oddsWords(odds)}.`].join(' ')
      return { rows, why: { text, mark: 'H' } }
    }
    tried.push(`With the ${tools} it would still be ${oddsWords(odds)}.`)
  }
  return { why: { text: [began, ...tried, 'Left out.'].join(' '), mark: 'H' } }
}

const rowFor = (q: ZoneQuestion, work: ZoneWork, sequence: Sequence): ZoneRow => ({
  sequence,
  figures: sequenceFigures(work.question, sequence),
  seconds: sequenceSeconds(q, work, sequence),
})

/**
 * What a unit takes of an area's row: the row itself, as much of it as it bears, the gentlest that it bears, or its answer where
 * it bears nothing.
 */
export function rowOf(unit: Unit, key: string): string | undefined {
  if (unit.allowed.includes(key)) return key
  const parts = key.split('+')
  for (let n = parts.length - 1; n > 0; n--) {
    const shorter = parts.slice(0, n).join('+')
    if (unit.allowed.includes(shorter)) return shorter
  }
  return unit.allowed[0]
}

/** The row of a zone when its area takes a row; undefined where it is left out. */
export function zoneRow(unit: Unit, zone: UnitZone, key: string): ZoneRow | undefined {
  const own = rowOf(unit, key)
  return own === undefined ? unit.answer?.rows?.get(zone.id) : zone.rows.get(own)
}
