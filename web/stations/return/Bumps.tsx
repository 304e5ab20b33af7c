/** Bumps and ingrown hairs: how many, how severe, where again and again, whether they rise, and what changes did. */
import { Estimate } from '../../ui/Estimate.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import css from './Return.module.css'
import { Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { Button, Table, Text, Title, TextInput, Skeleton } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { useMemo } from 'react'
import type { ClientHistory } from '../../../contract/types.ts'
import { SKIN_SPOT_WORDS } from '../../../core/formats/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import {
  changeEffects,
  type ChangeEffect,
  findChanges,
  separabilityWords,
  trendWatch,
} from '../../../core/history/index.ts'
import { sum } from '../../../core/stats/index.ts'
import type { Concern } from '../../../core/client.ts'
import { isFollowed, spotTrails, type SpotTrail } from '../../../core/looks/index.ts'
import { bumpSeverity, sensitivityRange, meanSensitivity } from '../../../core/skin/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { useHistory } from '../../api/queries.ts'
import { useChangeVisit } from '../../api/visitWrites.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { viewOf } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import type { StationProps } from '../useStation.ts'
import { SpotSign } from './Legend.tsx'
import { TrendChart } from './TrendChart.tsx'

/** Places told by name; the rest is on the head. */
const TRAILS_TOLD = 4

export function Bumps(props: StationProps) {
  const history = useHistory(props.page.client.id)
  return (
    <>
      <h1>Bumps and ingrown hairs</h1>
      <Scroll label="Bumps">
        {history.isPending && <Skeleton h={200} />}
        {history.isError && <Problem>{history.error.message}</Problem>}
        {history.data && <Told {...props} history={history.data} />}
      </Scroll>
    </>
  )
}

function Told({ page, visit, history }: StationProps & { history: ClientHistory }) {
  const figures = useFigures()
  const visits = useMemo(
    () => history.visits.filter((v) => v.service === visit.service),
    [history, visit.service],
  )
  const trend = useMemo(() => trendWatch(figures, visits, 'bumps'), [figures, visits])
  const concerns = page.client.skin.concerns ?? NO_CONCERNS
  const effects = useMemo(
    () => changeEffects(figures, findChanges(figures, visits), ['bumps', 'redness', ...concerns]),
    [figures, visits, concerns],
  )
  const trails = useMemo(() => spotTrails(history.looks), [history])
  const again = trails.filter((t) => t.visits > 1 && !isFollowed(t.kind))
  const last = [...visits].reverse().find((v) => v.bumps !== null)
  useHeadLayers(
    useMemo(
      () => ({
        marked: trails
          .filter((t) => t.visits > 1)
          .slice(0, 60)
          .map((t) => ({ id: t.id, point: t.point, normal: normalOf(t, history), kind: t.kind })),
      }),
      [trails, history],
    ),
  )
  const count = last?.bumps ? sum(Object.values(last.bumps)) : 0
  const grade = bumpSeverity(figures, count)
  return (
    <>
      {last ? (
        <p>
          After {dateWords(last.endedAtMs)}: {count}{' '}
          {count === 1 ? 'bump or ingrown hair' : 'bumps and ingrown hairs'},{' '}
          <Estimate mark="P" of="bump-grade">
            {grade === 'none' ? 'none to speak of' : grade}
          </Estimate>
          .
        </p>
      ) : (
        <p>
          Nobody has counted bumps yet. Count on day 2 and day 7: tap them on the head at Looks.
        </p>
      )}
      {trend && (
        <>
          <TrendChart trend={trend} />
          <Text size="sm" c="dimmed">
            {trend.words} The line is a{' '}
            <Estimate mark="P" of="bump-trend">
              moving average
            </Estimate>
            ; shaded is where it stays by chance.
          </Text>
        </>
      )}
      {!trend && visits.length > 0 && (
        <Text size="sm" c="dimmed">
          The trend watch begins after seven counted visits; {counted(visits)} so far.
        </Text>
      )}
      {concerns.map((c) => (
        <Followed key={c} concern={c} visits={visits} />
      ))}
      <section>
        <Title order={2} mt="md">
          Did a change help?
        </Title>
        {effects.length === 0 && (
          <Text size="sm" c="dimmed">
            No change of routine is noted, and none was found in what was done.
          </Text>
        )}
        <Changes effects={effects} />
        <RoutineNote visitId={visit.id} routine={visit.routine} key={visit.id} />
        {page.visits.length > 0 && (
          <Text size="sm" c="dimmed">
            Comparisons are of what happened. Several at once are corrected for looking more than
            once (Holm).
          </Text>
        )}
      </section>
      <WhereTheyCome {...{ page, visit }} />
      {again.length > 0 && (
        <section>
          <Title order={2} mt="md">
            The same places again
          </Title>
          <Rows label="The same places again">
            {again.slice(0, TRAILS_TOLD).map((t) => (
              <Row key={t.id} acts={<ShowTrail trail={t} history={history} />}>
                <SpotSign kind={t.kind} /> {zoneName(t.zoneId as ZoneId)}: {SKIN_SPOT_WORDS[t.kind]}{' '}
                after {t.visits} visits, last {dateWords(t.seen.at(-1)!.atMs)}
              </Row>
            ))}
          </Rows>
        </section>
      )}
    </>
  )
}

const NO_CONCERNS: readonly Concern[] = []

