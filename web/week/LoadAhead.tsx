/** The load ahead: what each day takes and brings. */
import { Anchor, Skeleton, Stack, Table, Text, Title } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import dayjs from 'dayjs'
import type { Week, WeekLoad } from '../../contract/week.ts'
import { moneyWords } from '../../core/house/index.ts'
import { percentWords, sum } from '../../core/stats/index.ts'
import { bladeWords } from '../../core/week/index.ts'
import { call } from '../api/call.ts'
import { useMay } from '../people/session.ts'
import { useSettings } from '../state/shape.ts'
import { Estimate } from '../ui/Estimate.tsx'
import { Problem } from '../ui/Panel.tsx'
import css from './Week.module.css'

export function LoadAhead({ week }: { week: Week }) {
  const may = useMay()
  const { from, days } = week
  const load = useQuery({
    queryKey: ['week', 'load', from, days],
    queryFn: () => call('weekLoad', { query: { from, days } }),
    placeholderData: (before) => before,
  })
  return (
    <Stack gap="sm" component="section" aria-label="Load ahead">
      <Title order={2} fz={22}>
        Load ahead
      </Title>
      {load.isPending && <Skeleton h={240} role="status" aria-label="Adding it up" />}
      <Problem>{load.error?.message}</Problem>
      {load.data && <Told load={load.data} days={days} />}
      {may('weekCsv') && (
        <Anchor size="sm" href={`/api/week.csv?from=${from}&days=${days}`} download>
          The book of these days as a table (CSV)
        </Anchor>
      )}
    </Stack>
  )
}

const share = (part: number | null) => (part === null ? '–' : `${Math.round(100 * part)} %`)

function Told({ load, days }: { load: WeekLoad; days: number }) {
  const { currency } = useSettings()
  const worked = load.days.filter((d) => d.hasMin > 0 || d.bookedMin > 0)
  const income = sum(load.days.map((d) => d.income))
  const should = sum(load.days.map((d) => d.should))
  const missed = sum(load.days.map((d) => d.missed))
  const blades: Record<string, number> = {}
  for (const d of load.days)
    for (const [k, n] of Object.entries(d.blades)) blades[k] = (blades[k] ?? 0) + n
  return (
    <>
      <Table className={css.load ?? ''}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Day</Table.Th>
            <Table.Th scope="col">Booked</Table.Th>
            <Table.Th scope="col">Chairs</Table.Th>
            <Table.Th scope="col">Beds</Table.Th>
            <Table.Th scope="col">Towels</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {worked.map((d) => (
            <Table.Tr key={d.date}>
              <Table.Th scope="row">{dayjs(d.date).format(days > 7 ? 'ddd D' : 'ddd')}</Table.Th>
              <Table.Td>
                {hoursWords(d.bookedMin)} of {hoursWords(d.hasMin)} h
              </Table.Td>
              <Table.Td>{share(d.chairs)}</Table.Td>
              <Table.Td>{share(d.beds)}</Table.Td>
              <Table.Td>{d.towels}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {worked.length === 0 && <Text c="dimmed">Nobody works on these days.</Text>}
      {Object.keys(blades).length > 0 && (
        <Text size="sm">
          Blades,{' '}
          {Object.entries(blades)
            .map(([k, n]) => `${bladeWords(k).toLowerCase()}: ${n}`)
            .join('; ')}
          .
        </Text>
      )}
      {load.short.map((s) => (
        <Text key={s.kind} size="sm" c="var(--coral)" role="note">
          {bladeWords(s.kind)}: these days take {s.takes}, {s.has} are to hand.
        </Text>
      ))}
      <Text size="sm">
        By the price list <Estimate>{moneyWords(income, currency)}</Estimate>
        {load.meanIncome !== null &&
          days === 7 &&
          `; a week of the last four brought ${moneyWords(load.meanIncome, currency)} on average (${percentWords(income / Math.max(1e-9, load.meanIncome))} of it)`}
        .
      </Text>
      {should > 0 && (
        <Text size="sm">
          {should} should have come so far, {missed === 0 ? 'all did' : `${missed} did not`}.
        </Text>
      )}
    </>
  )
}

const hoursWords = (minutes: number) => (minutes / 60).toFixed(1).replace(/\.0$/, '')
