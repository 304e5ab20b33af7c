/** What the skin is likely to do, as ranges, and what differed between quiet and red visits. */
import { Estimate } from '../../ui/Estimate.tsx'
import css from './Return.module.css'
import { Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { Text, Title } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import type { Figures } from '../../../core/house/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { choiceEffects } from '../../../core/history/index.ts'
import {
  meanFading,
  rednessRange,
  gradeOdds,
  priorSensitivity,
  rednessOdds,
  SKIN_CONSTANTS,
  type Sensitivity,
} from '../../../core/skin/index.ts'
import { oddsWords, timesWords } from '../../../core/stats/index.ts'
import { useHistory } from '../../api/queries.ts'
import { EffectList } from '../../effects/EffectList.tsx'
import { drawBand } from '../../charts/bands.ts'
import { chartBase, useChart, type ChartColours } from '../../charts/useChart.ts'
import { useView } from '../../state/view.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'
import { useZoneTints } from './useZoneTints.ts'
import { useCallback, useMemo } from 'react'

/** Zones in the chart: the likeliest to redden, and the chosen one. */
const SHOWN = 9

interface ZoneOdds {
  readonly zoneId: ZoneId
  readonly load: number
  readonly skin: Sensitivity
  readonly odds: number
  readonly low: number
  readonly high: number
}

/** Odds of each zone for a service like this one: its own load, or one pass with the grain where there was none. */
function useOdds({ page, visit }: StationProps): ZoneOdds[] {
  const zones = useServiceZones(visit)
  return useMemo(() => {
    const planned = new Map(visit.plan?.zones.map((z) => [z.zoneId, z.totalLoad]))
    return zones
      .flatMap((zoneId) => {
        const skin = page.model.sensitivity[zoneId]
        if (!skin) return []
        const load = visit.loads?.[zoneId] ?? planned.get(zoneId) ?? 1
        const range = rednessRange(skin, load)
        return [{ zoneId, load, skin, odds: rednessOdds(skin, load), ...range }]
      })
      .sort((a, b) => b.odds - a.odds)
  }, [zones, page.model, visit.plan, visit.loads])
}

export function Skin(props: StationProps) {
  const figures = useFigures()
  const { page } = props
  const { model, client } = page
  const all = useOdds(props)
  const chosen = useView((s) => s.chosen)
  const shown = useMemo(() => {
    const top = all.slice(0, SHOWN)
    const own = all.find((z) => z.zoneId === chosen)
    return own && !top.includes(own) ? [...top.slice(0, SHOWN - 1), own] : top
  }, [all, chosen])
  const about = all.find((z) => z.zoneId === chosen) ?? all[0]
  useZoneTints(
    useMemo(() => all.map((z) => ({ zoneId: z.zoneId, share: Math.min(1, z.odds / 0.5) })), [all]),
  )
  return (
    <>
      <h1>What this skin is likely to do</h1>
      <Scroll label="The skin">
        <p>{about && zoneSentence(about)}</p>
        <SkinChart
          zones={shown}
          chosen={about?.zoneId}
          prior={priorOdds(figures, client.skin.reactivity, model.studioMean)}
        />
        <Text size="sm" c="dimmed">
          Redness 2 or more, % of services: the line is what to expect, the bar holds 80 %. Pale:
          before anything was answered.
        </Text>
        <Text size="sm" c="dimmed">
          {behindWords(model, client.skin.reactivity)} <Estimate of="skin-learned" />
        </Text>
        <Text size="sm" c="dimmed">
          Redness fades by about{' '}
          <Estimate of="fading">{meanFading(model.fading).toFixed(1)} grades a day</Estimate>.
        </Text>
        <ChoicesAgainst {...props} />
      </Scroll>
    </>
  )
}

function zoneSentence(z: ZoneOdds): string {
  const grades = gradeOdds(z.skin, z.load)
  const calm = grades[0]! + grades[1]!
  return `${zoneName(z.zoneId)}: a service like this one (load ${z.load.toFixed(1)}) reddens to 2 or more ${timesWords(z.odds)}, ${oddsWords(z.odds)} (80 %: ${oddsWords(z.low)} to ${oddsWords(z.high)}). It stays at 0 or 1 in ${oddsWords(calm)}.`
}

function behindWords(model: StationProps['page']['model'], kind: string): string {
  const n = model.answeredServices
  const studio =
    model.studioClients > 1
      ? `; ${model.studioClients} clients of the studio with ${kind} skin stand behind its start (${model.studioMean.toFixed(2)} grades a load)`
      : ''
  if (n === 0) return `Nothing learned of this skin yet: it starts from what was told${studio}.`
  return `Learned from ${n} answered ${n === 1 ? 'service' : 'services'}; zones lean on each other${studio}.`
}

function priorOdds(figures: Figures, kind: 'tough' | 'average' | 'reactive', mean: number) {
  return (load: number) => rednessRange(priorSensitivity(figures, kind, mean), load)
}

function SkinChart({
  zones,
  chosen,
  prior,
}: {
  zones: readonly ZoneOdds[]
  chosen: ZoneId | undefined
  prior: (load: number) => { low: number; high: number }
}) {
  const figures = useFigures()
  const choose = useView((s) => s.choose)
  const box = useChart(
    useCallback(
      (c: ChartColours) => option(figures, zones, chosen, prior, c),
      [figures, zones, chosen, prior],
    ),
    useCallback(
      (row: number) => choose(zones[zones.length - 1 - row]?.zoneId ?? null),
      [zones, choose],
    ),
  )
  return (
    <div
      ref={box}
      className={css.skinChart}
      role="img"
      aria-label={zones
        .map((z) => `${zoneName(z.zoneId)} ${oddsWords(z.low)} to ${oddsWords(z.high)}`)
        .join('; ')}
    />
  )
}

function option(
  figures: Figures,
  zones: readonly ZoneOdds[],
  chosen: ZoneId | undefined,
  prior: (load: number) => { low: number; high: number },
  c: ChartColours,
) {
  // From below upward, as the axis counts.
  const rows = [...zones].reverse()
  const most = Math.max(0.25, ...rows.map((z) => z.high))
  const range = (
    colour: string,
    thick: number,
    of: (z: ZoneOdds) => { low: number; high: number },
  ) => ({
    type: 'custom' as const,
    renderItem: drawBand(c.paper, thick),
    itemStyle: { color: colour },
    encode: { x: [0, 1], y: 2 },
    data: rows.map((z, i) => {
      const { low, high } = of(z)
      return [100 * low, 100 * high, i]
    }),
  })
  return {
    ...chartBase(c),
    grid: { left: 178, right: 18, top: 22, bottom: 24, outerBoundsMode: 'none' as const },
    tooltip: { show: false },
    xAxis: {
      type: 'value' as const,
      min: 0,
      max: Math.min(100, Math.ceil(20 * most) * 5),
      axisLabel: { color: c.ink, fontSize: 13, formatter: '{value} %' },
      splitLine: { lineStyle: { color: c.sand } },
    },
    yAxis: {
      type: 'category' as const,
      data: rows.map((z) => zoneName(z.zoneId).replace(", client's", ',')),
      triggerEvent: true,
      axisTick: { show: false },
      axisLabel: {
        color: c.ink,
        fontSize: 13,
        formatter: (name: string, i: number) => (rows[i]?.zoneId === chosen ? `▸ ${name}` : name),
      },
    },
    series: [
      range(c.sand, 0.78, (z) => prior(z.load)),
      range(c.coral, 0.36, (z) => z),
      {
        type: 'scatter' as const,
        symbol: 'rect',
        symbolSize: [3, 16],
        itemStyle: { color: c.ink },
        data: rows.map((z, i) => [100 * z.odds, i]),
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: c.brass, type: 'dotted' as const },
          label: { formatter: 'limit', color: c.brass, fontSize: 12 },
          data: [{ xAxis: 100 * figures(SKIN_CONSTANTS.rednessLimit) }],
        },
      },
    ],
  }
}

/** What differed between quiet and red visits, of this client. */
function ChoicesAgainst({ page, visit }: StationProps) {
  const figures = useFigures()
  const history = useHistory(page.client.id)
  const effects = useMemo(() => {
    const visits = history.data?.visits.filter((v) => v.service === visit.service)
    if (!visits) return undefined
    return choiceEffects(figures, [{ clientId: page.client.id, visits }])
  }, [figures, history.data, visit.service, page.client.id])
  return (
    <section>
      <Title order={2}>What differed between quiet and red visits</Title>
      {history.isError && <Problem>{history.error.message}</Problem>}
      {effects?.length === 0 && (
        <Text size="sm" c="dimmed">
          Nothing can be weighed yet: it takes answered visits of which it is kept what was done.
        </Text>
      )}
      {effects?.map((e) => (
        <EffectList key={e.outcome} effects={e} />
      ))}
      <Text size="sm" c="dimmed">
        As it happened, not as an experiment: what went together need not be the cause.
      </Text>
    </section>
  )
}
