/** @jest-environment jsdom */
import { catchLetters, openFind, useFind } from './finding.ts'

const press = (key: string, on: EventTarget = document.body, more: KeyboardEventInit = {}) => {
  const e = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
  on.dispatchEvent(e)
  return e
}

describe('letters typed before Find stands', () => {
  const heard: string[] = []
  const page = (e: KeyboardEvent) => heard.push(e.key)
  let end: () => void
  beforeEach(() => {
    heard.length = 0
    document.body.innerHTML = '<input id="find-words">'
    window.addEventListener('keydown', page)
    openFind()
    end = catchLetters()
  })
  afterEach(() => {
    end()
    window.removeEventListener('keydown', page)
  })

  it('go into its field, none to the keys of the page', () => {
    for (const letter of 'orgab') press(letter)
    press('Backspace')
    press('n')
    expect(useFind.getState().words).toBe('organ')
    expect(heard).toEqual([])
  })

  it('are the field’s own as soon as it has the hand', () => {
    press('o')
    document.querySelector('input')!.focus()
    expect(press('r', document.querySelector('input')!).defaultPrevented).toBe(false)
    press('g')
    expect(useFind.getState().words).toBe('o')
    expect(heard).toEqual(['r', 'g'])
  })

  it('leave other keys alone, and end with Escape', () => {
    expect(press('k', document.body, { ctrlKey: true }).defaultPrevented).toBe(false)
    expect(press('Tab').defaultPrevented).toBe(false)
    press('Escape')
    press('x')
    expect(heard).toEqual(['k', 'Tab', 'Escape', 'x'])
    expect(useFind.getState().words).toBe('')
  })

  it('begin with an empty field each time', () => {
    press('a')
    openFind()
    expect(useFind.getState()).toMatchObject({ words: '', wanted: true })
  })
})
