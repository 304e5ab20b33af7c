/** Two clear little drawings: the chair seen from above, and the blade's angle to the skin. */
import type { Stance } from '../../../core/plan/index.ts'

/** Chair from above: the client faces up the page, to 12; the worker is the filled figure. */
export function StanceFigure({
  stance,
  turn,
  turnDeg,
  hand,
}: {
  stance: Stance
  turn: string
  /** How far the head is turned to the client's left. */
  turnDeg: number
  hand: 'left' | 'right'
}) {
  const angle = (stance.hour / 12) * 2 * Math.PI
  // Seen from above the client's left is on the left of somebody who faces up the page.
  const x = 80 - Math.sin(angle) * 58
  const y = 66 - Math.cos(angle) * 52
  const nose = -42 * Math.sign(turnDeg)
  const toward = Math.atan2(66 - y, 80 - x)
  const side = hand === 'right' ? 1 : -1
  return (
    <svg
      viewBox="0 0 160 136"
      width="160"
      height="136"
      className="stance"
      role="img"
      aria-label={`${stance.text} ${turn}`}
    >
      {[12, 3, 6, 9]
        .filter((h) => Math.abs(h - (stance.hour || 12)) > 1)
        .map((h) => {
          const a = (h / 12) * 2 * Math.PI
          return (
            <text
              key={h}
              x={80 - Math.sin(a) * 74}
              y={66 - Math.cos(a) * 62 + 4}
              textAnchor="middle"
              className="figure-hour"
            >
              {h}
            </text>
          )
        })}
      <rect x="54" y="70" width="52" height="42" rx="6" className="chair-seat" />
      <rect x="50" y="106" width="60" height="9" rx="4" className="chair-back" />
      <ellipse cx="80" cy="82" rx="31" ry="13" className="client-shoulders" />
      <g transform={`rotate(${nose} 80 66)`}>
        <path d="M76 49l4-8 4 8z" className="client-nose" />
        <ellipse cx="80" cy="66" rx="15" ry="18" className="client-head" />
      </g>
      <g transform={`translate(${x} ${y}) rotate(${(toward * 180) / Math.PI})`}>
        <ellipse rx="8" ry="19" className="worker" />
        <circle r="8" className="worker-head" />
        <path d={`M2 ${side * 14}l18 ${side * -6}`} className="worker-arm" />
      </g>
      <text x="14" y="132" className="figure-note">
        client’s left
      </text>
      <text x="146" y="132" textAnchor="end" className="figure-note">
        right
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
      className="angle"
      role="img"
      aria-label={`Blade at ${degrees} degrees to the skin`}
    >
      <path d="M4 86h132" className="skin-line" />
      <path
        d={`M${from.x} ${from.y}L${at(0, 52)}A52 52 0 0 0 ${at(a, 52)}Z`}
        className="angle-wedge"
      />
      <path d={`M${from.x} ${from.y}L${at(a, 118)}`} className="angle-blade" />
      <text x={from.x + 66} y={from.y - 12} className="angle-text">
        {degrees}°
      </text>
    </svg>
  )
}
