/** The exponentially weighted moving average (Roberts 1959; NIST/SEMATECH e-Handbook 6.3.2.4). */

/**
 * @param values in the order in which they came
 * @param target what is expected while nothing changes; the average starts there
 * @param lambda weight of the newest, 0 < λ ≤ 1
 * @throws RangeError when λ is out of range
 */
export function ewma(values: readonly number[], target: number, lambda: number): number[] {
  if (!(lambda > 0 && lambda <= 1)) throw new RangeError('An EWMA chart needs 0 < λ ≤ 1.')
  let at = target
  return values.map((value) => (at = lambda * value + (1 - lambda) * at))
}
