import { coalesced, inTurns } from './turns.ts'

it('whoever asks while it runs is answered by a run that began after they asked, shared by all of them', async () => {
  const ends: (() => void)[] = []
  let runs = 0
  const ask = coalesced(() => {
    runs++
    return new Promise<void>((end) => ends.push(end))
  })
  const key = {}
  const first = ask(key)
  const late = [ask(key), ask(key), ask(key)]
  let done = 0
  for (const l of late) void l.then(() => done++)
  ends.shift()!()
  await first
  await new Promise((r) => setTimeout(r, 0))
  expect([runs, done]).toEqual([2, 0])
  ends.shift()!()
  await Promise.all(late)
  expect([runs, done]).toEqual([2, 3])
  // Another key is another's work, and afterwards it begins anew.
  void ask({})
  void ask(key)
  expect(runs).toBe(4)
})

it('goes on after a run that failed', async () => {
  let fails = true
  const ask = coalesced(() => (fails ? Promise.reject(new Error('full')) : Promise.resolve()))
  const key = {}
  const first = ask(key)
  const next = ask(key)
  fails = false
  await expect(first).rejects.toThrow('full')
  await expect(next).resolves.toBeUndefined()
})

it('lets others in between turns, and keeps the order', async () => {
  let others = 0
  const timer = setInterval(() => others++, 0)
  const done = await inTurns([...Array(40).keys()], (i) => {
    const until = performance.now() + 2
    while (performance.now() < until);
    return i * 2
  })
  clearInterval(timer)
  expect(done).toEqual([...Array(40).keys()].map((i) => i * 2))
  expect(others).toBeGreaterThan(2)
})
