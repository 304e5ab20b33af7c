import { makeHand, type HandMeanings, type Place } from './gestures.ts'

function hand(over: Partial<HandMeanings> = {}) {
  const log: string[] = []
  const path = (p: readonly Place[]) => `${p.length} points to ${p.at(-1)!.x},${p.at(-1)!.y}`
  const means: HandMeanings = {
    onHead: () => true,
    draws: () => true,
    tap: (p) => log.push(`tap ${p.x},${p.y}`),
    strokeMoved: () => undefined,
    strokeEnded: (p) => log.push(`stroke ${path(p)}`),
    strokeDropped: () => log.push('dropped'),
    turn: (dx, dy) => log.push(`turn ${dx},${dy}`),
    zoom: (f) => log.push(`zoom ${f.toFixed(2)}`),
    ...over,
  }
  return { log, ...makeHand(means) }
}
const press = (id: number, x: number, y: number, secondary = false) => ({ id, x, y, secondary })

describe('the hand on the head', () => {
  it('taps when it hardly moves', () => {
    const h = hand()
    h.press(press(1, 10, 10))
    h.move(1, { x: 13, y: 12 })
    h.release(1)
    expect(h.log).toEqual(['tap 10,10'])
  })

  it('draws from where it was pressed to where it was let go', () => {
    const h = hand()
    h.press(press(1, 10, 10))
    h.move(1, { x: 10, y: 30 })
    h.move(1, { x: 10, y: 50 })
    h.release(1)
    expect(h.log).toEqual(['stroke 3 points to 10,50'])
  })

  it('turns with the second button, off the head, or where nothing is drawn', () => {
    const right = hand()
    right.press(press(1, 0, 0, true))
    right.move(1, { x: 5, y: -2 })
    right.release(1)
    expect(right.log).toEqual(['turn 5,-2'])
    const off = hand({ onHead: () => false })
    off.press(press(1, 0, 0))
    off.move(1, { x: 20, y: 0 })
    off.release(1)
    expect(off.log).toEqual(['turn 20,0'])
    const looking = hand({ draws: () => false })
    looking.press(press(1, 0, 0))
    looking.move(1, { x: 0, y: 9 })
    looking.release(1)
    expect(looking.log).toEqual(['turn 0,9'])
  })

  it('drops a stroke when a second finger comes, then turns and pinches', () => {
    const h = hand()
    h.press(press(1, 0, 0))
    h.move(1, { x: 20, y: 0 })
    h.press(press(2, 60, 0))
    h.move(2, { x: 100, y: 0 })
    h.release(2)
    h.release(1)
    expect(h.log).toEqual(['dropped', 'turn 20,0', 'zoom 2.00'])
    // The hand is free again.
    h.press(press(3, 1, 1))
    h.release(3)
    expect(h.log.at(-1)).toBe('tap 1,1')
  })

  it('drags what it took hold of, and drops it where it is let go, also when a second finger comes', () => {
    const log: string[] = []
    const h = hand({
      grip: (p) => (p.x < 20 ? 'point' : undefined),
      dragged: (id, p) => log.push(`${id} to ${p.x},${p.y}`),
      dropped: (id, p) => log.push(`${id} at ${p.x},${p.y}`),
    })
    h.press(press(1, 10, 10))
    h.move(1, { x: 30, y: 10 })
    h.move(1, { x: 60, y: 20 })
    h.release(1)
    expect(log).toEqual(['point to 30,10', 'point to 60,20', 'point at 60,20'])
    h.press(press(1, 10, 10))
    h.move(1, { x: 40, y: 10 })
    h.press(press(2, 90, 10))
    expect(log.at(-1)).toBe('point at 40,10')
    h.release(1)
    h.release(2)
    // A tap on it is still a tap, and beside it a stroke is still a stroke.
    h.press(press(1, 10, 10))
    h.release(1)
    h.press(press(1, 30, 10))
    h.move(1, { x: 30, y: 40 })
    h.release(1)
    expect(h.log.slice(-2)).toEqual(['tap 10,10', 'stroke 2 points to 30,40'])
  })

  it('lets go of everything when the pointer is taken away', () => {
    const h = hand()
    h.press(press(1, 0, 0))
    h.move(1, { x: 20, y: 0 })
    h.cancel()
    h.release(1)
    expect(h.log).toEqual(['dropped'])
  })
})
