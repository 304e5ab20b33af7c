/** Everything that changes the map of a visit goes through here, so that it can be undone. */
import { useFigures } from '../../state/figures.ts'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { DomainError } from '../../../core/errors.ts'
import {
  toRadians,
  type FieldReading,
  type Making,
  type MapEdit,
  mirrorOfSide,
  mirrorOfZone,
  movedReading,
  readingFromBearing,
  readingFromStroke,
  readingsFromComb,
  toFieldReading,
  turnReadings,
  type Reading,
  type ReadingMethod,
  type StrokePoint,
  type ZonedReading,
  type NextReading,
} from '../../../core/grain/index.ts'
import { BODY_ZONES } from '../../../core/body/index.ts'
import { isBody, mirrorZone, type ZoneId } from '../../../core/zones/index.ts'
import { useEditReadings } from '../../api/visitWrites.ts'
import { useHead } from '../../head/loadHead.ts'
import { useView } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import type { FlowSummary } from '../../../core/grain/index.ts'
import { isFrozen, useGrain } from '../useStation.ts'

export interface Drawing {
  readonly method: ReadingMethod
  readonly comb: boolean
}

export type MapEditing = ReturnType<typeof useMapEditing>

export function useMapEditing(visit: VisitPage, drawing: Drawing) {
  const figures = useFigures()
  const send = useEditReadings(visit.id)
  const head = useHead()
  const grain = useGrain(visit)
  const [problem, setProblem] = useState<string>()
  const frozen = isFrozen(visit)
  const make = (edit: MapEdit) => {
    if (frozen) {
      setProblem('The service has begun: the map of this visit stays as it was.')
      return
    }
    setProblem(undefined)
    send.step(edit)
  }
  const told = (work: () => void) => {
    try {
      work()
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
      setProblem(error.message)
    }
  }
  const { method, comb } = drawing
  const making = (): Making => ({ newId, atMs: Date.now() })
  const fresh = () => ({ id: newId(), method, atMs: Date.now() })
  const own = (zone: ZoneId) => (send.now() ?? []).filter((r) => r.zoneId === zone)
  const centre = (zone: ZoneId) =>
    (isBody(zone) ? BODY_ZONES.find((z) => z.id === zone) : head.data?.zoneById.get(zone))?.centre
  const fromStroke = (points: readonly StrokePoint[]) =>
    comb ? readingsFromComb(figures, points, fresh(), newId) : [readingFromStroke(points, fresh())]
  return {
    problem: problem ?? send.error?.message,
    say: setProblem,
    frozen,
    /** A reading as it is now: keys may follow each other faster than the screen is drawn anew. */
    reading: (id: string | undefined) => (send.now() ?? []).find((r) => r.id === id),
    canUndo: send.canUndo,
    canRedo: send.canRedo,
    make,
    stroke: (points: readonly StrokePoint[]) =>
      told(() => {
        const add = fromStroke(points)
        make({ remove: [], add })
        useView.getState().choose(add[add.length - 1]!.zoneId)
      }),
    /** What a stroke would leave, for the field to follow; nothing while it is too short. */
    whileDrawing: (points: readonly StrokePoint[]): FieldReading[] => {
      try {
        const now = Date.now()
        return fromStroke(points).map((r, i) => ({
          ...toFieldReading(figures, r, now),
          id: `drawing${i}`,
        }))
      } catch (error) {
        if (!(error instanceof DomainError)) throw error
        return []
      }
    },
    turn: (zone: ZoneId, degrees: number) => {
      const readings = own(zone)
      const at = centre(zone)
      if (readings.length > 0) {
        make(turnReadings(readings, toRadians(degrees), making()))
      } else if (at) {
        const bearing = grain[zone]!.growthDirection + toRadians(degrees)
        make({ remove: [], add: [readingFromBearing(zone, at, bearing, fresh())] })
      }
    },
    /** Turns one reading; returns the id that it has from now on. */
    turnOne: (reading: Reading, degrees: number): string => {
      const id = newId()
      make(turnReadings([reading], toRadians(degrees), { ...making(), newId: () => id }))
      return id
    },
    /** Moves one reading; returns the id that it has from now on. */
    move: (reading: Reading, to: StrokePoint): string => {
      const id = newId()
      told(() => make(movedReading(reading, to, { ...making(), newId: () => id })))
      return id
    },
    takeGuess: (zone: ZoneId) => {
      const at = centre(zone)
      if (at) {
        make({
          remove: [],
          add: [readingFromBearing(zone, at, grain[zone]!.growthDirection, fresh())],
        })
      }
    },
    mirror: (zone: ZoneId) => {
      const edit = mirrorOfZone(send.now() ?? [], zone, making())
      if (!edit) return
      make(edit)
      useView.getState().choose(mirrorZone(zone))
    },
    /** The whole of one side onto the other. */
    mirrorSide: (from: 'left' | 'right') => {
      const edit = mirrorOfSide(send.now() ?? [], from, making())
      if (edit) make(edit)
      else setProblem(`Nothing is read on the client’s ${from} yet, so there is nothing to mirror.`)
    },
    forget: (readings: readonly Reading[]) => {
      if (readings.length > 0) make({ remove: readings, add: [] })
    },
    undo: send.undo,
    redo: send.redo,
  }
}

/** The field in figures, as soon as it is worked out; the last one stays meanwhile. */
export function useFieldSummary(readings: readonly ZonedReading[]): FlowSummary | undefined {
  const head = useHead()
  const [summary, setSummary] = useState<FlowSummary>()
  useEffect(() => {
    if (!head.data) return
    let wanted = true
    void head.data.worker.summary(readings).then((s) => {
      if (wanted) setSummary(s)
    })
    return () => {
      wanted = false
    }
  }, [head.data, readings])
  return summary
}

/** Rest before the next place is looked for, so that it does not run after every stroke. */
const REST_MS = 700

/** Where the next reading would tell most. */
export function useWhereNext(
  readings: readonly FieldReading[],
  zones: readonly ZoneId[],
  wanted: boolean,
): NextReading | undefined {
  const head = useHead()
  const [next, setNext] = useState<NextReading>()
  useEffect(() => {
    setNext(undefined)
    if (!head.data || !wanted) return
    let current = true
    const timer = setTimeout(() => {
      void head.data.worker.next(readings, zones).then((n) => {
        if (current) setNext(n)
      })
    }, REST_MS)
    return () => {
      current = false
      clearTimeout(timer)
    }
  }, [head.data, readings, zones, wanted])
  return next
}

/** A function that stays the same while what it does is always the newest. */
export function useLatest<A extends unknown[], R>(work: (...a: A) => R): (...a: A) => R {
  const latest = useRef(work)
  latest.current = work
  return useCallback((...a: A) => latest.current(...a), [])
}
