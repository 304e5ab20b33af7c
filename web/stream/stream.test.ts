/** One stream for all tabs of a browser: nobody misses anything, whoever holds it goes or comes. */
import type { ChairEvent } from '../../core/chair/index.ts'
import { Stream, STILL_HERE_MS, type Message, type News } from './stream.ts'

const event = (seq: number) => ({ id: `e${seq}`, seq, kind: 'done' }) as unknown as ChairEvent

/** A server with services, and a browser with tabs. */
function browser() {
  const services = new Map<string, ChairEvent[]>()
  const streams = new Set<{
    from: Record<string, number>
    heard: (n: News) => void
    broken: () => void
  }>()
  let opened = 0
  let most = 0
  let away = false
  const tabs: { name: string; stream: Stream; leads: () => void }[] = []
  const gone = new Set<string>()
  const timers: { at: number; work: () => void }[] = []
  let now = 0
  const elapse = (ms: number) => {
    const until = now + ms
    for (;;) {
      const next = timers.filter((t) => t.at <= until).sort((a, b) => a.at - b.at)[0]
      if (!next) break
      timers.splice(timers.indexOf(next), 1)
      now = next.at
      next.work()
    }
    now = until
  }
  const open = (name: string) => {
    let leads = () => {}
    const stream = new Stream({
      tab: name,
      say: (m: Message) =>
        !gone.has(name) && tabs.filter((t) => t.name !== name).forEach((t) => t.stream.hears(m)),
      lead: (go) => (leads = go),
      open: (from, heard, broken) => {
        const it = { from, heard, broken }
        opened++
        streams.add(it)
        most = Math.max(most, streams.size)
        timers.push({
          at: now + 1,
          work: () => {
            if (!streams.has(it)) return
            if (away) {
              streams.delete(it)
              return broken()
            }
            heard({ kind: 'here', here: true })
            heard({ kind: 'clock', nowMs: 7 })
            for (const [visitId, after] of Object.entries(from))
              for (const e of services.get(visitId) ?? [])
                if (e.seq > after) heard({ kind: 'chair', visitId, event: e })
          },
        })
        return () => streams.delete(it)
      },
      later: (work, ms) => {
        const timer = { at: now + ms, work }
        timers.push(timer)
        return () => timers.splice(timers.indexOf(timer), 1)
      },
    })
    const tab = { name, stream, leads: () => leads() }
    tabs.push(tab)
    if (tabs.length === 1) tab.leads()
    return tab
  }
  return {
    open,
    elapse,
    most: () => most,
    opened: () => opened,
    /** A tab is closed: what holds the stream passes to the next. */
    shut: (tab: (typeof tabs)[number]) => {
      const led = tabs[0] === tab
      tabs.splice(tabs.indexOf(tab), 1)
      gone.add(tab.name)
      if (!led) return
      streams.clear()
      tabs[0]?.leads()
    },
    happens: (visitId: string) => {
      const all = services.get(visitId) ?? []
      const e = event(all.length + 1)
      services.set(visitId, [...all, e])
      for (const s of streams) if (visitId in s.from) s.heard({ kind: 'chair', visitId, event: e })
    },
    goes: () => {
      away = true
      for (const s of [...streams]) {
        streams.delete(s)
        s.broken()
      }
    },
    comes: () => (away = false),
  }
}

function follow(stream: Stream, visitId: string, after = 0) {
  const heard = new Set<number>()
  const told: { here: boolean; clocks: number; changed: number } = {
    here: false,
    clocks: 0,
    changed: 0,
  }
  const end = stream.follow(visitId, after, {
    chair: (e) => heard.add(e.seq),
    clock: () => told.clocks++,
    changed: () => told.changed++,
    here: (here) => (told.here = here),
  })
  return { seqs: () => [...heard].sort((a, b) => a - b), told, end }
}

it('seven tabs with seven services open one stream, and each hears its own service from where it was', () => {
  const b = browser()
  for (let i = 0; i < 7; i++) for (let k = 0; k < 5; k++) b.happens(`v${i}`)
  const tabs = Array.from({ length: 7 }, (_, i) => b.open(`tab${i}`))
  const all = tabs.map((t, i) => follow(t.stream, `v${i}`, i < 3 ? 2 : 0))
  b.elapse(200)
  expect([b.most(), b.opened()]).toEqual([1, 1])
  expect(all.map((f) => f.seqs())).toEqual(all.map((_, i) => (i < 3 ? [3, 4, 5] : [1, 2, 3, 4, 5])))
  expect(all.every((f) => f.told.here && f.told.clocks === 1)).toBe(true)
  b.happens('v6')
  expect(all[6]!.seqs().at(-1)).toBe(6)
  expect(all[0]!.seqs().at(-1)).toBe(5)
})

it('a tab that comes later hears what was before it, and nobody misses what happens meanwhile', () => {
  const b = browser()
  const first = follow(b.open('a').stream, 'v')
  b.elapse(100)
  b.happens('v')
  b.happens('v')
  const second = follow(b.open('b').stream, 'v')
  b.happens('v')
  b.elapse(100)
  expect([first.seqs(), second.seqs(), b.most()]).toEqual([[1, 2, 3], [1, 2, 3], 1])
})

it('when the tab that holds it is closed, the next one goes on where it was', () => {
  const b = browser()
  const [a, c] = [b.open('a'), b.open('b')]
  follow(a.stream, 'v')
  const other = follow(c.stream, 'v')
  b.elapse(100)
  b.happens('v')
  b.shut(a)
  b.happens('v')
  b.elapse(100)
  b.happens('v')
  expect([other.seqs(), b.most()]).toEqual([[1, 2, 3], 1])
})

it('when the server goes, all are told; when it comes back, all hear what they missed', () => {
  const b = browser()
  const all = ['a', 'b'].map((n) => follow(b.open(n).stream, 'v'))
  b.elapse(100)
  b.happens('v')
  b.goes()
  expect(all.map((f) => f.told.here)).toEqual([false, false])
  b.happens('v')
  b.elapse(5000)
  b.comes()
  b.elapse(1500)
  expect(all.map((f) => [f.told.here, f.seqs()])).toEqual([
    [true, [1, 2]],
    [true, [1, 2]],
  ])
})

it('a service that nobody follows any more is let go, also of a tab that was killed', () => {
  const b = browser()
  const a = b.open('a')
  const own = follow(a.stream, 'v')
  const killed = b.open('b')
  follow(killed.stream, 'w')
  b.elapse(100)
  const before = b.opened()
  b.shut(killed)
  b.elapse(STILL_HERE_MS * 6)
  expect(b.opened()).toBe(before + 1)
  b.happens('w')
  own.end()
  b.elapse(100)
  b.happens('v')
  expect(own.seqs()).toEqual([])
})
