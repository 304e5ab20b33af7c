/** Listens for keys of the one table. They belong to the page only while no dialog lies over it and nobody writes. */
import { useHotkeys } from '@mantine/hooks'
import { noDialog } from '../state/dialog.ts'
import { shortcut, type ShortcutId } from './shortcuts.ts'

type Act = (event: KeyboardEvent) => void
/** An act that is not to be had now is left out. */
export type Acts = Partial<Record<ShortcutId, Act | false | undefined | null>>

/** Whether a key that was pressed there is the field's own: words are written, or an arrow moves the choice. */
export function isFieldsOwn(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target.isContentEditable || /^(TEXTAREA|SELECT)$/.test(target.tagName)) return true
  const moves = key.startsWith('Arrow') || key === ' '
  if (target instanceof HTMLInputElement) {
    if (/^(radio|checkbox|range|file|button)$/.test(target.type)) return moves
    // A list to choose from: nothing is written into it.
    return target.readOnly ? moves || key === 'Enter' : true
  }
  if (/^(slider|tab|option|menuitem)$/.test(target.getAttribute('role') ?? ''))
    return key.startsWith('Arrow')
  return false
}

/** A button takes Space and Enter for itself. */
const isButtonsOwn = (target: EventTarget | null, key: string): boolean =>
  target instanceof HTMLElement &&
  /^(BUTTON|A|SUMMARY)$/.test(target.tagName) &&
  (key === ' ' || key === 'Enter')

export function useKeys(acts: Acts, { overDialogs = false, overButtons = false } = {}): void {
  useHotkeys(
    (Object.entries(acts) as [ShortcutId, Act | false | undefined][]).flatMap(([id, act]) =>
      act
        ? shortcut(id).keys.map((key): [string, Act, { preventDefault: boolean }] => [
            key,
            (event) => {
              if (isFieldsOwn(event.target, event.key) && !event.ctrlKey && !event.metaKey) return
              if (!overButtons && isButtonsOwn(event.target, event.key)) return
              if (!overDialogs && !noDialog()) return
              event.preventDefault()
              act(event)
            },
            { preventDefault: false },
          ])
        : [],
    ),
    [],
  )
}
