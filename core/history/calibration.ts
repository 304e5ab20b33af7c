/**
 * Is the forecast right? Every answered visit is forecast from those before it and compared with what came: by bins, by Brier's
 * score (1950) beside simpler forecasts, and by Spiegelhalter's test (1986) of calibration; both from memory.
 */
import { constant, type Figures } from '../house/index.ts'
import { clopperPearson, type Interval, normalCdf, sum } from '../stats/index.ts'
import {
  poolZones,
  skinPooling,
  priorSensitivity,
  rednessOdds,
  type Reactivity,
} from '../skin/index.ts'

export const CALIBRATION_CONSTANTS = {
  grade: constant(2, 'grade', 'Redness of this grade or more is what is forecast', 'H'),
  off: constant(
    0.01,
    'probability',
    'A forecast is called off when its errors are less likely than this',
    'H',
  ),
  offBy: constant(
    0.15,
    '',
    'and when what was said and what came differ by more than this share',
    'H',
  ),
  leastForecasts: constant(100, 'forecasts', 'Before anything is said of the forecast', 'H'),
} as const

const K = CALIBRATION_CONSTANTS

/** Upper ends of the bins of forecasts. */
const EDGES = [0.02, 0.05, 0.1, 0.15, 0.2, 0.3, 0.5, 1] as const

/** A client's answered visits, oldest first: load and worst grade by zone. */
export interface ForecastHistory {
  readonly reactivity: Reactivity
  readonly visits: readonly (readonly { zoneId: string; load: number; grade: number }[])[]
}

export interface CalibrationBin {
  readonly from: number
  readonly to: number
  readonly forecasts: number
  readonly hits: number
  /** Mean of the forecasts in the bin. */
  readonly said: number
  /** Share that came, and its 95 % range. */
  readonly came: number
  readonly range: Interval
}

export interface ForecastCheck {
  readonly bins: readonly CalibrationBin[]
  readonly clients: number
  readonly visits: number
  readonly forecasts: number
  /** Mean squared error of the forecast, of the prior alone, and of "the same as last time". */
  readonly brier: number
  readonly brierPrior: number
  readonly brierLast: number
  /** Spiegelhalter's z: near 0 when calibrated; above when more came than was said. */
  readonly z: number
  readonly p: number
  readonly words: string
}

/** Forecasts of a client's visits against what came, summed. */
export interface ForecastSums {
  readonly visits: number
  readonly forecasts: number
  /** By bin of EDGES: forecasts, those that came, and the sum of what was said. */
  readonly bins: readonly (readonly [forecasts: number, hits: number, said: number])[]
  /** Squared errors of the forecast, of the prior alone, of "the same as last time". */
  readonly own: number
  readonly prior: number
  readonly last: number
  /** Spiegelhalter's sums, above and below the line. */
  readonly up: number
  readonly down: number
}

/** @param expected mean grade per unit load that is expected of such skin */
export function forecastSums(
  figures: Figures,
  client: ForecastHistory,
  expected: number,
): ForecastSums {
  const grade = figures(K.grade)
  const bins = EDGES.map((): [number, number, number] => [0, 0, 0])
  let [visits, forecasts] = [0, 0]
  let [own, prior, last] = [0, 0, 0]
  let [up, down] = [0, 0]
  const pooling = skinPooling(figures, expected)
  const before = priorSensitivity(figures, client.reactivity, pooling.mean)
  const sums = new Map<string, { count: number; exposure: number }>()
  const latest = new Map<string, number>()
  for (const [k, visit] of client.visits.entries()) {
    // The first visit has nothing before it: there the forecast is the prior, and says nothing of learning.
    if (k > 0) {
      visits++
      const belief = poolZones(
        visit.map((o) => o.zoneId),
        sums,
        pooling,
      )
      for (const o of visit) {
        const p = rednessOdds(belief[o.zoneId]!, o.load, grade)
        const came = o.grade >= grade ? 1 : 0
        const bin = bins[EDGES.findIndex((edge) => p <= edge)]!
        bin[0]++
        bin[1] += came
        bin[2] += p
        forecasts++
        own += (came - p) ** 2
        prior += (came - rednessOdds(before, o.load, grade)) ** 2
        last += (came - ((latest.get(o.zoneId) ?? 0) >= grade ? 1 : 0)) ** 2
        up += (came - p) * (1 - 2 * p)
        down += (1 - 2 * p) ** 2 * p * (1 - p)
      }
    }
    for (const o of visit) {
      const s = sums.get(o.zoneId) ?? { count: 0, exposure: 0 }
      sums.set(o.zoneId, { count: s.count + o.grade, exposure: s.exposure + o.load })
      latest.set(o.zoneId, o.grade)
    }
  }
  return { visits, forecasts, bins, own, prior, last, up, down }
}

/** @param mean what is expected of each kind of skin */
export const checkForecast = (
  figures: Figures,
  clients: readonly ForecastHistory[],
  mean: (reactivity: Reactivity) => number,
): ForecastCheck =>
  forecastOf(
    figures,
    clients.map((c) => forecastSums(figures, c, mean(c.reactivity))),
  )

/** The check of what was summed, one entry a client. */
export function forecastOf(figures: Figures, clients: readonly ForecastSums[]): ForecastCheck {
  const total = (of: (s: ForecastSums) => number) => sum(clients.map(of))
  const bins = EDGES.map((_, i) => ({
    forecasts: total((s) => s.bins[i]![0]),
    hits: total((s) => s.bins[i]![1]),
    said: total((s) => s.bins[i]![2]),
  }))
  const forecasts = total((s) => s.forecasts)
  const down = total((s) => s.down)
  const z = down > 0 ? total((s) => s.up) / Math.sqrt(down) : 0
  const p = 2 * (1 - normalCdf(Math.abs(z)))
  const each = (x: number) => (forecasts > 0 ? x / forecasts : 0)
  return {
    bins: bins.map((b, i) => ({
      from: i === 0 ? 0 : EDGES[i - 1]!,
      to: EDGES[i]!,
      ...b,
      said: b.forecasts > 0 ? b.said / b.forecasts : 0,
      came: b.forecasts > 0 ? b.hits / b.forecasts : 0,
      range: clopperPearson(b.hits, b.forecasts),
    })),
    clients: clients.length,
    visits: total((s) => s.visits),
    forecasts,
    brier: each(total((s) => s.own)),
    brierPrior: each(total((s) => s.prior)),
    brierLast: each(total((s) => s.last)),
    z,
    p,
    words: calibrationWords(figures, forecasts, p, bins),
  }
}

function calibrationWords(
  figures: Figures,
  forecasts: number,
  p: number,
  bins: readonly { forecasts: number; hits: number; said: number }[],
): string {
  if (forecasts < figures(K.leastForecasts)) {
    return `Too few forecasts to judge: ${forecasts} of ${figures(K.leastForecasts)}. Plans start from what was told.`
  }
  const hits = bins.reduce((s, b) => s + b.hits, 0)
  const said = bins.reduce((s, b) => s + b.said, 0)
  const tally = `of ${forecasts} forecasts ${Math.round(said)} were said to redden and ${hits} did`
  // With many forecasts even a harmless error is sure: it must also be large enough to matter.
  const out = Math.abs(said - hits) / Math.max(1, hits)
  if (p >= figures(K.off)) return `The forecast holds: ${tally}.`
  if (out <= figures(K.offBy))
    return `The forecast holds within ${Math.ceil(100 * out)} %: ${tally}.`
  return `The forecast is off: ${tally}. It says too ${hits > said ? 'little' : 'much'}; look at the figures of learning the skin in House, and trust the odds less until it holds.`
}
