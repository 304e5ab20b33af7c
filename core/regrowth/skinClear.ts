/**
 * How likely the skin is clear after a service (M7, M10). Zones are not independent: they share the client's skin, the day and
 * the speed at which redness fades, so that P(all clear by t) = Σ w_K w_V w_ν Π_z P(zone z is clear by t | K, V, ν), over the
 * belief in rates and levels (`skin/anyZone.ts`) and in speeds (`skin/fading.ts`). From a look some hours after the service on
 * the rate and the day matter no more: each zone fades from the grade that was seen.
 */
import { SPEAKS_FROM_HOURS, type SkinAnswer } from '../looks/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { fadedOdds, skinNodes, type FadeBelief, type SkinBelief } from '../skin/index.ts'
import { gammaPoissonPmf } from '../stats/index.ts'
import { DAY_MS, HOUR_MS } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'

export const CLEAR_CONSTANTS = {
  clearEnough: constant(
    0.65,
    'probability',
    'A visit is told from when all skin is clear with this much; a look may show it sooner',
    'H',
  ),
  clearByDays: constant(
    30,
    'days',
    'So long after a service skin is taken as clear if nobody has seen it red since',
    'H',
  ),
  lookAheadDays: constant(90, 'days', 'Odds are looked for so far ahead', 'H'),
} as const

const C = CLEAR_CONSTANTS

/** What is known of the skin after a service. */
export interface SkinAfter {
  readonly endedAtMs: number
  /** Worked zones with the load they got. */
  readonly zones: readonly { readonly zoneId: ZoneId; readonly load: number }[]
  readonly answers: readonly Pick<SkinAnswer, 'atMs' | 'zones'>[]
  /** Worst redness that was noted at the chair, by zone. */
  readonly redAtChair?: Readonly<Record<string, number>> | undefined
}

/** What is believed of the client's skin. */
export interface SkinOf {
  readonly belief: SkinBelief
  readonly fading: FadeBelief
}

/** The last look that tells how redness goes on: one right after the service does not, burn comes late. */
export function lastLook(after: Pick<SkinAfter, 'endedAtMs' | 'answers'>) {
  const from = after.endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS
  return after.answers.reduce<SkinAfter['answers'][number] | undefined>(
    (last, a) => (a.atMs >= from && (!last || a.atMs > last.atMs) ? a : last),
    undefined,
  )
}

/** When every zone was seen clear at the last look; undefined when it was not, or nobody looked. */
export function seenClearMs(after: Pick<SkinAfter, 'endedAtMs' | 'answers'>): number | undefined {
  const look = lastLook(after)
  return look?.zones.every((z) => z.redness === 0) ? look.atMs : undefined
}

/** A belief that weighs less changes no odds that are told. */
const LEAST_WEIGHT = 1e-3
const GRADES = [0, 1, 2, 3, 4] as const

/** Odds that skin is clear, at any moment: of all zones or of some. */
export type ClearOdds = (atMs: number, only?: readonly string[]) => number

/** Odds that the skin after a service is clear. From a look on they say nothing of the time before it. */
export function clearOddsOf(figures: Figures, after: SkinAfter, skin: SkinOf): ClearOdds {
  const speeds = skin.fading.filter((b) => b.weight > LEAST_WEIGHT)
  const all = speeds.reduce((s, b) => s + b.weight, 0)
  const overSpeeds = (odds: (perDay: number) => number) =>
    speeds.reduce((sum, b) => sum + (b.weight / all) * odds(b.perDay), 0)
  const look = lastLook(after)
  if (look) {
    const red = look.zones.filter((z) => z.redness > 0)
    return (atMs, only) => {
      const days = Math.max(0, atMs - look.atMs) / DAY_MS
      return overSpeeds((perDay) =>
        red.reduce(
          (p, z) => (!only || only.includes(z.zoneId) ? p * fadedOdds(z.redness, days, perDay) : p),
          1,
        ),
      )
    }
  }
  const nodes = skinNodes(skin.belief).filter((n) => n.weight > LEAST_WEIGHT)
  const whole = nodes.reduce((s, n) => s + n.weight, 0)
  const grades = new Map(
    after.zones.map((z) => [z.zoneId as string, gradesByNode(after, skin.belief, nodes, z)]),
  )
  return (atMs, only) => {
    const days = Math.max(0, atMs - after.endedAtMs) / DAY_MS
    if (days >= figures(C.clearByDays)) return 1
    const zones = [...grades].flatMap(([z, g]) => (!only || only.includes(z) ? [g] : []))
    return overSpeeds((perDay) => {
      const faded = GRADES.map((g) => fadedOdds(g, days, perDay))
      let sum = 0
      for (let n = 0; n < nodes.length; n++) {
        let p = nodes[n]!.weight / whole
        for (const g of zones) {
          let clear = 0
          for (let k = 0; k < GRADES.length; k++) clear += g[n * GRADES.length + k]! * faded[k]!
          p *= clear
        }
        sum += p
      }
      return sum
    })
  }
}

