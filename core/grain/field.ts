/**
 * The direction field (M3): from readings here and there to a direction everywhere on the skin.
 *
 * Minimises |A u|² (weighted by area) + Σ λ m_k |w_kᴴ u − 1|², where A is the connection Laplacian, u one complex number per
 * vertex of the solve mesh and m_k the weight of a reading. The bi-Laplacian follows a field that turns evenly, where the
 * plain one flattens it between readings. A second, plain solve tells how far to trust the answer: readings that disagree or
 * lie far away leave its vectors short.
 */
import { DomainError } from '../errors.ts'
import { distance, tangentPart, unit, type Vec3, Locator, type Mesh } from '../head/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { clashDeg, errorDeg, readerSpreadDeg } from './confidence.ts'
import { angleAtVertex, connect, type Connection } from './connection.ts'
import { nestedDissection } from './dissection.ts'
import { GUESS_CONSTANTS, GuessAgreement } from './guessAgreement.ts'
import { biLaplacian, connectionLaplacian } from './laplacian.ts'
import { type HalfSolved, type HermitianMatrix, type SparseVector, LdlFactor } from './ldl.ts'
import { distancesMm, nearness, REACH_CONSTANTS, supportOf } from './reach.ts'

export const FIELD_CONSTANTS = {
  readingStrength: constant(
    0.01,
    '1/mm²',
    'How strongly a reading holds the field (bi-Laplacian)',
    'H',
  ),
  trustStrength: constant(
    10,
    '',
    'How strongly a reading holds the measure of trust (plain Laplacian)',
    'H',
  ),
  weightGuess: constant(0.05, '', 'Weight of a starting guess beside a felt reading', 'H'),
  ...GUESS_CONSTANTS,
  ...REACH_CONSTANTS,
} as const

const C = FIELD_CONSTANTS

/** A direction at a place, with the weight it has. */
export interface FieldReading {
  readonly id: string
  readonly point: Vec3
  readonly normal: Vec3
  /** Unit tangent, root to tip. */
  readonly tangent: Vec3
  /** 1 for a direction felt today. */
  readonly weight: number
  /** Of a guess, the area of the head in which it is believed or not along with others. */
  readonly area?: string | undefined
  /** What is known of who read it: two of three of their readings lie so near what the others say, degrees. */
  readonly readerDeg?: number | undefined
}

/** The field on the solve mesh. */
export interface FieldAnswer {
  /** Direction at each vertex as a complex number in the vertex's basis; its size is of no meaning. */
  readonly re: Float64Array
  readonly im: Float64Array
  /** Trust, 0 to 1, from agreement and distance; 0 where nothing was read near. */
  readonly trust: Float64Array
  /** Way over the skin to the nearest reading, mm; Infinity when there is none. */
  readonly distanceMm: Float64Array
}

/** The field with what may be told of it. */
export interface FieldTold extends FieldAnswer {
  /** Within how many degrees two of three directions are right, by vertex; NaN where skin counts as not read. */
  readonly errorDeg: Float64Array
  /** By how much each reading lies off what the others say when it is left out, radians; none for one that stands alone. */
  readonly apart: ReadonlyMap<string, number>
}

/** A reading and where it lies on the solve mesh. */
export interface Placed {
  readonly reading: FieldReading
  readonly vector: SparseVector
  readonly triangle: number
}

/** What does not change with the readings: connection, order, both factors with the guesses in. Built once per mesh. */
export interface FieldGround {
  readonly connection: Connection
  readonly locator: Locator
  readonly direction: LdlFactor
  readonly trust: LdlFactor
  readonly guesses: readonly Placed[]
  /** The right side of the guesses, half solved. */
  readonly guessed: HalfSolved
}

/** A reading that holds its own place this much has nothing to be compared with. */
const ALONE = 0.98

/** Keeps both systems definite without being felt. */
const EPSILON = 1e-9

/**
 * Prepares a closed mesh. The guesses are readings of their own, taken at their given weight and never trusted.
 * @throws DomainError `not-closed`
 */
export function fieldGround(
  figures: Figures,
  mesh: Mesh & { readonly normals?: Float32Array },
  guesses: readonly FieldReading[],
): FieldGround {
  const connection = connect(mesh)
  const locator = new Locator(mesh)
  const a = connectionLaplacian(connection, EPSILON)
  const b = biLaplacian(a, connection.areas)
  const bRe = new Float64Array(connection.vertices)
  const bIm = new Float64Array(connection.vertices)
  const placed = guesses.map((guess) => place({ connection, locator }, guess))
  for (const guess of placed) {
    const { at, re, im } = guess.vector
    const m = figures(C.readingStrength) * guess.reading.weight
    at.forEach((i, k) => {
      bRe[i]! += m * re[k]!
      bIm[i]! += m * im[k]!
      at.forEach((j, l) => {
        const p = entryOf(b, i, j)
        b.re[p]! += m * (re[k]! * re[l]! + im[k]! * im[l]!)
        b.im[p]! += m * (im[k]! * re[l]! - re[k]! * im[l]!)
      })
    })
  }
  const direction = new LdlFactor(b, nestedDissection(mesh.positions, b.start, b.columns))
  const trust = new LdlFactor(a, nestedDissection(mesh.positions, a.start, a.columns))
  return {
    connection,
    locator,
    direction,
    trust,
    guesses: placed,
    guessed: direction.halfSolve(bRe, bIm),
  }
}

