/**
 * Two entries that were made on the same ground without knowing of each other, put together field by field: what only one of
 * them changed is taken from that one; what both changed differently is told. (Three-way merge, as version control has it.)
 */

/** A field that both changed, each in its own way. Undefined stands for "not there". */
export interface Differing {
  /** Names of fields, and ids of what lists hold. */
  readonly path: readonly string[]
  readonly mine: unknown
  readonly theirs: unknown
}

export interface Joined<T> {
  readonly value: T
  readonly differ: readonly Differing[]
}

export interface Manner {
  /** Fields that belong together whole, though they hold others: a signature. */
  readonly whole?: readonly string[]
  /** Fields of whose difference nobody is asked: the one that holds is taken. */
  readonly quiet?: readonly string[]
  /** Which holds until somebody has settled it: true for mine. Theirs when left out. */
  readonly holds?: (mine: unknown, theirs: unknown, path: readonly string[]) => boolean
}

type Fields = Readonly<Record<string, unknown>>

const isFields = (v: unknown): v is Fields =>
  typeof v === 'object' && v !== null && !Array.isArray(v)
const idOf = (v: unknown): string | undefined => {
  if (!isFields(v)) return undefined
  const id = v['id'] ?? v['zoneId']
  return typeof id === 'string' ? id : undefined
}
/** A list of things that each have an id, by their ids; undefined for any other. */
function byId(v: unknown): Fields | undefined {
  if (!Array.isArray(v)) return undefined
  const entries = v.map((item): [string | undefined, unknown] => [idOf(item), item])
  if (entries.some(([id]) => id === undefined)) return undefined
  return Object.fromEntries(entries as [string, unknown][])
}

const same = (a: unknown, b: unknown): boolean => {
  if (Object.is(a, b)) return true
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((v, i) => same(v, b[i]))
  if (!isFields(a) || !isFields(b)) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => same(a[key], b[key]))
}

/**
 * @param was what both began from
 * @param mine what arrives now
 * @param theirs what stands here meanwhile
 */
export function joinThree<T>(
  was: unknown,
  mine: T,
  theirs: unknown,
  manner: Manner = {},
): Joined<T> {
  const differ: Differing[] = []
  const value = join(was, mine, theirs, [], manner, differ)
  return { value: value as T, differ }
}

function join(
  was: unknown,
  mine: unknown,
  theirs: unknown,
  path: readonly string[],
  manner: Manner,
  differ: Differing[],
): unknown {
  if (same(mine, was)) return theirs
  if (same(theirs, was) || same(mine, theirs)) return mine
  const name = path.at(-1) ?? ''
  const whole = manner.whole?.includes(name)
  if (!whole && isFields(mine) && isFields(theirs))
    return joinFields(isFields(was) ? was : {}, mine, theirs, path, manner, differ)
  const [a, b] = whole ? [] : [byId(mine), byId(theirs)]
  // An empty list is one of things that have ids, as the other is.
  if (a && b) return Object.values(joinFields(byId(was) ?? {}, a, b, path, manner, differ))
  if (!manner.quiet?.includes(name)) differ.push({ path, mine, theirs })
  return manner.holds?.(mine, theirs, path) ? mine : theirs
}

function joinFields(
  was: Fields,
  mine: Fields,
  theirs: Fields,
  path: readonly string[],
  manner: Manner,
  differ: Differing[],
): Fields {
  // In their order; what is new of mine at the end.
  const keys = new Set([...Object.keys(theirs), ...Object.keys(mine)])
  const joined = [...keys].map((key): [string, unknown] => [
    key,
    join(was[key], mine[key], theirs[key], [...path, key], manner, differ),
  ])
  return Object.fromEntries(joined.filter(([, v]) => v !== undefined))
}

/** The value with one field of it another; undefined takes the field out. */
export function withField<T>(value: T, path: readonly string[], field: unknown): T {
  const [first, ...rest] = path
  if (first === undefined) return field as T
  const list = byId(value)
  const fields: Fields = list ?? (isFields(value) ? value : {})
  const next = withField(fields[first], rest, field)
  const kept = Object.entries(fields).filter(([key]) => key !== first)
  const had = Object.hasOwn(fields, first)
  const all = had
    ? Object.entries(fields).map(([key, v]): [string, unknown] => [key, key === first ? next : v])
    : [...kept, [first, next] as [string, unknown]]
  const there = all.filter(([, v]) => v !== undefined)
  return (Array.isArray(value) ? there.map(([, v]) => v) : Object.fromEntries(there)) as T
}
