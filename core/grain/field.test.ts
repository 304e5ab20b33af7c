/**
 * The direction field (M3) against what is known of such fields: Poincaré–Hopf (the hairy ball), equivariance, hidden fields
 * recovered. Sources: Hopf 1927; MODELS' checks of M3; FIELD's comparison with nearest reading and kernel mean.
 */
import { DEFAULTS } from '../house/index.ts'
import { cross, dot, unit, type Vec3, type Mesh } from '../head/index.ts'
import { median, mulberry32 } from '../stats/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { box, sphere, zoned } from '../testing/surfaces.ts'
import { wrapHalf } from './circular.ts'
import { connect, directionAtVertex, turnWithNormal } from './connection.ts'
import { FIELD_CONSTANTS, fieldGround, GrainField, type FieldReading } from './field.ts'
import { guessReadings } from './guesses.ts'
import { fieldAt } from './sample.ts'
import { singularities } from './topology.ts'
import { hiddenField, noisyReadings, simpleAnswers, skinPoints, turned } from './trials.ts'

const GROUND = fieldGround(DEFAULTS, HEAD.solve, guessReadings(DEFAULTS, ZONES))
/** The same head with no starting guesses. */
const BARE = fieldGround(DEFAULTS, HEAD.solve, [])
const deg = (a: Vec3, b: Vec3) => (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI
const randomReadings = (count: number, random: () => number): FieldReading[] =>
  skinPoints(HEAD.solve, count, random).map((at, i) => {
    const any = unit(cross(at.normal, [random() - 0.5, random() - 0.5, random() - 0.5]))
    return { id: `r${i}`, ...at, tangent: any, weight: 0.3 + 0.7 * random() }
  })

describe('the connection', () => {
  it('turns a vector back along the way it came', () => {
    const c = GROUND.connection
    for (let i = 0; i < c.vertices; i += 37) {
      for (let e = c.start[i]!; e < c.start[i + 1]!; e++) {
        const j = c.neighbours[e]!
        let back = 0
        for (let f = c.start[j]!; f < c.start[j + 1]!; f++)
          if (c.neighbours[f] === i) back = c.turns[f]!
        expect(Math.abs(wrapHalf(c.turns[e]! + back))).toBeLessThan(1e-9)
      }
    }
  })

  it('sums to the whole curvature of a sphere, 4π (Gauss–Bonnet)', () => {
    for (const mesh of [sphere(50, 14, 20), box([30, 20, 40], 6)]) {
      const c = connect(mesh)
      const turnOf = (i: number, j: number) => {
        for (let e = c.start[i]!; e < c.start[i + 1]!; e++)
          if (c.neighbours[e] === j) return c.turns[e]!
        return NaN
      }
      let sum = 0
      for (let t = 0; t < mesh.indices.length; t += 3) {
        const [a, b, d] = [mesh.indices[t]!, mesh.indices[t + 1]!, mesh.indices[t + 2]!]
        sum += wrapHalf(turnOf(a, b) + turnOf(b, d) + turnOf(d, a))
      }
      expect(Math.abs(sum)).toBeCloseTo(4 * Math.PI, 6)
    }
  })

  it('says when the surface has a hole', () => {
    const ball = sphere(50, 8, 10)
    expect(() => connect({ ...ball, indices: ball.indices.slice(3) })).toThrow('hole')
  })
})

describe('the field', () => {
  it('meets a reading within 5° when it is alone, and within 15° among guesses that say otherwise', () => {
    for (const reading of randomReadings(25, mulberry32(1))) {
      for (const [ground, most] of [
        [BARE, 5],
        [GROUND, 15],
      ] as const) {
        const field = new GrainField(DEFAULTS, ground)
        field.put({ ...reading, weight: 1 })
        const met = fieldAt(ground, field.answer(), reading).direction
        expect(deg(met, reading.tangent)).toBeLessThan(most)
      }
    }
  })

  it('stays constant in a plane where it is read constant', () => {
    const mesh = zoned(box([60, 20, 60], 16))
    const ground = fieldGround(DEFAULTS, mesh, [])
    const field = new GrainField(DEFAULTS, ground)
    const way = unit([0.6, 0, 0.8])
    ;[
      [-45, 45],
      [45, 45],
      [45, -45],
      [-45, -45],
    ].forEach(([x, z], i) =>
      field.put({ id: `c${i}`, point: [x!, 20, z!], normal: [0, 1, 0], tangent: way, weight: 1 }),
    )
    const answer = field.answer()
    for (const [x, z] of [
      [0, 0],
      [20, -13],
      [-31, 9],
      [38, 40],
    ] as const) {
      const at = { point: [x, 20, z] as Vec3, normal: [0, 1, 0] as Vec3 }
      expect(deg(fieldAt(ground, answer, at).direction, way)).toBeLessThan(1)
    }
  })

  it('has indices that sum to 2 for 200 sets of readings (Poincaré–Hopf)', () => {
    const random = mulberry32(2)
    const field = new GrainField(DEFAULTS, GROUND)
    for (let k = 0; k < 200; k++) {
      field.setAll(randomReadings(1 + Math.floor(random() * 7), random))
      const { re, im } = field.directions()
      const all = singularities(GROUND.connection, re, im)
      expect(all.reduce((s, x) => s + x.index, 0)).toBe(2)
      expect(all.every((s) => Math.abs(s.index) === 1)).toBe(true)
    }
  })

  it('turns with the head', () => {
    const [ca, sa, cb, sb] = [Math.cos(0.7), Math.sin(0.7), Math.cos(-1.1), Math.sin(-1.1)]
    const turn = ([x, y, z]: Vec3): Vec3 => {
      const [u, v] = [ca * x - sa * y, sa * x + ca * y]
      return [u, cb * v - sb * z, sb * v + cb * z]
    }
    const turnAll = (a: Float32Array) => {
      const out = new Float32Array(a.length)
      for (let i = 0; i < a.length; i += 3) out.set(turn([a[i]!, a[i + 1]!, a[i + 2]!]), i)
      return out
    }
    const mesh: Mesh & { normals: Float32Array } = {
      positions: turnAll(HEAD.solve.positions),
      normals: turnAll(HEAD.solve.normals),
      indices: HEAD.solve.indices,
    }
    const readings = randomReadings(9, mulberry32(3))
    const here = new GrainField(DEFAULTS, BARE)
    const there = new GrainField(DEFAULTS, fieldGround(DEFAULTS, mesh, []))
    here.setAll(readings)
    there.setAll(
      readings.map((r) => ({
        ...r,
        point: turn(r.point),
        normal: turn(r.normal),
        tangent: turn(r.tangent),
      })),
    )
    const [a, b] = [here.answer(), there.answer()]
    const off: number[] = []
    for (let v = 0; v < a.re.length; v += 11) {
      const da = directionAtVertex(here.ground.connection, v, Math.atan2(a.im[v]!, a.re[v]!))
      const db = directionAtVertex(there.ground.connection, v, Math.atan2(b.im[v]!, b.re[v]!))
      off.push(deg(turn(da), db))
      expect(b.trust[v]!).toBeCloseTo(a.trust[v]!, 3)
    }
    expect(median(off)).toBeLessThan(0.01)
    expect(Math.max(...off)).toBeLessThan(1)
  })

  it('mirrors with its readings', () => {
    const flip = (v: Vec3): Vec3 => [-v[0], v[1], v[2]]
    const readings = randomReadings(12, mulberry32(4)).filter((r) => Math.abs(r.point[0]) > 3)
    const [a, b] = [new GrainField(DEFAULTS, GROUND), new GrainField(DEFAULTS, GROUND)]
    a.setAll(readings)
    b.setAll(
      readings.map((r) => ({
        ...r,
        point: flip(r.point),
        normal: flip(r.normal),
        tangent: flip(r.tangent),
      })),
    )
    const [x, y] = [a.answer(), b.answer()]
    const off = skinPoints(HEAD.solve, 120, mulberry32(5)).map((at) =>
      deg(
        flip(fieldAt(GROUND, x, at).direction),
        fieldAt(GROUND, y, { point: flip(at.point), normal: flip(at.normal) }).direction,
      ),
    )
    expect(median(off)).toBeLessThan(0.01)
    expect(off.filter((d) => d > 1).length).toBeLessThan(4)
  })

  it('comes back to the same answer when readings come and go', () => {
    const random = mulberry32(6)
    const field = new GrainField(DEFAULTS, GROUND)
    const stay = randomReadings(6, random)
    field.setAll(stay)
    const before = field.answer()
    const size = Math.max(...before.re.map(Math.abs), ...before.im.map(Math.abs))
    for (let round = 0; round < 3; round++) {
      const passing = randomReadings(20, random).map((r) => ({ ...r, id: `p${r.id}` }))
      for (const r of passing) field.put(r)
      for (const r of passing) field.put({ ...r, tangent: turned(r.tangent, r.normal, 2) })
      for (const r of passing) field.take(r.id)
    }
    const after = field.answer()
    expect(field.count).toBe(6)
    for (let v = 0; v < before.re.length; v++) {
      expect(Math.abs(after.re[v]! - before.re[v]!) / size).toBeLessThan(1e-9)
      expect(Math.abs(after.im[v]! - before.im[v]!) / size).toBeLessThan(1e-9)
      expect(Math.abs(after.trust[v]! - before.trust[v]!)).toBeLessThan(1e-9)
    }
  })

  it('is the same whether readings were put in one by one, in any order, or all at once', () => {
    const readings = randomReadings(10, mulberry32(7))
    const [a, b] = [new GrainField(DEFAULTS, GROUND), new GrainField(DEFAULTS, GROUND)]
    a.setAll(readings)
    for (const r of [...readings].reverse()) b.put(r)
    const [x, y] = [a.directions(), b.directions()]
    for (let v = 0; v < x.re.length; v += 7) expect(y.re[v]!).toBeCloseTo(x.re[v]!, 9)
  })

  it('recovers hidden fields better than the nearest reading and a mean by distance', () => {
    const errors = { field: [] as number[], nearest: [] as number[], kernel: [] as number[] }
    const field = new GrainField(DEFAULTS, BARE)
    for (let seed = 0; seed < 8; seed++) {
      const random = mulberry32(900 + seed)
      const hidden = hiddenField(random)
      const noise = (10 * Math.PI) / 180
      const readings = noisyReadings(hidden, skinPoints(HEAD.display, 32, random), noise, random)
      field.setAll(readings)
      const answer = field.answer()
      for (const at of skinPoints(HEAD.display, 50, random)) {
        const truth = hidden(at)
        const simple = simpleAnswers(readings, at)
        errors.field.push(deg(fieldAt(BARE, answer, at).direction, truth))
        errors.nearest.push(deg(simple.nearest, truth))
        errors.kernel.push(deg(simple.kernel, truth))
      }
    }
    expect(median(errors.field)).toBeLessThan(0.95 * median(errors.kernel)!)
    expect(median(errors.field)).toBeLessThan(0.7 * median(errors.nearest)!)
    expect(median(errors.field)).toBeLessThan(8)
  })
})

describe('trust', () => {
  const point = ZONES.find((z) => z.id === 'cheek-lower-left')!.centre
  const down = unit(cross(cross(point.normal, [0, -1, 0]), point.normal))
  const reading = (id: string, over: Partial<FieldReading> = {}): FieldReading => ({
    id,
    ...point,
    tangent: down,
    weight: 1,
    ...over,
  })

  it('is nothing where nothing was read near, guesses or not', () => {
    const field = new GrainField(DEFAULTS, GROUND)
    expect(Math.max(...field.answer().trust)).toBe(0)
    field.put(reading('a'))
    const far = ZONES.find((z) => z.id === 'occiput')!.centre
    expect(fieldAt(GROUND, field.answer(), far).trust).toBe(0)
    expect(fieldAt(GROUND, field.answer(), point).trust).toBeGreaterThan(0.3)
  })

  it('grows with readings that agree and falls with one that does not', () => {
    const at = (id: string, dy: number, turnBy = 0) =>
      reading(id, {
        point: [point.point[0], point.point[1] + dy, point.point[2]],
        tangent: turned(down, point.normal, turnBy),
      })
    const trustOf = (list: FieldReading[]) => {
      const field = new GrainField(DEFAULTS, GROUND)
      field.setAll(list)
      return fieldAt(GROUND, field.answer(), point).trust
    }
    const one = trustOf([at('a', 0)])
    const three = trustOf([at('a', 0), at('b', 6), at('c', -6)])
    const clash = trustOf([at('a', 0), at('b', 6, Math.PI * 0.9), at('c', -6)])
    expect(three).toBeGreaterThan(one)
    expect(clash).toBeLessThan(three)
  })

  it('lets guesses lead where nothing is read, and gives way to a reading', () => {
    const field = new GrainField(DEFAULTS, GROUND)
    const guess = GROUND.guesses.find((g) => g.reading.id === 'guess:cheek-lower-left')!.reading
    expect(deg(fieldAt(GROUND, field.answer(), guess).direction, guess.tangent)).toBeLessThan(25)
    const against = turned(guess.tangent, guess.normal, Math.PI)
    field.put({ ...guess, id: 'a', tangent: against, weight: 1 })
    expect(deg(fieldAt(GROUND, field.answer(), guess).direction, against)).toBeLessThan(10)
  })

  it('refuses a reading that is no number or not on the head, and stays as it was', () => {
    const field = new GrainField(DEFAULTS, GROUND)
    field.put(reading('a'))
    const before = field.directions()
    expect(() => field.put(reading('b', { point: [NaN, 0, 0] }))).toThrow('not one')
    expect(() => field.put(reading('a', { weight: -1 }))).toThrow('not taken')
    expect(() => field.put(reading('c', { point: [900, 900, 900] }))).toThrow(
      'does not lie on the head',
    )
    expect(field.directions()).toEqual(before)
    expect(field.count).toBe(1)
  })

  it('reaches no farther than the house says', () => {
    const field = new GrainField(DEFAULTS, GROUND)
    field.put(reading('a'))
    const { distanceMm, trust } = field.answer()
    distanceMm.forEach((d, v) => {
      if (d > FIELD_CONSTANTS.reachMm.byDefault) expect(trust[v]).toBe(0)
    })
  })
})

describe('the smallest turn between normals', () => {
  it('keeps lengths and takes one normal to the other', () => {
    const random = mulberry32(8)
    for (let k = 0; k < 50; k++) {
      const any = () => unit([random() - 0.5, random() - 0.5, random() - 0.5])
      const [n, m, v] = [any(), any(), any()]
      expect(deg(turnWithNormal(n, n, m), m)).toBeLessThan(1e-4)
      expect(Math.hypot(...turnWithNormal(v, n, m))).toBeCloseTo(1, 9)
    }
  })
})
