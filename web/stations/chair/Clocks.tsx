/** Lather, blade and the whole service. */
import { useInterval } from '@mantine/hooks'
import { useState } from 'react'
import { latherLeftMs } from '../../../core/chair/service.ts'
import { bladeLifeStrokes } from '../../../core/plan/tools.ts'
import { ROUTINE_CONSTANTS } from '../../../core/plan/routine.ts'
import { clockText } from '../../state/words.ts'

import type { ChairProps } from './ChairHead.tsx'

const LATHER_MS = ROUTINE_CONSTANTS.latherLastsMin.value * 60_000

export function Clocks({ page, visit, plan }: ChairProps) {
  const [now, setNow] = useState(() => Date.now())
  useInterval(() => setNow(Date.now()), 1000, { autoInvoke: true })
  const { chair: state } = visit
  const life = bladeLifeStrokes(plan.service, page.client.skin)
  const lather = latherLeftMs(visit.events, now, LATHER_MS)
  const elapsed = state.startedAtMs ? now - state.startedAtMs : 0
  return (
    <div className="clocks">
      {lather !== undefined && (
        <div className={lather < 60_000 ? 'late' : ''}>
          <small>lather</small>
          <b>{lather < 0 ? 're-lather' : `${clockText(lather)} left`}</b>
        </div>
      )}
      <div className={state.strokesOnBlade > life * 0.6 ? 'late' : ''}>
        <small>blade {state.blade}</small>
        <b>
          {state.strokesOnBlade} of ~{life} strokes
        </b>
      </div>
      <div>
        <small>service</small>
        <b>
          {clockText(elapsed)} of {Math.round(plan.totalMinutes)}:00
        </b>
      </div>
    </div>
  )
}
