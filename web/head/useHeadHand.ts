/** The hand on the drawn head: what a press, a drag, a stroke and a wheel mean there. */
import { useEffect, useMemo, useRef } from 'react'
import type { StrokePoint } from '../../core/grain/index.ts'
import type { viewAxes } from '../../core/head/index.ts'
import { isSkin } from '../../core/zones/index.ts'
import { useView } from '../state/view.ts'
import { makeHand, type Place } from './gestures.ts'
import type { HeadStageProps } from './HeadStage.tsx'
import type { LoadedHead } from './loadHead.ts'
import { faces, toPixels, type HeadHandle } from './shared.ts'
import type { useFlow } from './useFlow.ts'

/** A finger takes hold of a handle from this far, px. */
const GRIP_PX = 16

/** What the hand reads of the stage as it is drawn now. */
interface Latest extends Pick<
  HeadStageProps,
  'onTap' | 'onStroke' | 'whileDrawing' | 'onHandle' | 'onPickHandle'
> {
  readonly axes: ReturnType<typeof viewAxes>
  readonly size: { readonly width: number; readonly height: number }
  readonly scale: number
  readonly handles: readonly HeadHandle[]
  readonly follow: ReturnType<typeof useFlow>['follow']
}

export function useHeadHand(
  head: LoadedHead,
  flat: boolean,
  setStroke: (stroke: readonly Place[]) => void,
  latest: Latest,
) {
  // The hand outlives renders; it reads what is current through this box.
  const now = useRef(latest)
  now.current = latest
  return useMemo(() => {
    const pick = (p: Place) => {
      const { axes: a, size: s, scale: k } = now.current
      return head.pick(a, (p.x - s.width / 2) / k, (s.height / 2 - p.y) / k)
    }
    // Picked once for each place of the path, however often it is asked about while it grows.
    let path: readonly Place[] = []
    let points: StrokePoint[] = []
    const strokePoints = (longer: readonly Place[]) => {
      if (longer.length < path.length || longer[0] !== path[0]) {
        path = []
        points = []
      }
      for (const p of longer.slice(path.length)) {
        const hit = pick(p)
        if (hit) points.push({ zoneId: hit.zoneId, point: hit.point, normal: hit.normal })
      }
      path = [...longer]
      return points
    }
    const handleAt = (p: Place, grips: boolean) => {
      const { handles: all, axes: a, size: s, scale: k } = now.current
      let best: HeadHandle | undefined
      let nearest = GRIP_PX
      for (const h of all) {
        if ((grips && !h.grips) || !faces(a, h.normal) || !head.inSight(a, h.point)) continue
        const at = toPixels(a, s, k, h.point)
        const d = Math.hypot(at.x - p.x, at.y - p.y)
        if (d < nearest) {
          nearest = d
          best = h
        }
      }
      return best
    }
    const dragged = (id: string, at: Place, done: boolean) => {
      const hit = pick(at)
      if (hit) now.current.onHandle?.(id, hit, done)
    }
    return {
      pick,
      ...makeHand({
        onHead: (p) => pick(p) !== undefined,
        draws: () => now.current.onStroke !== undefined,
        grip: (p) => (now.current.onHandle ? handleAt(p, true)?.id : undefined),
        dragged: (id, at) => dragged(id, at, false),
        dropped: (id, at) => dragged(id, at, true),
        tap: (p) => {
          const handle = now.current.onPickHandle && handleAt(p, false)
          if (handle) {
            now.current.onPickHandle!(handle.id)
            return
          }
          const hit = pick(p)
          useView.getState().choose(hit && isSkin(hit.zoneId) ? hit.zoneId : null)
          if (hit) now.current.onTap?.(hit)
        },
        strokeMoved: (longer) => {
          setStroke([...longer])
          const { whileDrawing: means, follow: show } = now.current
          if (means) show(means(strokePoints(longer)))
        },
        strokeEnded: (longer) => {
          setStroke([])
          now.current.onStroke?.([...strokePoints(longer)])
          now.current.follow(null)
        },
        strokeDropped: () => {
          setStroke([])
          // The hair that followed it is not there.
          now.current.follow(now.current.whileDrawing ? [] : null)
        },
        turn: (dx, dy) => {
          if (!flat) useView.getState().turnBy(-dx * 0.45, dy * 0.45)
        },
        zoom: (f) => useView.getState().zoomBy(f),
      }),
    }
  }, [head, flat, setStroke])
}

/** Turns the wheel over an element into zoom; the page does not scroll under it. */
export function useWheelZoom() {
  const box = useRef<HTMLDivElement | null>(null)
  useEffect(() => {
    const element = box.current
    if (!element) return
    // React listens to wheels passively.
    const wheel = (e: WheelEvent) => {
      e.preventDefault()
      useView.getState().zoomBy(Math.exp(-e.deltaY * 0.0012))
    }
    element.addEventListener('wheel', wheel, { passive: false })
    return () => element.removeEventListener('wheel', wheel)
  }, [])
  return box
}
