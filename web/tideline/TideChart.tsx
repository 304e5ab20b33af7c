import css from './TideLine.module.css'
import { bumpWords } from '../../core/looks/index.ts'
import { onRedness, LAMP, LIGHT, REDNESS_COLOURS } from '../../core/palette.ts'
import { LENGTH_SIGNS, lengthFigure, type Units } from '../../core/house/index.ts'
import { useSettings } from '../state/shape.ts'
import { dateWords } from '../../core/time/index.ts'
import { CustomChart, LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkAreaComponent, MarkLineComponent } from 'echarts/components'
import { init, use as register, type EChartsType } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useEffect, useRef } from 'react'
import type { Tide, VisitSummary } from '../../contract/types.ts'

register([
  LineChart,
  ScatterChart,
  CustomChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  SVGRenderer,
])

const FONT = "'Atkinson Hyperlegible Next Variable', sans-serif"
/** At most this many visits carry their figures, so that they do not run into each other. */
const LEAST_GAP_PX = 74

export interface TideLineProps {
  readonly tide: Tide
  /** Visit whose map and plan are shown. */
  readonly visitId: string | null
  readonly onVisit: (id: string) => void
}

export function TideChart({ tide, visitId, onVisit, lamp }: TideLineProps & { lamp: boolean }) {
  const box = useRef<HTMLDivElement>(null)
  const chart = useRef<EChartsType>(undefined)
  const { length: unit } = useSettings()
  const choose = useRef(onVisit)
  choose.current = onVisit

  useEffect(() => {
    const made = init(box.current, undefined, { renderer: 'svg' })
    chart.current = made
    made.on('click', (e) => {
      const id = (e.data as { id?: string } | undefined)?.id
      if (id) choose.current(id)
    })
    const watch = new ResizeObserver(() => made.resize())
    watch.observe(box.current!)
    return () => {
      watch.disconnect()
      made.dispose()
    }
  }, [])

  useEffect(() => {
    chart.current?.setOption(
      option(tide, visitId, lamp, unit, box.current?.clientWidth ?? 1200),
      true,
    )
  }, [tide, visitId, lamp, unit])

  return <div ref={box} className={css.chart} data-testid="tide-chart" aria-hidden />
}

/** The window, and on either side of it what is too early for the skin and too late for the hair. */
function windowBands({ window, nowMs, untilMs, fromMs }: Tide, c: Colours) {
  if (!window) return []
  const bands: object[][] = [[{ xAxis: window.fromMs }, { xAxis: window.toMs }]]
  // Words need room: a band is named where it is wide enough.
  const roomy = (a: number, b: number) => (b - a) / (untilMs - fromMs) > 0.055
  const beside = (name: string, from: number, to: number, colour: string) => {
    if (to <= from) return
    bands.push([
      {
        xAxis: from,
        itemStyle: { color: colour, opacity: 0.13 },
        label: {
          show: roomy(from, to),
          formatter: name,
          color: c.soft,
          fontWeight: 400,
          fontSize: 12,
          position: 'insideTop',
        },
      },
      { xAxis: to },
    ])
  }
  beside('too early', nowMs, window.fromMs, c.coral)
  beside('too late', Math.max(window.toMs, nowMs), untilMs, c.brass)
  return bands
}

type Colours = typeof LIGHT | typeof LAMP
type ShownVisit = VisitSummary & { readonly roomy: boolean }

const words = (color: string, fontSize = 13) => ({ color, fontFamily: FONT, fontSize })

function option(
  tide: Tide,
  visitId: string | null,
  lamp: boolean,
  unit: Units['length'],
  width: number,
) {
  const c = lamp ? LAMP : LIGHT
  const top = topOf(tide)
  const visits = shownVisits(tide, width)
  return {
    animation: false,
    textStyle: { fontFamily: FONT },
    grid: [
      { left: 76, right: 44, top: 24, height: 62 },
      { left: 76, right: 44, top: 92, height: 22 },
    ],
    xAxis: timeAxes(tide, c),
    yAxis: heightAxes(tide, top, unit, c),
    series: [
      grown(tide, visits, c),
      atHome(tide, c),
      ...forecast(tide, top, c),
      redness(visits, visitId, c),
      bumps(visits, c),
    ],
  }
}

