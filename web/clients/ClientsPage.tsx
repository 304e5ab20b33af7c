/** All clients: find, sort, add. */
import { TextInput } from '@mantine/core'
import { useDebouncedValue, useHotkeys } from '@mantine/hooks'
import { lazy, Suspense, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { SERVICES } from '../../core/services/index.ts'
import { dateWords, daysWords } from '../../core/time/index.ts'
import { useClients } from '../api/queries.ts'
import { More } from '../frame/More.tsx'
import { noDialog } from '../state/dialog.ts'

/** Fetched once the page stands, so that the first key of a name finds its field. */
const NewClient = lazy(() => import('./NewClient.tsx').then((m) => ({ default: m.NewClient })))

const SORTS = [
  ['name', 'Name'],
  ['due', 'Due'],
  ['last', 'Last seen'],
] as const

export function ClientsPage() {
  const [words, setWords] = useState('')
  const [find] = useDebouncedValue(words, 120)
  const [sort, setSort] = useState<(typeof SORTS)[number][0]>('name')
  const [adding, setAdding] = useState(false)
  const clients = useClients(find, sort)
  const rows = clients.data?.pages.flatMap((p) => p.rows)
  const total = clients.data?.pages[0]?.total ?? 0
  const navigate = useNavigate()
  useHotkeys([['N', () => noDialog() && setAdding(true)]])
  return (
    <main className="page">
      <div className="page-head">
        <h1>Clients</h1>
        <p>{rows ? `${total} ${find ? 'found' : 'in this house'}` : ''}</p>
        <button className="strong" onClick={() => setAdding(true)}>
          New client <kbd>N</kbd>
        </button>
        <Link className="strong" to="/clients/import">
          Import …
        </Link>
      </div>
      <div className="list-tools">
        <TextInput
          aria-label="Find by name or occupation"
          placeholder="Find by name or occupation"
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
          w={320}
        />
        <div className="switch" role="group" aria-label="Order">
          {SORTS.map(([id, name]) => (
            <button key={id} aria-pressed={sort === id} onClick={() => setSort(id)}>
              {name}
            </button>
          ))}
        </div>
      </div>
      {clients.isPending && <p role="status">Looking up clients …</p>}
      {clients.isError && <p role="alert">{clients.error.message}</p>}
      {rows?.length === 0 && (
        <div className="empty">
          <p>{find ? `Nobody matches “${find}”.` : 'Nobody here yet.'}</p>
          <button className="strong" onClick={() => setAdding(true)}>
            Add a client
          </button>
        </div>
      )}
      {rows && rows.length > 0 && (
        <table className="list">
          <thead>
            <tr>
              <th scope="col">Client</th>
              <th scope="col">Service</th>
              <th scope="col" className="num">
                Visits
              </th>
              <th scope="col">Last seen</th>
              <th scope="col">Good days</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((c) => (
              <tr key={c.id} onClick={() => void navigate(`/clients/${c.id}/ask`)}>
                <td>
                  <Link
                    className="name"
                    to={`/clients/${c.id}/ask`}
                    onClick={(e) => e.stopPropagation()}
                  >
                    {c.name}
                  </Link>
                  <small>
                    {[c.calledName && `called ${c.calledName}`, c.occupation]
                      .filter(Boolean)
                      .join(' · ')}
                  </small>
                </td>
                <td>{SERVICES[c.service].name}</td>
                <td className="num">{c.visits}</td>
                <td>{c.lastAtMs === null ? 'not yet' : dateWords(c.lastAtMs)}</td>
                <td>
                  {c.dueFromMs === null || c.dueToMs === null
                    ? c.visits === 0
                      ? 'after the first visit'
                      : 'after the next visit'
                    : daysWords(c.dueFromMs, c.dueToMs)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <More of={clients} shown={rows?.length ?? 0} total={total} />
      <Suspense>
        <NewClient opened={adding} onClose={() => setAdding(false)} />
      </Suspense>
    </main>
  )
}
