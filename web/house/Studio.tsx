/** The studio as a whole: is the forecast right, how often skin reddens, nicks, answers, returns; choices over all clients. */
import css from './House.module.css'
import { useFigures } from '../state/figures.ts'
import type { House } from '../../contract/types.ts'
import { TOOL_WORDS } from '../../core/kit/index.ts'
import { zoneName, type ZoneId } from '../../core/zones/index.ts'
import {
  type CalibrationBin,
  type ForecastCheck,
  STUDIO_CONSTANTS,
  type PerThousand,
  type Share,
  type StudioLearned,
} from '../../core/history/index.ts'
import { percentWords } from '../../core/stats/index.ts'
import { drawWhisker } from '../charts/bands.ts'
import { chartBase, useChart, type ChartColours } from '../charts/useChart.ts'
import { Estimate } from '../ui/Estimate.tsx'
import { EffectList } from '../effects/EffectList.tsx'
import { Alert, Button, Group, Progress, Stack, Table, Text, Title } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useStudio } from './useStudio.ts'
import { ScatterChart } from 'echarts/charts'
import { use as register } from 'echarts/core'
import { useCallback } from 'react'

register([ScatterChart])

export function Studio({ house, part }: { house: House; part: 'forecast' | 'studio' }) {
  const [stopped, stop] = useDisclosure(false)
  const studio = useStudio(!stopped)
  if (studio.isError) {
    return (
      <Alert color="red" role="alert">
        {studio.error.message}{' '}
        <Button variant="subtle" size="compact-sm" onClick={() => void studio.refetch()}>
          Try again
        </Button>
      </Alert>
    )
  }
  const { learned, left = 0, of = 0 } = studio.data ?? {}
  if (!learned) {
    const done = of > 0 ? 1 - left / of : 0
    return (
      <Stack role="status" gap="xs">
        <Text>
          {of > 0
            ? `Going through every visit anew: ${of - left} of ${of} clients …`
            : 'Looking at the studio …'}
        </Text>
        <Progress value={100 * done} aria-label="Going through every visit" />
        <Group gap="sm">
          <Button onClick={stop.toggle}>{stopped ? 'Go on' : 'Stop'}</Button>
          <Text size="sm" c="dimmed">
            {stopped
              ? 'Stopped. What was gone through stands, and the rest is done when nobody waits for it.'
              : 'You may go elsewhere meanwhile.'}
          </Text>
        </Group>
      </Stack>
    )
  }
  return part === 'forecast' ? (
    <Forecast learned={learned} />
  ) : (
    <Rates learned={learned} house={house} />
  )
}

function Forecast({ learned }: { learned: StudioLearned }) {
  const { calibration: c, skin } = learned
  return (
    <Stack gap="md">
      <p>{c.words}</p>
      {c.forecasts > 0 && (
        <>
          <CalibrationChart calibration={c} />
          <Text size="sm" c="dimmed">
            Answered visits were forecast from the visits before them, of long histories the first
            and the latest: {c.forecasts} forecasts of single zones at {c.visits} visits of{' '}
            {c.clients} clients. On the line, what was said came as often as it was said. Bars hold
            95 %; what comes of one client comes together, so clients are counted, not zones.
          </Text>
          <SaidAndCame rows={c.bins} />
          <Title order={3}>By how many answered visits there were before</Title>
          <SaidAndCame
            head="Visits before"
            rows={c.byVisits.map((b) => ({
              ...b,
              name: b.to === null ? `${b.from} and more` : `${b.from} to ${b.to}`,
            }))}
          />
          <Title order={3}>Client by client</Title>
          <p>
            {c.judged === 0
              ? 'No client has visits enough yet to be judged alone.'
              : `${c.judged} clients have visits enough to be judged alone. For ${c.strayed} of them more or less came than was said, beyond chance at 5 %; ${aboutWords(0.05 * c.judged)} would where every forecast holds.`}
          </p>
          <Title order={3}>Is it worth anything?</Title>
          <p>
            {skillWords(c)} Mean squared error (Brier): {c.brier.toFixed(4)}; of the client’s own
            average {c.brierAverage.toFixed(4)}, of what was told alone {c.brierPrior.toFixed(4)},
            of “the same as last time” {c.brierLast.toFixed(4)}.
          </p>
        </>
      )}
      <Title order={3}>What the studio has found for each kind of skin</Title>
      <ul className="plain-list">
        {(['tough', 'average', 'reactive'] as const).map((kind) => (
          <li key={kind}>
            <span>
              {kind}:{' '}
              <Estimate of="skin-learned">{skin.mean[kind].toFixed(2)} grades a load</Estimate>
            </span>
            <Text span size="sm" c="dimmed">
              {skin.clients[kind]} {skin.clients[kind] === 1 ? 'client' : 'clients'}
            </Text>
          </li>
        ))}
      </ul>
    </Stack>
  )
}

