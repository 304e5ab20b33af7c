/** Chair: one thing at a time, on a full screen, for wet hands in a dim room. */
import { useHotkeys, useInterval } from '@mantine/hooks'
import { useEffect, useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { latherLeftMs } from '../../../core/chair/service.ts'
import { directionOf } from '../../../core/head/frames.ts'
import { RELATION_WORDS } from '../../../core/grain/relation.ts'
import { bladeLifeStrokes } from '../../../core/plan/makePlan.ts'
import { ROUTINE_CONSTANTS } from '../../../core/plan/routine.ts'
import type { Plan, PlanStep } from '../../../core/plan/types.ts'
import { SPOT_WORDS } from '../../../core/screening/rules.ts'
import { SERVICES } from '../../../core/services.ts'
import { useHead } from '../../head/loadHead.ts'
import { HeadStage } from '../../head/HeadStage.tsx'
import type { HeadArrow } from '../../head/shared.ts'
import { useView, viewOf } from '../../state/view.ts'
import { clockText } from '../../state/words.ts'
import { useGrain, type StationProps } from '../useStation.ts'
import { AngleFigure, StanceFigure } from './Figures.tsx'
import { useChair } from './useChair.ts'

const LATHER_MS = ROUTINE_CONSTANTS.latherLastsMin.value * 60_000

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

type ChairProps = StationProps & { plan: Plan }

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

function StepView({
  step,
  plan,
  index,
  hand,
}: {
  step: PlanStep
  plan: Plan
  index: number
  hand: 'left' | 'right'
}) {
  const side = step.zoneId?.endsWith('-left')
    ? ' · client’s left'
    : step.zoneId?.endsWith('-right')
      ? ' · client’s right'
      : ''
  const [first, ...rest] = step.text.split('. ')
  const relation = step.relation ? RELATION_WORDS[step.relation] : ''
  return (
    <>
      <p className="chair-count">
        step {index + 1} of {plan.steps.length}
        {side}
      </p>
      <h1>{step.title.replace(/, client's (left|right)$/, ', $1')}</h1>
      <p className="chair-line">
        {step.relation ? (
          <>
            <b className={`relation-${step.relation}`}>
              {relation.charAt(0).toUpperCase() + relation.slice(1)}
            </b>
            {step.text.slice(relation.length)}
          </>
        ) : (
          <>
            {first}
            {rest.length > 0 ? `. ${rest.join('. ')}` : ''}
          </>
        )}
      </p>
      {step.stance && step.headTurn && (
        <div className="chair-figures">
          <figure>
            <StanceFigure stance={step.stance} turn={step.headTurn} hand={hand} />
            <figcaption>
              {step.stance.text} {step.headTurn}
            </figcaption>
          </figure>
          <figure>
            <AngleFigure degrees={step.bladeAngleDeg ?? 30} />
            <figcaption>Blade to skin; {step.blade}</figcaption>
          </figure>
          <p className="chair-hand">
            <b>Free hand</b> {step.freeHand}
          </p>
        </div>
      )}
      {step.avoid && step.avoid.length > 0 ? (
        <p className="notice coral">{step.avoid.join('. ')}.</p>
      ) : (
        step.watch && <p className="notice">{step.watch}</p>
      )}
    </>
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

function ChairHead({ page, visit, plan, step }: ChairProps & { step: PlanStep | undefined }) {
  const head = useHead()
  const grain = useGrain(visit)
  const turnTo = useView((s) => s.turnTo)
  const choose = useView((s) => s.choose)
  const record = step?.zoneId ? head.data?.zoneById.get(step.zoneId) : undefined
  useEffect(() => {
    choose(null)
    if (record) {
      const v = viewOf(record.centre.normal)
      turnTo(v.yawDeg, v.pitchDeg, 1.2)
    } else {
      turnTo(0, 0, 1)
    }
  }, [record, turnTo, choose])
  const layers = useMemo(() => {
    const spots = visit.asked.spots.map((s) => ({ ...s, name: `${SPOT_WORDS[s.kind]}: leave out` }))
    if (!step || !record || step.strokeBearing === undefined) return { spots }
    const { point, normal } = record.centre
    const lengthMm = Math.min(34, Math.max(12, Math.sqrt(record.areaCm2) * 5))
    const stroke = directionOf(record.id, point, normal, step.strokeBearing)
    const pull = directionOf(record.id, point, normal, step.pullBearing!)
    const arrows: HeadArrow[] = [
      {
        id: 'stroke',
        zoneId: record.id,
        point,
        normal,
        direction: stroke,
        kind: step.relation!,
        lengthMm,
      },
      {
        id: 'pull',
        zoneId: record.id,
        // The free hand lies behind the stroke, beyond its start.
        point: [
          point[0] + pull[0] * (lengthMm * 0.5 + 12),
          point[1] + pull[1] * (lengthMm * 0.5 + 12),
          point[2] + pull[2] * (lengthMm * 0.5 + 12),
        ],
        normal,
        direction: pull,
        kind: 'pull',
        lengthMm: 15,
      },
    ]
    const own = new Set(plan.zones.map((z) => z.zoneId as string))
    return {
      grain,
      faint: new Set(Object.keys(grain).filter((id) => !own.has(id))),
      arrows,
      spots,
      tints: [{ zoneId: record.id, colour: '#7fc6c6', opacity: 0.42 }],
    }
  }, [step, record, visit.asked.spots, grain, plan])
  return (
    <>
      <HeadStage {...layers} />
      {step?.zoneId && (
        <p className="chair-legend">
          Solid arrow: the stroke. Dotted: your free hand’s pull.
          <span className="hidden"> {page.client.name}</span>
        </p>
      )}
    </>
  )
}

/** Lather, blade and the whole service. */
function Clocks({ page, visit, plan }: ChairProps) {
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

function Finished({ page, visit, plan }: ChairProps) {
  const { chair: state } = visit
  const minutes = ((state.finishedAtMs ?? 0) - (state.startedAtMs ?? 0)) / 60_000
  const skipped = Object.values(state.outcomes).filter((o) => o === 'skipped').length
  return (
    <main className="page">
      <div className="page-head">
        <h1>Service done</h1>
        <p>{page.client.name}</p>
      </div>
      <dl className="facts">
        <div>
          <dt>Time</dt>
          <dd>
            {Math.round(minutes)} min, planned {Math.round(plan.totalMinutes)}
          </dd>
        </div>
        <div>
          <dt>Blades</dt>
          <dd>{state.blade}</dd>
        </div>
        <div>
          <dt>Nicks</dt>
          <dd>{state.nicks.length}</dd>
        </div>
        <div>
          <dt>Skipped</dt>
          <dd>{skipped}</dd>
        </div>
      </dl>
      <Link className="strong deep" to={`/clients/${page.client.id}/care`}>
        To the care sheet
      </Link>
    </main>
  )
}
