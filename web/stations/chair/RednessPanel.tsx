/** Redness or a welt: noted, then the rest is planned anew by the worker's word. */
import { zonesOfPlan } from '../../../core/plan/index.ts'
import css from './Chair.module.css'
import { useEffect, useState } from 'react'
import type { Cause, Replanned } from '../../../core/chair/index.ts'
import { theZone, zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import type { ChairProps } from './ChairHead.tsx'
import { Panel, Pick } from './Panel.tsx'
import { amended, CAUSE_WORDS, STOP, type PanelProps } from './panelProps.ts'
import { useTaps } from './taps.ts'
import { useReplan } from './useReplan.ts'

const GRADES = ['almost clear', 'mild', 'moderate', 'severe'] as const

export function RednessPanel(props: PanelProps) {
  const { chair, tell, onClose } = props
  const { plan, state } = chair.live
  const step = plan.steps[state.index]
  const { begin, places } = useTaps()
  const [welt, setWelt] = useState(false)
  const [noted, setNoted] = useState<ZoneId>()
  useEffect(() => begin('one', 8), [begin])
  const zoneId = places[0]?.zoneId ?? step?.zoneId ?? lastZone(chair)
  const known = zoneId !== undefined && zonesOfPlan(plan).includes(zoneId)
  if (noted) return <After {...props} zoneId={noted} />
  const note = async (grade: number) => {
    const fits = await tell({
      kind: 'redness',
      ...(step && { stepId: step.id }),
      detail: { zoneId, grade, welt },
    })
    if (fits && state.index < plan.steps.length) setNoted(zoneId)
    else onClose()
  }
  return (
    <Panel
      name="Skin reddens"
      title={
        known ? (
          <>
            {zoneName(zoneId)}: how red? <small>Another place: tap it.</small>
          </>
        ) : (
          'Where? Tap the place on the head.'
        )
      }
      onClose={onClose}
      choices={GRADES.map((words, i) => ({
        words: `${i + 1} ${words}`,
        disabled: !known,
        pick: () => note(i + 1),
      }))}
    >
      <div className={css.row}>
        <Pick on={welt} onPick={() => setWelt(!welt)}>
          the skin has risen: a welt
        </Pick>
      </div>
      <p className={css.note}>
        On brown and black skin look for a darker or violet tone beside the zone, and feel for
        warmth.
      </p>
    </Panel>
  )
}

/** The zone of the last stroke done. */
function lastZone({ live: { plan, state } }: ChairProps['chair']): ZoneId | undefined {
  return plan.steps
    .slice(0, state.index)
    .reverse()
    .find((s) => s.zoneId)?.zoneId
}

/** After redness: gentler, gentler without the zone, stop, or go on; each with what it comes to. */
function After({ zoneId, chair, tell, onClose, ...props }: PanelProps & { zoneId: ZoneId }) {
  const of = (cause: Cause) => ({ cause, words: CAUSE_WORDS[cause.kind] })
  const leave = useReplan(props, chair.live, { kind: 'gentler', zoneId, leaveZone: true })
  const mild = useReplan(props, chair.live, { kind: 'gentler', zoneId, leaveZone: false })
  const stop = useReplan(props, chair.live, STOP)
  const pick = (r: Replanned | undefined) => async () => {
    onClose()
    if (r) await tell(amended(r))
  }
  const figures = (r: Replanned | undefined) =>
    r &&
    `${r.now} of ${r.before} lanes, ${Math.round(r.minutesNow)} min; redness 2+ ${oddsWords(r.oddsNow)}`
  const any = leave.replanned ?? mild.replanned ?? stop.replanned
  return (
    <Panel
      name="The rest"
      title={
        any
          ? `As planned: redness 2 or more by tomorrow ${oddsWords(any.oddsBefore)} on the worst zone. Your word?`
          : leave.pending
            ? 'The rest is worked out anew …'
            : 'What is left cannot be made gentler.'
      }
      onClose={onClose}
      closeWords="go on as planned"
      choices={[
        {
          words: `Leave ${theZone(zoneId)}, the rest gentler`,
          more: figures(leave.replanned) ?? leave.why,
          strong: true,
          disabled: !leave.replanned,
          pick: pick(leave.replanned),
        },
        {
          words: 'All of it gentler',
          more: figures(mild.replanned) ?? mild.why,
          disabled: !mild.replanned,
          pick: pick(mild.replanned),
        },
        {
          words: of(STOP).words,
          more: figures(stop.replanned),
          disabled: !stop.replanned,
          pick: pick(stop.replanned),
        },
      ]}
    />
  )
}
