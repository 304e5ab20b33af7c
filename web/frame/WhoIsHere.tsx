/** At the right of the band: who works at this screen, and what they may do about it. */
import { Menu, UnstyledButton } from '@mantine/core'
import { IconChevronDown } from '@tabler/icons-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { useChangeHouse, useHouse } from '../api/queries.ts'
import css from './Frame.module.css'
import { useDoor, useSession } from '../people/session.ts'

const first = (name: string) => name.split(' ')[0]!

export function WhoIsHere() {
  const { data: session } = useSession()
  const house = useHouse()
  const change = useChangeHouse()
  const { lock, signOut } = useDoor()
  const [opened, setOpened] = useState(false)
  const here = house.data?.workers.find((w) => w.id === house.data.workerId)
  if (!here || !session) return null
  const signs = session.mode === 'people' || session.mode === 'demo'
  return (
    <Menu opened={opened} onChange={setOpened} position="bottom-end" withinPortal={false}>
      <Menu.Target>
        <UnstyledButton
          className={css.quiet}
          aria-label={`Who works at this screen: ${here.name}, ${here.hand}-handed`}
        >
          {first(here.name)} <IconChevronDown size={16} stroke={1.5} />
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        {signs ? (
          <>
            {session.mode === 'demo' && <Menu.Label>The demo signs in by itself</Menu.Label>}
            <Menu.Item onClick={() => lock.mutate()}>Lock, or change the worker</Menu.Item>
            {session.mode === 'people' && (
              <Menu.Item onClick={() => signOut.mutate()}>Sign out</Menu.Item>
            )}
          </>
        ) : (
          <>
            <Menu.Label>Nobody signs in here</Menu.Label>
            {house.data!.workers.map((w) => (
              <Menu.Item key={w.id} onClick={() => change.mutate({ workerId: w.id })}>
                {w.name}, {w.hand}-handed
              </Menu.Item>
            ))}
          </>
        )}
        <Menu.Item component={Link} to="/house/workers">
          Figures and people
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}
