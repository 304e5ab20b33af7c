/** What comes of regrowth (M10): by zone when hair is felt, seen, long enough to read and to wax; sides compared; slow zones. */
import type { Figures } from '../house/index.ts'
import { normalCdf, Z_90 } from '../stats/index.ts'
import { zoneBase, mirrorZone, type ZoneId, zoneSide } from '../zones/index.ts'
import {
  daysUntil,
  daysUntilLength,
  GROWTH_CONSTANTS,
  lengthAfter,
  logRate,
  rateAt,
  type DayRange,
  type Growth,
} from './growth.ts'

const G = GROWTH_CONSTANTS

/** A zone's regrowth, in days after the service. */
export interface ZoneOutlook {
  readonly zoneId: ZoneId
  readonly growth: Growth
  readonly leftMm: number
  readonly felt: DayRange
  readonly seen: DayRange
  /** Stubble long enough to read the grain; fuzz is looked at at any length, so it has none. */
  readonly read: DayRange | undefined
  /** Long enough to wax; undefined where hair never grows so long. */
  readonly wax: DayRange | undefined
}

export function zoneOutlook(
  figures: Figures,
  zoneId: ZoneId,
  growth: Growth,
  leftMm: number,
): ZoneOutlook {
  const terminal = growth.curve === 'terminal'
  return {
    zoneId,
    growth,
    leftMm,
    felt: daysUntil(figures, growth, 'felt', leftMm),
    seen: daysUntil(figures, growth, 'seen', leftMm),
    read: terminal ? daysUntilLength(figures, growth, figures(G.readMm), leftMm) : undefined,
    wax: terminal ? daysUntilLength(figures, growth, figures(G.waxMm), leftMm) : undefined,
  }
}

/** Length of a zone's hair over the days after a service. */
export interface LengthCurve {
  readonly days: readonly number[]
  /** mm: as expected, and between what 80 % of such hair lies on each day. */
  readonly even: readonly number[]
  readonly low: readonly number[]
  readonly high: readonly number[]
}

const MOST_DAYS = 120

/** The days that a curve is worth looking at: past the day on which hair is surely seen, and long enough to read. */
export const outlookDays = ({ seen, read }: ZoneOutlook): number =>
  Math.min(MOST_DAYS, Math.max(seen.late * 1.35, (read?.even ?? 0) * 1.1, 3))

/** How a zone's hair comes back, in even steps. */
export function lengthCurve(
  figures: Figures,
  { growth, leftMm }: Pick<ZoneOutlook, 'growth' | 'leftMm'>,
  untilDays: number,
  steps: number,
): LengthCurve {
  const days = Array.from({ length: steps + 1 }, (_, i) => (untilDays * i) / steps)
  const at = (z: number) => {
    const rate = rateAt(growth, z)
    return days.map((d) => lengthAfter(figures, growth, leftMm, rate, d))
  }
  return { days, even: at(0), low: at(-Z_90), high: at(Z_90) }
}

/** The two sides of the same place. */
export interface SidePair {
  readonly left: ZoneId
  readonly right: ZoneId
  /** Left over right. */
  readonly ratio: number
  /** P(the left grows faster). */
  readonly leftFaster: number
  readonly words: string
}

/** Compares sides where either has been learned; those that differ most surely first. */
export function compareSides(
  figures: Figures,
  growth: Readonly<Record<string, Growth>>,
  learned: (zone: string) => boolean,
): SidePair[] {
  return Object.keys(growth)
    .filter((z): z is ZoneId => zoneSide(z as ZoneId) === 'left')
    .flatMap((left): SidePair[] => {
      const right = mirrorZone(left)
      const [a, b] = [growth[left]!, growth[right]]
      if (!b || (!learned(left) && !learned(right))) return []
      const leftFaster = fasterOdds(a, b)
      return [
        {
          left,
          right,
          ratio: a.mean / b.mean,
          leftFaster,
          words: sideWords(figures, left, a, b, leftFaster),
        },
      ]
    })
    .sort((x, y) => Math.abs(y.leftFaster - 0.5) - Math.abs(x.leftFaster - 0.5))
}

/** P(one grows faster than the other). */
function fasterOdds(a: Growth, b: Growth): number {
  const [x, y] = [logRate(a), logRate(b)]
  return normalCdf((x.mu - y.mu) / Math.hypot(x.s, y.s))
}

function sideWords(
  figures: Figures,
  left: ZoneId,
  a: Growth,
  b: Growth,
  leftFaster: number,
): string {
  const place = zoneBase(left)
  const sure = Math.max(leftFaster, 1 - leftFaster)
  if (sure < figures(G.slowOdds))
    return `${place}: no difference between the sides that can be told yet.`
  const share = Math.round(100 * (Math.max(a.mean, b.mean) / Math.min(a.mean, b.mean) - 1))
  return `${place}: the client’s ${leftFaster > 0.5 ? 'left' : 'right'} grows about ${share} % faster.`
}

/** Zones that grow slowly beside the others of their kind, as far as it is likely enough to be said. */
export function slowZones(
  figures: Figures,
  growth: Readonly<Record<string, Growth>>,
): { zoneId: string; share: number; odds: number }[] {
  const entries = Object.entries(growth)
  return entries.flatMap(([zoneId, g]) => {
    const others = entries
      .filter(([z, o]) => z !== zoneId && o.curve === g.curve)
      .map(([, o]) => o.mean)
    if (others.length < 2) return []
    const sorted = [...others].sort((a, b) => a - b)
    const middle = sorted[Math.floor(sorted.length / 2)]!
    // How likely the zone is under the share that counts as slow.
    const { mu, s } = logRate(g)
    const odds = normalCdf((Math.log(figures(G.slowShare) * middle) - mu) / s)
    return odds >= figures(G.slowOdds) ? [{ zoneId, share: g.mean / middle, odds }] : []
  })
}
