/** When somebody can come: days, hours, to whom. Nothing chosen: any. */
import { Chip, Group, NumberInput, Select, Stack, Text } from '@mantine/core'
import type { Week } from '../../contract/week.ts'
import { weekdayWords } from '../../core/time/index.ts'
import { type Wishes, wishesProblem } from '../../core/week/index.ts'
import { Problem } from '../ui/Panel.tsx'

const MONDAY_FIRST = [1, 2, 3, 4, 5, 6, 0]

export function WishesForm({
  week,
  value,
  onChange,
}: {
  week: Pick<Week, 'workers'>
  value: Wishes
  onChange: (value: Wishes) => void
}) {
  const hour = (label: string, key: 'fromHour' | 'toHour') => (
    <NumberInput
      label={label}
      placeholder="any"
      w={110}
      min={0}
      max={24}
      step={0.5}
      decimalScale={2}
      value={value[key] ?? ''}
      onChange={(v) => onChange({ ...value, [key]: v === '' ? null : Number(v) })}
    />
  )
  return (
    <Stack gap="xs">
      <Chip.Group
        multiple
        value={value.days.map(String)}
        onChange={(days) => onChange({ ...value, days: days.map(Number).sort() })}
      >
        <Text size="sm" fw={600}>
          On
        </Text>
        <Group gap={6} role="group" aria-label="Days">
          {MONDAY_FIRST.map((d) => (
            <Chip key={d} value={String(d)} size="sm" title={weekdayWords(d)}>
              {weekdayWords(d).slice(0, 2)}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      <Group gap="sm">
        {hour('From, h', 'fromHour')}
        {hour('Over by, h', 'toHour')}
      </Group>
      <Select
        label="With"
        placeholder="anybody"
        clearable
        data={week.workers.map((w) => ({ value: w.id, label: w.name }))}
        value={value.workerId}
        onChange={(workerId) => onChange({ ...value, workerId })}
      />
      <Problem>{wishesProblem(value)}</Problem>
    </Stack>
  )
}
