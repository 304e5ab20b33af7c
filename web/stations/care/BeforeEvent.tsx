/** Planning back from an event: the best, earliest and latest time of a service, with the odds that decide. */
import { Button, Group, Text } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import type { Figures } from '../../../core/house/index.ts'
import {
  EVENT_CONSTANTS,
  EVENT_NEEDS,
  bestPlanFor,
  planBack,
  pointsToTry,
  type EventFacts,
  type EventPlan,
  EVENT_KINDS,
  type EventKind,
  eventQuestion,
  lineOf,
  usualWork,
} from '../../../core/ahead/index.ts'
import type { TideLineOf } from '../../../contract/types.ts'
import { DAY_MS, dateWords, offsetHere, whenWords } from '../../../core/time/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import type { FrontPoint } from '../../../core/plan/index.ts'
import { hoursWords } from '../../state/words.ts'
import { useChangeVisit } from '../../api/visitWrites.ts'
import { chartBase, useChart, type ChartColours } from '../../charts/useChart.ts'
import { useScreening } from '../useGate.ts'
import { useSchools, type StationProps } from '../useStation.ts'
import { DateField } from '../../ui/DateField.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import css from './Care.module.css'
import { TimePicker } from '@mantine/dates'
import dayjs from 'dayjs'
import { LineChart } from 'echarts/charts'
import { use as register } from 'echarts/core'
import { useCallback, useMemo, useState } from 'react'
import '../../charts/bands.ts'

register([LineChart])

export function BeforeEvent(props: StationProps) {
  const { visit } = props
  const [kind, setKind] = useState<EventKind>('mask-seal')
  const [day, setDay] = useState<string | undefined>(dayjs().add(8, 'day').format('YYYY-MM-DD'))
  const [time, setTime] = useState('10:00')
  const at = dayjs(`${day}T${time}`)
  const good = at.isValid() && at.valueOf() > Date.now()
  const plan = useEventPlan(props, kind, good ? at.valueOf() : undefined)
  const move = useChangeVisit(visit.id)
  const { slotAtMs } = visit
  // Then, or as near as the book has it.
  const then =
    plan !== undefined &&
    slotAtMs !== null &&
    (slotAtMs === plan.bestMs ||
      (move.isSuccess && slotAtMs >= plan.earliestMs && slotAtMs <= plan.latestMs))
  return (
    <>
      <Group gap="sm" align="flex-end">
        <PickOne
          label="What"
          flex={1}
          data={named(EVENT_KINDS, (k) => EVENT_NEEDS[k].name)}
          value={kind}
          onChange={setKind}
        />
        <DateField label="Day" w={150} value={day} onChange={setDay} />
        <TimePicker label="Hour" w={110} value={time} onChange={setTime} />
      </Group>
      {!plan ? (
        <Problem>
          {at.isValid() ? 'That is over. Choose a day ahead.' : 'Choose a day and an hour.'}
        </Problem>
      ) : (
        <>
          <h1>
            {plan.fits ? 'Best' : 'Nearest'} {whenWords(plan.bestMs)}
          </h1>
          <p>
            {plan.fits
              ? `Any time from ${whenWords(plan.earliestMs)} to ${whenWords(plan.latestMs)}. `
              : plan.outOfHours
                ? `It would fit from ${whenWords(plan.earliestMs)} to ${whenWords(plan.latestMs)}, when the house is closed. `
                : 'No time meets everything. '}
            At the event: redness 2 or more{' '}
            <Estimate of="event">{oddsWords(plan.atBest.redness)}</Estimate>, hair{' '}
            {EVENT_NEEDS[kind].hair} <Estimate of="event">{oddsWords(plan.atBest.hair)}</Estimate>.
          </p>
          {plan.with && (
            <Text size="sm" c="dimmed">
              {plan.with.own
                ? `Of the ${plan.with.of} plans that this skin allows, the one that is planned serves it best.`
                : `Of the ${plan.with.of} plans that this skin allows, the one of ${Math.round(plan.with.minutes)} min that stays smooth for about ${hoursWords(plan.with.hours)} serves it best: choose it on the line at Plan.`}
            </Text>
          )}
          <OddsChart plan={plan} />
          <Scroll label="Reasons">
            <ul>
              {plan.reasons.map((r) => (
                <li key={r.text}>
                  {r.text} <Estimate mark={r.mark} />
                </li>
              ))}
            </ul>
          </Scroll>
          {visit.state === 'open' && (
            <div>
              <Button
                disabled={move.isPending || then}
                onClick={() => move.mutate({ slotAtMs: plan.bestMs, orNearest: true })}
              >
                {!then
                  ? 'Put this visit then'
                  : visit.slotAtMs === plan.bestMs
                    ? 'This visit is then'
                    : `This visit is then: ${whenWords(visit.slotAtMs!)}`}
              </Button>
              {move.isSuccess && !then && visit.slotAtMs !== null && (
                <Text size="sm" c="var(--coral)" role="note">
                  The nearest hour that the book has is {whenWords(visit.slotAtMs)}: not within what
                  the event asks for.
                </Text>
              )}
              <Problem>{move.error?.message}</Problem>
            </div>
          )}
        </>
      )}
    </>
  )
}