/**
 * The odds where skin was worked again since: each time by itself, as if they had nothing in common, so that they are never
 * overstated.
 */
export function clearOddsOfAll(
  figures: Figures,
  times: readonly SkinAfter[],
  skin: SkinOf,
): ClearOdds {
  const each = times.map((after) => clearOddsOf(figures, after, skin))
  return (atMs, only) => each.reduce((p, odds) => p * odds(atMs, only), 1)
}

/** Before the last look, or the last that was done, nothing is forecast any more. */
export const forecastFromMs = (after: SkinAfter, since: readonly SkinAfter[]): number =>
  Math.max(lastLook(after)?.atMs ?? after.endedAtMs, ...since.map((s) => s.endedAtMs))

/** Odds of a zone's worst grade, 0 to 4, at each node; what was noted at the chair is the least it came to. */
function gradesByNode(
  after: SkinAfter,
  belief: SkinBelief,
  nodes: ReturnType<typeof skinNodes>,
  zone: SkinAfter['zones'][number],
): Float64Array {
  const { count, exposure } = belief.seen[zone.zoneId] ?? { count: 0, exposure: 0 }
  const least = Math.min(4, after.redAtChair?.[zone.zoneId] ?? 0)
  const out = new Float64Array(nodes.length * GRADES.length)
  nodes.forEach(({ rate, shape, level }, n) => {
    const upTo3 = gammaPoissonPmf(shape + count, shape / rate + exposure, zone.load * level, 3)
    let rest = 1
    for (const grade of GRADES) {
      const p = grade < 4 ? upTo3[grade]! : Math.max(0, rest)
      rest -= p
      out[n * GRADES.length + Math.max(grade, least)]! += p
    }
  })
  return out
}

/**
 * From when the skin is clear enough, to the hour: every zone, with `clearEnough`. Skin that was seen clear is ready from the
 * service on, as far as odds go: whether it was red before and had its free days is asked in `skinSettles`.
 * @param since times at which some of it was worked since
 */
export function skinReadyMs(
  figures: Figures,
  after: SkinAfter,
  skin: SkinOf,
  since: readonly SkinAfter[] = [],
): number {
  if (since.length === 0 && seenClearMs(after) !== undefined) return after.endedAtMs
  const odds = clearOddsOfAll(figures, [after, ...since], skin)
  const from = forecastFromMs(after, since)
  return firstMoment(from, figures(C.lookAheadDays), (t) => odds(t) >= figures(C.clearEnough))
}

/** The first moment, to the hour, from which `so` holds, or the last that is looked at. `so` must stay so. */
export function firstMoment(
  fromMs: number,
  mostDays: number,
  so: (atMs: number) => boolean,
): number {
  if (so(fromMs)) return fromMs
  let [no, yes] = [0, 6]
  const most = Math.round(mostDays * 24)
  while (yes < most && !so(fromMs + yes * HOUR_MS)) [no, yes] = [yes, Math.min(most, 2 * yes)]
  while (yes - no > 1) {
    const half = Math.floor((no + yes) / 2)
    if (so(fromMs + half * HOUR_MS)) yes = half
    else no = half
  }
  return fromMs + yes * HOUR_MS
}
