/** An ECharts drawing in a box: made once, drawn anew when its option changes, as large as its box. */
import { useComputedColorScheme } from '@mantine/core'
import { init, type EChartsType } from 'echarts/core'
import { useEffect, useRef } from 'react'
import { LAMP, LIGHT } from '../theme/theme.ts'

export type ChartColours = Record<keyof typeof LIGHT, string>

/**
 * @param option what to draw in the colours of the scheme; memoise it
 * @returns the box to put it in
 */
export function useChart(option: (colours: ChartColours) => Readonly<Record<string, unknown>>) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType>(undefined)
  const lamp = useComputedColorScheme('light') === 'dark'
  useEffect(() => {
    const made = init(box.current, undefined, { renderer: 'svg' })
    chart.current = made
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

/** What every chart has: no motion, the product's ink and face. */
export const chartBase = (c: ChartColours) => ({
  animation: false,
  textStyle: { color: c.ink, fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif" },
})
