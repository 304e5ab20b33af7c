/** Chair: one thing at a time, on a full screen, for wet hands in a dim room. */
import { useHotkeys } from '@mantine/hooks'
import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { RELATION_WORDS } from '../../../core/grain/relation.ts'
import { SERVICES } from '../../../core/services.ts'
import { type StationProps } from '../useStation.ts'
import { ChairHead, type ChairProps } from './ChairHead.tsx'
import { Clocks } from './Clocks.tsx'
import { Finished } from './Finished.tsx'
import { StepView } from './StepView.tsx'
import { useChair } from './useChair.ts'

export function ChairStation(props: StationProps) {
  const { page, visit } = props
  const { plan } = visit
  if (!plan) {
    return (
      <main className="page">
        <div className="page-head">
          <h1>No plan is kept yet</h1>
        </div>
        <div className="empty">
          <p>The chair follows a kept plan. Look it over and keep it; then start.</p>
          <Link className="strong deep" to={`/clients/${page.client.id}/plan`}>
            To the plan
          </Link>
        </div>
      </main>
    )
  }
  if (visit.state === 'finished') return <Finished {...props} plan={plan} />
  return <Running {...props} plan={plan} />
}

function Running(props: ChairProps) {
  const { page, visit, plan, house } = props
  const chair = useChair(visit)
  const { chair: state } = visit
  const navigate = useNavigate()
  const step = plan.steps[state.index]
  const next = plan.steps[state.index + 1]
  const [skipping, setSkipping] = useState(false)
  const [said, setSaid] = useState('')
  const hand = house.workers.find((w) => w.id === visit.workerId)?.hand ?? 'right'
  const started = state.status === 'running'

  useEffect(() => setSkipping(false), [state.index])
  useEffect(() => {
    if (!said) return
    const timer = setTimeout(() => setSaid(''), 2600)
    return () => clearTimeout(timer)
  }, [said])

  const forward = async () => {
    if (!started) return void (await chair.tell('started'))
    if (step) return void (await chair.tell('done', step.id))
    if (await chair.tell('finished')) await navigate(`/clients/${page.client.id}/care`)
  }
  const note = async (kind: 'nick' | 'tug' | 'blade-changed', words: string) => {
    if (started && step && (await chair.tell(kind, step.id))) setSaid(words)
  }
  const nick = () => note('nick', 'Nick noted. Light pressure, styptic.')
  const tug = () => note('tug', 'Tug noted. If it tugs again, change the blade.')
  const blade = () => note('blade-changed', 'New blade. The old one into the sharps box.')
  const back = () => started && state.index > 0 && chair.tell('back')
  const skip = async (reason: string) => {
    setSkipping(false)
    if (step) await chair.tell('skipped', step.id, reason)
  }
  useHotkeys([
    ['space', () => void forward()],
    ['PageDown', () => void forward()],
    ['PageUp', () => void back()],
    ['N', () => void nick()],
    ['T', () => void tug()],
    ['B', () => void blade()],
    ['S', () => started && step && setSkipping(true)],
    ['Escape', () => setSkipping(false)],
  ])
  const called = page.client.calledName || page.client.name
  return (
    <div className="chair">
      <header className="chair-band">
        <Link to={`/clients/${page.client.id}/plan`} className="chair-name">
          {called}
        </Link>
        <span>
          {SERVICES[visit.service].name.toLowerCase()}
          {step?.pass ? ` · pass ${step.pass}` : ''}
        </span>
        <Clocks {...props} />
      </header>
      <section className="chair-head" aria-label="The head">
        <ChairHead {...props} step={step} />
      </section>
      <main className="chair-step" aria-live="polite">
        {!started ? (
          <>
            <p className="chair-count">
              {plan.steps.length} steps, about {Math.round(plan.totalMinutes)} min
            </p>
            <h1>Ready?</h1>
            <p className="chair-line">Fresh blade for this client. Hands washed, gloves on.</p>
          </>
        ) : step ? (
          <StepView step={step} plan={plan} index={state.index} hand={hand} />
        ) : (
          <>
            <p className="chair-count">all {plan.steps.length} steps</p>
            <h1>All done</h1>
            <p className="chair-line">Finish the service; then hand over the care sheet.</p>
          </>
        )}
        {next && started && (
          <p className="chair-next">
            Next: {next.title.toLowerCase()}
            {next.relation ? ` · ${RELATION_WORDS[next.relation]}` : ''}
          </p>
        )}
        {skipping && (
          <SkipReasons onSkip={(r) => void skip(r)} onClose={() => setSkipping(false)} />
        )}
        {chair.problem && (
          <p role="alert" className="problem chair-problem">
            {chair.problem}
          </p>
        )}
        <p role="status" className="chair-said">
          {said}
        </p>
      </main>
      <footer className="chair-bar">
        <button className="chair-go" onClick={() => void forward()} disabled={chair.busy}>
          <b>{!started ? 'Start' : step ? 'Done, next' : 'Finish'}</b>
          <small>Space or pedal</small>
        </button>
        <ChairButton name="Nick" sign="N" onClick={nick} disabled={!started || !step} />
        <ChairButton name="Tugs" sign="T" onClick={tug} disabled={!started || !step} />
        <ChairButton name="New blade" sign="B" onClick={blade} disabled={!started || !step} />
        <ChairButton
          name="Skip"
          sign="S"
          onClick={() => setSkipping(true)}
          disabled={!started || !step}
        />
        <ChairButton
          name="Back"
          sign="Page up"
          onClick={back}
          disabled={!started || state.index === 0}
        />
      </footer>
    </div>
  )
}

function ChairButton({
  name,
  sign,
  onClick,
  disabled,
}: {
  name: string
  sign: string
  onClick: () => unknown
  disabled: boolean
}) {
  return (
    <button onClick={() => void onClick()} disabled={disabled}>
      <b>{name}</b>
      <small>{sign}</small>
    </button>
  )
}

const SKIP_REASONS = [
  'client asks',
  'skin is red',
  'area to leave out',
  'no hair there',
  'out of time',
] as const

function SkipReasons({
  onSkip,
  onClose,
}: {
  onSkip: (reason: string) => void
  onClose: () => void
}) {
  useHotkeys(SKIP_REASONS.map((reason, i) => [String(i + 1), () => onSkip(reason)]))
  return (
    <div className="skip-reasons" role="dialog" aria-label="Why is it skipped?">
      <p>Why?</p>
      {SKIP_REASONS.map((reason, i) => (
        <button key={reason} onClick={() => onSkip(reason)} autoFocus={i === 0}>
          <kbd>{i + 1}</kbd> {reason}
        </button>
      ))}
      <button onClick={onClose}>do not skip</button>
    </div>
  )
}
