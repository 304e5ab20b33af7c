/** Maps and charts of a report, as lines on its pages. */
import { fullDate, shortDate, whenWords } from '../../core/time/index.ts'
import { LIGHT, ON_SKIN } from '../../core/palette.ts'
import { SERVICES } from '../../core/services/index.ts'
import type { Figures } from '../../core/house/index.ts'
import {
  growthArrows,
  flatParts,
  placeSpots,
  rednessTint,
  skinMapSvg,
  tintedZones,
  SKIN_SPOT_WORDS,
} from '../../core/formats/index.ts'
import type { FlatView } from '../../core/head/index.ts'
import { zoneName, type ZoneId } from '../../core/zones/index.ts'
import { SPOT_KINDS } from '../../core/looks/index.ts'
import { sum } from '../../core/stats/index.ts'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { BarChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { init, use as register } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import svgToPdf from 'svg-to-pdfkit'
import type { ClientHistory } from '../../contract/types.ts'
import { ZONES } from '../atlas.ts'
import { ROOT } from '../config.ts'
import { fontFile, type Pen, SOFT } from '../paper/pen.ts'
import type { VisitRecord } from '../visits/record.ts'

register([BarChart, GridComponent, SVGRenderer])

let views: readonly FlatView[] | undefined
const flatViews = () =>
  (views ??= JSON.parse(
    readFileSync(join(ROOT, 'generated', 'flat-views.json'), 'utf8'),
  ) as readonly FlatView[])

type Looks = ClientHistory['looks']

/** How hair grows, and how the skin took the last service. */
export function maps(
  figures: Figures,
  pen: Pen,
  section: (title: string, room?: number) => void,
  last: VisitRecord,
  looks: Looks,
): void {
  const shown = SERVICES[last.service].views.map((v) => flatViews().find((f) => f.id === v)!)
  const room = 150
  section(`How the hair grows, as read up to ${fullDate(last.endedAtMs!)}`, room + 30)
  const arrows = growthArrows(figures, last.readings, last.endedAtMs ?? Date.now(), ZONES)
  row(
    pen,
    room,
    shown.map((view) => {
      const parts = flatParts(view, { arrows, signs: [], lines: [] }, () => true)
      return skinMapSvg(view, [], [], parts.arrows)
    }),
  )
  const own = looks.filter((l) => l.visitId === last.id && l.answer.moment !== 'now')
  const worst = new Map<string, number>()
  for (const { answer } of own) {
    for (const z of answer.zones) worst.set(z.zoneId, Math.max(worst.get(z.zoneId) ?? 0, z.redness))
  }
  if (own.length === 0) {
    pen.write('How the skin took the last service was not answered.', { gap: 0.8 })
    return
  }
  section('How the skin took it: the worst of every look', room + 44)
  const spots = own.flatMap((l) => l.answer.spots ?? [])
  const worked = last.loads ?? {}
  row(
    pen,
    room,
    shown.map((view) =>
      skinMapSvg(
        view,
        tintedZones(view, (z) => (z in worked ? rednessTint(worst.get(z) ?? 0) : undefined)),
        placeSpots(view, spots),
      ),
    ),
  )
  const red = [...worst.entries()].filter(([, g]) => g > 0).sort((a, b) => b[1] - a[1])
  const counted = SPOT_KINDS.map((k) => [k, spots.filter((s) => s.kind === k).length] as const)
    .filter(([, n]) => n > 0)
    .map(([k, n]) => `${n} × ${SKIN_SPOT_WORDS[k]}`)
  pen.write(
    `${red.length > 0 ? `Red: ${red.map(([z, g]) => `${zoneName(z as ZoneId)} ${g}`).join(', ')}.` : 'Clear at every look.'}${counted.length > 0 ? ` Marked: ${counted.join(', ')}.` : ''}`,
    { gap: 0.8 },
  )
}

/** Pictures side by side. */
function row(pen: Pen, height: number, pictures: readonly string[]): void {
  const { doc } = pen
  const width = pen.wide / pictures.length
  const top = doc.y
  pictures.forEach((svg, i) =>
    svgToPdf(doc, svg, pen.left + i * width, top, {
      width: width - 8,
      height,
      preserveAspectRatio: 'xMidYMid meet',
      assumePt: true,
    }),
  )
  doc.y = top + height + 8
  doc.x = pen.left
}

/** Redness and bumps over the visits. */
export function charts(pen: Pen, visits: ClientHistory['visits']): void {
  const width = Math.round(pen.wide)
  const height = 170
  const chart = init(null, null, { renderer: 'svg', ssr: true, width, height })
  const names = visits.map((v) => shortDate(v.endedAtMs))
  const most = (zones: Record<string, number> | null) =>
    zones ? Math.max(0, ...Object.values(zones)) : null
  const axis = {
    axisLabel: { fontSize: 9, color: LIGHT.ink },
    nameTextStyle: { fontSize: 9, color: LIGHT.ink },
  }
  chart.setOption({
    animation: false,
    textStyle: { fontFamily: 'sheet' },
    grid: [
      { left: 34, right: 8, top: 18, height: 50 },
      { left: 34, right: 8, top: 96, height: 46 },
    ],
    xAxis: [0, 1].map((i) => ({
      type: 'category',
      gridIndex: i,
      data: names,
      axisTick: { show: false },
      axisLabel: {
        show: i === 1,
        fontSize: 8,
        color: LIGHT.ink,
        interval: Math.floor(visits.length / 9),
      },
    })),
    yAxis: [
      {
        ...axis,
        type: 'value',
        gridIndex: 0,
        min: 0,
        max: 4,
        interval: 2,
        name: 'worst redness, 0–4',
        nameTextStyle: { ...axis.nameTextStyle, align: 'left' },
      },
      {
        ...axis,
        type: 'value',
        gridIndex: 1,
        min: 0,
        minInterval: 1,
        splitNumber: 2,
        name: 'bumps and ingrown hairs',
        nameTextStyle: { ...axis.nameTextStyle, align: 'left' },
      },
    ],
    series: [
      {
        type: 'bar',
        data: visits.map((v) => most(v.worst)),
        itemStyle: { color: ON_SKIN.coral },
        barMaxWidth: 9,
      },
      {
        type: 'bar',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: visits.map((v) => v.bumps && sum(Object.values(v.bumps))),
        itemStyle: { color: LIGHT.deep },
        barMaxWidth: 9,
      },
    ],
  })
  const svg = chart.renderToSVGString()
  chart.dispose()
  const { doc } = pen
  const top = doc.y
  doc.registerFont('sheet', fontFile('latin', 400))
  svgToPdf(doc, svg, pen.left, top, { assumePt: true, fontCallback: () => 'sheet' })
  doc.y = top + height
  doc.x = pen.left
  const silent = visits.filter((v) => v.worst === null).length
  pen.write(
    `${visits.length} visits, oldest first. ${silent > 0 ? `${silent} were not answered and have no bar: that is not "clear".` : 'All were answered.'} Last made ${whenWords(Date.now())}.`,
    { colour: SOFT, scale: 0.86, gap: 0.8 },
  )
}
