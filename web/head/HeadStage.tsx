/** The head as the chart: the drawing, what lies over it, and the hand on it. The same with and without WebGL. */
import type { MapSign } from '../../core/grain/index.ts'
import { Button, useComputedColorScheme } from '@mantine/core'
import { useElementSize, useMergedRef } from '@mantine/hooks'
import { lazy, Suspense, useEffect, useMemo, useState, type ComponentType } from 'react'
import type { FieldReading, StrokePoint } from '../../core/grain/index.ts'
import { zoneName, isSkin, type ZoneId } from '../../core/zones/index.ts'
import { useShownAxes, useShownView, useView } from '../state/view.ts'
import { FlatHead } from './FlatHead.tsx'
import type { HeadCanvasProps } from './HeadCanvas.tsx'
import type { Place } from './gestures.ts'
import { useHead, type Hit, type LoadedHead } from './loadHead.ts'
import { Overlay } from './Overlay.tsx'
import {
  HEAD_LAMP,
  HEAD_LIGHT,
  viewScale,
  type HeadArrow,
  type HeadFlow,
  type HeadHandle,
  type HeadLabel,
  type HeadLine,
  type HeadMark,
  type HeadRing,
  type HeadSpot,
  type ZoneTint,
} from './shared.ts'
import { useFlow } from './useFlow.ts'
import { useHeadHand, useWheelZoom } from './useHeadHand.ts'

/** A server that goes away before the drawing came must not take the page along: the flat views take its place. */
const HeadCanvas = lazy<ComponentType<HeadCanvasProps>>(() =>
  import('./HeadCanvas.tsx').then(
    (m) => ({ default: m.HeadCanvas }),
    () => ({ default: NotLoaded }),
  ),
)
function NotLoaded({ onLost }: Pick<HeadCanvasProps, 'onLost'>) {
  useEffect(onLost, [onLost])
  return null
}

export interface HeadStageProps {
  /** Grain to draw as hair; none when left out. */
  readonly flow?: HeadFlow | undefined
  readonly tints?: readonly ZoneTint[]
  /** Colour at each vertex of the display mesh, 4 numbers each. Flat, the tints stand for it. */
  readonly wash?: Float32Array | undefined
  /** Pairs of points along the borders of lanes. Flat, the arrows stand for them. */
  readonly laneEdges?: Float32Array | undefined
  readonly arrows?: readonly HeadArrow[]
  readonly labels?: readonly HeadLabel[]
  readonly spots?: readonly HeadSpot[]
  readonly marked?: readonly HeadMark[]
  readonly signs?: readonly MapSign[]
  readonly lines?: readonly HeadLine[]
  readonly ring?: HeadRing | undefined
  readonly handles?: readonly HeadHandle[]
  readonly onTap?: ((hit: Hit) => void) | undefined
  /** A drag from root to tip; without it a drag turns the head. */
  readonly onStroke?: ((points: readonly StrokePoint[]) => void) | undefined
  /** What the stroke that is being drawn would leave as readings; the flow follows it. */
  readonly whileDrawing?: ((points: readonly StrokePoint[]) => readonly FieldReading[]) | undefined
  /** A handle was dragged over the head; `done` when it was let go. */
  readonly onHandle?: ((id: string, hit: Hit, done: boolean) => void) | undefined
  /** A handle was tapped. */
  readonly onPickHandle?: ((id: string) => void) | undefined
}

const NONE: readonly never[] = []

export function HeadStage(props: HeadStageProps) {
  const head = useHead()
  if (head.isPending) {
    return (
      <div className="head-wait" role="status">
        The head is being set up …
      </div>
    )
  }
  if (head.isError) {
    return (
      <div className="head-wait" role="alert">
        The head could not be loaded. What you entered is kept.{' '}
        <Button variant="bare" size="sm" onClick={() => void head.refetch()}>
          Try again
        </Button>
      </div>
    )
  }
  return <Stage {...props} head={head.data} />
}

