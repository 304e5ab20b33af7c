/**
 * The map of a head as one looks at it and works on it: the field of its readings, the marks that show it, what it says zone by
 * zone, where a reading would tell most, and how far two maps differ. The field is prepared when it is first needed and kept.
 */
import type { Figures } from '../house/index.ts'
import {
  SEED_SPACING_MM,
  triangleNeighbours,
  type PackedHead,
  type SurfacePoint,
  type ZoneRecord,
} from '../head/index.ts'
import { isSkin, ZONE_IDS, zoneStem, type ZoneId } from '../zones/index.ts'
import {
  carry,
  carryTold,
  displayCarry,
  displayVectors,
  sampleCarry,
  type Carried,
  type Carry,
} from './carry.ts'
import { inkOf } from './confidence.ts'
import {
  fieldGround,
  GrainField,
  type FieldAnswer,
  type FieldTold,
  type FieldGround,
  type FieldReading,
} from './field.ts'
import { guessReadings } from './guesses.ts'
import { streamlets, type Streamlets } from './streamlets.ts'
import { whereNext, type NextReading } from './whereNext.ts'
import { findTurning, type Turning, type ZonedReading } from './whorls.ts'
import { zoneFlows, type ZoneFlow } from './zoneFlow.ts'

/** What to draw of a field. */
export interface FlowAsk {
  readonly readings: readonly FieldReading[]
  /** Readings of the stroke that is still being drawn. */
  readonly drawing?: readonly FieldReading[]
  /** Draw the marks the other way round, from tip to root. */
  readonly reversed: boolean
  /** Show starting guesses where nothing was read. */
  readonly guesses: boolean
  /** Fineness of the marks, 0 to 2. */
  readonly level: number
  /** Zones drawn faintly. */
  readonly faint: readonly ZoneId[]
}

/** The field zone by zone, and what turns in it. */
export interface FlowSummary extends Turning {
  readonly zones: readonly ZoneFlow[]
  readonly readings: number
}

/** How far two maps differ, degrees at each vertex of the display mesh; NaN where either was not read. */
export interface FlowDifference {
  readonly degrees: Float32Array<ArrayBuffer>
  readonly zones: readonly { readonly zoneId: ZoneId; readonly degrees: number }[]
}

/** A guess is drawn at a quarter of the ink, a zone that is not part of the service fainter still. */
const GUESS_INK = 0.25
const FAINT_INK = 0.3
/** Rounding adds up over very many changes of a field; after so many a fresh one is made. */
const MOST_CHANGES = 2000

const NO_MARKS: Streamlets = {
  count: 0,
  positions: new Float32Array(),
  points: new Uint8Array(),
  zones: new Uint8Array(),
  ink: new Float32Array(),
  spines: new Float32Array(),
}

const STOPS = ZONE_IDS.map((id) => !isSkin(id) || zoneStem(id) === 'brow')

/** What is worked out once for a head and a house's figures. */
interface Prepared {
  readonly neighbours: Int32Array
  readonly ground: FieldGround
  readonly display: Carry & { first: Float32Array }
  readonly samples: Carry
}

export class HeadMap {
  private readonly figures: Figures
  private readonly head: PackedHead
  private readonly zones: readonly ZoneRecord[]
  private prepared: Prepared | undefined
  private field: GrainField | undefined
  private answered: { key: readonly FieldReading[]; answer: FieldAnswer } | undefined
  private said: { key: readonly FieldReading[]; told: FieldTold } | undefined
  /** Changes of the field since it was made, about. */
  private changes = 0

  constructor(figures: Figures, head: PackedHead, zones: readonly ZoneRecord[]) {
    this.figures = figures
    this.head = head
    this.zones = zones
  }

  /** The field's ground and where it is carried to; about a second's work, done when it is first needed. */
  prepare(): Prepared {
    if (!this.prepared) {
      const ground = fieldGround(
        this.figures,
        this.head.solve,
        guessReadings(this.figures, this.zones),
      )
      this.prepared = {
        neighbours: triangleNeighbours(this.head.display),
        ground,
        display: displayCarry(ground, this.head.display),
        samples: sampleCarry(ground, this.zones),
      }
    }
    return this.prepared
  }

  /** The field with a list of readings in it. */
  private fieldOf(readings: readonly FieldReading[]): GrainField {
    const { ground } = this.prepare()
    if (!this.field || this.changes > MOST_CHANGES) {
      this.field = new GrainField(this.figures, ground)
      this.changes = 0
    }
    this.changes += Math.abs(this.field.count - readings.length) + 2
    this.field.setAll(readings)
    return this.field
  }

  /** The answer for a list of readings; asked twice for the same list it is worked out once. */
  answer(readings: readonly FieldReading[]): FieldAnswer {
    const field = this.fieldOf(readings)
    if (!this.answered || !sameReadings(this.answered.key, readings))
      this.answered = { key: readings, answer: field.answer() }
    return this.answered.answer
  }

  /** The same with what may be told of it: for a map that stands still, not for each moment of a stroke. */
  told(readings: readonly FieldReading[]): FieldTold {
    if (!this.said || !sameReadings(this.said.key, readings))
      this.said = { key: readings, told: this.fieldOf(readings).told() }
    return this.said.told
  }

  /** Direction and trust at every vertex of the display mesh. */
  vertices(readings: readonly FieldReading[]): {
    vectors: Float32Array
    trust: Float32Array
  } {
    const carried = this.onDisplay(readings)
    return { vectors: this.vectorsOf(carried), trust: carried.trust }
  }

  private onDisplay(readings: readonly FieldReading[]): Carried {
    return carry(this.prepare().display, this.answer(readings))
  }

