/** Four bands over time: worker, client, lather, towel. */
import { useCallback } from 'react'
import type { Band, Timetable } from '../../../core/plan/index.ts'
import { drawBand } from '../../charts/bands.ts'
import css from './Plan.module.css'
import { chartBase, useChart, type ChartColours } from '../../charts/useChart.ts'

const ROWS = ['towel', 'lather', 'client', 'worker'] as const

export function BandChart({ table, slotMinutes }: { table: Timetable; slotMinutes: number }) {
  const box = useChart(
    useCallback((c: ChartColours) => option(table, slotMinutes, c), [table, slotMinutes]),
  )
  return (
    <div
      ref={box}
      className={css.bands}
      role="img"
      aria-label={`Timetable of ${Math.round(table.totalMin)} minutes: worker, client, lather and towel`}
    />
  )
}

function option(table: Timetable, slotMinutes: number, c: ChartColours) {
  const colours: Record<Band['kind'], string> = {
    prepare: c.kelp,
    feel: c.kelp,
    hand: c.brass,
    stroke: c.tide,
    lather: c.brass,
    check: c.deep,
    close: c.kelp,
    wet: c.foam,
    dry: c.brass,
    hot: c.coral,
    cold: c.foam,
  }
  const list = ROWS.flatMap((row, y) =>
    table[row].map((band) => ({
      value: [band.fromMin, band.toMin, y],
      name: band.text,
      itemStyle: {
        color: colours[row === 'client' && band.kind === 'stroke' ? 'check' : band.kind],
      },
    })),
  )
  return {
    ...chartBase(c),
    grid: { left: 62, right: 16, top: 20, bottom: 34 },
    tooltip: {
      trigger: 'item' as const,
      confine: true,
      formatter: (p: { name: string; value: number[] }) =>
        `${p.name}<br>${p.value[0]!.toFixed(1)}–${p.value[1]!.toFixed(1)} min`,
    },
    xAxis: {
      type: 'value' as const,
      name: 'min',
      nameLocation: 'end' as const,
      nameGap: 4,
      min: 0,
      max: Math.ceil(Math.max(table.totalMin, slotMinutes) / 5) * 5,
      axisLabel: { color: c.ink, fontSize: 13 },
      splitLine: { lineStyle: { color: c.sand } },
    },
    yAxis: {
      type: 'category' as const,
      data: [...ROWS],
      axisLabel: { color: c.ink, fontSize: 13 },
      axisTick: { show: false },
    },
    series: [
      {
        type: 'custom' as const,
        renderItem: drawBand(c.paper),
        encode: { x: [0, 1], y: 2 },
        data: list,
        markLine: {
          symbol: 'none',
          silent: true,
          label: { formatter: 'slot', color: c.coral, fontSize: 12 },
          lineStyle: { color: c.coral, type: 'dashed' as const },
          data: [{ xAxis: slotMinutes }],
        },
      },
    ],
  }
}
