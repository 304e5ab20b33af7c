/** The house: who works here, which schools it follows, and every constant with its mark and source. */
import { Button, Table } from '@mantine/core'
import { SERVICE_IDS } from '../../core/services/index.ts'
import { readerWords } from '../../core/grain/index.ts'
import { SCHOOL_IDS, SCHOOLS } from '../../core/house/index.ts'
import { PACE_KINDS, paceOf, paceWords } from '../../core/plan/index.ts'
import { consentText, CLOSING_SENTENCE } from '../../core/screening/index.ts'
import { lazy, Suspense, useState } from 'react'
import { useSearchParams } from 'react-router'
import type { House } from '../../contract/types.ts'
import { useChangeHouse, useHouse } from '../api/queries.ts'
import { useFigures } from '../state/figures.ts'
import { atWords } from '../state/words.ts'
import { Closed } from './Closed.tsx'
import { Figures } from './Figures.tsx'
import { Outbox } from './Outbox.tsx'
import { PeoplePart } from './PeoplePart.tsx'
import { Probe } from './Probe.tsx'
import { ScreensPart } from './ScreensPart.tsx'
import { TrailPart } from './TrailPart.tsx'
import { Rules } from './Rules.tsx'
import { SafetyPart } from './SafetyPart.tsx'

const Studio = lazy(() => import('./Studio.tsx').then((m) => ({ default: m.Studio })))

function Worker({
  worker,
  seen,
  maps,
  onChange,
}: {
  worker: House['workers'][number]
  /** What their services told of their pace. */
  seen: House['paces'][string]
  /** What their maps told of how surely they read. */
  maps: House['readers'][string]
  onChange: (w: House['workers'][number]) => void
}) {
  const keep = (change: Partial<typeof worker>) => {
    const next = { ...worker, ...change }
    // A name is never lost to an empty field: it stays as it was.
    if (next.name.trim() && next.role.trim()) onChange(next)
  }
  const figures = useFigures()
  const paces = PACE_KINDS.flatMap((kind) => {
    const pace = paceOf(figures, kind, seen)
    return pace.services > 0 ? [paceWords(kind, pace)] : []
  })
  const reads = readerWords(figures, maps)
  return (
    <div className="worker-row">
      <input
        className="text-input"
        aria-label="Name"
        defaultValue={worker.name}
        maxLength={60}
        onBlur={(e) =>
          e.currentTarget.value.trim() !== worker.name &&
          keep({ name: e.currentTarget.value.trim() })
        }
      />
      <input
        className="text-input"
        aria-label={`What ${worker.name} does`}
        defaultValue={worker.role}
        maxLength={60}
        onBlur={(e) =>
          e.currentTarget.value.trim() !== worker.role &&
          keep({ role: e.currentTarget.value.trim() })
        }
      />
      <div className="switch" role="group" aria-label={`Hand of ${worker.name}`}>
        {(['right', 'left'] as const).map((hand) => (
          <button key={hand} aria-pressed={worker.hand === hand} onClick={() => keep({ hand })}>
            {hand}-handed
          </button>
        ))}
      </div>
      <div className="switch" role="group" aria-label={`Practice of ${worker.name}`}>
        {(['practised', 'learning'] as const).map((level) => (
          <button key={level} aria-pressed={worker.level === level} onClick={() => keep({ level })}>
            {level}
          </button>
        ))}
      </div>
      {paces.length > 0 && <p className="soft">Strokes: {paces.join('; ')} (H).</p>}
      {reads && <p className="soft">Readings of the grain: {reads} (H).</p>}
    </div>
  )
}

const PARTS = {
  forecast: 'Is the forecast right?',
  studio: 'The studio as a whole',
  figures: 'Every constant',
  rules: 'Rules of asking',
  consent: 'Text that clients sign',
  probe: 'Probe thermometer',
  outbox: 'What would be sent',
  safety: 'Backups, and what proves them',
  people: 'Who signs in, and what they may do',
  screens: 'Screens of other machines',
  trail: 'Who looked at, changed or took out what',
  changes: 'What was changed, and when',
} as const

/** Parts that no constant is on. */
const PLAIN = new Set<string>(['safety', 'people', 'screens', 'trail'])

type Part = keyof typeof PARTS
const isPart = (id: string): id is Part => Object.hasOwn(PARTS, id)

function ConsentText({ text, onChange }: { text: string; onChange: (text: string) => void }) {
  const [typed, setTyped] = useState(text)
  return (
    <div className="stack">
      <textarea
        className="text-input"
        rows={9}
        maxLength={6000}
        aria-label="Text of consent"
        placeholder={consentText(SERVICE_IDS[0]!)}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
      />
      <p className="buttons">
        <Button
          variant="strong"

          disabled={typed.trim() === text}
          onClick={() => onChange(typed.trim())}
        >
          Use this text
        </Button>
        {text !== '' && <Button onClick={() => onChange('')}>Back to the default</Button>}
      </p>
    </div>
  )
}

