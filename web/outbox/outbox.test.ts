/** Nothing entered is lost: over silence, reloads, other tabs, foreign answers and refusals. */
import 'fake-indexeddb/auto'
import fc from 'fast-check'
import {
  Outbox,
  WriteRefused,
  type NewWrite,
  type News,
  type OutboxStore,
  type OutboxWorld,
  type Write,
} from './outbox.ts'
import { keptOutbox, passingOutbox } from './stores.ts'

type Answer = 'ok' | 'silence' | 'foreign' | 'fault' | 'no'
class Told extends Error {
  readonly how: Answer
  constructor(how: Answer) {
    super(how)
    this.how = how
  }
}

let names = 0
/** A server that answers as it is told, and the outboxes of its tabs. */
function world(store: OutboxStore = passingOutbox()) {
  const taken: Write[] = []
  const server = { answer: (_: Write): Answer => 'ok', taken }
  const timers: (() => void)[] = []
  const tabs: Outbox[] = []
  let chain: Promise<unknown> = Promise.resolve()
  const open = () => {
    const own: OutboxWorld = {
      store,
      send: (write) => {
        const how = server.answer(write)
        if (how !== 'ok') return Promise.reject(new Told(how))
        taken.push(write)
        return Promise.resolve({ got: write.body })
      },
      refusal: (e) =>
        (e as Told).how === 'no' ? { why: 'It no longer fits.', code: 'gap' } : undefined,
      heard: (e) => (e as Told).how === 'fault',
      later: (work) => {
        timers.push(work)
        return () => timers.splice(timers.indexOf(work), 1)
      },
      alone: (work) => (chain = chain.then(work, work)),
      tell: (news: News) => tabs.forEach((t) => t !== tab && t.heard(news)),
    }
    const tab = new Outbox(own)
    tabs.push(tab)
    return tab
  }
  const settle = async () => {
    for (let i = 0; i < 60; i++) await new Promise((r) => setTimeout(r, 0))
  }
  const elapse = async () => {
    for (const t of timers.splice(0)) t()
    await settle()
  }
  return { server, taken, open, settle, elapse }
}
let n = 0
const write = (over: Partial<Write> = {}): NewWrite => ({
  ...{
    id: `w${++n}`,
    route: 'saveAsked',
    params: {},
    body: n,
    clientId: 'c',
    what: 'answers',
    atMs: n,
  },
  ...over,
})

it.each([
  ['for as long as the tab lives', () => passingOutbox()],
  ['in the browser’s database', () => keptOutbox(`outbox-${++names}`)],
])(
  '%s: what is entered while the server is away is kept, counted, and sent in order when it is back',
  async (_n, make) => {
    const store = make()
    const { server, taken, open, elapse, settle } = world(store)
    server.answer = () => 'silence'
    const tab = open()
    const answers = [
      tab.add(write({ body: 'a' })),
      tab.add(write({ body: 'b', clientId: 'd' })),
      tab.add(write({ body: 'c' })),
    ]
    await settle()
    expect(tab.look()).toMatchObject({ here: false })
    expect(tab.look().waiting.map((w) => w.body)).toEqual(['a', 'b', 'c'])
    await elapse()
    expect(taken).toEqual([])
    server.answer = () => 'ok'
    await elapse()
    expect(await Promise.all(answers)).toEqual([{ got: 'a' }, { got: 'b' }, { got: 'c' }])
    expect(tab.look()).toMatchObject({ here: true, waiting: [] })
  },
)

it('outlives the tab: a page that is opened again sends what the one before kept', async () => {
  const store = keptOutbox(`outbox-${++names}`)
  const first = world(store)
  first.server.answer = () => 'silence'
  void first.open().add(write({ body: 'kept' }))
  await first.settle()
  const second = world(store)
  const tab = second.open()
  await tab.open()
  await second.settle()
  expect(second.taken.map((w) => w.body)).toEqual(['kept'])
  expect(await store.all()).toEqual([])
})

