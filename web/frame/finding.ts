/** Whether Find is wanted, and what is typed into it. */
import { create } from 'zustand'

/** How often Find was asked for, whether it is wanted now, and what stands in its field. */
export const useFind = create<{
  readonly times: number
  readonly wanted: boolean
  readonly words: string
}>(() => ({ times: 0, wanted: false, words: '' }))

/** The field of Find. */
export const FIELD = 'find-words'

/**
 * Opens Find. What is typed before its field stands goes into the field: a quick hand loses no letter, and none of them is
 * taken for a key of the page.
 */
export function openFind() {
  useFind.setState((s) => ({ times: s.times + 1, wanted: true, words: '' }))
}

/** Keeps the letters typed until the field has the hand. @returns what ends it */
export function catchLetters(): () => void {
  const onKey = (e: KeyboardEvent) => {
    if (document.activeElement?.id === FIELD) return end()
    if (e.ctrlKey || e.metaKey || e.altKey) return
    if (e.key === 'Escape') return end()
    if (e.key.length !== 1 && e.key !== 'Backspace') return
    e.preventDefault()
    e.stopImmediatePropagation()
    useFind.setState(({ words }) => ({
      words: e.key === 'Backspace' ? words.slice(0, -1) : words + e.key,
    }))
  }
  const end = () => window.removeEventListener('keydown', onKey, true)
  window.addEventListener('keydown', onKey, true)
  return end
}