/** Height of the drawing, mm: three labels at even steps. */
function topOf({ curve, topMm }: Tide): number {
  const highest = Math.ceil(
    Math.max(
      1,
      ...curve.past.map((p) => p.mm),
      ...curve.ahead.map((p) => Math.min(p.highMm, topMm)),
    ),
  )
  return highest > 3 ? 2 * Math.ceil(highest / 2) : highest
}

/** Finished visits, newest first; those with room around them carry their figures. */
function shownVisits({ visits, fromMs, untilMs }: Tide, width: number): ShownVisit[] {
  const plot = Math.max(300, width - 120)
  let lastX = -Infinity
  return visits
    .filter((v) => v.endedAtMs !== null)
    .sort((a, b) => b.endedAtMs! - a.endedAtMs!)
    .map((v) => {
      const x = ((untilMs - v.endedAtMs!) / (untilMs - fromMs)) * plot
      const roomy = x - lastX >= LEAST_GAP_PX
      if (roomy) lastX = x
      return { ...v, roomy }
    })
}

function timeAxes(tide: Tide, c: Colours) {
  return [
    {
      type: 'time',
      gridIndex: 0,
      min: tide.fromMs,
      max: tide.untilMs,
      axisLine: { lineStyle: { color: c.ink } },
      axisTick: { show: false },
      axisLabel: { show: false },
      splitLine: { show: false },
    },
    {
      type: 'time',
      gridIndex: 1,
      min: tide.fromMs,
      max: tide.untilMs,
      axisLine: { show: false },
      axisTick: { show: false },
      axisLabel: {
        ...words(c.soft),
        formatter: (ms: number) => dateWords(ms),
        hideOverlap: true,
        margin: 4,
      },
      splitNumber: 7,
      splitLine: { show: false },
    },
  ]
}

function heightAxes(tide: Tide, top: number, unit: Units['length'], c: Colours) {
  return [
    {
      type: 'value',
      gridIndex: 0,
      min: 0,
      max: top,
      name: `${tide.hairWords}, ${LENGTH_SIGNS[unit]}`,
      nameLocation: 'end',
      nameTextStyle: {
        color: c.soft,
        fontFamily: FONT,
        fontSize: 13,
        align: 'right',
        padding: [0, -30, -2, 0],
      },
      axisLabel: {
        ...words(c.soft),
        formatter: (v: number) => lengthFigure(v, unit, v < 3 && v % 1 ? 1 : 0),
      },
      interval: top > 3 ? top / 2 : 1,
      splitLine: { lineStyle: { color: c.line, opacity: 0.35 } },
    },
    {
      type: 'value',
      gridIndex: 1,
      min: 0,
      max: 1,
      axisLabel: { show: false },
      splitLine: { show: false },
      axisLine: { show: false },
      name: 'Skin',
      nameLocation: 'middle',
      nameRotate: 0,
      nameGap: 26,
      nameTextStyle: words(c.soft),
    },
  ]
}

/** Hair up to now, with the window that is due, today and the changes of routine. */
function grown(tide: Tide, visits: readonly ShownVisit[], c: Colours) {
  return {
    type: 'line',
    data: tide.curve.past.map((p) => [p.atMs, p.mm]),
    showSymbol: false,
    lineStyle: { color: c.tide, width: 2.5 },
    silent: true,
    z: 3,
    markArea: tide.window && {
      silent: true,
      itemStyle: { color: c.foam, opacity: 0.9 },
      label: {
        color: c.deep,
        fontFamily: FONT,
        fontWeight: 700,
        fontSize: 13,
        // A window that has just passed is crossed by today's line: its word stands before it, above the hair.
        position: tide.window.toMs < tide.nowMs ? 'left' : 'insideBottom',
        formatter: 'due',
      },
      data: windowBands(tide, c),
    },
    markLine: { silent: true, symbol: 'none', data: marks(tide, visits, c) },
  }
}

