/** Chair: one thing at a time, on a full screen, for wet hands in a dim room. */
import { useHotkeys } from '@mantine/hooks'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { nextPress, type Press } from '../../../core/chair/rules.ts'
import { bladeInHand, type Draft, type Live } from '../../../core/chair/service.ts'
import { RELATION_WORDS } from '../../../core/grain/relation.ts'
import { bladeLifeStrokes } from '../../../core/plan/tools.ts'
import type { Plan, PlanStep } from '../../../core/plan/types.ts'
import { SERVICES } from '../../../core/services.ts'
import { clockText } from '../../state/words.ts'
import { type StationProps } from '../useStation.ts'
import { ChairHead, type ChairProps } from './ChairHead.tsx'
import { Clocks } from './Clocks.tsx'
import { Finished } from './Finished.tsx'
import { MorePanel } from './MorePanel.tsx'
import { NickPanel } from './NickPanel.tsx'
import { Now } from './Now.tsx'
import { RednessPanel } from './RednessPanel.tsx'
import { LeaveOutPanel, StopPanel } from './RestPanels.tsx'
import { SkipPanel } from './SkipPanel.tsx'
import { lookedZones, useTaps } from './taps.ts'
import { useChair, useChairNow } from './useChair.ts'
import { Away, Tools } from './Tools.tsx'
import { useAwake, useSpoken } from './voice.ts'

export function ChairStation(props: StationProps & { wall?: boolean }) {
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
  if (visit.state === 'finished' && !props.wall) return <Finished {...props} plan={plan} />
  return <Running {...props} plan={plan} />
}

type Open = 'skip' | 'more' | 'nick' | 'redness' | 'leave-out' | 'stop'

/** A pedal that bounces, or a key held down, presses again within this. */
const BOUNCE_MS = 280

