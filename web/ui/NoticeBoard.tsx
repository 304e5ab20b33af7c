/** Shows what is told for a moment, at the top of the screen, one under the other. */
import { Button, Group, Progress, Stack, Text } from '@mantine/core'
import { Notifications, notifications } from '@mantine/notifications'
import '@mantine/notifications/styles.layer.css'
import { newId } from '../state/words.ts'
import type { Notice } from './notices.ts'

/** What can be undone or tried again stays for as long as it takes to read it and reach for it. */
const SHORT_MS = 4000
const WITH_ACT_MS = 9000

export function NoticeBoard() {
  return <Notifications position="top-center" limit={3} containerWidth={480} zIndex={400} />
}

export function show(notice: Notice): void {
  const { kind, act, id = newId() } = notice
  const shown = {
    id,
    message: <Told notice={notice} onEnd={() => hide(id)} />,
    color: kind === 'failed' ? 'coral' : 'tide',
    loading: kind === 'working',
    withCloseButton: kind !== 'working',
    autoClose: kind === 'working' ? (false as const) : act ? WITH_ACT_MS : SHORT_MS,
    // Only what went wrong cuts in.
    role: kind === 'failed' ? 'alert' : 'status',
  }
  // One that is there already is changed; `show` leaves it as it is.
  notifications.show(shown)
  notifications.update(shown)
}

export const hide = (id: string) => void notifications.hide(id)

function Told({ notice: { words, act, share }, onEnd }: { notice: Notice; onEnd: () => void }) {
  return (
    <Stack gap={6}>
      <Group justify="space-between" wrap="nowrap" gap="md">
        <Text>{words}</Text>
        {act && (
          <Button
            size="sm"
            c="inherit"
            bg="transparent"
            bd="1px solid currentColor"
            onClick={() => {
              act.go()
              onEnd()
            }}
          >
            {act.words}
          </Button>
        )}
      </Group>
      {share !== undefined && <Progress value={100 * share} aria-label="How far it is" />}
    </Stack>
  )
}
