/** How hair comes back, zone by zone: learned from what was felt, seen and measured; forecast with its range. */
import { zonesOfJobs } from '../../../core/services/index.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import css from './Return.module.css'
import { Scroll } from '../../ui/Scroll.tsx'
import dayjs from 'dayjs'
import { capital } from '../../../core/words.ts'
import type { HairReading } from '../../../core/looks/index.ts'
import { Button, Table, Text, Stack } from '@mantine/core'
import { ON_SKIN } from '../../../core/palette.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
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
import { type Figures } from '../../../core/house/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, type ReactNode } from 'react'
import { useAddHair, useRemoveHair } from '../../api/visitWrites.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useUnits, type UnitWords } from '../../state/shape.ts'
import { useView } from '../../state/view.ts'
import { tellDone, tellFailed } from '../../ui/notices.ts'
import { newId } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { AddReading, METHOD_WORDS, TOLD_WORDS } from './AddHair.tsx'
import { HairCurve, spread } from './HairCurve.tsx'

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
            .map((r) =>
              hairDoubt(figures, page.client.skin, zonesOfJobs(visit.jobs), r, units.length),
            )
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
