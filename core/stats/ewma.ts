/** Trend watch (M11): the exponentially weighted moving average chart (Roberts 1959; NIST/SEMATECH e-Handbook 6.3.2.4). */

export interface EwmaPoint {
  readonly value: number
  readonly low: number
  readonly high: number
  /** Outside the limits. */
  readonly out: boolean
}

/**
 * @param values in the order in which they came
 * @param target what is expected while nothing changes; the average starts there
 * @param sigma standard deviation of one value, > 0
 * @param lambda weight of the newest, 0 < λ ≤ 1
 * @param widths how many standard deviations the limits stand off
 * @param settled true for the limits the chart settles to (as in the handbook), false for those of each point, which
 *   are narrower at first
 * @throws RangeError when λ or σ is out of range
 */
export function ewma(
  values: readonly number[],
  target: number,
  sigma: number,
  lambda: number,
  widths = 3,
  settled = true,
): EwmaPoint[] {
  if (!(lambda > 0 && lambda <= 1) || !(sigma > 0)) {
    throw new RangeError('An EWMA chart needs 0 < λ ≤ 1 and σ > 0.')
  }
  let at = target
  return values.map((value, i) => {
    at = lambda * value + (1 - lambda) * at
    const spread = (lambda / (2 - lambda)) * (settled ? 1 : 1 - (1 - lambda) ** (2 * (i + 1)))
    const half = widths * sigma * Math.sqrt(spread)
    return { value: at, low: target - half, high: target + half, out: Math.abs(at - target) > half }
  })
}
