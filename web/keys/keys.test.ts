import { readFileSync } from 'node:fs'
import {
  ariaKeys,
  keysByPlace,
  keysMarkdown,
  SHORTCUTS,
  shortcut,
  signOf,
  type ShortcutId,
} from './shortcuts.ts'

const ids = Object.keys(SHORTCUTS) as ShortcutId[]

describe('the table of keys', () => {
  it('gives every key of a place to one act, besides what a dialog takes', () => {
    for (const [place, keys] of keysByPlace()) {
      const asked = [
        'Takes the answer of that number',
        'Takes what is offered first',
        'Closes what is asked',
      ]
      const all = keys.filter((k) => !asked.includes(k.does)).flatMap((k) => k.keys)
      expect([place, all.length]).toEqual([place, new Set(all).size])
    }
  })

  it('says each in words, with a sign, and as a screen reader wants it', () => {
    for (const id of ids) {
      expect(shortcut(id).does.length).toBeGreaterThan(3)
      expect(signOf(id)).not.toBe('')
    }
    expect(ariaKeys('find')).toBe('Control+K')
    expect(ariaKeys('redo')).toBe('Shift+Z')
    expect(signOf('take-back')).toBe('⌫')
  })

  it('is the table of the README', () => {
    expect(readFileSync('README.md', 'utf8')).toContain(keysMarkdown())
  })

  it('is where every key comes from: nobody listens beside it', () => {
    const heard = readFileSync('web/keys/useKeys.ts', 'utf8')
    expect(heard).toContain('useHotkeys')
  })
})
