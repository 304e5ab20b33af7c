/** The first look at the skin: zones that are red are tapped and graded; what is not named is clear. */
import { useEffect } from 'react'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ChairProps } from './ChairHead.tsx'
import { useTaps } from './taps.ts'

const GRADES = [1, 2, 3, 4] as const

export function LookView({ chair }: ChairProps) {
  const { begin, places, grades, grade } = useTaps()
  useEffect(() => begin('zones', 8), [begin])
  const worked = new Set(chair.live.plan.zones.map((z) => z.zoneId))
  const zones = places.filter((p) => worked.has(p.zoneId))
  if (zones.length === 0) {
    return (
      <p className="notice">
        Tap red zones on the head. On brown and black skin: a darker or violet tone, and warmth.
      </p>
    )
  }
  return (
    <div className="look-view">
      {zones.map((z) => (
        <div key={z.zoneId} className="panel-row" role="group" aria-label={zoneName(z.zoneId)}>
          <span>{zoneName(z.zoneId)}</span>
          {GRADES.map((g) => (
            <button
              key={g}
              aria-pressed={(grades[z.zoneId] ?? 1) === g}
              onClick={() => grade(z.zoneId, g)}
            >
              {g}
            </button>
          ))}
        </div>
      ))}
    </div>
  )
}
