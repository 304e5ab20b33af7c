/** How days, hours and measures are written, and whether it is day or lamp. */
import { Table, useMantineColorScheme } from '@mantine/core'
import { dateWords, timeWords } from '../../core/time/index.ts'
import { useUnits } from '../state/shape.ts'
import { Words } from '../ui/Words.tsx'
import type { PartProps } from './HousePage.tsx'

export function LookPart({ house, change }: PartProps) {
  const { colorScheme, setColorScheme } = useMantineColorScheme()
  const { settings } = house
  const { hair, warm } = useUnits()
  const now = Date.now()
  const rows = [
    [
      'Days',
      <Words
        key="dates"
        wraps
        label="Order of a date"
        data={[
          ['dmy', '25 Nov 2026'],
          ['mdy', 'Nov 25, 2026'],
          ['ymd', '2026-11-25'],
        ]}
        value={settings.dates}
        onChange={(dates) => change.mutate({ settings: { dates } })}
      />,
      dateWords(now),
    ],
    [
      'Week begins on',
      <Words
        key="week"
        wraps
        label="First day of the week"
        data={[
          ['1', 'Monday'],
          ['0', 'Sunday'],
          ['6', 'Saturday'],
        ]}
        value={String(settings.firstDay) as '0' | '1' | '6'}
        onChange={(d) => change.mutate({ settings: { firstDay: Number(d) } })}
      />,
      '',
    ],
    [
      'Hours',
      <Words
        key="clock"
        wraps
        label="Clock"
        data={[
          ['24', '18:30'],
          ['12', '6:30 PM'],
        ]}
        value={String(settings.clock) as '12' | '24'}
        onChange={(c) => change.mutate({ settings: { clock: Number(c) } })}
      />,
      timeWords(now),
    ],
    [
      'Length of hair',
      <Words
        key="length"
        wraps
        label="Length of hair"
        data={[
          ['mm', 'millimetres'],
          ['inch', 'inches'],
        ]}
        value={settings.length}
        onChange={(length) => change.mutate({ settings: { length } })}
      />,
      hair(1.4),
    ],
    [
      'Warmth',
      <Words
        key="warmth"
        wraps
        label="Warmth"
        data={[
          ['C', '°C'],
          ['F', '°F'],
        ]}
        value={settings.warmth}
        onChange={(warmth) => change.mutate({ settings: { warmth } })}
      />,
      warm(45),
    ],
    [
      'This screen',
      <Words
        key="scheme"
        wraps
        label="Daylight or lamp"
        data={[
          ['light', 'Daylight'],
          ['dark', 'Lamp'],
          ['auto', 'as the machine'],
        ]}
        value={colorScheme}
        onChange={setColorScheme}
      />,
      '',
    ],
  ] as const
  return (
    <Table maw={640}>
      <Table.Tbody>
        {rows.map(([name, choice, now]) => (
          <Table.Tr key={name}>
            <Table.Th scope="row">{name}</Table.Th>
            <Table.Td>{choice}</Table.Td>
            <Table.Td c="dimmed" visibleFrom="sm">
              {now}
            </Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}
