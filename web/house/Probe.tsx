/** The probe thermometer: what it shows in ice and in a known warmth puts it right. */
import { focusWrong } from '../ui/focusWrong.ts'
import { Button, Group, NumberInput, Stack, Text } from '@mantine/core'
import { useForm } from '@mantine/form'
import { useMutation } from '@tanstack/react-query'
import type { House } from '../../contract/types.ts'
import { corrected, PROBE_CONSTANTS } from '../../core/chair/index.ts'
import { warmthC, warmthIn } from '../../core/house/index.ts'
import { whenWords } from '../../core/time/index.ts'
import { call } from '../api/call.ts'
import type { useChangeHouse } from '../api/queries.ts'
import { useFigures } from '../state/figures.ts'
import { useUnits } from '../state/shape.ts'
import { Problem } from '../ui/Panel.tsx'

/** The reference that the stand-in is put into. */
const WARM_C = 40

type Typed = number | ''

export function Probe({
  house,
  change,
}: {
  house: House
  change: ReturnType<typeof useChangeHouse>
}) {
  const figures = useFigures()
  const units = useUnits()
  const form = useForm<Record<'ice' | 'warm', Typed>>({
    initialValues: { ice: '', warm: '' },
    validate: { ice: (v) => (v === '' ? 'What it shows in melting ice is needed.' : null) },
  })
  const read = useMutation({
    mutationFn: (into: 'ice' | 'warm') => call('probe', { body: { into } }),
    onSuccess: ({ rawC }, into) =>
      form.setFieldValue(into, Math.round(warmthIn(rawC, units.warmth) * 100) / 100),
  })
  const keep = form.onSubmit(
    ({ ice, warm }) =>
      change.mutate(
        {
          probe: {
            iceShowsC: warmthC(Number(ice), units.warmth),
            ...(warm !== '' && {
              warm: { knownC: WARM_C, showsC: warmthC(warm, units.warmth) },
            }),
          },
        },
        { onSuccess: () => form.reset() },
      ),
    focusWrong(form),
  )
  const now = house.probe ? corrected(figures, 0, house.probe, Date.now()) : undefined
  const reading = (into: 'ice' | 'warm', name: string) => (
    <Group gap="xs" align="flex-end">
      <NumberInput
        label={`${name} it shows, ${units.warmthSign}`}
        w={290}
        decimalScale={2}
        {...form.getInputProps(into)}
      />
      <Button onClick={() => read.mutate(into)} loading={read.isPending && read.variables === into}>
        Read the probe
      </Button>
    </Group>
  )
  return (
    <form onSubmit={keep} noValidate>
      <Stack gap="md">
        <Text>
          {house.probe && now
            ? `Calibrated ${whenWords(house.probe.atMs)}: ${house.probe.offsetC >= 0 ? '+' : '−'}${units.warmStep(Math.abs(house.probe.offsetC))} in ice, gain ${house.probe.gain.toFixed(3)}. Today it may be ${units.warmStep(now.withinC)} off.`
            : `Never calibrated: it may be ${units.warmStep(figures(PROBE_CONSTANTS.uncalibratedC))} off. Put it into melting ice; a second known warmth makes it better.`}
        </Text>
        <Group gap="lg" align="flex-start">
          {reading('ice', 'In melting ice')}
          {reading('warm', `In the reference of ${units.warm(WARM_C)}`)}
        </Group>
        <Group gap="sm">
          <Button type="submit" variant="strong" loading={change.isPending}>
            Keep this calibration
          </Button>
        </Group>
        <Problem>{read.isError && read.error.message}</Problem>
      </Stack>
    </form>
  )
}
