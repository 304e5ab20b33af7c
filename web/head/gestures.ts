/**
 * The hand on the head as a state machine: still → pressed → stroke, tap or turn. Pointer events in, meanings out;
 * nothing here knows of React or of the drawing.
 */

export interface Place {
  readonly x: number
  readonly y: number
}

export interface HandMeanings {
  /** True when the place lies on the head. */
  readonly onHead: (at: Place) => boolean
  /** True when a drag of one finger draws a stroke; else it turns the head. */
  readonly draws: () => boolean
  /** What can be taken hold of at a place: its id, or undefined. */
  readonly grip?: (at: Place) => string | undefined
  readonly dragged?: (id: string, at: Place) => void
  readonly dropped?: (id: string, at: Place) => void
  readonly tap: (at: Place) => void
  readonly strokeMoved: (path: readonly Place[]) => void
  readonly strokeEnded: (path: readonly Place[]) => void
  readonly strokeDropped: () => void
  readonly turn: (dx: number, dy: number) => void
  readonly zoom: (factor: number) => void
}

type Hand =
  | { readonly is: 'still' }
  | { readonly is: 'pressed'; readonly id: number; readonly path: Place[]; readonly turns: boolean }
  | { readonly is: 'stroke'; readonly id: number; readonly path: Place[] }
  | { readonly is: 'drag'; readonly id: number; readonly grip: string; last: Place }
  | { readonly is: 'turn'; readonly id: number; last: Place }
  | { readonly is: 'two'; readonly fingers: Map<number, Place> }

/** A press that moves less than this is a tap, px. */
const TAP_PX = 6

export interface Press extends Place {
  readonly id: number
  readonly secondary: boolean
}

/** Makes a hand. Feed it pointer presses, moves and releases. */
export function makeHand(means: HandMeanings) {
  let hand: Hand = { is: 'still' }
  const still = () => {
    hand = { is: 'still' }
  }
  return {
    press(p: Press): void {
      if (hand.is === 'still') {
        hand = p.secondary
          ? { is: 'turn', id: p.id, last: p }
          : { is: 'pressed', id: p.id, path: [p], turns: !means.draws() || !means.onHead(p) }
        return
      }
      if (hand.is === 'two') {
        hand.fingers.set(p.id, p)
        return
      }
      // A second finger: whatever the first began was not meant.
      if (hand.is === 'stroke') means.strokeDropped()
      if (hand.is === 'drag') means.dropped?.(hand.grip, hand.last)
      const first =
        hand.is === 'turn' || hand.is === 'drag' ? hand.last : hand.path[hand.path.length - 1]!
      hand = {
        is: 'two',
        fingers: new Map([
          [hand.id, first],
          [p.id, p],
        ]),
      }
    },
    move(id: number, at: Place): void {
      switch (hand.is) {
        case 'pressed': {
          if (id !== hand.id) return
          const from = hand.path[0]!
          if (Math.hypot(at.x - from.x, at.y - from.y) < TAP_PX) return
          const grip = means.grip?.(from)
          if (grip !== undefined) {
            hand = { is: 'drag', id, grip, last: from }
            this.move(id, at)
            return
          }
          hand = hand.turns
            ? { is: 'turn', id, last: from }
            : { is: 'stroke', id, path: [...hand.path] }
          this.move(id, at)
          return
        }
        case 'stroke':
          if (id !== hand.id) return
          hand.path.push(at)
          means.strokeMoved(hand.path)
          return
        case 'drag':
          if (id !== hand.id) return
          hand.last = at
          means.dragged?.(hand.grip, at)
          return
        case 'turn':
          if (id !== hand.id) return
          means.turn(at.x - hand.last.x, at.y - hand.last.y)
          hand.last = at
          return
        case 'two': {
          const before = [...hand.fingers.values()]
          if (!hand.fingers.has(id)) return
          hand.fingers.set(id, at)
          if (before.length < 2) return
          const after = [...hand.fingers.values()]
          const span = (f: Place[]) => Math.hypot(f[0]!.x - f[1]!.x, f[0]!.y - f[1]!.y)
          const mid = (f: Place[]) => ({ x: (f[0]!.x + f[1]!.x) / 2, y: (f[0]!.y + f[1]!.y) / 2 })
          const [m0, m1] = [mid(before), mid(after)]
          means.turn(m1.x - m0.x, m1.y - m0.y)
          if (span(before) > 8) means.zoom(span(after) / span(before))
          return
        }
        case 'still':
      }
    },
    release(id: number): void {
      switch (hand.is) {
        case 'pressed':
          if (id !== hand.id) return
          means.tap(hand.path[0]!)
          return still()
        case 'stroke':
          if (id !== hand.id) return
          means.strokeEnded(hand.path)
          return still()
        case 'drag':
          if (id !== hand.id) return
          means.dropped?.(hand.grip, hand.last)
          return still()
        case 'turn':
          if (id === hand.id) still()
          return
        case 'two':
          hand.fingers.delete(id)
          if (hand.fingers.size === 0) still()
          return
        case 'still':
      }
    },
    cancel(): void {
      if (hand.is === 'stroke') means.strokeDropped()
      if (hand.is === 'drag') means.dropped?.(hand.grip, hand.last)
      still()
    },
  }
}
