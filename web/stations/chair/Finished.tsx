/**
 * The service as it was: on the head what happened, beside it what it came to; then what comes next, in order: pictures, the
 * care sheet, the next visit, cleaning down.
 */
import { zonesOfPlan } from '../../../core/plan/index.ts'
import { isBody } from '../../../core/zones/index.ts'
import { Alert, Anchor, Button, Checkbox, Group, Stack, Text, Title } from '@mantine/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { nickZone, LEFT_OPEN, type Live } from '../../../core/chair/index.ts'
import type { Plan } from '../../../core/plan/index.ts'
import { ON_SKIN, REDNESS_COLOURS } from '../../../core/palette.ts'
import { isBodySitting, zonesOfJobs } from '../../../core/services/index.ts'
import { daysWords, timeWords, whenWords } from '../../../core/time/index.ts'
import { serviceInWords } from '../../../core/visit/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { BodyStage } from '../../head/BodyStage.tsx'
import { HeadStage } from '../../head/HeadStage.tsx'
import { useHead } from '../../head/loadHead.ts'
import type { HeadSpot } from '../../head/shared.ts'
import { ViewKeys } from '../../head/ViewKeys.tsx'
import facts from '../../ui/Facts.module.css'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { Stage } from '../../ui/Stage.tsx'
import frame from '../ClientFrame.module.css'
import { StationStrip } from '../StationStrip.tsx'
import type { StationProps } from '../useStation.ts'
import { Photos } from './Photos.tsx'
import { useTray } from './tray.ts'
import { useChair } from './useChair.ts'

