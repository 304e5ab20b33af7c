/** Return: how the skin took it, what it is likely to do, how hair comes back, when to meet again, then and now. */
import { Scroll } from '../../ui/Scroll.tsx'
import { HomeWork } from '../HomeWork.tsx'
import { Button, Group, Stack, Skeleton, Text } from '@mantine/core'
import { lazy, Suspense } from 'react'
import { Link } from 'react-router'
import { StationTabs, useTab } from '../StationTabs.tsx'
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
  ['home', 'Home'],
  ['next', 'Next visit'],
  ['then', 'Then, now'],
] as const

export function ReturnStation(props: StationProps) {
  const { visit } = props
  const finished = visit.endedAtMs !== null
  const [tab, setTab] = useTab(TABS, finished ? 'looks' : 'next')
  return (
    <>
      <StationTabs label="What to look at" tabs={TABS} tab={tab} onTab={setTab} />
      <Suspense fallback={<Skeleton h={200} />}>
        {tab === 'looks' &&
          (finished ? <Looks {...props} endedAtMs={visit.endedAtMs!} /> : <NotYet {...props} />)}
        {tab === 'skin' && <Skin {...props} />}
        {tab === 'bumps' && <Bumps {...props} />}
        {tab === 'hair' && (finished ? <Hair {...props} /> : <NotYet {...props} />)}
        {tab === 'home' && (
          <Scroll label="Work at home">
            <HomeWork {...props} level={1} />
          </Scroll>
        )}
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
