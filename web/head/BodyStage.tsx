/** The body laid flat: the same station layers as on the head, on outlines. Seen by a worker who faces the client. */
import { useFigures } from '../state/figures.ts'
import { bodyOutline, bodyZoneAt, onSheet, sheetOf } from '../../core/body/index.ts'
import { zoneStem, type ZoneId, ZONE_FACTS, zoneName } from '../../core/zones/index.ts'
import { bodyHair } from '../../core/plan/index.ts'
import type { StrokePoint, ZonedReading } from '../../core/grain/index.ts'
import { useElementSize } from '@mantine/hooks'
import { useMemo, useRef, useState } from 'react'
import { useView } from '../state/view.ts'
import type { HeadStageProps } from './HeadStage.tsx'
import { Arrow } from './Overlay.tsx'
import { arrowPoints } from './shared.ts'

/** A press that moves less than this, px, is a tap. */
const TAP_PX = 5
const HAIR_MM = 13

function outlinePath(id: ZoneId): string {
  const o = bodyOutline(id)
  let d = ''
  for (let i = 0; i < o.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${o[i]!.toFixed(1)} ${(-o[i + 1]!).toFixed(1)}`
  return `${d}Z`
}

export function BodyStage({
  zones,
  flow,
  tints = [],
  arrows = [],
  spots = [],
  onTap,
  onStroke,
}: HeadStageProps & { readonly zones: readonly ZoneId[] }) {
  const figures = useFigures()
  const { ref, width, height } = useElementSize<HTMLDivElement>()
  const chosen = useView((s) => s.chosen)
  const hovered = useView((s) => s.hovered)
  const [stroke, setStroke] = useState<readonly StrokePoint[]>([])
  const press = useRef<{ x: number; y: number; moved: boolean } | undefined>(undefined)
  const { sheet, outlines } = useMemo(
    () => ({ sheet: sheetOf(zones), outlines: zones.map((id) => ({ id, d: outlinePath(id) })) }),
    [zones],
  )
  const [midX, midY] = [(sheet.left + sheet.right) / 2, (sheet.top + sheet.bottom) / 2]
  const scale = Math.min(width / (sheet.right - sheet.left), height / (sheet.top - sheet.bottom))
  const px = (x: number, y: number) => ({
    x: width / 2 + (x - midX) * scale,
    y: height / 2 - (y - midY) * scale,
  })
  const mm = (e: React.PointerEvent) => {
    const r = e.currentTarget.getBoundingClientRect()
    return [
      (e.clientX - r.left - width / 2) / scale + midX,
      (height / 2 - (e.clientY - r.top)) / scale + midY,
    ] as const
  }
  const placeAt = (e: React.PointerEvent): StrokePoint | undefined => {
    const [x, y] = mm(e)
    const zoneId = bodyZoneAt(x, y, zones)
    return zoneId && { zoneId, ...onSheet(x, y) }
  }
  const hair = useMemo(
    () => bodyHair(figures, zones, (flow?.readings as readonly ZonedReading[] | undefined) ?? []),
    [figures, zones, flow?.readings],
  )
  const points = stroke.map((p) => px(p.point[0], p.point[1]))
  return (
    <div
      className="head-stage body-stage"
      ref={ref}
      data-testid="head"
      data-marks={hair.length}
      onPointerDown={(e) => {
        if (e.button !== 0) return
        e.currentTarget.setPointerCapture(e.pointerId)
        press.current = { x: e.clientX, y: e.clientY, moved: false }
        const at = placeAt(e)
        setStroke(at ? [at] : [])
      }}
      onPointerMove={(e) => {
        const at = placeAt(e)
        const p = press.current
        if (!p) {
          useView.getState().hover(at?.zoneId ?? null)
          return
        }
        if (Math.hypot(e.clientX - p.x, e.clientY - p.y) > TAP_PX) p.moved = true
        if (p.moved && onStroke && at) setStroke((s) => [...s, at])
      }}
      onPointerUp={(e) => {
        const p = press.current
        press.current = undefined
        if (p?.moved && onStroke) {
          if (stroke.length > 1) onStroke(stroke)
        } else {
          const at = placeAt(e)
          useView.getState().choose(at?.zoneId ?? null)
          if (at) onTap?.({ ...at, triangle: 0 })
        }
        setStroke([])
      }}
      onPointerCancel={() => {
        press.current = undefined
        setStroke([])
      }}
      onPointerLeave={() => useView.getState().hover(null)}
    >
      {width > 0 && (
        <svg width={width} height={height} className="body-sheet head-flat" aria-hidden>
          <g transform={`translate(${px(0, 0).x} ${px(0, 0).y}) scale(${scale})`}>
            {outlines.map(({ id, d }) => {
              const tint = tints.find((t) => t.zoneId === id)
              return (
                <path
                  key={id}
                  d={d}
                  className={`body-part ${id === chosen ? 'chosen' : ''} ${id === hovered ? 'hovered' : ''} ${flow?.faint?.has(id) ? 'faint' : ''}`}
                  {...(tint && { style: { fill: tint.colour, fillOpacity: tint.opacity } })}
                />
              )
            })}
            {hair.map((h, i) => (
              <path
                key={i}
                className="body-hair"
                style={{ opacity: 0.2 + 0.8 * h.trust }}
                d={`M${h.x - 1.6 * h.dy} ${-(h.y + 1.6 * h.dx)}L${h.x + HAIR_MM * h.dx} ${-(h.y + HAIR_MM * h.dy)}L${h.x + 1.6 * h.dy} ${-(h.y - 1.6 * h.dx)}Z`}
              />
            ))}
          </g>
          {zones.map((id) => {
            const o = bodyOutline(id)
            const xs = o.filter((_, i) => i % 2 === 0)
            const top = Math.max(...o.filter((_, i) => i % 2 === 1))
            const at = px((Math.min(...xs) + Math.max(...xs)) / 2, top + 10)
            return (
              <text key={id} x={at.x} y={at.y} textAnchor="middle" className="body-name">
                {ZONE_FACTS[zoneStem(id)].name}
              </text>
            )
          })}
          <text
            x={px(sheet.left + 12, 0).x}
            y={Math.max(14, px(0, sheet.top).y)}
            className="body-side"
          >
            client’s right
          </text>
          <text
            x={px(sheet.right - 12, 0).x}
            y={Math.max(14, px(0, sheet.top).y)}
            textAnchor="end"
            className="body-side"
          >
            client’s left
          </text>
          {spots.map((s) => {
            const at = px(s.point[0], s.point[1])
            return (
              <circle
                key={s.id}
                cx={at.x}
                cy={at.y}
                r={Math.max(4, (s.radiusMm + (s.marginMm ?? 0)) * scale)}
                className="body-spot"
              />
            )
          })}
          {arrows.map((a) => (
            <Arrow key={a.id} way={arrowPoints(a).map((p) => px(p[0], p[1]))} kind={a.kind} />
          ))}
          {points.length > 1 && (
            <polyline
              points={points.map((p) => `${p.x},${p.y}`).join(' ')}
              fill="none"
              stroke="var(--coral)"
              strokeWidth="4"
              strokeLinecap="round"
            />
          )}
        </svg>
      )}
      <div className="head-name" aria-live="polite">
        {(hovered ?? chosen) ? zoneName((hovered ?? chosen)!) : ''}
      </div>
    </div>
  )
}
