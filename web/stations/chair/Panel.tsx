/** What opens over the step: a question with large answers, each with its number key. Escape closes it. */
import { Kbd, UnstyledButton } from '@mantine/core'
import type { ReactNode } from 'react'
import { useKeys } from '../../keys/useKeys.ts'
import css from './Chair.module.css'

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
  useKeys(
    {
      answer: (e) => {
        const c = choices[Number(e.key) - 1]
        if (c && !c.disabled) void c.pick()
      },
      // The pedal takes what is offered first.
      'answer-first': () => void choices.find((c) => c.strong && !c.disabled)?.pick(),
      'answer-close': onClose,
    },
    { overDialogs: true, overButtons: true },
  )
  return (
    <div className={css.panel} role="dialog" aria-label={name}>
      <p className={css.title}>{title}</p>
      {children}
      <div className={css.choices}>
        {choices.map((c, i) => (
          <UnstyledButton
            key={c.words}
            className={css.choice}
            mod={{ strong: c.strong }}
            disabled={c.disabled ?? false}
            aria-pressed={c.pressed}
            autoFocus={i === 0 && !c.guarded}
            onClick={() => void c.pick()}
          >
            <Kbd aria-hidden>{i + 1}</Kbd> {c.words}
            {c.more && <small>{c.more}</small>}
          </UnstyledButton>
        ))}
        <UnstyledButton
          className={css.choice}
          autoFocus={choices[0]?.guarded === true}
          onClick={onClose}
        >
          <Kbd aria-hidden>Esc</Kbd> {closeWords}
        </UnstyledButton>
      </div>
    </div>
  )
}

/** One of a row of large answers. */
export const Pick = ({
  on,
  onPick,
  children,
}: {
  on: boolean
  onPick: () => void
  children: ReactNode
}) => (
  <UnstyledButton className={css.pick} aria-pressed={on} onClick={onPick}>
    {children}
  </UnstyledButton>
)
