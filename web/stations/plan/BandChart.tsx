/** Four bands over time: worker, client, lather, towel. */
import { useComputedColorScheme } from '@mantine/core'
import type { CustomSeriesRenderItem } from 'echarts'
import { CustomChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { graphic, init, use as register, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import type { Band, Timetable } from '../../../core/plan/timetable.ts'
import { LAMP, LIGHT } from '../../theme/theme.ts'

register([CustomChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

const ROWS = ['towel', 'lather', 'client', 'worker'] as const

export function BandChart({ table, slotMinutes }: { table: Timetable; slotMinutes: number }) {
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
    chart.current?.setOption(option(table, slotMinutes, lamp), true)
  }, [table, slotMinutes, lamp])
  return (
    <div
      ref={box}
      className="band-chart"
      role="img"
      aria-label={`Timetable of ${Math.round(table.totalMin)} minutes: worker, client, lather and towel`}
    />
  )
}

function option(table: Timetable, slotMinutes: number, lamp: boolean) {
  const c = lamp ? LAMP : LIGHT
  const colours: Record<Band['kind'], string> = {
    prepare: c.kelp,
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
  const draw: CustomSeriesRenderItem = (params, api) => {
    const from = api.coord([api.value(0), api.value(2)])
    const to = api.coord([api.value(1), api.value(2)])
    const height = (api.size!([0, 1]) as number[])[1]! * 0.62
    const box = params.coordSys as unknown as {
      x: number
      y: number
      width: number
      height: number
    }
    const shape = graphic.clipRectByRect(
      {
        x: from[0]!,
        y: from[1]! - height / 2,
        width: Math.max(1, to[0]! - from[0]! - 0.6),
        height,
      },
      box,
    )
    return (
      shape && {
        type: 'rect',
        shape,
        style: { fill: api.visual('color') as string, stroke: c.paper, lineWidth: 0.5 },
      }
    )
  }
  const text = { color: c.ink, fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif" }
  return {
    animation: false,
    textStyle: text,
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
        renderItem: draw,
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
