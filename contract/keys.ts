/** Names that every object has by the language itself: a schema that meets one as a field looks up the wrong thing. */
const HOSTILE = new Set([...Object.getOwnPropertyNames(Object.prototype), 'prototype'])

/** The first key anywhere in a value that the language itself uses; undefined when there is none. */
export function hostileKey(value: unknown): string | undefined {
  if (typeof value !== 'object' || value === null) return undefined
  for (const [key, inner] of Object.entries(value)) {
    if (HOSTILE.has(key)) return key
    const found = hostileKey(inner)
    if (found !== undefined) return found
  }
  return undefined
}
