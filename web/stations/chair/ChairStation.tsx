/** Chair: one thing at a time, on a full screen, for wet hands in a dim room. */
import { Button, Stack, Text, Title, UnstyledButton } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import {
  feltTurns,
  stepNotFelt,
  leftOpenSince,
  nextPress,
  pressNow,
  spokenWords,
  withTold,
  resume,
  bladeInHand,
  type Draft,
  type Live,
} from '../../../core/chair/index.ts'
import { RELATION_WORDS } from '../../../core/grain/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { bladeLifeStrokes, type Plan } from '../../../core/plan/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { heldWords, holding } from '../../../core/visit/index.ts'
import { clockText } from '../../state/words.ts'
import { signOf } from '../../keys/shortcuts.ts'
import { useKeys } from '../../keys/useKeys.ts'
import { Problem } from '../../ui/Panel.tsx'
import { useGate } from '../useGate.ts'
import css from './Chair.module.css'
import { listWords } from '../../../core/words.ts'
import { useUnsaved } from '../../outbox/browser.ts'
import { useGoesOnLocked } from '../../state/underWay.ts'
import type { StationProps } from '../useStation.ts'
import { ChairHead, type ChairProps } from './ChairHead.tsx'
import { leaveDraft } from './CheckView.tsx'
import { Clocks } from './Clocks.tsx'
import { feltAt, turnFelt } from './felt.ts'
import { Finished } from './Finished.tsx'
import { MorePanel } from './MorePanel.tsx'
import { NickPanel } from './NickPanel.tsx'
import { Now } from './Now.tsx'
import { shortTitle } from './StepView.tsx'
import { amended } from './panelProps.ts'
import { RednessPanel } from './RednessPanel.tsx'
import { ChairButton, ReadyKeys } from './Keys.tsx'
import { LeaveOutPanel, StopPanel } from './RestPanels.tsx'
import { SkipPanel } from './SkipPanel.tsx'
import { BusyPanel, LeftOpenPanel, TakeBackPanel } from './StartPanels.tsx'
import { NO_PLACES, tappedNow, useTaps } from './taps.ts'
import { useChair, useChairNow } from './useChair.ts'
import { useLayAnew, useReplan } from './useReplan.ts'
import { Away, Tools } from './Tools.tsx'
import { canSpeak, useAwake, useSpoken, useVoice } from './voice.ts'

export function ChairStation(props: StationProps & { wall?: boolean }) {
  const { page, visit } = props
  const { plan } = visit
  if (!plan) {
    return (
      <Stack component="main" className="page" align="flex-start" gap="lg">
        <Title order={1}>No plan is kept yet</Title>
        <Text size="lg">The chair follows a kept plan. Look it over and keep it; then start.</Text>
        <Button component={Link} variant="strong" to={`/clients/${page.client.id}/plan`}>
          To the plan
        </Button>
        <Link to="/">To Today</Link>
      </Stack>
    )
  }
  if (visit.state === 'finished' && !props.wall) return <Finished {...props} plan={plan} />
  return <Running {...props} plan={plan} />
}

/** What the server does not have may be what stands in the way: no service begins on it. */
const unsavedWords = (what: readonly string[]) =>
  what.length === 0
    ? undefined
    : `Not saved yet: ${listWords([...new Set(what)])}. The service begins once the server has it.`

type Open =
  'skip' | 'more' | 'nick' | 'redness' | 'leave-out' | 'stop' | 'take-back' | 'busy' | 'left-open'

/** A pedal that bounces, or a key held down, presses again within this. */
const BOUNCE_MS = 280

