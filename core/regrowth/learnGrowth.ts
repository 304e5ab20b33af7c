/**
 * What a person's answers teach of the growth of their hair (M10). "Felt" and "seen" are times at which a length is passed,
 * told by the day: each is an interval between the last "not yet" and the first "yes" (interval censoring; Turnbull 1976,
 * Sun 2006, from memory), so that the slope of the length over time enters by itself. A person has thresholds of their own,
 * and answers more or less carefully. Rates of zones hang together in a person. All of it is fitted at once by Laplace's
 * method (Tierney & Kadane 1986, from memory), over a grid of how careful the person is and how alike their zones are.
 */
import type { Figures } from '../house/index.ts'
import {
  GROWTH_CONSTANTS as G,
  logRate,
  measuredSpreadMm,
  ofLogRate,
  noticedMm,
  type Growth,
  type GrowthReading,
} from './growth.ts'
import { fitted, THREE, type Fit, type Slot, type Told } from './growthFit.ts'
import { believed } from './plausible.ts'

/** A reading with the zone that it speaks of; null where somebody noticed hair without saying where. */
export type PlacedReading = GrowthReading & { readonly zoneId: string | null }

/** Steps of the logarithm of how carefully somebody answers, and the share of the spread of rates that a person's zones have in common. */
const CARE = [1.6, 1, 0.4, -0.2, -0.8]
/** Evidence so much worse, as a logarithm, is left out. */
const RULED_OUT = 6

/**
 * Learns growth by zone.
 * @param prior what is expected of each zone before anything is told
 * @param readings of all visits; those that nobody would believe are left aside (`plausible.ts`)
 */
export function learnGrowths(
  figures: Figures,
  prior: Readonly<Record<string, Growth>>,
  readings: readonly PlacedReading[],
): Readonly<Record<string, Growth>> {
  const kept = readings.filter((r) => {
    const zone = r.zoneId === null ? fastest(prior) : prior[r.zoneId]
    return zone !== undefined && believed(figures, zone, r)
  })
  if (kept.length === 0) return prior
  const first = fastest(prior)!
  const names = [...new Set(kept.map((r) => r.zoneId))]
  const slots = names.map((zoneId): Slot => {
    const zone = zoneId === null ? first : prior[zoneId]!
    return { curve: zone.curve, seenTimes: zone.seenTimes, ...logRate(zone) }
  })
  const told = kept.map((r) => toldOf(figures, r, names.indexOf(r.zoneId), slots))
  const parts = weighed(figures, slots, told)
  const anywhere = names.includes(null)
    ? growthFrom(figures, parts, first, names.indexOf(null))
    : undefined
  // Zones that nobody told of and of which the same is expected fare alike.
  const untold = new Map<string, Growth>()
  const ofZone = (zoneId: string, zone: Growth) => {
    const slot = names.indexOf(zoneId)
    const expected = `${zone.curve} ${zone.mean} ${zone.sd}`
    const had = slot < 0 ? untold.get(expected) : undefined
    const own = had ?? growthFrom(figures, parts, zone, slot)
    if (slot < 0) untold.set(expected, own)
    return own
  }
  const growth = Object.entries(prior).map(([zoneId, zone]): [string, Growth] => {
    const own = ofZone(zoneId, zone)
    return [zoneId, anywhere?.curve === own.curve ? { ...own, notBefore: anywhere } : own]
  })
  return Object.fromEntries(growth)
}

/** The fits over how careful the person is and how alike their zones are, weighed by their evidence. */
function weighed(figures: Figures, slots: readonly Slot[], told: readonly Told[]): Weighed[] {
  const fit = (common: number, log: number, from: Float64Array) => {
    const care = Math.exp(log)
    const found = fitted(figures, slots, told, care, common, from)
    const prior = -0.5 * (log / figures(G.careSpread)) ** 2
    return { fit: found, care, common, log: found.evidence + prior }
  }
  // From careless to careful: the wide one is easily found, and each next one lies near the last.
  let from: Float64Array = new Float64Array(3 + slots.length)
  const half = CARE.map((log) => {
    const found = fit(0.45, log, from)
    from = found.fit.x
    return found
  })
  // How careful somebody is hardly hangs on how alike their zones are: what one rules out the others need not try.
  const best = Math.max(...half.map((f) => f.log))
  const likely = half.filter((f) => f.log > best - RULED_OUT)
  const fits = [
    ...half,
    ...[0.1, 0.8].flatMap((common) => likely.map((f) => fit(common, Math.log(f.care), f.fit.x))),
  ]
  const peak = Math.max(...fits.map((f) => f.log))
  const kept = fits.filter((f) => f.log > peak - RULED_OUT)
  const total = kept.reduce((s, f) => s + Math.exp(f.log - peak), 0)
  return kept.map((f) => ({ ...f, weight: Math.exp(f.log - peak) / total }))
}

