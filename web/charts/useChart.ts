/** An ECharts drawing in a box: made once, drawn anew when its option changes, as large as its box. */
import { useComputedColorScheme } from '@mantine/core'
import { init, type EChartsType } from 'echarts/core'
import { useEffect, useRef } from 'react'
import { dateWords } from '../../core/time/index.ts'
import { LAMP, LIGHT } from '../../core/palette.ts'

export type ChartColours = Record<keyof typeof LIGHT, string>

/**
 * @param option what to draw in the colours of the scheme; memoise it
 * @param onRow told when a row of the chart, or its name, is clicked; memoise it
 * @returns the box to put it in
 */
export function useChart(
  option: (colours: ChartColours) => Readonly<Record<string, unknown>>,
  onRow?: (index: number) => void,
) {
  const tell = useRef(onRow)
  tell.current = onRow
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType>(undefined)
  const lamp = useComputedColorScheme('light') === 'dark'
  useEffect(() => {
    const made = init(box.current, undefined, { renderer: 'svg' })
    chart.current = made
    made.on('click', (e) => tell.current?.(rowOf(e as ClickedRow)))
    const watch = new ResizeObserver(() => made.resize())
    watch.observe(box.current!)
    return () => {
      watch.disconnect()
      made.dispose()
    }
  }, [])
  useEffect(() => {
    chart.current?.setOption(option(lamp ? LAMP : LIGHT), true)
  }, [option, lamp])
  return box
}

interface ClickedRow {
  readonly dataIndex?: number
  readonly tickIndex?: number
}
/** A click on a name of the axis knows its tick, one on a shape its place in the data. */
const rowOf = (e: ClickedRow) => e.dataIndex ?? e.tickIndex ?? -1

/** What every chart has: no motion, the product's ink and face. */
export const chartBase = (c: ChartColours) => ({
  animation: false,
  textStyle: { color: c.ink, fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif" },
})

/** A small chart over time: days below, a figure at the side, and a band drawn as two stacked lines. */
export const overTime = (c: ChartColours, name: string, leastDays = 0) => ({
  ...chartBase(c),
  grid: { left: 36, right: 14, top: 24, bottom: 24 },
  xAxis: {
    type: 'time' as const,
    minInterval: leastDays * 86_400_000,
    axisLabel: { color: c.ink, fontSize: 12, formatter: dateWords, hideOverlap: true },
    splitLine: { show: false },
  },
  yAxis: {
    type: 'value' as const,
    min: 0,
    name,
    nameTextStyle: { color: c.soft, fontSize: 12, align: 'left' as const },
    axisLabel: { color: c.ink, fontSize: 12 },
    splitNumber: 3,
    splitLine: { lineStyle: { color: c.sand } },
  },
})

/** A line that is not seen unless `style` says so. */
export const plainLine = (data: readonly (readonly number[])[], style: object) => ({
  type: 'line' as const,
  showSymbol: false,
  silent: true,
  lineStyle: { width: 0 },
  data,
  ...style,
})
