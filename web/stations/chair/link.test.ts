/** A screen's link over a line that breaks, with the browser's own database as it is where it is kept. */
import { DEFAULTS } from '../../../core/house/index.ts'
import {
  admit,
  begin,
  type Live,
  type ChairEvent,
  type ToldEvent,
} from '../../../core/chair/index.ts'
import { DomainError } from '../../../core/errors.ts'
import type { Plan } from '../../../core/plan/index.ts'
import { mulberry32 } from '../../../core/stats/index.ts'
import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { ChairLink, type World } from './link.ts'
import { keptStore, passingStore } from './waiting.ts'

const PLAN = {
  steps: Array.from({ length: 30 }, (_, i) => ({
    id: `s${i}`,
    kind: 'check',
    title: '',
    text: '',
    minutes: 1,
  })),
  lanes: [],
  zones: [],
} as unknown as Plan

class Refused extends Error {
  readonly status = 409
}

/** The server, with a line that can be cut. */
class Server {
  live: Live = begin(PLAN)
  events: ChairEvent[] = []
  cut = false
  private readonly followers = new Set<(e: ChairEvent) => void>()

  store(event: ToldEvent): { seq: number } {
    const known = this.events.find((e) => e.id === event.id)
    if (known) return { seq: known.seq }
    if (this.events.some((e) => e.screen === event.screen && e.n >= event.n))
      throw new Refused('out of order')
    const placed = { ...event, seq: this.live.state.seq + 1 }
    try {
      this.live = admit(DEFAULTS, this.live, placed)
    } catch (error) {
      throw error instanceof DomainError ? new Refused(error.message) : error
    }
    this.events.push(placed)
    for (const f of this.followers) f(placed)
    return { seq: placed.seq }
  }

  follow(f: (e: ChairEvent) => void) {
    this.followers.add(f)
    return () => this.followers.delete(f)
  }
}

let visits = 0
function setUp(store = passingStore(), server = new Server(), visitId = `visit-${visits++}`) {
  const time = { wall: 1_000_000, steady: 500 }
  let id = 0
  const later: (() => void)[] = []
  const world: World = {
    store,
    newId: () => `${visitId}-${Math.round(Math.random() * 1e9)}-${id++}`,
    send: (event) => {
      if (server.cut) return Promise.reject(Object.assign(new Error('silence'), { status: 0 }))
      return new Promise((resolve) => resolve(server.store(event)))
    },
    refused: (error) => (error as { status?: number }).status === 409,
    fetch: () =>
      server.cut
        ? Promise.reject(new Error('silence'))
        : Promise.resolve({ plan: PLAN, events: [...server.events] }),
    steadyMs: () => time.steady,
    wallMs: () => time.wall,
    later: (work) => {
      later.push(work)
      return () => later.splice(later.indexOf(work), 1)
    },
  }
  const link = new ChairLink(DEFAULTS, world, visitId, PLAN, server.events)
  return { link, server, time, later, visitId, store }
}

const settle = async () => {
  for (let i = 0; i < 60; i++) await new Promise((r) => setImmediate(r))
}
const done = (link: ChairLink) =>
  link.tell((l) => ({ kind: 'done', stepId: l.plan.steps[l.state.index]!.id }))

describe.each([
  ['in the browser’s database', () => keptStore],
  ['for as long as the tab lives', passingStore],
])('a link that keeps what it tells %s', (_name, store) => {
  it('shows what is told at once, and sends it once', async () => {
    const { link, server } = setUp(store())
    await link.open()
    await link.tell({ kind: 'started' })
    expect(link.view().live.state.status).toBe('running')
    await Promise.all([done(link), done(link)])
    expect(link.view().live.state.index).toBe(2)
    await settle()
    expect(server.events.map((e) => e.kind)).toEqual(['started', 'done', 'done'])
    expect(link.view()).toMatchObject({ waiting: 0, here: true })
  })

  it('goes on while the server is away, says how much waits, and sends it in order when it is back', async () => {
    const { link, server, later } = setUp(store())
    await link.open()
    await link.tell({ kind: 'started' })
    await settle()
    server.cut = true
    for (let i = 0; i < 5; i++) await done(link)
    await settle()
    expect(link.view()).toMatchObject({ waiting: 5, here: false })
    expect(link.view().live.state.index).toBe(5)
    expect(server.events).toHaveLength(1)
    server.cut = false
    later.shift()!()
    await settle()
    expect(link.view()).toMatchObject({ waiting: 0, here: true })
    expect(server.live.state.index).toBe(5)
  })

  it('takes up what a closed tab left behind', async () => {
    const kept = store()
    const first = setUp(kept)
    await first.link.open()
    await first.link.tell({ kind: 'started' })
    await settle()
    first.server.cut = true
    await done(first.link)
    await done(first.link)
    first.link.close()
    const second = setUp(kept, first.server, first.visitId)
    await second.link.open()
    await settle()
    expect(second.link.view().live.state.index).toBe(2)
    first.server.cut = false
    second.link.connected(true)
    await settle()
    expect(first.server.live.state.index).toBe(2)
    expect(await kept.all(first.visitId)).toEqual([])
  })

  it('takes a tap that comes before it has been opened wholly, after what waited', async () => {
    const first = setUp(store())
    first.server.cut = true
    await first.link.open()
    await first.link.tell({ kind: 'started' })
    first.link.close()
    const { link } = setUp(first.store, first.server, first.visitId)
    const opening = link.open()
    // The rules would refuse it before the service is known to have begun.
    expect(await done(link)).toBe(true)
    await opening
    expect(link.view()).toMatchObject({ waiting: 2 })
    expect(link.view().live.state.index).toBe(1)
    first.server.cut = false
    link.wake()
    await settle()
    expect(first.server.events.map((e) => e.kind)).toEqual(['started', 'done'])
  })

  it('drops what another screen was quicker with, and says so', async () => {
    const { link, server } = setUp(store())
    await link.open()
    await link.tell({ kind: 'started' })
    await settle()
    server.cut = true
    await done(link)
    server.store({ id: 'other', screen: 'wall', n: 1, kind: 'done', stepId: 's0', atMs: 0 })
    server.cut = false
    link.connected(true)
    await settle()
    expect(link.view().problem).toContain('not the current one')
    expect(link.view()).toMatchObject({ waiting: 0 })
    expect(link.view().live.state).toEqual(server.live.state)
  })

  it('refuses at once what the rules do not allow, and keeps nothing of it', async () => {
    const { link, server } = setUp(store())
    await link.open()
    expect(await link.tell({ kind: 'finished' })).toBe(false)
    expect(link.view().problem).toContain('not been started')
    await settle()
    expect(server.events).toEqual([])
  })
})

