/** Before the start: what is to be known, what lies on the tray, what comes first. One look decides whether it begins. */
import css from './Chair.module.css'
import { capital, lowerFirst } from '../../../core/words.ts'
import { Checkbox, Text, Title } from '@mantine/core'
import type { KitItem, Plan } from '../../../core/plan/index.ts'
import { holding, eventNotes, type VisitFinding } from '../../../core/visit/index.ts'
import { offsetHere, whenWords } from '../../../core/time/index.ts'
import { useAway } from '../../state/away.ts'
import { Findings } from '../Findings.tsx'
import type { StationProps } from '../useStation.ts'
import { useTray } from './tray.ts'

/** Rows of findings before more are asked for: the tray stays in view. What holds the start is always shown. */
const SHOWN = 4

export function Ready({
  plan,
  findings,
  wall,
  ...props
}: StationProps & { plan: Plan; findings: readonly VisitFinding[]; wall: boolean }) {
  const { client } = props.page
  const keptAtMs = useAway((s) => s.keptAtMs)
  const called = client.calledName || client.name.split(' ')[0]
  const graver = findings.filter((f) => f.severity !== 'note')
  const notes = findings.filter((f) => f.severity === 'note')
  return (
    <>
      <h1>Ready for {called}</h1>
      {keptAtMs !== null && (
        <p className={css.notice} role="note">
          <b>The house does not answer.</b> What {called} or a colleague has told it since{' '}
          {whenWords(keptAtMs)} is not known here: ask before you begin.
        </p>
      )}
      <Findings
        {...props}
        findings={[...graver, ...eventNotes(client.events, Date.now(), offsetHere), ...notes]}
        most={Math.max(SHOWN, holding(findings, 'start').length)}
        large
      />
      {!wall && (
        <section className={css.tray} aria-label="On the tray">
          <Title order={2} fz={22}>
            On the tray
          </Title>
          <div className={css.trayItems}>
            {plan.kit.map((k) => (
              <TrayItem key={k.name} item={k} visitId={props.visit.id} />
            ))}
          </div>
        </section>
      )}
      <div className={css.firstStep}>
        <p>
          <b>First:</b> {firstWords(plan)}
        </p>
        <p className={css.count} data-testid="chair-count">
          {plan.steps.length} steps, about {Math.round(plan.totalMinutes)} min
        </p>
      </div>
    </>
  )
}

function TrayItem({ item, visitId }: { item: KitItem; visitId: string }) {
  const laid = useTray((t) => t.laid[visitId]?.includes(item.name) ?? false)
  const tick = useTray((t) => t.tick)
  return (
    <Checkbox
      size="lg"
      checked={laid}
      onChange={() => tick(visitId, item.name)}
      label={
        <Text fz={20}>
          {capital(item.name)}
          {item.count > 1 && `, ${item.count}`}
        </Text>
      }
    />
  )
}

/** "hands, gloves, cleanse, 2 min. Then 16 lanes with one blade." */
function firstWords({ steps, lanes, bladeCount }: Plan): string {
  const [first] = steps
  const strokes = steps.filter((s) => s.kind === 'stroke').length
  const felt = steps.filter((s) => s.kind === 'feel').length
  const blades = bladeCount === 1 ? 'one blade' : `${bladeCount} blades`
  return [
    first ? `${lowerFirst(first.title)}, ${Math.max(1, Math.round(first.minutes))} min.` : '',
    felt > 0 ? `Then ${felt} ${felt === 1 ? 'zone is' : 'zones are'} felt.` : '',
    lanes.length > 0 ? `Then ${strokes} lanes with ${blades}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
}
