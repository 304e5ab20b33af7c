/** Why a step is skipped, or with it the rest of one of its zones. */
import { useState } from 'react'
import { stepZones } from '../../../core/plan/index.ts'
import { theZone, zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { Panel } from './Panel.tsx'
import { amended, type PanelProps } from './panelProps.ts'
import { useReplan } from './useReplan.ts'

const SKIP_REASONS = [
  'client asks',
  'skin is red',
  'area to leave out',
  'no hair there',
  'out of time',
] as const

export function SkipPanel(props: PanelProps) {
  const { chair, tell, onClose } = props
  const { plan, state } = chair.live
  const step = plan.steps[state.index]
  const [leaving, setLeaving] = useState<ZoneId>()
  if (!step) return null
  if (leaving) return <LeaveZone {...props} zoneId={leaving} />
  const zones = step.kind === 'stroke' || step.kind === 'feel' ? stepZones(step) : []
  const left = (zoneId: ZoneId) =>
    plan.steps
      .slice(state.index)
      .filter((s) => s.kind === 'stroke' && stepZones(s).includes(zoneId)).length
  const skip = async (reason: string) => {
    onClose()
    await tell({ kind: 'skipped', stepId: step.id, reason })
  }
  return (
    <Panel
      name="Why is it skipped?"
      title="Why?"
      onClose={onClose}
      closeWords="do not skip"
      choices={[
        // What is only to be felt is not passed over: the zone is felt, or left whole.
        ...(step.kind === 'feel'
          ? []
          : SKIP_REASONS.map((reason) => ({ words: reason, pick: () => skip(reason) }))),
        // A press goes on without one of its zones, too.
        ...zones
          .filter((zoneId) => zones.length > 1 || step.kind === 'feel' || left(zoneId) > 1)
          .map((zoneId) => ({
            words: `skip all of it: ${zoneName(zoneId)}`,
            more: lanesWords(left(zoneId)),
            pick: () => setLeaving(zoneId),
          })),
      ]}
    />
  )
}

const lanesWords = (count: number) => `${count} ${count === 1 ? 'lane' : 'lanes'}`

/** The rest without one zone, on the worker's word. */
function LeaveZone({ zoneId, chair, tell, onClose, ...props }: PanelProps & { zoneId: ZoneId }) {
  const whole = useReplan(props, chair.live, { kind: 'skip-zone', zoneId })
  return (
    <Panel
      name="Skip a zone"
      title={
        whole.replanned
          ? `${zoneName(zoneId)}: no more strokes there. The rest takes ${Math.round(whole.replanned.minutesNow)} min.`
          : (whole.why ?? 'The rest is worked out anew …')
      }
      onClose={onClose}
      closeWords="do not skip"
      choices={[
        {
          words: `Skip all of ${theZone(zoneId)}`,
          strong: true,
          disabled: !whole.replanned,
          pick: async () => {
            onClose()
            if (whole.replanned) await tell(amended(whole.replanned))
          },
        },
      ]}
    />
  )
}
