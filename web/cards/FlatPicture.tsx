/** One flat view with what is drawn on it, as vector lines that print. */
import type { FlatParts } from '../../core/formats/index.ts'

/** A figure written on a view, mm from its upper left corner. */
export interface FlatLabel {
  readonly x: number
  readonly y: number
  readonly text: string
}

export function FlatPicture({
  parts,
  labels = [],
  mirrored = false,
}: {
  parts: FlatParts
  labels?: readonly FlatLabel[]
  /** As a mirror shows it. */
  mirrored?: boolean
}) {
  // The views leave much room round the head; a card has none to spare.
  const [x, y, w, h] = [18, 8, parts.widthMm - 36, parts.heightMm - 16]
  return (
    <svg viewBox={`${x} ${y} ${w} ${h}`} className="flat-picture" aria-hidden>
      <g {...(mirrored && { transform: `translate(${2 * x + w} 0) scale(-1 1)` })}>
        <path d={parts.silhouette} className="flat-outline" />
        <path d={parts.parts} className="flat-parts" />
        <path d={parts.borders} className="flat-borders" />
        {parts.arrows.map((a, i) => (
          <g key={i} className={a.unsure ? 'flat-arrow unsure' : 'flat-arrow'}>
            <path d={a.d} />
            <path d={a.head} className="tip" />
          </g>
        ))}
        {parts.signs.map((d, i) => (
          <path key={i} d={d} className="flat-sign" />
        ))}
        {parts.lines && <path d={parts.lines} className="flat-line" />}
      </g>
      {labels.map((l) => (
        <text key={l.text} x={l.x + 4} y={l.y + 3} className="flat-label">
          {l.text}
        </text>
      ))}
    </svg>
  )
}
