/** Signs drawn over the head: what turns, where to read next, the doubt of a guided test, lines over the skin. */
import type { MapSign } from '../../core/grain/index.ts'
import { clockFrame, plus, type Vec3, type SurfacePoint } from '../../core/head/index.ts'
import { SPOT_SHAPES } from '../../core/formats/index.ts'
import type { Place } from './gestures.ts'
import type { HeadLine, HeadMark, HeadRing } from './shared.ts'

/** A spiral of one and a half turns, from the middle outward, in the way hair turns from root to tip. */
function spiral(clockwise: boolean, size: number): string {
  let d = ''
  for (let i = 0; i <= 30; i++) {
    const r = size * (0.12 + (0.88 * i) / 30)
    const a = (clockwise ? 1 : -1) * (i / 30) * 3 * Math.PI
    d += `${i === 0 ? 'M' : 'L'}${(r * Math.cos(a)).toFixed(1)} ${(r * Math.sin(a)).toFixed(1)}`
  }
  return d
}

const spokes = (from: number, to: number) =>
  Array.from({ length: 6 }, (_, i) => {
    const a = (i * Math.PI) / 3
    const at = (r: number) => `${(r * Math.cos(a)).toFixed(1)} ${(r * Math.sin(a)).toFixed(1)}`
    return `M${at(from)}L${at(to)}`
  }).join('')

const SHAPES: Record<MapSign['kind'], (size: number) => string> = {
  clockwise: (s) => spiral(true, s),
  anticlockwise: (s) => spiral(false, s),
  star: (s) => spokes(s * 0.3, s),
  // Two arcs back to back: hair comes together and leaves sideways.
  meeting: (s) =>
    `M${-s} ${-s}Q0 ${-s * 0.1} ${s} ${-s}M${-s} ${s}Q0 ${s * 0.1} ${s} ${s}M${-s * 0.4} 0L${s * 0.4} 0`,
  disagree: (s) =>
    `M${-s * 0.8} ${-s * 0.25}L${s * 0.8} ${-s * 0.25}M${-s * 0.8} ${s * 0.25}L${s * 0.8} ${s * 0.25}M${-s * 0.35} ${s * 0.7}L${s * 0.35} ${-s * 0.7}`,
  next: (s) =>
    `M${-s} 0L${-s * 0.35} 0M${s * 0.35} 0L${s} 0M0 ${-s}L0 ${-s * 0.35}M0 ${s * 0.35}L0 ${s}`,
}

export function Sign({ sign, at, scale }: { sign: MapSign; at: Place; scale: number }) {
  const size = Math.max(11, Math.min(24, 7 * scale))
  return (
    <g
      className={`head-sign sign-${sign.kind}`}
      data-sign={sign.kind}
      transform={`translate(${at.x.toFixed(1)} ${at.y.toFixed(1)})`}
    >
      <circle r={size * 1.25} className="sign-ground" />
      <path d={SHAPES[sign.kind](size)} />
    </g>
  )
}

/** A spot that was tapped on the skin. */
export function Mark({ mark, at, scale }: { mark: HeadMark; at: Place; scale: number }) {
  const { d, filled } = SPOT_SHAPES[mark.kind]
  const size = Math.max(1.5, Math.min(3, 0.8 * scale))
  return (
    <g
      className={`skin-mark ${filled ? 'filled' : ''} ${mark.earlier ? 'earlier' : ''}`}
      data-mark={mark.kind}
      transform={`translate(${at.x.toFixed(1)} ${at.y.toFixed(1)}) scale(${size.toFixed(2)})`}
    >
      <path d={d} />
    </g>
  )
}

const RING_MM = 13
const RING_WIDE_MM = 9

/** The doubt of a test as a ring on the skin: the likelier a direction, the farther out it reaches; and the stroke to make. */
export function Ring({ ring, px }: { ring: HeadRing; px: (p: Vec3) => Place }) {
  const { noon, three } = clockFrame(ring.zoneId, ring.point, ring.normal)
  const at = (bearing: number, r: number) =>
    px(plus(plus(ring.point, noon, r * Math.cos(bearing)), three, r * Math.sin(bearing)))
  const most = Math.max(...ring.odds)
  const n = ring.odds.length
  const path = (radius: (i: number) => number, reverse = false) => {
    const order = Array.from({ length: n }, (_, i) => (reverse ? n - 1 - i : i))
    return order
      .map((i, k) => {
        const p = at((i / n) * 2 * Math.PI, radius(i))
        return `${k === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`
      })
      .join('')
  }
  const stroke =
    ring.stroke === undefined
      ? undefined
      : [at(ring.stroke, -RING_MM * 0.85), at(ring.stroke, RING_MM * 0.85)]
  const found =
    ring.found === undefined
      ? undefined
      : [at(ring.found, RING_MM), at(ring.found, RING_MM + RING_WIDE_MM)]
  return (
    <g className="head-ring" data-testid="ring">
      <path
        className="ring-doubt"
        fillRule="evenodd"
        d={`${path((i) => RING_MM + (RING_WIDE_MM * ring.odds[i]!) / most)}Z${path(() => RING_MM, true)}Z`}
      />
      {found && (
        <line
          x1={found[0]!.x}
          y1={found[0]!.y}
          x2={found[1]!.x}
          y2={found[1]!.y}
          className="ring-found"
        />
      )}
      {stroke && <Finger from={stroke[0]!} to={stroke[1]!} />}
    </g>
  )
}

