/**
 * What a client's visits come to, summed (M7). Skin changes: by and by, so a visit fades with those that come after it; and now
 * and then all at once, so each visit counts as far as it is likely that nothing changed since (Bayesian online changepoint
 * detection: Adams & MacKay 2007, from memory). A bad day reddens all zones alike: how much days differ is learned too, and what
 * a visit tells of the client's level is worth less for it.
 */
import type { Figures } from '../house/index.ts'
import { risingLog } from '../stats/index.ts'
import { VISIT_CONSTANTS as V } from './visitConstants.ts'

/** Counts and exposure summed, by zone. */
export type ZoneSums = ReadonlyMap<string, { readonly count: number; readonly exposure: number }>

/** What was seen of a client. */
export interface SkinSums {
  readonly zones: ZoneSums
  /** What the counts are worth for the client's level, 0 to 1: less, the more days differ and the more is counted on each. */
  readonly share: number
  /** How much days differ (spread of the logarithm). */
  readonly visitSpread: number
}

/** A zone's outcome on a visit. */
export interface ZoneOutcome {
  readonly zoneId: string
  readonly load: number
  readonly grade: number
}

/** A stretch of visits over which nothing changed, that may be the one that goes on. */
interface Stretch {
  /** Its first visit. */
  readonly from: number
  odds: number
  /** What is believed of the level in it: a Gamma. */
  shape: number
  rate: number
}

/** A level of which nothing is known, after a change: a Gamma of this shape about what is expected. */
const NEW_SHAPE = 1.5
/** A stretch less likely than this is no longer followed. */
const LEAST_ODDS = 1e-3
/** What the house expects of how much days differ weighs as many visits. */
const KNOWN_VISITS = 5
const LEAST_SPREAD = 0.05
const MOST_SPREAD = 1.2

/** A client's visits as they come, and what they come to. */
export class SkinHistory {
  private readonly figures: Figures
  private readonly mean: number
  private readonly visits: (readonly ZoneOutcome[])[] = []
  private stretches: Stretch[]
  /** By how much visits strayed from what was expected, more than chance; and what was expected, squared and plain. */
  private strayed = 0
  private squares = 0
  private expected = 0

  /** @param mean what is expected of such skin, grade per unit load */
  constructor(figures: Figures, mean: number) {
    this.figures = figures
    this.mean = mean
    this.stretches = [{ from: 0, odds: 1, shape: NEW_SHAPE, rate: NEW_SHAPE / mean }]
  }

  get count(): number {
    return this.visits.length
  }

  add(visit: readonly ZoneOutcome[]): void {
    let [count, load] = [0, 0]
    for (const o of visit) {
      count += o.grade
      load += o.load
    }
    const day = Math.expm1(this.visitSpread ** 2)
    this.visits.push(visit)
    if (load <= 0) return
    let [expected, total] = [0, 0]
    for (const s of this.stretches) {
      const mean = (s.shape / s.rate) * load
      expected += s.odds * mean
      // The level is a Gamma, the day another: their product is taken for one with the same mean and spread.
      const shape = 1 / ((1 + 1 / s.shape) * (1 + day) - 1)
      const log =
        risingLog(shape, count) -
        count * Math.log1p(shape / mean) -
        shape * Math.log1p(mean / shape)
      s.odds *= Math.exp(log - (count > 0 ? risingLog(1, count) : 0))
      const share = 1 / (1 + day * mean)
      s.shape += share * count
      s.rate += share * load
      total += s.odds
    }
    this.strayed += (count - expected) ** 2 - expected
    this.squares += expected * expected
    this.expected += expected
    const changes = 1 / this.figures(V.changeVisits)
    for (const s of this.stretches) s.odds *= (1 - changes) / total
    this.stretches = this.stretches.filter((s) => s.odds > LEAST_ODDS)
    this.stretches.push({
      ...{ from: this.visits.length, odds: changes },
      ...{ shape: NEW_SHAPE, rate: NEW_SHAPE / this.mean },
    })
    const all = this.stretches.reduce((s, x) => s + x.odds, 0)
    for (const s of this.stretches) s.odds /= all
  }

  /** How much days differ (spread of the logarithm): as if a few visits had strayed as the house expects. */
  get visitSpread(): number {
    const usual = this.figures(V.visitSpread)
    const n = this.visits.length
    if (n === 0 || this.squares === 0) return usual
    const before = (KNOWN_VISITS * this.squares) / n
    const variance = (this.strayed + before * Math.expm1(usual ** 2)) / (this.squares + before)
    return Math.max(
      LEAST_SPREAD,
      Math.min(MOST_SPREAD, Math.sqrt(Math.log1p(Math.max(0, variance)))),
    )
  }

  /** What each visit counts, 0 to 1: as far as nothing changed since, and less with age. */
  weights(): number[] {
    const kept = 0.5 ** (1 / this.figures(V.halfLife))
    // That nothing has changed yet since the newest visit is told of it alone; a change still to come is not asked.
    const open = this.stretches.filter((s) => s.from < this.visits.length)
    const all = open.reduce((s, x) => s + x.odds, 0)
    let since = 0
    return this.visits.map((_, v) => {
      for (const s of open) if (s.from === v) since += s.odds / all
      return since * kept ** (this.visits.length - 1 - v)
    })
  }

  sums(): SkinSums {
    const weights = this.weights()
    const zones = new Map<string, { count: number; exposure: number }>()
    this.visits.forEach((visit, v) => {
      const w = weights[v]!
      for (const o of visit) {
        const s = zones.get(o.zoneId)
        if (s) {
          s.count += w * o.grade
          s.exposure += w * o.load
        } else zones.set(o.zoneId, { count: w * o.grade, exposure: w * o.load })
      }
    })
    const { visitSpread } = this
    const each = this.visits.length > 0 ? this.expected / this.visits.length : 0
    return { zones, visitSpread, share: 1 / (1 + Math.expm1(visitSpread ** 2) * each) }
  }
}

/**
 * Sums visits.
 * @param visits oldest first
 * @param mean what is expected of such skin, grade per unit load
 */
export function sumVisits(
  figures: Figures,
  visits: readonly (readonly ZoneOutcome[])[],
  mean: number,
): SkinSums {
  const history = new SkinHistory(figures, mean)
  for (const visit of visits) history.add(visit)
  return history.sums()
}

/** What nobody has told of yet. */
export const nothingSeen = (figures: Figures): SkinSums => ({
  zones: new Map(),
  share: 1,
  visitSpread: figures(V.visitSpread),
})
