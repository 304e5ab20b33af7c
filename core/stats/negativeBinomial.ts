/** Counts whose Poisson mean is itself Gamma distributed: the forecast of M7. */

/**
 * P(Y = 0), P(Y = 1), … P(Y = upTo) for Y ~ Poisson(k · exposure), k ~ Gamma(shape, rate).
 * @param shape Gamma shape, > 0
 * @param rate Gamma rate, > 0
 * @param exposure how much the count is exposed, ≥ 0
 */
export function gammaPoissonPmf(
  shape: number,
  rate: number,
  exposure: number,
  upTo: number,
): number[] {
  const p = rate / (rate + exposure)
  const out = [p ** shape]
  for (let y = 1; y <= upTo; y++) {
    out.push((out[y - 1]! * (shape + y - 1) * (1 - p)) / y)
  }
  return out
}

/** P(Y ≥ least) for the same forecast. */
export function gammaPoissonAtLeast(
  shape: number,
  rate: number,
  exposure: number,
  least: number,
): number {
  const below = gammaPoissonPmf(shape, rate, exposure, Math.max(0, least - 1))
  return Math.max(0, 1 - below.slice(0, least).reduce((s, q) => s + q, 0))
}