function entryOf(m: HermitianMatrix, row: number, column: number): number {
  for (let p = m.start[row]!; p < m.start[row + 1]!; p++) if (m.columns[p] === column) return p
  throw new Error('not tied')
}

function place(ground: Pick<FieldGround, 'connection' | 'locator'>, reading: FieldReading): Placed {
  const { connection, locator } = ground
  const numbers = [...reading.point, ...reading.normal, ...reading.tangent, reading.weight]
  if (!numbers.every(Number.isFinite) || reading.weight <= 0) {
    throw new DomainError(
      'bad-reading',
      'A reading has a number that is not one; it was not taken.',
    )
  }
  const { triangle, weights } = locator.nearest(reading.point, reading.normal)
  const at: number[] = []
  const re: number[] = []
  const im: number[] = []
  for (let k = 0; k < 3; k++) {
    if (weights[k]! < 1e-9) continue
    const v = connection.indices[3 * triangle + k]!
    const angle = angleAtVertex(connection, v, reading.tangent, reading.normal)
    at.push(v)
    re.push(weights[k]! * Math.cos(angle))
    im.push(weights[k]! * Math.sin(angle))
  }
  return { reading, vector: { at, re, im }, triangle }
}

const same = (a: FieldReading, b: FieldReading) =>
  a.weight === b.weight &&
  a.readerDeg === b.readerDeg &&
  [0, 1, 2].every(
    (x) =>
      a.point[x] === b.point[x] && a.tangent[x] === b.tangent[x] && a.normal[x] === b.normal[x],
  )

/** A field that follows its readings: they come, go and turn one at a time. */
export class GrainField {
  readonly ground: FieldGround
  private readonly placed = new Map<string, Placed>()
  private readonly direction: LdlFactor
  private readonly trust: LdlFactor
  /** How many readings lie near each guess: it gives way to the first and comes back after the last. */
  private readonly near: Int32Array
  private readonly agreement: GuessAgreement
  /** 1 where a guess is in the equations. */
  private readonly held: Uint8Array
  private readonly directed: HalfSolved
  private readonly trusted: HalfSolved

  private readonly figures: Figures

  constructor(figures: Figures, ground: FieldGround) {
    this.figures = figures
    this.ground = ground
    this.direction = new LdlFactor(ground.direction)
    this.trust = new LdlFactor(ground.trust)
    this.near = new Int32Array(ground.guesses.length)
    this.held = new Uint8Array(ground.guesses.length).fill(1)
    this.agreement = new GuessAgreement(figures)
    this.directed = { values: ground.guessed.values.slice() }
    this.trusted = { values: new Float64Array(2 * ground.connection.vertices) }
  }

  get count(): number {
    return this.placed.size
  }

  private readings(): FieldReading[] {
    return [...this.placed.values()].map((p) => p.reading)
  }

  /**
   * Puts a reading in; one of the same id is replaced.
   * @throws DomainError `bad-reading`, `off-the-head`; the field is then as it was
   */
  put(reading: FieldReading): void {
    const placed = place(this.ground, reading)
    this.take(reading.id)
    this.apply(placed, 1)
    this.placed.set(reading.id, placed)
  }

  /** Takes a reading out; an unknown id changes nothing. */
  take(id: string): void {
    const placed = this.placed.get(id)
    if (!placed) return
    this.apply(placed, -1)
    this.placed.delete(id)
  }

  /** Makes the readings those of the list, with as few changes as that needs. */
  setAll(readings: readonly FieldReading[]): void {
    const wanted = new Set(readings.map((r) => r.id))
    for (const id of [...this.placed.keys()]) if (!wanted.has(id)) this.take(id)
    for (const r of readings) {
      const old = this.placed.get(r.id)
      if (!old || !same(old.reading, r)) this.put(r)
    }
  }

  private apply({ reading, vector }: Placed, sign: 1 | -1): void {
    const direct = (v: SparseVector, weight: number) =>
      this.direction.change(v, weight * this.figures(C.readingStrength), this.directed)
    if (sign > 0) direct(vector, reading.weight)
    const { guesses } = this.ground
    let [nearest, least] = [-1, Infinity]
    guesses.forEach((guess, g) => {
      const d = distance(guess.reading.point, reading.point)
      if (d <= this.figures(C.reachMm)) this.near[g]! += sign
      if (d < least) [nearest, least] = [g, d]
    })
    if (nearest >= 0) this.agreement.add(guesses[nearest]!.reading, reading, sign)
    const believed = this.agreement.believed()
    guesses.forEach((guess, g) => {
      const hold = this.near[g] === 0 && believed(guess.reading.area ?? '') ? 1 : 0
      if (hold === this.held[g]) return
      direct(guess.vector, (hold ? 1 : -1) * guess.reading.weight)
      this.held[g] = hold
    })
    if (sign < 0) direct(vector, -reading.weight)
    this.trust.change(vector, sign * this.figures(C.trustStrength) * reading.weight, this.trusted)
  }

