/** The appointments of the days as a list: for a phone, and on paper for the wall. */
import { Table, Title } from '@mantine/core'
import dayjs from 'dayjs'
import { Link } from 'react-router'
import type { Week } from '../../contract/week.ts'
import { longDate, timeWords } from '../../core/time/index.ts'
import { endMs, standsInBook, STATUS_WORDS, statusOf } from '../../core/week/index.ts'
import { useFigures } from '../state/figures.ts'
import { datesOf, onDay } from './axis.ts'
import { workerName, workOf } from './useBook.ts'
import css from './Week.module.css'

export function DayList({ week }: { week: Week }) {
  const figures = useFigures()
  const days = datesOf(week.from, week.days).flatMap((date) => {
    const own = onDay(week, date).filter(standsInBook)
    return own.length > 0 || week.days === 1 ? [{ date, own }] : []
  })
  return (
    <div className={css.list} data-days={week.days}>
      {days.map(({ date, own }) => (
        <section key={date} aria-label={`List of ${dayjs(date).format('dddd')}`}>
          <Title order={2} fz={20}>
            {longDate(dayjs(date).valueOf())}
          </Title>
          {own.length === 0 ? (
            <p>Nobody is booked.</p>
          ) : (
            <Table>
              <Table.Tbody>
                {own.map((a) => (
                  <Table.Tr key={a.id}>
                    <Table.Td>
                      <b>{timeWords(a.startMs)}</b>–{timeWords(endMs(a))}
                    </Table.Td>
                    <Table.Td>
                      <Link to={`/clients/${a.clientId}/ask`}>{a.client}</Link>
                      <small>{workOf(a).toLowerCase()}</small>
                    </Table.Td>
                    <Table.Td>
                      {workerName(week, a.workerId)}
                      <small>{STATUS_WORDS[statusOf(figures, a)]}</small>
                    </Table.Td>
                    <Table.Td className={css.printOnly ?? ''}>{a.phone}</Table.Td>
                    <Table.Td className={css.printOnly ?? ''}>{a.note}</Table.Td>
                  </Table.Tr>
                ))}
              </Table.Tbody>
            </Table>
          )}
        </section>
      ))}
    </div>
  )
}
