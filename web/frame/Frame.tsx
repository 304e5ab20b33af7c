/** The top band round every page but the Chair. */
import { useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { useDisclosure, useHotkeys } from '@mantine/hooks'
import { NavLink, Outlet, useMatch } from 'react-router'
import { Door } from '../people/Door.tsx'
import { Find } from './Find.tsx'
import { SavedState } from './SavedState.tsx'
import { WhoIsHere } from './WhoIsHere.tsx'

const PLACES = [
  ['/', 'Today'],
  ['/clients', 'Clients'],
  ['/kit', 'Kit'],
  ['/practice', 'Practice'],
  ['/house', 'House'],
] as const

export function Frame() {
  const atChair = useMatch('/clients/:clientId/chair')
  const onWall = useMatch('/clients/:clientId/wall')
  // The chair and the screen on the wall take all of it.
  const inChair = atChair ?? onWall
  const [finding, find] = useDisclosure(false)
  useHotkeys([['mod+K', find.open]], [])
  return (
    <Door>
      <div className="frame">
        {!inChair && <TopBand onFind={find.open} />}
        <Outlet />
        <Find opened={finding} onClose={find.close} />
      </div>
    </Door>
  )
}

function TopBand({ onFind }: { onFind: () => void }) {
  const { toggleColorScheme } = useMantineColorScheme()
  const lamp = useComputedColorScheme('light') === 'dark'
  return (
    <header className="top-band">
      <NavLink to="/" className="wordmark" aria-label="Slow Tide, to Today">
        <svg viewBox="0 0 30 20" width="30" height="20" aria-hidden>
          <path d="M1 12c4-11 9-11 14 0 3 6 6 6 9 2M1 18h28" />
        </svg>
        Slow Tide
      </NavLink>
      <nav aria-label="Places">
        {PLACES.map(([to, name]) => (
          <NavLink key={to} to={to} end={to === '/'}>
            {name}
          </NavLink>
        ))}
      </nav>
      <div className="top-right">
        <SavedState />
        <button className="plain" onClick={onFind}>
          Find <kbd>Ctrl K</kbd>
        </button>
        <button className="plain" onClick={toggleColorScheme} aria-pressed={lamp}>
          {lamp ? 'Daylight' : 'Lamp'}
        </button>
        <WhoIsHere />
      </div>
    </header>
  )
}
