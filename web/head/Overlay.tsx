/** What is drawn over the head in the page's own pixels: arrows with their bars, marks to leave out, the stroke in hand. */
import type { MapSign } from '../../core/grain/index.ts'
import { clockFrame, plus, type Vec3, type ViewAxes } from '../../core/head/index.ts'
import type { Place } from './gestures.ts'
import type { LoadedHead } from './loadHead.ts'
import {
  arrowPoints,
  faces,
  toPixels,
  type HeadArrow,
  type HeadHandle,
  type HeadLabel,
  type HeadLine,
  type HeadMark,
  type HeadRing,
  type HeadSpot,
} from './shared.ts'
import { spreadLabels } from './labels.ts'
import { Line, Mark, Ring, Sign } from './signs.tsx'

interface Props {
  readonly head: LoadedHead
  readonly axes: ViewAxes
  readonly size: { width: number; height: number }
  readonly scale: number
  readonly arrows: readonly HeadArrow[]
  readonly labels: readonly HeadLabel[]
  readonly spots: readonly HeadSpot[]
  readonly marked: readonly HeadMark[]
  readonly signs: readonly MapSign[]
  readonly lines: readonly HeadLine[]
  readonly ring: HeadRing | undefined
  readonly handles: readonly HeadHandle[]
  readonly stroke: readonly Place[]
}

export function Overlay({
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
}: Props) {
  const px = (p: Vec3) => toPixels(axes, size, scale, p)
  const seen = (at: { point: Vec3; normal: Vec3 }) =>
    faces(axes, at.normal) && head.inSight(axes, at.point)
  return (
    <svg className="head-overlay" width={size.width} height={size.height} aria-hidden>
      <defs>
        <pattern
          id="hatch"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--coral)" strokeWidth="2.4" />
        </pattern>
      </defs>
      {lines.map((line) => (
        <Line key={line.id} line={line} px={px} seen={seen} />
      ))}
      {spots.map((s) => (
        <Spot key={s.id} spot={s} px={px} seen={seen} right={axes.right} scale={scale} />
      ))}
      {arrows
        .filter((a) => faces(axes, a.normal) && head.inSight(axes, a.point))
        .map((a) => (
          <Arrow key={a.id} way={arrowPoints(a).map(px)} kind={a.kind} />
        ))}
      {spreadLabels(
        labels
          .filter((l) => head.inSight(axes, l.point))
          .map(({ id, text, point }) => ({ id, text, ...px(point) })),
      ).map((l) => (
        <text key={l.id} x={l.x} y={l.y} className="head-label">
          {l.text}
        </text>
      ))}
      {marked.filter(seen).map((m) => (
        <Mark key={m.id} mark={m} at={px(m.point)} scale={scale} />
      ))}
      {signs.filter(seen).map((s) => (
        <Sign key={s.id} sign={s} at={px(s.point)} scale={scale} />
      ))}
      {ring && seen(ring) && <Ring ring={ring} px={px} />}
      {handles.filter(seen).map((h) => {
        const at = px(h.point)
        const tip = h.direction && px(plus(h.point, h.direction, 11))
        return (
          <g key={h.id} className={`head-handle ${h.chosen ? 'chosen' : ''}`}>
            {tip && <line x1={at.x} y1={at.y} x2={tip.x} y2={tip.y} />}
            <circle cx={at.x} cy={at.y} r={h.chosen ? 7 : 5} />
          </g>
        )
      })}
      {stroke.length > 1 && (
        <>
          <polyline
            points={stroke.map((p) => `${p.x},${p.y}`).join(' ')}
            fill="none"
            stroke="var(--coral)"
            strokeWidth="4"
            strokeLinecap="round"
            strokeLinejoin="round"
          />
          <circle cx={stroke[0]!.x} cy={stroke[0]!.y} r="6" fill="var(--coral)" />
        </>
      )}
    </svg>
  )
}

