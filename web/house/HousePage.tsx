/** The house: a page for each matter, with its own address. */
import { NavLink, Skeleton, Stack, Text, Title } from '@mantine/core'
import { lazy, Suspense } from 'react'
import { Link, Navigate, useParams, useSearchParams } from 'react-router'
import type { House } from '../../contract/types.ts'
import { CLOSING_SENTENCE } from '../../core/screening/index.ts'
import { useChangeHouse, useHouse } from '../api/queries.ts'
import { Problem } from '../ui/Panel.tsx'
import { Changes } from './Changes.tsx'
import { ConsentText } from './ConsentText.tsx'
import { Figures } from './Figures.tsx'
import { Hours } from './Hours.tsx'
import css from './House.module.css'
import { LookPart } from './LookPart.tsx'
import { Outbox } from './Outbox.tsx'
import { isPart, OLD_NAMES, PARTS, type Part } from './parts.ts'
import { PeoplePart } from './PeoplePart.tsx'
import { PlacePart } from './PlacePart.tsx'
import { Places } from './Places.tsx'
import { Probe } from './Probe.tsx'
import { Rules } from './Rules.tsx'
import { SafetyPart } from './SafetyPart.tsx'
import { SchoolsPart } from './SchoolsPart.tsx'
import { ScreensPart } from './ScreensPart.tsx'
import { TrailPart } from './TrailPart.tsx'
import { WorkersPart } from './WorkersPart.tsx'

const Studio = lazy(() => import('./Studio.tsx').then((m) => ({ default: m.Studio })))

export interface PartProps {
  readonly house: House
  readonly change: ReturnType<typeof useChangeHouse>
}

/** What each page says of itself in a line. */
const SAID: Partial<Readonly<Record<Part, string>>> = {
  hours: 'When the house is open. Slots, messages and windows follow it. Saved as you go.',
  workers:
    'Plans take the stance, the free hand and the turn of the head from the hand, and the time of strokes from what each has done; the map how far to trust what they read.',
  schools:
    'Where practitioners disagree. New plans and aftercare follow these; plans already kept do not change.',
  rules: `Changes are dated; plans keep the rules they were made with. ${CLOSING_SENTENCE}`,
  estimates: `Changes are dated; plans keep the figures they were made with. ${CLOSING_SENTENCE}`,
  look: 'How days, hours, money and measures are written: on the screen, on paper, in calendars and in messages.',
}

export function HousePage() {
  const { part: named = '' } = useParams()
  const [search] = useSearchParams()
  const house = useHouse()
  const change = useChangeHouse()
  const old = search.get('part') ?? named
  const known = OLD_NAMES[old] ?? old
  if (known !== named && isPart(known)) {
    const rest = new URLSearchParams(search)
    rest.delete('part')
    return <Navigate to={`/house/${known}?${rest.toString()}`} replace />
  }
  const part = isPart(named) ? named : 'place'
  return (
    <div className={css.house}>
      <nav className={css.nav} aria-label="The house">
        {(Object.keys(PARTS) as Part[]).map((id) => (
          <NavLink
            key={id}
            component={Link}
            to={`/house/${id}`}
            label={PARTS[id]}
            active={id === part}
            {...(id === part && { 'aria-current': 'page' })}
          />
        ))}
      </nav>
      <main className={css.main}>
        <Title order={1}>{PARTS[part]}</Title>
        {SAID[part] && (
          <Text c="dimmed" mb="md" maw={720}>
            {SAID[part]}
          </Text>
        )}
        <Problem>{(house.error ?? change.error)?.message}</Problem>
        {house.data ? (
          <Suspense fallback={<Waiting />}>
            <Page part={part} house={house.data} change={change} />
          </Suspense>
        ) : (
          house.isPending && <Waiting />
        )}
      </main>
    </div>
  )
}

const Waiting = () => (
  <Stack role="status" aria-label="Opening the house">
    {[1, 2, 3, 4, 5, 6].map((i) => (
      <Skeleton key={i} h={36} />
    ))}
  </Stack>
)

function Page({ part, house, change }: PartProps & { part: Part }) {
  switch (part) {
    case 'place':
      return <PlacePart house={house} change={change} />
    case 'hours':
      return (
        <>
          <Hours closed={house.closed} onChange={(closed) => change.mutate({ closed })} />
          <Places
            kit={house.kit}
            studio={house.studio}
            onChange={(studio) => change.mutate({ studio })}
          />
        </>
      )
    case 'workers':
      return <WorkersPart house={house} change={change} />
    case 'people':
      return <PeoplePart />
    case 'schools':
      return <SchoolsPart house={house} change={change} />
    case 'rules':
      return <Rules rules={house.rules} onChange={(edit) => change.mutate(edit)} />
    case 'consent':
      return (
        <ConsentText
          key={house.consentText}
          text={house.consentText}
          onChange={(consentText) => change.mutate({ consentText })}
        />
      )
    case 'estimates':
      return <Figures figures={house.figures} onChange={(edit) => change.mutate(edit)} />
    case 'forecast':
    case 'studio':
      return <Studio key={part} house={house} part={part} />
    case 'messages':
      return <Outbox />
    case 'probe':
      return <Probe house={house} change={change} />
    case 'look':
      return <LookPart house={house} change={change} />
    case 'screens':
      return <ScreensPart />
    case 'safety':
      return <SafetyPart />
    case 'trail':
      return <TrailPart house={house} />
    case 'changes':
      return <Changes changes={house.changes} />
  }
}
