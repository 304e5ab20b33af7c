/** What Ctrl K finds: clients by name and work, the stations of the client in front, rooms, and acts with their keys. */
import { Group, Kbd, useMantineColorScheme } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { createSpotlight, Spotlight } from '@mantine/spotlight'
import '@mantine/spotlight/styles.layer.css'
import { useEffect, useRef, type RefObject } from 'react'
import { useMatch, useNavigate } from 'react-router'
import { SERVICES } from '../../core/services/index.ts'
import { STATION_NAMES, STATIONS } from '../../core/visit/index.ts'
import { drawPaper } from '../api/papers.ts'
import { useClients } from '../api/clientRows.ts'
import { useClient } from '../api/queries.ts'
import { addClient } from '../clients/adding.ts'
import { openHelp } from '../keys/KeysHelp.tsx'
import { signOf, type ShortcutId } from '../keys/shortcuts.ts'
import { useFind } from './finding.ts'
import { ROOMS } from './rooms.ts'
import css from './Spotlight.module.css'

const SHOWN = 8
const [store, find] = createSpotlight()

/**
 * Chooses what stands first. The list chooses only as one types, not when what was looked up comes in.
 * @returns it, where there is any
 */
function selectFirst(): HTMLElement | undefined {
  const list = document.getElementById(store.getState().listId)
  list?.querySelector('[data-selected]')?.removeAttribute('data-selected')
  const first = list?.querySelector<HTMLElement>('[data-action]') ?? undefined
  first?.setAttribute('data-selected', 'true')
  store.updateState((s) => ({ ...s, selected: first ? 0 : -1 }))
  return first
}

interface Found {
  readonly id: string
  readonly words: string
  readonly more?: string
  readonly k?: ShortcutId
  readonly go: () => void
}

const matches = (words: string) => (f: Found) =>
  `${f.words} ${f.more ?? ''}`.toLowerCase().includes(words.trim().toLowerCase())

export function FindSpotlight({ times, field }: { times: number; field: string }) {
  useEffect(() => find.open(), [times])
  const words = useFind((s) => s.words)
  const [asked] = useDebouncedValue(words, 80)
  // Enter that comes before what was typed is found takes the first that is found.
  const waits = useRef(false)
  return (
    <Spotlight.Root
      store={store}
      query={words}
      onQueryChange={(to) => useFind.setState({ words: to })}
      clearQueryOnClose={false}
      onSpotlightClose={() => useFind.setState({ wanted: false })}
      shortcut={null}
      size={560}
      yOffset={90}
      overlayProps={{ blur: 0 }}
      attributes={{ content: { 'aria-label': 'Find' } }}
      transitionProps={{ duration: 0 }}
      // What is typed while clients are still looked up counts as soon as they are there.
      scrollable
      maxHeight={520}
    >
      <Spotlight.Search
        id={field}
        onKeyDown={(e) => {
          if (e.key === 'Enter') waits.current = true
        }}
        placeholder="A client, a page, an act"
        aria-label="Find a client, a page or an act"
        classNames={{ input: css.search ?? '' }}
      />
      <Spotlight.ActionsList>
        <Results words={words} asked={asked} waits={waits} />
      </Spotlight.ActionsList>
    </Spotlight.Root>
  )
}

function Results({
  words,
  asked,
  waits,
}: {
  words: string
  asked: string
  waits: RefObject<boolean>
}) {
  const navigate = useNavigate()
  const { toggleColorScheme } = useMantineColorScheme()
  const at = useMatch('/clients/:clientId/*')?.params.clientId
  const present = useClient(at && at !== 'import' ? at : '').data?.client
  const found = useClients({ find: asked, sort: 'name', which: 'all' })
  const clients = found.data?.rows ?? []
  const settled = asked === words && !found.isPlaceholderData && !found.isPending
  const to = (path: string) => () => void navigate(path)
  const groups: readonly (readonly [string, readonly Found[]])[] = [
    [
      'Clients',
      clients.slice(0, SHOWN).map((c) => ({
        ...{ id: c.id, words: c.name, go: to(`/clients/${c.id}/ask`) },
        more: [c.occupation, SERVICES[c.service].name].filter(Boolean).join(' · '),
      })),
    ],
    [
      present?.name ?? '',
      (present ? STATIONS : [])
        .map((s) => ({ id: s, words: STATION_NAMES[s], go: to(`/clients/${at}/${s}`) }))
        .filter(matches(words)),
    ],
    [
      'Rooms',
      ROOMS.map(([path, name]) => ({ id: path, words: name, go: to(path) })).filter(matches(words)),
    ],
    [
      'Acts',
      [
        { id: 'new', words: 'New client', k: 'new-client' as const, go: addClient },
        { id: 'book', words: 'New appointment', go: to('/week?book=new') },
        { id: 'import', words: 'Import clients', go: to('/clients/import') },
        { id: 'lamp', words: 'Lamp or daylight', go: toggleColorScheme },
        { id: 'keys', words: 'All keys', k: 'keys' as const, go: openHelp },
        ...(present
          ? [
              {
                ...{ id: 'book-them', words: 'Book an hour', more: present.name },
                go: to(`/week?book=${present.id}`),
              },
              {
                ...{ id: 'report', words: 'Report', more: present.name },
                go: () => void drawPaper('report', { id: present.id }, present.name),
              },
            ]
          : []),
      ].filter(matches(words)),
    ],
  ]
  const ids = groups.flatMap(([, list]) => list.map((f) => f.id)).join(' ')
  useEffect(() => {
    const first = words === '' ? undefined : selectFirst()
    if (settled && waits.current) first?.click()
    if (settled) waits.current = false
  }, [ids, words, settled, waits])
  const any = groups.some(([, found]) => found.length > 0)
  return (
    <>
      {groups.map(([name, found]) =>
        found.length === 0 ? null : (
          <Spotlight.ActionsGroup
            key={name}
            label={name}
            classNames={{ actionsGroup: css.group ?? '' }}
          >
            {found.map((f) => (
              <Spotlight.Action key={f.id} onClick={f.go} classNames={{ action: css.action ?? '' }}>
                <Group justify="space-between" wrap="nowrap" w="100%" gap="md">
                  <span>{f.words}</span>
                  {f.k ? <Kbd>{signOf(f.k)}</Kbd> : <small>{f.more}</small>}
                </Group>
              </Spotlight.Action>
            ))}
          </Spotlight.ActionsGroup>
        ),
      )}
      {!any && <Spotlight.Empty>Nothing of that name.</Spotlight.Empty>}
    </>
  )
}
