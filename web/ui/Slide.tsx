/** A measure that is slid: its name and value above, the post below. */
import { Group, Slider, Stack, Text } from '@mantine/core'

export function Slide({
  name,
  unit,
  least,
  most,
  step = 1,
  value,
  disabled = false,
  onChange,
}: {
  name: string
  unit: string
  least: number
  most: number
  step?: number
  value: number
  disabled?: boolean
  onChange: (value: number) => void
}) {
  return (
    <Stack gap={0} flex={1} miw={150}>
      <Group justify="space-between" gap="xs">
        <Text size="sm" c="dimmed">
          {name}
        </Text>
        <Text size="sm">
          {value} {unit}
        </Text>
      </Group>
      <Slider
        h={44}
        px={9}
        min={least}
        max={most}
        step={step}
        value={value}
        disabled={disabled}
        onChange={onChange}
        thumbLabel={`${name}, ${unit}`}
        thumbValueText={`${value} ${unit}`}
      />
    </Stack>
  )
}
