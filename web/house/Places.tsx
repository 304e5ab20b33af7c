/** What a house has of places and warm towels: the book gives no more of them than there are. */
import { Group, NumberInput, Text, TextInput, Title } from '@mantine/core'
import { useState } from 'react'
import type { House } from '../../contract/types.ts'
import { BLADES } from '../../core/kit/index.ts'

const KINDS = [
  ['chairs', 'Chairs'],
  ['beds', 'Beds'],
  ['towels', 'Warm towels in the cabinet'],
] as const

export function Places({
  studio,
  kit,
  onChange,
}: {
  studio: House['studio']
  /** Blades that the house owns. */
  kit: House['kit']
  onChange: (studio: House['studio']) => void
}) {
  const [wrong, setWrong] = useState<string>()
  return (
    <section aria-label="Places">
      <Title order={2} mt="lg" mb="xs">
        Places
      </Title>
      <Group gap="md">
        {KINDS.map(([kind, label]) => (
          <NumberInput
            key={`${kind}${studio[kind]}`}
            label={label}
            w={kind === 'towels' ? 240 : 130}
            min={0}
            max={kind === 'towels' ? 200 : 50}
            allowDecimal={false}
            defaultValue={studio[kind]}
            onBlur={(e) => {
              const n = Number(e.currentTarget.value)
              if (e.currentTarget.value !== '' && Number.isInteger(n) && n !== studio[kind])
                onChange({ ...studio, [kind]: n })
            }}
          />
        ))}
      </Group>
      <Group gap="md" mt="md" align="flex-end">
        <TextInput
          key={studio.reminders.join()}
          label="Reminders, hours before"
          description="such as 48, 3; empty: none"
          w={240}
          defaultValue={studio.reminders.join(', ')}
          error={wrong}
          onBlur={(e) => {
            const hours = e.currentTarget.value
              .split(/[,;\s]+/)
              .filter(Boolean)
              .map(Number)
            if (hours.length > 4 || hours.some((h) => !Number.isInteger(h) || h < 1 || h > 336))
              return setWrong('Up to four whole numbers, 1 to 336. What was kept stays.')
            setWrong(undefined)
            if (hours.join() !== studio.reminders.join()) onChange({ ...studio, reminders: hours })
          }}
        />
      </Group>
      <Title order={3} fz={16} mt="md">
        Blades to hand
      </Title>
      <Text size="sm" c="dimmed" mb="xs">
        Counted kinds are held against what the days of the book take; empty is not counted.
      </Text>
      <Group gap="md">
        {kit.map((id) => (
          <NumberInput
            key={`${id}${studio.blades[id] ?? ''}`}
            label={BLADES[id].name}
            w={190}
            min={0}
            max={10000}
            allowDecimal={false}
            defaultValue={studio.blades[id] ?? ''}
            onBlur={(e) => {
              const typed = e.currentTarget.value.replace(/\s/g, '')
              const { [id]: had, ...rest } = studio.blades
              if (typed === '') {
                if (had !== undefined) onChange({ ...studio, blades: rest })
              } else if (Number.isInteger(Number(typed)) && Number(typed) !== had)
                onChange({ ...studio, blades: { ...rest, [id]: Number(typed) } })
            }}
          />
        ))}
      </Group>
    </section>
  )
}
