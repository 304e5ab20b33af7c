/** One appointment: how it stands, how long, what is noted; what can be done with it. */
import { Anchor, Button, Group, Stack, Text, Textarea, Title } from '@mantine/core'
import dayjs from 'dayjs'
import { Link } from 'react-router'
import type { BookedRow, Week } from '../../contract/week.ts'
import { timeWords, whenWords } from '../../core/time/index.ts'
import { percentWords } from '../../core/stats/index.ts'
import {
  breaches,
  endMs,
  isSettled,
  missedRate,
  nearestThatWork,
  standsInBook,
  STATUS_WORDS,
  statusOf,
} from '../../core/week/index.ts'
import { useFigures } from '../state/figures.ts'
import { telephone } from '../state/words.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Estimate } from '../ui/Estimate.tsx'
import { bookOf, type BookActs, workerName, workOf } from './useBook.ts'
import { ClientHours } from './ClientHours.tsx'
import css from './Week.module.css'

export function Chosen({
  week,
  a,
  acts,
  onClose,
  onOffer,
}: {
  week: Week
  a: BookedRow
  acts: BookActs
  onClose: () => void
  /** Its hour came free. */
  onOffer: () => void
}) {
  const figures = useFigures()
  const status = statusOf(figures, a)
  const settled = isSettled(a)
  const stands = standsInBook(a)
  const to = (state: BookedRow['state'], words: string) =>
    acts.change(a.id, { state }, `${a.client}: ${words}`)
  const over = a.startMs < week.nowMs
  return (
    <Stack gap="sm" component="section" aria-label={a.client}>
      <Group justify="space-between" wrap="nowrap" align="flex-start">
        <Title order={2} fz={22}>
          <Anchor component={Link} to={`/clients/${a.clientId}/ask`} c="inherit">
            {a.client}
          </Anchor>
        </Title>
        <KeyButton k="week-leave" size="sm" variant="bare" flex="none" onAct={onClose}>
          Close
        </KeyButton>
      </Group>
      <Text>
        {workOf(a)}, {dayjs(a.startMs).format('ddd D MMM')}, <b>{timeWords(a.startMs)}</b> to{' '}
        {timeWords(endMs(a))} with {workerName(week, a.workerId)}.
      </Text>
      <Text size="sm">
        <b>{STATUS_WORDS[status]}</b>
        {a.startedAtMs !== null && `, begun ${timeWords(a.startedAtMs)}`}
        {a.endedAtMs !== null && `, ended ${timeWords(a.endedAtMs)}`}
        {a.phone && (
          <>
            {' · '}
            <Anchor href={telephone(a.phone)}>{a.phone}</Anchor>
          </>
        )}
      </Text>
      {!settled && (
        <Group gap="xs">
          {stands && a.state === 'booked' && (
            <KeyButton k="week-confirm" size="sm" onAct={() => to('confirmed', 'confirmed')}>
              Confirmed
            </KeyButton>
          )}
          {stands && a.state !== 'arrived' && (
            <KeyButton k="week-arrived" size="sm" onAct={() => to('arrived', 'arrived')}>
              Arrived
            </KeyButton>
          )}
          {stands && over && a.state !== 'arrived' && (
            <Button size="sm" onClick={() => to('missed', 'did not come')}>
              Did not come
            </Button>
          )}
          {stands ? (
            <KeyButton
              k="week-cancel"
              size="sm"
              variant="bare"
              onAct={() => to('cancelled', 'cancelled')}
            >
              Cancel it
            </KeyButton>
          ) : (
            <>
              <Button size="sm" onClick={() => to('booked', 'booked again')}>
                Book it again
              </Button>
              {endMs(a) > week.nowMs && (
                <Button size="sm" variant="line" onClick={onOffer}>
                  Offer the hour
                </Button>
              )}
            </>
          )}
        </Group>
      )}
      {stands && !settled && <Against week={week} a={a} acts={acts} />}
      <Textarea
        key={a.id}
        label="Note"
        autosize
        maxLength={300}
        defaultValue={a.note}
        onBlur={(e) => e.target.value !== a.note && acts.change(a.id, { note: e.target.value })}
      />
      <ClientHours week={week} client={{ id: a.clientId, name: a.client }} />
      {a.missed.of > 0 && <Missed of={a.missed.of} missed={a.missed.missed} />}
      {stands && !settled && (
        <Text size="sm" c="dimmed">
          Drag it, or arrows: left and right by 5 minutes, up and down by days; with Shift longer or
          shorter.
        </Text>
      )}
    </Stack>
  )
}

/** What speaks against where it stands: of a clash, or hours that were changed since. */
function Against({ week, a, acts }: { week: Week; a: BookedRow; acts: BookActs }) {
  const figures = useFigures()
  const book = bookOf(week)
  const why = breaches(figures, book, a).filter((b) => b.kind !== 'past')
  if (why.length === 0) return null
  const near = nearestThatWork(figures, book, a)
  return (
    <div role="note" className={css.against}>
      <Text size="sm">{why.map((w) => w.text).join(' ')}</Text>
      <Group gap="xs" mt={6}>
        {near.map((h) => (
          <Button
            key={`${h.workerId}${h.startMs}`}
            size="sm"
            onClick={() => acts.change(a.id, h, `${a.client}: ${whenWords(h.startMs)}`)}
          >
            {whenWords(h.startMs)}, {workerName(week, h.workerId)}
          </Button>
        ))}
      </Group>
    </div>
  )
}

/** For the house only; it shuts nobody out. */
function Missed({ of, missed }: { of: number; missed: number }) {
  const figures = useFigures()
  const rate = missedRate(figures, missed, of)
  return (
    <Text size="sm" c="dimmed">
      Did not come to {missed} of {of};{' '}
      <Estimate of="book-missed">
        {percentWords(rate.low)} to {percentWords(rate.high)}
      </Estimate>{' '}
      of the time. Only the house sees this.
    </Text>
  )
}
