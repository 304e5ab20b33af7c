/** A client's page: the stations across the top, the head on the left, the worktable on the right, the tide line below. */
import { Button, Group, Loader, Skeleton, Stack, Text, Title } from '@mantine/core'
import {
  isBodySitting,
  jobsWords,
  oneJob,
  SERVICES,
  type Work,
  zonesOfJobs,
} from '../../core/services/index.ts'
import { lowerFirst } from '../../core/words.ts'
import { isBody } from '../../core/zones/index.ts'
import { dateWords, whenWords } from '../../core/time/index.ts'
import { lazy, Suspense, useEffect } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import type { Client, ClientPage } from '../../contract/types.ts'
import { useMay } from '../people/session.ts'
import { ClientDetails } from './ask/ClientDetails.tsx'
import { useClient, useHouse, useVisit } from '../api/queries.ts'
import { useAddVisit } from '../api/visitWrites.ts'
import { BodyStage } from '../head/BodyStage.tsx'
import { HeadStage } from '../head/HeadStage.tsx'
import { useHead } from '../head/loadHead.ts'
import { ViewKeys } from '../head/ViewKeys.tsx'
import { KeysButton } from '../keys/KeysHelp.tsx'
import { FootSlot, Stage, useFootTaken } from '../ui/Stage.tsx'
import { KeyButton } from '../ui/Act.tsx'
import { Problem } from '../ui/Panel.tsx'
import { useLayers } from '../state/layers.ts'
import { useView } from '../state/view.ts'
import { newId } from '../state/words.ts'
import { TideLine } from '../tideline/TideLine.tsx'
import { usePlanAhead } from './plan/usePlan.ts'
import { Differences } from './Differences.tsx'
import { StationStrip } from './StationStrip.tsx'
import css from './ClientFrame.module.css'
import type { StationProps } from './useStation.ts'

/** Each is fetched when it is first opened; the others follow once that one stands. */
const LOADS = {
  ask: () => import('./ask/AskStation.tsx').then((m) => ({ default: m.AskStation })),
  read: () => import('./read/ReadStation.tsx').then((m) => ({ default: m.ReadStation })),
  plan: () => import('./plan/PlanStation.tsx').then((m) => ({ default: m.PlanStation })),
  chair: () => import('./chair/ChairStation.tsx').then((m) => ({ default: m.ChairStation })),
  care: () => import('./care/CareStation.tsx').then((m) => ({ default: m.CareStation })),
  return: () => import('./return/ReturnStation.tsx').then((m) => ({ default: m.ReturnStation })),
}
const ChairStation = lazy(LOADS.chair)
const STATIONS: Record<string, React.ComponentType<StationProps>> = {
  ask: lazy(LOADS.ask),
  read: lazy(LOADS.read),
  plan: lazy(LOADS.plan),
  care: lazy(LOADS.care),
  return: lazy(LOADS.return),
}

/** The stations that were not opened yet, once the drawing of the head stands. */
function useOthersAhead(): void {
  const drawn = useHead().isSuccess
  useEffect(() => {
    if (!drawn) return
    const timer = setTimeout(() => Object.values(LOADS).forEach((load) => void load()), 1500)
    return () => clearTimeout(timer)
  }, [drawn])
}

