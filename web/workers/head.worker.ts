/** Off the main thread: the field, the marks that show it, what turns in it, and lines over the surface. */
import { DEFAULTS, type Figures, type ChangedFigures } from '../../core/house/index.ts'
import {
  carry,
  displayCarry,
  displayVectors,
  sampleCarry,
  type Carry,
  inkOf,
  fieldGround,
  GrainField,
  type FieldAnswer,
  type FieldGround,
  type FieldReading,
  guessReadings,
  streamlets,
  type Streamlets,
  whereNext,
  type NextReading,
  findTurning,
  type Turning,
  type ZonedReading,
  zoneFlows,
  type ZoneFlow,
} from '../../core/grain/index.ts'
import {
  makeSurface,
  type Surface,
  SEED_SPACING_MM,
  type SurfacePoint,
  type ZoneRecord,
  unpackHead,
  type PackedHead,
  triangleNeighbours,
} from '../../core/head/index.ts'
import { isSkin, ZONE_IDS, type ZoneId } from '../../core/zones/index.ts'
import { linePath, type LineTap } from '../../core/lines/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import type { PlanAsk } from '../../core/visit/index.ts'
import {
  type Room,
  drawnLines,
  headFlow,
  headGround,
  headRoom,
  type SearchState,
  type SkinGround,
} from '../../core/plan/index.ts'
import type { Style } from '../../core/services/index.ts'
import type { Cause, Live } from '../../core/chair/index.ts'
import { expose, transfer } from 'comlink'
import zoneFile from '../../generated/zones.json'

import { PlanDesk, type Planned, type Replanning } from './plans.ts'

const ZONES = zoneFile as unknown as readonly ZoneRecord[]

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

/** A field in figures. */
export interface FlowSummary extends Turning {
  readonly zones: readonly ZoneFlow[]
  readonly readings: number
}

/** How far two maps differ, degrees at each vertex of the display mesh; NaN where either was not read. */
export interface FlowDifference {
  readonly degrees: Float32Array
  readonly zones: readonly { readonly zoneId: ZoneId; readonly degrees: number }[]
}

/** A guess is drawn at a quarter of the ink, a zone that is not part of the service fainter still. */
const GUESS_INK = 0.25
const FAINT_INK = 0.3

let head: PackedHead
/** The house's, as it was last told. */
let figures: Figures = DEFAULTS
let neighbours: Int32Array
let ground: FieldGround | undefined
let field: GrainField
let display: Carry & { first: Float32Array }
let samples: Carry
let surface: Surface | undefined
/** Changes of the field since it was made, about. */
let changes = 0
const MOST_CHANGES = 2000
/** Rises with every demand, so that slow work can see that it is no longer wanted. */
let ticket = 0

const stops = ZONE_IDS.map((id) => !isSkin(id) || id.startsWith('brow'))
const breath = () => new Promise<void>((go) => setTimeout(go, 0))

let answered: { key: readonly FieldReading[]; answer: FieldAnswer } | undefined

/** The answer for a list of readings; asked twice for the same list it is worked out once. */
function answerFor(readings: readonly FieldReading[]): FieldAnswer {
  needField()
  // Rounding adds up over very many changes; a fresh field costs little.
  changes += Math.abs(field.count - readings.length) + 2
  if (changes > MOST_CHANGES) {
    field = new GrainField(figures, ground!)
    changes = 0
  }
  field.setAll(readings)
  const same =
    answered &&
    answered.key.length === readings.length &&
    readings.every((r, i) => {
      const o = answered!.key[i]!
      return (
        o.id === r.id &&
        o.weight === r.weight &&
        o.point.every((x, k) => x === r.point[k]) &&
        o.tangent.every((x, k) => x === r.tangent[k])
      )
    })
  if (same) return answered!.answer
  const answer = field.answer()
  answered = { key: readings, answer }
  return answer
}

