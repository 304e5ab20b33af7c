/** Two clear little drawings: the chair seen from above, and the blade's angle to the skin. */
import css from './Chair.module.css'
import type { Stance } from '../../../core/plan/index.ts'
import type { Posture } from '../../../core/services/index.ts'

const HOURS = [12, 3, 6, 9] as const
const SIDES: Readonly<Record<number, string>> = { 3: 'left', 9: 'right' }
const MIDDLE = { x: 80, y: 66 }

/** A place on the clock round the chair as it is seen from above by somebody who stands behind it: 12 is nearest. */
const round = (hour: number, wide: number, high: number) => {
  const a = (hour / 12) * 2 * Math.PI
  return { x: MIDDLE.x - Math.sin(a) * wide, y: MIDDLE.y + Math.cos(a) * high }
}

/**
 * The client from above, as seen by somebody who stands behind the chair: the head end, 12, is nearest, the client's left on the
 * left, and the hours run as a clock does. The worker is the filled figure.
 */
export function StanceFigure({
  stance,
  turn,
  turnDeg,
  hand,
  posture,
}: {
  stance: Stance
  turn: string
  /** How far the head is turned to the client's left. */
  turnDeg: number
  hand: 'left' | 'right'
  posture: Posture
}) {
  const { x, y } = round(stance.hour, 58, 50)
  const nose = -42 * Math.sign(turnDeg)
  const toward = Math.atan2(MIDDLE.y - y, MIDDLE.x - x)
  const side = hand === 'right' ? 1 : -1
  return (
    <svg
      viewBox="-10 -10 180 154"
      width="160"
      height="137"
      className={css.stance}
      role="img"
      aria-label={`${stance.text} ${turn} Seen from above, from behind the chair.`}
    >
      {HOURS.filter((h) => Math.abs((h % 12) - (stance.hour % 12)) > 1).map((h) => {
        const at = round(h, 74, 62)
        return (
          <text key={h} x={at.x} y={at.y + 4} textAnchor="middle">
            {h}
            {SIDES[h] && (
              <tspan x={at.x} dy="13">
                {SIDES[h]}
              </tspan>
            )}
          </text>
        )
      })}
      {posture === 'upright' ? (
        <>
          <rect x="54" y="24" width="52" height="42" rx="6" className={css.seat} />
          <rect x="50" y="78" width="60" height="9" rx="4" className={css.seat} />
        </>
      ) : (
        // Lying back the client's legs reach away from the head end.
        <rect x="56" y="14" width="48" height="82" rx="8" className={css.seat} />
      )}
      <ellipse
        cx="80"
        cy={posture === 'upright' ? 62 : 44}
        rx="31"
        ry="13"
        className={css.client}
      />
      <g transform={`rotate(${nose} 80 66)`}>
        {posture === 'upright' ? <path d="M76 49l4-8 4 8z" className={css.client} /> : null}
        <ellipse cx="80" cy="66" rx="15" ry="18" className={css.client} />
        {/* Lying back the nose points up at the one who looks. */}
        {posture !== 'upright' && <path d="M77 70l3-9 3 9z" className={css.client} />}
      </g>
      <g transform={`translate(${x} ${y}) rotate(${(toward * 180) / Math.PI})`}>
        <ellipse rx="8" ry="19" className={css.worker} />
        <circle r="8" className={css.workerHead} />
        <path d={`M2 ${side * 14}l18 ${side * -6}`} className={css.arm} />
      </g>
      <text x="80" y="142" textAnchor="middle">
        seen from behind the chair
      </text>
    </svg>
  )
}

/** The blade as a wedge on the skin, with its degrees. */
export function AngleFigure({ degrees }: { degrees: number }) {
  const a = (degrees * Math.PI) / 180
  const from = { x: 16, y: 84 }
  const at = (angle: number, r: number) =>
    `${(from.x + Math.cos(angle) * r).toFixed(1)} ${(from.y - Math.sin(angle) * r).toFixed(1)}`
  return (
    <svg
      viewBox="0 0 140 104"
      width="140"
      height="104"
      className={css.angle}
      role="img"
      aria-label={`Blade at ${degrees} degrees to the skin`}
    >
      <path d="M4 86h132" className={css.skin} />
      <path
        d={`M${from.x} ${from.y}L${at(0, 52)}A52 52 0 0 0 ${at(a, 52)}Z`}
        className={css.good}
      />
      <path d={`M${from.x} ${from.y}L${at(a, 118)}`} className={css.blade} />
      <text x={from.x + 66} y={from.y - 12}>
        {degrees}°
      </text>
    </svg>
  )
}
