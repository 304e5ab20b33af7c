/** What no request of ours ever holds, whatever route it is for: looked for before any schema reads it. */

/** Names that every object has by the language itself: a schema that meets one as a field looks up the wrong thing. */
const HOSTILE = new Set([...Object.getOwnPropertyNames(Object.prototype), 'prototype'])

/** Deeper than anything that is sent; schemas call themselves for each level. */
const DEEPEST = 24

/**
 * Why a value is not even looked at; undefined when it may be. Walks without calling itself, so that depth costs no stack.
 */
export function hostile(value: unknown): { path: string; message: string } | undefined {
  const left: { value: unknown; path: string; depth: number }[] = [{ value, path: '', depth: 0 }]
  for (let next = left.pop(); next; next = left.pop()) {
    const { value: it, path, depth } = next
    if (typeof it === 'string' && it.includes('\0')) {
      return { path, message: 'holds a sign that is none (NUL)' }
    }
    if (typeof it !== 'object' || it === null) continue
    if (depth === DEEPEST) return { path: '', message: 'is nested deeper than anything here' }
    for (const key of Object.keys(it)) {
      if (HOSTILE.has(key)) return { path: key, message: 'is a key that is never used here' }
      const inner = (it as Record<string, unknown>)[key]
      left.push({ value: inner, path: path ? `${path}.${key}` : key, depth: depth + 1 })
    }
  }
  return undefined
}
