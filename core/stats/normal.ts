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
