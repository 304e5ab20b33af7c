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

  it('shares the surface out over its vertices, and lays each basis along the edges as they run', () => {
    const c = connect(box([30, 20, 40], 6))
    // Twice 60 · 40, 40 · 80 and 80 · 60 mm².
    expect(c.areas.reduce((s, a) => s + a, 0)).toBeCloseTo(2 * (2400 + 3200 + 4800), 1)
    const at = (v: number): Vec3 => [0, 1, 2].map((k) => c.positions[3 * v + k]!) as unknown as Vec3
    // Inside a flat side the first basis vector points along the edge that the walk round the vertex begins with.
    for (let v = 0; v < c.vertices; v++) {
      const inside = at(v).filter((x, k) => Math.abs(Math.abs(x) - [30, 20, 40][k]!) < 1e-3)
      if (inside.length > 1) continue
      const to = at(c.neighbours[c.start[v]!]!).map((x, k) => x - at(v)[k]!) as unknown as Vec3
      const first = directionAtVertex(c, v, 0)
      expect(deg(unit(to), first)).toBeLessThan(0.1)
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
    // So many that the medians stand: eight fields alone put them within ± 0.1 of each other.
    for (let seed = 0; seed < 32; seed++) {
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

  it('is half of what agreement and nearness make it behind one reading, a quarter less behind each one more', () => {
    const trustOf = (n: number) => {
      const field = new GrainField(DEFAULTS, GROUND)
      field.setAll(Array.from({ length: n }, (_, i) => reading(`r${i}`)))
      return fieldAt(GROUND, field.answer(), point).trust
    }
    // Readings of one place agree, and agree the more surely the more they are.
    const [one, two, five] = [trustOf(1), trustOf(2), trustOf(5)]
    expect(one).toBeLessThan(0.5)
    expect(one).toBeGreaterThan(0.4)
    expect(two).toBeLessThan(0.75)
    expect(two).toBeGreaterThan(0.65)
    expect(five).toBeGreaterThan(0.9)
  })

  it('lets guesses lead where nothing is read, and gives way to a reading', () => {
    const field = new GrainField(DEFAULTS, GROUND)
    const guess = GROUND.guesses.find((g) => g.reading.id === 'guess:cheek-lower-left')!.reading
    expect(deg(fieldAt(GROUND, field.answer(), guess).direction, guess.tangent)).toBeLessThan(25)
    const against = turned(guess.tangent, guess.normal, Math.PI)
    field.put({ ...guess, id: 'a', tangent: against, weight: 1 })
    expect(deg(fieldAt(GROUND, field.answer(), guess).direction, against)).toBeLessThan(10)
  })

  it('keeps guesses beyond the reach of a reading that agrees with them, and takes them back when it goes', () => {
    const field = new GrainField(DEFAULTS, GROUND)
    const alone = field.directions()
    const guess = GROUND.guesses.find((g) => g.reading.id === 'guess:cheek-lower-left')!.reading
    const way = (id: string) => {
      const g = GROUND.guesses.find((o) => o.reading.id === `guess:${id}`)!.reading
      return deg(fieldAt(GROUND, field.answer(), g).direction, g.tangent)
    }
    field.put({ ...guess, id: 'a', weight: 1 })
    // The back of the head lies as it was guessed, since what was read agrees with what was guessed.
    for (const id of ['occiput', 'scalp-crown', 'cheek-lower-right'])
      expect(way(id)).toBeLessThan(25)
    field.put({
      ...guess,
      id: 'a',
      tangent: turned(guess.tangent, guess.normal, Math.PI),
      weight: 1,
    })
    // One that says the opposite: no guess is worth holding.
    const held = ['occiput', 'scalp-crown', 'cheek-lower-right'].map(way)
    expect(Math.max(...held)).toBeGreaterThan(60)
    field.take('a')
    const after = field.directions()
    const size = Math.max(...alone.re.map(Math.abs), ...alone.im.map(Math.abs))
    alone.re.forEach((x, v) => expect(Math.abs(after.re[v]! - x) / size).toBeLessThan(1e-9))
  })

  it('says by how much each reading lies off the others, and nothing of one that stands alone', () => {
    const field = new GrainField(DEFAULTS, BARE)
    field.put(reading('alone'))
    expect(field.residuals().size).toBe(0)
    const at = (id: string, dy: number, turnBy = 0) =>
      reading(id, {
        point: [point.point[0], point.point[1] + dy, point.point[2]],
        tangent: turned(down, point.normal, turnBy),
      })
    field.setAll([at('a', 0), at('b', 5), at('c', -5), at('d', 9), at('e', 2, 1)])
    const apart = field.residuals()
    // The four agree; the fifth lies a radian off, to whichever side.
    expect(apart.get('e')!).toBeCloseTo(1, 0)
    for (const id of ['a', 'b', 'c', 'd']) expect(apart.get(id)!).toBeLessThan(0.35)
    field.put(at('e', 2, -1))
    expect(field.residuals().get('e')!).toBeCloseTo(1, 0)
    // Left out for true, the others say the same of its place.
    const others = new GrainField(DEFAULTS, BARE)
    others.setAll([at('a', 0), at('b', 5), at('c', -5), at('d', 9)])
    const there = fieldAt(BARE, others.answer(), at('e', 2, -1)).direction
    expect((field.residuals().get('e')! * 180) / Math.PI).toBeCloseTo(
      deg(there, at('e', 2, -1).tangent),
      0,
    )
  })

  it('is told with what was known of whoever read, and doubts skin round a reading that clashes', () => {
    const of = (readerDeg: number | undefined, list: FieldReading[]) => {
      const field = new GrainField(DEFAULTS, BARE)
      field.setAll(list.map((r) => ({ ...r, readerDeg })))
      return field
    }
    const one = [reading('a')]
    expect(of(undefined, one).readerSpread()).toBe(18)
    expect(of(9, one).readerSpread()).toBe(9)
    const there = (f: GrainField) => fieldAt(BARE, f.told(), point).errorDeg
    expect(there(of(9, one))).toBeCloseTo(there(of(18, one)) / 2, 6)
    const at = (id: string, dy: number, turnBy = 0) =>
      reading(id, {
        point: [point.point[0], point.point[1] + dy, point.point[2]],
        tangent: turned(down, point.normal, turnBy),
      })
    const agree = ['a', 'b', 'c', 'd', 'f', 'g'].map((id, i) => at(id, 3 * i - 8))
    const calm = of(8, agree)
    const clash = of(8, [...agree, at('e', 0, 2.6)])
    expect(clash.told().apart.get('e')!).toBeGreaterThan(2)
    // Half the right angle and more is not told as a few degrees beside the one that clashes.
    expect(there(calm)).toBeLessThan(10)
    expect(there(clash)).toBeGreaterThan(30)
    // Beyond where trust begins to fade nothing of it is said.
    const far = {
      point: [point.point[0], point.point[1] - 24, point.point[2]] as Vec3,
      normal: point.normal,
    }
    expect(fieldAt(BARE, clash.told(), far).errorDeg).toBeLessThan(20)
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
