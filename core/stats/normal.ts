/** The standard normal distribution. */

/** Φ(x) by the complementary error function (Numerical Recipes' Chebyshev fit, error below 1.2e-7; from memory). */
export function normalCdf(x: number): number {
  const z = Math.abs(x) / Math.SQRT2
  const t = 1 / (1 + 0.5 * z)
  const tail =
    t *
    Math.exp(
      -z * z -
        1.26551223 +
        t *
          (1.00002368 +
            t *
              (0.37409196 +
                t *
                  (0.09678418 +
                    t *
                      (-0.18628806 +
                        t *
                          (0.27886807 +
                            t *
                              (-1.13520398 +
                                t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))))))),
    )
  return x > 0 ? 1 - tail / 2 : tail / 2
}

/** z at which the upper tenth begins: half of an 80 % range. */
export const Z_90 = 1.2815515655446004

/** Beyond so many standard deviations a density is taken as this far out, so that logarithms stay finite. */
const FARTHEST = 30

const density = (x: number) => Math.exp(-0.5 * x * x) / Math.sqrt(2 * Math.PI)

/**
 * What lies between two points of the standard normal, exact in both tails.
 * @param low may be −Infinity
 * @param high may be Infinity; above `low`
 * @returns log(Φ(high) − Φ(low)), and the densities at both ends over that difference
 */
export function logNormalBetween(
  low: number,
  high: number,
): { readonly log: number; readonly a: number; readonly b: number } {
  // In the upper tail differences cancel: mirrored they do not.
  if (low > 0) {
    const m = logNormalBetween(-high, -low)
    return { log: m.log, a: m.b, b: m.a }
  }
  const [from, to] = [
    Math.max(-FARTHEST, low),
    Math.max(-FARTHEST + 1e-3, Math.min(FARTHEST, high)),
  ]
  const below = low === -Infinity ? 0 : normalCdf(from)
  const p = Math.max(1e-250, (high === Infinity ? 1 : normalCdf(to)) - below)
  return {
    log: Math.log(p),
    a: low === -Infinity ? 0 : density(from) / p,
    b: high === Infinity ? 0 : density(to) / p,
  }
}
