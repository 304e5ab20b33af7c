/** Plan: the plans to choose from on one axis, the lanes of the one chosen, what a hand may change, why, how long, with what. */
import { Alert, Button, Group, Skeleton, Stack, Text } from '@mantine/core'
import { useMemo, useRef, useState, useEffect, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import { viewOf } from '../../../core/head/index.ts'
import {
  lanesWith,
  planDifferences,
  overLimitReason,
  type Lane,
  type Plan,
} from '../../../core/plan/index.ts'
import { STYLES, isBodySitting } from '../../../core/services/index.ts'
import type { About } from '../../../core/visit/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { useSavePlan } from '../../api/visitWrites.ts'
import { useKeys } from '../../keys/useKeys.ts'
import { useFigures } from '../../state/figures.ts'
import { useView } from '../../state/view.ts'
import { atWords } from '../../state/words.ts'
import { Act, KeyButton } from '../../ui/Act.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs, StageShown } from '../../ui/Stage.tsx'
import { Words } from '../../ui/Words.tsx'
import { Findings } from '../Findings.tsx'
import { useGate, useHeld } from '../useGate.ts'
import type { StationProps } from '../useStation.ts'
import { KitTab } from './KitTab.tsx'
import { LaneDetail } from './LaneDetail.tsx'
import { Whys } from '../../ui/Whys.tsx'
import { LaneList } from './LaneList.tsx'
import { KEYS, PlanFront } from './PlanFront.tsx'
import { ThreePlans } from './ThreePlans.tsx'
import { TimeTab } from './TimeTab.tsx'
import { useChoosing, usePlan, type Choosing, type PlanView } from './usePlan.ts'
import { usePlanLayers } from './usePlanLayers.ts'
import { VisitFigures } from './VisitFigures.tsx'

/** What is shown of a plan, each by its own key. */
const PARTS = [
  ['lanes', 'Lanes'],
  ['compare', 'Compare'],
  ['why', 'Why'],
  ['time', 'Time'],
  ['blades', 'Blades'],
] as const
type Part = (typeof PARTS)[number][0]

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
  if (view.pending) return <Pending />
  if (view.plan) return <Chosen {...props} view={view} plan={view.plan} choosing={choosing} />
  return (
    <Stack>
      <PanelHead title="No plan" />
      <Text>{view.why}</Text>
      <Findings
        {...props}
        findings={findings.filter((f) => f.holds === 'plan' || f.severity === 'leave-out')}
      />
      <Group gap="sm">
        {choosing.canUndo && <Button onClick={choosing.undo}>Undo the last change</Button>}
        <Button component={Link} to={`/clients/${page.client.id}/ask`}>
          Back to Ask
        </Button>
        <Button component={Link} to={`/clients/${page.client.id}/read`}>
          To Read
        </Button>
      </Group>
    </Stack>
  )
}

