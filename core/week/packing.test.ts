/** Against trying everything, against a published assignment, and the bound against what was found. */
import { mulberry32 } from '../stats/index.ts'
import { type PackArrays, Packing, pack, unfit } from './packing.ts'
import { lpOf } from './programme.ts'

/** A small week by chance. */
function someWeek(seed: number, clients: number, workers: number, slots: number, many: number) {
  const random = mulberry32(seed)
  const upTo = (n: number) => Math.floor(n * random())
  const capacity = [
    ...Array.from({ length: workers }, () => new Int32Array(slots).fill(1)),
    new Int32Array(slots).fill(1 + upTo(workers)),
    new Int32Array(slots).fill(2 + upTo(3)),
  ]
  const packing = new Packing(clients, capacity)
  for (let c = 0; c < clients; c++)
    for (let k = 0; k < many; k++) {
      const length = 1 + upTo(Math.max(2, slots / 3))
      const from = upTo(slots - length + 1)
      packing.add(c, Math.round(1000 * random()) / 1000, [
        { resource: upTo(workers), from, to: from + length, many: 1 },
        { resource: workers, from, to: from + length, many: 1 },
        { resource: workers + 1, from, to: Math.min(slots, from + 3), many: 1 + upTo(2) },
      ])
    }
  return packing.close()
}

/** By trying everything. */
function most(p: PackArrays): number {
  const left = p.capacity.map((c) => Array.from(c))
  const go = (c: number): number => {
    if (c === p.clients) return 0
    let best = go(c + 1)
    for (const i of p.owned[c]!) {
      const take = (sign: number) => {
        let fits = true
        for (let u = p.first[i]!; u < p.first[i + 1]!; u++)
          for (let s = p.from[u]!; s < p.to[u]!; s++)
            if ((left[p.res[u]!]![s]! -= sign * p.many[u]!) < 0) fits = false
        return fits
      }
      if (take(1)) best = Math.max(best, p.value[i]! + go(c + 1))
      take(-1)
    }
    return best
  }
  return go(0)
}

it('of 200 small weeks the bound holds, what is chosen can be, and most are as good as trying everything', () => {
  let best = 0
  for (let seed = 1; seed <= 200; seed++) {
    const p = someWeek(seed, 5, 2, 10, 5)
    const truth = most(p)
    const { chosen, value, bound } = pack(p)
    expect(unfit(p, chosen)).toBeUndefined()
    expect(chosen.reduce((s, i) => s + (i < 0 ? 0 : p.value[i]!), 0)).toBeCloseTo(value, 9)
    expect(bound).toBeGreaterThanOrEqual(truth - 1e-9)
    expect(value).toBeLessThanOrEqual(truth + 1e-9)
    expect(value).toBeGreaterThan(0.9 * truth)
    if (value > truth - 1e-9) best++
  }
  expect(best).toBeGreaterThanOrEqual(185)
})

it('with the choices that are left open an exact solver finds the best of all, and the bound is told', async () => {
  const { default: load } = await import('highs')
  const highs = await load()
  for (let seed = 1; seed <= 40; seed++) {
    const p = someWeek(900 + seed, 5, 2, 10, 6)
    const { value, open } = pack(p, { rounds: 60 })
    const truth = most(p)
    const solved = highs.solve(lpOf(p, open))
    expect(solved.Status).toBe('Optimal')
    expect(Math.max(value, solved.ObjectiveValue)).toBeCloseTo(truth, 5)
  }
})

it('solves the assignment of machines to jobs in Winston’s book', () => {
  // Winston, Operations Research: Applications and Algorithms, "Machineco"; from memory: 15 hours by the Hungarian method.
  const hours = [
    [14, 5, 8, 7],
    [2, 12, 6, 5],
    [7, 8, 3, 9],
    [2, 4, 6, 10],
  ]
  const packing = new Packing(
    4,
    hours.map(() => Int32Array.of(1)),
  )
  hours.forEach((row, machine) =>
    row.forEach((h, job) =>
      packing.add(machine, 20 - h, [{ resource: job, from: 0, to: 1, many: 1 }]),
    ),
  )
  const { value, bound } = pack(packing.close())
  expect(4 * 20 - value).toBe(15)
  expect(bound).toBeCloseTo(value, 3)
})

it('nothing to choose is nothing, and what is worth nothing is not chosen', () => {
  expect(pack(new Packing(0, []).close())).toMatchObject({ value: 0, bound: 0 })
  const packing = new Packing(1, [Int32Array.of(1)])
  packing.add(0, -1, [{ resource: 0, from: 0, to: 1, many: 1 }])
  expect([...pack(packing.close()).chosen]).toEqual([-1])
})
