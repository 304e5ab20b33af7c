/** The worked skin of a zone on a plane of 8 by 8 cm, where areas, angles and distances are known. */
import { DEFAULTS } from '../house/index.ts'
import { triangleNeighbours, type Vec3, type ZonedMesh, type ZoneRecord } from '../head/index.ts'
import type { SkinMark } from '../screening/index.ts'
import { box, zoned } from '../testing/surfaces.ts'
import {
  carryDirection,
  patchFrom,
  zoneSkin,
  type DrawnLine,
  type SkinFlow,
  type SkinGround,
  type SkinLimits,
} from './skin.ts'

/** The side of a box toward +z as a zone of its own, the rest another. */
const ground: SkinGround = (() => {
  const all = zoned(box([40, 40, 10], 20))
  const triangles = Array.from({ length: all.indices.length / 3 }, (_, t) => t)
  const before = (t: number) =>
    [0, 1, 2].every((k) => all.positions[3 * all.indices[3 * t + k]! + 2] === 10)
  const order = [...triangles.filter(before), ...triangles.filter((t) => !before(t))]
  const front = triangles.filter(before).length
  const mesh: ZonedMesh = {
    ...all,
    // Smooth normals lean at the rim of the box; here the side is to be flat.
    normals: all.normals.map((_, i) =>
      all.positions[3 * Math.floor(i / 3) + 2] === 10 ? +(i % 3 === 2) : all.normals[i]!,
    ),
    indices: Uint32Array.from(order.flatMap((t) => [...all.indices.subarray(3 * t, 3 * t + 3)])),
    zones: Uint8Array.from(order, (_, i) => (i < front ? 0 : 1)),
    ranges: [
      [0, front],
      [front, triangles.length - front],
    ],
  }
  const record = (id: string) =>
    ({
      id,
      name: id,
      bed: 'soft',
      centre: { point: [0, 0, 10], normal: [0, 0, 1] },
    }) as unknown as ZoneRecord
  return {
    mesh,
    zoneIds: ['chin', 'jaw-left'],
    records: new Map([
      ['chin', record('chin')],
      ['jaw-left', record('jaw-left')],
    ]),
    neighbours: triangleNeighbours(mesh),
  }
})()
const N = ground.mesh.positions.length / 3
const flow = (way: Vec3, over: Partial<SkinFlow> = {}): SkinFlow => ({
  vectors: Float32Array.from({ length: 3 * N }, (_, i) => way[(i % 3) as 0 | 1 | 2]),
  trust: new Float32Array(N).fill(0.5),
  errorDeg: new Float32Array(N).fill(12),
  turning: [],
  ...over,
})
const WHOLE = { share: 1, from: 'top' } as const
const skinOf = (limits: Partial<SkinLimits> = {}, over: SkinFlow = flow([0, -1, 0])) =>
  zoneSkin(DEFAULTS, ground, over, 'chin', {
    ...{ spots: [], lines: [], worked: WHOLE, bandOnly: false },
    ...limits,
  })
type Skin = ReturnType<typeof skinOf>
const middle = (s: Skin, c: number): Vec3 => [
  s.middle[3 * c]!,
  s.middle[3 * c + 1]!,
  s.middle[3 * c + 2]!,
]
const cells = (s: Skin, open = 1) => [...s.open.keys()].filter((c) => s.open[c] === open)
const mark = (over: Partial<SkinMark> = {}): SkinMark => ({
  ...{ id: 'm', kind: 'mole', zoneId: 'chin', point: [0, 0, 10], normal: [0, 0, 1], radiusMm: 6 },
  ...over,
})
const line = (from: Vec3, to: Vec3, over: Partial<DrawnLine> = {}): DrawnLine => ({
  kind: 'neck',
  keep: 'left',
  path: Array.from({ length: 41 }, (_, i) => ({
    point: [0, 1, 2].map((k) => from[k]! + (i / 40) * (to[k]! - from[k]!)) as unknown as Vec3,
    normal: [0, 0, 1] as const,
  })),
  ...over,
})

