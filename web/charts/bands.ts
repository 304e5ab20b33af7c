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