/** The plan's own shape while it is worked out. */
const Pending = () => (
  <Stack role="status" aria-label="The grain is parted into lanes, and they are put in order">
    <Skeleton h={44} w="70%" />
    <Skeleton h={110} />
    <Skeleton h={56} />
    {[1, 2, 3, 4, 5].map((i) => (
      <Skeleton key={i} h={26} />
    ))}
  </Stack>
)

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
  const [part, setPart] = useState<Part>('lanes')
  const [pass, setPass] = useState<number | undefined>(1)
  const [laneId, setLane] = useState<string>()
  const zoneChosen = useView((s) => s.chosen)
  const most = Math.max(...plan.lanes.map((l) => l.pass), 1)
  const shownPass = most === 1 ? undefined : pass
  const inZone = plan.lanes.filter((l) => l.zoneId === zoneChosen)
  const lane =
    plan.lanes.find((l) => l.id === laneId && l.zoneId === zoneChosen) ??
    inZone.find((l) => shownPass === undefined || l.pass === shownPass) ??
    inZone[0]
  const list = useLaneInView(lane?.id)
  const station = { page, visit, house }
  const { findings } = useGate(station)
  const diff = useMemo(
    () => planDifferences(plan, view.three?.gentlest.plan, view.three?.closest.plan),
    [plan, view.three],
  )
  usePlanLayers(station, plan, shownPass, lane, part === 'compare' ? diff : undefined)
  const show = (l: Lane) => {
    setLane(l.id)
    useView.getState().choose(l.zoneId)
    if (!isBodySitting(plan.jobs)) {
      const v = viewOf(l.normal)
      useView.getState().turnTo(v.yawDeg, v.pitchDeg)
    }
  }
  useKeys(
    Object.fromEntries(
      STYLES.map((s) => [
        KEYS[s],
        // Before the kinds are worked out any may be asked for: a quick hand is not made to press twice.
        open &&
          (view.three === undefined || view.three[s].plan !== undefined) &&
          (() => choosing.pick(s)),
      ]),
    ),
  )
  const edited = Object.keys(choosing.choice.edits).length
  const over = overLimitReason(figures, plan)
  return (
    <>
      <StageActs label="What to show of the plan">
        {PARTS.map(([id, name]) => (
          <Act key={id} k={id} side="right" pressed={part === id} onAct={() => setPart(id)}>
            {name}
          </Act>
        ))}
        <Act k="plan-undo" side="right" disabled={!open || !choosing.canUndo} onAct={choosing.undo}>
          Undo
        </Act>
      </StageActs>
      {most > 1 && (
        <StageShown>
          <Words
            label="Arrows shown"
            data={[
              ...Array.from({ length: most }, (_, i) => ({
                value: String(i + 1),
                label: `Pass ${i + 1}`,
              })),
              { value: 'all', label: most === 2 ? 'Both' : 'All' },
            ]}
            value={String(shownPass ?? 'all')}
            onChange={(p) => setPass(p === 'all' ? undefined : Number(p))}
          />
        </StageShown>
      )}
      <PlanHead {...station} plan={plan} view={view} choosing={choosing} edited={edited} />
      {open && (
        <Findings
          {...station}
          most={1}
          findings={findings.filter(
            (f) => AT_PLAN.has(f.about) && !OWN_WORDS.has(f.id) && f.severity !== 'note',
          )}
        />
      )}
      {over && (
        <Alert>
          {over.text} <Estimate mark={over.mark} of="plan-any" />
        </Alert>
      )}
      {view.three && plan.front && (part === 'lanes' || part === 'compare') && (
        <PlanFront
          three={view.three}
          plan={plan}
          choice={choosing.choice}
          onPick={choosing.pick}
          onSlide={choosing.along}
        />
      )}
      {part === 'lanes' && <VisitFigures plan={plan} />}
      <Scroll label={PARTS.find((p) => p[0] === part)![1]} ref={list}>
        {part === 'lanes' && (
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
        {part === 'compare' &&
          (view.three && plan.front ? (
            <>
              <Text size="sm" c="dimmed">
                {diff.length === 0
                  ? 'The three treat every lane alike on this skin.'
                  : `${diff.length} lanes differ. On the head, brass: the closest does more there; coral: the gentlest does less.`}
              </Text>
              <ThreePlans three={view.three} chosen={choosing.choice.style} edited={edited > 0} />
            </>
          ) : (
            <p>
              {plan.front
                ? 'The service has begun: only the plan that was kept is shown.'
                : 'Nothing of this sitting is stroked, so there is nothing to compare.'}
            </p>
          ))}
        {part === 'why' && <Why plan={plan} />}
        {part === 'time' && (
          <TimeTab plan={plan} ask={view.ask} choosing={open ? choosing : undefined} />
        )}
        {part === 'blades' && <KitTab plan={plan} />}
      </Scroll>
    </>
  )
}

/** How long it takes, whether it is kept, and the act that comes next. */
function PlanHead({
  page,
  visit,
  house,
  plan,
  view,
  choosing,
  edited,
}: StationProps & { plan: Plan; view: PlanView; choosing: Choosing; edited: number }) {
  const navigate = useNavigate()
  const save = useSavePlan(visit.id)
  const held = useHeld({ page, visit, house }, 'plan')
  const open = visit.state === 'open'
  const minutes = Math.round(plan.totalMinutes)
  const over = minutes - plan.slotMinutes
  const keeps = (!view.kept || view.outdated) && (
    <KeyButton
      k="keep"
      variant={view.kept ? 'line' : 'strong'}
      disabled={view.why !== undefined || held !== undefined}
      onAct={() => save.keep({ ...plan, choice: choosing.choice })}
    >
      {view.kept ? 'Plan again' : 'Keep this plan'}
    </KeyButton>
  )
  const acts: ReactNode = open && (
    <Group gap="xs" wrap="nowrap">
      {keeps}
      {view.kept && (
        <KeyButton
          k="on-to-chair"
          variant="strong"
          onAct={() => void navigate(`/clients/${page.client.id}/chair`)}
        >
          To the chair
        </KeyButton>
      )}
    </Group>
  )
  return (
    <div>
      <PanelHead
        title={
          <>
            <Text span inherit fz={27} c={over > 0 ? 'var(--coral)' : 'var(--ink)'}>
              <Estimate of="plan-minutes">{minutes} min</Estimate>
            </Text>{' '}
            <Text span ff="text" fw={400} c={over > 0 ? 'var(--coral)' : 'dimmed'}>
              of a {plan.slotMinutes} min slot
            </Text>
          </>
        }
      >
        {acts}
      </PanelHead>
      {over > 0 && (
        <Group gap="xs" c="var(--coral)">
          <Text>{over} min over the slot: fit it, leave a zone out at Read, or move the slot.</Text>
          {open && (
            <Button size="sm" onClick={() => choosing.fit(plan.slotMinutes)}>
              Fit into {plan.slotMinutes} min
            </Button>
          )}
        </Group>
      )}
      <Text size="sm" c="dimmed">
        {view.kept
          ? `Kept ${atWords(visit.planMadeAtMs!)}.${view.outdated ? ' What it rests on has changed since: plan again to follow.' : ' It stays as it is when the map changes later.'}`
          : 'Not kept yet: it follows every change at Ask and Read.'}
        {edited > 0 && ` ${edited} ${edited === 1 ? 'lane is' : 'lanes are'} changed by hand.`}{' '}
        {view.kept && (
          <Link to={`/clients/${page.client.id}/cards/plan?visit=${visit.id}`}>Plan card</Link>
        )}
      </Text>
      <Problem>{save.error?.message ?? view.why}</Problem>
    </div>
  )
}

const Why = ({ plan }: { plan: Plan }) => (
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
)

/** Room that the sticky head of the list takes, px. */
const HEAD_PX = 32

/** Brings the chosen lane with its details to the top of the list, under its head. */
function useLaneInView(id: string | undefined) {
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const box = list.current
    const row = box?.querySelector<HTMLElement>('tr[data-chosen]')
    if (!box || !row) return
    box.scrollTop += row.getBoundingClientRect().top - box.getBoundingClientRect().top - HEAD_PX
  }, [id])
  return list
}
