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

/** Part of the hair that was cut meanwhile, at home: which share of the skin, and what it left, mm. */
export interface PartCut {
  readonly atMs: number
  readonly share: number
  readonly leftMm: number
}

/**
 * @param services when each service was, in rising order
 * @param leftMm length each service left standing
 * @param growth what is believed of the growth
 * @param fromMs where the line begins
 * @param nowMs now
 * @param untilMs where the forecast ends
 * @param cuts what was cut in between
 */
export function tideCurve(
  figures: Figures,
  services: readonly number[],
  leftMm: number,
  growth: Growth,
  fromMs: number,
  nowMs: number,
  untilMs: number,
  cuts: readonly PartCut[] = [],
): TideCurve {
  /** Length at a moment, from a service on, with what was cut since. */
  const length = (sinceMs: number, atMs: number, rate = rateAt(growth, 0)) => {
    let [from, mm] = [sinceMs, leftMm]
    let { rest } = growth
    const grown = (until: number) =>
      lengthAfter(
        figures,
        { curve: growth.curve, ...(rest && { rest }) },
        mm,
        rate,
        (until - from) / DAY_MS,
      )
    for (const cut of inOrder) {
      if (cut.atMs <= sinceMs || cut.atMs > atMs) continue
      mm = cut.share * cut.leftMm + (1 - cut.share) * grown(cut.atMs)
      rest = undefined
      from = cut.atMs
    }
    return grown(atMs)
  }
  const inOrder = [...cuts].sort((a, b) => a.atMs - b.atMs)
  const past: TidePoint[] = []
  const inSight = services.filter((s) => s <= nowMs)
  inSight.forEach((at, i) => {
    const end = inSight[i + 1] ?? nowMs
    if (end < fromMs) return
    const start = Math.max(at, fromMs)
    // Fuzz bends toward its greatest length; a straight line needs only its ends.
    const pieces = growth.curve === 'fuzz' || growth.rest ? 8 : 1
    const times = Array.from({ length: pieces + 1 }, (_, k) => start + ((end - start) * k) / pieces)
    // A cut is a drop: the moment before it and the moment itself.
    for (const { atMs } of inOrder) if (atMs > start && atMs < end) times.push(atMs - 1, atMs)
    for (const t of times.sort((a, b) => a - b)) past.push({ atMs: t, mm: length(at, t) })
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
