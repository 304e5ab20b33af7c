/** Sums and the like over short lists. */

export const sum = (list: Iterable<number>): number => [...list].reduce((s, v) => s + v, 0)

/** The value that most have; the first of those equal. */
export function mostHave<T>(list: readonly T[]): T | undefined {
  const counts = new Map<T, number>()
  for (const v of list) counts.set(v, (counts.get(v) ?? 0) + 1)
  return [...counts.entries()].sort((a, b) => b[1] - a[1])[0]?.[0]
}

/** The low median: of an even number of values the lower of the two in the middle. Undefined for none. */
export function median(list: readonly number[]): number | undefined {
  const sorted = [...list].sort((a, b) => a - b)
  return sorted[Math.floor((sorted.length - 1) / 2)]
}