/** How the forecast stands beside who only counts how often this client reddened. */
function skillWords({ skill, skillRange: { low, high } }: ForecastCheck): string {
  const range = `95 % from ${percentWords(low)} to ${percentWords(high)}`
  if (low > 0)
    return `The forecast errs ${percentWords(skill)} less than each client’s own average would (${range}).`
  if (high < 0)
    return `Each client’s own average would err less than the forecast: by ${percentWords(-skill)} (${range}).`
  return `Whether the forecast is better than each client’s own average cannot be told yet (${percentWords(skill)}, ${range}).`
}

/** A number of clients to be expected, which may be less than one. */
const aboutWords = (n: number) => (n < 1 ? 'hardly one' : `about ${Math.round(n)}`)

/** What was said beside what came, a row a group of forecasts. */
function SaidAndCame({
  head,
  rows,
}: {
  head?: string
  rows: readonly (Pick<CalibrationBin, 'forecasts' | 'said' | 'came' | 'range'> & {
    readonly name?: string
  })[]
}) {
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          {head && <Table.Th scope="col">{head}</Table.Th>}
          <Table.Th scope="col">Said</Table.Th>
          <Table.Th scope="col">Came</Table.Th>
          <Table.Th scope="col">95 %</Table.Th>
          <Table.Th data-num scope="col">
            Forecasts
          </Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {rows
          .filter((b) => b.forecasts > 0)
          .map((b, i) => (
            <Table.Tr key={b.name ?? i}>
              {head && <Table.Td>{b.name}</Table.Td>}
              <Table.Td>{fine(b.said)}</Table.Td>
              <Table.Td>{fine(b.came)}</Table.Td>
              <Table.Td>
                {fine(b.range.low)} to {fine(b.range.high)}
              </Table.Td>
              <Table.Td data-num>{b.forecasts}</Table.Td>
            </Table.Tr>
          ))}
      </Table.Tbody>
    </Table>
  )
}

/** Shares under a tenth with one figure more. */
const fine = (p: number) => (p < 0.1 ? `${(100 * p).toFixed(1)} %` : percentWords(p))

function CalibrationChart({ calibration }: { calibration: ForecastCheck }) {
  const box = useChart(
    useCallback((c: ChartColours) => calibrationOption(calibration, c), [calibration]),
  )
  return (
    <div
      ref={box}
      className={css.calibration}
      data-testid="calibration-chart"
      role="img"
      aria-label={`Forecast against what came: ${calibration.words}`}
    />
  )
}

function calibrationOption({ bins }: ForecastCheck, c: ChartColours) {
  const shown = bins.filter((b) => b.forecasts > 0)
  const most = Math.min(
    100,
    Math.ceil(20 * Math.max(...shown.map((b) => Math.min(1, b.range.high)), 0.1)) * 5,
  )
  const axis = (name: string) => ({
    type: 'value' as const,
    min: 0,
    max: most,
    name,
    nameLocation: 'middle' as const,
    nameTextStyle: { color: c.soft, fontSize: 13 },
    axisLabel: { color: c.ink, fontSize: 13 },
    splitLine: { lineStyle: { color: c.sand } },
  })
  return {
    ...chartBase(c),
    grid: { left: 58, right: 20, top: 14, bottom: 46, outerBoundsMode: 'none' as const },
    xAxis: { ...axis('said, %'), nameGap: 26 },
    yAxis: { ...axis('came, %'), nameGap: 34 },
    series: [
      {
        type: 'custom' as const,
        renderItem: drawWhisker,
        itemStyle: { color: c.tide },
        encode: { x: 0, y: [1, 2] },
        data: shown.map((b) => [100 * b.said, 100 * b.range.low, 100 * b.range.high]),
        clip: true,
      },
      {
        type: 'scatter' as const,
        symbolSize: 10,
        itemStyle: { color: c.deep },
        data: shown.map((b) => [100 * b.said, 100 * b.came]),
        markLine: {
          silent: true,
          symbol: 'none',
          lineStyle: { color: c.ink, type: 'dashed' as const },
          label: { show: false },
          data: [[{ coord: [0, 0] }, { coord: [most, most] }]],
        },
      },
    ],
  }
}

