/** The first look at the skin: what reddened comes first; other red zones are tapped and graded; what is not named is clear. */
import { zonesOfPlan } from '../../../core/plan/index.ts'
import { Stack } from '@mantine/core'
import css from './Chair.module.css'
import { useEffect, useMemo } from 'react'
import { redAtChair } from '../../../core/chair/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { useHead } from '../../head/loadHead.ts'
import type { ChairProps } from './ChairHead.tsx'
import { Pick } from './Panel.tsx'
import { useTaps } from './taps.ts'

const GRADES = [1, 2, 3, 4] as const

export function LookView({ chair }: ChairProps) {
  const { begin, places, grades, grade } = useTaps()
  const head = useHead()
  const { plan, state } = chair.live
  const red = useMemo(() => redAtChair(state), [state])
  useEffect(() => {
    const first = Object.keys(red).flatMap((zone) => {
      const at = head.data?.zoneById.get(zone as ZoneId)?.centre
      return at ? [{ zoneId: zone as ZoneId, ...at, radiusMm: 8 }] : []
    })
    return begin('zones', 8, { places: first, grades: red })
  }, [begin, red, head.data])
  const worked = new Set(zonesOfPlan(plan))
  const zones = [
    ...new Set([
      ...(Object.keys(red) as ZoneId[]),
      ...places.filter((p) => worked.has(p.zoneId)).map((p) => p.zoneId),
    ]),
  ]
  return (
    <Stack gap="xs">
      {zones.map((id) => (
        <div key={id} className={css.row} role="group" aria-label={zoneName(id)}>
          <span>
            {zoneName(id)}
            {red[id] !== undefined && <small>at the chair: {red[id]}</small>}
          </span>
          {(red[id] === undefined ? GRADES : [0, ...GRADES]).map((g) => (
            <Pick key={g} on={(grades[id] ?? red[id] ?? 1) === g} onPick={() => grade(id, g)}>
              {g === 0 ? 'calm' : g}
            </Pick>
          ))}
        </div>
      ))}
      <p className={css.notice}>
        Tap {zones.length > 0 ? 'other ' : ''}red zones on the head. On brown and black skin: a
        darker or violet tone, and warmth.
      </p>
    </Stack>
  )
}
