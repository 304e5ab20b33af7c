/**
 * A report of a client as PDF, for themselves or a doctor: what was found, what was done, how the skin took it; maps and charts in
 * lines. It says what it is: a studio's record, no diagnosis.
 */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { BarChart, LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent } from 'echarts/components'
import { init, use as register } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import svgToPdf from 'svg-to-pdfkit'
import { flatParts, type MapArrow } from '../../core/formats/mapSvg.ts'
import {
  placeSpots,
  rednessTint,
  skinMapSvg,
  SPOT_WORDS,
  tintedZones,
} from '../../core/formats/skinMap.ts'
import { grainMap } from '../../core/grain/readings.ts'
import { directionOf } from '../../core/head/frames.ts'
import type { FlatView, ViewId } from '../../core/head/projection.ts'
import { isSkin, type ZoneId } from '../../core/head/zones.ts'
import { zoneName } from '../../core/head/zoneFacts.ts'
import { changeEffects, findChanges, separabilityWords } from '../../core/history/changes.ts'
import { bumpSeverity } from '../../core/skin/bumps.ts'
import { REDNESS_WORDS } from '../../core/skin/anchors.ts'
import { SPOT_KINDS, DRYNESS_WORDS } from '../../core/history/answers.ts'
import { RULES } from '../../core/screening/rules.ts'
import { CLOSING_SENTENCE } from '../../core/screening/screen.ts'
import { isBodyService, SERVICES } from '../../core/services.ts'
import { WHEN } from '../care/when.ts'
import { ROOT } from '../config.ts'
import { ZONES } from '../atlas.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { fontFile, Pen, SOFT } from '../paper/pen.ts'
import { clientHistory } from '../studio/history.ts'
import { readVisit, type VisitRecord } from '../visits/record.ts'
import { clientPage } from './service.ts'

register([BarChart, LineChart, GridComponent, MarkLineComponent, SVGRenderer])

const FULL = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
const SHORT = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: '2-digit' })
/** Visits told one by one; older ones are in the charts. */
const VISITS_TOLD = 14
const VISITS_CHARTED = 40

let views: readonly FlatView[] | undefined
const flatViews = () =>
  (views ??= JSON.parse(
    readFileSync(join(ROOT, 'generated', 'flat-views.json'), 'utf8'),
  ) as readonly FlatView[])

export async function clientReport(db: Database, id: string): Promise<Buffer> {
  const [page, house, history] = await Promise.all([
    clientPage(db, id),
    readHouse(db),
    clientHistory(db, id),
  ])
  const { client } = page
  const finished = page.visits.filter((v) => v.state === 'finished')
  const [lastSummary] = finished
  const last = lastSummary && (await readVisit(db, lastSummary.id))
  const pen = new Pen(`Report, ${client.name}`, house.name, 10.5, 46)
  pen.write(client.name, { weight: 700, scale: 2 })
  pen.write(
    `${SERVICES[client.service].name} · ${finished.length} ${finished.length === 1 ? 'visit' : 'visits'} kept · made ${FULL.format(Date.now())} at ${house.name}`,
    { colour: SOFT, gap: 0.4 },
  )
  pen.write(
    'A studio’s own record of services with a blade and of how the skin took them. It is no diagnosis; redness is graded by eye from 0 to 4 and bumps are counted.',
    { gap: 0.8 },
  )
  const section = (title: string, room = 60) => {
    pen.need(room)
    pen.write(title, { weight: 700, scale: 1.25, gap: 0.1 })
    pen.rule()
  }
  section('Skin and hair as told')
  pen.write(told(client.skin), { gap: 0.2 })
  const found = last ? yesAnswers(last) : []
  pen.write(
    found.length > 0
      ? `Asked at the last visit: ${found.join('; ')}.`
      : 'Nothing was found by asking at the last visit.',
    {
      gap: 0.8,
    },
  )
  if (last && !isBodyService(last.service)) maps(pen, section, last, history.looks)
  if (finished.length > 0) {
    section('Over time', 210)
    charts(pen, history.visits.slice(-VISITS_CHARTED))
  }
  const effects = changeEffects(
    findChanges(history.visits.filter((v) => v.service === client.service)),
  )
  if (effects.length > 0) {
    section('Changes of routine')
    const seen = new Set<object>()
    for (const e of effects) {
      pen.need(40)
      if (!seen.has(e.change)) {
        seen.add(e.change)
        pen.write(`${SHORT.format(e.change.atMs)}: ${e.change.words}`, { weight: 700 })
        pen.write(separabilityWords(e.change), { colour: SOFT })
      }
      pen.write(e.words, { gap: 0.25 })
    }
    pen.skip(0.5)
  }
  section('Visits', 80)
  if (finished.length === 0) pen.write('No service has been finished yet.')
  for (const v of finished.slice(0, VISITS_TOLD)) {
    pen.need(44)
    const looks = history.looks.filter((l) => l.visitId === v.id)
    const facts = history.visits.find((f) => f.visitId === v.id)
    pen.row(
      `${FULL.format(v.endedAtMs!)}, ${SERVICES[v.service].name.toLowerCase()}`,
      visitWords(
        facts,
        looks.map((l) => l.answer),
      ),
      v.worstRedness === null
        ? 'not answered'
        : `redness ${v.worstRedness}, ${REDNESS_WORDS[v.worstRedness]![0]}${v.bumps === null ? '' : `; ${v.bumps} ${v.bumps === 1 ? 'bump' : 'bumps'} (${bumpSeverity(v.bumps)})`}`,
      SOFT,
    )
  }
  if (finished.length > VISITS_TOLD) {
    pen.write(`${finished.length - VISITS_TOLD} earlier visits are kept and not told here.`, {
      colour: SOFT,
    })
  }
  pen.skip(0.5)
  pen.need(50)
  pen.write(
    `${CLOSING_SENTENCE} "Not answered" is not "clear". Estimates of the studio’s models are not in this report.`,
    {
      colour: SOFT,
      scale: 0.86,
    },
  )
  return pen.end()
}

