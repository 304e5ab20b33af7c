/** Functions of the Gamma distribution. */

/** ψ(x), the derivative of log Γ, x > 0: by recurrence to where its asymptotic series holds (Abramowitz & Stegun 1964, 6.3, from memory). */
export function digamma(x: number): number {
  let sum = 0
  let at = x
  while (at < 8) sum -= 1 / at++
  const i = 1 / (at * at)
  return sum + Math.log(at) - 0.5 / at - i * (1 / 12 - i * (1 / 120 - i * (1 / 252 - i / 240)))
}

/** ψ′(x), x > 0, the same way (6.4). */
export function trigamma(x: number): number {
  let sum = 0
  let at = x
  while (at < 8) sum += 1 / (at++) ** 2
  const i = 1 / (at * at)
  return sum + 1 / at + i / 2 + (i / at) * (1 / 6 - i * (1 / 30 - i * (1 / 42 - i / 30)))
}

/**
 * The shape of the Gamma whose mean logarithm lies so far below the logarithm of its mean: solves log a − ψ(a) = gap by Newton's
 * method (Minka 2002, from memory).
 * @param gap > 0
 */
export function gammaShape(gap: number): number {
  const s = Math.max(1e-9, gap)
  let a = (3 - s + Math.sqrt((s - 3) ** 2 + 24 * s)) / (12 * s)
  for (let i = 0; i < 4; i++) {
    a -= (Math.log(a) - digamma(a) - s) / (1 / a - trigamma(a))
  }
  return a
}

/** log Γ(z + y) − log Γ(z), z > 0, y ≥ 0: counts need not be whole. */
export function risingLog(z: number, y: number): number {
  let sum = 0
  let at = z
  let left = y
  for (; left >= 1; left--) sum += Math.log(at++)
  return left > 0 ? sum + logGamma(at + left) - logGamma(at) : sum
}

/** log Γ(x), x > 0 (Stirling's series after recurrence; Abramowitz & Stegun 1964, 6.1.41, from memory). */
export function logGamma(x: number): number {
  let shift = 0
  let at = x
  while (at < 8) shift += Math.log(at++)
  const i = 1 / (at * at)
  const tail = (1 / 12 - i * (1 / 360 - i * (1 / 1260 - i / 1680))) / at
  return (at - 0.5) * Math.log(at) - at + 0.5 * Math.log(2 * Math.PI) + tail - shift
}