function Running({
  plan,
  wall = false,
  ...station
}: StationProps & { plan: Plan; wall?: boolean }) {
  const { page, visit, house } = station
  const chair = useChair(visit, plan)
  const props: ChairProps = { ...station, chair }
  const { live, link } = chair
  const { state } = live
  const navigate = useNavigate()
  const now = useChairNow(link)
  const [open, setOpen] = useState<Open>()
  const [said, setSaid] = useState('')
  const life = bladeLifeStrokes(live.plan.service, page.client.skin)
  const told = nextPress(live, now, life)
  const red = useTaps((t) => t.mode === 'zones' && t.places.length > 0)
  const press: Press =
    told.draft?.kind === 'looked' && red ? { ...told, words: 'Keep this reading' } : told
  const step = live.plan.steps[state.index]
  const running = state.status === 'running'
  const held = bladeInHand(live, step)
  useAwake(state.status !== 'finished')
  useSpoken(spokenWords(step, press, state.status))

  useEffect(() => {
    if (!said) return
    const timer = setTimeout(() => setSaid(''), 2600)
    return () => clearTimeout(timer)
  }, [said])
  // What is asked about a step goes with the step.
  useEffect(() => setOpen((o) => (o === 'skip' || o === 'more' ? undefined : o)), [state.index])
  useEffect(() => {
    if (state.status === 'finished' && !wall && chair.waiting === 0)
      void navigate(`/clients/${page.client.id}/care`)
  }, [state.status, wall, chair.waiting, navigate, page.client.id])

  const tell = (draft: Draft | ((l: Live) => Draft | undefined)) => link.tell(draft)
  const lastPress = useRef(-Infinity)
  const forward = (event?: KeyboardEvent) => {
    const at = performance.now()
    if (event?.repeat || at - lastPress.current < BOUNCE_MS || open) return
    lastPress.current = at
    void tell((l) => withLook(nextPress(l, link.nowMs(), life).draft, l))
  }
  const note = async (draft: Draft, words: string) => {
    if (running && (await tell(draft))) setSaid(words)
  }
  const here = step ? { stepId: step.id } : {}
  const nick = () =>
    running &&
    void tell({ kind: 'nick', ...here, detail: { zoneId: step?.zoneId } }).then(
      (fits) => fits && setOpen('nick'),
    )
  const tug = () =>
    note({ kind: 'tug', ...here }, 'Tug noted. Change the blade before the next stroke.')
  const pressure = () =>
    note({ kind: 'pressure', ...here }, 'Never press. Change the blade before the next stroke.')
  const blade = () =>
    note(
      { kind: 'blade-changed', ...here, detail: { why: 'by-hand' } },
      'New blade. The old one into the sharps box.',
    )
  const back = () => running && state.index > 0 && void tell({ kind: 'back' })
  const lather = () =>
    note({ kind: 're-lathered', ...here }, 'Fresh lather on what is not yet done.')
  const pause = () => void tell({ kind: state.status === 'paused' ? 'resumed' : 'paused' })
  const ask = (what: Open) => running && !open && setOpen(what)
  const free = (work: () => unknown) => () => void (open || wall || work())
  useHotkeys([
    ['space', (e) => wall || forward(e)],
    ['PageDown', (e) => wall || forward(e)],
    ['PageUp', free(back)],
    ['N', free(nick)],
    ['T', free(tug)],
    ['E', free(pressure)],
    ['B', free(blade)],
    ['R', free(lather)],
    ['P', free(pause)],
    ['S', free(() => step && ask('skip'))],
    ['M', free(() => ask('more'))],
    ['W', free(() => ask('redness'))],
    ['L', free(() => ask('leave-out'))],
    ['X', free(() => ask('stop'))],
  ])
  const called = page.client.calledName || page.client.name
  const next = live.plan.steps[state.index + 1]
  const panel = { ...props, tell, onClose: () => setOpen(undefined) }
  return (
    <div className={wall ? 'chair chair-wall' : 'chair'}>
      <header className="chair-band">
        <Link to={`/clients/${page.client.id}/plan`} className="chair-name">
          {called}
        </Link>
        <span className="chair-service">{SERVICES[live.plan.service].name}</span>
        {!wall && <Tools clientId={page.client.id} />}
        <Clocks {...props} />
      </header>
      <section className="chair-head" aria-label="The head, turned to this step">
        <ChairHead {...props} step={step} />
        <Away {...props} />
      </section>
      <main className="chair-step" aria-live="polite">
        <Now
          {...props}
          press={press}
          step={step}
          wall={wall}
          tell={tell}
          hand={handOf(house, visit.workerId)}
        />
        {next && state.status !== 'waiting' && (
          <p className="chair-next">
            Next: {next.title.charAt(0).toLowerCase()}
            {next.title.slice(1)}
            {next.relation ? ` · ${RELATION_WORDS[next.relation]}` : ''}
          </p>
        )}
        {open === 'skip' && <SkipPanel {...panel} />}
        {open === 'more' && <MorePanel {...panel} onMore={setOpen} />}
        {open === 'nick' && <NickPanel {...panel} />}
        {open === 'redness' && <RednessPanel {...panel} />}
        {open === 'leave-out' && <LeaveOutPanel {...panel} />}
        {open === 'stop' && <StopPanel {...panel} />}
        {chair.problem && (
          <p role="alert" className="problem chair-problem">
            {chair.problem}
          </p>
        )}
        <p role="status" className="chair-said">
          {said}
        </p>
      </main>
      {!wall && (
        <footer className="chair-bar">
          <button className="chair-go" onClick={() => forward()} disabled={!press.draft || !!open}>
            <b>
              {press.words}
              {press.waitMs !== undefined && ` · ${clockText(press.waitMs)}`}
            </b>
            <small>Space or pedal</small>
          </button>
          <ChairButton name="Nick" sign="N" onClick={nick} disabled={!running || !!open} />
          <ChairButton name="Tugs" sign="T" onClick={tug} disabled={!running || !held} />
          <ChairButton name="New blade" sign="B" onClick={blade} disabled={!running || !held} />
          <ChairButton
            name="Skip"
            sign="S"
            onClick={() => ask('skip')}
            disabled={!running || !step}
          />
          <ChairButton
            name="More"
            sign="M"
            onClick={() => setOpen(open ? undefined : 'more')}
            disabled={state.status === 'waiting'}
          />
        </footer>
      )}
    </div>
  )
}

/** The first look as tapped on the head goes along with the press. */
function withLook(draft: Draft | undefined, { plan }: Live): Draft | undefined {
  if (draft?.kind !== 'looked') return draft
  return { ...draft, detail: { zones: lookedZones(new Set(plan.zones.map((z) => z.zoneId))) } }
}

const handOf = (house: StationProps['house'], workerId: string) =>
  house.workers.find((w) => w.id === workerId)?.hand ?? 'right'

/** What is said aloud of a step. */
function spokenWords(step: PlanStep | undefined, press: Press, status: string): string {
  if (status === 'waiting' || status === 'finished') return ''
  if (status === 'paused') return 'Paused.'
  const line = press.line ?? step?.text ?? ''
  return `${step?.title ?? press.words}. ${line}`
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
