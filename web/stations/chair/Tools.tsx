/** Round the chair: whether what is told arrives, the voice, the second screen. */
import { Button, Group } from '@mantine/core'
import { Link } from 'react-router'
import css from './Chair.module.css'
import type { ChairProps } from './ChairHead.tsx'
import { canSpeak, useVoice } from './voice.ts'

/** Whether what is told arrives. */
export function Away({ chair }: ChairProps) {
  if (chair.here) return null
  return (
    <p className={css.away} role="status">
      No connection.{' '}
      {chair.waiting === 0
        ? 'Go on: every tap is kept on this screen.'
        : `${chair.waiting} ${chair.waiting === 1 ? 'tap is' : 'taps are'} kept on this screen and sent when the server is back.`}
    </p>
  )
}

/** Voice, and the second screen. */
export function Tools({ clientId }: { clientId: string }) {
  const voice = useVoice()
  return (
    <Group gap="xs" wrap="nowrap" visibleFrom="sm">
      {canSpeak && (
        <Button size="sm" aria-pressed={voice.on} onClick={voice.toggle}>
          Voice {voice.on ? 'on' : 'off'}
        </Button>
      )}
      <Button
        component={Link}
        size="sm"
        to={`/clients/${clientId}/wall`}
        target="_blank"
        rel="noreferrer"
      >
        Wall screen
      </Button>
    </Group>
  )
}
