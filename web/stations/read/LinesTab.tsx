/** Keep-lines: tapped on the head, laid the shortest way over the skin, dragged into place, measured against each other. */
import { Button, Group, Text } from '@mantine/core'
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
import { useMapLayers } from './useMapLayers.ts'
import { useView } from '../../state/view.ts'
import { useFlowLayer, type StationProps } from '../useStation.ts'
import { Act } from '../../ui/Act.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { PickOne } from '../../ui/PickOne.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { Words } from '../../ui/Words.tsx'
import { DrawnRows } from './DrawnRows.tsx'
import { LineFacts } from './LineFacts.tsx'
import { LineWay } from './LineWay.tsx'
import type { ReadFrame } from './ReadStation.tsx'
import { useLatest } from './useMap.ts'
import { useLineEditing, type LineEditing } from './useLineEditing.ts'

export function LinesTab({ frame, ...station }: StationProps & { frame: ReadFrame }) {
  const { visit } = station
  const { before } = visit
  const editing = useLineEditing(visit)
  const { lines, line, picked, frozen, head } = editing
  const earlier = useMemo(
    () => (before?.lines ?? []).map((l) => ({ ...l, id: `before:${l.id}` })),
    [before],
  )
  const paths = useLinePaths(lines)
  const pathsBefore = useLinePaths(earlier)
  useLineLayers(visit, editing, earlier, paths, pathsBefore)
  const choosing = line !== undefined && lines.some((l) => l.candidate)
  return (
    <>
      <LineActs editing={editing} />
      <PanelHead title="Lines to keep">{frame.onward}</PanelHead>
      {frame.tabs}
      <Problem>{editing.error?.message}</Problem>
      <Scroll label="Lines to keep">
        <Text size="sm" c="dimmed">
          {line
            ? 'Tap the head to lead the line on; drag a point to move it. The teeth stand on the side that is kept.'
            : 'Choose what it is, then tap along it on the head. What lies on the kept side is never in a plan.'}
        </Text>
        {/* While the client chooses nothing else is laid out. */}
        {!choosing && <LineTools visit={visit} editing={editing} />}
        {line && !choosing && (
          <LineFacts
            line={line}
            lines={lines}
            paths={paths}
            before={earlier}
            pathsBefore={pathsBefore}
            beforeAtMs={before?.atMs}
            whereWords={(p) => (head ? zoneName(head.nearest(p).zoneId) : '')}
          >
            <Words
              label="Side that is kept"
              data={(['left', 'right'] as const).map((side) => ({
                value: side,
                label: `Keep ${keptSideWords(paths.get(line.id), side)}`,
              }))}
              value={line.keep}
              disabled={frozen}
              onChange={editing.keep}
            />
          </LineFacts>
        )}
        <LineWay {...station} editing={editing} paths={paths} />
        {lines.length === 0 ? (
          <Text size="sm" c="dimmed">
            No lines yet.
          </Text>
        ) : (
          <DrawnRows
            label="The lines"
            drawn={lines}
            {...{ picked, frozen, onPick: editing.pick, onRemove: editing.remove }}
            size={(l) =>
              paths.has(l.id)
                ? `${Math.round(pathLength(paths.get(l.id)!))} mm`
                : 'one point: tap on'
            }
            name={(l) => (
              <>
                {lineName(l)}
                {l.candidate && `: line ${l.candidate.toUpperCase()}`}
                {l.move && `, step ${l.move.at} of ${l.move.steps}`}
              </>
            )}
          />
        )}
      </Scroll>
    </>
  )
}

/** What can be done with the chosen line, beside the head. */
function LineActs({ editing }: { editing: LineEditing }) {
  const { line, point, frozen } = editing
  return (
    <StageActs label="Lines">
      <Act
        k="mirror"
        side="right"
        disabled={frozen || !line || lineSide(line) === 'middle' || line.taps.length < 2}
        onAct={editing.mirror}
      >
        Mirror
      </Act>
      <Act
        k="forget"
        side="right"
        disabled={point === undefined || frozen}
        onAct={editing.dropPoint}
      >
        Drop point {point === undefined ? '' : point + 1}
      </Act>
      <Act k="let-go" side="right" disabled={!line} onAct={editing.done}>
        Done
      </Act>
      <Act k="undo" side="right" disabled={frozen || !editing.canUndo} onAct={editing.undo}>
        Undo
      </Act>
    </StageActs>
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
      <Words
        label="Kind of line"
        wraps
        data={LINE_KINDS.map((k) => ({ value: k, label: LINE_WORDS[k].replace(' line', '') }))}
        value={kind}
        disabled={frozen}
        onChange={editing.choose}
      />
      <Group gap="xs" my={6}>
        {editing.edgesMissing.length > 0 && (
          <Button
            variant="strong"
            size="sm"
            disabled={frozen || !editing.head}
            onClick={editing.layEdges}
          >
            Take the usual brow edges
          </Button>
        )}
        {(['left', 'right'] as const).map((side) =>
          kind === 'sideburn' ? (
            <PickOne
              key={side}
              w={210}
              aria-label={`Usual sideburn, ${side}`}
              placeholder={`Usual, ${side}, cut at the …`}
              disabled={frozen || !editing.head}
              data={CUTS}
              value={undefined}
              onChange={(cut) => editing.layUsual(side, cut)}
            />
          ) : (
            <Button
              key={side}
              size="sm"
              disabled={frozen || !editing.head}
              onClick={() => editing.layUsual(side)}
            >
              Usual, {side}
            </Button>
          ),
        )}
        {missing.length > 0 && before && (
          <Button size="sm" disabled={frozen} onClick={editing.recall}>
            Recall {missing.length} of {dateWords(before.atMs)}
          </Button>
        )}
        {zone && (
          <Button
            size="sm"
            disabled={frozen}
            aria-pressed={notes.keptZones.includes(zone)}
            onClick={() => editing.toggleZone(zone)}
          >
            {notes.keptZones.includes(zone) ? 'Kept: ' : 'Keep all: '}
            {zoneName(zone)}
          </Button>
        )}
      </Group>
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
        ? [
            {
              id: l.id,
              path,
              keep: l.keep,
              look: l.id === picked ? 'chosen' : l.candidate ? 'candidate' : 'keep',
              ...(l.candidate && {
                name: {
                  text: l.candidate.toUpperCase(),
                  at: l.candidate === 'a' ? 'start' : 'end',
                },
              }),
            },
          ]
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
  useMapLayers(
    visit,
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
