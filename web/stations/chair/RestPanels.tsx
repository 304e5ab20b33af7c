/** The client asks to stop; a place is found that is left out. */
import css from './Chair.module.css'
import { useEffect } from 'react'
import { zoneName } from '../../../core/zones/index.ts'
import { Panel, Pick } from './Panel.tsx'
import { amended, CAUSE_WORDS, STOP, type PanelProps } from './panelProps.ts'
import { useTaps } from './taps.ts'
import { useReplan } from './useReplan.ts'

/** The client asks to stop. */
export function StopPanel({ chair, tell, onClose, ...props }: PanelProps) {
  const stop = useReplan(props, chair.live, STOP)
  const close = async () => {
    onClose()
    if (stop.replanned) await tell(amended(stop.replanned))
  }
  return (
    <Panel
      name="Stop"
      title="The client asks to stop. What is done stays done; cool, soothe and care follow."
      onClose={onClose}
      closeWords="go on"
      choices={[
        {
          words: CAUSE_WORDS.stop,
          more: stop.replanned
            ? `${stop.replanned.before} lanes are left undone`
            : (stop.why ?? 'a moment …'),
          strong: true,
          disabled: !stop.replanned,
          pick: close,
        },
      ]}
    />
  )
}

const RADII = [4, 8, 15, 25] as const

/** A place found under the lather: the lanes round it are cut anew. */
export function LeaveOutPanel({ chair, tell, onClose, ...props }: PanelProps) {
  const { begin, places, radiusMm, setRadius } = useTaps()
  useEffect(() => begin('one', 8), [begin])
  const place = places[0]
  const plan = useReplan(props, chair.live, place && { kind: 'leave-out', place })
  const keep = async () => {
    onClose()
    if (plan.replanned) await tell(amended(plan.replanned))
  }
  return (
    <Panel
      name="Leave a place out"
      title={
        place
          ? `${zoneName(place.zoneId)}: leave ${radiusMm} mm round it`
          : 'Tap the place on the head.'
      }
      onClose={onClose}
      choices={[
        {
          words: CAUSE_WORDS['leave-out'],
          more: plan.replanned
            ? `${plan.replanned.amendment.lanes.length} lanes are cut round it, ${plan.replanned.before - plan.replanned.now} fall away`
            : plan.why,
          strong: true,
          disabled: !plan.replanned,
          pick: keep,
        },
      ]}
    >
      <div className={css.row} role="group" aria-label="How far round it">
        {RADII.map((r) => (
          <Pick key={r} on={radiusMm === r} onPick={() => setRadius(r)}>
            {r} mm
          </Pick>
        ))}
      </div>
    </Panel>
  )
}
