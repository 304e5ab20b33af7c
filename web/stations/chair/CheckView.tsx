/** The second look: missed patches are tapped on the head and become lanes. */
import { useEffect } from 'react'
import type { Draft } from '../../../core/chair/service.ts'
import { SERVICES } from '../../../core/services.ts'
import type { ChairProps } from './ChairHead.tsx'
import { useTaps } from './taps.ts'
import { useReplan } from './useReplan.ts'

export function CheckView({
  chair,
  tell,
  ...props
}: ChairProps & { tell: (draft: Draft) => Promise<boolean> }) {
  const { begin, places, clear } = useTaps()
  useEffect(() => begin('patches', 8), [begin])
  const plan = useReplan(
    props,
    chair.live,
    places.length > 0 ? { kind: 'missed', places } : undefined,
  )
  const take = async () => {
    if (!plan.replanned) return
    const { amendment } = plan.replanned
    if (await tell({ kind: 'amended', detail: { amendment } })) clear()
  }
  if (places.length === 0) {
    const fuzz = SERVICES[chair.live.plan.service].family === 'fuzz'
    return (
      <p className="notice">
        {fuzz
          ? 'Nothing is gone over twice: what was missed waits for the next visit.'
          : 'Missed a patch? Tap it on the head: it becomes a lane.'}
      </p>
    )
  }
  const { replanned } = plan
  const count = replanned?.amendment.lanes.length ?? 0
  const minutes = replanned ? replanned.minutesNow - replanned.minutesBefore : 0
  return (
    <>
      {plan.why && <p className="notice">{plan.why}</p>}
      <div className="buttons check-view">
        <button className="strong deep" onClick={() => void take()} disabled={!replanned}>
          {replanned
            ? `Take ${count} missed ${count === 1 ? 'patch' : 'patches'}, ${Math.max(1, Math.round(minutes))} min`
            : 'Take them'}
        </button>
        <button className="strong" onClick={clear}>
          None of these
        </button>
      </div>
    </>
  )
}
