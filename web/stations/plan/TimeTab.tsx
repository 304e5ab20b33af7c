/** The plan over time: four bands, the time to fit into, and the longer search for an order. */
import { Button, Group, NumberInput, Progress, Skeleton, Stack, Text } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { proxy } from 'comlink'
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react'
import { RELATION_WORDS } from '../../../core/grain/index.ts'
import { type SearchState, timetable, type Plan } from '../../../core/plan/index.ts'
import type { PlanAsk } from '../../../core/visit/index.ts'
import { useHead } from '../../head/loadHead.ts'
import { Whys } from '../../ui/Whys.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import type { Choosing } from './usePlan.ts'

const BandChart = lazy(() => import('./BandChart.tsx').then((m) => ({ default: m.BandChart })))

/** How long the longer search runs, s. */
const SEARCH_SECONDS = 8

export function TimeTab({
  plan,
  ask,
  choosing,
}: {
  plan: Plan
  ask: PlanAsk | undefined
  choosing: Choosing | undefined
}) {
  const figures = useFigures()
  const table = useMemo(() => timetable(figures, plan), [figures, plan])
  return (
    <Stack gap="sm">
      {choosing && <Fit plan={plan} choosing={choosing} />}
      <Suspense fallback={<Skeleton h={210} />}>
        <BandChart table={table} slotMinutes={plan.slotMinutes} />
      </Suspense>
      <Text size="sm" c="dimmed">
        {plan.steps.length} steps, {Math.round(plan.totalMinutes)} min of {plan.slotMinutes}.{' '}
        {table.lather.length > 0 &&
          `Lather is laid ${table.lather.filter((b) => b.kind === 'wet').length} times. `}
        {table.towel.length > 0 &&
          `${table.towel.length} ${table.towel.length === 1 ? 'towel' : 'towels'}.`}
      </Text>
      {choosing && ask && <Search ask={ask} choosing={choosing} />}
    </Stack>
  )
}

function Fit({ plan, choosing }: { plan: Plan; choosing: Choosing }) {
  const { within } = choosing.choice
  const [minutes, setMinutes] = useState(within ?? Math.min(30, plan.slotMinutes))
  return (
    <>
      <Group gap="sm" align="flex-end">
        <NumberInput
          label="Make it, min"
          w={110}
          min={5}
          max={180}
          value={minutes}
          onChange={(v) => setMinutes(Number(v))}
        />
        <Button
          size="sm"

          disabled={!(minutes >= 1 && minutes <= 300)}
          onClick={() => choosing.fit(minutes)}
        >
          Fit
        </Button>
        {within !== undefined && (
          <Button variant="bare" size="sm" onClick={() => choosing.fit(undefined)}>
            No limit
          </Button>
        )}
      </Group>
      {within !== undefined && (
        <Whys>
          {plan.dropped.length === 0 && <li>Nothing had to be dropped for {within} min.</li>}
          {(['across', 'against', 'with'] as const).map((relation) => {
            const own = plan.dropped.filter((d) => d.relation === relation)
            if (own.length === 0) return null
            const minutes = own.reduce((s, d) => s + d.minutes, 0)
            const hours = own.reduce((s, d) => s + d.hours, 0) / own.length
            return (
              <li key={relation}>
                Dropped {RELATION_WORDS[relation]}, {minutes.toFixed(1)} min, which loses about{' '}
                <Estimate of="plan-buys">{Math.round(hours)} h</Estimate> of smoothness there:{' '}
                {own.map((d) => d.zone.toLowerCase()).join('; ')}.
              </li>
            )
          })}
          {plan.totalMinutes > within + 0.5 && (
            <li>
              {within} min cannot be reached: {Math.ceil(plan.totalMinutes)} min is the least for
              these zones. Leave a zone out at Read, or move the slot.
            </li>
          )}
        </Whys>
      )}
    </>
  )
}

function Search({ ask, choosing }: { ask: PlanAsk; choosing: Choosing }) {
  const head = useHead()
  const planner = head.data?.planner
  const [at, setAt] = useState<{ share: number; state?: SearchState }>()
  const [done, setDone] = useState<string>()
  const alive = useRef(true)
  useEffect(
    () => () => {
      alive.current = false
      void planner?.().stopSearch()
    },
    [planner],
  )
  const run = async () => {
    setDone(undefined)
    setAt({ share: 0 })
    // Word of its progress comes by another way and may arrive after the end.
    let running = true
    const found = await planner!().searchOrder(
      ask,
      SEARCH_SECONDS,
      proxy((state: SearchState, share: number) => {
        if (running && alive.current) setAt({ share, state })
      }),
    )
    running = false
    if (!alive.current) return
    setAt(undefined)
    if (!found) {
      setDone('This order is already the best there is.')
      return
    }
    const saved = found.firstSeconds - found.seconds
    setDone(
      `${found.rounds} rounds: ${Math.round(found.seconds)} s of changes of stance, turn and tool${saved > 0.5 ? `, ${Math.round(saved)} s less than at first` : ''}.`,
    )
    choosing.order(found.order)
  }
  return (
    <Group gap="sm" role="status">
      {at ? (
        <>
          <Progress value={100 * at.share} w={150} aria-label="Search for an order" />
          <Text size="sm" c="dimmed">
            {at.state ? `${Math.round(at.state.seconds)} s of changes so far` : 'searching …'}
          </Text>
          <Button size="sm" onClick={() => void planner!().stopSearch()}>
            Stop and take it
          </Button>
        </>
      ) : (
        <>
          <Button size="sm" disabled={!planner} onClick={() => void run()}>
            Search for a better order
          </Button>
          <Text size="sm" c="dimmed">
            {done}
          </Text>
        </>
      )}
    </Group>
  )
}
