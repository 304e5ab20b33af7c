/** The tide line: hair length over time, climbing and dropping at each service, with a forecast that widens. */
import type { Figures } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { Z_90 } from '../stats/index.ts'
import { lengthAfter, rateAt, type Growth } from './growth.ts'

/** One point of the curve. */
export interface TidePoint {
  readonly atMs: number
  readonly mm: number
}

/** A point of the forecast with its 80 % range. */
export interface TideForecast extends TidePoint {
  readonly lowMm: number
  readonly highMm: number
}

/** Past and forecast. */
export interface TideCurve {
  readonly past: readonly TidePoint[]
  readonly ahead: readonly TideForecast[]
}

/**
 * @param services when each service was, in rising order
 * @param leftMm length each service left standing
 * @param growth what is believed of the growth
 * @param fromMs where the line begins
 * @param nowMs now
 * @param untilMs where the forecast ends
 */
export function tideCurve(
  figures: Figures,
  services: readonly number[],
  leftMm: number,
  growth: Growth,
  fromMs: number,
  nowMs: number,
  untilMs: number,
): TideCurve {
  const length = (sinceMs: number, atMs: number, rate = rateAt(growth, 0)) =>
    lengthAfter(figures, growth, leftMm, rate, (atMs - sinceMs) / DAY_MS)
  const past: TidePoint[] = []
  const inSight = services.filter((s) => s <= nowMs)
  inSight.forEach((at, i) => {
    const end = inSight[i + 1] ?? nowMs
    if (end < fromMs) return
    const start = Math.max(at, fromMs)
    // Fuzz bends toward its greatest length; a straight line needs only its ends.
    const pieces = growth.curve === 'fuzz' ? 8 : 1
    for (let k = 0; k <= pieces; k++) {
      const t = start + ((end - start) * k) / pieces
      past.push({ atMs: t, mm: length(at, t) })
    }
  })
  const last = inSight[inSight.length - 1]
  const ahead: TideForecast[] = []
  if (last !== undefined) {
    const pieces = 12
    for (let k = 0; k <= pieces; k++) {
      const t = nowMs + ((untilMs - nowMs) * k) / pieces
      ahead.push({
        atMs: t,
        mm: length(last, t),
        lowMm: length(last, t, rateAt(growth, -Z_90)),
        highMm: length(last, t, rateAt(growth, Z_90)),
      })
    }
  }
  return { past, ahead }
}
