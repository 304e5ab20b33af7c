/** A studio reached over the wire, as screens reach it: for runs in which the server is killed or pressed hard. */
import { oneJob } from '../../core/services/index.ts'
import { type ChairEvent, type ToldEvent, replay } from '../../core/chair/index.ts'
import { randomUUID } from 'node:crypto'
import { EventSource } from 'eventsource'
import type { ChairAnswer, House, VisitPage } from '../../contract/types.ts'
import { askedAll, mapOf, newClient, wholeService } from './studio.ts'

/** A server that runs as a process of its own. */
export interface Launched {
  readonly base: string
  readonly kill: (signal?: NodeJS.Signals) => Promise<void>
}

export async function send<T>(
  base: string,
  method: string,
  path: string,
  body?: unknown,
): Promise<T> {
  const r = await fetch(base + path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  })
  if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`)
  return (await r.json()) as T
}

/** A client with an open visit, asked and planned. */
export async function plannedOver(base: string): Promise<VisitPage> {
  const house = await send<House>(base, 'GET', '/api/house')
  const client = newClient()
  await send(base, 'POST', '/api/clients', client)
  const id = randomUUID()
  await send(base, 'POST', `/api/clients/${client.id}/visits`, {
    id,
    jobs: [oneJob(randomUUID(), 'face-shave')],
    workerId: house.workerId,
    slotAtMs: null,
  })
  await send(base, 'PUT', `/api/visits/${id}/asked`, askedAll())
  await send(base, 'POST', `/api/visits/${id}/readings`, mapOf())
  return send<VisitPage>(base, 'PUT', `/api/visits/${id}/plan`)
}

/** A screen on the wall: follows a service, connects again by itself, keeps what it hears by its place. */
export function follower(base: string, visitId: string) {
  const heard = new Map<number, ChairEvent>()
  const heardAt = new Map<string, number>()
  const source = new EventSource(`${base}/api/visits/${visitId}/follow`)
  source.addEventListener('chair', (e) => {
    const event = JSON.parse(e.data as string) as ChairEvent
    if (!heard.has(event.seq)) heardAt.set(event.id, performance.now())
    heard.set(event.seq, event)
  })
  const opened = new Promise<void>((resolve) => source.addEventListener('clock', () => resolve()))
  return {
    heardAt,
    /** Resolves when it is connected. */
    open: () => opened,
    events: () => [...heard.values()].sort((a, b) => a.seq - b.seq),
    /** Waits until so many events were heard, at most so long. */
    has: async (n: number, mostMs = 15_000) => {
      const until = performance.now() + mostMs
      while (heard.size < n && performance.now() < until)
        await new Promise((r) => setTimeout(r, 20))
      return heard.size >= n
    },
    close: () => source.close(),
  }
}

export interface KillsDone {
  readonly kills: number
  readonly acknowledged: number
  /** Acknowledged events that the server no longer has. */
  readonly lost: number
  /** Places where server, worker and wall differed. */
  readonly differences: number
}

/**
 * Runs a scripted service again and again while the server is killed with SIGKILL between and during events, with two screens
 * following; compares after every start.
 * @param launch starts the server on the same data and the same port each time
 */
export async function killRun(
  kills: number,
  launch: () => Promise<Launched>,
  random: () => number,
): Promise<KillsDone> {
  let server = await launch()
  const { base } = server
  let [acknowledged, lost, differences, done] = [0, 0, 0, 0]
  while (done < kills) {
    const visit = await plannedOver(base)
    const path = `/api/visits/${visit.id}`
    const events = wholeService(visit, Date.now())
    const walls = [follower(base, visit.id), follower(base, visit.id)]
    const known: string[] = []
    let next = 0
    const tell = (event: ToldEvent) => send<ChairAnswer>(base, 'POST', `${path}/events`, event)
    const compare = async () => {
      const page = await send<VisitPage>(base, 'GET', path)
      const kept = page.events.map((e) => e.id)
      lost += known.filter((id) => !kept.includes(id)).length
      // The worker's own view: what it has told, up to where the server has it.
      const own = replay(
        visit.plan!,
        events.slice(0, kept.length).map((e, i) => ({ ...e, seq: i + 1 })),
      )
      if (JSON.stringify(page.chair) !== JSON.stringify(JSON.parse(JSON.stringify(own))))
        differences++
      for (const wall of walls) {
        const all = await wall.has(kept.length)
        const seen = JSON.parse(JSON.stringify(replay(visit.plan!, wall.events()))) as unknown
        if (!all || JSON.stringify(seen) !== JSON.stringify(page.chair)) differences++
      }
      return kept.length
    }
    while (done < kills && next < events.length - 2) {
      const these = Math.min(1 + Math.floor(random() * 2), events.length - 1 - next)
      for (let i = 0; i < these; i++) {
        await tell(events[next]!)
        known.push(events[next++]!.id)
      }
      // Half the time the next event is on its way when the server dies: it may or may not be stored.
      const underWay = random() < 0.5 ? tell(events[next]!).catch(() => undefined) : undefined
      if (underWay) await new Promise((r) => setTimeout(r, random() * 12))
      await server.kill('SIGKILL')
      done++
      const answered = await underWay
      if (answered) known.push(events[next++]!.id)
      server = await launch()
      const kept = await compare()
      // One that was stored but never acknowledged is sent again by the screen and changes nothing.
      if (kept > next) {
        const again = await tell(events[next]!)
        if (!again.repeated) differences++
        known.push(events[next++]!.id)
      }
    }
    for (; next < events.length; next++) {
      await tell(events[next]!)
      known.push(events[next]!.id)
    }
    await compare()
    const page = await send<VisitPage>(base, 'GET', path)
    if (page.state !== 'finished' || page.events.length !== events.length) differences++
    acknowledged += known.length
    for (const wall of walls) wall.close()
  }
  await server.kill()
  return { kills: done, acknowledged, lost, differences }
}

export interface SoakDone {
  readonly events: number
  readonly lost: number
  readonly differences: number
  /** From sending an event to its answer; from sending it to its arrival at the follower, ms. */
  readonly answerMs: readonly number[]
  readonly followMs: readonly number[]
}

/** Runs many services at once for so long, each followed by a screen. */
export async function soak(base: string, services: number, seconds: number): Promise<SoakDone> {
  const visits: VisitPage[] = []
  for (let i = 0; i < services; i++) visits.push(await plannedOver(base))
  const answerMs: number[] = []
  const followMs: number[] = []
  let [lost, differences] = [0, 0]
  const sides = visits.map((visit) => ({
    visit,
    script: wholeService(visit, Date.now()),
    wall: follower(base, visit.id),
    sentAt: new Map<string, number>(),
  }))
  await Promise.all(sides.map((s) => s.wall.open()))
  await Promise.all(
    sides.map(async ({ visit, script, sentAt }, k) => {
      const pace = (1000 * seconds) / script.length
      const begin = performance.now() + (pace * k) / services
      for (const [i, event] of script.entries()) {
        const rest = begin + pace * i - performance.now()
        if (rest > 0) await new Promise((r) => setTimeout(r, rest))
        const sent = performance.now()
        sentAt.set(event.id, sent)
        await send(base, 'POST', `/api/visits/${visit.id}/events`, event)
        answerMs.push(performance.now() - sent)
      }
    }),
  )
  // Compared when all are done, so that comparing does not press on what is measured.
  for (const { visit, script, wall, sentAt } of sides) {
    const all = await wall.has(script.length)
    const page = await send<VisitPage>(base, 'GET', `/api/visits/${visit.id}`)
    const kept = new Set(page.events.map((e) => e.id))
    lost += script.filter((e) => !kept.has(e.id)).length
    const seen = JSON.stringify(
      JSON.parse(JSON.stringify(replay(visit.plan!, wall.events()))) as unknown,
    )
    if (!all || seen !== JSON.stringify(page.chair) || page.state !== 'finished') differences++
    for (const [id, sent] of sentAt) {
      const heard = wall.heardAt.get(id)
      if (heard !== undefined) followMs.push(heard - sent)
    }
    wall.close()
  }
  return { events: answerMs.length, lost, differences, answerMs, followMs }
}
