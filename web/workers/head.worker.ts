/** Off the main thread: the map of the head, lines over its surface, and plans. */
import { DEFAULTS, type ChangedFigures, type Figures } from '../../core/house/index.ts'
import {
  HeadMap,
  type FieldReading,
  type FlowAsk,
  type FlowDifference,
  type FlowSummary,
  type NextReading,
  type Streamlets,
  type ZonedReading,
} from '../../core/grain/index.ts'
import {
  makeSurface,
  unpackHead,
  type PackedHead,
  type Surface,
  type SurfacePoint,
  type ZoneRecord,
} from '../../core/head/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import {
  drawnOutlines,
  linePath,
  type LineTap,
  outlineCm2,
  outlineInside,
  outlinePath,
} from '../../core/lines/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import type { PlanAsk } from '../../core/visit/index.ts'
import {
  drawnLines,
  headFlow,
  headGround,
  headRoom,
  type Room,
  type SearchState,
  type SkinGround,
} from '../../core/plan/index.ts'
import type { Style } from '../../core/services/index.ts'
import type { Cause, Live } from '../../core/chair/index.ts'
import { expose, transfer } from 'comlink'
import zoneFile from '../../generated/zones.json'
import { PlanDesk, type Planned, type Replanning } from './plans.ts'

const ZONES = zoneFile as unknown as readonly ZoneRecord[]

let head: PackedHead
/** The house's, as it was last told. */
let figures: Figures = DEFAULTS
let made: HeadMap | undefined
let surface: Surface | undefined
/** Rises with every demand, so that slow work can see that it is no longer wanted. */
let ticket = 0

const breath = () => new Promise<void>((go) => setTimeout(go, 0))
const map = () => (made ??= new HeadMap(figures, head, ZONES))
/** Made when the first line is asked about. */
const surfaceOf = () => (surface ??= makeSurface(head.display))

let skinGround: SkinGround | undefined
let room: Room | undefined
const desk = new PlanDesk({
  ground: () => (skinGround ??= headGround(head, ZONES)),
  room: () => (room ??= headRoom(head.display)),
  flow: (readings) => {
    const answer = map().told(readings)
    const { ground, display } = map().prepare()
    return headFlow(figures, ground, answer, readings, head.display, head.solve.zones, display)
  },
  lines: (lines) => drawnLines(surfaceOf, lines),
  outlines: (outlines) => drawnOutlines(surfaceOf, outlines),
})

const work = {
  /** Takes a copy of the head's bytes. */
  load(bytes: ArrayBuffer): void {
    head = unpackHead(bytes)
  },

  /** Takes the house's figures over: the map is made anew with them. */
  figures(changed: ChangedFigures): void {
    figures = figuresOf(changed)
    made = undefined
  },

  /** Makes the map ready, so that the first stroke does not wait for it. */
  warm(): void {
    map().prepare()
  },

  /** The marks of a field. */
  flow(ask: FlowAsk): Streamlets {
    ticket++
    const marks = map().marks(ask)
    if (marks.count === 0) return marks
    return transfer(marks, [
      marks.positions.buffer as ArrayBuffer,
      marks.points.buffer as ArrayBuffer,
      marks.zones.buffer as ArrayBuffer,
      marks.ink.buffer as ArrayBuffer,
      marks.spines.buffer as ArrayBuffer,
    ])
  },

  /** The field zone by zone, and what turns in it. */
  summary: (readings: readonly ZonedReading[]): FlowSummary => map().summary(readings),

  /** The place in the given zones where a reading would tell most; undefined when something else was asked meanwhile. */
  next(
    readings: readonly FieldReading[],
    zones: readonly ZoneId[],
  ): Promise<NextReading | undefined> {
    const mine = ++ticket
    let looked = 0
    return map().next(readings, zones, async () => {
      if (looked++ % 4 === 0) await breath()
      return mine === ticket
    })
  },

  /** Direction and trust at every vertex of the display mesh. */
  vertices(readings: readonly FieldReading[]): { vectors: Float32Array; trust: Float32Array } {
    const { vectors, trust } = map().vertices(readings)
    return transfer({ vectors, trust }, [
      vectors.buffer as ArrayBuffer,
      trust.buffer as ArrayBuffer,
    ])
  },

  /** The shortest way over the skin through some places. */
  line(taps: readonly LineTap[]): SurfacePoint[] {
    return linePath(surfaceOf(), { taps }).map(({ point, normal }) => ({ point, normal }))
  },

  /** An outline: its way round, and the skin inside, cm². */
  outline(taps: LineTap[]): { path: SurfacePoint[]; cm2: number } {
    const surface = surfaceOf()
    return {
      path: outlinePath(surface, { taps }).map(({ point, normal }) => ({ point, normal })),
      cm2: outlineCm2(surface.mesh, outlineInside(surface, { taps })),
    }
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
    const difference = map().compare(now, before)
    return transfer(difference, [difference.degrees.buffer])
  },
}

export type HeadWorker = typeof work
expose(work)