export function ClientFrame() {
  const { clientId = '', station = 'ask' } = useParams()
  const [search, setSearch] = useSearchParams()
  const client = useClient(clientId)
  const house = useHouse()
  // What follows a service is that of the last one finished, also while the next visit is open already.
  const after = station === 'care' || station === 'return'
  const last = client.data?.visits.find((v) => v.state === 'finished')?.id
  const visitId =
    search.get('visit') ?? (after ? last : undefined) ?? client.data?.currentVisitId ?? null
  const may = useMay()
  useOthersAhead()
  const visit = useVisit(may('visit') ? visitId : null)
  const choose = useView((s) => s.choose)
  useEffect(() => choose(null), [clientId, choose])
  useEffect(() => {
    document.title = client.data ? `${client.data.client.name} · Slow Tide` : 'Slow Tide'
    return () => {
      document.title = 'Slow Tide'
    }
  }, [client.data])

  if (!may('visit') && client.data) return <AtTheDesk page={client.data} />
  // What is already on the screen stays there when the server is away; only a first load can fail.
  const failed = [client, house, visit].find((q) => q.isError && q.data === undefined)?.error
  if (failed) {
    return (
      <main className="page" role="alert">
        <h1>This client could not be opened</h1>
        <p>{failed.message}</p>
        <Link to="/clients">To all clients</Link>
      </main>
    )
  }
  if (!client.data || !house.data || (visitId && !visit.data)) {
    return <Opening />
  }
  if (!visit.data) return <NoVisit client={client.data.client} workerId={house.data.workerId} />
  const props: StationProps = { page: client.data, visit: visit.data, house: house.data }
  if (station === 'chair' || station === 'wall') {
    return (
      <Suspense fallback={<ToTheChair />}>
        <ChairStation key={visit.data.id} {...props} wall={station === 'wall'} />
      </Suspense>
    )
  }
  const Station = STATIONS[station]
  if (!Station) {
    return (
      <main className="page">
        <h1>There is no such station</h1>
        <Link to={`/clients/${clientId}/ask`}>Begin at Ask</Link>
      </main>
    )
  }
  const onVisit = (id: string) =>
    setSearch(
      (at) => {
        // The tab stays as it is.
        if (id === client.data.currentVisitId) at.delete('visit')
        else at.set('visit', id)
        return at
      },
      { replace: true },
    )
  return (
    <div className={css.page}>
      <PlanAhead {...props} />
      <StationStrip {...props} />
      <div className={css.bench}>
        <HeadSide jobs={visit.data.jobs} />
        <main className={css.panel}>
          <Differences clientId={clientId} differences={client.data.differences} />
          <OlderVisit {...props} current={client.data.currentVisitId} after={after} />
          <Suspense fallback={<PanelOpening />}>
            <Station key={visit.data.id} {...props} />
          </Suspense>
        </main>
      </div>
      <Foot>
        <TideLine
          key={clientId}
          clientId={clientId}
          tide={client.data.tide}
          visitId={visit.data.id}
          onVisit={onVisit}
        />
      </Foot>
    </div>
  )
}

/** Works out what Plan will show, while one is elsewhere with the client. */
function PlanAhead(props: StationProps) {
  usePlanAhead(props)
  return null
}

/** The tide line, unless a station needs its place. */
function Foot({ children }: { children: React.ReactNode }) {
  const taken = useFootTaken()
  return (
    <>
      <FootSlot />
      {!taken && children}
    </>
  )
}

/** The page's own shape while it is fetched, so that nothing jumps. */
function Opening() {
  return (
    <div className={css.page} role="status" aria-label="Opening the client">
      <div className={css.wait}>
        <Skeleton h={26} w={220} />
        {STATION_SHAPES.map((i) => (
          <Skeleton key={i} h={26} w={90} />
        ))}
      </div>
      <div className={css.bench}>
        <Group justify="center">
          <Loader />
        </Group>
        <div className={css.panel}>
          <PanelOpening />
        </div>
      </div>
    </div>
  )
}
const PanelOpening = () => (
  <Stack role="status" aria-label="Opening">
    <Skeleton h={30} w="60%" />
    <Skeleton h={18} />
    <Skeleton h={18} w="80%" />
  </Stack>
)
const STATION_SHAPES = [1, 2, 3, 4, 5, 6]

const ToTheChair = () => (
  <Group component="main" role="status" justify="center" h="100dvh" aria-label="To the chair">
    <Loader />
  </Group>
)