function Running({
  plan,
  wall = false,
  ...station
}: StationProps & { plan: Plan; wall?: boolean }) {
  const figures = useFigures()
  const { page, visit, house } = station
  const chair = useChair(visit, plan)
  const props: ChairProps = { ...station, chair }
  const { live, link } = chair
  const { state } = live
  const navigate = useNavigate()
  const now = useChairNow(link)
  const [open, setOpen] = useState<Open>()
  const [said, setSaid] = useState('')
  const [laying, setLaying] = useState(false)
  const life = bladeLifeStrokes(figures, live.plan.service, page.client.skin)
  const step = live.plan.steps[state.index]
  const running = state.status === 'running'
  const waiting = state.status === 'waiting'
  const { findings } = useGate(station)
  const busy = visit.facts.busy
  const unsaved = useUnsaved({ clientId: page.client.id })
  const inTheWay = holding(
    findings.filter((f) => f.about !== 'busy'),
    'start',
  )
  const held = waiting
    ? (unsavedWords(unsaved.map((w) => w.what)) ?? heldWords(inTheWay, 'start'))
    : undefined
  const patches = useTaps((t) => (t.mode === 'patches' ? t.places : NO_PLACES))
  const missed = useReplan(
    station,
    live,
    step?.kind === 'check' && patches.length > 0 ? { kind: 'missed', places: patches } : undefined,
  )
  const layAnew = useLayAnew(station)
  const press = pressNow(figures, live, now, life, {
    held,
    laying,
    patches: patches.length,
    missed,
  })
  const blade = bladeInHand(live, step)
  useAwake(state.status !== 'finished')
  useGoesOnLocked(wall || waiting || state.status === 'finished' ? null : visit.id)
  useSpoken(spokenWords(step, press, state.status))
  // A service that nobody ended asks once whether it goes on.
  const sinceMs = leftOpenSince(figures, state, now)
  const asked = useRef(false)
  useEffect(() => {
    if (sinceMs === undefined || wall || asked.current) return
    asked.current = true
    setOpen('left-open')
  }, [sinceMs, wall])

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
  /** What was felt otherwise than guessed is laid anew before anything else happens. */
  const lay = async (zoneId: ZoneId) => {
    setLaying(true)
    try {
      const { replanned, why } = await layAnew(link.view().live, zoneId)
      if (!replanned)
        return setSaid(why ?? 'It could not be laid anew. Leave the zone out, or try again.')
      if (await tell(amended(replanned)))
        setSaid(`${zoneName(zoneId)}: its lanes now follow what you felt.`)
    } finally {
      setLaying(false)
    }
  }
  const goOn = async () => {
    const { live: before } = link.view()
    const at = before.plan.steps[before.state.index]
    const unfelt = stepNotFelt(figures, before, at)
    if (unfelt?.why === 'felt-otherwise') return lay(unfelt.lane.zoneId)
    const { places, mode, clear } = useTaps.getState()
    if (at?.kind === 'check' && mode === 'patches' && places.length > 0) {
      const r = missed.replanned
      if (await tell(r ? amended(r) : leaveDraft())) clear()
      return
    }
    if (before.state.status === 'waiting' && busy.length > 0) return setOpen('busy')
    const felt = feltAt(before)
    const done = await tell((l) =>
      withTold(nextPress(figures, l, link.nowMs(), life).draft, l, tappedNow(), feltAt(l)),
    )
    if (done && felt && feltTurns(figures, before.plan, felt.zoneId, felt)) await lay(felt.zoneId)
  }
  const lastPress = useRef(-Infinity)
  const forward = (event?: KeyboardEvent) => {
    const at = performance.now()
    if (event?.repeat || at - lastPress.current < BOUNCE_MS || open || !press.draft) return
    lastPress.current = at
    void goOn()
  }
  const note = async (draft: Draft, words: string) => {
    if (running && (await tell(draft))) setSaid(words)
  }
  const here = step ? { stepId: step.id } : {}
  const begun = running || state.status === 'paused'
  const nick = () =>
    begun &&
    void tell({ kind: 'nick', ...here, detail: { zoneId: step?.zoneId } }).then(
      (fits) => fits && setOpen('nick'),
    )
  const tug = () =>
    note({ kind: 'tug', ...here }, 'Tug noted. Change the blade before the next stroke.')
  const pressure = () =>
    note({ kind: 'pressure', ...here }, 'Never press. Change the blade before the next stroke.')
  const newBlade = () =>
    note(
      { kind: 'blade-changed', ...here, detail: { why: 'by-hand' } },
      'New blade. The old one into the sharps box.',
    )
  const back = () => running && state.index > 0 && void tell({ kind: 'back' })
  const lather = () =>
    note({ kind: 're-lathered', ...here }, 'Fresh lather on what is not yet done.')
  const pause = () =>
    !waiting && void tell(state.status === 'paused' ? resume(state) : { kind: 'paused' })
  /** All but the skipping of a step is there in a pause, too: what is left may be changed while somebody looks. */
  const ask = (what: Open) => (what === 'skip' ? running : begun) && !open && setOpen(what)
  const free = (work: () => unknown) => () => void (open || wall || work())
  const voice = useVoice((v) => v.toggle)
  const at = (station_: string) => `/clients/${page.client.id}/${station_}`
  const cardAt = `/clients/${page.client.id}/cards/plan?visit=${visit.id}`
  const toPlan = () => waiting && void navigate(at('plan'))
  useKeys(
    {
      done: (e) => wall || forward(e),
      back: free(back),
      nick: free(nick),
      tug: free(tug),
      pressure: free(pressure),
      blade: free(newBlade),
      lather: free(lather),
      pause: free(pause),
      skip: free(() => step && ask('skip')),
      more: free(() => ask('more')),
      reddens: !waiting && free(() => ask('redness')),
      'leave-out': free(() => ask('leave-out')),
      stop: free(() => ask('stop')),
      'felt-back': free(() => turnFelt(live, -15)),
      'felt-on': free(() => turnFelt(live, 15)),
      ...(waiting && {
        wall: free(() => window.open(at('wall'), '_blank')),
        'to-plan': free(toPlan),
        card: free(() => navigate(cardAt)),
        voice: canSpeak && free(voice),
      }),
    },
    // The pedal is a key, too: wherever the hand was last, it goes on.
    { overButtons: true },
  )
  const called = page.client.calledName || page.client.name
  // In a pause the step that waits comes next.
  const next = live.plan.steps[state.index + (state.status === 'paused' ? 0 : 1)]
  const panel = { ...props, tell, onClose: () => setOpen(undefined) }
  return (
    <div className={css.chair} data-testid="chair" data-wall={wall || undefined}>
      <header className={css.band}>
        <Link to={at('plan')} className={css.name} data-testid="chair-name">
          {called}
        </Link>
        <span className={css.service}>{SERVICES[live.plan.service].name}</span>
        {!wall && !waiting && <Tools clientId={page.client.id} />}
        <Clocks {...props} />
      </header>
      <section className={css.head} aria-label="The head, turned to this step">
        <ChairHead {...props} step={step} />
        <Away {...props} />
      </section>
      <main className={css.step} aria-live="polite">
        <Now
          {...props}
          press={press}
          step={step}
          wall={wall}
          tell={tell}
          hand={handOf(house, visit.workerId)}
          missed={missed}
          findings={findings}
        />
        {next && !waiting && (
          <p className={css.next}>
            Next: {next.title.charAt(0).toLowerCase()}
            {shortTitle(next).slice(1)}
            {next.relation ? ` · ${RELATION_WORDS[next.relation]}` : ''}
          </p>
        )}
        {open === 'skip' && <SkipPanel {...panel} />}
        {open === 'more' && <MorePanel {...panel} onMore={setOpen} />}
        {open === 'nick' && <NickPanel {...panel} />}
        {open === 'redness' && <RednessPanel {...panel} />}
        {open === 'leave-out' && <LeaveOutPanel {...panel} />}
        {open === 'stop' && <StopPanel {...panel} />}
        {open === 'take-back' && <TakeBackPanel {...panel} />}
        {open === 'busy' && <BusyPanel {...panel} busy={busy} />}
        {open === 'left-open' && sinceMs !== undefined && (
          <LeftOpenPanel {...panel} sinceMs={sinceMs} />
        )}
        <Problem>{chair.problem}</Problem>
        <p role="status" className={css.said} data-testid="chair-said">
          {said}
        </p>
      </main>
      {!wall && (
        <footer className={css.bar} data-ready={waiting || undefined}>
          <UnstyledButton
            className={css.key}
            data-testid="chair-go"
            mod={{ go: true, main: true }}
            onClick={() => forward()}
            disabled={!press.draft || !!open}
            title={held}
          >
            <b>
              {press.words}
              {press.waitMs !== undefined && ` · ${clockText(press.waitMs)}`}
            </b>
            <small>{held ? (inTheWay[0]?.title ?? 'Not saved yet') : 'Space or pedal'}</small>
          </UnstyledButton>
          {waiting ? (
            <ReadyKeys toPlan={toPlan} card={cardAt} wallAt={at('wall')} />
          ) : (
            <>
              <ChairButton
                main
                name="Nick"
                sign={signOf('nick')}
                onClick={nick}
                disabled={!begun || !!open}
              />
              <ChairButton name="Tugs" sign="T" onClick={tug} disabled={!running || !blade} />
              <ChairButton
                name="New blade"
                sign="B"
                onClick={newBlade}
                disabled={!running || !blade}
              />
              <ChairButton
                name="Skip"
                sign="S"
                onClick={() => ask('skip')}
                disabled={!running || !step}
              />
              <ChairButton
                main
                name="More"
                sign="M"
                onClick={() => setOpen(open ? undefined : 'more')}
                disabled={waiting}
              />
            </>
          )}
        </footer>
      )}
    </div>
  )
}

const handOf = (house: StationProps['house'], workerId: string) =>
  house.workers.find((w) => w.id === workerId)?.hand ?? 'right'
