/** The trend watch drawn: counts, their moving average, and what chance alone gives. */
import css from './Return.module.css'
import { LineChart } from 'echarts/charts'
import { use as register } from 'echarts/core'
import { useCallback } from 'react'
import type { Trend } from '../../../core/history/index.ts'
import '../../charts/bands.ts'
import { overTime, plainLine, useChart, type ChartColours } from '../../charts/useChart.ts'

register([LineChart])

export function TrendChart({ trend }: { trend: Trend }) {
  const box = useChart(useCallback((c: ChartColours) => option(trend, c), [trend]))
  return <div ref={box} className={css.trendChart} role="img" aria-label={trend.words} />
}

function option({ points }: Trend, c: ChartColours) {
  const bumps = (a: number) => Math.max(0, a)
  return {
    ...overTime(c, 'bumps a visit'),
    series: [
      plainLine(
        points.map((p) => [p.atMs, bumps(p.low)]),
        { stack: 'band' },
      ),
      plainLine(
        points.map((p) => [p.atMs, bumps(p.high) - bumps(p.low)]),
        { stack: 'band', areaStyle: { color: c.foam, opacity: 0.8 } },
      ),
      plainLine(
        points.map((p) => [p.atMs, bumps(p.value)]),
        { lineStyle: { color: c.deep, width: 2.4 } },
      ),
      {
        type: 'scatter' as const,
        silent: true,
        z: 6,
        symbolSize: 7,
        data: points.map((p) => ({
          value: [p.atMs, p.count],
          itemStyle: { color: p.out ? c.coral : c.shell, borderColor: c.ink, borderWidth: 1 },
        })),
      },
    ],
  }
}
