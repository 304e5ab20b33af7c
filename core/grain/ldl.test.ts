/** The factor against dense algebra: M x must give b back, and a changed factor must be the factor of the changed matrix. */
import { mulberry32 } from '../stats/index.ts'
import { nestedDissection } from './dissection.ts'
import { type HermitianMatrix, type SparseVector, LdlFactor } from './ldl.ts'

/** A random Hermitian positive definite matrix tied along a ring and across it. */
function ring(n: number, random: () => number) {
  const dense = Array.from({ length: n }, () =>
    Array.from({ length: n }, () => [0, 0] as [number, number]),
  )
  const tie = (i: number, j: number) => {
    const w = 0.5 + random()
    const turn = 6.28 * random()
    dense[i]![i]![0] += w
    dense[j]![j]![0] += w
    dense[i]![j] = [-w * Math.cos(turn), -w * Math.sin(turn)]
    dense[j]![i] = [-w * Math.cos(turn), w * Math.sin(turn)]
  }
  for (let i = 0; i < n; i++) {
    tie(i, (i + 1) % n)
    tie(i, (i + 2) % n)
    dense[i]![i]![0] += 0.05
  }
  const start = [0]
  const columns: number[] = []
  const re: number[] = []
  const im: number[] = []
  for (const row of dense) {
    row.forEach(([a, b], j) => {
      if (a === 0 && b === 0) return
      columns.push(j)
      re.push(a)
      im.push(b)
    })
    start.push(columns.length)
  }
  const matrix: HermitianMatrix = {
    start: Int32Array.from(start),
    columns: Int32Array.from(columns),
    re: Float64Array.from(re),
    im: Float64Array.from(im),
  }
  const around = Array.from({ length: n }, (_, i) => [
    Math.cos((6.28 * i) / n),
    Math.sin((6.28 * i) / n),
    0,
  ]).flat()
  return { dense, matrix, order: nestedDissection(around, matrix.start, matrix.columns) }
}

function solve(factor: LdlFactor, re: Float64Array, im: Float64Array) {
  return factor.finish(factor.halfSolve(re, im))
}

function residual(
  dense: [number, number][][],
  x: { re: Float64Array; im: Float64Array },
  b: { re: Float64Array; im: Float64Array },
) {
  let worst = 0
  dense.forEach((row, i) => {
    let r = -b.re[i]!
    let s = -b.im[i]!
    row.forEach(([a, c], j) => {
      r += a * x.re[j]! - c * x.im[j]!
      s += a * x.im[j]! + c * x.re[j]!
    })
    worst = Math.max(worst, Math.hypot(r, s))
  })
  return worst
}

const N = 60
const random = mulberry32(11)
const right = () => ({
  re: Float64Array.from({ length: N }, () => random() - 0.5),
  im: Float64Array.from({ length: N }, () => random() - 0.5),
})
/** Three neighbours, as a reading inside a triangle ties them. */
const touch = (): SparseVector => {
  const i = Math.floor(random() * N)
  return {
    at: [i, (i + 1) % N, (i + 2) % N],
    re: [random(), random(), random()],
    im: [random(), random(), random()],
  }
}
function addTo(dense: [number, number][][], w: SparseVector, weight: number) {
  w.at.forEach((i, k) =>
    w.at.forEach((j, l) => {
      dense[i]![j]![0] += weight * (w.re[k]! * w.re[l]! + w.im[k]! * w.im[l]!)
      dense[i]![j]![1] += weight * (w.im[k]! * w.re[l]! - w.re[k]! * w.im[l]!)
    }),
  )
}

describe('L D Lᴴ', () => {
  it('solves: M x gives b back', () => {
    for (let k = 0; k < 10; k++) {
      const { dense, matrix, order } = ring(N, random)
      const b = right()
      expect(residual(dense, solve(new LdlFactor(matrix, order), b.re, b.im), b)).toBeLessThan(
        1e-11,
      )
    }
  })

  it('follows many single changes of the matrix and of the right side', () => {
    const { dense, matrix, order } = ring(N, random)
    const factor = new LdlFactor(matrix, order)
    const b = right()
    const y = factor.halfSolve(b.re, b.im)
    const there: [SparseVector, number][] = []
    for (let k = 0; k < 300; k++) {
      const out = there.length > 4 && random() < 0.5
      const [w, weight] = out ? there.shift()! : [touch(), 0.1 + random()]
      if (!out) there.push([w, weight])
      const m = out ? -weight : weight
      factor.change(w, m, y)
      addTo(dense, w, m)
      w.at.forEach((i, l) => {
        b.re[i]! += m * w.re[l]!
        b.im[i]! += m * w.im[l]!
      })
    }
    expect(residual(dense, factor.finish(y), b)).toBeLessThan(1e-9)
  })

  it('refuses to take out more than is there, and works on', () => {
    const { matrix, order } = ring(N, random)
    const factor = new LdlFactor(matrix, order)
    const b = right()
    const y = factor.halfSolve(b.re, b.im)
    expect(() => factor.change({ at: [3], re: [1], im: [0] }, -1e6, y)).toThrow(
      'take the last one back',
    )
    // What was refused has left nothing behind in the working space: the next change is the same as on a fresh copy.
    const w: SparseVector = { at: [40, 41, 42], re: [1, 0.5, 0.2], im: [0, 0.1, 0.3] }
    const refused = new LdlFactor(matrix, order)
    const fresh = new LdlFactor(matrix, order)
    const [y1, y2] = [refused.halfSolve(b.re, b.im), fresh.halfSolve(b.re, b.im)]
    expect(() =>
      refused.change({ at: [order[N - 1]!], re: [1], im: [0] }, -1e6, {
        values: y1.values.slice(),
      }),
    ).toThrow()
    refused.change(w, 0.4, y1)
    fresh.change(w, 0.4, y2)
    expect(refused.finish(y1)).toEqual(fresh.finish(y2))
  })

  it('copies stand alone', () => {
    const { dense, matrix, order } = ring(N, random)
    const first = new LdlFactor(matrix, order)
    const second = new LdlFactor(first)
    const b = right()
    second.change(touch(), 3, second.halfSolve(b.re, b.im))
    expect(residual(dense, solve(first, b.re, b.im), b)).toBeLessThan(1e-11)
  })

  it('tells how far the answer yields to a reading: vᴴ M⁻¹ v', () => {
    const { matrix, order } = ring(N, random)
    const factor = new LdlFactor(matrix, order)
    for (let k = 0; k < 5; k++) {
      const v = touch()
      const b = { re: new Float64Array(N), im: new Float64Array(N) }
      v.at.forEach((i, l) => {
        b.re[i] = v.re[l]!
        b.im[i] = v.im[l]!
      })
      const x = solve(factor, b.re, b.im)
      const [re, im] = [0, 1].map((part) =>
        v.at.reduce(
          (s, i, l) =>
            s +
            (part === 0
              ? v.re[l]! * x.re[i]! + v.im[l]! * x.im[i]!
              : v.re[l]! * x.im[i]! - v.im[l]! * x.re[i]!),
          0,
        ),
      )
      expect(factor.yielding(v)).toBeCloseTo(re!, 9)
      expect(im!).toBeCloseTo(0, 9)
    }
  })

  it('says when a matrix is not positive definite', () => {
    const { matrix, order } = ring(N, random)
    const re = matrix.re.map((x, p) => {
      const row = matrix.start.findIndex((s, i) => p >= s && p < matrix.start[i + 1]!)
      return matrix.columns[p] === row ? -1 : x
    })
    expect(() => new LdlFactor({ ...matrix, re }, order)).toThrow('could not be combined')
  })
})
