/** The keep-lines of a visit while they are edited: what is picked, what is dragged, and every act on them. */
import { useKeys } from '../../keys/useKeys.ts'
import { useMemo, useState } from 'react'
import { viewOf } from '../../../core/head/index.ts'
import {
  beginLine,
  beginMove,
  keptLines,
  moveOn,
  overcutRest,
  restingOutline,
  shiftTaps,
  dropPoint as withoutPoint,
  leadOn,
  missingEdges,
  missingLines,
  lineSide,
  movePoint,
  nudgePoint,
  takesTaps,
  type SideburnCut,
  usualLine,
  withMirror,
  type KeepLine,
  type LineKind,
} from '../../../core/lines/index.ts'
import type { IsoDate } from '../../../core/time/index.ts'
import type { ZoneId } from '../../../core/zones/index.ts'
import { useSaveNotes } from '../../api/visitWrites.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import { SERVICES, servicesOf } from '../../../core/services/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useView } from '../../state/view.ts'
import { nudgeBy } from './nudge.ts'
import { newId } from '../../state/words.ts'
import { isFrozen, type StationProps } from '../useStation.ts'

/** What is laid out to choose from first. */
const CANDIDATES = [
  { candidate: 'a', mm: -3 },
  { candidate: 'b', mm: 3 },
] as const
const sameKind = (a: KeepLine, b: KeepLine) => a.kind === b.kind && lineSide(a) === lineSide(b)

export type LineEditing = ReturnType<typeof useLineEditing>

