/** Return: how the skin took it, what it is likely to do, how hair comes back, when to meet again, then and now. */
import { Button, Group, Stack, Tabs, Skeleton, Text } from '@mantine/core'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import type { StationProps } from '../useStation.ts'
import { Looks } from './Looks.tsx'

const Skin = lazy(() => import('./Skin.tsx').then((m) => ({ default: m.Skin })))
const Bumps = lazy(() => import('./Bumps.tsx').then((m) => ({ default: m.Bumps })))
const Hair = lazy(() => import('./Hair.tsx').then((m) => ({ default: m.Hair })))
const NextVisit = lazy(() => import('./NextVisit.tsx').then((m) => ({ default: m.NextVisit })))
const ThenNow = lazy(() => import('./ThenNow.tsx').then((m) => ({ default: m.ThenNow })))

const TABS = [
  ['looks', 'Looks'],
  ['skin', 'Skin'],
  ['bumps', 'Bumps'],
  ['hair', 'Hair'],
  ['next', 'Next visit'],
  ['then', 'Then, now'],
] as const
type Tab = (typeof TABS)[number][0]

export function ReturnStation(props: StationProps) {
  const { visit } = props
  const finished = visit.endedAtMs !== null
  const [tab, setTab] = useState<Tab>(finished ? 'looks' : 'next')
  return (
    <>
      <Tabs value={tab} onChange={(t) => setTab(t as Tab)}>
        <Tabs.List aria-label="What to look at">
          {TABS.map(([id, name]) => (
            <Tabs.Tab key={id} value={id}>
              {name}
            </Tabs.Tab>
          ))}
        </Tabs.List>
      </Tabs>
      <Suspense fallback={<Skeleton h={200} />}>
        {tab === 'looks' &&
          (finished ? <Looks {...props} endedAtMs={visit.endedAtMs!} /> : <NotYet {...props} />)}
        {tab === 'skin' && <Skin {...props} />}
        {tab === 'bumps' && <Bumps {...props} />}
        {tab === 'hair' && (finished ? <Hair {...props} /> : <NotYet {...props} />)}
        {tab === 'next' && <NextVisit {...props} />}
        {tab === 'then' && <ThenNow {...props} />}
      </Suspense>
    </>
  )
}

/** This visit is still ahead; the last one may still be answered. */
function NotYet({ page }: StationProps) {
  const last = page.visits.find((v) => v.state === 'finished')
  return (
    <Stack component="section" gap="md">
      <h1>After the service</h1>
      <Text>
        How the skin looked at once, after an hour, a day, two, a week; when hair was felt and seen.
        Then the next visit’s window.
      </Text>
      <Group gap="sm">
        {last && (
          <Button
            component={Link}
            variant="strong"
            to={`/clients/${page.client.id}/return?visit=${last.id}`}
          >
            Look at the last visit
          </Button>
        )}
        <Button component={Link} to={`/clients/${page.client.id}/ask`}>
          To Ask
        </Button>
      </Group>
    </Stack>
  )
}
