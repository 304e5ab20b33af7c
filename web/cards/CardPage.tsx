/** Cards to print: the mirror card for the chair, the home card for exfoliating. One page each, all lines, no names. */
import { Button, Group, Skeleton } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link, useParams, useSearchParams } from 'react-router'
import type { ClientPage, House, VisitPage } from '../../contract/types.ts'
import { mapDrawing } from '../../core/formats/index.ts'
import type { ViewId } from '../../core/head/index.ts'
import { dateWords } from '../../core/time/index.ts'
import { useClient, useHouse, useVisit } from '../api/queries.ts'
import { useHead } from '../head/loadHead.ts'
import { keptLines } from '../../core/lines/index.ts'
import { useLinePaths } from '../marks/useLinePaths.ts'
import { useFieldReadings } from '../stations/useStation.ts'
import { drawOn, flatViews } from '../stations/read/mapPicture.ts'
import { ConsentCard } from './ConsentCard.tsx'
import { FlatPicture } from './FlatPicture.tsx'
import { NO_HOME_CARD, useBrushes } from './homeCard.ts'
import { PlanCard } from './PlanCard.tsx'

/** Whose eyes a card is for, and so how it is drawn. */
const EYES = {
  mirror:
    'For whoever looks into the mirror: drawn as the mirror shows it, client’s left on the left.',
  facing: 'For whoever faces the client: client’s left is on the right.',
} as const

const CARDS = {
  mirror: {
    title: 'Mirror card',
    use: 'growth',
    eyes: 'mirror',
    views: ['front', 'left', 'right', 'underChin', 'crown'],
    text: 'Arrows show the way hair grows, root to tip. Dashed: read, but not surely. A spiral: hair turns there.',
  },
  facing: {
    title: 'Map card',
    use: 'growth',
    eyes: 'facing',
    views: ['front', 'left', 'right', 'underChin', 'crown'],
    text: 'Arrows show the way hair grows, root to tip. Dashed: read, but not surely. A spiral: hair turns there.',
  },
  shave: {
    title: 'Home card: shaving',
    use: 'growth',
    eyes: 'mirror',
    views: ['front', 'left', 'right', 'underChin'],
    text: 'Shave along the arrows only: with the growth, never against it. Warm water first, gel without gaps, short strokes, no pressure, each place once. Where an arrow is dashed or missing, feel first: smooth is with the growth. A blade that tugs or rusts is over. Leave out sore or open spots.',
  },
  home: {
    title: 'Home card: brushing',
    use: 'exfoliate',
    eyes: 'mirror',
    views: ['front', 'left', 'right', 'underChin'],
    text: 'Brush or rub along the arrows: against the growth, lightly, once a day with a soft brush or cloth, so that tips are freed before they curl back in. Leave out sore or open spots, places where hair turns (a spiral) and where an arrow is dashed; stop for a day when the skin is red. If bumps spread, or hold pus, ask a doctor.',
  },
} as const

export function CardPage() {
  const { clientId = '', card = '' } = useParams()
  const [search] = useSearchParams()
  const client = useClient(clientId)
  const house = useHouse()
  const visitId = search.get('visit') ?? client.data?.currentVisitId ?? null
  const visit = useVisit(visitId)
  const kind = Object.hasOwn(CARDS, card) ? (card as keyof typeof CARDS) : undefined
  if (!kind && card !== 'plan' && card !== 'consent') {
    return (
      <main className="page">
        <h1>There is no such card</h1>
        <Link to={`/clients/${clientId}/read`}>Back to Read</Link>
      </main>
    )
  }
  const failed = [client, visit].find((q) => q.isError && q.data === undefined)?.error
  if (failed) {
    return (
      <main className="page" role="alert">
        <h1>This card could not be made</h1>
        <p>{failed.message}</p>
        <Link to={`/clients/${clientId}/read`}>Back to Read</Link>
      </main>
    )
  }
  if (!client.data || !visit.data || !house.data) {
    return (
      <main className="page" role="status">
        The card is being drawn …
      </main>
    )
  }
  const initials = client.data.client.name
    .split(/\s+/)
    .map((w) => w.charAt(0).toUpperCase())
    .join('. ')
  if (card === 'plan') {
    return (
      <Sheet back={`/clients/${clientId}/plan`} name="Plan">
        {visit.data.plan ? (
          <PlanCard visit={visit.data} plan={visit.data.plan} initials={initials} />
        ) : (
          <p className="card-sheet">No plan is kept yet: keep one at Plan, then print it.</p>
        )}
      </Sheet>
    )
  }
  if (!kind) {
    return (
      <Sheet back={`/clients/${clientId}/ask`} name="Ask">
        <ConsentCard
          visit={visit.data}
          name={client.data.client.name}
          houseName={house.data.name}
          houseText={house.data.consentText}
        />
      </Sheet>
    )
  }
  return (
    <Card
      kind={kind}
      initials={initials}
      page={client.data}
      house={house.data}
      visit={visit.data}
    />
  )
}

