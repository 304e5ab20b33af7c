/** Plan: three plans side by side, the lanes of the one chosen, what a hand may change, why, how long, with what. */
import { ON_SKIN } from '../../../core/palette.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { isBodyService, STYLES } from '../../../core/services/index.ts'
import {
  groupsOf,
  laneEdges,
  lanesWith,
  laneWash,
  planDifferences,
  type LaneDifference,
  type Lane,
  type Plan,
  overLimitReason,
  type VisitOdds,
} from '../../../core/plan/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import type { About } from '../../../core/visit/index.ts'
import { MARK_WORDS } from '../../../core/house/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useHotkeys } from '@mantine/hooks'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useSavePlan } from '../../api/visitWrites.ts'
import { useHead } from '../../head/loadHead.ts'
import type { HeadArrow } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useKeptLines } from '../../marks/useLinePaths.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { viewOf } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import { atWords } from '../../state/words.ts'
import { Findings } from '../Findings.tsx'
import { useGate, useHeld } from '../useGate.ts'
import { useFlowLayer, type StationProps } from '../useStation.ts'
import { KitTab } from './KitTab.tsx'
import { LaneDetail, Whys } from './LaneDetail.tsx'
import { LaneList } from './LaneList.tsx'
import { PlanPick, ThreePlans } from './ThreePlans.tsx'
import { TimeTab } from './TimeTab.tsx'
import { useChoosing, usePlan, type Choosing, type PlanView } from './usePlan.ts'

const TABS = [
  ['lanes', 'Lanes'],
  ['compare', 'Compare'],
  ['why', 'Why'],
  ['time', 'Time'],
  ['kit', 'Kit'],
] as const
type Tab = (typeof TABS)[number][0]

/** What the plan in view says of itself, kept or not. */
const OWN_WORDS: ReadonlySet<string> = new Set(['no-plan', 'over-limit'])

/** What of the findings a plan is looked at with. */
const AT_PLAN: ReadonlySet<About> = new Set([
  'questions',
  'rule',
  'aftermath',
  'unsettled',
  'too-soon',
  'map',
  'plan',
  'hand',
])

export function PlanStation(props: StationProps) {
  const { page } = props
  const { findings } = useGate(props)
  const choosing = useChoosing(props)
  const view = usePlan(props, choosing.choice)
  if (view.pending) {
    return (
      <section className="zone-detail" role="status">
        <h1>Plan</h1>
        <p className="lead">The grain is parted into lanes, and they are put in order …</p>
      </section>
    )
  }
  if (!view.plan) {
    return (
      <section className="zone-detail">
        <h1>No plan</h1>
        <p className="lead">{view.why}</p>
        <Findings
          {...props}
          findings={findings.filter((f) => f.holds === 'plan' || f.severity === 'leave-out')}
        />
        <p className="buttons">
          {choosing.canUndo && (
            <button className="strong" onClick={choosing.undo}>
              Undo the last change
            </button>
          )}
          <Link className="strong" to={`/clients/${page.client.id}/ask`}>
            Back to Ask
          </Link>
          <Link className="strong" to={`/clients/${page.client.id}/read`}>
            To Read
          </Link>
        </p>
      </section>
    )
  }
  return <Chosen {...props} view={view} plan={view.plan} choosing={choosing} />
}

