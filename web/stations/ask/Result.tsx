/** The result of asking, at once, with everything that is known and how it is lifted. */
import { Button, Group, Text } from '@mantine/core'
import { Link, useNavigate } from 'react-router'
import { CLOSING_SENTENCE, verdictWords } from '../../../core/screening/index.ts'
import { holding, type About, type VisitFinding } from '../../../core/visit/index.ts'
import { FIRST_CHOICE } from '../../../core/plan/index.ts'
import { dayWords } from '../../../core/time/index.ts'
import { useMakePlan } from '../../api/visitWrites.ts'
import { todayIso } from '../../state/words.ts'
import { Findings } from '../Findings.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { useGate } from '../useGate.ts'
import css from './Ask.module.css'
import type { StationProps } from '../useStation.ts'

/** What the later stations say themselves. */
const ELSEWHERE: ReadonlySet<About> = new Set(['plan', 'busy', 'hand'])

/** @param steady whether it keeps its height whatever is found */
export function Result({ steady, ...props }: StationProps & { steady: boolean }) {
  const { visit } = props
  const { screening, findings } = useGate(props)
  // The questions stand in the heading.
  const shown = findings.filter((f) => !ELSEWHERE.has(f.about) && f.about !== 'questions')
  return (
    <section
      className={css.result}
      data-verdict={screening.verdict}
      data-steady={steady || undefined}
      aria-live="polite"
    >
      <PanelHead title={verdictWords(screening, todayIso())}>
        {visit.state === 'open' && <Onward {...props} findings={findings} />}
      </PanelHead>
      <div className={css.found}>
        <Findings {...props} findings={shown} most={3} />
        {screening.wouldChange.length > 0 && (
          <p>
            <b>What would have to change:</b> {screening.wouldChange.join(' ')}
          </p>
        )}
        {screening.wholeFrom && (
          <p>
            Nothing has to be left out for a date’s sake from{' '}
            {dayWords(screening.wholeFrom, todayIso())}.
          </p>
        )}
        <Text fz={13} c="dimmed">
          {CLOSING_SENTENCE}
        </Text>
      </div>
    </section>
  )
}

/**
 * Where it goes on from here: to Read while the map is open; else the plan is made as it was chosen last and the chair is
 * made ready, where all of it is said once more before anything begins.
 */
function Onward({ page, visit, findings }: StationProps & { findings: readonly VisitFinding[] }) {
  const navigate = useNavigate()
  const save = useMakePlan(visit.id)
  const held = holding(findings, 'plan').length > 0
  if (held) return null
  const unread = findings.some((f) => f.about === 'map')
  const at = (station: string) => `/clients/${page.client.id}/${station}`
  const kept = visit.plan !== null && !findings.some((f) => f.id === 'plan-behind')
  const open = findings.some((f) => f.about === 'questions')
  const toChair = () => {
    const go = () => void navigate(at('chair'))
    if (kept) go()
    else save.mutate(visit.plan?.choice ?? FIRST_CHOICE, { onSuccess: go })
  }
  return (
    <>
      <Group gap="xs" wrap="nowrap">
        <Button component={Link} variant={unread || open ? 'strong' : 'line'} to={at('read')}>
          Read the grain
        </Button>
        {!unread && !open && (
          <Button variant="strong" onClick={toChair} loading={save.isPending}>
            To the chair
          </Button>
        )}
      </Group>
      <Problem>{save.error?.message}</Problem>
    </>
  )
}
