/** Keep-lines: tapped on the head, laid the shortest way over the skin, dragged into place, measured against each other. */
import { NativeSelect, UnstyledButton } from '@mantine/core'
import { useMemo } from 'react'
import { pathLength } from '../../../core/head/index.ts'
import {
  isEarlierOf,
  keptSideWords,
  LINE_KINDS,
  LINE_WORDS,
  lineName,
  lineSide,
  type SideburnCut,
} from '../../../core/lines/index.ts'
import { ON_SKIN } from '../../../core/palette.ts'
import { dateWords } from '../../../core/time/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import type { Hit } from '../../head/loadHead.ts'
import type { HeadHandle, HeadLine } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useLinePaths } from '../../marks/useLinePaths.ts'
import { useFigures } from '../../state/figures.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView } from '../../state/view.ts'
import { useFlowLayer, type StationProps } from '../useStation.ts'
import { LineFacts } from './LineFacts.tsx'
import { useLatest } from './useMap.ts'
import { useLineEditing, type LineEditing } from './useLineEditing.ts'

export function LinesTab({ visit }: StationProps) {
  const { before } = visit
  const editing = useLineEditing(visit)
  const { lines, line, picked, point, frozen, head } = editing
  const earlier = useMemo(
    () => (before?.lines ?? []).map((l) => ({ ...l, id: `before:${l.id}` })),
    [before],
  )
  const paths = useLinePaths(lines)
  const pathsBefore = useLinePaths(earlier)
  useLineLayers(visit, editing, earlier, paths, pathsBefore)
  return (
    <>
      <h1>Lines to keep</h1>
      {editing.error && (
        <p role="alert" className="problem">
          {editing.error.message}
        </p>
      )}
      <div className="tab-body" tabIndex={0} role="region" aria-label="Lines to keep">
        <p className="soft">
          {line
            ? 'Tap the head to lead the line on; drag a point to move it. The teeth stand on the side that is kept.'
            : 'Choose what it is, then tap along it on the head. What lies on the kept side is never in a plan.'}
        </p>
        <LineTools visit={visit} editing={editing} />
        {line && (
          <LineFacts
            line={line}
            lines={lines}
            paths={paths}
            before={earlier}
            pathsBefore={pathsBefore}
            beforeAtMs={before?.atMs}
            whereWords={(p) => (head ? zoneName(head.nearest(p).zoneId) : '')}
          >
            <div className="switch" role="group" aria-label="Side that is kept">
              {(['left', 'right'] as const).map((side) => (
                <button
                  key={side}
                  aria-pressed={line.keep === side}
                  disabled={frozen}
                  onClick={() => editing.keep(side)}
                >
                  Keep {keptSideWords(paths.get(line.id), side)}
                </button>
              ))}
            </div>
            <div className="line-tools">
              <button
                disabled={frozen || lineSide(line) === 'middle' || line.taps.length < 2}
                onClick={editing.mirror}
              >
                Mirror <kbd>M</kbd>
              </button>
              <button disabled={point === undefined || frozen} onClick={editing.dropPoint}>
                Drop point {point === undefined ? '' : point + 1} <kbd>Del</kbd>
              </button>
              <button onClick={editing.done}>
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
                  onClick={() => editing.pick(l)}
                >
                  {lineName(l)}
                </button>
                <span className="soft">
                  {paths.has(l.id)
                    ? `${Math.round(pathLength(paths.get(l.id)!))} mm`
                    : 'one point: tap on'}
                </span>
                <button className="link" disabled={frozen} onClick={() => editing.remove(l.id)}>
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

const CUTS: { readonly value: SideburnCut; readonly label: string }[] = [
  { value: 'top', label: 'top of the ear' },
  { value: 'middle', label: 'middle of the ear' },
  { value: 'bottom', label: 'lobe' },
]

/** What kind of line, and ways to begin one. */
function LineTools({ visit, editing }: { visit: StationProps['visit']; editing: LineEditing }) {
  const { line, missing, frozen } = editing
  const kind = line?.kind ?? editing.kind
  const { notes, before } = visit
  const zone = useView((s) => s.chosen)
  return (
    <>
      <div className="switch wrap" role="group" aria-label="Kind of line">
        {LINE_KINDS.map((k) => (
          <button
            key={k}
            aria-pressed={kind === k}
            disabled={frozen}
            onClick={() => editing.choose(k)}
          >
            {LINE_WORDS[k].replace(' line', '')}
          </button>
        ))}
      </div>
      <div className="line-tools">
        <button disabled={frozen || !editing.canUndo} onClick={editing.undo}>
          Undo <kbd>Z</kbd>
        </button>
        {editing.edgesMissing.length > 0 && (
          <UnstyledButton
            className="strong deep small"
            disabled={frozen || !editing.head}
            onClick={editing.layEdges}
          >
            Take the usual brow edges
          </UnstyledButton>
        )}
        {(['left', 'right'] as const).map((side) =>
          kind === 'sideburn' ? (
            <label key={side}>
              Usual, {side}, cut at the{' '}
              <NativeSelect
                aria-label={`Usual sideburn, ${side}`}
                size="xs"
                disabled={frozen || !editing.head}
                value=""
                data={[{ value: '', label: '…' }, ...CUTS]}
                onChange={(e) => editing.layUsual(side, e.currentTarget.value as SideburnCut)}
              />
            </label>
          ) : (
            <button
              key={side}
              disabled={frozen || !editing.head}
              onClick={() => editing.layUsual(side)}
            >
              Usual, {side}
            </button>
          ),
        )}
        {missing.length > 0 && before && (
          <button disabled={frozen} onClick={editing.recall}>
            Recall {missing.length} of {dateWords(before.atMs)}
          </button>
        )}
        {zone && (
          <button
            disabled={frozen}
            aria-pressed={notes.keptZones.includes(zone)}
            onClick={() => editing.toggleZone(zone)}
          >
            {notes.keptZones.includes(zone) ? 'Kept: ' : 'Keep all: '}
            {zoneName(zone)}
          </button>
        )}
      </div>
    </>
  )
}

type Paths = ReturnType<typeof useLinePaths>

/** The lines on the head, with a handle at each point of the picked one. */
function useLineLayers(
  visit: StationProps['visit'],
  editing: LineEditing,
  earlier: LineEditing['lines'],
  paths: Paths,
  pathsBefore: Paths,
): void {
  const figures = useFigures()
  const flow = useFlowLayer(visit)
  const { lines, line, picked, point, frozen } = editing
  const handles = useMemo(
    () =>
      (frozen ? [] : lines)
        .filter((l) => l.id === picked || l.taps.length < 2)
        .flatMap((l) => l.taps.map((t, index) => ({ lineId: l.id, index, ...t }))),
    [lines, picked, frozen],
  )
  const shown = useMemo<HeadHandle[]>(
    () =>
      handles.map((h, i) => ({
        id: String(i),
        ...{ point: h.point, normal: h.normal, grips: true },
        chosen: h.lineId === picked && h.index === point,
      })),
    [handles, picked, point],
  )
  const drawn = useMemo<HeadLine[]>(() => {
    const before = earlier.flatMap((l): HeadLine[] => {
      const path = isEarlierOf(l, line) ? pathsBefore.get(l.id) : undefined
      return path ? [{ id: l.id, path, look: 'before' }] : []
    })
    const now = lines.flatMap((l): HeadLine[] => {
      const path = paths.get(l.id)
      return path
        ? [{ id: l.id, path, keep: l.keep, look: l.id === picked ? 'chosen' : 'keep' }]
        : []
    })
    return [...before, ...now]
  }, [earlier, pathsBefore, lines, paths, picked, line])
  const onTap = useLatest(editing.tap)
  const onHandle = useLatest((id: string, hit: Hit, done: boolean) => {
    const h = handles[Number(id)]
    if (h) editing.drag(h.lineId, h.index, hit, done)
  })
  const onPickHandle = useLatest((id: string) => {
    const h = handles[Number(id)]
    if (h) editing.pickPoint(h.lineId, h.index)
  })
  const { keptZones } = visit.notes
  const { spots } = visit.asked
  useHeadLayers(
    useMemo(
      () => ({
        flow,
        lines: drawn,
        handles: shown,
        spots: markSpots(figures, spots),
        tints: keptZones.map((zoneId) => ({ zoneId, colour: ON_SKIN.kelp, opacity: 0.3 })),
        onTap,
        onPickHandle,
        ...(!frozen && { onHandle }),
      }),
      [figures, flow, drawn, shown, spots, keptZones, onTap, onPickHandle, onHandle, frozen],
    ),
  )
}
