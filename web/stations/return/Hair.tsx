/** How hair comes back, zone by zone: learned from what was felt, seen and measured; forecast with its range. */
import { DateField } from '../../ui/DateField.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import { Words } from '../../ui/Words.tsx'
import css from './Return.module.css'
import { Scroll } from '../../ui/Scroll.tsx'
import { Problem } from '../../ui/Panel.tsx'
import dayjs from 'dayjs'
import { capital } from '../../../core/words.ts'
import type { HairReading } from '../../../core/looks/index.ts'
import { Button, Table, Text, Group, NumberInput, Stack } from '@mantine/core'
import { ON_SKIN } from '../../../core/palette.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import {
  HAIR_TOLD,
  LENGTH_METHODS,
  type HairKindTold,
  type LengthMethod,
} from '../../../core/looks/index.ts'
import { growthReadings, hairDoubt, meanLeft } from '../../../core/history/index.ts'
import {
  GROWTH_CONSTANTS,
  type DayRange,
  type Growth,
  compareSides,
  slowZones,
  thresholdMm,
  thresholdOf,
  zoneOutlook,
  type ZoneOutlook,
} from '../../../core/regrowth/index.ts'
import { isWaxed, NOT_WAXED } from '../../../core/screening/index.ts'
import { Z_90 } from '../../../core/stats/index.ts'
import { DAY_MS, dateWords } from '../../../core/time/index.ts'
import { lengthIn, lengthMm, type Figures } from '../../../core/house/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState, type ReactNode } from 'react'
import { useAddHair, useRemoveHair } from '../../api/visitWrites.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useUnits, type UnitWords } from '../../state/shape.ts'
import { useView } from '../../state/view.ts'
import { tellDone, tellFailed } from '../../ui/notices.ts'
import { newId, todayIso } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { HairCurve, spread } from './HairCurve.tsx'

const METHOD_WORDS: Record<LengthMethod, string> = {
  photo: 'on a picture with a scale',
  ruler: 'with a ruler',
  eye: 'by eye',
}

const TOLD_WORDS: Record<HairKindTold, string> = {
  felt: 'felt',
  seen: 'seen',
  measured: 'measured',
  'not-felt': 'not felt yet',
  'not-seen': 'not seen yet',
}

export function Hair(props: StationProps) {
  const figures = useFigures()
  const { page, visit } = props
  const zones = useServiceZones(visit)
  const chosen = useView((s) => s.chosen)
  const all = useMemo(
    () =>
      zones
        .flatMap((z): ZoneOutlook[] => {
          const growth = page.model.growth[z]
          const left = visit.leftMm?.[z]
          return growth && left !== undefined ? [zoneOutlook(figures, z, growth, left)] : []
        })
        .sort((a, b) => a.seen.even - b.seen.even),
    [figures, zones, page.model.growth, visit.leftMm],
  )
  useHeadLayers(
    useMemo(() => {
      const most = Math.max(0.01, ...all.map((z) => z.growth.mean))
      return {
        tints: all.map((z) => ({
          zoneId: z.zoneId,
          colour: ON_SKIN.tide,
          opacity: 0.1 + 0.55 * (z.growth.mean / most),
        })),
      }
    }, [all]),
  )
  const shown = all.find((z) => z.zoneId === chosen) ?? all[0]
  return (
    <>
      <h1>How hair comes back</h1>
      <AddReading {...props} zones={zones} />
      {shown && visit.endedAtMs !== null && <HairCurve zone={shown} endedAtMs={visit.endedAtMs} />}
      <ZoneTable zones={all} endedAtMs={visit.endedAtMs ?? 0} shown={shown?.zoneId}>
        <Notes {...props} />
      </ZoneTable>
    </>
  )
}