describe('the skin of a zone', () => {
  it('is its cells, each with its area, its middle and what lies beside it', () => {
    const s = skinOf()
    expect(s.count).toBe(800)
    expect(s.openCm2).toBeCloseTo(64, 6)
    for (let c = 0; c < s.count; c++) {
      expect(s.areaCm2[c]!).toBeCloseTo(0.08, 6)
      expect(middle(s, c)[2]).toBeCloseTo(10, 6)
      expect([s.normal[3 * c], s.normal[3 * c + 1], s.normal[3 * c + 2]]).toEqual([0, 0, 1])
      const edges = [0, 1, 2].map((k) => s.edge[3 * c + k]!).sort((a, b) => a - b)
      edges.forEach((e, k) => expect(e).toBeCloseTo([4, 4, 4 * Math.SQRT2][k]!, 4))
      for (let k = 0; k < 3; k++) {
        const d = s.beside[3 * c + k]!
        if (d < 0) {
          // Only at the rim does a zone end.
          expect(Math.max(...middle(s, c).slice(0, 2).map(Math.abs))).toBeGreaterThan(36)
        } else expect([0, 1, 2].some((n) => s.beside[3 * d + n] === c)).toBe(true)
      }
    }
    expect([s.markedCm2, s.keptCm2]).toEqual([0, 0])
  })

  it.each([
    ['down', [0, -1, 0], 180],
    ['up', [0, 1, 0], 0],
    // The client’s left lies on the right of who faces them.
    ['to the client’s left', [1, 0, 0], 90],
    ['to the client’s right and down', [-1, -1, 0], 225],
  ] as const)('grows %s by its clock', (_, way, deg) => {
    const s = skinOf({}, flow(way))
    const size = Math.hypot(...way)
    for (const c of [0, 77, 500]) {
      expect((s.growth[c]! * 180) / Math.PI).toBeCloseTo(deg, 4)
      way.forEach((x, k) => expect(s.way[3 * c + k]).toBeCloseTo(x / size, 6))
      expect(s.trust[c]).toBeCloseTo(0.5, 6)
      expect(s.errorDeg[c]).toBeCloseTo(12, 5)
    }
  })

  it('is a guess within 30° where nobody has read, corner by corner', () => {
    const one = new Float32Array(N).fill(12)
    one[ground.mesh.indices[0]!] = NaN
    const s = skinOf({}, flow([0, -1, 0], { errorDeg: one }))
    expect(s.errorDeg[0]).toBeCloseTo((30 + 12 + 12) / 3, 5)
  })

  it('has no direction within 5 mm of where hair turns', () => {
    const s = skinOf({}, flow([0, -1, 0], { turning: [[1, 1, 10]] }))
    for (let c = 0; c < s.count; c++) {
      const [x, y] = middle(s, c)
      expect(s.loose[c]).toBe(Math.hypot(x - 1, y - 1) < 5 ? 1 : 0)
    }
    expect(skinOf({}, flow([0, -1, 0], { turning: [[1, 400, 10]] })).loose.every((l) => !l)).toBe(
      true,
    )
  })
})

describe('what a service works', () => {
  it.each([
    ['bottom', (y: number) => y < -20],
    ['top', (y: number) => y > 20],
  ] as const)('is its share counted from the %s', (from, inside) => {
    const s = skinOf({ worked: { share: 0.25, from } })
    expect(s.openCm2).toBeGreaterThanOrEqual(16 - 1e-6)
    expect(s.openCm2).toBeLessThan(18)
    const wrong = cells(s).filter((c) => !inside(middle(s, c)[1]))
    // No more than the rest of one row.
    expect(wrong.length).toBeLessThanOrEqual(20)
    for (const c of cells(s, 0)) expect(inside(middle(s, c)[1])).toBe(false)
  })

  it('takes cells of one height together', () => {
    const s = skinOf({ worked: { share: 0.3, from: 'bottom' } })
    const heights = new Set(cells(s).map((c) => middle(s, c)[1].toFixed(6)))
    for (const c of cells(s, 0)) expect(heights).not.toContain(middle(s, c)[1].toFixed(6))
  })
})

