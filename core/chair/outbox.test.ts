import { DEFAULTS } from '../house/index.ts'
import { DomainError } from '../errors.ts'
import { mulberry32 } from '../stats/index.ts'
import { foresee, inOrder, numbered } from './outbox.ts'
import { admit } from './rules.ts'
import { begin, type ChairPlan, type Live } from './state.ts'
import { replay } from './service.ts'
import type { ChairEvent, ToldEvent } from './events.ts'
import fc from 'fast-check'

const PLAN: ChairPlan = {
  steps: Array.from({ length: 12 }, (_, i) => ({
    id: `s${i}`,
    kind: 'check' as const,
    title: '',
    text: '',
    minutes: 1,
  })),
}

/** As the server stores: each event once, one screen's never out of order, refusals told. */
class Server {
  live: Live<ChairPlan> = begin(PLAN)
  readonly events: ChairEvent[] = []

  store(event: ToldEvent): 'stored' | 'refused' {
    if (this.events.some((e) => e.id === event.id)) return 'stored'
    if (this.events.some((e) => e.screen === event.screen && e.n >= event.n)) return 'refused'
    const placed = { ...event, seq: this.live.state.seq + 1 }
    try {
      this.live = admit(DEFAULTS, this.live, placed)
    } catch (error) {
      if (error instanceof DomainError) return 'refused'
      throw error
    }
    this.events.push(placed)
    return 'stored'
  }
}

describe('what waits on a screen', () => {
  it('is shown at once, as far as it fits', () => {
    const start = numbered({ kind: 'started' }, { id: 'a', screen: 's', n: 1, atMs: 0 })
    const done = numbered({ kind: 'done', stepId: 's0' }, { id: 'b', screen: 's', n: 2, atMs: 1 })
    const late = numbered({ kind: 'done', stepId: 's0' }, { id: 'c', screen: 's', n: 3, atMs: 2 })
    const { live, misfits } = foresee(DEFAULTS, begin(PLAN), [start, done, late])
    expect(live.state).toMatchObject({ status: 'running', index: 1, seq: 2 })
    expect(misfits).toEqual([late])
  })

  it('is put in order however it was kept, each once, without what is stored', () => {
    const event = fc.record({ id: fc.stringMatching(/^[a-f]$/), n: fc.nat({ max: 20 }) })
    fc.assert(
      fc.property(fc.array(event), fc.uniqueArray(fc.stringMatching(/^[a-f]$/)), (list, stored) => {
        const out = inOrder(list as ToldEvent[], new Set(stored))
        expect(out.map((e) => e.n)).toEqual([...out.map((e) => e.n)].sort((a, b) => a - b))
        expect(new Set(out.map((e) => e.id)).size).toBe(out.length)
        const wanted = new Set(list.map((e) => e.id).filter((id) => !stored.includes(id)))
        expect(new Set(out.map((e) => e.id))).toEqual(wanted)
      }),
    )
  })

  it('arrives once and in order over a line that loses, doubles and delays, from two screens', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const random = mulberry32(seed)
        const server = new Server()
        const screens = ['a', 'b'].map((screen) => ({
          screen,
          n: 0,
          waiting: [] as ToldEvent[],
          acknowledged: [] as string[],
          told: [] as string[],
        }))
        /** Copies on their way, that may still arrive late. */
        const stray: ToldEvent[] = []
        const tell = (s: (typeof screens)[number]) => {
          const { live } = foresee(DEFAULTS, server.live, s.waiting)
          const { status, index } = live.state
          const step = PLAN.steps[index]
          const draft =
            status === 'waiting'
              ? { kind: 'started' as const }
              : step
                ? { kind: 'done' as const, stepId: step.id }
                : { kind: 'nick' as const }
          s.n += 1
          const event = numbered(draft, {
            id: `${s.screen}${s.n}`,
            screen: s.screen,
            n: s.n,
            atMs: s.n,
          })
          s.waiting.push(event)
          s.told.push(event.id)
        }
        const send = (s: (typeof screens)[number]) => {
          const [event] = inOrder(s.waiting)
          if (!event) return
          const chance = random()
          if (chance < 0.2) return // Lost on the way there.
          if (chance < 0.4) stray.push(event) // A copy lingers.
          const answer = server.store(event)
          if (chance > 0.9) return // The answer was lost: it is sent again.
          if (answer === 'stored') s.acknowledged.push(event.id)
          s.waiting = s.waiting.filter((e) => e.id !== event.id)
        }
        for (let i = 0; i < 120; i++) {
          const s = screens[random() < 0.7 ? 0 : 1]!
          if (random() < 0.3 && s.told.length < 16) tell(s)
          send(s)
          if (stray.length > 0 && random() < 0.3)
            server.store(stray.splice(Math.floor(random() * stray.length), 1)[0]!)
        }
        const ids = server.events.map((e) => e.id)
        expect(new Set(ids).size).toBe(ids.length)
        for (const s of screens) {
          // Nothing acknowledged is missing, and each screen's events stand in its own order.
          const kept = ids.filter((id) => id.startsWith(s.screen))
          for (const id of s.acknowledged) expect(kept).toContain(id)
          expect(kept).toEqual(s.told.filter((id) => kept.includes(id)))
        }
        expect(replay(PLAN, server.events)).toEqual(server.live.state)
      }),
      { numRuns: 200 },
    )
  })
})
