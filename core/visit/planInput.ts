/**
 * What a plan is made from, put together the same way on the screen, in its worker, on the server and in the demo: first as
 * plain data that can be sent, then with the ground under it.
 */
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import { toFieldReading, type Reading, type ZonedReading } from '../grain/index.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { ClientModel } from '../history/index.ts'
import type { Schools, ChangedFigures, Figures } from '../house/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import {
  type DrawnOutline,
  type KeepLine,
  keptLines,
  type Outline,
  standingOutlines,
} from '../lines/index.ts'
import {
  bodyFlow,
  bodyGround,
  type Room,
  type Hand,
  type PlanInput,
  PlanMemory,
  paceKind,
  paceOf,
  PACE_KINDS,
  type PaceSeen,
  type DrawnLine,
  type SkinFlow,
  type SkinGround,
  type PlanChoice,
} from '../plan/index.ts'
import type { Screening } from '../screening/index.ts'
import { isBodySitting, leadJob, type Job } from '../services/index.ts'
import { dateAt, DAY_MS, offsetHere } from '../time/index.ts'

/** A visit as far as its plan hangs on it. */
export interface PlannedVisit {
  readonly jobs: readonly Job[]
  readonly workerId: string
  readonly readings: readonly Reading[]
  /** What is known of whoever read them, degrees (`readerOf`); null while nothing is. */
  readonly readerDeg: number | null
  readonly notes: SurfaceNotes
  readonly endedAtMs: number | null
}

/** A client as far as a plan hangs on them. */
export interface PlannedClient {
  readonly skin: SkinAndHair
  /** Schools that differ from the house's. */
  readonly schools: Partial<Schools>
  readonly model: Pick<ClientModel, 'sensitivity' | 'belief' | 'bumps' | 'record' | 'growth'>
}

/** Who works, as far as a plan hangs on them. */
interface PlanningWorker {
  readonly hand: Hand
  readonly level: Level
}

/** A house as far as a plan hangs on it. */
export interface PlanningHouse {
  readonly schools: Schools
  readonly workers: readonly (PlanningWorker & { readonly id: string })[]
  readonly paces: Readonly<Record<string, readonly PaceSeen[]>>
  readonly kit: readonly BladeId[]
  readonly figures: ChangedFigures
  readonly changes: readonly unknown[]
}

/** Everything that a plan depends on, as plain data. */
export interface PlanAsk extends Omit<
  PlanInput,
  | 'figures'
  | 'ground'
  | 'flow'
  | 'room'
  | 'lines'
  | 'outlines'
  | 'sensitivity'
  | 'bumps'
  | 'growth'
  | 'memory'
  | 'hand'
  | 'level'
  | 'pace'
  | 'paces'
> {
  readonly readings: readonly ZonedReading[]
  readonly lines: readonly KeepLine[]
  readonly outlines: readonly Outline[]
  readonly sensitivity: ClientModel['sensitivity']
  readonly bumps: ClientModel['bumps']
  readonly growth: ClientModel['growth']
  /** Who works; null where the visit's worker is none of the house's. */
  readonly worker: (PlanningWorker & Pick<PlanInput, 'pace' | 'paces'>) | null
}

/** Readings age by whole days, so that the field stands still while one works. */
export function readingsToday(
  figures: Figures,
  visit: Pick<PlannedVisit, 'readings' | 'readerDeg' | 'endedAtMs'>,
  nowMs: number,
): ZonedReading[] {
  const asOf = Math.ceil((visit.endedAtMs ?? nowMs) / DAY_MS) * DAY_MS
  const day = (r: Reading) => ({ ...r, atMs: Math.floor(r.atMs / DAY_MS) * DAY_MS })
  const { readerDeg } = visit
  return visit.readings.map((r) => ({
    ...toFieldReading(figures, day(r), asOf),
    ...(readerDeg !== null && { readerDeg }),
  }))
}

