/** The outlines of a visit while they are edited: what is picked, what is dragged, and every act on them. */
import { useMemo, useState } from 'react'
import { type Vec3, viewOf } from '../../../core/head/index.ts'
import {
  areaDownTo,
  dropPoint,
  type FadeEdge,
  leadOn,
  movePoint,
  nudgePoint,
  type Outline,
  type OutlineKind,
  takesTaps,
  usualStrip,
} from '../../../core/lines/index.ts'
import type { IsoDate } from '../../../core/time/index.ts'
import { isSkin, type ZoneId } from '../../../core/zones/index.ts'
import { useSaveNotes } from '../../api/visitWrites.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import { useKeys } from '../../keys/useKeys.ts'
import { nudgeBy } from './nudge.ts'
import { useView } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import { isFrozen, type StationProps } from '../useStation.ts'

const NONE: readonly Outline[] = []
/** Where a first is tried: hidden, and its skin like that of the face (common practice). */
const USUAL: ZoneId = 'jaw-left'

export type OutlineEditing = ReturnType<typeof useOutlineEditing>

export function useOutlineEditing(visit: StationProps['visit']) {
  const save = useSaveNotes(visit.id)
  const frozen = isFrozen(visit)
  const head = useHead()
  const kept = visit.notes.outlines ?? NONE
  const [kind, setKind] = useState<OutlineKind>('trial')
  const [picked, setPicked] = useState<string | undefined>(kept[0]?.id)
  const [point, setPoint] = useState<number>()
  /** An outline while one of its points is dragged: kept only when it is let go. */
  const [held, setHeld] = useState<Outline>()
  const turnTo = useView((s) => s.turnTo)
  const chosen = useView((s) => s.chosen)
  const outlines = useMemo(() => kept.map((o) => (held?.id === o.id ? held : o)), [kept, held])
  const outline = outlines.find((o) => o.id === picked)
  const change = (by: (now: readonly Outline[]) => readonly Outline[]) =>
    save.change((now) => ({ outlines: by(now.outlines ?? NONE) }))
  const edit = (id: string, by: (o: Outline) => Outline) =>
    change((now) => now.map((o) => (o.id === id ? by(o) : o)))
  const show = ({ taps }: Pick<Outline, 'taps'>) => {
    const v = viewOf(taps[0]!.normal)
    turnTo(v.yawDeg, v.pitchDeg)
  }
  const put = (made: Outline) => {
    change((now) => [...now, made])
    setPicked(made.id)
  }
  const zone = chosen && isSkin(chosen) ? chosen : USUAL
  const nudge = (right: number, up: number) => {
    const surface = head.data
    if (!outline || point === undefined || !surface || frozen) return
    const by = nudgeBy(right, up)
    edit(outline.id, (o) => nudgePoint(o, point, by, (p) => surface.nearest(p), Date.now()))
  }
  useKeys({
    'move-left': outline && (() => nudge(-1, 0)),
    'move-right': outline && (() => nudge(1, 0)),
    'move-up': outline && (() => nudge(0, 1)),
    'move-down': outline && (() => nudge(0, -1)),
    'reading-after': outline && (() => setPoint(((point ?? -1) + 1) % outline.taps.length)),
    'reading-before':
      outline && (() => setPoint(((point ?? 0) - 1 + outline.taps.length) % outline.taps.length)),
  })
  return {
    ...{ outlines, outline, kind, picked, point, frozen, zone, head: head.data },
    ...{ error: save.error, canUndo: save.canUndo, undo: save.undo },
    /** The zone that its middle lies in. */
    zoneOf: ({ taps }: Outline): ZoneId => {
      const middle = [0, 1, 2].map((k) => taps.reduce((s, t) => s + t.point[k]! / taps.length, 0))
      return head.data?.nearest(middle as unknown as Vec3).zoneId ?? taps[0]!.zoneId
    },
    tap: (hit: Hit) => {
      if (frozen || !takesTaps(hit)) return
      if (outline) edit(outline.id, (o) => leadOn(o, hit, Date.now()))
      else put(leadOn({ id: newId(), kind, taps: [], drawnAtMs: 0 }, hit, Date.now()))
      setPoint(outline ? outline.taps.length : 0)
    },
    drag: (id: string, index: number, hit: Hit, done: boolean) => {
      if (done) setHeld(undefined)
      const own = kept.find((o) => o.id === id)
      if (!own || !takesTaps(hit)) return
      setPicked(id)
      setPoint(index)
      if (done) edit(id, (o) => movePoint(o, index, hit, Date.now()))
      else setHeld(movePoint(own, index, hit, Date.now()))
    },
    pickPoint: (id: string, index: number) => {
      setPicked(id)
      setPoint(index)
    },
    dropPoint: () => {
      if (!outline || point === undefined || frozen) return
      const rest = dropPoint(outline, point, Date.now())
      if (rest) edit(outline.id, () => rest)
      else change((now) => now.filter((o) => o.id !== outline.id))
      setPoint(rest ? Math.max(0, point - 1) : undefined)
    },
    layStrip: () => {
      const record = head.data?.zoneById.get(zone)
      if (!record || !head.data) return
      const taps = usualStrip(record, head.data.nearest)
      put({ id: newId(), kind: 'trial', taps, drawnAtMs: Date.now() })
      show({ taps })
    },
    /** The face down to where its hair shows least, as the client's own area. */
    propose: (edge: FadeEdge['id']) => {
      if (!head.data) return
      const taps = areaDownTo(edge, head.data.zoneById, head.data.nearest)
      put({ id: newId(), kind: 'own', taps, drawnAtMs: Date.now() })
      show({ taps: [taps[4]!] })
    },
    remove: (id: string) => {
      change((now) => now.filter((o) => o.id !== id))
      if (id === picked) setPicked(undefined)
    },
    /** Picks an outline and turns the head to it; picked again it is let go. */
    pick: (o: Outline) => {
      setPicked(o.id === picked ? undefined : o.id)
      setPoint(undefined)
      show(o)
    },
    done: () => setPicked(undefined),
    choose: (next: OutlineKind) => {
      setKind(next)
      if (outline)
        edit(outline.id, ({ until: _until, ...o }) => ({
          ...{ ...o, kind: next, drawnAtMs: Date.now() },
        }))
    },
    restUntil: (until: IsoDate | undefined) =>
      outline &&
      edit(outline.id, ({ until: _until, ...o }) => ({
        ...{ ...o, drawnAtMs: Date.now() },
        ...(until && { until }),
      })),
  }
}