/** A page with a card to print on it. */
function Sheet({
  back,
  name,
  children,
}: {
  back: string
  name: string
  children: React.ReactNode
}) {
  return (
    <main className="card-page">
      <Group justify="space-between" maw={1060} mx="auto" mb="sm" className="no-print">
        <Link to={back}>Back to {name}</Link>
        <Button variant="strong" onClick={() => window.print()}>
          Print
        </Button>
      </Group>
      {children}
    </main>
  )
}

function Card({
  kind,
  initials,
  page,
  house,
  visit,
}: {
  kind: keyof typeof CARDS
  initials: string
  page: ClientPage
  house: House
  visit: VisitPage
}) {
  const clientId = page.client.id
  const brushes = useBrushes(page, house, visit)
  const card = CARDS[kind]
  const head = useHead()
  const readings = useFieldReadings(visit)
  const paths = useLinePaths(keptLines(visit.notes.lines))
  const views = useQuery({
    queryKey: ['card', kind, readings, visit.notes.lines, paths.size],
    queryFn: async () => {
      const loaded = head.data!
      const [flat, summary] = await Promise.all([flatViews(), loaded.worker.summary(readings)])
      const drawing = mapDrawing(
        (id) => loaded.zoneById.get(id),
        summary,
        card.use,
        kind === 'mirror' || kind === 'facing' ? [...paths.values()] : [],
        true,
        new Set(readings.map((r) => r.zoneId)),
      )
      return drawOn(loaded, flat, drawing, [...card.views] as ViewId[])
    },
    enabled: head.data !== undefined,
    // Drawn from what is on the device: away from the house too.
    networkMode: 'offlineFirst',
    staleTime: Infinity,
    structuralSharing: false,
    retry: false,
  })
  if (kind === 'home' && !brushes) {
    return (
      <main className="page">
        <h1>There is no home card</h1>
        <p>{NO_HOME_CARD}</p>
        <Link to={`/clients/${clientId}/read`}>Back to Read</Link>
      </main>
    )
  }
  return (
    <main className="card-page">
      <Group justify="space-between" maw={1060} mx="auto" mb="sm" className="no-print">
        <Link to={`/clients/${clientId}/read`}>Back to Read</Link>
        <Button variant="strong" disabled={!views.data} onClick={() => window.print()}>
          Print
        </Button>
      </Group>
      <article
        className={`card-sheet card-${kind === 'home' || kind === 'shave' ? 'home' : 'mirror'}`}
        aria-label={card.title}
      >
        <header>
          <h1>{card.title}</h1>
          <p>
            {initials}. · {dateWords(visit.endedAtMs ?? Date.now())}
            <br />
            {EYES[card.eyes]}
          </p>
        </header>
        {views.data ? (
          <div className="card-views">
            {views.data.map((v) => (
              <figure key={v.id}>
                <FlatPicture parts={v.parts} mirrored={card.eyes === 'mirror'} />
                <figcaption>{v.name}</figcaption>
              </figure>
            ))}
          </div>
        ) : views.isError || head.isError ? (
          <p role="alert">The card could not be drawn. Nothing is lost: reload the page.</p>
        ) : (
          <Skeleton h={420} role="status" aria-label="The card is being drawn" />
        )}
        {readings.length === 0 && <p>Nothing is read yet, so there are no arrows.</p>}
        <footer>{card.text}</footer>
      </article>
    </main>
  )
}