function Rates({ learned, house }: { learned: StudioLearned; house: House }) {
  const figures = useFigures()
  const { view } = learned
  const name = (id: string) => house.workers.find((w) => w.id === id)?.name ?? 'somebody'
  return (
    <Stack gap="md">
      <Table>
        <Table.Tbody>
          <Table.Tr>
            <Table.Th scope="row">Visits</Table.Th>
            <Table.Td>
              {view.visits} of {view.clients} clients
            </Table.Td>
          </Table.Tr>
          <ShareRow name="Skin reddened to 2 or more" share={view.red} of="answered visits" />
          <ShareRow name="Follow-ups answered" share={view.answered} of="asked for" />
          <ShareRow
            name="Returned in the window told"
            share={view.onTime}
            of={`returns; ${view.tooEarly} sooner, ${view.tooLate} later`}
          />
          <Table.Tr>
            <Table.Th scope="row">Nicks per 1 000 lanes</Table.Th>
            <Table.Td>{rateWords(view.nicks)}</Table.Td>
          </Table.Tr>
        </Table.Tbody>
      </Table>
      <Title order={3}>Nicks per 1 000 lanes</Title>
      <Text size="sm" c="dimmed">
        With exact 95 % ranges, in the order of names; from {figures(STUDIO_CONSTANTS.leastLanes)}{' '}
        lanes on. Ranges that overlap tell nobody from another.
        {view.tooFew > 0 && ` ${view.tooFew} did too few lanes to be told.`}
      </Text>
      <RateTable
        head="Worker"
        rows={[...view.byWorker]
          .map((w) => ({ ...w, name: name(w.id) }))
          .sort((a, b) => a.name.localeCompare(b.name))}
      />
      <RateTable
        head="Zone"
        rows={view.byZone.map((z) => ({ ...z, name: zoneName(z.id as ZoneId) }))}
      />
      <RateTable
        head="Blade"
        rows={view.byTool.map((t) => ({
          ...t,
          name: TOOL_WORDS[t.id as keyof typeof TOOL_WORDS] ?? t.id,
        }))}
      />
      <Title order={3}>What went with redness and bumps, over all clients</Title>
      <Text size="sm" c="dimmed">
        One regression over every answered visit; clients and zones have their own level. As it
        happened, not as an experiment.
      </Text>
      {learned.effects.map((e) => (
        <EffectList key={e.outcome} effects={e} />
      ))}
      {learned.effects.length === 0 && (
        <Text size="sm" c="dimmed">
          Nothing yet: it takes answered visits of which it is kept what was done.
        </Text>
      )}
    </Stack>
  )
}

function ShareRow({ name, share, of }: { name: string; share: Share; of: string }) {
  return (
    <Table.Tr>
      <Table.Th scope="row">{name}</Table.Th>
      <Table.Td>
        {share.of === 0
          ? 'nothing to count yet'
          : `${percentWords(share.share)} (95 %: ${percentWords(share.low)} to ${percentWords(share.high)}), ${share.hits} of ${share.of} ${of}`}
      </Table.Td>
    </Table.Tr>
  )
}

const rateWords = (r: PerThousand): string =>
  r.lanes === 0
    ? 'no lanes yet'
    : `${r.rate.toFixed(1)} (95 %: ${r.low.toFixed(1)} to ${r.high.toFixed(1)}), ${r.count} in ${r.lanes}`

function RateTable({
  head,
  rows,
}: {
  head: string
  rows: readonly (PerThousand & { readonly id: string; readonly name: string })[]
}) {
  if (rows.length === 0) return null
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th scope="col">{head}</Table.Th>
          <Table.Th scope="col">Nicks per 1 000 lanes</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {rows.map((r) => (
          <Table.Tr key={r.id}>
            <Table.Td>{r.name}</Table.Td>
            <Table.Td>{rateWords(r)}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}
