/** Areas: outlines on the head. A trial strip or the client's own area is all that may be worked; what rests is left until its day. */
import { Button, Group, Stack, Text } from '@mantine/core'
import { useMemo } from 'react'
import { hairShows } from '../../../core/hair/index.ts'
import {
  FADE_EDGES,
  leastEdge,
  OUTLINE_KINDS,
  OUTLINE_WORDS,
  outlineProblem,
  type Outline,
} from '../../../core/lines/index.ts'
import { onZone, zoneInWords } from '../../../core/zones/index.ts'
import { dayWords } from '../../../core/time/index.ts'
import type { Hit } from '../../head/loadHead.ts'
import type { HeadHandle, HeadLine } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useKeptLines } from '../../marks/useLinePaths.ts'
import { useOutlineShapes, type OutlineShapes } from '../../marks/useOutlines.ts'
import { useFigures } from '../../state/figures.ts'
import { todayIso } from '../../state/words.ts'
import { Act } from '../../ui/Act.tsx'
import { DateField } from '../../ui/DateField.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { Words } from '../../ui/Words.tsx'
import { useFlowLayer, type StationProps } from '../useStation.ts'
import { DrawnRows } from './DrawnRows.tsx'
import type { ReadFrame } from './ReadStation.tsx'
import { useLatest } from './useMap.ts'
import { useMapLayers } from './useMapLayers.ts'
import { useOutlineEditing, type OutlineEditing } from './useOutlineEditing.ts'

const WHAT = {
  trial: 'A first is tried on a small strip: only what lies inside is worked, then followed.',
  own: 'The client’s own area: only what lies inside is worked, now and the next times.',
  rest: 'What lies inside is left alone until its day.',
} as const

export function AreasTab({ page, visit, frame }: StationProps & { frame: ReadFrame }) {
  const editing = useOutlineEditing(visit)
  const { outlines, outline, picked, frozen } = editing
  const known = useOutlineShapes(outlines)
  useOutlineLayers(visit, editing, known)
  return (
    <>
      <StageActs label="Areas">
        <Act
          k="forget"
          side="right"
          disabled={editing.point === undefined || frozen}
          onAct={editing.dropPoint}
        >
          Drop point {editing.point === undefined ? '' : editing.point + 1}
        </Act>
        <Act k="let-go" side="right" disabled={!outline} onAct={editing.done}>
          Done
        </Act>
        <Act k="undo" side="right" disabled={frozen || !editing.canUndo} onAct={editing.undo}>
          Undo
        </Act>
      </StageActs>
      <PanelHead title="Areas">{frame.onward}</PanelHead>
      {frame.tabs}
      <Problem>{editing.error?.message}</Problem>
      <Scroll label="Areas">
        <Words
          label="Kind of area"
          data={OUTLINE_KINDS.map((k) => ({ value: k, label: OUTLINE_WORDS[k] }))}
          value={outline?.kind ?? editing.kind}
          disabled={frozen}
          onChange={editing.choose}
        />
        <Text size="sm" c="dimmed">
          {WHAT[outline?.kind ?? editing.kind]}{' '}
          {outline
            ? 'Tap the head to lead its border on; drag a point to move it. It closes by itself.'
            : 'Tap round it on the head.'}
        </Text>
        {(outline?.kind ?? editing.kind) === 'trial' &&
          !outlines.some((o) => o.kind === 'trial') && (
            <Group gap="xs" my={6}>
              <Button
                variant="strong"
                size="sm"
                disabled={frozen || !editing.head}
                onClick={editing.layStrip}
              >
                Take a strip {onZone(editing.zone)}
              </Button>
              <Text size="sm" c="dimmed">
                or choose another zone on the head
              </Text>
            </Group>
          )}
        {(outline?.kind ?? editing.kind) === 'own' && !outlines.some((o) => o.kind === 'own') && (
          <ProposeArea {...{ page, visit, editing }} />
        )}
        {outline && <OutlineFacts outline={outline} known={known} editing={editing} />}
        {outlines.length === 0 ? (
          <Text size="sm" c="dimmed">
            No areas: the whole service is worked.
          </Text>
        ) : (
          <DrawnRows
            label="The areas"
            drawn={outlines}
            {...{ picked, frozen, onPick: editing.pick, onRemove: editing.remove }}
            size={(o) => {
              const shape = known.shapes.get(o.id)
              return shape ? `${Math.round(shape.cm2)} cm²` : 'open: tap on'
            }}
            name={(o) => (
              <>
                {OUTLINE_WORDS[o.kind]}
                {o.kind !== 'own' && `, ${zoneInWords(editing.zoneOf(o))}`}
                {o.until && `, until ${dayWords(o.until, todayIso())}`}
              </>
            )}
          />
        )}
      </Scroll>
    </>
  )
}