function AddReading({ page, visit, zones }: StationProps & { zones: readonly ZoneId[] }) {
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
      visit.service,
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
        style={{ flexWrap: 'wrap' }}
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

const EVERYWHERE = 'everywhere'

function ZoneTable({
  zones,
  endedAtMs,
  shown,
  children,
}: {
  zones: readonly ZoneOutlook[]
  endedAtMs: number
  shown: ZoneId | undefined
  /** Below it. */
  children: ReactNode
}) {
  const units = useUnits()
  const choose = useView((s) => s.choose)
  const list = useChosenInView(shown)
  const day = (r: DayRange | undefined) =>
    r === undefined ? (
      <Table.Td c="dimmed">–</Table.Td>
    ) : (
      <Table.Td title={`80 %: days ${spread(r)}`}>
        {Number.isFinite(r.even) ? dateWords(endedAtMs + r.even * DAY_MS) : 'never'}
      </Table.Td>
    )
  if (zones.length === 0) {
    return (
      <Scroll label="Zones">
        <Text size="sm" c="dimmed">
          How hair comes back is told after the service.
        </Text>
        {children}
      </Scroll>
    )
  }
  return (
    <Scroll label="Zones" ref={list}>
      <Table highlightOnHover className={css.days}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Zone</Table.Th>
            <Table.Th scope="col">{units.lengthSign} a day</Table.Th>
            <Table.Th scope="col">felt</Table.Th>
            <Table.Th scope="col">seen</Table.Th>
            <Table.Th scope="col">to read</Table.Th>
            <Table.Th scope="col">to wax</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {zones.map((z) => (
            <Table.Tr key={z.zoneId} data-chosen={z.zoneId === shown || undefined}>
              <Table.Td>
                <Button variant="bare" size="sm" onClick={() => choose(z.zoneId)}>
                  {zoneName(z.zoneId)}
                </Button>
              </Table.Td>
              <Table.Td data-num>
                {units.hairFigure(z.growth.mean, 2)}{' '}
                <Text span size="sm" c="dimmed">
                  ± {units.hairFigure(Z_90 * z.growth.sd, 2)}
                </Text>
              </Table.Td>
              {day(z.felt)}
              {day(z.seen)}
              {day(z.read)}
              {isWaxed(z.zoneId, z.growth.curve === 'fuzz') ? (
                day(z.wax)
              ) : (
                <Table.Td c="dimmed" title={NOT_WAXED}>
                  no
                </Table.Td>
              )}
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {children}
    </Scroll>
  )
}

/** At what length this person feels and sees hair, where that was learned. */
function ownThresholds(
  figures: Figures,
  growth: readonly Growth[],
  { hair, hairFigure }: UnitWords,
): string | undefined {
  const zone = growth.find((g) => g.felt && g.seen)
  if (!zone) return undefined
  const one = (kind: 'felt' | 'seen') => {
    const { mm, sd } = thresholdOf(figures, zone, kind)
    return `${kind} at ${hair(mm, 2)} (80 %: ${hairFigure(mm - Z_90 * sd, 2)}–${hairFigure(mm + Z_90 * sd, 2)}; people on average ${hair(thresholdMm(figures, zone.curve, kind), 2)})`
  }
  return `By this client hair is ${one('felt')}, ${one('seen')}.`
}

/** A reading as it is told once more. */
const toldAgain = ({ kind, atMs, zoneId, lengthMm, method }: HairReading) => ({
  ...{ id: newId(), kind, date: dayjs(atMs).format('YYYY-MM-DD'), zoneId: zoneId as ZoneId | null },
  ...(lengthMm !== null && { lengthMm }),
  ...(method && { method }),
})

/** Readings of this visit, sides compared, slow zones. */
function Notes({ page, visit }: StationProps) {
  const figures = useFigures()
  const units = useUnits()
  const remove = useRemoveHair(visit.id)
  const again = useAddHair(visit.id)
  const takeAway = (h: HairReading): void =>
    remove.mutate(h.id, {
      onSuccess: () =>
        tellDone(`${capital(TOLD_WORDS[h.kind])} on ${dateWords(h.atMs)}: taken away.`, () =>
          again.mutate(toldAgain(h)),
        ),
      onError: (e) => tellFailed(e.message, () => takeAway(h)),
    })
  const { growth, learnedZones } = page.model
  const sides = useMemo(
    () => compareSides(figures, growth, (z) => learnedZones.includes(z)).slice(0, 2),
    [figures, growth, learnedZones],
  )
  const doubts = useMemo(
    () =>
      new Map(
        visit.hair.map((h) => [
          h.id,
          growthReadings([
            { ...h, leftMm: (h.zoneId && visit.leftMm?.[h.zoneId]) || meanLeft(visit.leftMm) },
          ])
            .map((r) => hairDoubt(figures, page.client.skin, visit.service, r, units.length))
            .find(Boolean),
        ]),
      ),
    [figures, page.client.skin, visit, units.length],
  )
  const own = useMemo(
    () => ownThresholds(figures, Object.values(growth), units),
    [figures, growth, units],
  )
  const slow = useMemo(() => slowZones(figures, growth).slice(0, 3), [figures, growth])
  return (
    <Stack gap={2} pb="sm">
      {visit.hair.length > 0 && (
        <Rows label="Written down">
          {visit.hair.map((h) => (
            <Row
              key={h.id}
              acts={
                <Button variant="bare" size="sm" onClick={() => takeAway(h)}>
                  Take away
                </Button>
              }
            >
              {TOLD_WORDS[h.kind]} on {dateWords(h.atMs)}, day {h.days.toFixed(1)},{' '}
              {h.zoneId ? zoneName(h.zoneId as ZoneId) : 'everywhere'}
              {h.lengthMm !== null
                ? `, ${units.hair(h.lengthMm)} ${METHOD_WORDS[h.method ?? 'photo']}`
                : ''}
              {doubts.get(h.id) && (
                <Text span size="sm" c="dimmed">
                  {' '}
                  Not learned from: {doubts.get(h.id)}
                </Text>
              )}
            </Row>
          ))}
        </Rows>
      )}
      {own && (
        <Text size="sm" c="dimmed">
          {own}
        </Text>
      )}
      {sides.map((s) => (
        <Text size="sm" c="dimmed" key={s.left}>
          {s.words}
        </Text>
      ))}
      {slow.map((z) => (
        <Text size="sm" c="dimmed" key={z.zoneId}>
          {zoneName(z.zoneId as ZoneId)} grows slowly: {Math.round(100 * z.share)} % of the others.
        </Text>
      ))}
      <Text size="sm" c="dimmed">
        Read:{' '}
        <Estimate of="read-length">
          stubble of {units.hair(figures(GROWTH_CONSTANTS.readMm), 0)}
        </Estimate>
        . Wax: a quarter inch,{' '}
        <Estimate mark="C" of="wax-length">
          {units.hair(figures(GROWTH_CONSTANTS.waxMm))}
        </Estimate>
        ; fuzz never grows so long. Growth starts from{' '}
        <Estimate mark="P" of="growth">
          published means
        </Estimate>{' '}
        and is learned; ± is half of what holds 80 %. A day told is a day, not an hour: hair was
        noticed on it, and not on the one before unless somebody says so.
      </Text>
    </Stack>
  )
}