/** The stroke to make with the finger: a thick arrow with its start marked. */
function Finger({ from, to }: { from: Place; to: Place }) {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const ux = (to.x - from.x) / length
  const uy = (to.y - from.y) / length
  const tip = (along: number, across: number) =>
    `${(to.x - ux * along - uy * across).toFixed(1)} ${(to.y - uy * along + ux * across).toFixed(1)}`
  return (
    <g className="ring-finger">
      <path d={`M${from.x.toFixed(1)} ${from.y.toFixed(1)}L${tip(10, 0)}`} className="casing" />
      <path d={`M${from.x.toFixed(1)} ${from.y.toFixed(1)}L${tip(10, 0)}`} />
      <path d={`M${tip(0, 0)}L${tip(15, 9)}L${tip(15, -9)}Z`} className="tip" />
      <circle cx={from.x} cy={from.y} r="7" />
    </g>
  )
}

/** A name stands so far beyond its line, px. */
const NAME_PX = 24

function Name({
  of: { text, at },
  run,
  px,
}: {
  of: NonNullable<HeadLine['name']>
  run: readonly SurfacePoint[]
  px: (p: Vec3) => Place
}) {
  const ends = [px(run[0]!.point), px(run.at(-1)!.point)] as const
  const [from, to] = at === 'end' ? ends : [ends[1], ends[0]]
  // Beyond the end, on the line's own way: handles and the other line stay clear.
  const long = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const beyond = NAME_PX / long
  return (
    <text
      x={to.x + (to.x - from.x) * beyond}
      y={to.y + (to.y - from.y) * beyond}
      textAnchor="middle"
      dominantBaseline="middle"
    >
      {text}
    </text>
  )
}

/** A line over the skin, where it can be seen; small teeth stand on the side where hair is kept. */
export function Line({
  line,
  px,
  seen,
}: {
  line: HeadLine
  px: (p: Vec3) => Place
  seen: (at: SurfacePoint) => boolean
}) {
  const runs: SurfacePoint[][] = []
  let run: SurfacePoint[] | undefined
  for (const p of line.path) {
    if (!seen(p)) {
      run = undefined
      continue
    }
    if (!run) runs.push((run = []))
    run.push(p)
  }
  const d = (points: readonly SurfacePoint[]) =>
    points
      .map((p, i) => {
        const at = px(p.point)
        return `${i === 0 ? 'M' : 'L'}${at.x.toFixed(1)} ${at.y.toFixed(1)}`
      })
      .join('')
  const teeth = (points: readonly SurfacePoint[]) => {
    if (!line.keep) return ''
    let out = ''
    let since = 0
    const turn = line.keep === 'left' ? -1 : 1
    for (let i = 1; i < points.length; i++) {
      const a = px(points[i - 1]!.point)
      const b = px(points[i]!.point)
      const length = Math.hypot(b.x - a.x, b.y - a.y)
      since += length
      if (since < 9 || length === 0) continue
      since = 0
      const nx = (-(b.y - a.y) / length) * turn
      const ny = ((b.x - a.x) / length) * turn
      out += `M${b.x.toFixed(1)} ${b.y.toFixed(1)}l${(nx * 7).toFixed(1)} ${(ny * 7).toFixed(1)}`
    }
    return out
  }
  return (
    <g className={`keep-line line-${line.look}`} data-line={line.id}>
      {runs.map((points, i) => (
        <g key={i}>
          {line.look !== 'before' && <path d={d(points)} className="casing" />}
          <path d={d(points)} />
          <path d={teeth(points)} className="teeth" />
        </g>
      ))}
      {line.name && runs[0] && <Name of={line.name} run={runs[0]} px={px} />}
    </g>
  )
}
