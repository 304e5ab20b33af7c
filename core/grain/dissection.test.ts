/** Order of elimination: what parts the halves comes last, and little is filled in (George 1973, from memory). */
import { nestedDissection } from './dissection.ts'

/** A graph by rows, from its edges. */
function graph(n: number, edges: readonly (readonly [number, number])[]) {
  const rows = Array.from({ length: n }, () => new Set<number>())
  for (const [a, b] of edges) {
    rows[a]!.add(b)
    rows[b]!.add(a)
  }
  const start = new Int32Array(n + 1)
  rows.forEach((r, i) => (start[i + 1] = start[i]! + r.size))
  return { rows, start, neighbours: Int32Array.from(rows.flatMap((r) => [...r])) }
}

/** A grid in the plane of two axes. */
function grid(wide: number, high: number, place = (x: number, y: number) => [x, y, 0]) {
  const at = (x: number, y: number) => y * wide + x
  const positions: number[] = []
  const edges: [number, number][] = []
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      positions.push(...place(x, y))
      if (x > 0) edges.push([at(x, y), at(x - 1, y)])
      if (y > 0) edges.push([at(x, y), at(x, y - 1)])
    }
  return { n: wide * high, positions, edges }
}

/** Entries of the factor below its diagonal, by eliminating one unknown after another. */
function filled(rows: readonly ReadonlySet<number>[], order: ArrayLike<number>): number {
  const left = rows.map((r) => new Set(r))
  let count = 0
  for (const v of Array.from(order)) {
    const touched = [...left[v]!]
    count += touched.length
    for (const a of touched) {
      left[a]!.delete(v)
      for (const b of touched) if (a !== b) left[a]!.add(b)
    }
  }
  return count
}

const everyOne = (order: Int32Array, n: number) =>
  expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: n }, (_, i) => i))

describe('nested dissection', () => {
  it('takes few as they come', () => {
    const { n, positions, edges } = grid(6, 4)
    const { start, neighbours } = graph(n, edges)
    expect([...nestedDissection(positions, start, neighbours)]).toEqual(
      Array.from({ length: n }, (_, i) => i),
    )
  })

  it.each([
    ['x', (a: number, b: number) => [a, b, 0]],
    ['y', (a: number, b: number) => [0, a, b]],
    ['z', (a: number, b: number) => [b, 0, a]],
  ] as const)('parts a grid that is long along %s across its length, its line last', (_, place) => {
    const [wide, high] = [20, 5]
    const { n, positions, edges } = grid(wide, high, (x, y) => [...place(x, y)])
    const { rows, start, neighbours } = graph(n, edges)
    const order = nestedDissection(positions, start, neighbours)
    everyOne(order, n)
    // The line of five at the middle comes last; before it the two sides, which do not touch.
    expect([...order.slice(-high)].map((v) => v % wide)).toEqual([9, 9, 9, 9, 9])
    for (const v of order.slice(0, 9 * high)) {
      expect(v % wide).toBeLessThan(9)
      for (const u of rows[v]!) expect(u % wide).toBeLessThan(10)
    }
  })

  it.each([false, true])(
    'lets the side give up its shore that has the thinner one, mirrored: %s',
    (mirrored) => {
      // A hub that is of the one side touches all of the nearest column of the other.
      const { n, positions, edges } = grid(5, 6)
      const [hub, end] = [2 * n, 2 * n + 1]
      const more = grid(5, 6, (x, y) => [-10 - x, y, 0])
      const all: [number, number][] = [
        ...edges,
        ...more.edges.map(([a, b]): [number, number] => [a + n, b + n]),
        ...[0, 1, 2, 3, 4, 5].map((y): [number, number] => [hub, 5 * y]),
        [hub, n],
        [end, 4],
      ]
      const places = [...positions, ...more.positions, -5, 2.5, 0, 9, 0, 0].map((p, i) =>
        mirrored && i % 3 === 0 ? -p : p,
      )
      const { start, neighbours } = graph(2 * n + 2, all)
      const order = nestedDissection(places, start, neighbours)
      everyOne(order, 2 * n + 2)
      expect(order[2 * n + 1]).toBe(hub)
    },
  )

  it('fills in no more of a square grid than (31/4) n² log₂ n, and far less than row by row', () => {
    const side = 32
    const { n, positions, edges } = grid(side, side)
    const { rows, start, neighbours } = graph(n, edges)
    const ours = filled(rows, nestedDissection(positions, start, neighbours))
    const byRow = filled(
      rows,
      Array.from({ length: n }, (_, i) => i),
    )
    expect(ours).toBeLessThan((31 / 4) * side * side * Math.log2(side))
    expect(ours).toBeLessThan(0.55 * byRow)
  })

  it('goes on where nothing ties the halves', () => {
    const { n, positions, edges } = grid(8, 8)
    const apart = edges.filter(([a, b]) => a % 8 < 4 === b % 8 < 4)
    const { start, neighbours } = graph(n, apart)
    everyOne(nestedDissection(positions, start, neighbours), n)
  })
})