it('a foreign answer on the port drops nothing', async () => {
  const { server, taken, open, elapse, settle } = world()
  server.answer = () => 'foreign'
  const tab = open()
  void tab.add(write())
  await settle()
  for (let i = 0; i < 5; i++) await elapse()
  expect(tab.look().waiting).toHaveLength(1)
  server.answer = () => 'ok'
  await elapse()
  expect(taken).toHaveLength(1)
})

it('a refusal of the house is said and kept to be seen, and holds nothing else up', async () => {
  const { server, taken, open, settle } = world()
  server.answer = (w) => (w.body === 'bad' ? 'no' : 'ok')
  const tab = open()
  const bad = tab.add(write({ body: 'bad' }))
  const good = tab.add(write({ body: 'good' }))
  await expect(bad).rejects.toThrow(WriteRefused)
  await expect(bad).rejects.toThrow('It no longer fits.')
  await good
  await settle()
  expect(taken.map((w) => w.body)).toEqual(['good'])
  expect(tab.look().refused).toMatchObject([{ body: 'bad', why: 'It no longer fits.' }])
  await tab.dismiss(tab.look().refused[0]!.id)
  expect(tab.look().refused).toEqual([])
})

it('a fault with one client’s write does not hold up those of others, and its own keep their order', async () => {
  const { server, taken, open, settle, elapse } = world()
  server.answer = (w) => (w.body === 'faulty' ? 'fault' : 'ok')
  const tab = open()
  void tab.add(write({ body: 'faulty' }))
  void tab.add(write({ body: 'after' }))
  void tab.add(write({ body: 'other', clientId: 'd' }))
  await settle()
  expect(taken.map((w) => w.body)).toEqual(['other'])
  server.answer = () => 'ok'
  await elapse()
  expect(taken.map((w) => w.body)).toEqual(['other', 'faulty', 'after'])
})

it('writes of one row take each other’s place while they wait, but never over what came between', async () => {
  const { server, taken, open, settle, elapse } = world()
  server.answer = () => 'silence'
  const tab = open()
  const all = ['1', '2', '3'].map((body) => tab.add(write({ body, row: 'asked' })))
  await settle()
  void tab.add(write({ body: 'plan' }))
  await settle()
  all.push(tab.add(write({ body: '4', row: 'asked' })))
  await settle()
  server.answer = () => 'ok'
  await elapse()
  expect(taken.map((w) => w.body)).toEqual(['3', 'plan', '4'])
  expect(await Promise.all(all)).toEqual(['3', '3', '3', '4'].map((got) => ({ got })))
})

it('two tabs send each write once, and each hears what became of its own', async () => {
  const store = keptOutbox(`outbox-${++names}`)
  const { server, taken, open, settle, elapse } = world(store)
  server.answer = () => 'silence'
  const [a, b] = [open(), open()]
  const answers = [a.add(write({ body: 'of a' })), b.add(write({ body: 'of b' }))]
  await settle()
  expect(a.look().waiting).toHaveLength(2)
  server.answer = () => 'ok'
  await elapse()
  expect(await Promise.all(answers)).toEqual([{ got: 'of a' }, { got: 'of b' }])
  expect(taken).toHaveLength(2)
  expect([a.look().waiting, b.look().waiting]).toEqual([[], []])
})

it('whatever the net does, every write is taken once and in the order of its client', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom('x', 'y', 'z'), { minLength: 1, maxLength: 12 }),
      fc.array(fc.constantFrom<Answer>('ok', 'silence', 'foreign', 'fault'), { maxLength: 30 }),
      async (clients, weather) => {
        const { server, taken, open, settle, elapse } = world()
        const sky = [...weather]
        server.answer = () => sky.shift() ?? 'ok'
        const tab = open()
        clients.forEach((clientId, i) => void tab.add(write({ clientId, body: i })))
        await settle()
        for (let i = 0; i < 40 && tab.look().waiting.length > 0; i++) await elapse()
        expect(taken).toHaveLength(clients.length)
        for (const c of new Set(clients)) {
          const own = taken.filter((w) => w.clientId === c).map((w) => w.body as number)
          expect(own).toEqual([...own].sort((p, q) => p - q))
        }
      },
    ),
    { numRuns: 40 },
  )
})