export function useLineEditing(visit: StationProps['visit']) {
  const save = useSaveNotes(visit.id)
  const figures = useFigures()
  const frozen = isFrozen(visit)
  const head = useHead()
  const { notes, before } = visit
  const edges = servicesOf(visit.jobs).flatMap((s) => SERVICES[s].edges ?? [])
  const [kind, setKind] = useState<LineKind>((edges[0] as LineKind | undefined) ?? 'cheek')
  const [picked, setPicked] = useState<string>()
  const [point, setPoint] = useState<number>()
  /** A line while one of its points is dragged: kept only when it is let go. */
  const [held, setHeld] = useState<KeepLine>()
  const turnTo = useView((s) => s.turnTo)
  const lines = useMemo(
    () => notes.lines.map((l) => (held?.id === l.id ? held : l)),
    [notes.lines, held],
  )
  const line = lines.find((l) => l.id === picked)
  const put = (next: readonly KeepLine[]) => save.change(() => ({ lines: next }))
  const edit = (id: string, by: (l: KeepLine) => KeepLine) =>
    save.change((now) => ({ lines: now.lines.map((l) => (l.id === id ? by(l) : l)) }))
  const show = (l: Pick<KeepLine, 'taps'>) => {
    const v = viewOf(l.taps[l.taps.length >> 1]!.normal)
    turnTo(v.yawDeg, v.pitchDeg)
  }

  const tap = (hit: Hit) => {
    if (frozen || !takesTaps(hit)) return
    if (line) {
      edit(line.id, (l) => leadOn(l, hit, Date.now()))
      setPoint(line.taps.length)
      return
    }
    const begun = beginLine(newId(), kind, hit, Date.now())
    put([...lines, begun])
    setPicked(begun.id)
    setPoint(0)
  }
  const drag = (lineId: string, index: number, hit: Hit, done: boolean) => {
    if (done) setHeld(undefined)
    const own = notes.lines.find((l) => l.id === lineId)
    if (!own || !takesTaps(hit)) return
    const moved = movePoint(own, index, hit, Date.now())
    setPicked(lineId)
    setPoint(index)
    if (done) edit(lineId, () => moved)
    else setHeld(moved)
  }
  const nudge = (right: number, up: number) => {
    const surface = head.data
    if (!line || point === undefined || !surface || frozen) return
    const by = nudgeBy(right, up)
    // From where the tap is now: keys may follow each other faster than the screen is drawn anew.
    edit(line.id, (l) => nudgePoint(l, point, by, (p) => surface.nearest(p), Date.now()))
  }
  const remove = (id: string) => {
    put(lines.filter((l) => l.id !== id))
    if (id === picked) setPicked(undefined)
  }
  const dropPoint = () => {
    if (!line || point === undefined || frozen) return
    const rest = withoutPoint(line, point, Date.now())
    if (rest) edit(line.id, () => rest)
    else put(lines.filter((l) => l.id !== line.id))
    setPoint(rest ? Math.max(0, point - 1) : undefined)
  }
  const mirror = () => {
    const mirrored = line && !frozen && withMirror(lines, line, newId(), Date.now())
    if (!mirrored) return
    put(mirrored.lines)
    setPicked(mirrored.made.id)
  }
  const layUsual = (side: 'left' | 'right', cut?: SideburnCut) => {
    if (!head.data) return
    const made = {
      ...usualLine(kind, side, head.data.nearest, cut),
      id: newId(),
      drawnAtMs: Date.now(),
    }
    put([...lines, made])
    setPicked(made.id)
    setPoint(0)
    show(made)
  }
  const edgesMissing = missingEdges(
    edges,
    lines.map((l) => ({ kind: l.kind, at: l.taps })),
  )
  /** Takes the usual way of every edge that the service still needs. */
  const layEdges = () => {
    const nearest = head.data?.nearest
    if (!nearest) return
    put([
      ...lines,
      ...edgesMissing.map((m) => ({
        ...usualLine(m.kind, m.side, nearest),
        id: newId(),
        drawnAtMs: Date.now(),
      })),
    ])
  }
  const missing = missingLines(lines, before?.lines ?? [])
  useKeys({
    'move-left': line && (() => nudge(-1, 0)),
    'move-right': line && (() => nudge(1, 0)),
    'move-up': line && (() => nudge(0, 1)),
    'move-down': line && (() => nudge(0, -1)),
    'reading-after': line && (() => setPoint(((point ?? -1) + 1) % line.taps.length)),
    'reading-before':
      line && (() => setPoint(((point ?? 0) - 1 + line.taps.length) % line.taps.length)),
  })
  /** How far each candidate was moved out of the present line, and in how many visits: as it is typed. */
  const [shifts, setShifts] = useState<ReadonlyMap<string, number>>(new Map())
  const [steps, setSteps] = useState<ReadonlyMap<string, number>>(new Map())
  const place = head.data?.nearest
  /** Two lines to choose from: a little into the beard, and a little out of it. */
  const compare = (present: KeepLine) => {
    if (!place) return
    const made = CANDIDATES.map(({ candidate, mm }): KeepLine => {
      const { move: _move, ...rest } = present
      const taps = shiftTaps(present, mm, place)
      return { ...rest, id: newId(), candidate, taps, drawnAtMs: Date.now() }
    })
    setShifts(new Map(made.map((l, i) => [l.id, CANDIDATES[i]!.mm])))
    put([...lines, ...made])
  }
  const shift = (id: string, mm: number) => {
    const own = lines.find((l) => l.id === id)
    const present = own && keptLines(lines).find((l) => sameKind(l, own))
    if (!place || !present) return
    setShifts((now) => new Map(now).set(id, mm))
    edit(id, (l) => ({ ...l, taps: shiftTaps(present, mm, place), drawnAtMs: Date.now() }))
  }
  const dropCandidates = (gone: readonly KeepLine[]) => {
    put(lines.filter((l) => !gone.some((g) => g.id === l.id)))
    if (gone.some((g) => g.id === picked)) setPicked(undefined)
  }
  /** The client has chosen: the line takes its first step now. */
  const take = (candidate: KeepLine, present: KeepLine, count: number) => {
    if (!place) return
    const begun = beginMove(present, candidate.taps, count, place, Date.now())
    put(
      lines
        .filter((l) => !(l.candidate && sameKind(l, candidate)))
        .map((l) => (l.id === present.id ? begun : l)),
    )
    setPicked(present.id)
  }
  const overCut = (of: KeepLine, at: number, mm: number, until: IsoDate | undefined) => {
    if (!place) return
    const taps = overcutRest(figures, of, at, mm, place)
    save.change((now) => ({
      outlines: [...(now.outlines ?? []), restingOutline(newId(), taps, Date.now(), until)],
    }))
  }
  return {
    ...{ compare, shift, dropCandidates, take, overCut },
    shiftOf: (id: string) => shifts.get(id),
    stepsOf: (id: string) => steps.get(id),
    setSteps: (id: string, count: number) => setSteps((now) => new Map(now).set(id, count)),
    stepOn: (id: string) => place && edit(id, (l) => moveOn(l, place, Date.now())),
    stopMove: (id: string) => edit(id, ({ move: _move, ...l }) => l),
    ...{ lines, line, kind, picked, point, missing, frozen, head: head.data },
    ...{ error: save.error, canUndo: save.canUndo, undo: save.undo },
    ...{ tap, drag, dropPoint, mirror, layUsual, layEdges, edgesMissing, remove },
    /** Makes a point the chosen one. */
    pickPoint: (lineId: string, index: number) => {
      setPicked(lineId)
      setPoint(index)
    },
    /** Picks a line and turns the head to it; picked again it is let go. */
    pick: (l: KeepLine) => {
      setPicked(l.id === picked ? undefined : l.id)
      setPoint(undefined)
      show(l)
    },
    done: () => setPicked(undefined),
    choose: (next: LineKind) => {
      setKind(next)
      if (line) edit(line.id, (l) => ({ ...l, kind: next }))
    },
    keep: (side: 'left' | 'right') => line && edit(line.id, (l) => ({ ...l, keep: side })),
    recall: () => put([...lines, ...missing.map((l) => ({ ...l, id: newId() }))]),
    toggleZone: (id: ZoneId) =>
      save.change((now) => ({
        keptZones: now.keptZones.includes(id)
          ? now.keptZones.filter((z) => z !== id)
          : [...now.keptZones, id],
      })),
  }
}