export function Finished({ plan, ...props }: StationProps & { plan: Plan }) {
  const { page, visit } = props
  const chair = useChair(visit, plan)
  const { live } = chair
  const { state } = live
  const layers = useHappened(props, live)
  const leftOpen = Object.values(state.skipReasons).includes(LEFT_OPEN)
  const left = Object.entries(visit.atChair.leftOut)
  const begunAway =
    live.state.startId && visit.events.find((e) => e.id === live.state.startId)?.reason
  const takeBack = (of: string) => void chair.link.tell({ kind: 'taken-back', detail: { of } })
  const at = (station: string) => `/clients/${page.client.id}/${station}?visit=${visit.id}`
  return (
    <div className={frame.page} data-whole>
      <StationStrip {...props} />
      <div className={frame.bench}>
        {isBodySitting(plan.jobs) ? (
          <Stage label="The body, with what happened">
            <BodyStage zones={zonesOfJobs(plan.jobs).filter(isBody)} {...layers} />
          </Stage>
        ) : (
          <Stage label="The head, with what happened" views={<ViewKeys />}>
            <HeadStage {...layers} />
          </Stage>
        )}
        <main className={frame.panel}>
          <PanelHead title="Service done">
            <Button component={Link} variant="strong" to={at('care')}>
              To the care sheet
            </Button>
          </PanelHead>
          {begunAway && <Alert role="note">{begunAway}</Alert>}
          {leftOpen && (
            <Alert>
              It was left open, and ended as of its last event, {whenWords(state.finishedAtMs!)}.
              What was not reached was not done.
            </Alert>
          )}
          <dl className={facts.facts}>
            {serviceInWords(plan, state).map(({ name, words, beside }) => (
              <Fact key={name} name={name}>
                <b>{words}</b>{' '}
                {beside && (
                  <Text span size="sm" c="dimmed">
                    {beside}
                  </Text>
                )}
              </Fact>
            ))}
            {left.map(([zone, why]) => (
              <Fact key={zone} name="Left out">
                {zoneName(zone as ZoneId)}: {why}
              </Fact>
            ))}
            {state.patchesLeft.length > 0 && (
              <Fact name="Missed">
                {state.patchesLeft.length} {state.patchesLeft.length === 1 ? 'patch' : 'patches'}{' '}
                seen and left:{' '}
                {[...new Set(state.patchesLeft.map((p) => zoneName(p.zoneId)))].join(', ')}
              </Fact>
            )}
          </dl>
          <Happened live={live} onTakeBack={takeBack} />
          {state.amendments.length > 0 && (
            <section>
              <Title order={3}>Changed on the way</Title>
              <ul>
                {state.amendments.map((a) => (
                  <li key={a.atMs + a.text}>
                    {timeWords(a.atMs)} {a.text}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <Problem>{chair.problem}</Problem>
          <Stack component="section" aria-label="What comes next" gap="md" pb="xl">
            <Photos visit={visit} />
            <Group gap="md">
              <Anchor component={Link} to={at('care')}>
                Care sheet
              </Anchor>
              <Anchor component={Link} to={at('return')}>
                Next visit
                {page.tide.window &&
                  `: ${daysWords(page.tide.window.fromMs, page.tide.window.toMs)}`}
              </Anchor>
            </Group>
            <CleanDown visitId={visit.id} />
          </Stack>
        </main>
      </div>
    </div>
  )
}

const Fact = ({ name, children }: { name: string; children: React.ReactNode }) => (
  <>
    <dt>{name}</dt>
    <dd>{children}</dd>
  </>
)

/** Between two clients (common practice; the local code comes first). */
const CLEAN = [
  'Blades into the sharps box',
  'Implements into the disinfectant, for its whole contact time',
  'Chair, headrest and tray wiped',
  'Towels and capes to the laundry',
  'Gloves off, hands washed',
] as const

function CleanDown({ visitId }: { visitId: string }) {
  const key = `clean-${visitId}`
  const done = useTray((t) => t.laid[key])
  const tick = useTray((t) => t.tick)
  return (
    <section>
      <Title order={2}>Cleaning down</Title>
      {CLEAN.map((what) => (
        <Checkbox
          key={what}
          label={what}
          checked={done?.includes(what) ?? false}
          onChange={() => tick(key, what)}
        />
      ))}
      <Text size="sm" c="dimmed">
        The local code comes first.
      </Text>
    </section>
  )
}

/** On the head: what was worked, reddened, nicked, missed, left out. */
function useHappened({ visit }: StationProps, { plan, state }: Live) {
  const head = useHead()
  return useMemo(() => {
    const centre = (zone: ZoneId | undefined) => zone && head.data?.zoneById.get(zone)?.centre
    const red = new Map<string, number>()
    for (const r of state.redness)
      if (r.zoneId) red.set(r.zoneId, Math.max(r.grade, red.get(r.zoneId) ?? 0))
    const nicks = state.nicks.flatMap((n): HeadSpot[] => {
      const place =
        n.point && n.normal ? { point: n.point, normal: n.normal } : centre(nickZone(plan, n))
      return place ? [{ id: n.id, ...place, radiusMm: 3, name: 'nick' }] : []
    })
    const missed = state.patchesLeft.flatMap((p, i): HeadSpot[] => {
      const normal = centre(p.zoneId)?.normal
      return normal
        ? [{ id: `missed-${i}`, point: p.point, normal, radiusMm: 6, name: 'missed', light: true }]
        : []
    })
    return {
      tints: zonesOfPlan(plan).map((zoneId) => {
        const grade = red.get(zoneId)
        return grade
          ? { zoneId, colour: REDNESS_COLOURS[grade]!, opacity: 0.75 }
          : zoneId in visit.atChair.leftOut
            ? { zoneId, colour: ON_SKIN.coral, opacity: 0.3 }
            : { zoneId, colour: ON_SKIN.water, opacity: 0.3 }
      }),
      spots: [...nicks, ...missed],
    }
  }, [plan, state, visit.atChair.leftOut, head.data])
}

/** Redness and nicks as they were told; what was no such thing is taken back. */
function Happened({
  live: { plan, state },
  onTakeBack,
}: {
  live: Live
  onTakeBack: (of: string) => void
}) {
  const back = (id: string) => (
    <Button variant="bare" size="compact-sm" onClick={() => onTakeBack(id)}>
      Take back
    </Button>
  )
  return (
    <>
      {state.redness.length > 0 && (
        <>
          <Title order={3}>Reddened at the chair</Title>
          <ul>
            {state.redness.map((r) => (
              <li key={r.id}>
                {timeWords(r.atMs)} {r.zoneId ? zoneName(r.zoneId) : 'place not told'}: {r.grade}
                {r.welt && ', a welt'} {back(r.id)}
              </li>
            ))}
          </ul>
        </>
      )}
      {state.nicks.length > 0 && (
        <>
          <Title order={3}>Nicks</Title>
          <ul>
            {state.nicks.map((n) => {
              const zone = nickZone(plan, n)
              return (
                <li key={n.id}>
                  {timeWords(n.atMs)} {zone ? zoneName(zone) : 'place not told'}
                  {n.sizeMm !== undefined && `, ${n.sizeMm} mm`}
                  {n.did && n.did.length > 0 && `: ${n.did.join(', ')}`}
                  {n.contact && '. Blood touched the worker or a tool: see your local rule.'}{' '}
                  {back(n.id)}
                </li>
              )
            })}
          </ul>
        </>
      )}
    </>
  )
}
