/** What is needed at the chair now and then. */
import { resume, type Draft } from '../../../core/chair/index.ts'
import { useMediaQuery } from '@mantine/hooks'
import { Panel } from './Panel.tsx'
import type { PanelProps } from './panelProps.ts'
import { canSpeak, useVoice } from './voice.ts'

export type More = 'skip' | 'redness' | 'leave-out' | 'stop' | 'take-back'

export function MorePanel({
  chair,
  tell,
  onClose,
  onMore,
}: PanelProps & { onMore: (what: More) => void }) {
  const { state, plan } = chair.live
  const step = plan.steps[state.index]
  const here = step ? { stepId: step.id } : {}
  const and = async (draft: Draft) => {
    onClose()
    await tell(draft)
  }
  // On a phone the bar holds three keys; the others stand here.
  const voice = useVoice()
  const phone = useMediaQuery('(max-width: 760px)')
  const paused = state.status === 'paused'
  return (
    <Panel
      name="More"
      title="More"
      onClose={onClose}
      choices={[
        { words: 'Client asks to stop', more: 'X', pick: () => onMore('stop') },
        ...(phone
          ? [
              {
                words: 'It tugs',
                more: 'T',
                pick: () => and({ kind: 'tug', ...here }),
                disabled: paused || !step,
              },
              {
                words: 'New blade',
                more: 'B',
                pick: () => and({ kind: 'blade-changed', ...here, detail: { why: 'by-hand' } }),
                disabled: paused || !step,
              },
              ...(canSpeak
                ? [
                    {
                      words: voice.on ? 'Say nothing' : 'Say it aloud',
                      pick: voice.toggle,
                    },
                  ]
                : []),
              {
                words: 'Skip this lane',
                more: 'S',
                pick: () => onMore('skip'),
                disabled: paused || !step,
              },
            ]
          : []),
        {
          words: 'Back',
          more: 'Page up',
          pick: () => and({ kind: 'back' }),
          disabled: paused || state.index === 0,
        },
        {
          words: 'Re-lather',
          more: 'R',
          pick: () => and({ kind: 're-lathered', ...here }),
          disabled: paused || !step,
        },
        {
          words: paused ? 'Go on' : 'Pause',
          more: 'P',
          pick: () => and(paused ? resume(state) : { kind: 'paused' }),
        },
        {
          words: 'Needs pressure',
          more: 'E: the blade is done',
          pick: () => and({ kind: 'pressure', ...here }),
          disabled: paused || !step,
        },
        { words: 'Skin reddens or rises', more: 'W', pick: () => onMore('redness') },
        {
          words: 'Found: leave a place out',
          more: 'L',
          pick: () => onMore('leave-out'),
        },
        {
          words: 'Take something back',
          more: 'a nick, redness or start that was no such thing',
          pick: () => onMore('take-back'),
        },
        {
          words: 'Implements soaking',
          more: 'starts the contact time',
          pick: () => and({ kind: 'soaked' }),
          disabled: paused,
        },
      ]}
    />
  )
}
