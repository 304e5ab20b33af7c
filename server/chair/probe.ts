/**
 * A stand-in for a probe thermometer on a cable: it has an error and a drift of its own, and its readings tremble. What it is
 * put into is imitated too: ice water, a reference of 40 °C, a towel that was taken out of the warmer at a time.
 */
import { cooled } from '../../core/chair/index.ts'
import { mulberry32, drawNormal } from '../../core/stats/index.ts'
import { DAY_MS } from '../../core/time/index.ts'

/** The imitated things as they really are. */
const TRUE_ = { startC: 61.5, airC: 21.5, foldedMin: 5.4, openedMin: 3.1, warmC: 40 }
const DEVICE = {
  offsetC: 1.7,
  gain: 1.02,
  driftPerDayC: 0.02,
  noiseC: 0.15,
  bornMs: Date.UTC(2026, 0, 1),
}

export interface ProbeInto {
  readonly into: 'ice' | 'warm' | 'towel'
  readonly outAtMs?: number | undefined
  readonly laidAtMs?: number | undefined
}

/** Makes a probe; its tremble follows from the seed. */
export function makeProbe(seed: number): (into: ProbeInto, nowMs: number) => number {
  const random = mulberry32(seed)
  return (into, nowMs) => {
    const drift = (DEVICE.driftPerDayC * Math.max(0, nowMs - DEVICE.bornMs)) / DAY_MS
    // Drift is bounded: a real one is adjusted at the factory's limits.
    const offset = DEVICE.offsetC + Math.min(3, drift) * 0.2
    const shown =
      DEVICE.gain * trueTemperature(into, nowMs) + offset + DEVICE.noiseC * drawNormal(random)
    return Math.round(shown * 10) / 10
  }
}

function trueTemperature({ into, outAtMs, laidAtMs }: ProbeInto, nowMs: number): number {
  if (into === 'ice') return 0
  if (into === 'warm') return TRUE_.warmC
  const out = outAtMs ?? nowMs
  const until = Math.min(laidAtMs ?? nowMs, nowMs)
  const folded = cooled(TRUE_.startC, TRUE_.airC, TRUE_.foldedMin, Math.max(0, until - out))
  return laidAtMs === undefined
    ? folded
    : cooled(folded, TRUE_.airC, TRUE_.openedMin, Math.max(0, nowMs - laidAtMs))
}