it.each([
  ['for as long as the tab lives', () => passingOutbox()],
  ['in the browser’s database', () => keptOutbox(`outbox-${++names}`)],
])(
  '%s: what takes a write’s place in another tab while it is on its way is sent too',
  async (_n, make) => {
    const store = make()
    const { server, taken, open, settle } = world(store)
    const [a, b] = [open(), open()]
    let second: Promise<unknown> | undefined
    server.answer = (w) => {
      // The other tab does not know that this one is being sent.
      if (w.body === 'first') second = b.add(write({ body: 'second', row: 'asked' }))
      return 'ok'
    }
    const first = a.add(write({ body: 'first', row: 'asked' }))
    await first
    await second
    await settle()
    expect(taken.at(-1)!.body).toBe('second')
    expect(await store.all()).toEqual([])
  },
)

it('of two workers each waits for their own turn, what they were made on stays, and others go on', async () => {
  for (const store of [passingOutbox(), keptOutbox(`own-${Math.random()}`)]) {
    const { server, taken, open, settle, elapse } = world(store)
    const tab = open()
    server.answer = () => 'silence'
    void tab.add(write({ row: 'r', by: 'ines', body: 1, was: { v: 0 } }))
    await settle()
    // Entered twice more by the same worker: one write behind the first, made on what the first left.
    void tab.add(write({ row: 'r', by: 'ines', body: 1.5, was: { v: 1 } }))
    void tab.add(write({ row: 'r', by: 'ines', body: 2, was: { v: 1.5 } }))
    void tab.add(write({ row: 'r', by: 'joren', body: 3, was: { v: 2 } }))
    void tab.add(write({ clientId: 'other', by: 'joren', body: 4 }))
    await settle()
    server.answer = (w) => (w.by === 'joren' ? 'ok' : 'fault')
    await elapse()
    // Joren's word on that client comes after Ines's, whoever is here.
    expect(taken.map((w) => w.body)).toEqual([4])
    server.answer = () => 'ok'
    await elapse()
    await elapse()
    expect(taken.map((w) => [w.body, w.by, w.was])).toEqual([
      [4, 'joren', undefined],
      [1, 'ines', { v: 0 }],
      [2, 'ines', { v: 1 }],
      [3, 'joren', { v: 2 }],
    ])
  }
})

it.each([
  ['for as long as the tab lives', () => passingOutbox()],
  ['in the browser’s database', () => keptOutbox(`outbox-${++names}`)],
])(
  '%s: whenever a tap comes, what it was made on is what the server has when it arrives',
  async (_n, make) => {
    await fc.assert(
      fc.asyncProperty(
        // Ticks between taps, and what becomes of each sending; "lost" is taken by the server, whose answer gets lost.
        fc.array(fc.nat(12), { minLength: 2, maxLength: 6 }),
        fc.array(fc.constantFrom('ok', 'lost', 'silence'), { maxLength: 6 }),
        async (ticks, weather) => {
          const { server, open, settle, elapse } = world(make())
          const sky = [...weather]
          let stands = 0
          const apart: unknown[] = []
          server.answer = ({ body, was }) => {
            const now = sky.shift() ?? 'ok'
            if (now === 'silence') return 'silence'
            if (body !== stands && (was as { v: number }).v !== stands) apart.push([was, body])
            stands = body as number
            return now === 'lost' ? 'silence' : 'ok'
          }
          const tab = open()
          let v = 0
          for (const ticksApart of ticks) {
            void tab.add(write({ row: 'asked', was: { v }, body: ++v }))
            for (let i = 0; i < ticksApart; i++) await new Promise((r) => setImmediate(r))
          }
          await settle()
          for (let i = 0; i < 20 && tab.look().waiting.length > 0; i++) await elapse()
          expect(apart).toEqual([])
          expect(stands).toBe(ticks.length)
        },
      ),
      { numRuns: 10 },
    )
  },
)
