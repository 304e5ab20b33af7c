/** Several of a few, each on or off. */
import { Chip, Group } from '@mantine/core'

export interface Toggle {
  readonly id: string
  readonly name: string
  readonly on: boolean
}

export const Toggles = ({
  label,
  of,
  disabled = false,
  onToggle,
}: {
  label: string
  of: readonly Toggle[]
  disabled?: boolean
  onToggle: (id: string, on: boolean) => void
}) => (
  <Group role="group" aria-label={label} gap="xs">
    {of.map((t) => (
      <Chip key={t.id} checked={t.on} disabled={disabled} onChange={(on) => onToggle(t.id, on)}>
        {t.name}
      </Chip>
    ))}
  </Group>
)
