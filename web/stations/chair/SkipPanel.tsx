/** Why a step is skipped, or with it the rest of its zone. */
import { stepZones } from '../../../core/plan/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
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

export function SkipPanel({ chair, tell, onClose, ...props }: PanelProps) {
  const { plan, state } = chair.live
  const step = plan.steps[state.index]
  const zoneId = step?.zoneId
  const more = plan.steps
    .slice(state.index + 1)
    .filter((s) => s.kind === 'stroke' && zoneId && stepZones(s).includes(zoneId)).length
  const whole = useReplan(
    { ...props },
    chair.live,
    // A press goes on without one of its zones, too.
    zoneId && (more > 0 || stepZones(step).length > 1) ? { kind: 'skip-zone', zoneId } : undefined,
  )
  if (!step) return null
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
        ...(whole.replanned
          ? [
              {
                words: `skip all of it: ${zoneName(zoneId!)}`,
                more: `${more + 1} lanes`,
                pick: async () => {
                  onClose()
                  await tell(amended(whole.replanned!))
                },
              },
            ]
          : []),
      ]}
    />
  )
}