/** A disc or a painted patch, and dashed round it the margin that is left out with it. */
function Spot({
  spot,
  px,
  seen,
  right,
  scale,
}: {
  spot: HeadSpot
  px: (p: Vec3) => Place
  seen: (at: { point: Vec3; normal: Vec3 }) => boolean
  right: Vec3
  scale: number
}) {
  const places = (spot.trail ?? [spot]).filter(seen)
  if (places.length === 0) return null
  const discs = (extra: number) =>
    places.map((p) => circle({ ...p, radiusMm: spot.radiusMm + extra }, px)).join('')
  const name = px(plus(places[0]!.point, right, spot.radiusMm + (spot.marginMm ?? 0) + 2))
  if (spot.trail && spot.trail.length > 1) {
    const sweep = places
      .map(
        (p, i) => `${i === 0 ? 'M' : 'L'}${px(p.point).x.toFixed(1)} ${px(p.point).y.toFixed(1)}`,
      )
      .join('')
    const wide = (extra: number) => 2 * (spot.radiusMm + extra) * scale
    return (
      <g>
        <path
          d={sweep}
          className="spot-sweep spot-sweep-margin"
          strokeWidth={wide(spot.marginMm ?? 0)}
        />
        <path d={sweep} className="spot-sweep" stroke="url(#hatch)" strokeWidth={wide(0)} />
        <text x={name.x} y={name.y + 5} className="head-spot-name">
          {spot.name}
        </text>
      </g>
    )
  }
  return (
    <g className={spot.light ? 'spot-light' : ''}>
      {spot.marginMm !== undefined && <path d={discs(spot.marginMm)} className="spot-margin" />}
      <path
        d={discs(0)}
        fill={spot.light ? 'none' : 'url(#hatch)'}
        stroke="var(--coral)"
        strokeWidth="2"
      />
      <text x={name.x} y={name.y + 5} className="head-spot-name">
        {spot.name}
      </text>
    </g>
  )
}

/** A circle on the skin, foreshortened as the skin is. */
function circle(
  s: { point: Vec3; normal: Vec3; radiusMm: number },
  px: (p: Vec3) => Place,
): string {
  const { noon, three } = clockFrame('chin', s.point, s.normal)
  let d = ''
  for (let i = 0; i < 24; i++) {
    const t = (i / 24) * 2 * Math.PI
    const at = px(
      plus(plus(s.point, noon, Math.cos(t) * s.radiusMm), three, Math.sin(t) * s.radiusMm),
    )
    d += `${i === 0 ? 'M' : 'L'}${at.x.toFixed(1)} ${at.y.toFixed(1)}`
  }
  return `${d}Z`
}

/**
 * With: plain. Across: one bar over the shaft. Against: two bars. The free hand's pull: an open, dashed shaft.
 * @param way from the start to the tip, px
 */
export function Arrow({
  way,
  kind,
  width = 3.5,
}: {
  way: readonly Place[]
  kind: HeadArrow['kind']
  width?: number
}) {
  const reach = [0]
  for (let i = 1; i < way.length; i++)
    reach.push(reach[i - 1]! + Math.hypot(way[i]!.x - way[i - 1]!.x, way[i]!.y - way[i - 1]!.y))
  const length = reach[reach.length - 1]!
  if (length < 4) return null
  /** A place so far along the way and so far beside it. */
  const at = (along: number, across: number) => {
    let i = 1
    while (i < way.length - 1 && reach[i]! < along) i++
    const [p, q] = [way[i - 1]!, way[i]!]
    const piece = reach[i]! - reach[i - 1]! || 1
    const t = (along - reach[i - 1]!) / piece
    const [ux, uy] = [(q.x - p.x) / piece, (q.y - p.y) / piece]
    return `${(p.x + t * (q.x - p.x) - uy * across).toFixed(1)},${(p.y + t * (q.y - p.y) + ux * across).toFixed(1)}`
  }
  const headLong = Math.min(width * 3.6, length * 0.55)
  const headHalf = headLong * 0.55
  const shaft = length - headLong
  const between = way.flatMap((p, i) =>
    reach[i]! > 0 && reach[i]! < shaft ? [`L${p.x.toFixed(1)},${p.y.toFixed(1)}`] : [],
  )
  const d = `M${at(0, 0)}${between.join('')}L${at(shaft, 0)}`
  const colour = { with: 'tide', across: 'brass', against: 'coral', pull: 'ink' }[kind]
  const bars = { with: 0, across: 1, against: 2, pull: 0 }[kind]
  return (
    <g className={`arrow arrow-${kind}`}>
      <path d={d} className="arrow-casing" fill="none" strokeWidth={width + 3} />
      <path
        d={d}
        fill="none"
        stroke={`var(--${colour})`}
        strokeWidth={width}
        strokeDasharray={kind === 'pull' ? '3 5' : undefined}
      />
      <path
        d={`M${at(length, 0)}L${at(shaft - 0.5, headHalf)}L${at(shaft - 0.5, -headHalf)}Z`}
        fill={kind === 'pull' ? 'var(--shell)' : `var(--${colour})`}
        stroke={kind === 'pull' ? 'var(--ink)' : 'var(--shell)'}
        strokeWidth={kind === 'pull' ? 1.5 : 1}
      />
      {Array.from({ length: bars }, (_, i) => {
        const along = shaft * 0.42 + i * width * 2.2
        return (
          <path
            key={i}
            d={`M${at(along, -width * 2)}L${at(along, width * 2)}`}
            stroke={`var(--${colour})`}
            strokeWidth={width * 0.85}
          />
        )
      })}
    </g>
  )
}
