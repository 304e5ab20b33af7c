/** The next seven days as bands: what to keep off, what to do, what is normal, what to watch for. */
import { Text } from '@mantine/core'
import { useCallback } from 'react'
import type { CarePlan, Clearance } from '../../../core/care/index.ts'
import { DAY_MS, dateWords, whenWords } from '../../../core/time/index.ts'
import { drawBand } from '../../charts/bands.ts'
import { chartBase, useChart, type ChartColours } from '../../charts/useChart.ts'
import type { StationProps } from '../useStation.ts'
import css from './Care.module.css'
import { NotYet } from './CareSheet.tsx'

const KINDS = ['avoid', 'do', 'normal', 'watch'] as const
const KIND_WORDS: Readonly<Record<Clearance['kind'], string>> = {
  avoid: 'keep off',
  do: 'do',
  normal: 'normal',
  watch: 'write to us',
}
/** Short names: a row has little room. */
const SHORT: Readonly<Record<string, string>> = {
  reddened: 'Cool, plain balm',
  touch: 'Hands off',
  mask: 'No mask or strap',
  'make-up': 'No make-up',
  exercise: 'No sweat or heat',
  swimming: 'No pool or sea',
  acids: 'No acids, scrubs',
  sun: 'No strong sun',
  'sun-cream': 'Sun cream',
  exfoliate: 'Acid or brush',
  'redness-normal': 'Slight redness',
  'bumps-normal': 'Small bumps',
  'burn-watch': 'Burning: write',
  'answer-24h': 'Look, tell us',
  'answer-48h': 'Look again',
  'answer-7d': 'Count bumps',
}
const SHOWN_DAYS = 8

/** Rows from top to bottom: by kind, then by when they end. */
const rowsOf = (care: CarePlan) =>
  KINDS.flatMap((kind) => care.clearances.filter((c) => c.kind === kind))

export function CareDays(props: StationProps) {
  const { care } = props.visit
  if (!care) return <NotYet {...props} />
  return <Days care={care} />
}

function Days({ care }: { care: CarePlan }) {
  const box = useChart(useCallback((c: ChartColours) => option(care, c), [care]))
  const now = Date.now()
  const still = care.clearances.filter((c) => c.kind === 'avoid' && c.untilMs > now)
  return (
    <>
      <h1>
        {still.length === 0 ? 'Nothing more to keep off' : `${still.length} things to keep off`}
      </h1>
      <Text size="sm" c="dimmed">
        From {whenWords(care.endedAtMs)}; the dashed line is now.
      </Text>
      <div
        ref={box}
        className={css.days}
        role="img"
        aria-label={rowsOf(care)
          .map((c) => `${c.title}: ${whenWords(c.fromMs)} to ${whenWords(c.untilMs)}`)
          .join('. ')}
      />
    </>
  )
}

function option(care: CarePlan, c: ChartColours) {
  const rows = rowsOf(care).reverse()
  const colours: Record<Clearance['kind'], string> = {
    avoid: c.coral,
    do: c.tide,
    normal: c.foam,
    watch: c.brass,
  }
  const now = Date.now()
  return {
    ...chartBase(c),
    grid: { left: 132, right: 14, top: 6, bottom: 28 },
    tooltip: {
      trigger: 'item' as const,
      confine: true,
      extraCssText: 'max-width: 320px; white-space: normal',
      formatter: (p: { dataIndex: number }) => {
        const row = rows[p.dataIndex]!
        return `<b>${row.title}</b> (${KIND_WORDS[row.kind]})<br>${whenWords(row.fromMs)} – ${whenWords(row.untilMs)}<br>${row.text}`
      },
    },
    xAxis: {
      type: 'time' as const,
      min: care.endedAtMs,
      max: care.endedAtMs + SHOWN_DAYS * DAY_MS,
      minInterval: DAY_MS,
      axisLabel: { color: c.ink, fontSize: 13, formatter: (ms: number) => dateWords(ms) },
      splitLine: { show: true, lineStyle: { color: c.sand } },
    },
    yAxis: {
      type: 'category' as const,
      data: rows.map((r) => SHORT[r.id] ?? r.title),
      axisLabel: { color: c.ink, fontSize: 14, interval: 0 },
      axisTick: { show: false },
    },
    series: [
      {
        type: 'custom' as const,
        renderItem: drawBand(c.paper, 0.6),
        encode: { x: [0, 1], y: 2 },
        data: rows.map((r, y) => ({
          value: [r.fromMs, r.untilMs, y],
          name: r.title,
          itemStyle: { color: colours[r.kind] },
        })),
        markLine: {
          symbol: 'none',
          silent: true,
          label: { show: false },
          lineStyle: { color: c.ink, type: 'dashed' as const },
          data: now < care.endedAtMs + SHOWN_DAYS * DAY_MS ? [{ xAxis: now }] : [],
        },
      },
    ],
  }
}
