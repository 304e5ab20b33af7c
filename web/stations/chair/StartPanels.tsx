/** Questions about a service as a whole: another client in the chair, one left open, something wrongly recorded. */
import { useNavigate } from 'react-router'
import type { Busy } from '../../../core/visit/index.ts'
import { onZone } from '../../../core/zones/index.ts'
import { nickZone, type Live } from '../../../core/chair/index.ts'
import { timeWords, whenWords } from '../../../core/time/index.ts'
import { Panel, type Choice } from './Panel.tsx'
import type { PanelProps } from './panelProps.ts'

/** So many others in the chair are named, the latest first. */
const SHOWN = 3

/** Another client of this worker is in the chair: that service is ended, or both go on. */
export function BusyPanel({ tell, onClose, busy }: PanelProps & { busy: readonly Busy[] }) {
  const navigate = useNavigate()
  const latest = [...busy].sort((a, b) => b.lastAtMs - a.lastAtMs).slice(0, SHOWN)
  const both = async () => {
    onClose()
    await tell({ kind: 'started', detail: { beside: true } })
  }
  return (
    <Panel
      name="Somebody is in the chair"
      title={`${latest.map((b) => `${b.name}, last at ${whenWords(b.lastAtMs)}`).join('; ')}: still in the chair.${busy.length > SHOWN ? ` And ${busy.length - SHOWN} more.` : ''}`}
      onClose={onClose}
      closeWords="not yet"
      choices={[
        ...latest.map((b) => ({
          words: `To ${b.name}: end it first`,
          pick: () => void navigate(`/clients/${b.clientId}/chair?visit=${b.visitId}`),
        })),
        { words: 'Both go on: begin', pick: both },
      ]}
    />
  )
}

/** A service that nobody ended; no answer lies under the key that the hand repeats. */
export function LeftOpenPanel({ tell, onClose, sinceMs }: PanelProps & { sinceMs: number }) {
  return (
    <Panel
      name="Left open"
      title={`Left open since ${whenWords(sinceMs)}: nothing has happened since.`}
      onClose={onClose}
      closeWords="it goes on"
      choices={[
        {
          words: `End it as of ${whenWords(sinceMs)}`,
          more: 'what was not reached was not done; no time is added',
          guarded: true,
          pick: async () => {
            onClose()
            await tell({ kind: 'ended-late' })
          },
        },
      ]}
    />
  )
}

/** What can be taken back of a service, the latest first. */
export function takeBackChoices({ plan, state }: Live, tell: (of: string) => unknown): Choice[] {
  const place = (zone: string | undefined) => (zone ? ` ${onZone(zone as never)}` : '')
  const told = [
    ...state.nicks.map((n) => ({
      id: n.id,
      atMs: n.atMs,
      words: `nick${place(nickZone(plan, n))}`,
    })),
    ...state.redness.map((r) => ({
      id: r.id,
      atMs: r.atMs,
      words: `redness ${r.grade}${place(r.zoneId)}`,
    })),
  ]
  const canUnstart =
    state.startId !== undefined && state.status !== 'finished' && state.blades.length === 0
  return [
    ...told
      .sort((a, b) => b.atMs - a.atMs)
      .map((t) => ({
        words: `Take back: ${t.words}`,
        more: `wrongly recorded at ${timeWords(t.atMs)}`,
        pick: () => tell(t.id),
      })),
    ...(canUnstart
      ? [
          {
            words: 'Take back the start',
            more: 'it was started by mistake',
            pick: () => tell(state.startId!),
          },
        ]
      : []),
  ]
}

export function TakeBackPanel({ chair, tell, onClose }: PanelProps) {
  const choices = takeBackChoices(chair.live, async (of) => {
    onClose()
    await tell({ kind: 'taken-back', detail: { of } })
  })
  return (
    <Panel
      name="Take back"
      title={
        choices.length > 0
          ? 'What was wrongly recorded? Its entry stays in the record, marked as taken back.'
          : 'Nothing can be taken back: no nick, no redness, and a blade has been opened.'
      }
      onClose={onClose}
      choices={choices}
    />
  )
}