  /** The directions alone: what has to follow the hand. */
  directions(): { re: Float64Array; im: Float64Array } {
    return this.direction.finish(this.directed)
  }

  /** Directions, trust and distances. */
  answer(): FieldAnswer {
    const { re, im } = this.directions()
    const distanceMm = distancesMm(this.figures, this.ground.connection, [...this.placed.values()])
    const trust = new Float64Array(distanceMm.length)
    if (this.placed.size > 0) {
      const t = this.trust.finish(this.trusted)
      const support = supportOf(this.figures, this.ground.connection, this.readings())
      trust.forEach((_, v) => {
        const agreement = Math.min(1, Math.hypot(t.re[v]!, t.im[v]!))
        trust[v] = agreement * nearness(this.figures, distanceMm[v]!) * (1 - 0.5 ** support[v]!)
      })
    }
    return { re, im, trust, distanceMm }
  }

  /**
   * How far each reading lies from what the others say of its place, radians, by id: left out one at a time, in closed form
   * (leverage of a linear smoother; Cook & Weisberg 1982; Craven & Wahba 1979; from memory). Nothing of one reading alone.
   */
  residuals(): Map<string, number> {
    const out = new Map<string, number>()
    if (this.placed.size < 2) return out
    const { re, im } = this.directions()
    for (const [id, { reading, vector }] of this.placed) {
      let [x, y] = [0, 0]
      vector.at.forEach((v, k) => {
        x += vector.re[k]! * re[v]! + vector.im[k]! * im[v]!
        y += vector.re[k]! * im[v]! - vector.im[k]! * re[v]!
      })
      const leverage =
        this.figures(C.readingStrength) * reading.weight * this.direction.yielding(vector)
      // A reading with nothing beside it holds its place alone: the others say nothing of it.
      if (leverage > ALONE) continue
      out.set(id, Math.abs(Math.atan2(y, x - leverage)))
    }
    return out
  }

  /** Within how far of what the others say two of three readings lie, degrees: with what was known of who read them. */
  readerSpread(residuals = this.residuals()): number {
    const known = [...this.placed.values()].flatMap((p) => p.reading.readerDeg ?? [])
    const before = known.length > 0 ? known.reduce((s, d) => s + d, 0) / known.length : undefined
    return readerSpreadDeg(this.figures, [...residuals.values()], before)
  }

  /** The answer with what may be told of it: readings are left out one by one, which takes some time. */
  told(): FieldTold {
    const answer = this.answer()
    const residuals = this.residuals()
    const spread = this.readerSpread(residuals)
    const errors = answer.trust.map((trust) => errorDeg(this.figures, trust, spread))
    const { positions, vertices } = this.ground.connection
    for (const [id, residual] of residuals) {
      const least = clashDeg(this.figures, residual, spread)
      if (least === undefined) continue
      // One reading against those beside it: round it neither is sure.
      const { point } = this.placed.get(id)!.reading
      for (let v = 0; v < vertices; v++) {
        const d = Math.hypot(
          positions[3 * v]! - point[0],
          positions[3 * v + 1]! - point[1],
          positions[3 * v + 2]! - point[2],
        )
        if (d <= this.figures(C.fadeMm) && errors[v]! < least) errors[v] = least
      }
    }
    return { ...answer, errorDeg: errors, apart: residuals }
  }

  /**
   * How much every vertex would move with a reading at a place: the column of the inverse there, and its own entry.
   * @throws DomainError `off-the-head`
   */
  influence(at: { point: Vec3; normal: Vec3 }): {
    re: Float64Array
    im: Float64Array
    own: number
  } {
    const tangent = unit(
      tangentPart(Math.abs(at.normal[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0], at.normal),
    )
    const { vector } = place(this.ground, { id: '', ...at, tangent, weight: 1 })
    const n = this.ground.connection.vertices
    const bRe = new Float64Array(n)
    const bIm = new Float64Array(n)
    vector.at.forEach((v, i) => {
      bRe[v] = vector.re[i]!
      bIm[v] = vector.im[i]!
    })
    const { re, im } = this.direction.finish(this.direction.halfSolve(bRe, bIm))
    const own = vector.at.reduce(
      (s, v, i) => s + vector.re[i]! * re[v]! + vector.im[i]! * im[v]!,
      0,
    )
    return { re, im, own }
  }
}