function Changes({ changes }: { changes: House['changes'] }) {
  if (changes.length === 0) {
    return <p>Nothing was changed: everything is as it came.</p>
  }
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th scope="col">When</Table.Th>
          <Table.Th scope="col">What</Table.Th>
          <Table.Th scope="col">From</Table.Th>
          <Table.Th scope="col">To</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {[...changes].reverse().map((c, i) => (
          <Table.Tr key={i}>
            <Table.Td>{atWords(c.atMs)}</Table.Td>
            <Table.Td>{c.what}</Table.Td>
            <Table.Td>{c.from}</Table.Td>
            <Table.Td>{c.to}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}

export function HousePage() {
  const [search, setSearch] = useSearchParams()
  const named = search.get('part') ?? ''
  const part = isPart(named) ? named : 'figures'
  const setPart = (id: Part) => setSearch({ part: id }, { replace: true })
  const house = useHouse()
  const change = useChangeHouse()
  return (
    <main className="page house">
      <div className="page-head">
        <h1>{house.data?.name ?? 'House'}</h1>
        <p>who works here, by which schools, with which constants</p>
      </div>
      {house.isPending && <p role="status">Opening the house …</p>}
      {(house.isError || change.isError) && (
        <p role="alert" className="problem">
          {(house.error ?? change.error)?.message}
        </p>
      )}
      <div className="house-columns">
        <section aria-labelledby="schools">
          <h2>Workers</h2>
          <p className="soft">
            Plans take the stance, the free hand and the turn of the head from the hand, and the
            time of strokes from what each has done; the map how far to trust what they read.
          </p>
          {house.data?.workers.map((w) => (
            <Worker
              key={w.id}
              worker={w}
              seen={house.data.paces[w.id] ?? []}
              maps={house.data.readers[w.id] ?? []}
              onChange={(worker) => change.mutate({ worker })}
            />
          ))}
          <h2>Closed days</h2>
          <p className="soft">No window opens and no visit is laid on them.</p>
          {house.data && (
            <Closed closed={house.data.closed} onChange={(closed) => change.mutate({ closed })} />
          )}
          <h2 id="schools">Schools</h2>
          <p className="soft">
            Where practitioners disagree. New plans and aftercare follow these; plans already kept
            do not change.
          </p>
          {house.data &&
            SCHOOL_IDS.map((id) => (
              <label key={id} className="school">
                <span>{SCHOOLS[id].question}</span>
                <select
                  value={house.data.schools[id]}
                  onChange={(e) => change.mutate({ schools: { [id]: e.currentTarget.value } })}
                >
                  {SCHOOLS[id].choices.map((c, i) => (
                    <option key={c.id} value={c.id}>
                      {c.text}
                      {i === 0 ? ' (default)' : ''}
                    </option>
                  ))}
                </select>
              </label>
            ))}
        </section>
        <section aria-labelledby="constants">
          <div className="switch tabs wrap" role="group" aria-label="What of the house">
            {(
              [
                ['forecast', 'Forecast'],
                ['studio', 'Studio'],
                ['figures', 'Constants'],
                ['rules', 'Rules'],
                ['consent', 'Consent'],
                ['probe', 'Probe'],
                ['outbox', 'Outbox'],
                ['people', 'People'],
                ['screens', 'Screens'],
                ['trail', 'Trail'],
                ['safety', 'Safety'],
                ['changes', `Changes ${house.data?.changes.length ?? ''}`],
              ] as const
            ).map(([id, name]) => (
              <button key={id} aria-pressed={part === id} onClick={() => setPart(id)}>
                {name}
              </button>
            ))}
          </div>
          <h2 id="constants">{PARTS[part]}</h2>
          {part === 'forecast' || part === 'studio' ? (
            house.data && (
              <Suspense fallback={<p role="status">Opening …</p>}>
                <Studio key={part} house={house.data} part={part} />
              </Suspense>
            )
          ) : PLAIN.has(part) ? null : (
            <p className="soft">
              P published · C common practice · H house estimate. Changes are dated; plans keep the
              figures they were made with. {CLOSING_SENTENCE}
            </p>
          )}
          {house.data && part === 'figures' && (
            <Figures figures={house.data.figures} onChange={(edit) => change.mutate(edit)} />
          )}
          {house.data && part === 'rules' && (
            <Rules rules={house.data.rules} onChange={(edit) => change.mutate(edit)} />
          )}
          {house.data && part === 'consent' && (
            <ConsentText
              key={house.data.consentText}
              text={house.data.consentText}
              onChange={(consentText) => change.mutate({ consentText })}
            />
          )}
          {house.data && part === 'probe' && <Probe house={house.data} change={change} />}
          {part === 'outbox' && <Outbox />}
          {part === 'safety' && <SafetyPart />}
          {part === 'people' && <PeoplePart />}
          {part === 'screens' && <ScreensPart />}
          {house.data && part === 'trail' && <TrailPart house={house.data} />}
          {house.data && part === 'changes' && <Changes changes={house.data.changes} />}
        </section>
      </div>
    </main>
  )
}
