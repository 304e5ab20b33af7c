/**
 * Is the forecast right? Answered visits are forecast from those before them and compared with what came: by bins, by client, by
 * how many visits there were, by Brier's score (1950) beside simpler forecasts, of which the client's own average is the honest
 * one, and by Spiegelhalter's test of calibration (1986), clients taken together; all from memory.
 */
import { constant, type Figures } from '../house/index.ts'
import { clopperPearson, type Interval, normalCdf, sum } from '../stats/index.ts'
import {
  poolZones,
  SkinHistory,
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

/** Forecasts that had so many of the client's visits behind them. */
export interface ByVisits {
  readonly from: number
  /** Null for the last, which has no end. */
  readonly to: number | null
  readonly forecasts: number
  readonly said: number
  readonly came: number
  readonly range: Interval
}

export interface ForecastCheck {
  readonly bins: readonly CalibrationBin[]
  readonly byVisits: readonly ByVisits[]
  readonly clients: number
  readonly visits: number
  readonly forecasts: number
  /** Mean squared error of the forecast, of the prior alone, of "the same as last time", of the client's own average. */
  readonly brier: number
  readonly brierPrior: number
  readonly brierLast: number
  readonly brierAverage: number
  /** By how much the forecast's error is less than that of the client's own average, as a share of it, with its 95 % range. */
  readonly skill: number
  readonly skillRange: Interval
  /** Clients with visits enough to be judged alone, and those for whom said and came differ beyond chance at 5 %. */
  readonly judged: number
  readonly strayed: number
  /** Spiegelhalter's z over clients: near 0 when calibrated; above when more came than was said. */
  readonly z: number
  readonly p: number
  readonly words: string
}

/** Numbers of a bin: forecasts, those that came, and the sum of what was said. */
type Tally = readonly [forecasts: number, hits: number, said: number]

/** Forecasts of a client's visits against what came, summed. */
export interface ForecastSums {
  readonly visits: number
  readonly forecasts: number
  /** By bin of EDGES, and by group of VISITS. */
  readonly bins: readonly Tally[]
  readonly groups: readonly Tally[]
  /** Squared errors of the forecast, of the prior alone, of "the same as last time", of the client's own average. */
  readonly own: number
  readonly prior: number
  readonly last: number
  readonly average: number
  /** Spiegelhalter's sum. */
  readonly up: number
  /** Sum over visits of what came less what was said, and of its squares. */
  readonly off: number
  readonly offSquares: number
}

/** Visits behind a forecast, by group: first of each. */
const VISITS = [1, 4, 12] as const
/** Of a long history the first and the last visits are forecast: they tell of few and of many. */
const EARLY = 8
const LATE = 12

/** @param expected mean grade per unit load that is expected of such skin, learned without this client */
export function forecastSums(
  figures: Figures,
  client: ForecastHistory,
  expected: number,
): ForecastSums {
  const grade = figures(K.grade)
  const tally = (list: readonly unknown[]) => list.map((): [number, number, number] => [0, 0, 0])
  const bins = tally(EDGES)
  const groups = tally(VISITS)
  let [visits, forecasts] = [0, 0]
  let [own, prior, last, average] = [0, 0, 0, 0]
  let [up, off, offSquares] = [0, 0, 0]
  let [hitsBefore, zonesBefore] = [0, 0]
  const pooling = skinPooling(figures, expected)
  const before = priorSensitivity(figures, client.reactivity, pooling.mean)
  const history = new SkinHistory(figures, pooling.mean)
  const latest = new Map<string, number>()
  const add = (to: [number, number, number], p: number, came: number) => {
    to[0]++
    to[1] += came
    to[2] += p
  }
  for (const [k, visit] of client.visits.entries()) {
    // The first visit has nothing before it: there the forecast is the prior, and says nothing of learning.
    if (k > 0 && (k <= EARLY || k >= client.visits.length - LATE)) {
      visits++
      const belief = poolZones(
        visit.map((o) => o.zoneId),
        history.sums(),
        pooling,
      )
      const group = groups[VISITS.findLastIndex((least) => k >= least)]!
      // What who only counts this client would say.
      const usual = zonesBefore > 0 ? hitsBefore / zonesBefore : 0
      let strayed = 0
      for (const o of visit) {
        const p = rednessOdds(belief[o.zoneId]!, o.load, grade)
        const came = o.grade >= grade ? 1 : 0
        add(bins[EDGES.findIndex((edge) => p <= edge)]!, p, came)
        add(group, p, came)
        forecasts++
        own += (came - p) ** 2
        prior += (came - rednessOdds(before, o.load, grade)) ** 2
        last += (came - ((latest.get(o.zoneId) ?? 0) >= grade ? 1 : 0)) ** 2
        average += (came - usual) ** 2
        up += (came - p) * (1 - 2 * p)
        strayed += came - p
      }
      off += strayed
      offSquares += strayed * strayed
    }
    history.add(visit)
    for (const o of visit) {
      latest.set(o.zoneId, o.grade)
      zonesBefore++
      if (o.grade >= grade) hitsBefore++
    }
  }
  return {
    ...{ visits, forecasts, bins, groups },
    ...{ own, prior, last, average, up, off, offSquares },
  }
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

/** z of a 95 % range, and how many visits a client needs to be judged alone. */
const Z_95 = 1.959964
const LEAST_JUDGED = 8
/**
 * So many standard errors off, a client's forecasts strayed: visits of one client are forecast from one another and err together,
 * so that this, by simulation, is passed by about 5 of 100 whose forecasts hold.
 */
const STRAYED = 2.7

/**
 * A share with its 95 % range, where hits of one client come together: as if there were as many tries as scatter so between
 * clients (design effect: Kish 1965, from memory).
 */
function clustered(list: readonly Tally[]): {
  said: number
  came: number
  range: Interval
  n: number
} {
  const n = sum(list.map((t) => t[0]))
  if (n === 0) return { said: 0, came: 0, range: { low: 0, high: 1 }, n }
  const hits = sum(list.map((t) => t[1]))
  const came = hits / n
  const square = sum(list.map(([tries, own]) => (own - came * tries) ** 2))
  const worth = square > 0 ? Math.min(n, (came * (1 - came) * n * n) / square) : n
  return {
    n,
    came,
    said: sum(list.map((t) => t[2])) / n,
    range: clopperPearson(came * worth, worth),
  }
}

/** The check of what was summed, one entry a client. */
export function forecastOf(figures: Figures, clients: readonly ForecastSums[]): ForecastCheck {
  const total = (of: (s: ForecastSums) => number) => sum(clients.map(of))
  const forecasts = total((s) => s.forecasts)
  const told = clients.filter((s) => s.forecasts > 0)
  // Zones of a visit and visits of a client go together: clients alone are taken for independent.
  const square = sum(told.map((s) => s.up ** 2))
  const z = square > 0 ? sum(told.map((s) => s.up)) / Math.sqrt(square) : 0
  const p = 2 * (1 - normalCdf(Math.abs(z)))
  const each = (x: number) => (forecasts > 0 ? x / forecasts : 0)
  const judged = told.filter((s) => s.visits >= LEAST_JUDGED && s.offSquares > 0)
  const said = total((s) => sum(s.bins.map((b) => b[2])))
  const hits = total((s) => sum(s.bins.map((b) => b[1])))
  const check = {
    bins: EDGES.map((to, i) => {
      const { n, ...b } = clustered(clients.map((s) => s.bins[i]!))
      const own = sum(clients.map((s) => s.bins[i]![1]))
      return { from: i === 0 ? 0 : EDGES[i - 1]!, to, forecasts: n, hits: own, ...b }
    }),
    byVisits: VISITS.map((from, i) => {
      const { n, ...b } = clustered(clients.map((s) => s.groups[i]!))
      return { from, to: i + 1 < VISITS.length ? VISITS[i + 1]! - 1 : null, forecasts: n, ...b }
    }),
    clients: clients.length,
    visits: total((s) => s.visits),
    forecasts,
    brier: each(total((s) => s.own)),
    brierPrior: each(total((s) => s.prior)),
    brierLast: each(total((s) => s.last)),
    brierAverage: each(total((s) => s.average)),
    ...skillOf(told),
    judged: judged.length,
    strayed: judged.filter((s) => Math.abs(s.off) > STRAYED * Math.sqrt(s.offSquares)).length,
    z,
    p,
  }
  return { ...check, words: calibrationWords(figures, forecasts, p, said, hits) }
}

/** One less the forecast's error over that of the clients' own averages; its range by leaving clients out in turn (jackknife: Quenouille 1956, from memory). */
function skillOf(clients: readonly ForecastSums[]): { skill: number; skillRange: Interval } {
  const own = sum(clients.map((s) => s.own))
  const average = sum(clients.map((s) => s.average))
  if (!(average > 0)) return { skill: 0, skillRange: { low: -1, high: 1 } }
  const skill = 1 - own / average
  const n = clients.length
  const without = clients.map((s) => 1 - (own - s.own) / Math.max(1e-12, average - s.average))
  const mean = sum(without) / n
  const half = Z_95 * Math.sqrt(((n - 1) / n) * sum(without.map((w) => (w - mean) ** 2)))
  return { skill, skillRange: { low: skill - half, high: skill + half } }
}

function calibrationWords(
  figures: Figures,
  forecasts: number,
  p: number,
  said: number,
  hits: number,
): string {
  if (forecasts < figures(K.leastForecasts)) {
    return `Too few forecasts to judge: ${forecasts} of ${figures(K.leastForecasts)}. Plans start from what was told.`
  }
  const tally = `of ${forecasts} forecasts ${Math.round(said)} were said to redden and ${hits} did`
  // With many forecasts even a harmless error is sure: it must also be large enough to matter.
  const out = Math.abs(said - hits) / Math.max(1, hits)
  if (p >= figures(K.off)) return `The forecast holds: ${tally}.`
  if (out <= figures(K.offBy))
    return `The forecast holds within ${Math.ceil(100 * out)} %: ${tally}.`
  return `The forecast is off: ${tally}. It says too ${hits > said ? 'little' : 'much'}; look at the figures of learning the skin in House, and trust the odds less until it holds.`
}
