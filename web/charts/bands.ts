/** Bands over time as an ECharts custom series: from, to, and on which row. */
import type { CustomSeriesRenderItem } from 'echarts'
import { CustomChart } from 'echarts/charts'
import {
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components'
import { graphic, use as register } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'

register([
  CustomChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  SVGRenderer,
])

/** Draws a band, cut at the edge of the chart. `value` is from, to, row. */
export const drawBand =
  (paper: string, thick = 0.62): CustomSeriesRenderItem =>
  (params, api) => {
    const from = api.coord([api.value(0), api.value(2)])
    const to = api.coord([api.value(1), api.value(2)])
    const height = (api.size!([0, 1]) as number[])[1]! * thick
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
        width: Math.max(2, to[0]! - from[0]! - 0.6),
        height,
      },
      box,
    )
    return (
      shape && {
        type: 'rect',
        shape,
        style: { fill: api.visual('color') as string, stroke: paper, lineWidth: 0.5 },
      }
    )
  }

/** Draws a range standing up, with short bars at its ends. `value` is place, low, high. */
export const drawWhisker: CustomSeriesRenderItem = (_params, api) => {
  const [x, low] = api.coord([api.value(0), api.value(1)]) as [number, number]
  const [, high] = api.coord([api.value(0), api.value(2)]) as [number, number]
  const style = { stroke: api.visual('color') as string, lineWidth: 2, fill: 'none' }
  const line = (x1: number, y1: number, x2: number, y2: number) => ({
    type: 'line' as const,
    shape: { x1, y1, x2, y2 },
    style,
  })
  return {
    type: 'group',
    children: [line(x, low, x, high), line(x - 5, low, x + 5, low), line(x - 5, high, x + 5, high)],
  }
}