/** For whom sees names, telephones and times only. */
function AtTheDesk({ page }: { page: ClientPage }) {
  const { window } = page.tide
  return (
    <main className="page">
      <Group align="baseline" gap="md">
        <h1>{page.client.name}</h1>
        <p>{SERVICES[page.client.service].name}</p>
      </Group>
      {window && (
        <p>
          Good days for the next visit: {dateWords(window.fromMs)} to {dateWords(window.toMs)}.
        </p>
      )}
      <ClientDetails client={page.client} />
      <Title order={2}>Visits</Title>
      {page.visits.length === 0 && <p>None yet.</p>}
      {page.visits.map((v) => (
        <p key={v.id}>
          {whenWords(v.endedAtMs ?? v.slotAtMs ?? page.client.createdAtMs)}, {jobsWords(v.jobs)}
          {v.state === 'finished' ? '' : v.state === 'running' ? ', under way' : ', open'}
        </p>
      ))}
      <Text size="sm" c="dimmed">
        Health answers, pictures and maps are for those who work at the chair.
      </Text>
    </main>
  )
}

function HeadSide({ jobs }: { jobs: readonly Work[] }) {
  const layers = useLayers((s) => s.layers)
  return isBodySitting(jobs) ? (
    <Stage across label="The body" views={<KeysButton />}>
      <BodyStage zones={zonesOfJobs(jobs).filter(isBody)} {...layers} />
    </Stage>
  ) : (
    <Stage
      label="The head"
      views={
        <>
          <ViewKeys />
          <KeysButton />
        </>
      }
    >
      <HeadStage {...layers} />
    </Stage>
  )
}

/** Looking back at a visit, or at the last one when none is open. */
function OlderVisit({
  page,
  visit,
  house,
  current,
  after,
}: StationProps & { current: string | null; after: boolean }) {
  const add = useAddVisit(page.client.id)
  const navigate = useNavigate()
  const begin = () =>
    add.mutate(
      {
        id: newId(),
        jobs: [oneJob(newId(), page.client.service)],
        workerId: house.workerId,
        slotAtMs: Date.now(),
      },
      { onSuccess: () => void navigate(`/clients/${page.client.id}/ask`) },
    )
  const newest = page.visits.find((v) => v.state === 'finished')
  if (visit.id !== current) {
    // Care and Return say whose they show; the next visit waits at the other stations.
    const latest = after && visit.id === newest?.id
    return (
      <Group component="p" className={`${css.back} no-print`} gap="xs">
        {latest ? 'The last visit, ' : 'Visit of '}
        {whenWords(visit.endedAtMs ?? visit.slotAtMs ?? 0)}: {lowerFirst(jobsWords(visit.jobs))}.{' '}
        {latest ? (
          <Link to={`/clients/${page.client.id}/ask`}>To the next visit</Link>
        ) : (
          <Link to="?">Back to the current one</Link>
        )}
      </Group>
    )
  }
  if (visit.state !== 'finished') return null
  return (
    <Group component="p" className={`${css.back} no-print`} gap="xs">
      Last visit, {dateWords(visit.endedAtMs!)}: {lowerFirst(jobsWords(visit.jobs))}.
      <Button size="sm" onClick={begin} disabled={add.isPending}>
        Start a new visit
      </Button>
      {add.isError && <span role="alert">{add.error.message}</span>}
    </Group>
  )
}

function NoVisit({ client, workerId }: { client: Client; workerId: string }) {
  const add = useAddVisit(client.id)
  const begin = () =>
    add.mutate({
      ...{ id: newId(), jobs: [oneJob(newId(), client.service)], workerId },
      slotAtMs: Date.now(),
    })
  return (
    <Stack component="main" className="page" align="flex-start" gap="lg">
      <Group align="baseline">
        <Title order={1}>{client.name}</Title>
        <Text c="dimmed">no visit yet</Text>
      </Group>
      <Text size="lg">Start the first visit: ask, read the grain, plan.</Text>
      <KeyButton k="open-next" variant="strong" onAct={begin} loading={add.isPending} autoFocus>
        Start the first visit
      </KeyButton>
      <Problem>{add.error?.message}</Problem>
      <Title order={2}>Person</Title>
      <ClientDetails client={client} />
      <Link to="/clients">To all clients</Link>
    </Stack>
  )
}
