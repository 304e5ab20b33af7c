import { sendLeft, type LeftWorld } from './left.ts'
import type { LeftEvent } from './waiting.ts'

const tap = (n: number, visitId: string) =>
  ({ id: `e${n}`, n, visitId, screen: 's', kind: 'done', atMs: 1000 + n }) as LeftEvent

function world(waiting: LeftEvent[], over: Partial<LeftWorld> = {}) {
  const sent: string[] = []
  const refused: { what: string; body: unknown }[] = []
  const counts: number[] = []
  let rows = waiting
  const own: LeftWorld = {
    store: {
      left: () => Promise.resolve([...rows]),
      remove: (id) => Promise.resolve(void (rows = rows.filter((r) => r.id !== id))),
    },
    send: (e) => Promise.resolve(sent.push(e.id)),
    refusal: (error) =>
      (error as Error).message === 'no' ? { why: 'It no longer fits.', code: 'gap' } : undefined,
    keepRefused: (r) => Promise.resolve(void refused.push(r)),
    skips: () => false,
    tell: (count) => counts.push(count),
    ...over,
  }
  return { own, sent, refused, counts, left: () => rows.map((r) => r.id) }
}
const two = () => [tap(1, 'a'), tap(2, 'a'), tap(3, 'b'), tap(4, 'a'), tap(5, 'b')]

it('sends what is left of every service in the order in which it was tapped, and counts down', async () => {
  const w = world(two())
  await sendLeft(w.own)
  expect([w.sent, w.left(), w.counts]).toEqual([
    ['e1', 'e2', 'e3', 'e4', 'e5'],
    [],
    [5, 4, 3, 2, 1, 0],
  ])
})

it('stops at silence and keeps everything; a chair that is open here sends its own', async () => {
  const silent = world(two(), { send: () => Promise.reject(new Error('silence')) })
  await sendLeft(silent.own)
  expect([silent.left().length, silent.refused]).toEqual([5, []])
  const beside = world(two(), { skips: (id) => id === 'a' })
  await sendLeft(beside.own)
  expect([beside.sent, beside.left()]).toEqual([
    ['e3', 'e5'],
    ['e1', 'e2', 'e4'],
  ])
})

it('a service that the house refuses is kept whole to be seen, and holds no other up', async () => {
  const w = world(two(), {
    send: (e) => (e.visitId === 'a' ? Promise.reject(new Error('no')) : Promise.resolve()),
  })
  await sendLeft(w.own)
  expect(w.left()).toEqual([])
  expect(w.refused).toMatchObject([
    { what: 'a service at the chair (3 taps)', why: 'It no longer fits.', params: { id: 'a' } },
  ])
  expect((w.refused[0]!.body as LeftEvent[]).map((e) => e.id)).toEqual(['e1', 'e2', 'e4'])
})