const REACTIVITY = {
  tough: 'Tough skin',
  average: 'Average skin',
  reactive: 'Reactive skin',
} as const

function told(skin: {
  reactivity: keyof typeof REACTIVITY
  faceHair: string
  coarseness: string
  curl: string
  bumpProne: boolean
}): string {
  return `${REACTIVITY[skin.reactivity]}; ${skin.coarseness}, ${skin.curl} hair; ${skin.faceHair === 'beard' ? 'a beard' : 'fuzz on the face'}${skin.bumpProne ? '; prone to bumps' : ''}.`
}

const yesAnswers = (visit: VisitRecord): string[] =>
  RULES.filter((r) => visit.asked.answers[r.id]?.yes).map((r) => {
    const date = visit.asked.answers[r.id]?.date
    return `${r.short.toLowerCase()}${date ? ` (${date})` : ''}`
  })

function visitWords(
  facts:
    { choices: { blade: string } | null; routine: string; products: readonly string[] } | undefined,
  answers: readonly {
    feeling?: { stinging?: number; itch?: number; dryness?: number; words?: string }
  }[],
): string {
  const most = (
    pick: (f: { stinging?: number; itch?: number; dryness?: number }) => number | undefined,
  ) => Math.max(-1, ...answers.map((a) => pick(a.feeling ?? {}) ?? -1))
  const [sting, itch, dry] = [most((f) => f.stinging), most((f) => f.itch), most((f) => f.dryness)]
  return [
    facts?.choices?.blade ?? '',
    facts?.routine ? `from here: ${facts.routine}` : '',
    sting > 0 ? `stinging up to ${sting} of 10` : '',
    itch > 0 ? `itch up to ${itch} of 10` : '',
    dry > 0 ? `dryness: ${DRYNESS_WORDS[dry]}` : '',
    ...answers.flatMap((a) => (a.feeling?.words ? [`“${a.feeling.words}”`] : [])),
  ]
    .filter(Boolean)
    .join('; ')
}

type Looks = Awaited<ReturnType<typeof clientHistory>>['looks']

function maps(
  pen: Pen,
  section: (title: string, room?: number) => void,
  last: VisitRecord,
  looks: Looks,
): void {
  const scalp = last.service === 'head-shave'
  const ids: ViewId[] = scalp
    ? ['front', 'left', 'right', 'crown']
    : ['front', 'left', 'right', 'underChin']
  const shown = ids.map((v) => flatViews().find((f) => f.id === v)!)
  const room = 150
  section(`How the hair grows, as read up to ${FULL.format(last.endedAtMs!)}`, room + 30)
  const arrows = growthArrows(last)
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
    .map(([k, n]) => `${n} × ${SPOT_WORDS[k]}`)
  pen.write(
    `${red.length > 0 ? `Red: ${red.map(([z, g]) => `${zoneName(z as ZoneId)} ${g}`).join(', ')}.` : 'Clear at every look.'}${counted.length > 0 ? ` Marked: ${counted.join(', ')}.` : ''}`,
    { gap: 0.8 },
  )
}

function growthArrows(visit: VisitRecord): MapArrow[] {
  const grain = grainMap(visit.readings, visit.endedAtMs ?? Date.now())
  return ZONES.flatMap((zone): MapArrow[] => {
    const g = grain[zone.id]
    if (!g || g.source !== 'read' || !isSkin(zone.id)) return []
    const { point, normal } = zone.centre
    const lengthMm = Math.min(24, Math.max(8, Math.sqrt(zone.areaCm2) * 5))
    return [
      {
        zoneId: zone.id,
        point,
        normal,
        direction: directionOf(zone.id, point, normal, g.growthDirection),
        lengthMm,
      },
    ]
  })
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

function charts(pen: Pen, visits: Awaited<ReturnType<typeof clientHistory>>['visits']): void {
  const width = Math.round(pen.wide)
  const height = 170
  const chart = init(null, null, { renderer: 'svg', ssr: true, width, height })
  const names = visits.map((v) => SHORT.format(v.endedAtMs))
  const most = (zones: Record<string, number> | null) =>
    zones ? Math.max(0, ...Object.values(zones)) : null
  const sum = (zones: Record<string, number> | null) =>
    zones ? Object.values(zones).reduce((s, v) => s + v, 0) : null
  const axis = {
    axisLabel: { fontSize: 9, color: '#17323B' },
    nameTextStyle: { fontSize: 9, color: '#17323B' },
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
        color: '#17323B',
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
        itemStyle: { color: '#BF4E36' },
        barMaxWidth: 9,
      },
      {
        type: 'bar',
        xAxisIndex: 1,
        yAxisIndex: 1,
        data: visits.map((v) => sum(v.bumps)),
        itemStyle: { color: '#0D4656' },
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
    `${visits.length} visits, oldest first. ${silent > 0 ? `${silent} were not answered and have no bar: that is not "clear".` : 'All were answered.'} Last made ${WHEN.format(Date.now())}.`,
    { colour: SOFT, scale: 0.86, gap: 0.8 },
  )
}
