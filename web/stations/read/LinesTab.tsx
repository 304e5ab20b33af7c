/** Keep-lines: tapped on the head, laid the shortest way over the skin, dragged into place, measured against each other. */
import { ON_SKIN } from '../../../core/palette.ts'
import { pathLength, viewAxes, type Vec3 } from '../../../core/head/index.ts'
import { zoneName, isSkin, type ZoneId } from '../../../core/zones/index.ts'
import {
  LINE_KINDS,
  LINE_WORDS,
  lineName,
  lineSide,
  mirrorLine,
  type KeepLine,
  type LineKind,
  type LineTap,
  usualLine,
} from '../../../core/lines/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useHotkeys } from '@mantine/hooks'
import { useMemo, useState } from 'react'
import { useSaveNotes } from '../../api/queries.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import type { HeadHandle, HeadLine } from '../../head/shared.ts'
import { useLinePaths } from '../../marks/useLinePaths.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useHeadLayers } from '../../state/layers.ts'
import { useView, viewOf } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import { isFrozen, useFlowLayer, type StationProps } from '../useStation.ts'
import { useLatest } from './useMap.ts'
import { LineFacts, sideWords } from './LineFacts.tsx'

/** A chosen point moves this far with an arrow key. */
const NUDGE_MM = 1

export function LinesTab({ visit }: StationProps) {
  const figures = useFigures()
  const save = useSaveNotes(visit.id)
  const frozen = isFrozen(visit)
  const head = useHead()
  const flow = useFlowLayer(visit)
  const { notes, before } = visit
  const [kind, setKind] = useState<LineKind>('cheek')
  const [picked, setPicked] = useState<string>()
  const [point, setPoint] = useState<number>()
  /** A line while one of its points is dragged: kept only when it is let go. */
  const [held, setHeld] = useState<KeepLine>()
  const turnTo = useView((s) => s.turnTo)
  const zone = useView((s) => s.chosen)

  const lines = useMemo(
    () => notes.lines.map((l) => (held?.id === l.id ? held : l)),
    [notes.lines, held],
  )
  const earlier = useMemo(
    () => (before?.lines ?? []).map((l) => ({ ...l, id: `before:${l.id}` })),
    [before],
  )
  const paths = useLinePaths(lines)
  const pathsBefore = useLinePaths(earlier)
  const line = lines.find((l) => l.id === picked)

  const put = (next: readonly KeepLine[]) => save.change(() => ({ lines: next }))
  const edit = (id: string, by: (l: KeepLine) => KeepLine) =>
    save.change((now) => ({ lines: now.lines.map((l) => (l.id === id ? by(l) : l)) }))
  const withTaps = (l: KeepLine, taps: readonly LineTap[]): KeepLine => ({
    ...l,
    taps,
    drawnAtMs: Date.now(),
  })
  const tapOf = ({ zoneId, point: p, normal }: LineTap): LineTap => ({ zoneId, point: p, normal })

  const onTap = useLatest((hit: Hit) => {
    if (frozen || !isSkin(hit.zoneId)) return
    if (line) {
      edit(line.id, (l) => withTaps(l, [...l.taps, tapOf(hit)]))
      setPoint(line.taps.length)
      return
    }
    const id = newId()
    put([...lines, { id, kind, keep: 'left', drawnAtMs: Date.now(), taps: [tapOf(hit)] }])
    setPicked(id)
    setPoint(0)
  })
  const onHandle = useLatest((id: string, hit: Hit, done: boolean) => {
    const [lineId, index] = id.split('#') as [string, string]
    const at = Number(index)
    const own = notes.lines.find((l) => l.id === lineId)
    if (!own || !isSkin(hit.zoneId)) {
      if (done) setHeld(undefined)
      return
    }
    const moved = withTaps(
      own,
      own.taps.map((t, i) => (i === at ? tapOf(hit) : t)),
    )
    setPicked(lineId)
    setPoint(at)
    if (done) {
      setHeld(undefined)
      edit(lineId, () => moved)
    } else setHeld(moved)
  })
  const onPickHandle = useLatest((id: string) => {
    const [lineId, index] = id.split('#') as [string, string]
    setPicked(lineId)
    setPoint(Number(index))
  })
  const handles = useMemo<HeadHandle[]>(
    () =>
      (frozen ? [] : lines)
        .filter((l) => l.id === picked || l.taps.length < 2)
        .flatMap((l) =>
          l.taps.map((t, i) => ({
            id: `${l.id}#${i}`,
            point: t.point,
            normal: t.normal,
            chosen: l.id === picked && i === point,
            grips: true,
          })),
        ),
    [lines, picked, point, frozen],
  )
  const drawn = useMemo(() => {
    const out: HeadLine[] = []
    for (const l of earlier) {
      const path = pathsBefore.get(l.id)
      if (path && line && l.kind === line.kind && lineSide(l) === lineSide(line))
        out.push({ id: l.id, path, look: 'before' })
    }
    for (const l of lines) {
      const path = paths.get(l.id)
      if (path)
        out.push({ id: l.id, path, keep: l.keep, look: l.id === picked ? 'chosen' : 'keep' })
    }
    return out
  }, [earlier, pathsBefore, lines, paths, picked, line])
  useHeadLayers(
    useMemo(
      () => ({
        flow,
        lines: drawn,
        handles,
        spots: markSpots(figures, visit.asked.spots),
        tints: notes.keptZones.map((zoneId) => ({ zoneId, colour: ON_SKIN.kelp, opacity: 0.3 })),
        onTap,
        onPickHandle,
        ...(!frozen && { onHandle }),
      }),
      [
        figures,
        flow,
        drawn,
        handles,
        visit.asked.spots,
        notes.keptZones,
        onTap,
        onPickHandle,
        onHandle,
        frozen,
      ],
    ),
  )

  const nudge = (right: number, up: number) => {
    const surface = head.data
    if (!line || point === undefined || !surface || frozen) return
    const { yawDeg, pitchDeg } = useView.getState()
    const axes = viewAxes(yawDeg, pitchDeg)
    // From where the tap is now: keys may follow each other faster than the screen is drawn anew.
    edit(line.id, (l) => {
      const tap = l.taps[point]
      if (!tap) return l
      const to = surface.nearest(
        tap.point.map(
          (x, k) => x + NUDGE_MM * (right * axes.right[k]! + up * axes.up[k]!),
        ) as unknown as Vec3,
      )
      if (!isSkin(to.zoneId)) return l
      return withTaps(
        l,
        l.taps.map((t, i) => (i === point ? tapOf(to) : t)),
      )
    })
  }
  const dropPoint = () => {
    if (!line || point === undefined || frozen) return
    const taps = line.taps.filter((_, i) => i !== point)
    if (taps.length === 0) put(lines.filter((l) => l.id !== line.id))
    else edit(line.id, (l) => withTaps(l, taps))
    setPoint(taps.length > 0 ? Math.max(0, point - 1) : undefined)
  }
  useHotkeys([
    ['ArrowLeft', () => nudge(-1, 0)],
    ['ArrowRight', () => nudge(1, 0)],
    ['ArrowUp', () => nudge(0, 1)],
    ['ArrowDown', () => nudge(0, -1)],
    ['.', () => line && setPoint(((point ?? -1) + 1) % line.taps.length)],
    [',', () => line && setPoint(((point ?? 0) - 1 + line.taps.length) % line.taps.length)],
    ['Delete', dropPoint],
    ['Escape', () => setPicked(undefined)],
    ['M', () => mirror()],
    ['Z', () => !frozen && save.undo()],
  ])
  const pick = (l: KeepLine) => {
    setPicked(l.id === picked ? undefined : l.id)
    setPoint(undefined)
    const middle = l.taps[l.taps.length >> 1]!
    const v = viewOf(middle.normal)
    turnTo(v.yawDeg, v.pitchDeg)
  }
  const lay = (side: 'left' | 'right') => {
    if (!head.data) return
    const made = usualLine(kind, side, head.data.zones)
    const id = newId()
    put([...lines, { ...made, id, drawnAtMs: Date.now() }])
    setPicked(id)
    setPoint(0)
    const v = viewOf(made.taps[made.taps.length >> 1]!.normal)
    turnTo(v.yawDeg, v.pitchDeg)
  }
  function mirror() {
    if (!line || frozen || lineSide(line) === 'middle') return
    const made = mirrorLine(line, newId(), Date.now())
    const side = lineSide(made)
    put([...lines.filter((l) => !(l.kind === made.kind && lineSide(l) === side)), made])
    setPicked(made.id)
  }
  const recall = () => {
    const missing = (before?.lines ?? []).filter(
      (b) => !lines.some((l) => l.kind === b.kind && lineSide(l) === lineSide(b)),
    )
    put([...lines, ...missing.map((l) => ({ ...l, id: newId() }))])
  }
  const toggleZone = (id: ZoneId) =>
    save.change((now) => ({
      keptZones: now.keptZones.includes(id)
        ? now.keptZones.filter((z) => z !== id)
        : [...now.keptZones, id],
    }))
  const missing = (before?.lines ?? []).filter(
    (b) => !lines.some((l) => l.kind === b.kind && lineSide(l) === lineSide(b)),
  ).length

  return (
    <>
      <h1>Lines to keep</h1>
      {save.error && (
        <p role="alert" className="problem">
          {save.error.message}
        </p>
      )}
      <div className="tab-body" tabIndex={0} role="region" aria-label="Lines to keep">
        <p className="soft">
          {line
            ? 'Tap the head to lead the line on; drag a point to move it. The teeth stand on the side that is kept.'
            : 'Choose what it is, then tap along it on the head. What lies on the kept side is never in a plan.'}
        </p>
        <div className="switch wrap" role="group" aria-label="Kind of line">
          {LINE_KINDS.map((k) => (
            <button
              key={k}
              aria-pressed={(line?.kind ?? kind) === k}
              disabled={frozen}
              onClick={() => {
                setKind(k)
                if (line) edit(line.id, (l) => ({ ...l, kind: k }))
              }}
            >
              {LINE_WORDS[k].replace(' line', '')}
            </button>
          ))}
        </div>
        <div className="line-tools">
          <button disabled={frozen || !save.canUndo} onClick={save.undo}>
            Undo <kbd>Z</kbd>
          </button>
          {(['left', 'right'] as const).map((side) => (
            <button key={side} disabled={frozen || !head.data} onClick={() => lay(side)}>
              Usual, {side}
            </button>
          ))}
          {missing > 0 && before && (
            <button disabled={frozen} onClick={recall}>
              Recall {missing} of {dateWords(before.atMs)}
            </button>
          )}
          {zone && (
            <button
              disabled={frozen}
              aria-pressed={notes.keptZones.includes(zone)}
              onClick={() => toggleZone(zone)}
            >
              {notes.keptZones.includes(zone) ? 'Kept: ' : 'Keep all: '}
              {zoneName(zone)}
            </button>
          )}
        </div>
        {line && (
          <LineFacts
            line={line}
            lines={lines}
            paths={paths}
            before={earlier}
            pathsBefore={pathsBefore}
            beforeAtMs={before?.atMs}
            whereWords={(p) => (head.data ? zoneName(head.data.nearest(p).zoneId) : '')}
          >
            <div className="switch" role="group" aria-label="Side that is kept">
              {(['left', 'right'] as const).map((side) => (
                <button
                  key={side}
                  aria-pressed={line.keep === side}
                  disabled={frozen}
                  onClick={() => edit(line.id, (l) => ({ ...l, keep: side }))}
                >
                  Keep {sideWords(paths.get(line.id), side)}
                </button>
              ))}
            </div>
            <div className="line-tools">
              <button
                disabled={frozen || lineSide(line) === 'middle' || line.taps.length < 2}
                onClick={mirror}
              >
                Mirror <kbd>M</kbd>
              </button>
              <button disabled={point === undefined || frozen} onClick={dropPoint}>
                Drop point {point === undefined ? '' : point + 1} <kbd>Del</kbd>
              </button>
              <button onClick={() => setPicked(undefined)}>
                Done <kbd>Esc</kbd>
              </button>
            </div>
          </LineFacts>
        )}
        {lines.length === 0 ? (
          <p className="soft">No lines yet.</p>
        ) : (
          <ul className="plain-list line-list">
            {lines.map((l) => (
              <li key={l.id} className={l.id === picked ? 'chosen' : ''}>
                <button
                  className="row-button"
                  aria-pressed={l.id === picked}
                  onClick={() => pick(l)}
                >
                  {lineName(l)}
                </button>
                <span className="soft">
                  {paths.has(l.id)
                    ? `${Math.round(pathLength(paths.get(l.id)!))} mm`
                    : 'one point: tap on'}
                </span>
                <button
                  className="link"
                  disabled={frozen}
                  onClick={() => {
                    put(lines.filter((x) => x.id !== l.id))
                    if (l.id === picked) setPicked(undefined)
                  }}
                >
                  Take away
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </>
  )
}