/** @param screening what the gate says of the visit */
export function planAsk(
  figures: Figures,
  visit: PlannedVisit,
  client: PlannedClient,
  house: PlanningHouse,
  screening: Screening,
  choice: PlanChoice,
  nowMs: number,
): PlanAsk {
  const { keptZones, hair, strays, lines, outlines = [], lengthMm, heavier } = visit.notes
  const worker = house.workers.find((w) => w.id === visit.workerId)
  return {
    jobs: visit.jobs,
    readings: readingsToday(figures, visit, nowMs),
    lines: keptLines(lines),
    outlines: standingOutlines(outlines, dateAt(nowMs, offsetHere)),
    client: client.skin,
    screening,
    schools: { ...house.schools, ...client.schools },
    worker: worker
      ? {
          hand: worker.hand,
          level: worker.level,
          pace: paceOf(
            figures,
            paceKind(leadJob(visit.jobs).service),
            house.paces[worker.id] ?? [],
          ),
          ...(visit.jobs.length > 1 && {
            paces: Object.fromEntries(
              PACE_KINDS.map((kind) => [kind, paceOf(figures, kind, house.paces[worker.id] ?? [])]),
            ),
          }),
        }
      : null,
    kit: house.kit,
    sensitivity: client.model.sensitivity,
    belief: client.model.belief,
    bumps: client.model.bumps,
    record: client.model.record,
    growth: client.model.growth,
    notes: {
      keptZones,
      hair,
      strays,
      ...(lengthMm !== undefined && { lengthMm }),
      ...(heavier && { heavier }),
    },
    house: { version: house.changes.length, changed: { ...house.figures } },
    choice,
  }
}

/** The head's field, lines and surroundings, worked out when they are asked for. */
export interface HeadSkin {
  readonly ground: () => SkinGround
  readonly room: () => Room
  readonly flow: (readings: readonly ZonedReading[]) => SkinFlow
  readonly lines: (lines: readonly KeepLine[]) => DrawnLine[]
  readonly outlines: (outlines: readonly Outline[]) => DrawnOutline[]
}

/** What a plan stands on, and what is remembered of it between plans of the same skin. */
export type PlanGround = Pick<
  PlanInput,
  'ground' | 'flow' | 'room' | 'lines' | 'outlines' | 'memory'
>

/** The ground of a plan: the head as it grows, or the sheet of the body. */
export function groundOf(
  figures: Figures,
  ask: Pick<PlanAsk, 'jobs' | 'readings' | 'lines' | 'outlines'>,
  head: HeadSkin,
): PlanGround {
  const memory = new PlanMemory()
  if (isBodySitting(ask.jobs)) {
    return {
      ground: bodyGround(),
      flow: bodyFlow(figures, ask.readings),
      room: undefined,
      lines: [],
      outlines: [],
      memory,
    }
  }
  return {
    ground: head.ground(),
    flow: head.flow(ask.readings),
    room: head.room(),
    lines: head.lines(ask.lines),
    outlines: head.outlines(ask.outlines),
    memory,
  }
}

/** What the ground of a plan hangs on: while it stays the same, so does the ground. */
export function groundKey(ask: PlanAsk): string {
  return JSON.stringify([
    ask.jobs,
    ask.readings.map((r) => [r.id, r.point, r.tangent, r.weight, r.readerDeg]),
    ask.lines,
    ask.outlines,
    ask.screening.leaveOutSpots,
    ask.notes.keptZones,
    ask.house.changed,
  ])
}

/**
 * The plan's input.
 * @throws DomainError `no-such-worker`
 */
export function planInput(figures: Figures, ask: PlanAsk, ground: PlanGround): PlanInput {
  const { worker, readings: _readings, sensitivity, bumps, growth, ...rest } = ask
  if (!worker) {
    throw new DomainError('no-such-worker', 'That worker is not of this house. Choose one at Ask.')
  }
  return {
    ...rest,
    ...worker,
    ...ground,
    figures,
    sensitivity: (zone) => sensitivity[zone]!,
    bumps: (zone) => bumps[zone]!,
    growth: (zone) => growth[zone]!,
  }
}
