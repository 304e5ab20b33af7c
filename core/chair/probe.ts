/** A probe thermometer: how what it shows is put right by calibration, and how far it may have drifted since. */
import { DomainError } from '../errors.ts'
import { constant, type Figures } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'

export const PROBE_CONSTANTS = {
  noiseC: constant(0.3, '°C', 'Two readings of the same thing differ by about this', 'H'),
  driftPerDayC: constant(0.03, '°C', 'Drift of a probe a day after calibration, at most', 'H'),
  uncalibratedC: constant(3, '°C', 'A probe never calibrated may be this far off', 'H'),
  farOffC: constant(8, '°C', 'Farther off than this it is broken', 'H'),
} as const

const C = PROBE_CONSTANTS

/** What calibration found: true = gain · shown + offset. */
export interface ProbeCalibration {
  readonly offsetC: number
  readonly gain: number
  readonly atMs: number
}

/**
 * Calibration from what the probe showed in melting ice (0 °C) and, where there is one, at a second known temperature.
 * @throws DomainError `probe-off` when it is too far off to be a thermometer
 */
export function calibrateProbe(
  figures: Figures,
  iceShowsC: number,
  warm: { readonly knownC: number; readonly showsC: number } | undefined,
  atMs: number,
): ProbeCalibration {
  const gain = warm ? warm.knownC / (warm.showsC - iceShowsC) : 1
  const offsetC = -iceShowsC * gain
  if (
    !(Math.abs(iceShowsC) <= figures(C.farOffC)) ||
    !(Math.abs(gain - 1) <= 0.15) ||
    !Number.isFinite(offsetC)
  ) {
    throw new DomainError(
      'probe-off',
      'The probe is too far off to be put right. Change its battery or the probe. The calibration before it stays.',
    )
  }
  return { offsetC, gain, atMs }
}

/** A reading put right, with how far off it may still be. */
export function corrected(
  figures: Figures,
  shownC: number,
  calibration: ProbeCalibration | undefined,
  nowMs: number,
): { tempC: number; withinC: number } {
  if (!calibration) return { tempC: shownC, withinC: figures(C.uncalibratedC) + figures(C.noiseC) }
  const days = Math.max(0, nowMs - calibration.atMs) / DAY_MS
  return {
    tempC: calibration.gain * shownC + calibration.offsetC,
    withinC: figures(C.noiseC) + figures(C.driftPerDayC) * days,
  }
}
