/** Hours that are proposed: one by one or all at once they become appointments; until then nothing is booked. */
import { Button, Group, Progress, Stack, Switch, Text, Title } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import type { Proposal, Week } from '../../contract/week.ts'
import { oneJob } from '../../core/services/index.ts'
import { oddsWords } from '../../core/stats/index.ts'
import { whenWords } from '../../core/time/index.ts'
import { call, GivenUp } from '../api/call.ts'
import { newId } from '../state/words.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Estimate } from '../ui/Estimate.tsx'
import { Problem } from '../ui/Panel.tsx'
import { type BookActs, shortWork, workerName } from './useBook.ts'
import css from './Week.module.css'

export type Proposed = Proposal['proposals'][number]

/** Asks for proposals; given up when it is left. */
export function useProposals(from: string, days: number) {
  const [told, setTold] = useState<Proposal>()
  const [moves, setMoves] = useState(false)
  const stop = useRef<AbortController>(undefined)
  const asking = useMutation({
    mutationFn: () => {
      stop.current = new AbortController()
      return call('propose', { body: { from, days, moves }, signal: stop.current.signal })
    },
    onSuccess: setTold,
  })
  const { reset } = asking
  const close = () => {
    stop.current?.abort()
    setTold(undefined)
    reset()
  }
  // Whether hours may be moved is another question.
  const again = useRef(false)
  const { mutate } = asking
  useEffect(() => {
    if (!again.current) return
    again.current = false
    mutate()
  }, [moves, mutate])
  // Other days are other proposals.
  useEffect(() => {
    setTold(undefined)
    return () => stop.current?.abort()
  }, [from, days])
  return {
    ...{ told, close, ask: () => asking.mutate(), asking: asking.isPending },
    error: asking.error instanceof GivenUp ? null : asking.error,
    moves,
    setMoves: (on: boolean) => {
      setMoves(on)
      again.current = true
    },
    dropMove: (id: string) =>
      setTold((t) => t && { ...t, moves: t.moves.filter((m) => m.id !== id) }),
    drop: (clientId: string) =>
      setTold((t) => t && { ...t, proposals: t.proposals.filter((p) => p.clientId !== clientId) }),
  }
}
export type ProposalsOf = ReturnType<typeof useProposals>

const asBody = (p: Proposed) => ({
  ...{ id: newId(), clientId: p.clientId, workerId: p.workerId, startMs: p.startMs },
  ...{ minutes: p.minutes, note: '', client: p.name },
  jobs: p.jobs.map((j) => ({ ...oneJob(newId(), j.service), method: j.method, zones: j.zones })),
})

export function Proposals({ week, of, acts }: { week: Week; of: ProposalsOf; acts: BookActs }) {
  const { told } = of
  const [shown, setShown] = useState<string>()
  if (of.asking)
    return (
      <Stack gap="sm" component="section" aria-label="Working the week out" role="status">
        <Title order={2} fz={22}>
          Working it out …
        </Title>
        <Progress value={100} animated aria-label="Working it out" />
        <Text size="sm">Hours for everybody whose good days these are. At most ten seconds.</Text>
        <KeyButton k="week-leave" variant="line" size="sm" onAct={of.close}>
          Stop
        </KeyButton>
      </Stack>
    )
  if (!told) return <Problem>{of.error?.message}</Problem>
  const accept = (...some: readonly Proposed[]) =>
    void acts.addAll(some.map(asBody), (a) => of.drop(a.clientId))
  return (
    <Stack gap="sm" component="section" aria-label="Proposals">
      <Group justify="space-between" wrap="nowrap" align="flex-start">
        <Title order={2} fz={22}>
          {told.proposals.length === 0 ? 'Nothing to propose' : 'Proposed'}
        </Title>
        <KeyButton k="week-leave" size="sm" variant="bare" flex="none" onAct={of.close}>
          Close
        </KeyButton>
      </Group>
      <Text size="sm" c="dimmed">
        {told.proposals.length > 0 && (
          <Estimate of="book-proposal">
            {told.exact
              ? 'The best possible.'
              : `Within ${percentCeil(told.within)} of the best possible.`}
          </Estimate>
        )}{' '}
        Share: hair is seen and skin is clear then. Nothing is booked until you take it.
      </Text>
      {told.proposals.length > 1 && (
        <KeyButton
          k="week-take"
          variant="strong"
          loading={acts.adding}
          onAct={() => accept(...told.proposals)}
        >
          Take all {told.proposals.length}
        </KeyButton>
      )}
      <Problem>{acts.addError?.message}</Problem>
      <Switch
        size="sm"
        label="What is only booked may move, by an hour at most"
        checked={of.moves}
        onChange={(e) => of.setMoves(e.currentTarget.checked)}
      />
      {told.moves.map((m) => (
        <Group key={m.id} justify="space-between" wrap="nowrap" gap="xs" align="flex-start">
          <Text size="sm">
            <b>{m.client}</b> to {whenWords(m.startMs)}. {m.why}
          </Text>
          <Button
            size="sm"
            flex="none"
            aria-label={`Move ${m.client}`}
            onClick={() => {
              acts.change(
                m.id,
                { startMs: m.startMs, tell: true },
                `${m.client}: ${whenWords(m.startMs)}`,
              )
              of.dropMove(m.id)
            }}
          >
            Move
          </Button>
        </Group>
      ))}
      <ul className={css.wants}>
        {told.proposals.map((p) => (
          <li key={p.clientId}>
            <Group justify="space-between" wrap="nowrap" gap="xs" py={6}>
              <span>
                <b>{p.name}</b>
                <small className={css.soft}>
                  {whenWords(p.startMs)}, {workerName(week, p.workerId)}, {shortWork(p)},{' '}
                  {oddsWords(p.seen * p.clear)}
                </small>
              </span>
              <Button size="sm" onClick={() => accept(p)} aria-label={`Take ${p.name}`}>
                Take
              </Button>
            </Group>
            <Group gap="md" pb={4}>
              <Button
                variant="bare"
                size="compact-sm"
                aria-expanded={shown === p.clientId}
                onClick={() => setShown(shown === p.clientId ? undefined : p.clientId)}
              >
                Why then
              </Button>
              <Button variant="bare" size="compact-sm" onClick={() => of.drop(p.clientId)}>
                Leave it
              </Button>
            </Group>
            {shown === p.clientId && (
              <Text size="sm" pb={6}>
                {p.why.join(' ')}
              </Text>
            )}
          </li>
        ))}
      </ul>
      {told.without.length > 0 && (
        <>
          <Title order={3} fz={16}>
            Without an hour
          </Title>
          {told.without.map((w) => (
            <Text key={w.clientId} size="sm">
              <b>{w.name}</b>: {w.why}
            </Text>
          ))}
        </>
      )}
    </Stack>
  )
}

/** Rounded so that what is said holds. */
const percentCeil = (share: number) => `${Math.max(0.1, Math.ceil(1000 * share) / 10)} %`
