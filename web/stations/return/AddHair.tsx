/** One more reading of the hair: felt, seen or measured, today or some days ago. */
import { zonesOfJobs } from '../../../core/services/index.ts'
import { DateField } from '../../ui/DateField.tsx'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { Words } from '../../ui/Words.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { Button, Group, NumberInput, Stack } from '@mantine/core'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import {
  HAIR_TOLD,
  LENGTH_METHODS,
  type HairKindTold,
  type LengthMethod,
} from '../../../core/looks/index.ts'
import { hairDoubt, meanLeft } from '../../../core/history/index.ts'
import { DAY_MS } from '../../../core/time/index.ts'
import { lengthIn, lengthMm } from '../../../core/house/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState } from 'react'
import { useAddHair } from '../../api/visitWrites.ts'
import { useUnits } from '../../state/shape.ts'
import { useView } from '../../state/view.ts'
import { newId, todayIso } from '../../state/words.ts'
import { type StationProps } from '../useStation.ts'

export const METHOD_WORDS: Record<LengthMethod, string> = {
  photo: 'on a picture with a scale',
  ruler: 'with a ruler',
  eye: 'by eye',
}

export const TOLD_WORDS: Record<HairKindTold, string> = {
  felt: 'felt',
  seen: 'seen',
  measured: 'measured',
  'not-felt': 'not felt yet',
  'not-seen': 'not seen yet',
}

const EVERYWHERE = 'everywhere'

export function AddReading({ page, visit, zones }: StationProps & { zones: readonly ZoneId[] }) {
  const add = useAddHair(visit.id)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const units = useUnits()
  const [kind, setKind] = useState<HairKindTold>('felt')
  const [date, setDate] = useState(todayIso())
  const [length, setLength] = useState<number | string>(() => (units.length === 'mm' ? 1 : 0.04))
  const [method, setMethod] = useState<LengthMethod>('photo')
  // What nobody entered is not doubted; it is once it is to be written down.
  const [asked, setAsked] = useState('')
  const figures = useFigures()
  const zone = chosen && zones.includes(chosen) ? chosen : ''
  // To the twentieth of a millimetre that a picture can show.
  const mm = Math.round(lengthMm(Number(length), units.length) * 20) / 20
  const doubt = useMemo(() => {
    const days = (Date.parse(`${date}T12:00:00`) - (visit.endedAtMs ?? 0)) / DAY_MS
    if (!(days > 0) || (kind === 'measured' && !(mm > 0))) return undefined
    return hairDoubt(
      figures,
      page.client.skin,
      zonesOfJobs(visit.jobs),
      {
        ...{ zoneId: zone || null, kind, days, method },
        leftMm: (zone && visit.leftMm?.[zone]) || meanLeft(visit.leftMm),
        ...(kind === 'measured' && { lengthMm: mm }),
      },
      units.length,
    )
  }, [figures, page.client.skin, visit, zone, kind, date, mm, method, units.length])
  return (
    <Stack gap="xs">
      <Words
        label="What was noticed"
        wraps
        data={HAIR_TOLD.map((k) => ({ value: k, label: TOLD_WORDS[k] }))}
        value={kind}
        onChange={setKind}
      />
      <Group gap="sm" align="flex-end">
        <DateField
          label="On"
          w={150}
          value={date}
          maxDate={todayIso()}
          onChange={(d) => d && setDate(d)}
        />
        <PickOne
          label="Where"
          w={200}
          searchable
          data={[
            { value: EVERYWHERE, label: 'everywhere' },
            ...named<string>(zones, (z) => zoneName(z as ZoneId)),
          ]}
          value={zone || EVERYWHERE}
          onChange={(z) => choose(z === EVERYWHERE ? null : (z as ZoneId))}
        />
        {kind === 'measured' && (
          <>
            <NumberInput
              label={`Length, ${units.lengthSign}`}
              w={100}
              min={units.length === 'mm' ? 0.1 : 0.01}
              max={lengthIn(60, units.length)}
              step={units.length === 'mm' ? 0.1 : 0.01}
              value={length}
              onChange={setLength}
            />
            <PickOne
              label="How it was measured"
              w={190}
              data={named(LENGTH_METHODS, (m) => METHOD_WORDS[m])}
              value={method}
              onChange={setMethod}
            />
          </>
        )}
        <Button
          disabled={add.isPending}
          onClick={() => {
            if (doubt && asked !== doubt) return setAsked(doubt)
            add.mutate({
              id: newId(),
              kind,
              date,
              zoneId: zone || null,
              ...(kind === 'measured' && { lengthMm: mm, method }),
            })
          }}
        >
          {doubt && asked === doubt ? 'Write it down all the same' : 'Write it down'}
        </Button>
      </Group>
      {doubt && asked === doubt && (
        <Problem>{doubt} If it is written down all the same, nothing is learned from it.</Problem>
      )}
      {add.isError && <Problem>{add.error.message}</Problem>}
    </Stack>
  )
}