  private vectorsOf(carried: Carried): Float32Array {
    return displayVectors(this.prepare().display, this.head.display, carried)
  }

  /** The marks of a field. A head that nobody has read is plain: nothing is worked out for that. */
  marks(ask: FlowAsk): Streamlets {
    if (ask.readings.length === 0 && !ask.drawing?.length && !ask.guesses) return NO_MARKS
    const carried = this.onDisplay(ask.drawing ? [...ask.readings, ...ask.drawing] : ask.readings)
    const vectors = this.vectorsOf(carried)
    if (ask.reversed) for (let i = 0; i < vectors.length; i++) vectors[i] = -vectors[i]!
    const ink = Float32Array.from(
      carried.trust,
      (t) => inkOf(this.figures, t) || (ask.guesses ? GUESS_INK : 0),
    )
    const { seeds, display } = this.head
    const spacing = SEED_SPACING_MM[ask.level]!
    const marks = streamlets(
      display,
      this.prepare().neighbours,
      { ...seeds, count: seeds.levels[ask.level]! },
      { vectors, ink },
      STOPS,
      spacing * 2.1,
      spacing * 0.13,
    )
    const faint = new Set(ask.faint.map((id) => ZONE_IDS.indexOf(id)))
    marks.zones.forEach((zone, m) => {
      if (faint.has(zone)) marks.ink[m]! *= FAINT_INK
    })
    return marks
  }

  /** The field zone by zone, and what turns in it. */
  summary(readings: readonly ZonedReading[]): FlowSummary {
    if (readings.length === 0)
      return { zones: [], readings: 0, whorls: [], indexSum: 2, disagreements: [] }
    const answer = this.told(readings)
    const { ground, samples } = this.prepare()
    return {
      zones: zoneFlows(this.figures, this.zones, carryTold(samples, answer)),
      readings: readings.length,
      ...findTurning(this.figures, ground, answer, readings, this.head.solve.zones),
    }
  }

  /**
   * The place in the given zones where a reading would tell most.
   * @param goOn asked before each candidate; undefined comes back once it says no
   */
  next(
    readings: readonly FieldReading[],
    zones: readonly ZoneId[],
    goOn: () => Promise<boolean>,
  ): Promise<NextReading | undefined> {
    const field = this.fieldOf(readings)
    const wanted = new Set(zones.map((id) => ZONE_IDS.indexOf(id)))
    const { indices, areas, vertices } = this.prepare().ground.connection
    const weights = new Float64Array(vertices)
    for (let t = 0; t < indices.length; t++) {
      const v = indices[t]!
      if (wanted.has(this.head.solve.zones[Math.floor(t / 3)]!)) weights[v] = areas[v]!
    }
    const candidates = this.zones
      .filter((z) => wanted.has(ZONE_IDS.indexOf(z.id)))
      .flatMap((z) => inner(z).map((s) => ({ ...s, zoneId: z.id })))
    return whereNext(this.figures, field, candidates, weights, goOn)
  }

  /** How far two maps differ. */
  compare(now: readonly FieldReading[], before: readonly FieldReading[]): FlowDifference {
    const { ground, display: onDisplay, samples } = this.prepare()
    const other = new GrainField(this.figures, ground)
    other.setAll(before)
    const answers = [this.answer(now), other.answer()] as const
    const { display } = this.head
    const [a, b] = [carry(onDisplay, answers[0]), carry(onDisplay, answers[1])]
    const bare = new Uint8Array(a.trust.length)
    display.indices.forEach((v, i) => {
      if (!isSkin(ZONE_IDS[display.zones[Math.floor(i / 3)]!]!)) bare[v] = 1
    })
    const degrees = Float32Array.from(a.trust, (_, v) => (bare[v] ? NaN : this.between(a, b, v)))
    const [c, d] = [carry(samples, answers[0]), carry(samples, answers[1])]
    let at = 0
    const zones = this.zones.map((zone) => {
      const list = zone.samples
        .map((_, i) => this.between(c, d, at + i))
        .filter((x) => !Number.isNaN(x))
      at += zone.samples.length
      return {
        zoneId: zone.id,
        degrees: list.length > 0 ? list.reduce((s, x) => s + x, 0) / list.length : NaN,
      }
    })
    return { degrees, zones }
  }

  /** Degrees between two fields at a place; NaN where either was not read. */
  private between(a: Carried, b: Carried, v: number): number {
    if (inkOf(this.figures, a.trust[v]!) === 0 || inkOf(this.figures, b.trust[v]!) === 0) return NaN
    const cos = a.re[v]! * b.re[v]! + a.im[v]! * b.im[v]!
    return (Math.acos(Math.max(-1, Math.min(1, cos))) * 180) / Math.PI
  }
}

function sameReadings(a: readonly FieldReading[], b: readonly FieldReading[]): boolean {
  return (
    a.length === b.length &&
    b.every((r, i) => {
      const o = a[i]!
      return (
        o.id === r.id &&
        o.weight === r.weight &&
        o.readerDeg === r.readerDeg &&
        o.point.every((x, k) => x === r.point[k]) &&
        o.tangent.every((x, k) => x === r.tangent[k])
      )
    })
  )
}

/** A few places well inside a zone. */
function inner(zone: ZoneRecord): SurfacePoint[] {
  const from = ({ point: p }: SurfacePoint) => {
    const c = zone.centre.point
    return Math.hypot(p[0] - c[0], p[1] - c[1], p[2] - c[2])
  }
  const sorted = [...zone.samples].sort((a, b) => from(a) - from(b))
  return [0, 2, 4].flatMap((i) => sorted[i] ?? [])
}
