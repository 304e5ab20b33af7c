/** The plan over time: four bands, the time to fit into, and the longer search for an order. */
import { useFigures } from '../../state/figures.ts'
import { proxy } from 'comlink'
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react'
import { RELATION_WORDS } from '../../../core/grain/index.ts'
import { type SearchState, timetable, type Plan } from '../../../core/plan/index.ts'
import type { PlanAsk } from '../../../core/visit/index.ts'
import { useHead } from '../../head/loadHead.ts'
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
    <div className="time-tab">
      {choosing && <Fit plan={plan} choosing={choosing} />}
      <Suspense fallback={<p role="status">The timetable is being drawn …</p>}>
        <BandChart table={table} slotMinutes={plan.slotMinutes} />
      </Suspense>
      <p className="soft">
        {plan.steps.length} steps, {Math.round(plan.totalMinutes)} min of {plan.slotMinutes}.{' '}
        {table.lather.length > 0 &&
          `Lather is laid ${table.lather.filter((b) => b.kind === 'wet').length} times. `}
        {table.towel.length > 0 &&
          `${table.towel.length} ${table.towel.length === 1 ? 'towel' : 'towels'}.`}
      </p>
      {choosing && ask && <Search ask={ask} choosing={choosing} />}
    </div>
  )
}

function Fit({ plan, choosing }: { plan: Plan; choosing: Choosing }) {
  const { within } = choosing.choice
  const [minutes, setMinutes] = useState(within ?? Math.min(30, plan.slotMinutes))
  return (
    <>
      <div className="lane-edit">
        <label>
          Make it
          <input
            type="number"
            className="text-input short"
            min={5}
            max={180}
            value={minutes}
            onChange={(e) => setMinutes(Number(e.currentTarget.value))}
          />
          min
        </label>
        <button
          className="strong small"
          disabled={!(minutes >= 1 && minutes <= 300)}
          onClick={() => choosing.fit(minutes)}
        >
          Fit
        </button>
        {within !== undefined && (
          <button className="link" onClick={() => choosing.fit(undefined)}>
            No limit
          </button>
        )}
      </div>
      {within !== undefined && (
        <ul className="whys">
          {plan.dropped.length === 0 && <li>Nothing had to be dropped for {within} min.</li>}
          {(['across', 'against', 'with'] as const).map((relation) => {
            const own = plan.dropped.filter((d) => d.relation === relation)
            if (own.length === 0) return null
            const minutes = own.reduce((s, d) => s + d.minutes, 0)
            const hours = own.reduce((s, d) => s + d.hours, 0) / own.length
            return (
              <li key={relation}>
                Dropped {RELATION_WORDS[relation]}, {minutes.toFixed(1)} min, which loses about{' '}
                {Math.round(hours)} h of smoothness there (H):{' '}
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
        </ul>
      )}
    </>
  )
}

function Search({ ask, choosing }: { ask: PlanAsk; choosing: Choosing }) {
  const head = useHead()
  const worker = head.data?.worker
  const [at, setAt] = useState<{ share: number; state?: SearchState }>()
  const [done, setDone] = useState<string>()
  const alive = useRef(true)
  useEffect(
    () => () => {
      alive.current = false
      void worker?.stopSearch()
    },
    [worker],
  )
  const run = async () => {
    setDone(undefined)
    setAt({ share: 0 })
    // Word of its progress comes by another way and may arrive after the end.
    let running = true
    const found = await worker!.searchOrder(
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
    <div className="lane-edit" role="status">
      {at ? (
        <>
          <progress value={at.share} max={1} aria-label="Search for an order" />
          <span className="soft">
            {at.state ? `${Math.round(at.state.seconds)} s of changes so far` : 'searching …'}
          </span>
          <button className="strong small" onClick={() => void worker!.stopSearch()}>
            Stop and take it
          </button>
        </>
      ) : (
        <>
          <button className="strong small" disabled={!worker} onClick={() => void run()}>
            Search for a better order
          </button>
          <span className="soft">{done}</span>
        </>
      )}
    </div>
  )
}