/** Factors the field and prepares where it is carried to; about a second's work, done when it is first needed. */
function needField(): void {
  if (ground) return
  neighbours = triangleNeighbours(head.display)
  ground = fieldGround(figures, head.solve, guessReadings(figures, ZONES))
  field = new GrainField(figures, ground)
  display = displayCarry(ground, head.display)
  samples = sampleCarry(ground, ZONES)
}

const NO_MARKS: Streamlets = {
  count: 0,
  positions: new Float32Array(),
  points: new Uint8Array(),
  zones: new Uint8Array(),
  ink: new Float32Array(),
  spines: new Float32Array(),
}

function draw(ask: FlowAsk, answer: FieldAnswer): Streamlets {
  const carried = carry(display, answer)
  const vectors = displayVectors(display, head.display, carried)
  if (ask.reversed) for (let i = 0; i < vectors.length; i++) vectors[i] = -vectors[i]!
  const ink = Float32Array.from(
    carried.trust,
    (t) => inkOf(figures, t) || (ask.guesses ? GUESS_INK : 0),
  )
  const spacing = SEED_SPACING_MM[ask.level]!
  const marks = streamlets(
    head.display,
    neighbours,
    { ...head.seeds, count: head.seeds.levels[ask.level]! },
    { vectors, ink },
    stops,
    spacing * 2.1,
    spacing * 0.13,
  )
  const faint = new Set(ask.faint.map((id) => ZONE_IDS.indexOf(id)))
  marks.zones.forEach((zone, m) => {
    if (faint.has(zone)) marks.ink[m]! *= FAINT_INK
  })
  return marks
}

let skinGround: SkinGround | undefined
let room: Room | undefined
const desk = new PlanDesk({
  ground: () => (skinGround ??= headGround(head.display, ZONES)),
  room: () => (room ??= headRoom(head.display)),
  flow: (readings) => {
    const answer = answerFor(readings)
    return headFlow(figures, ground!, answer, readings, head.display, head.solve.zones, display)
  },
  lines: (lines) => drawnLines(surfaceOf, lines),
})

