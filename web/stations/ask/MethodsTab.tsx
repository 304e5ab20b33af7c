/** Which way of taking hair off suits the chosen place; and the question that everybody asks. */
import { Alert, Button, Group, NumberInput, Stack, Table, Text, Title } from '@mantine/core'
import { lengthIn, lengthMm } from '../../../core/house/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState } from 'react'
import { adviseMethods, lengthNow, METHOD_WORDS, THICKNESS } from '../../../core/screening/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { meanLeft } from '../../../core/history/index.ts'
import { DAY_MS, dayWords } from '../../../core/time/index.ts'
import { useUnits } from '../../state/shape.ts'
import { useView } from '../../state/view.ts'
import { todayIso } from '../../state/words.ts'
import { DateField } from '../../ui/DateField.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { useServiceZones, type StationProps } from '../useStation.ts'

const SAYS = { suits: 'suits', possible: 'possible', later: 'later', not: 'no' } as const

export function MethodsTab({ page, visit }: StationProps) {
  const figures = useFigures()
  const zones = useServiceZones(visit)
  const chosen = useView((s) => s.chosen)
  const zoneId = chosen && zones.includes(chosen) ? chosen : zones[0]!
  const [event, setEvent] = useState<string>()
  const [asked, setAsked] = useState(false)
  const growth = page.model.growth[zoneId]!
  const last = page.visits.find((v) => v.state === 'finished')
  const days = last?.endedAtMs ? (Date.now() - last.endedAtMs) / DAY_MS : undefined
  const [measured, setMeasured] = useState<number | string>('')
  const units = useUnits()
  const guess = lengthNow(figures, growth, meanLeft(null), days)
  const nowMm = measured === '' ? guess : lengthMm(Number(measured), units.length)
  const advice = useMemo(
    () =>
      adviseMethods(figures, {
        zoneId,
        client: page.client.skin,
        hair: visit.notes.hair,
        strays: visit.notes.strays,
        answers: visit.asked.answers,
        growth,
        lengthMm: nowMm,
        today: todayIso(),
        event,
      }),
    [figures, zoneId, page.client.skin, visit.notes, visit.asked.answers, growth, nowMm, event],
  )
  return (
    <Stack gap="sm" py="xs">
      <Group justify="space-between">
        <Title order={2}>{zoneName(zoneId)}</Title>
        <Button size="sm" aria-expanded={asked} onClick={() => setAsked(!asked)}>
          Thicker?
        </Button>
      </Group>
      {asked && (
        <Alert role="note" title={THICKNESS.question}>
          {THICKNESS.answer} <small>{THICKNESS.source}</small>
        </Alert>
      )}
      <Group gap="md">
        <NumberInput
          label={`Length now, ${units.lengthSign}`}
          w={130}
          step={units.length === 'mm' ? 0.5 : 0.05}
          min={0}
          max={lengthIn(60, units.length)}
          placeholder={units.hairFigure(guess)}
          value={measured}
          onChange={setMeasured}
        />
        <DateField
          label="In order for"
          w={170}
          minDate={todayIso()}
          clearable
          value={event}
          onChange={setEvent}
        />
      </Group>
      <Table>
        <Table.Tbody>
          {advice.map((a) => (
            <Table.Tr key={a.method} c={a.says === 'not' ? 'dimmed' : 'var(--ink)'}>
              <Table.Th scope="row">{METHOD_WORDS[a.method]}</Table.Th>
              <Table.Td>
                <b>{SAYS[a.says]}</b>
                {a.from && <small> from {dayWords(a.from, todayIso())}</small>}
              </Table.Td>
              <Table.Td>
                {a.why} <Estimate mark={a.mark} />
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Text size="sm" c="dimmed">
        Choose another zone on the head. Slow Tide runs blades and tweezers; the rest is advice.
        {measured === '' && (
          <>
            {' '}
            The length is{' '}
            <Estimate mark="P" of="growth">
              worked out from growth
            </Estimate>{' '}
            until it is measured.
          </>
        )}
      </Text>
    </Stack>
  )
}