function Chosen({
  page,
  visit,
  house,
  view,
  plan,
  choosing,
}: StationProps & { view: PlanView; plan: Plan; choosing: Choosing }) {
  const figures = useFigures()
  const open = visit.state === 'open'
  const save = useSavePlan(visit.id)
  const navigate = useNavigate()
  const [tab, setTab] = useState<Tab>('lanes')
  const [pass, setPass] = useState(1)
  const [laneId, setLane] = useState<string>()
  const [compare, setCompare] = useState(false)
  const zoneChosen = useView((s) => s.chosen)
  const most = Math.max(...plan.lanes.map((l) => l.pass), 1)
  const shownPass = Math.min(pass, most)
  const inZone = plan.lanes.filter((l) => l.zoneId === zoneChosen)
  const lane =
    plan.lanes.find((l) => l.id === laneId && l.zoneId === zoneChosen) ??
    inZone.find((l) => l.pass === shownPass) ??
    inZone[0]
  const list = useLaneInView(lane?.id)
  const station = { page, visit, house }
  const { findings } = useGate(station)
  const held = useHeld(station, 'plan')
  const keep = () => held === undefined && save.mutate(choosing.choice)
  const toChair = () => void navigate(`/clients/${page.client.id}/chair`)
  useHotkeys([
    ['K', () => open && view.why === undefined && keep()],
    ['Z', () => open && choosing.undo()],
    ...STYLES.map((s, i): [string, () => void] => [`${i + 7}`, () => open && choosing.pick(s)]),
  ])
  const diff = useMemo(
    () => planDifferences(plan, view.three?.gentlest.plan, view.three?.closest.plan),
    [plan, view.three],
  )
  usePlanLayers(
    { page, visit, house },
    plan,
    shownPass,
    lane,
    compare && tab === 'compare' ? diff : undefined,
  )

  const show = (l: Lane) => {
    setLane(l.id)
    setPass(l.pass)
    useView.getState().choose(l.zoneId)
    if (!isBodyService(plan.service)) {
      const v = viewOf(l.normal)
      useView.getState().turnTo(v.yawDeg, v.pitchDeg)
    }
  }
  const edited = Object.keys(choosing.choice.edits).length
  const over = overLimitReason(figures, plan)
  return (
    <>
      <section className="plan-head">
        <div className="row-between">
          <h1>
            {Math.round(plan.totalMinutes)} min <small>of a {plan.slotMinutes} min slot</small>
          </h1>
          {open && (
            <div className="buttons">
              {choosing.canUndo && (
                <button className="strong small" onClick={choosing.undo}>
                  Undo <kbd>Z</kbd>
                </button>
              )}
              {(!view.kept || view.outdated) && (
                <button
                  className={view.kept ? 'strong' : 'strong deep'}
                  onClick={keep}
                  disabled={save.isPending || view.why !== undefined || held !== undefined}
                >
                  {view.kept ? 'Plan again' : 'Keep this plan'} <kbd>K</kbd>
                </button>
              )}
              {view.kept && (
                <button className="strong deep" onClick={toChair}>
                  To the chair
                </button>
              )}
            </div>
          )}
        </div>
        <p className="soft">
          {view.kept
            ? `Kept ${atWords(visit.planMadeAtMs!)}.${view.outdated ? ' What it rests on has changed since: plan again to follow.' : ' It stays as it is when the map changes later.'}`
            : 'Not kept yet: it follows every change at Ask and Read.'}
          {edited > 0 && ` ${edited} ${edited === 1 ? 'lane is' : 'lanes are'} changed by hand.`}{' '}
          <Link to={`/clients/${page.client.id}/cards/plan?visit=${visit.id}`}>Plan card</Link>
        </p>
        {(save.isError || view.why) && (
          <p role="alert" className="problem">
            {save.error?.message ?? view.why}
          </p>
        )}
        {open && (
          <Findings
            {...station}
            most={2}
            findings={findings.filter(
              (f) => AT_PLAN.has(f.about) && !OWN_WORDS.has(f.id) && f.severity !== 'note',
            )}
          />
        )}
        {plan.odds && <VisitOddsLine odds={plan.odds} zones={plan.zones.length} />}
        {over && (
          <p className="notice">
            {over.text} <abbr title={MARK_WORDS[over.mark]}>({over.mark})</abbr>
          </p>
        )}
      </section>
      {view.three && (
        <PlanPick
          three={view.three}
          plan={plan}
          choice={choosing.choice}
          onPick={choosing.pick}
          onSlide={choosing.along}
        />
      )}
      <div className="row-between plan-tabs">
        <div className="switch tabs" role="group" aria-label="What to show of the plan">
          {TABS.map(([id, name]) => (
            <button key={id} aria-pressed={tab === id} onClick={() => setTab(id)}>
              {name}
            </button>
          ))}
        </div>
        {most > 1 && (
          <div className="switch" role="group" aria-label="Arrows shown">
            {Array.from({ length: most }, (_, i) => (
              <button key={i} aria-pressed={shownPass === i + 1} onClick={() => setPass(i + 1)}>
                Pass {i + 1}
              </button>
            ))}
          </div>
        )}
      </div>
      <div
        className="tab-body"
        tabIndex={0}
        role="region"
        aria-label={TABS.find((t) => t[0] === tab)![1]}
        ref={list}
      >
        {tab === 'lanes' && (
          <LaneList
            plan={plan}
            chosen={lane?.id}
            onShow={show}
            onUnskip={open ? (id) => choosing.edit([id], undefined) : undefined}
          >
            {lane && (
              <LaneDetail
                lane={lane}
                plan={plan}
                kit={house.kit}
                level={house.workers.find((w) => w.id === visit.workerId)?.level ?? 'practised'}
                edit={choosing.choice.edits[lane.id]}
                onEdit={
                  open
                    ? (e) =>
                        choosing.edit(
                          lanesWith(plan, lane).map((l) => l.id),
                          e,
                        )
                    : undefined
                }
              />
            )}
          </LaneList>
        )}
        {tab === 'compare' &&
          (view.three ? (
            <>
              <div className="row-between">
                <p className="soft">
                  {diff.length === 0
                    ? 'The three treat every lane alike on this skin.'
                    : `${diff.length} lanes differ. Brass: the closest does more there; coral: the gentlest does less.`}
                </p>
                <button
                  className="strong small"
                  aria-pressed={compare}
                  onClick={() => setCompare(!compare)}
                >
                  {compare ? 'Hide on the head' : 'Show on the head'}
                </button>
              </div>
              <ThreePlans three={view.three} chosen={choosing.choice.style} edited={edited > 0} />
            </>
          ) : (
            <p>The service has begun: only the plan that was kept is shown.</p>
          ))}
        {tab === 'why' && (
          <Whys reasons={plan.reasons}>
            {plan.house && plan.house.version > 0 && (
              <li>
                Made after {plan.house.version} changes of the house, with{' '}
                {Object.keys(plan.house.changed).length} figures of its own (House, under Changes).
              </li>
            )}
            {plan.leftOut.map((z) => (
              <li key={z.zoneId + z.name + z.reason}>
                Left out: {z.name || zoneName(z.zoneId)}. {z.reason}
              </li>
            ))}
          </Whys>
        )}
        {tab === 'time' && (
          <TimeTab plan={plan} ask={view.ask} choosing={open ? choosing : undefined} />
        )}
        {tab === 'kit' && <KitTab plan={plan} />}
      </div>
    </>
  )
}

