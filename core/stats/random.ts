/**
 * A small seeded generator, so that whatever is drawn by chance is drawn the same way every time.
 * mulberry32, Tommy Ettinger, public domain (from memory).
 */

/** Returns a function that gives numbers in [0, 1). */
export function mulberry32(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Standard normal draw by Box–Muller. */
export function drawNormal(random: () => number): number {
  const u = 1 - random()
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random())
}

/** Poisson draw by multiplication (Knuth), fit for small means. */
export function drawPoisson(random: () => number, mean: number): number {
  const limit = Math.exp(-mean)
  let k = 0
  let p = random()
  while (p > limit) {
    k++
    p *= random()
  }
  return k
}

/** Gamma draw with rate 1 (Marsaglia & Tsang 2000, from memory). */
export function drawGamma(random: () => number, shape: number): number {
  if (shape < 1) return drawGamma(random, shape + 1) * (1 - random()) ** (1 / shape)
  const d = shape - 1 / 3
  const c = 1 / Math.sqrt(9 * d)
  for (;;) {
    const x = drawNormal(random)
    const v = (1 + c * x) ** 3
    if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v
  }
}