describe('a link', () => {
  it('goes by the server’s clock, whatever its own does', async () => {
    const { link, server, time } = setUp()
    await link.open()
    expect(link.nowMs()).toBe(time.wall)
    link.clock(5_000_000)
    time.steady += 1000
    time.wall = 9
    expect(link.nowMs()).toBe(5_001_000)
    await link.tell({ kind: 'started' })
    await settle()
    expect(server.events[0]!.atMs).toBe(5_001_000)
  })

  it('asks anew when it has missed something, and takes no event twice', async () => {
    const { link, server } = setUp()
    await link.open()
    const other = (n: number, kind: 'started' | 'nick') =>
      server.store({ id: `o${n}`, screen: 'wall', n, kind, atMs: n })
    other(1, 'started')
    other(2, 'nick')
    link.arrived(server.events[1]!)
    await settle()
    expect(link.view().live.state.seq).toBe(2)
    link.arrived(server.events[0]!)
    link.arrived(server.events[1]!)
    expect(link.view().live.state.nicks).toHaveLength(1)
  })

  it('of two screens on one service over broken lines ends as the server has it', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 1e9 }), async (seed) => {
        const random = mulberry32(seed)
        const server = new Server()
        const sides = [0, 1].map(() => setUp(passingStore(), server, `visit-${visits++}`))
        for (const s of sides) {
          await s.link.open()
          server.follow((e) => random() < 0.8 && s.link.arrived(e))
        }
        await sides[0]!.link.tell({ kind: 'started' })
        for (let i = 0; i < 25; i++) {
          const s = sides[random() < 0.7 ? 0 : 1]!
          server.cut = random() < 0.3
          if (s.link.view().live.state.index < 28)
            await (random() < 0.8 ? done(s.link) : s.link.tell({ kind: 'nick' }))
          if (random() < 0.3) await settle()
        }
        server.cut = false
        for (const s of sides) s.link.connected(true)
        await settle()
        for (const s of sides) await s.link.catchUp()
        await settle()
        const ids = server.events.map((e) => e.id)
        expect(new Set(ids).size).toBe(ids.length)
        for (const s of sides) {
          expect(s.link.view()).toMatchObject({ waiting: 0 })
          expect(s.link.view().live.state).toEqual(server.live.state)
        }
      }),
      { numRuns: 25 },
    )
  })
})

it('keeps its order when the clock of the tablet jumps back, with the server away and after a reload', async () => {
  const first = setUp(keptStore)
  first.link.clock(first.time.wall)
  first.server.cut = true
  await first.link.tell({ kind: 'started' })
  first.time.steady += 60_000
  await first.link.tell({ kind: 'done', stepId: 's0' })
  first.link.close()
  // Three days back, as a tablet does that was empty.
  const second = setUp(first.store, first.server, first.visitId)
  second.time.wall -= 3 * 86_400_000
  second.time.steady = 100
  await second.link.open()
  second.time.steady += 30_000
  await second.link.tell({ kind: 'done', stepId: 's1' })
  const [a, b, c] = (await first.store.all(first.visitId)).map((e) => e.atMs)
  expect(a).toBe(1_000_000)
  expect(b! - a!).toBe(60_000)
  expect(c).toBeGreaterThanOrEqual(b!)
  // The house's own clock is three days behind too: the steady time goes on.
  second.link.clock(second.time.wall)
  second.time.steady += 90_000
  expect(second.link.nowMs() - c!).toBeGreaterThanOrEqual(90_000)
  second.link.close()
})
