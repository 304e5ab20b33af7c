/** How often what is told of growth holds, for people whose truth is known: like what the model expects, and unlike it. */
import jstat from 'jstat'
import { DEFAULTS } from '../../house/index.ts'
import {
  daysToLength,
  daysUntil,
  hairLengthMm,
  learnGrowths,
  logRate,
  priorGrowth,
  rateAt,
  thresholdMm,
  type Growth,
  type PlacedReading,
} from '../../regrowth/index.ts'
import { drawNormal, mulberry32, normalCdf, Z_90 } from '../../stats/index.ts'
import type { ZoneId } from '../../zones/index.ts'

/** Truths of people: what their rates, thresholds and answers are drawn from. */
export interface GrowthTruth {
  /** Share of the spread of rates that a person's zones have in common. */
  readonly common: number
  /** Log-normal as expected, or a gamma of the same mean and spread. */
  readonly shape: 'log-normal' | 'gamma'
  /** Rates over what is expected. */
  readonly faster: number
  /** Spread of people's thresholds, and of the length at which one notices, mm. */
  readonly thresholdSd: number
  readonly noise: number
  /** Spread of the logarithm of the noise between people. */
  readonly care: number
}

export const GROWTH_TRUTHS: Readonly<Record<string, GrowthTruth>> = {
  'as expected': {
    common: 0.5,
    shape: 'log-normal',
    faster: 1,
    thresholdSd: 0.1,
    noise: 0.15,
    care: 0.5,
  },
  'zones alike': {
    common: 0.85,
    shape: 'log-normal',
    faster: 1,
    thresholdSd: 0.1,
    noise: 0.15,
    care: 0.3,
  },
  'zones unlike': {
    common: 0.15,
    shape: 'log-normal',
    faster: 1,
    thresholdSd: 0.1,
    noise: 0.15,
    care: 0.5,
  },
  'one threshold for all': {
    common: 0.5,
    shape: 'gamma',
    faster: 1,
    thresholdSd: 0.05,
    noise: 0.15,
    care: 0.3,
  },
  careless: {
    common: 0.6,
    shape: 'log-normal',
    faster: 1,
    thresholdSd: 0.1,
    noise: 0.22,
    care: 0.4,
  },
  'faster than published': {
    common: 0.5,
    shape: 'log-normal',
    faster: 1.1,
    thresholdSd: 0.1,
    noise: 0.15,
    care: 0.5,
  },
}

export interface GrowthHeld {
  /** Share of true rates in the range of 80 %. */
  readonly rate: number
  /** Share of the next day on which hair is felt that lies in the range told for it. */
  readonly felt: number
  readonly seen: number
}

const BEARD: readonly ZoneId[] = [
  'chin',
  'jaw-left',
  'jaw-right',
  'neck-lower-left',
  'upper-lip-left',
]
const FUZZ: readonly ZoneId[] = [
  'forehead-left',
  'forehead-right',
  'cheek-upper-left',
  'cheek-upper-right',
]

export function growthHeld(
  seed: number,
  people: number,
  visits: number,
  hair: 'beard' | 'vellus',
  truth: GrowthTruth,
): GrowthHeld {
  const random = mulberry32(seed)
  const zones = hair === 'beard' ? BEARD : FUZZ
  const prior = Object.fromEntries(zones.map((z) => [z, priorGrowth(DEFAULTS, z, hair)]))
  const held = { rate: 0, felt: 0, seen: 0 }
  let asked = 0
  for (let i = 0; i < people; i++) {
    const person = drawPerson(random, prior, truth)
    const readings: PlacedReading[] = []
    for (let v = 0; v < visits; v++) {
      const zoneId = zones[Math.floor(random() * zones.length)]!
      const leftMm = 0.1 + 0.06 * random()
      readings.push(...person.tell(zoneId, leftMm))
    }
    const found = learnGrowths(DEFAULTS, prior, readings)
    for (const zoneId of zones) {
      asked++
      const g = found[zoneId]!
      const rate = person.rates[zoneId]!
      if (rate >= rateAt(g, -Z_90) && rate <= rateAt(g, Z_90)) held.rate++
      for (const kind of ['felt', 'seen'] as const) {
        const { early, late } = daysUntil(DEFAULTS, g, kind, 0.12)
        const day = person.day(zoneId, kind, 0.12)
        if (day >= early && day <= late) held[kind]++
      }
    }
  }
  return { rate: held.rate / asked, felt: held.felt / asked, seen: held.seen / asked }
}

function drawPerson(
  random: () => number,
  prior: Readonly<Record<string, Growth>>,
  truth: GrowthTruth,
) {
  const own = drawNormal(random)
  const rates = Object.fromEntries(
    Object.entries(prior).map(([zone, g]) => {
      const { mu, s } = logRate(g)
      const z = Math.sqrt(truth.common) * own + Math.sqrt(1 - truth.common) * drawNormal(random)
      const shape = (g.mean / g.sd) ** 2
      const rate =
        truth.shape === 'gamma'
          ? jstat.gamma.inv(normalCdf(z), shape, g.mean / shape)
          : Math.exp(mu + s * z)
      return [zone, truth.faster * rate]
    }),
  )
  const thresholds = {
    felt: truth.thresholdSd * drawNormal(random),
    seen: truth.thresholdSd * drawNormal(random),
  }
  const noise = truth.noise * Math.exp(truth.care * drawNormal(random))
  /** The day on which hair of a zone is noticed. */
  const day = (zone: string, kind: 'felt' | 'seen', leftMm: number): number => {
    const { curve } = prior[zone]!
    const base = thresholdMm(DEFAULTS, curve, kind) + thresholds[kind]
    for (;;) {
      const length = base + noise * drawNormal(random)
      if (length > leftMm && (curve === 'terminal' || length < 1.95))
        return daysToLength(DEFAULTS, curve, leftMm, rates[zone]!, length)
    }
  }
  const tell = (zoneId: string, leftMm: number): PlacedReading[] => {
    const { curve } = prior[zoneId]!
    const phase = random()
    const told = (['felt', 'seen'] as const).map((kind): PlacedReading => {
      // Dates are days: the service ended at some hour of one.
      const date = Math.floor(day(zoneId, kind, leftMm) + phase)
      const days = Math.max(0.02, date + 0.5 - phase)
      return { kind, zoneId, days, leftMm }
    })
    if (random() < 0.7) return told
    const at = (curve === 'fuzz' ? 20 : 3) * (0.7 + 0.6 * random())
    const length =
      hairLengthMm(DEFAULTS, curve, leftMm, rates[zoneId]!, at) + 0.15 * drawNormal(random)
    return [
      ...told,
      { kind: 'measured', zoneId, days: at, leftMm, lengthMm: Math.max(0.05, length) },
    ]
  }
  return { rates, day, tell }
}