/** Dark marks or blackheads, where they are why the client comes: counted, and watched against their own beginning. */
function Followed({ concern, visits }: { concern: Concern; visits: ClientHistory['visits'] }) {
  const figures = useFigures()
  const trend = useMemo(() => trendWatch(figures, visits, concern), [figures, visits, concern])
  const told = visits.flatMap((v) => {
    const zones = v[concern]
    return zones ? [{ atMs: v.endedAtMs, count: sum(Object.values(zones)) }] : []
  })
  const [first, last] = [told[0], told.at(-1)]
  return (
    <section>
      <Title order={2} mt="md">
        {concern === 'dark' ? 'Dark marks' : 'Blackheads'}
      </Title>
      {first && last ? (
        <p>
          {last.count} after {dateWords(last.atMs)}
          {last !== first && `; ${first.count} at the beginning, after ${dateWords(first.atMs)}`}.
        </p>
      ) : (
        <Text size="sm" c="dimmed">
          Nobody has tapped any yet: the first count is what later ones are held against.
        </Text>
      )}
      {trend ? (
        <>
          <TrendChart trend={trend} />
          <Text size="sm" c="dimmed">
            {trend.words}
          </Text>
        </>
      ) : (
        told.length > 0 && (
          <Text size="sm" c="dimmed">
            The trend watch begins after seven counted visits; {told.length} so far.
          </Text>
        )
      )}
    </section>
  )
}

/** Zones told: those that bring most. */
const ZONES_TOLD = 4

/** Bumps that a service like this one brings, zone by zone, as learned. */
function WhereTheyCome({ page, visit }: Pick<StationProps, 'page' | 'visit'>) {
  const choose = useView((s) => s.choose)
  const zones = useMemo(
    () =>
      Object.entries(page.model.bumps)
        .map(([zoneId, rate]) => {
          const load = visit.loads?.[zoneId] ?? 1
          const { low, high } = sensitivityRange(rate)
          return { zoneId, even: meanSensitivity(rate) * load, low: low * load, high: high * load }
        })
        .sort((a, b) => b.even - a.even)
        .slice(0, ZONES_TOLD),
    [page.model.bumps, visit.loads],
  )
  if (page.model.bumpServices === 0) return null
  return (
    <section>
      <Title order={2} mt="md">
        Where they come
      </Title>
      <Table className={css.days}>
        <Table.Tbody>
          {zones.map((z) => (
            <Table.Tr key={z.zoneId}>
              <Table.Td>
                <Button variant="bare" size="sm" onClick={() => choose(z.zoneId as ZoneId)}>
                  {zoneName(z.zoneId as ZoneId)}
                </Button>
              </Table.Td>
              <Table.Td>
                {z.even.toFixed(1)} a service (80 %: {z.low.toFixed(1)} to {z.high.toFixed(1)})
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Text size="sm" c="dimmed">
        For a service like this one, from{' '}
        <Estimate of="plan-bumps">{page.model.bumpServices} counted services</Estimate>.
      </Text>
    </section>
  )
}

const counted = (visits: ClientHistory['visits']) => visits.filter((v) => v.bumps !== null).length

function normalOf(t: SpotTrail, history: ClientHistory) {
  for (const { answer } of history.looks) {
    const found = answer.spots?.find((s) => s.point.every((c, k) => c === t.point[k]))
    if (found) return found.normal
  }
  return t.point
}

function ShowTrail({ trail, history }: { trail: SpotTrail; history: ClientHistory }) {
  const turnTo = useView((s) => s.turnTo)
  const choose = useView((s) => s.choose)
  return (
    <Button
      variant="bare"
      size="sm"

      onClick={() => {
        const { yawDeg, pitchDeg } = viewOf(normalOf(trail, history))
        turnTo(yawDeg, pitchDeg, 1.8)
        choose(trail.zoneId as ZoneId)
      }}
    >
      Show
    </Button>
  )
}

/** Changes with what each did, newest first. */
function Changes({ effects }: { effects: readonly ChangeEffect[] }) {
  const changes = [...new Set(effects.map((e) => e.change))].reverse()
  return (
    <ul>
      {changes.map((change) => (
        <li key={change.index}>
          <Title order={3}>
            {dateWords(change.atMs)}: {change.words}{' '}
            <small>{change.noted ? 'as noted' : 'found in what was done'}</small>
          </Title>
          {effects
            .filter((e) => e.change === change)
            .map((e) => (
              <p
                key={e.outcome}
                className={css.effect}
                data-testid="effect"
                data-look={verdictLook(e)}
              >
                {e.words}
              </p>
            ))}
          <Text size="sm" c="dimmed">
            {separabilityWords(change)}
          </Text>
        </li>
      ))}
    </ul>
  )
}

const verdictLook = (e: ChangeEffect) =>
  e.verdict === 'fell' ? 'less' : e.verdict === 'rose' ? 'more' : 'open'

/** A change of routine that begins with this visit. */
export function RoutineNote({ visitId, routine }: { visitId: string; routine: string }) {
  const change = useChangeVisit(visitId)
  return (
    <TextInput
      label="A change of routine that began with this visit (shown on the tide line)"
      defaultValue={routine}
      maxLength={120}
      placeholder="single edge, with the grain only"
      onBlur={(e) => {
        const next = e.currentTarget.value.trim()
        if (next !== routine) change.mutate({ routine: next })
      }}
    />
  )
}
