/** In the band: saved, or how much the server does not have yet, and what it refused. */
import { Button, Modal, Stack, Text } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { outbox, useOutbox } from '../outbox/browser.ts'
import { useVersion, type WaitsFor } from '../offline/version.ts'
import { useAway } from '../state/away.ts'
import { hereNow } from '../state/here.ts'
import { useLeft } from '../stations/chair/left.ts'
import { useSaved } from '../state/saved.ts'
import { dateWords, timeWords, whenWords } from '../../core/time/index.ts'

export function SavedState() {
  const savedAt = useSaved((s) => s.atMs)
  const { waiting, refused, here: answers } = useOutbox()
  const [opened, list] = useDisclosure(false)
  // Taps of services whose chair is not open wait apart; they are sent by themselves.
  const taps = useLeft((s) => s.count)
  const many = waiting.length + taps
  const keptAtMs = useAway((s) => s.keptAtMs)
  // With nothing but taps waiting the outbox has not asked; the pages have.
  const here = answers && keptAtMs === null
  const take = useVersion((s) => s.take)
  return (
    <>
      {take && <NewVersion take={take} />}
      {keptAtMs !== null && (
        <span className="saved unsaved" role="status">
          House away: as of{' '}
          {dateWords(keptAtMs) === dateWords(Date.now())
            ? timeWords(keptAtMs)
            : whenWords(keptAtMs)}
        </span>
      )}
      <span className={many > 0 && !here ? 'saved unsaved' : 'saved'} role="status">
        {many > 0 ? `${many} not saved yet` : savedAt === null ? '' : `Saved ${timeWords(savedAt)}`}
      </span>
      {(refused.length > 0 || (many > 0 && !here)) && (
        <Button size="compact-sm" variant="subtle" onClick={list.open}>
          {refused.length > 0 ? `${refused.length} refused` : 'What?'}
        </Button>
      )}
      <Modal opened={opened} onClose={list.close} title="What the server does not have">
        <Stack>
          {many > 0 && (
            <div>
              <Text>
                {here
                  ? 'On its way:'
                  : 'The server does not answer. Kept on this screen, and sent as soon as it does:'}
              </Text>
              {taps > 0 && (
                <Text>
                  {taps} {taps === 1 ? 'tap' : 'taps'} at the chair
                </Text>
              )}
              {waiting.map((w) => (
                <Text key={w.id}>
                  {whenWords(w.atMs)}: {w.what}
                  {w.by != null && w.by !== hereNow() && ' (waits until who entered it signs in)'}
                </Text>
              ))}
            </div>
          )}
          {refused.map((r) => (
            <div key={r.id} role="alert">
              <Text fw={700}>
                {r.what}, entered {whenWords(r.atMs)}: refused
              </Text>
              <Text>{r.why}</Text>
              <Button size="compact-sm" variant="default" onClick={() => void outbox.dismiss(r.id)}>
                I have seen it
              </Button>
            </div>
          ))}
          {many === 0 && refused.length === 0 && <Text>Everything is saved.</Text>}
        </Stack>
      </Modal>
    </>
  )
}

const VERSION_WAITS: Record<WaitsFor | 'work', string> = {
  service: 'A service runs: the new version waits',
  unsaved: 'Not all is saved: the new version waits',
  work: 'The new version comes in a moment',
}

function NewVersion({ take }: { take: () => Promise<void> }) {
  const waits = useVersion((s) => s.waits)
  return (
    <Button size="compact-sm" variant="subtle" onClick={() => void take()}>
      {waits ? VERSION_WAITS[waits] : 'Take the new version'}
    </Button>
  )
}