/** The area that ends where hair shows least, and the others to choose from. */
function ProposeArea({
  page,
  visit,
  editing,
}: Pick<StationProps, 'page' | 'visit'> & { editing: OutlineEditing }) {
  const { skin } = page.client
  const { edge, alike } = leastEdge((z) => hairShows(z, skin, visit.notes.hair))
  return (
    <Stack gap={4} my={6}>
      <Group gap="xs">
        {FADE_EDGES.map((e) => (
          <Button
            key={e.id}
            size="sm"
            {...(e === edge && { variant: 'strong' })}
            disabled={editing.frozen || !editing.head}
            onClick={() => editing.propose(e.id)}
          >
            The face, ending {e.name}
          </Button>
        ))}
      </Group>
      <Text size="sm" c="dimmed">
        {alike
          ? 'Hair shows alike at each edge: the highest leaves most alone.'
          : `Hair shows least ${edge.name}, so the edge is seen least there.`}{' '}
        <Estimate of="area-edge">By what is told at Hair.</Estimate> Draw it on as it suits.
      </Text>
    </Stack>
  )
}

/** What is told of a chosen outline: how much skin, whether it may be, and until when it rests. */
function OutlineFacts({
  outline,
  known,
  editing,
}: {
  outline: Outline
  known: OutlineShapes
  editing: OutlineEditing
}) {
  const figures = useFigures()
  const shape = known.shapes.get(outline.id)
  const problem =
    known.problems.get(outline.id) ?? (shape && outlineProblem(figures, outline.kind, shape.cm2))
  return (
    <section aria-label={OUTLINE_WORDS[outline.kind]} aria-live="polite">
      {shape && !problem && (
        <Text size="sm">
          <b>{shape.cm2.toFixed(1)} cm²</b> inside
          {outline.kind === 'rest' ? '; nothing of it is worked.' : '; nothing else is worked.'}
        </Text>
      )}
      <Problem>{problem}</Problem>
      {outline.kind === 'rest' && (
        <DateField
          label="Rests until"
          w={190}
          minDate={todayIso()}
          disabled={editing.frozen}
          value={outline.until}
          onChange={editing.restUntil}
        />
      )}
    </section>
  )
}

/** The outlines on the head, with a handle at each point of the picked one. */
function useOutlineLayers(
  visit: StationProps['visit'],
  editing: OutlineEditing,
  { shapes }: OutlineShapes,
): void {
  const figures = useFigures()
  const flow = useFlowLayer(visit)
  const kept = useKeptLines(visit)
  const { outlines, picked, point, frozen } = editing
  const handles = useMemo(
    () =>
      (frozen ? [] : outlines)
        .filter((o) => o.id === picked || !shapes.has(o.id))
        .flatMap((o) => o.taps.map((t, index) => ({ outlineId: o.id, index, ...t }))),
    [outlines, picked, frozen, shapes],
  )
  const shown = useMemo<HeadHandle[]>(
    () =>
      handles.map((h, i) => ({
        id: String(i),
        ...{ point: h.point, normal: h.normal, grips: true },
        chosen: h.outlineId === picked && h.index === point,
      })),
    [handles, picked, point],
  )
  const lines = useMemo<HeadLine[]>(
    () => [
      ...kept,
      ...outlines.flatMap((o): HeadLine[] => {
        const shape = shapes.get(o.id)
        return shape
          ? [{ id: o.id, path: shape.path, look: o.id === picked ? 'chosen' : 'outline' }]
          : []
      }),
    ],
    [kept, outlines, shapes, picked],
  )
  const onTap = useLatest(editing.tap)
  const onHandle = useLatest((id: string, hit: Hit, done: boolean) => {
    const h = handles[Number(id)]
    if (h) editing.drag(h.outlineId, h.index, hit, done)
  })
  const onPickHandle = useLatest((id: string) => {
    const h = handles[Number(id)]
    if (h) editing.pickPoint(h.outlineId, h.index)
  })
  const { spots } = visit.asked
  useMapLayers(
    visit,
    useMemo(
      () => ({
        ...{ flow, lines, handles: shown, spots: markSpots(figures, spots), onTap, onPickHandle },
        ...(!frozen && { onHandle }),
      }),
      [figures, flow, lines, shown, spots, onTap, onPickHandle, onHandle, frozen],
    ),
  )
}
