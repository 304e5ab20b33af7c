/** The top band round every page but the Chair. */
import {
  Button,
  Group,
  Kbd,
  UnstyledButton,
  useComputedColorScheme,
  useMantineColorScheme,
} from '@mantine/core'
import { IconLamp, IconSun } from '@tabler/icons-react'
import { lazy, Suspense, useEffect } from 'react'
import { NavLink, Outlet, useMatch } from 'react-router'
import { useAdding } from '../clients/adding.ts'
import { Door } from '../people/Door.tsx'
import { KeysHelp } from '../keys/KeysHelp.tsx'
import { ariaKeys, signOf } from '../keys/shortcuts.ts'
import { useKeys } from '../keys/useKeys.ts'
import { Find } from './Find.tsx'
import { openFind } from './finding.ts'
import { ROOMS } from './rooms.ts'
import css from './Frame.module.css'
import { SavedState } from './SavedState.tsx'
import { WhoIsHere } from './WhoIsHere.tsx'

export function Frame() {
  const atChair = useMatch('/clients/:clientId/chair')
  const onWall = useMatch('/clients/:clientId/wall')
  // The chair and the screen on the wall take all of it.
  const inChair = atChair ?? onWall
  useKeys({ find: openFind })
  return (
    <Door>
      <div className={css.frame}>
        {!inChair && <TopBand />}
        <Outlet />
        <Find />
        <Adding />
        <KeysHelp />
      </div>
    </Door>
  )
}

function TopBand() {
  const { toggleColorScheme } = useMantineColorScheme()
  const lamp = useComputedColorScheme('light') === 'dark'
  return (
    <header className={`${css.band} no-print`}>
      <NavLink to="/" className={css.wordmark!} aria-label="Slow Tide, to Today">
        <svg viewBox="0 0 30 20" width="30" height="20" aria-hidden>
          <path d="M1 12c4-11 9-11 14 0 3 6 6 6 9 2M1 18h28" />
        </svg>
        <span>Slow Tide</span>
      </NavLink>
      <nav className={css.rooms} aria-label="Places">
        {ROOMS.map(([to, name]) => (
          <NavLink key={to} to={to} end={to === '/'}>
            {name}
          </NavLink>
        ))}
      </nav>
      <Group className={css.right} gap="xs" wrap="nowrap">
        <SavedState />
        <UnstyledButton
          className={css.quiet}
          onClick={openFind}
          aria-keyshortcuts={ariaKeys('find')}
        >
          Find <Kbd aria-hidden>{signOf('find')}</Kbd>
        </UnstyledButton>
        <UnstyledButton className={css.quiet} onClick={toggleColorScheme} aria-pressed={lamp}>
          {lamp ? <IconSun size={18} stroke={1.5} /> : <IconLamp size={18} stroke={1.5} />}
          <span className={css.word}>{lamp ? 'Daylight' : 'Lamp'}</span>
        </UnstyledButton>
        <WhoIsHere />
      </Group>
    </header>
  )
}

const loadNewClient = () => import('../clients/NewClient.tsx')
const NewClient = lazy(() => loadNewClient().then((m) => ({ default: m.NewClient })))

/** The form for a new client, over whichever page is in front. */
function Adding() {
  const opened = useAdding((s) => s.opened)
  // Fetched before it is asked for: what is typed right after the key must find its field.
  useEffect(() => {
    const timer = setTimeout(() => void loadNewClient(), 1500)
    return () => clearTimeout(timer)
  }, [])
  return opened ? (
    <Suspense fallback={null}>
      <NewClient />
    </Suspense>
  ) : null
}

/** The way back where a page could not be shown. */
export const BackTo = ({ to, children }: { to: string; children: string }) => (
  <Button component={NavLink} to={to}>
    {children}
  </Button>
)