/** What was taken off at home: a hollow drop on the ground, larger the more of the skin it was. */
function atHome(tide: Tide, c: Colours) {
  return {
    type: 'scatter',
    data: tide.home.map((h) => [h.atMs, 0, h.share]),
    symbol: 'path://M5 0C5 0 0 6 0 9a5 5 0 0 0 10 0C10 6 5 0 5 0Z',
    symbolSize: (value: number[]) => 10 + 6 * value[2]!,
    symbolOffset: [0, '-55%'],
    itemStyle: { color: c.shell, borderColor: c.tide, borderWidth: 1.8 },
    silent: true,
    z: 5,
  }
}

/** Today, and where a routine was changed. */
function marks(tide: Tide, visits: readonly ShownVisit[], c: Colours) {
  const mark = (xAxis: number, formatter: string, color: string, width: number, type: string) => ({
    xAxis,
    lineStyle: { color, width, type },
    label: { formatter, ...words(color), position: 'end', distance: 2 },
  })
  return [
    ...(tide.nowMs > tide.untilMs ? [] : [mark(tide.nowMs, 'today', c.coral, 2, 'solid')]),
    ...visits
      .filter((v) => v.routine)
      .map((v) => mark(v.startedAtMs ?? v.endedAtMs!, v.routine, c.brass, 1.5, 'dotted')),
  ]
}

/** Hair to come, within its range. */
function forecast(tide: Tide, top: number, c: Colours) {
  return [
    {
      type: 'line',
      data: tide.curve.ahead.map((p) => [p.atMs, Math.min(p.lowMm, top)]),
      showSymbol: false,
      lineStyle: { width: 0 },
      stack: 'band',
      silent: true,
    },
    {
      type: 'line',
      data: tide.curve.ahead.map((p) => [
        p.atMs,
        Math.max(0, Math.min(p.highMm, top) - Math.min(p.lowMm, top)),
      ]),
      showSymbol: false,
      lineStyle: { width: 0 },
      areaStyle: { color: c.tide, opacity: 0.18 },
      stack: 'band',
      silent: true,
    },
    {
      type: 'line',
      data: tide.curve.ahead.filter((p) => p.mm <= top).map((p) => [p.atMs, p.mm]),
      showSymbol: false,
      lineStyle: { color: c.tide, width: 2, type: 'dashed' },
      silent: true,
    },
  ]
}

/** Each visit as its worst redness. */
function redness(visits: readonly ShownVisit[], visitId: string | null, c: Colours) {
  return {
    type: 'scatter',
    xAxisIndex: 1,
    yAxisIndex: 1,
    symbolSize: 17,
    data: visits.map((v) => ({
      id: v.id,
      value: [v.endedAtMs, 0.5],
      itemStyle: {
        color: v.worstRedness === null ? c.paper : REDNESS_COLOURS[v.worstRedness],
        borderColor: v.id === visitId ? c.coral : c.ink,
        borderWidth: v.id === visitId ? 3 : 1,
      },
      label: {
        show: true,
        position: 'inside',
        formatter: v.worstRedness === null ? '?' : String(v.worstRedness),
        color: v.worstRedness === null ? c.ink : onRedness(v.worstRedness),
        fontFamily: FONT,
        fontSize: 11,
      },
    })),
    z: 4,
  }
}

/** Bumps, beside visits that have the room. */
function bumps(visits: readonly ShownVisit[], c: Colours) {
  return {
    type: 'scatter',
    xAxisIndex: 1,
    yAxisIndex: 1,
    symbolSize: 1,
    silent: true,
    itemStyle: { color: 'transparent' },
    data: visits
      .filter((v) => v.roomy && v.bumps !== null && v.bumps > 0)
      .map((v) => ({
        value: [v.endedAtMs, 0.5],
        label: {
          show: true,
          position: 'right',
          distance: 11,
          formatter: bumpWords(v.bumps ?? 0),
          color: c.soft,
          fontFamily: FONT,
          fontSize: 12,
        },
      })),
  }
}
