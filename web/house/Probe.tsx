/** The probe thermometer: what it shows in ice and in a known warmth puts it right. */
import { Problem } from '../ui/Panel.tsx'
import { Button, Group, NumberInput, Stack } from '@mantine/core'
import { useFigures } from '../state/figures.ts'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import type { House } from '../../contract/types.ts'
import { corrected, PROBE_CONSTANTS } from '../../core/chair/index.ts'
import { whenWords } from '../../core/time/index.ts'
import { call } from '../api/call.ts'
import type { useChangeHouse } from '../api/queries.ts'

/** The reference that the stand-in is put into. */
const WARM_C = 40

export function Probe({
  house,
  change,
}: {
  house: House
  change: ReturnType<typeof useChangeHouse>
}) {
  const figures = useFigures()
  const [ice, setIce] = useState('')
  const [warm, setWarm] = useState('')
  const read = useMutation({
    mutationFn: (into: 'ice' | 'warm') => call('probe', { body: { into } }),
    onSuccess: ({ rawC }, into) => (into === 'ice' ? setIce : setWarm)(String(rawC)),
  })
  const number = (typed: string) =>
    typed.trim() === '' ? undefined : Number(typed.replace(',', '.'))
  const iceC = number(ice)
  const warmC = number(warm)
  const now = house.probe ? corrected(figures, 0, house.probe, Date.now()) : undefined
  return (
    <Stack gap="md">
      <p>
        {house.probe && now
          ? `Calibrated ${whenWords(house.probe.atMs)}: ${house.probe.offsetC >= 0 ? '+' : '−'}${Math.abs(house.probe.offsetC).toFixed(1)} °C at nought, gain ${house.probe.gain.toFixed(3)}. Today it may be ${now.withinC.toFixed(1)} °C off.`
          : `Never calibrated: it may be ${figures(PROBE_CONSTANTS.uncalibratedC)} °C off. Put it into melting ice; a second known warmth makes it better.`}
      </p>
      <Group gap="lg">
        <Reading
          name="In melting ice it shows, °C"
          value={ice}
          onChange={setIce}
          onRead={() => read.mutate('ice')}
        />
        <Reading
          name={`In the reference of ${WARM_C} °C it shows, °C`}
          value={warm}
          onChange={setWarm}
          onRead={() => read.mutate('warm')}
        />
      </Group>
      <Group gap="sm">
        <Button
          variant="strong"

          disabled={iceC === undefined || !Number.isFinite(iceC) || change.isPending}
          onClick={() =>
            change.mutate(
              {
                probe: {
                  iceShowsC: iceC!,
                  ...(warmC !== undefined &&
                    Number.isFinite(warmC) && { warm: { knownC: WARM_C, showsC: warmC } }),
                },
              },
              {
                onSuccess: () => {
                  setIce('')
                  setWarm('')
                },
              },
            )
          }
        >
          Keep this calibration
        </Button>
      </Group>
      {read.isError && <Problem>{read.error.message}</Problem>}
    </Stack>
  )
}

function Reading({
  name,
  value,
  onChange,
  onRead,
}: {
  name: string
  value: string
  onChange: (value: string) => void
  onRead: () => void
}) {
  return (
    <Group gap="xs" align="flex-end">
      <NumberInput label={name} w={250} value={value} onChange={(v) => onChange(String(v))} />
      <Button onClick={onRead}>Read the probe</Button>
    </Group>
  )
}
