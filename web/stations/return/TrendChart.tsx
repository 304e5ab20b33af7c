/** The trend watch drawn: counts, their moving average, and what chance alone gives. */
import { LineChart } from 'echarts/charts'
import { use as register } from 'echarts/core'
import { useCallback } from 'react'
import type { Trend } from '../../../core/history/trend.ts'
import '../../charts/bands.ts'
import { chartBase, useChart, type ChartColours } from '../../charts/useChart.ts'
import { dateWords } from '../../state/words.ts'

register([LineChart])

export function TrendChart({ trend }: { trend: Trend }) {
  const box = useChart(useCallback((c: ChartColours) => option(trend, c), [trend]))
  return <div ref={box} className="trend-chart" role="img" aria-label={trend.words} />
}

function option({ points, baseline }: Trend, c: ChartColours) {
  // Back from standard deviations to bumps a visit: the scale is the same for points and limits.
  const unit = Math.sqrt(Math.max(baseline, 0.05))
  const bumps = (z: number) => Math.max(0, baseline + z * unit)
  const line = (data: number[][], style: object) => ({
    type: 'line' as const,
    showSymbol: false,
    silent: true,
    lineStyle: { width: 0 },
    data,
    ...style,
  })
  return {
    ...chartBase(c),
    grid: { left: 36, right: 12, top: 24, bottom: 24 },
    xAxis: {
      type: 'time' as const,
      axisLabel: { color: c.ink, fontSize: 12, formatter: dateWords, hideOverlap: true },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value' as const,
      min: 0,
      name: 'bumps a visit',
      nameTextStyle: { color: c.soft, fontSize: 12, align: 'left' as const },
      axisLabel: { color: c.ink, fontSize: 12 },
      splitNumber: 3,
      splitLine: { lineStyle: { color: c.sand } },
    },
    series: [
      line(
        points.map((p) => [p.atMs, bumps(p.low)]),
        { stack: 'band' },
      ),
      line(
        points.map((p) => [p.atMs, bumps(p.high) - bumps(p.low)]),
        { stack: 'band', areaStyle: { color: c.foam, opacity: 0.8 } },
      ),
      line(
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
