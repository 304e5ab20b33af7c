/** Acts with their keys: the word and its key are one thing. */
import { Button, Kbd, UnstyledButton, type ButtonProps } from '@mantine/core'
import type { ReactNode, Ref } from 'react'
import { ariaKeys, signOf, type ShortcutId } from '../keys/shortcuts.ts'
import { useKeys } from '../keys/useKeys.ts'
import css from './Act.module.css'

interface ActProps {
  readonly k: ShortcutId
  readonly onAct: () => void
  readonly children: ReactNode
  /** Given where it can be on or off. */
  readonly pressed?: boolean | undefined
  readonly disabled?: boolean | undefined
  /** Which side of the head it stands at: the key is the outer one. */
  readonly side?: 'left' | 'right'
  readonly title?: string
}

/** A word beside the head. What is chosen stands over a line of tide. */
export function Act({ k, onAct, children, pressed, disabled = false, side, title }: ActProps) {
  useKeys({ [k]: disabled ? undefined : onAct })
  return (
    <UnstyledButton
      className={css.act}
      mod={{ side }}
      aria-pressed={pressed}
      aria-keyshortcuts={ariaKeys(k)}
      disabled={disabled}
      title={title}
      onClick={onAct}
    >
      <Kbd aria-hidden>{signOf(k)}</Kbd>
      <span className={css.word}>{children}</span>
    </UnstyledButton>
  )
}

/** A button that has a key. */
export function KeyButton({
  k,
  onAct,
  children,
  disabled,
  ...rest
}: Pick<ActProps, 'k' | 'onAct' | 'children'> &
  ButtonProps & { ref?: Ref<HTMLButtonElement>; autoFocus?: boolean; 'aria-label'?: string }) {
  useKeys({ [k]: disabled || rest.loading ? undefined : onAct })
  return (
    <Button
      {...rest}
      disabled={disabled ?? false}
      aria-keyshortcuts={ariaKeys(k)}
      onClick={onAct}
      rightSection={<Kbd aria-hidden>{signOf(k)}</Kbd>}
    >
      {children}
    </Button>
  )
}
