/** The forecast of a zone's hair: its length with the range that holds 80 %. */
import css from './Return.module.css'
import { useUnits, type UnitWords } from '../../state/shape.ts'
import { useFigures } from '../../state/figures.ts'
import { lengthIn, type Figures } from '../../../core/house/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import {
  GROWTH_CONSTANTS,
  lengthCurve,
  outlookDays,
  thresholdOf,
  type DayRange,
  type ZoneOutlook,
} from '../../../core/regrowth/index.ts'
import { DAY_MS } from '../../../core/time/index.ts'
import { LineChart } from 'echarts/charts'
import { use as register } from 'echarts/core'
import { useCallback } from 'react'
import '../../charts/bands.ts'
import { overTime, plainLine, useChart, type ChartColours } from '../../charts/useChart.ts'

register([LineChart])

/** Days between which 80 % lies. */
export const spread = (r: DayRange): string =>
  !Number.isFinite(r.even) ? 'never' : `${r.early.toFixed(1)}–${r.late.toFixed(1)}`

export function HairCurve({ zone, endedAtMs }: { zone: ZoneOutlook; endedAtMs: number }) {
  const figures = useFigures()
  const units = useUnits()
  const box = useChart(
    useCallback(
      (c: ChartColours) => option(figures, zone, endedAtMs, units, c),
      [figures, zone, endedAtMs, units],
    ),
  )
  return (
    <div
      ref={box}
      className={css.hairChart}
      role="img"
      aria-label={`${zoneName(zone.zoneId)}: felt about day ${zone.felt.even.toFixed(1)} (80 %: ${spread(zone.felt)}), seen about day ${zone.seen.even.toFixed(1)} (${spread(zone.seen)})`}
    />
  )
}

const STEPS = 24

function option(
  figures: Figures,
  zone: ZoneOutlook,
  endedAtMs: number,
  units: UnitWords,
  c: ChartColours,
) {
  const { growth } = zone
  const last = outlookDays(zone)
  const curve = lengthCurve(figures, zone, last, STEPS)
  const over = (mm: readonly number[]) =>
    mm.map((l, i): [number, number] => [
      endedAtMs + curve.days[i]! * DAY_MS,
      lengthIn(l, units.length),
    ])
  const mark = (name: string, mm: number) => ({
    yAxis: lengthIn(mm, units.length),
    label: { formatter: name, color: c.ink, fontSize: 12, position: 'insideStartTop' as const },
    lineStyle: { color: c.brass, type: 'dotted' as const },
  })
  return {
    ...overTime(c, `${zoneName(zone.zoneId)}, ${units.lengthSign}`, 1),
    series: [
      plainLine(over(curve.low), { stack: 'band' }),
      plainLine(over(curve.high.map((mm, i) => mm - curve.low[i]!)), {
        stack: 'band',
        areaStyle: { color: c.tide, opacity: 0.2 },
      }),
      {
        ...plainLine(over(curve.even), {
          lineStyle: { color: c.tide, width: 2.4, type: 'dashed' as const },
        }),
        markLine: {
          silent: true,
          symbol: 'none',
          data: [
            mark('felt', thresholdOf(figures, growth, 'felt').mm),
            mark('seen', thresholdOf(figures, growth, 'seen').mm),
            ...(zone.read && zone.read.even <= last
              ? [mark('to read', figures(GROWTH_CONSTANTS.readMm))]
              : []),
            {
              xAxis: Date.now(),
              label: { formatter: 'today', color: c.coral, fontSize: 12 },
              lineStyle: { color: c.coral, type: 'solid' as const },
            },
          ],
        },
      },
    ],
  }
}
