/** What a house has of places and warm towels: the book gives no more of them than there are. */
import { Group, NumberInput, Title } from '@mantine/core'
import type { House } from '../../contract/types.ts'

const KINDS = [
  ['chairs', 'Chairs'],
  ['beds', 'Beds'],
  ['towels', 'Warm towels in the cabinet'],
] as const

export function Places({
  studio,
  onChange,
}: {
  studio: House['studio']
  onChange: (studio: House['studio']) => void
}) {
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
    </section>
  )
}