function Stage({
  head,
  flow,
  tints = NONE,
  wash,
  laneEdges,
  arrows = NONE,
  labels = NONE,
  spots = NONE,
  marked = NONE,
  signs = NONE,
  lines = NONE,
  ring,
  handles = NONE,
  onTap,
  onStroke,
  whileDrawing,
  onHandle,
  onPickHandle,
}: HeadStageProps & { head: LoadedHead }) {
  const { ref, width, height } = useElementSize<HTMLDivElement>()
  const zoom = useView((s) => s.zoom)
  const chosen = useView((s) => s.chosen)
  const hovered = useView((s) => s.hovered)
  const flat = useView((s) => s.flat)
  const goFlat = useView((s) => s.goFlat)
  const [stroke, setStroke] = useState<readonly Place[]>([])
  const lamp = useComputedColorScheme('light') === 'dark'
  const colours = lamp ? HEAD_LAMP : HEAD_LIGHT
  const shows = useShownView()
  const axes = useShownAxes()
  const size = useMemo(() => ({ width, height }), [width, height])
  const scale = viewScale(size, zoom)
  const { marks, follow } = useFlow(head, flow, zoom > 1.5 ? 2 : 1)

  const hand = useHeadHand(head, flat, setStroke, {
    ...{ axes, size, scale, follow, handles },
    ...{ onTap, onStroke, whileDrawing, onHandle, onPickHandle },
  })
  const box = useWheelZoom()
  // The same at every drawing: a new one is measured anew, and each measure draws anew, for ever.
  const both = useMergedRef(ref, box)
  const place = (e: React.PointerEvent): Place => {
    const r = e.currentTarget.getBoundingClientRect()
    return { x: e.clientX - r.left, y: e.clientY - r.top }
  }
  const tone = flow?.tone ?? 'hair'
  const washed = useMemo(() => {
    const extra: ZoneTint[] = []
    if (hovered && hovered !== chosen && isSkin(hovered))
      extra.push({ zoneId: hovered, colour: colours.hover, opacity: 0.14 })
    if (chosen) extra.push({ zoneId: chosen, colour: colours.held, opacity: 0.13 })
    return [...tints, ...extra]
  }, [tints, hovered, chosen, colours])

  return (
    <div
      className="head-stage"
      ref={both}
      onPointerDown={(e) => {
        if (e.button === 1) return
        try {
          e.currentTarget.setPointerCapture(e.pointerId)
        } catch {
          // A pointer that has already gone cannot be captured; its release still comes.
        }
        hand.press({ id: e.pointerId, ...place(e), secondary: e.button === 2 })
      }}
      onPointerMove={(e) => {
        const at = place(e)
        hand.move(e.pointerId, at)
        if (e.pointerType === 'mouse' && e.buttons === 0) {
          const hit = hand.pick(at)
          useView.getState().hover(hit && isSkin(hit.zoneId) ? hit.zoneId : null)
        }
      }}
      onPointerUp={(e) => hand.release(e.pointerId)}
      onPointerCancel={() => hand.cancel()}
      onPointerLeave={() => useView.getState().hover(null)}
      onContextMenu={(e) => e.preventDefault()}
      data-flat={flat || undefined}
      data-marks={marks?.count ?? 0}
      data-testid="head"
    >
      {width > 0 &&
        (flat ? (
          <FlatHead {...{ head, marks, tone, tints: washed, colours, shows, axes, size, scale }} />
        ) : (
          <Suspense fallback={null}>
            <HeadCanvas
              {...{ head, marks, tone, wash, laneEdges, tints: washed, colours }}
              drift={stroke.length === 0}
              onLost={goFlat}
            />
          </Suspense>
        ))}
      {width > 0 && (
        <Overlay
          {...{
            head,
            axes,
            size,
            scale,
            arrows,
            labels,
            spots,
            marked,
            signs,
            lines,
            ring,
            handles,
            stroke,
          }}
        />
      )}
      <div className="head-name" aria-live="polite">
        {nameOf(hovered ?? chosen)}
      </div>
    </div>
  )
}

const nameOf = (id: ZoneId | null) => (id ? zoneName(id) : '')