describe('marks', () => {
  /** Corners of a cell. */
  const corners = (s: Skin, c: number) =>
    [0, 1, 2].map((k) => {
      const v = 3 * ground.mesh.indices[3 * (s.first + c) + k]!
      return [ground.mesh.positions[v]!, ground.mesh.positions[v + 1]!] as const
    })

  it.each([
    [6, 4],
    [3, 0],
    [10, 2],
  ])(
    'of %d mm leave out every cell that reaches within their margin of %d mm',
    (radiusMm, marginMm) => {
      const s = skinOf({ spots: [mark({ radiusMm, marginMm })] })
      const reach = radiusMm + marginMm + 1
      for (let c = 0; c < s.count; c++) {
        const hit = corners(s, c).some(([x, y]) => Math.hypot(x, y) <= reach)
        expect(s.open[c]).toBe(hit ? 0 : 1)
      }
      expect(s.openCm2 + s.markedCm2).toBeCloseTo(64, 6)
      expect(s.markedCm2).toBeGreaterThan((Math.PI * reach * reach) / 100)
    },
  )

  it('that were painted leave out all along their trail', () => {
    const at = (x: number) => ({
      zoneId: 'chin' as const,
      point: [x, 0, 10] as Vec3,
      normal: [0, 0, 1] as Vec3,
    })
    const s = skinOf({
      spots: [
        mark({ radiusMm: 2, marginMm: 1, point: [100, 0, 10], trail: [at(-20), at(0), at(20)] }),
      ],
    })
    for (let c = 0; c < s.count; c++) {
      const hit = corners(s, c).some(([x, y]) =>
        [-20, 0, 20].some((t) => Math.hypot(x - t, y) <= 4),
      )
      expect(s.open[c]).toBe(hit ? 0 : 1)
    }
  })

  it('cut off patches: one under 0.4 cm² is left alone, a larger one is worked', () => {
    /** Marks on every corner about a block of squares, so that nothing ties it to the rest. */
    const cutOff = (x0: number, x1: number, y0: number, y1: number) => {
      const spots: SkinMark[] = []
      for (let x = x0 - 4; x <= x1 + 4; x += 4)
        for (let y = y0 - 4; y <= y1 + 4; y += 4)
          if (x < x0 || x > x1 || y < y0 || y > y1)
            spots.push(mark({ id: `${x} ${y}`, point: [x, y, 10], radiusMm: 1, marginMm: 0 }))
      const s = skinOf({ spots })
      return cells(s).filter((c) => {
        const [x, y] = middle(s, c)
        return x > x0 && x < x1 && y > y0 && y < y1
      }).length
    }
    // Four squares are 0.64 cm², two 0.32.
    expect(cutOff(-4, 4, -4, 4)).toBe(8)
    expect(cutOff(-4, 4, 0, 4)).toBe(0)
  })

  it('leave the largest patch whatever its size', () => {
    // The lowest row of cells: they hang together by no edge.
    const s = skinOf({ worked: { share: 0.005, from: 'bottom' } })
    expect(cells(s)).toHaveLength(20)
  })

  it('in a band across leave both sides', () => {
    const band = Array.from({ length: 21 }, (_, i) =>
      mark({ id: `${i}`, point: [4 * i - 40, 0, 10], radiusMm: 2, marginMm: 0 }),
    )
    const s = skinOf({ spots: band })
    const sides = new Set(cells(s).map((c) => Math.sign(middle(s, c)[1])))
    expect(sides).toEqual(new Set([1, -1]))
  })
})

