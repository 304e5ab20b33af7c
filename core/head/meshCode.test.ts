import fc from 'fast-check'
import { codeTriangles, codeValues, readTriangles, readValues } from './meshCode.ts'

/** A sheet of squares, each of two triangles. */
function sheet(wide: number, high: number): number[] {
  const out: number[] = []
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const [a, b] = [y * (wide + 1) + x, (y + 1) * (wide + 1) + x]
      out.push(a, a + 1, b, b, a + 1, b + 1)
    }
  return out
}

/** A triangle by its least corner first: where it begins does not matter. */
const turned = ([a, b, c]: number[]) =>
  a! <= b! && a! <= c! ? [a, b, c] : b! <= c! ? [b, c, a] : [c, a, b]
const triangles = (indices: ArrayLike<number>) =>
  Array.from({ length: indices.length / 3 }, (_, t) =>
    turned([0, 1, 2].map((k) => indices[3 * t + k]!)),
  )

describe('triangles told by shared edges', () => {
  it('come back in their order, with the way round that they had', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        fc.infiniteStream(fc.nat()),
        (w, h, random) => {
          const list = triangles(sheet(w, h))
          // In any order: a neighbour may be long gone.
          const mixed = list
            .map((t) => [random.next().value as number, t] as const)
            .sort((a, b) => a[0] - b[0])
            .flatMap(([, t]) => t as number[])
          const { order, ...code } = codeTriangles(mixed, (w + 1) * (h + 1))
          const { indices } = readTriangles(code)
          expect(triangles(indices)).toEqual(triangles(mixed.map((v) => order[v]!)))
          expect(new Set(order).size).toBe(order.length)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('of one strip need hardly more than a code each', () => {
    const { backs, codes } = codeTriangles(sheet(100, 1), 202)
    expect(codes).toHaveLength(200)
    expect(backs).toHaveLength(3)
  })

  it('refuse a vertex of no triangle: it could not be found again', () => {
    expect(() => codeTriangles([0, 1, 2], 4)).toThrow('vertices of no triangle')
  })
})

describe('values told by what is expected', () => {
  const { order, ...code } = codeTriangles(sheet(6, 6), 49)
  const { parents } = readTriangles(code)

  it('come back whatever they are, round 16 bits too', () => {
    const values = fc.array(fc.integer({ min: -32_768, max: 32_767 }), {
      minLength: 98,
      maxLength: 98,
    })
    fc.assert(
      fc.property(values, (list) => {
        const given = Int16Array.from(list)
        expect(readValues(codeValues(given, 2, parents), new Int16Array(98), 2, parents)).toEqual(
          given,
        )
        const bare = Uint16Array.from(list)
        expect(readValues(codeValues(bare, 2, parents), new Uint16Array(98), 2, parents)).toEqual(
          bare,
        )
      }),
      { numRuns: 60 },
    )
  })

  it('of what is even leave nothing but where a row begins', () => {
    const plane = new Int16Array(49)
    order.forEach((to, from) => (plane[to] = 5 * (from % 7) + 3 * Math.floor(from / 7)))
    const left = codeValues(plane, 1, parents)
    expect(left.filter((x) => x !== 0).length).toBeLessThan(9)
  })

  it('of a twin leave nothing where it is its mirror', () => {
    const parents = Int32Array.from([-1, -1, -1, 0, 0, 0])
    const twins = { of: Uint32Array.from([1, 0]), first: -1 } as const
    const values = Int16Array.from([120, 7, -120, 7])
    expect([...codeValues(values, 2, parents, twins)]).toEqual([240, 14, 0, 0])
    expect(readValues([240, 14, 0, 0], new Int16Array(4), 2, parents, twins)).toEqual(values)
  })
})
