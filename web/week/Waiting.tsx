/** Who waits for an hour, and hours that came free and were offered. */
import { Button, Group, Select, Stack, Text, TextInput, Title } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { OfferRow, WaitingRow, Week } from '../../contract/week.ts'
import { oneJob, SERVICE_IDS, SERVICES, type ServiceId } from '../../core/services/index.ts'
import { agoWords, timeWords, whenWords } from '../../core/time/index.ts'
import { NO_WISHES, type Wishes, wishesProblem, wishWords } from '../../core/week/index.ts'
import { call } from '../api/call.ts'
import { write } from '../outbox/browser.ts'
import { newId } from '../state/words.ts'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'
import { type Known, WhoComes } from './WhoComes.tsx'
import { shortWork, workerName } from './useBook.ts'
import { WishesForm } from './WishesForm.tsx'

const useAgain = () => {
  const cache = useQueryClient()
  return () => void cache.invalidateQueries({ queryKey: ['week'] })
}

export function Waiting({ week }: { week: Week }) {
  const again = useAgain()
  const [open, setOpen] = useState(false)
  const remove = useMutation({
    mutationFn: (w: WaitingRow) =>
      write(
        'removeWaiting',
        { params: { id: w.id } },
        { clientId: w.clientId, what: `the place of ${w.client} on the waiting list` },
      ),
    onSuccess: again,
  })
  return (
    <Stack gap="sm" component="section" aria-label="Waiting list">
      <Title order={2} fz={22}>
        Waiting for an hour
      </Title>
      {week.waiting.length === 0 && <Text c="dimmed">Nobody waits.</Text>}
      {week.waiting.map((w) => (
        <Group key={w.id} justify="space-between" wrap="nowrap" align="flex-start" gap="xs">
          <div>
            <b>{w.client}</b>
            <Text size="sm">
              {[
                shortWork(w),
                wishWords(w.wishes, (id) => workerName(week, id)) || 'any hour',
                w.has && `has ${whenWords(w.has.startMs)}`,
                w.note,
              ]
                .filter(Boolean)
                .join('; ')}
            </Text>
            <Text size="sm" c="dimmed">
              {agoWords(w.sinceMs, week.nowMs)}
            </Text>
          </div>
          <Button
            variant="bare"
            size="compact-sm"
            flex="none"
            aria-label={`Take out: ${w.client}`}
            onClick={() => remove.mutate(w)}
          >
            Take out
          </Button>
        </Group>
      ))}
      <Problem>{remove.error?.message}</Problem>
      {open ? (
        <Form
          week={week}
          onLeave={() => setOpen(false)}
          onDone={() => {
            setOpen(false)
            again()
          }}
        />
      ) : (
        <Button size="sm" style={{ alignSelf: 'start' }} onClick={() => setOpen(true)}>
          Somebody waits
        </Button>
      )}
      <Text size="sm" c="dimmed">
        An hour that comes free is offered to those who gain most from it: choose a cancelled
        appointment or an empty hour, then “Offer it”.
      </Text>
      <Offers week={week} />
    </Stack>
  )
}

function Form({ week, onDone, onLeave }: { week: Week; onDone: () => void; onLeave: () => void }) {
  const [client, setClient] = useState<Known>()
  const [service, setService] = useState<ServiceId>('face-shave')
  const [wishes, setWishes] = useState<Wishes>(NO_WISHES)
  const [note, setNote] = useState('')
  const add = useMutation({
    mutationFn: (who: Known) =>
      write(
        'addWaiting',
        {
          body: {
            ...{ id: newId(), clientId: who.id, note, jobs: [oneJob(newId(), service)] },
            wishes: { ...wishes, days: [...wishes.days] },
          },
        },
        { clientId: who.id, what: `the place of ${who.name} on the waiting list` },
      ),
    onSuccess: (_, who) => {
      tellDone(`${who.name} waits for an hour`)
      onDone()
    },
  })
  return (
    <Stack gap="xs" component="section" aria-label="Somebody waits">
      <WhoComes
        client={client}
        onChange={(c) => {
          setClient(c)
          if (c) setService(c.service)
        }}
      />
      <Select
        label="For"
        allowDeselect={false}
        data={SERVICE_IDS.map((id) => ({ value: id, label: SERVICES[id].name }))}
        value={service}
        onChange={(v) => v && setService(v)}
      />
      <WishesForm week={week} value={wishes} onChange={setWishes} />
      <TextInput
        label="Note"
        maxLength={300}
        value={note}
        onChange={(e) => setNote(e.currentTarget.value)}
      />
      <Problem>{add.error?.message}</Problem>
      <Group gap="xs">
        <Button
          variant="line"
          disabled={!client || wishesProblem(wishes) !== undefined}
          loading={add.isPending}
          onClick={() => client && add.mutate(client)}
        >
          Keep
        </Button>
        <Button variant="bare" onClick={onLeave}>
          Leave it
        </Button>
      </Group>
    </Stack>
  )
}

/** What became of hours that were offered. */
function Offers({ week }: { week: Week }) {
  const again = useAgain()
  const close = useMutation({
    mutationFn: (id: string) => call('removeOffer', { params: { id } }),
    onSettled: again,
  })
  if (week.offers.length === 0) return null
  return (
    <Stack gap={4} component="section" aria-label="Hours offered">
      <Title order={3} fz={16}>
        Offered
      </Title>
      {week.offers.map((o) => (
        <Group key={o.id} justify="space-between" wrap="nowrap" gap="xs">
          <Text size="sm">
            {whenWords(o.fromMs)} to {timeWords(o.toMs)}, {workerName(week, o.workerId)}:{' '}
            {offerWords(o)}
          </Text>
          {o.closedAtMs === null && (
            <Button
              variant="bare"
              size="compact-sm"
              flex="none"
              aria-label={`Take back the offer of ${whenWords(o.fromMs)}`}
              onClick={() => close.mutate(o.id)}
            >
              Take back
            </Button>
          )}
        </Group>
      ))}
      <Problem>{close.error?.message}</Problem>
    </Stack>
  )
}

const offerWords = (o: OfferRow) =>
  o.takenBy !== null
    ? `${o.takenBy} took it`
    : o.closedAtMs !== null
      ? 'taken back'
      : `${o.asked} asked, open`
