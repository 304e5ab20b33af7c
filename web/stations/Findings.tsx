/** What is to be known of a visit, gravest first, each with the way in which it is lifted. */
import { Anchor } from '@mantine/core'
import { useState } from 'react'
import { Link } from 'react-router'
import type { VisitFinding } from '../../core/visit/index.ts'
import { useTakeBackDecision } from '../api/visitWrites.ts'
import { Estimate } from '../ui/Estimate.tsx'
import css from './Findings.module.css'
import { ReasonForm } from './ReasonForm.tsx'
import { SeverityMark } from './Severity.tsx'
import type { StationProps } from './useStation.ts'

export function Findings({
  findings,
  most = Infinity,
  large = false,
  ...props
}: StationProps & {
  findings: readonly VisitFinding[]
  /** So many are shown until more are asked for. */
  most?: number
  /** At the chair. */
  large?: boolean
}) {
  const [all, setAll] = useState(false)
  const shown = all ? findings : findings.slice(0, most)
  if (findings.length === 0) return null
  return (
    <ul className={css.list} data-large={large || undefined} aria-label="What is to be known">
      {shown.map((f) => (
        <Row key={f.id} finding={f} {...props} />
      ))}
      {findings.length > shown.length && (
        <li>
          <span />
          <Anchor component="button" onClick={() => setAll(true)}>
            and {findings.length - shown.length} more
          </Anchor>
        </li>
      )}
    </ul>
  )
}

function Row({ finding: f, ...props }: StationProps & { finding: VisitFinding }) {
  const [deciding, setDeciding] = useState(false)
  const open = props.visit.state === 'open'
  return (
    <li>
      <SeverityMark grade={f.severity} />
      <div>
        <p>
          <b>{f.title}.</b> {f.text}
          {'\u00a0'}
          <Estimate mark={f.mark} />{' '}
          {open && (
            <span className={css.acts}>
              <Ways finding={f} {...props} />
              {f.lift.includes('decide') && !f.decided && !deciding && (
                <Anchor component="button" onClick={() => setDeciding(true)}>
                  I have seen it and decide
                </Anchor>
              )}
              {f.decided && <TakeBack finding={f} {...props} />}
            </span>
          )}
        </p>
        {open && deciding && !f.decided && (
          <Decide finding={f} onClose={() => setDeciding(false)} {...props} />
        )}
      </div>
    </li>
  )
}

/** Where a finding is lifted. */
function Ways({ finding: f, page }: StationProps & { finding: VisitFinding }) {
  const at = (station: string, words: string, query = '') => (
    <Link to={`/clients/${page.client.id}/${station}${query}`}>{words}</Link>
  )
  if (f.decided) return null
  if (f.lift.includes('look') && f.visitId)
    return at('return', 'Look at that visit', `?visit=${f.visitId}`)
  if (f.lift.includes('sign')) return at('ask', 'Sign at Ask', '?tab=consent')
  if (f.lift.includes('read-grain')) return at('read', 'Read it now')
  if (f.lift.includes('plan')) return at('plan', 'To the plan')
  if (f.lift.includes('ask') && f.about === 'questions') return at('ask', 'Ask now')
  return null
}

function Decide({
  finding: f,
  visit,
  house,
  onClose,
}: StationProps & { finding: VisitFinding; onClose: () => void }) {
  const worker = house.workers.find((w) => w.id === house.workerId)
  const barred = f.by === 'practised' && worker?.level !== 'practised'
  return (
    <ReasonForm
      visitId={visit.id}
      workerId={house.workerId}
      finding={f.id}
      label={`${worker?.name ?? 'Somebody'}: what did you see, and why does it go on?`}
      description={
        barred
          ? 'Only somebody practised may decide this. Choose who works, in the top band.'
          : 'Kept with your name and the hour.'
      }
      act="Decide so"
      barred={barred}
      focused
      onLeave={onClose}
    />
  )
}

function TakeBack({ finding: f, visit }: StationProps & { finding: VisitFinding }) {
  const takeBack = useTakeBackDecision(visit.id)
  return (
    <>
      <Anchor
        component="button"
        disabled={takeBack.isPending}
        onClick={() => takeBack.mutate(f.decided!.id)}
      >
        Take the word back
      </Anchor>
      {takeBack.isError && <span role="alert">{takeBack.error.message}</span>}
    </>
  )
}