const work = {
  /** Takes a copy of the head's bytes. */
  load(bytes: ArrayBuffer): void {
    head = unpackHead(bytes)
  },

  /** Takes the house's figures over: the field is made anew with them. */
  figures(changed: ChangedFigures): void {
    figures = figuresOf(changed)
    ground = undefined
    answered = undefined
  },

  /** Makes the field ready, so that the first stroke does not wait for it. */
  warm(): void {
    needField()
  },

  /** The marks of a field. */
  flow(ask: FlowAsk): Streamlets {
    ticket++
    // A head that nobody has read is plain: nothing has to be worked out for that.
    if (ask.readings.length === 0 && !ask.drawing && !ask.guesses) return NO_MARKS
    const marks = draw(
      ask,
      answerFor(ask.drawing ? [...ask.readings, ...ask.drawing] : ask.readings),
    )
    return transfer(marks, [
      marks.positions.buffer as ArrayBuffer,
      marks.points.buffer as ArrayBuffer,
      marks.zones.buffer as ArrayBuffer,
      marks.ink.buffer as ArrayBuffer,
      marks.spines.buffer as ArrayBuffer,
    ])
  },

  /** The field zone by zone, and what turns in it. */
  summary(readings: readonly ZonedReading[]): FlowSummary {
    if (readings.length === 0) {
      return { zones: [], readings: 0, whorls: [], indexSum: 2, disagreements: [] }
    }
    const answer = answerFor(readings)
    return {
      zones: zoneFlows(figures, ZONES, carry(samples, answer)),
      readings: readings.length,
      ...findTurning(figures, ground!, answer, readings, head.solve.zones),
    }
  },

  /** The place in the given zones where a reading would tell most; undefined when something else was asked meanwhile. */
  async next(
    readings: readonly FieldReading[],
    zones: readonly ZoneId[],
  ): Promise<NextReading | undefined> {
    const mine = ++ticket
    needField()
    field.setAll(readings)
    const wanted = new Set(zones.map((id) => ZONE_IDS.indexOf(id)))
    const { indices, areas, vertices } = ground!.connection
    const weights = new Float64Array(vertices)
    for (let t = 0; t < indices.length; t++) {
      const v = indices[t]!
      if (wanted.has(head.solve.zones[Math.floor(t / 3)]!)) weights[v] = areas[v]!
    }
    const candidates = ZONES.filter((z) => wanted.has(ZONE_IDS.indexOf(z.id))).flatMap((z) =>
      inner(z).map((s) => ({ ...s, zoneId: z.id })),
    )
    let looked = 0
    return whereNext(figures, field, candidates, weights, async () => {
      if (looked++ % 4 === 0) await breath()
      return mine === ticket
    })
  },

  /** Direction and trust at every vertex of the display mesh. */
  vertices(readings: readonly FieldReading[]): { vectors: Float32Array; trust: Float32Array } {
    const carried = carry(display, answerFor(readings))
    const vectors = displayVectors(display, head.display, carried)
    return transfer({ vectors, trust: carried.trust }, [
      vectors.buffer as ArrayBuffer,
      carried.trust.buffer as ArrayBuffer,
    ])
  },

  /** The shortest way over the skin through some places. */
  line(taps: readonly LineTap[]): SurfacePoint[] {
    return linePath(surfaceOf(), { taps }).map(({ point, normal }) => ({ point, normal }))
  },

  /** The plan of a choice. */
  plan(ask: PlanAsk): Planned {
    return desk.plan(ask)
  },

  /** The rest of a running service anew. */
  replan(ask: PlanAsk, live: Live, cause: Cause): Replanning {
    return desk.replan(ask, live, cause)
  },
  /** The three kinds of plan. */
  threePlans(ask: PlanAsk): Record<Style, Planned> {
    return desk.three(ask)
  },

  /** Searches on for a better order. */
  searchOrder(
    ask: PlanAsk,
    seconds: number,
    onProgress: (state: SearchState, share: number) => void,
  ): Promise<SearchState | undefined> {
    return desk.search(ask, seconds, onProgress)
  },

  stopSearch(): void {
    desk.stopSearch()
  },

  /** How far two maps differ. */
  compare(now: readonly FieldReading[], before: readonly FieldReading[]): FlowDifference {
    const here = answerFor(now)
    const other = new GrainField(figures, ground!)
    other.setAll(before)
    const answers = [here, other.answer()] as const
    const [a, b] = [carry(display, answers[0]), carry(display, answers[1])]
    const bare = new Uint8Array(a.trust.length)
    head.display.indices.forEach((v, i) => {
      if (!isSkin(ZONE_IDS[head.display.zones[Math.floor(i / 3)]!]!)) bare[v] = 1
    })
    const degrees = Float32Array.from(a.trust, (t, v) => (bare[v] ? NaN : between(a, b, v, t)))
    const [c, d] = [carry(samples, answers[0]), carry(samples, answers[1])]
    let at = 0
    const zones = ZONES.map((zone) => {
      const list = zone.samples
        .map((_, i) => between(c, d, at + i, c.trust[at + i]!))
        .filter((x) => !Number.isNaN(x))
      at += zone.samples.length
      return {
        zoneId: zone.id,
        degrees: list.length > 0 ? list.reduce((s, x) => s + x, 0) / list.length : NaN,
      }
    })
    return transfer({ degrees, zones }, [degrees.buffer])
  },
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

/** Made when the first line is asked about. */
function surfaceOf(): Surface {
  surface ??= makeSurface(head.display)
  return surface
}

function between(
  a: { re: Float32Array; im: Float32Array },
  b: { re: Float32Array; im: Float32Array; trust: Float32Array },
  v: number,
  trust: number,
): number {
  if (inkOf(figures, trust) === 0 || inkOf(figures, b.trust[v]!) === 0) return NaN
  const cos = a.re[v]! * b.re[v]! + a.im[v]! * b.im[v]!
  return (Math.acos(Math.max(-1, Math.min(1, cos))) * 180) / Math.PI
}

export type HeadWorker = typeof work
expose(work)