/** The zone whose hair is noticed first by what is expected of all. */
export function fastest(prior: Readonly<Record<string, Growth>>): Growth | undefined {
  return Object.values(prior).reduce<Growth | undefined>(
    (most, g) => (!most || g.mean > most.mean ? g : most),
    undefined,
  )
}

const HALF_A_DAY = 0.5

function toldOf(figures: Figures, r: GrowthReading, slot: number, slots: readonly Slot[]): Told {
  const { leftMm } = r
  if (r.kind === 'measured') {
    return {
      ...{ slot, sense: -1, leftMm, lengthMm: r.lengthMm ?? 0 },
      ...{ low: r.days, high: r.days, spreadMm: measuredSpreadMm(figures, r) },
    }
  }
  const kind = r.kind === 'felt' || r.kind === 'not-felt' ? 'felt' : 'seen'
  const yet = r.kind === 'felt' || r.kind === 'seen'
  return {
    ...{ slot, sense: kind === 'felt' ? 0 : 1, leftMm },
    lengthMm: noticedMm(figures, slots[slot]!, kind),
    spreadMm: figures(G.measuredSdMm),
    // Told by the day: noticed on that day, and not on the one before it unless somebody looked later than that.
    low: yet ? Math.max(0, Math.min(r.notYetDays ?? Infinity, r.days - HALF_A_DAY)) : r.days,
    high: yet ? r.days + HALF_A_DAY : Infinity,
  }
}

/** A fit with what it was made for. */
interface Weighed {
  readonly fit: Fit
  readonly care: number
  readonly common: number
  readonly weight: number
}

/** What the fits together say of a slot's growth. */
function growthFrom(
  figures: Figures,
  parts: readonly Weighed[],
  prior: Growth,
  slot: number,
): Growth {
  const each = parts.map((p) => ({
    weight: p.weight,
    ...spreadOf(figures, p, logRate(prior), slot),
  }))
  const over = (f: (e: (typeof each)[number]) => number) =>
    each.reduce((t, e) => t + e.weight * f(e), 0)
  const theta = over((e) => e.theta)
  const variance = over((e) => e.variance + (e.theta - theta) ** 2)
  const threshold = (kind: 'felt' | 'seen', k: number) => {
    const mm = over((e) => e.mm[k]!)
    return {
      mm: noticedMm(figures, prior, kind) + mm,
      sd: Math.sqrt(over((e) => e.mmVariance[k]! + (e.mm[k]! - mm) ** 2)),
      withRate: over((e) => e.with[k]! + (e.theta - theta) * (e.mm[k]! - mm)),
    }
  }
  return {
    curve: prior.curve,
    ...(prior.seenTimes !== undefined && { seenTimes: prior.seenTimes }),
    ...ofLogRate(theta, Math.sqrt(variance)),
    felt: threshold('felt', 0),
    seen: threshold('seen', 1),
    noiseMm:
      figures(G.measuredSdMm) * Math.sqrt(parts.reduce((t, p) => t + p.weight * p.care ** 2, 0)),
  }
}

/** Mean and spread of the logarithm of a slot's rate, and how it moves with each threshold, in one fit; slot −1 was not told of. */
function spreadOf(
  figures: Figures,
  { fit: { x, shared, own, beside }, common }: Weighed,
  { mu, s }: { mu: number; s: number },
  slot: number,
) {
  const mm = figures(G.thresholdSdMm)
  const [together, apart] = [Math.sqrt(common), Math.sqrt(1 - common)]
  const side = THREE.map((m) => (slot < 0 ? 0 : beside[3 * slot + m]! / own[slot]!))
  // Covariance of the slot's own part with the three that are shared, and its own variance.
  const along = THREE.map((k) => -THREE.reduce((t, m) => t + shared[k]![m]! * side[m]!, 0))
  const alone = slot < 0 ? 1 : 1 / own[slot]! - THREE.reduce((t, m) => t + along[m]! * side[m]!, 0)
  return {
    theta: mu + s * (together * x[0]! + (slot < 0 ? 0 : apart * x[3 + slot]!)),
    variance:
      s * s * (common * shared[0]![0]! + apart * apart * alone + 2 * together * apart * along[0]!),
    with: [1, 2].map((k) => s * mm * (together * shared[0]![k]! + apart * along[k]!)),
    mm: [1, 2].map((k) => mm * x[k]!),
    mmVariance: [1, 2].map((k) => mm * mm * shared[k]![k]!),
  }
}
