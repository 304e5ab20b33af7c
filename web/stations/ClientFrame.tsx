/** A client's page: the stations across the top, the head on the left, the worktable on the right, the tide line below. */
import {
  oneJob,
  isBodyService,
  SERVICES,
  serviceZones,
  type ServiceId,
} from '../../core/services/index.ts'
import { dateWords, whenWords } from '../../core/time/index.ts'
import { useHotkeys } from '@mantine/hooks'
import { lazy, Suspense, useEffect } from 'react'
import { Link, NavLink, useNavigate, useParams, useSearchParams } from 'react-router'
import type { ClientPage, VisitPage } from '../../contract/types.ts'
import { useMay } from '../people/session.ts'
import { ClientDetails } from './ask/ClientDetails.tsx'
import { useClient, useHouse, useVisit } from '../api/queries.ts'
import { useAddVisit } from '../api/visitWrites.ts'
import { BodyStage } from '../head/BodyStage.tsx'
import { HeadStage } from '../head/HeadStage.tsx'
import { ViewKeys } from '../head/ViewKeys.tsx'
import { useLayers } from '../state/layers.ts'
import { useView } from '../state/view.ts'
import { newId } from '../state/words.ts'
import { TideLine } from '../tideline/TideLine.tsx'
import { AskStation } from './ask/AskStation.tsx'
import { CareStation } from './care/CareStation.tsx'
import { KeysHelp } from './KeysHelp.tsx'
import { PlanStation } from './plan/PlanStation.tsx'
import { ReadStation } from './read/ReadStation.tsx'
import { ReturnStation } from './return/ReturnStation.tsx'
import { Differences } from './Differences.tsx'
import { StationStrip } from './StationStrip.tsx'
import type { StationProps } from './useStation.ts'

const ChairStation = lazy(() =>
  import('./chair/ChairStation.tsx').then((m) => ({ default: m.ChairStation })),
)

const STATIONS: Record<string, React.ComponentType<StationProps>> = {
  ask: AskStation,
  read: ReadStation,
  plan: PlanStation,
  care: CareStation,
  return: ReturnStation,
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
    return (
      <main className="page" role="status">
        Opening the client …
      </main>
    )
  }
  if (!visit.data)
    return (
      <NoVisit
        clientId={clientId}
        workerId={house.data.workerId}
        service={client.data.client.service}
        name={client.data.client.name}
      />
    )
  const props: StationProps = { page: client.data, visit: visit.data, house: house.data }
  if (station === 'chair' || station === 'wall') {
    return (
      <Suspense fallback={<main className="page">To the chair …</main>}>
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
    setSearch(id === client.data.currentVisitId ? {} : { visit: id }, { replace: true })
  return (
    <div className="client-page">
      <StationStrip {...props} />
      <div className="client-body">
        <HeadSide service={visit.data.service} />
        <main className="worktable">
          <Differences clientId={clientId} differences={client.data.differences} />
          <OlderVisit {...props} current={client.data.currentVisitId} after={after} />
          <Station key={visit.data.id} {...props} />
        </main>
      </div>
      <TideLine
        key={clientId}
        clientId={clientId}
        tide={client.data.tide}
        visitId={visit.data.id}
        onVisit={onVisit}
      />
      <KeysHelp />
    </div>
  )
}

/** For whom sees names, telephones and times only. */
function AtTheDesk({ page }: { page: ClientPage }) {
  const { window } = page.tide
  return (
    <main className="page">
      <div className="page-head">
        <h1>{page.client.name}</h1>
        <p>{SERVICES[page.client.service].name}</p>
      </div>
      {window && (
        <p>
          Good days for the next visit: {dateWords(window.fromMs)} to {dateWords(window.toMs)}.
        </p>
      )}
      <ClientDetails client={page.client} />
      <h2>Visits</h2>
      {page.visits.length === 0 && <p>None yet.</p>}
      {page.visits.map((v) => (
        <p key={v.id}>
          {whenWords(v.endedAtMs ?? v.slotAtMs ?? page.client.createdAtMs)},{' '}
          {SERVICES[v.service].name}
          {v.state === 'finished' ? '' : v.state === 'running' ? ', under way' : ', open'}
        </p>
      ))}
      <p className="soft">Health answers, pictures and maps are for those who work at the chair.</p>
    </main>
  )
}

function HeadSide({ service }: { service: ServiceId }) {
  const layers = useLayers((s) => s.layers)
  return isBodyService(service) ? (
    <section className="head-side" aria-label="The body">
      <BodyStage zones={serviceZones(service)} {...layers} />
    </section>
  ) : (
    <section className="head-side" aria-label="The head">
      <ViewKeys />
      <HeadStage {...layers} />
    </section>
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
      <p className="looking-back">
        {latest ? 'The last visit, ' : 'Visit of '}
        {whenWords(visit.endedAtMs ?? visit.slotAtMs ?? 0)}:{' '}
        {SERVICES[visit.service].name.toLowerCase()}.{' '}
        {latest ? (
          <Link to={`/clients/${page.client.id}/ask`}>To the next visit</Link>
        ) : (
          <Link to="?">Back to the current one</Link>
        )}
      </p>
    )
  }
  if (visit.state !== 'finished') return null
  return (
    <p className="looking-back">
      Last visit, {dateWords(visit.endedAtMs!)}: {SERVICES[visit.service].name.toLowerCase()}.
      <button className="strong small" onClick={begin} disabled={add.isPending}>
        Start a new visit
      </button>
      {add.isError && <span role="alert">{add.error.message}</span>}
    </p>
  )
}

function NoVisit({
  clientId,
  workerId,
  service,
  name,
}: {
  clientId: string
  workerId: string
  service: VisitPage['service']
  name: string
}) {
  const add = useAddVisit(clientId)
  const begin = () =>
    add.mutate({
      ...{ id: newId(), jobs: [oneJob(newId(), service)], workerId },
      slotAtMs: Date.now(),
    })
  useHotkeys([['Enter', begin]])
  return (
    <main className="page">
      <div className="page-head">
        <h1>{name}</h1>
        <p>no visit yet</p>
      </div>
      <div className="empty">
        <p>Start the first visit: ask, read the grain, plan.</p>
        <button className="strong deep" onClick={begin} disabled={add.isPending} autoFocus>
          Start the first visit
        </button>
        {add.isError && <p role="alert">{add.error.message}</p>}
      </div>
      <NavLink to="/clients">To all clients</NavLink>
    </main>
  )
}