/** The chance over the whole visit, next to the client's own record. */
function VisitOddsLine({ odds, zones }: { odds: VisitOdds; zones: number }) {
  const { record } = odds
  return (
    <p className="soft">
      Any zone at redness 2 or more: {oddsWords(odds.any)}, about{' '}
      {odds.zones < 0.95 ? odds.zones.toFixed(1) : Math.round(odds.zones)} of {zones} zones (H).{' '}
      {record &&
        record.visits > 0 &&
        `So far: ${record.reddened} of the last ${record.visits} answered ${record.visits === 1 ? 'visit' : 'visits'}.`}
    </p>
  )
}

/** Brings the chosen lane with its details to the top of the list. */
function useLaneInView(id: string | undefined) {
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const box = list.current
    const row = box?.querySelector<HTMLElement>('tr.chosen')
    if (!box || !row) return
    box.scrollTop += row.getBoundingClientRect().top - box.getBoundingClientRect().top
  }, [id])
  return list
}

/** Brass and coral, as red, green, blue and opacity. */
const DIFFERENCE_COLOURS = {
  'closest-more': [0.66, 0.48, 0.13, 0.42],
  'gentlest-less': [0.75, 0.31, 0.21, 0.4],
} as const

const CHOSEN_COLOUR = [0.25, 0.6, 0.62, 0.4] as const

/** Lanes on the head: their borders, an arrow each, the chosen one washed over. */
function usePlanLayers(
  { visit }: StationProps,
  plan: Plan,
  pass: number,
  lane: Lane | undefined,
  diff: readonly LaneDifference[] | undefined,
) {
  const figures = useFigures()
  const head = useHead()
  const flow = useFlowLayer(visit)
  const lines = useKeptLines(visit)
  const onHead = !isBodyService(plan.service)
  const loaded = onHead ? head.data : undefined
  const edges = useMemo(
    () => (loaded ? laneEdges(loaded.packed.display, plan.zones) : undefined),
    [loaded, plan],
  )
  const wash = useMemo(() => {
    if (!loaded) return undefined
    const chosen = (lane ? lanesWith(plan, lane) : []).map((l) => ({ ...l, colour: CHOSEN_COLOUR }))
    const differing = diff?.map((d) => ({ ...d, colour: DIFFERENCE_COLOURS[d.difference] }))
    return laneWash(loaded.packed.display, plan.zones, differing ?? chosen)
  }, [loaded, plan, lane, diff])
  const layers = useMemo(() => {
    const leads = groupsOf(plan.lanes).map((g) => g.lead)
    const paths = new Map((plan.presses ?? []).map((p) => [p.id, p.path]))
    const arrows = leads
      .filter((l) => l.pass === pass)
      .map((l): HeadArrow => ({
        id: l.id,
        zoneId: l.zoneId,
        point: l.point,
        normal: l.normal,
        direction: l.stroke,
        path: paths.get(l.stepId ?? l.id),
        kind: l.relation,
        lengthMm: Math.min(onHead ? 26 : 90, Math.max(8, l.lengthMm * 0.45)),
      }))
    // A direction that is only guessed says so where it is drawn, too.
    const labels = plan.lanes
      .filter((l) => l.pass === pass && l.grain === 'guess')
      .map((l) => ({ id: l.id, point: l.point, text: '?' }))
    return {
      flow,
      arrows,
      labels,
      spots: markSpots(figures, visit.asked.spots),
      lines,
      laneEdges: edges,
      wash,
      tints: plan.leftOut
        .filter((z) => !plan.zones.some((p) => p.zoneId === z.zoneId))
        .map((z) => ({ zoneId: z.zoneId, colour: ON_SKIN.coral, opacity: 0.3 })),
    }
  }, [figures, plan, pass, flow, lines, visit.asked.spots, edges, wash, onHead])
  useHeadLayers(layers)
}
