/** The direction dial: clock ticks, a hand, and a wedge as wide as the doubt. Its top is the top of the picture beside it. */
export function Dial({
  angle,
  spread,
  guess,
  size = 104,
}: {
  /** In the picture, radians clockwise from its top; no hand where the way runs toward the eye. */
  angle: number | undefined
  spread?: number | undefined
  guess?: boolean | undefined
  size?: number
}) {
  const c = size / 2
  const r = c - 2
  const at = (angle: number, radius: number) =>
    [c + Math.sin(angle) * radius, c - Math.cos(angle) * radius] as const
  const hand = angle === undefined ? undefined : at(angle, r * 0.78)
  const wedge = spread === undefined ? undefined : Math.min(spread, Math.PI * 0.9)
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${size} ${size}`}
      className={`dial ${guess ? 'guess' : ''}`}
      aria-hidden
    >
      <circle cx={c} cy={c} r={r} className="dial-face" />
      {angle !== undefined && wedge !== undefined && wedge > 0.01 && (
        <path
          className="dial-wedge"
          d={`M${c} ${c}L${at(angle - wedge, r * 0.94).join(' ')}A${r * 0.94} ${r * 0.94} 0 ${wedge > Math.PI / 2 ? 1 : 0} 1 ${at(angle + wedge, r * 0.94).join(' ')}Z`}
        />
      )}
      {Array.from({ length: 12 }, (_, i) => {
        const a = (i / 12) * 2 * Math.PI
        return (
          <line
            key={i}
            x1={at(a, r)[0]}
            y1={at(a, r)[1]}
            x2={at(a, r - (i % 3 === 0 ? 8 : 5))[0]}
            y2={at(a, r - (i % 3 === 0 ? 8 : 5))[1]}
            className="dial-tick"
          />
        )
      })}
      {hand && <line x1={c} y1={c} x2={hand[0]} y2={hand[1]} className="dial-hand" />}
      <circle cx={c} cy={c} r="4.5" className="dial-hub" />
    </svg>
  )
}