describe('keep-lines', () => {
  const up = line([0, -40, 10], [0, 40, 10])

  it('leave what lies on their kept side, and the line itself', () => {
    const left = skinOf({ lines: [up] })
    const right = skinOf({ lines: [{ ...up, keep: 'right' }] })
    // Half, less the column of cells that touches the line.
    for (const s of [left, right]) {
      expect(s.openCm2).toBeCloseTo(32 - 3.2, 6)
      expect(s.keptCm2).toBeCloseTo(32 + 3.2, 6)
      expect(s.markedCm2).toBe(0)
    }
    const side = (s: Skin) => new Set(cells(s).map((c) => Math.sign(middle(s, c)[0])))
    expect([...side(left)]).toHaveLength(1)
    expect([...side(left)][0]).toBe(-[...side(right)][0]!)
  })

  it('of the other zone, or of a single tap, keep nothing', () => {
    expect(skinOf({ lines: [line([0, 60, 10], [0, 90, 10])] }).openCm2).toBeCloseTo(64, 6)
    expect(skinOf({ lines: [{ ...up, path: up.path.slice(0, 1) }] }).openCm2).toBeCloseTo(64, 6)
  })

  it('of a line-up open a band of 22 mm on their other side', () => {
    const s = skinOf({ lines: [up], bandOnly: true })
    for (const c of cells(s)) expect(Math.abs(middle(s, c)[0])).toBeLessThan(22)
    // From 4 to 20 mm: cells whose corners all lie within the band.
    expect(s.openCm2).toBeCloseTo((16 * 80) / 100, 6)
    expect(s.keptCm2).toBe(0)
    expect(skinOf({ bandOnly: true }).openCm2).toBe(0)
  })

  it('above and below a brow keep what lies between them, and nothing beyond their ends', () => {
    const upper = line([-20, 8, 10], [20, 8, 10], { kind: 'brow', keep: 'right' })
    const lower = line([-20, -8, 10], [20, -8, 10], { kind: 'brow-under', keep: 'left' })
    const s = skinOf({ lines: [upper, lower] })
    const open = (x: number, y: number) =>
      cells(s).some((c) => Math.hypot(middle(s, c)[0] - x, middle(s, c)[1] - y) < 2.5)
    expect([open(0, 0), open(12, 3), open(0, 18), open(0, -18), open(33, 0)]).toEqual([
      ...[false, false, true, true, true],
    ])
    const kept = cells(s, 0).map((c) => middle(s, c))
    expect(Math.max(...kept.map(([, y]) => Math.abs(y)))).toBeLessThan(12.1)
    expect(Math.max(...kept.map(([x]) => Math.abs(x)))).toBeLessThan(24.1)
  })
})

describe('patches and directions', () => {
  it('a patch is what hangs together by edges', () => {
    const s = skinOf()
    const seen = new Uint8Array(s.count)
    const left = patchFrom(
      s,
      cells(s).find((c) => middle(s, c)[0] < -2)!,
      (c) => middle(s, c)[0] < 0,
      seen,
    )
    expect(left).toHaveLength(400)
    expect(seen.reduce((n, x) => n + x, 0)).toBe(400)
    expect(patchFrom(s, left[0]!, () => false, new Uint8Array(s.count))).toEqual([left[0]])
  })

  it('a direction is carried by the smallest turn of the normal', () => {
    const close = (a: Vec3, b: Vec3) => a.forEach((x, k) => expect(x).toBeCloseTo(b[k]!, 9))
    close(carryDirection([1, 0, 0], [0, 0, 1], [1, 0, 0]), [0, 0, -1])
    close(carryDirection([0, 1, 0], [0, 0, 1], [1, 0, 0]), [0, 1, 0])
    close(carryDirection([0.6, 0.8, 0], [0, 0, 1], [0, 0, 1]), [0.6, 0.8, 0])
  })
})