/** The plan of the front that serves the event best. */
interface TriedPlan extends FrontPoint {
  readonly of: number
  /** It is the one that is planned. */
  readonly own: boolean
}

/** What a service of this client comes to, and when it would best be before the event. */
function useEventPlan(
  props: StationProps,
  kind: EventKind,
  eventAtMs: number | undefined,
): (EventPlan & { with: TriedPlan | undefined }) | undefined {
  const figures = useFigures()
  const { page, visit, house } = props
  const schools = useSchools(page, house)
  const screening = useScreening(props)
  return useMemo(() => {
    if (eventAtMs === undefined) return undefined
    const { client, model } = page
    const facts: EventFacts = {
      service: client.service,
      skin: client.skin,
      model,
      schools,
      noFragrance: screening.noFragrance,
      products: house.products.filter((p) => visit.products.includes(p.id)),
      plan: visit.service === client.service ? (visit.plan ?? undefined) : undefined,
      window:
        lineOf<TideLineOf>(page.tide, usualWork(page.due, client.service))?.window ?? undefined,
      nowMs: Date.now(),
      closed: house.closed,
      offset: offsetHere,
    }
    // Every plan that this skin allows is tried, each at its own best time.
    const tried = Array.from({ length: pointsToTry(facts) }, (_, i) =>
      eventQuestion(figures, facts, kind, eventAtMs, i),
    )
    if (tried.length < 2) {
      return {
        ...planBack(figures, eventQuestion(figures, facts, kind, eventAtMs)),
        with: undefined,
      }
    }
    const at = bestPlanFor(figures, tried)
    const point = facts.plan!.front!.points[at]!
    return {
      ...planBack(figures, tried[at]!),
      with: { ...point, of: tried.length, own: at === facts.plan!.front!.at },
    }
  }, [figures, page, visit, house, schools, screening, kind, eventAtMs])
}

function OddsChart({ plan }: { plan: EventPlan }) {
  const figures = useFigures()
  const box = useChart(useCallback((c: ChartColours) => option(figures, plan, c), [figures, plan]))
  return (
    <div
      ref={box}
      className={css.odds}
      role="img"
      aria-label={`Odds at the event by the time of the service: at the best time redness ${oddsWords(plan.atBest.redness)}, hair ${oddsWords(plan.atBest.hair)}`}
    />
  )
}

function option(figures: Figures, plan: EventPlan, c: ChartColours) {
  const short = plan.eventAtMs - plan.curve[0]!.atMs < 4 * DAY_MS
  const axisWords = (ms: number) => (short ? dayjs(ms).format('ddd HH:mm') : dateWords(ms))
  const line = (name: string, colour: string, pick: (o: EventPlan['curve'][number]) => number) => ({
    type: 'line' as const,
    name,
    showSymbol: false,
    lineStyle: { color: colour, width: 2.4 },
    itemStyle: { color: colour },
    endLabel: { show: true, formatter: name, color: colour, fontSize: 13 },
    data: plan.curve.map((o) => [o.atMs, 100 * pick(o)]),
  })
  return {
    ...chartBase(c),
    grid: { left: 44, right: 74, top: 26, bottom: 40 },
    tooltip: {
      trigger: 'axis' as const,
      confine: true,
      formatter: (ps: { value: number[]; seriesName: string }[]) =>
        `Service ${whenWords(ps[0]!.value[0]!)}<br>${ps.map((p) => `${p.seriesName} ${Math.round(p.value[1]!)} %`).join('<br>')}`,
    },
    xAxis: {
      type: 'time' as const,
      min: plan.curve[0]?.atMs,
      max: plan.eventAtMs,
      name: 'when the service begins',
      nameLocation: 'middle' as const,
      nameGap: 24,
      axisLabel: {
        color: c.ink,
        fontSize: 13,
        formatter: axisWords,
        hideOverlap: true,
      },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value' as const,
      name: '% at the event',
      min: 0,
      max: 100,
      axisLabel: { color: c.ink, fontSize: 13 },
      splitLine: { lineStyle: { color: c.sand } },
    },
    series: [
      {
        ...line('redness', c.coral, (o) => o.redness),
        markArea: {
          silent: true,
          itemStyle: { color: c.foam, opacity: 0.55 },
          data:
            plan.fits || plan.outOfHours
              ? [[{ xAxis: plan.earliestMs }, { xAxis: plan.latestMs }]]
              : [],
        },
        markLine: {
          symbol: 'none',
          silent: true,
          label: { formatter: plan.fits ? 'best' : 'nearest', color: c.ink, fontSize: 13 },
          lineStyle: { color: c.ink, type: 'dashed' as const },
          data: [{ xAxis: plan.bestMs }],
        },
      },
      {
        ...line(`hair ${EVENT_NEEDS[plan.kind].hair}`, c.deep, (o) => o.hair),
        markLine: {
          symbol: 'none',
          silent: true,
          label: { show: false },
          lineStyle: { color: c.brass, type: 'dotted' as const },
          data: [{ yAxis: 100 * figures(EVENT_CONSTANTS.hairLimit) }],
        },
      },
    ],
  }
}
