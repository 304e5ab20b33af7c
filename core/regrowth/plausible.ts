/** Readings of hair that nobody would believe (M10): asked about, and not learned from while they stand. */
import { lengthWords, type Figures, type Units } from '../house/index.ts'
import {
  GROWTH_CONSTANTS as G,
  hairLengthMm,
  measuredSpreadMm,
  rateAt,
  noticedMm,
  type Growth,
  type GrowthReading,
} from './growth.ts'

/** Between what lengths hair may be after so many days, mm: growth as fast or as slow as nobody's. */
function possible(figures: Figures, prior: Growth, leftMm: number, days: number) {
  const z = figures(G.unbelievable)
  const at = (side: number) =>
    hairLengthMm(figures, prior.curve, leftMm, rateAt(prior, side * z), days)
  return { least: at(-1), most: at(1) }
}

/** Why a reading is not believed, in words with lengths in `unit`; undefined when it may be. */
export function doubt(
  figures: Figures,
  prior: Growth,
  r: GrowthReading,
  unit: Units['length'] = 'mm',
): string | undefined {
  const spread = r.kind === 'measured' ? measuredSpreadMm(figures, r) : figures(G.measuredSdMm)
  const slack = 2.5 * Math.hypot(spread, r.kind === 'measured' ? 0 : figures(G.thresholdSdMm))
  const days = `${r.days.toFixed(r.days < 10 ? 1 : 0)} days`
  const usual = `Hair of this kind grows about ${lengthWords(prior.mean, unit, 2)} a day`
  if (r.kind === 'measured') {
    const length = r.lengthMm ?? 0
    const { least, most } = possible(figures, prior, r.leftMm, r.days)
    if (length > most + slack) {
      return `${lengthWords(length, unit)} after ${days} would be ${lengthWords((length - r.leftMm) / r.days, unit)} a day. ${usual}: is the length in ${unit === 'mm' ? 'mm' : 'inches'}, and is the day right?`
    }
    if (length < least - slack) {
      return `${lengthWords(length, unit)} after ${days} is shorter than hair stays. ${usual}: was it shaved in between, or is the day wrong?`
    }
    return undefined
  }
  // Not noticed yet may be for want of looking.
  if (r.kind === 'not-felt' || r.kind === 'not-seen') return undefined
  const length = noticedMm(figures, prior, r.kind)
  const first = possible(figures, prior, r.leftMm, r.days + 0.5)
  const last = possible(
    figures,
    prior,
    r.leftMm,
    Math.max(0, Math.min(r.notYetDays ?? Infinity, r.days - 0.5)),
  )
  if (first.most < length - slack) {
    return `${r.kind === 'felt' ? 'Felt' : 'Seen'} after ${days} is sooner than hair comes back. ${usual}: is the day right, or was hair left standing?`
  }
  if (last.least > length + slack) {
    return `${r.kind === 'felt' ? 'Felt' : 'Seen'} only after ${days} is later than hair comes back. ${usual}: was it shaved in between, or is it when somebody first thought of it?`
  }
  return undefined
}

/** Whether a reading is learned from. */
export const believed = (figures: Figures, prior: Growth, r: GrowthReading): boolean =>
  r.days > 0 && doubt(figures, prior, r) === undefined
