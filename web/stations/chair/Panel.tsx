/** What opens over the step: a question with large answers, each with its number key. Escape closes it. */
import { Button, UnstyledButton, Kbd } from '@mantine/core'
import { useHotkeys } from '@mantine/hooks'
import type { ReactNode } from 'react'

export interface Choice {
  readonly words: string
  readonly more?: string | undefined
  readonly pick: () => unknown
  readonly strong?: boolean
  readonly disabled?: boolean
  readonly pressed?: boolean | undefined
  /** Never under the key that the hand repeats: the answer is looked for, not fallen into. */
  readonly guarded?: boolean
}

export function Panel({
  name,
  title,
  choices,
  onClose,
  closeWords = 'Close',
  children,
}: {
  name: string
  title: ReactNode
  choices: readonly Choice[]
  onClose: () => void
  closeWords?: string
  children?: ReactNode
}) {
  useHotkeys([
    ...choices.map((c, i): [string, () => void] => [
      String(i + 1),
      () => void (c.disabled || c.pick()),
    ]),
    // The pedal takes what is offered first.
    ['space', () => void choices.find((c) => c.strong && !c.disabled)?.pick()],
    ['Escape', onClose],
  ])
  return (
    <div className="chair-panel" role="dialog" aria-label={name}>
      <p className="panel-title">{title}</p>
      {children}
      <div className="panel-choices">
        {choices.map((c, i) => (
          <UnstyledButton
            key={c.words}
            className={c.strong ? 'deep' : ''}
            disabled={c.disabled}
            aria-pressed={c.pressed}
            autoFocus={i === 0 && !c.guarded}
            onClick={() => void c.pick()}
          >
            <Kbd>{i + 1}</Kbd> {c.words}
            {c.more && <small>{c.more}</small>}
          </UnstyledButton>
        ))}
        <Button size="sm" autoFocus={choices[0]?.guarded === true} onClick={onClose}>
          <Kbd>Esc</Kbd> {closeWords}
        </Button>
      </div>
    </div>
  )
}
