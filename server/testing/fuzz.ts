/** Sends hostile requests to a server and counts how they were answered. */
import { randomUUID } from 'node:crypto'
import { request as ask } from 'node:http'
import { oneJob } from '../../core/services/index.ts'
import { DEFAULTS } from '../../core/house/index.ts'
import { consentText } from '../../core/screening/index.ts'
import { play } from '../../core/chair/index.ts'
import type { RouteName } from '../../contract/routes.ts'
import type { AnswerLink, ClientPage, House, VisitPage } from '../../contract/types.ts'
import { hostileRequests, type HostileRequest } from './hostile.ts'
import { plannedOver, send } from './overTheWire.ts'
import { askedAll, mapOf, newClient, wholeService } from './studio.ts'

export interface Fuzzed {
  readonly sent: number
  /** Answers by status. */
  readonly statuses: Readonly<Record<string, number>>
  /** What was answered with a fault of the server, or not at all. */
  readonly faults: readonly string[]
}

const answerTo = (base: string, { method, path, headers, body }: HostileRequest): Promise<number> =>
  new Promise((done) => {
    const { hostname, port } = new URL(base)
    // Through Node's own client: fetch would mend addresses before they are sent.
    const r = ask(
      {
        hostname,
        port,
        method,
        path,
        headers: {
          ...headers,
          ...(body !== undefined && { 'Content-Length': Buffer.byteLength(body) }),
        },
      },
      (answer) => {
        answer.resume()
        answer.on('end', () => done(answer.statusCode ?? 0))
      },
    )
    r.setTimeout(20_000, () => r.destroy(new Error('no answer')))
    r.on('error', () => done(0))
    if (body !== undefined) r.write(body)
    r.end()
  })

/** Right bodies by route, to be spoilt. */
async function seedsFor(
  base: string,
  clientId: string,
  visit: VisitPage,
): Promise<Partial<Record<RouteName, object>>> {
  const house = await send<House>(base, 'GET', '/api/house')
  const [event] = play(DEFAULTS, visit.plan!, {
    startMs: Date.now(),
    bladeLife: 400,
    screen: randomUUID(),
    newId: randomUUID,
  })
  const { seq: _seq, ...told } = event!
  return {
    addClient: newClient(),
    changeClient: { name: 'Ada Reef', phone: '1', schools: {}, events: [], skin: newClient().skin },
    addVisit: {
      id: randomUUID(),
      jobs: [oneJob(randomUUID(), 'face-shave')],
      workerId: house.workerId,
      slotAtMs: Date.now(),
    },
    changeVisit: { slotAtMs: Date.now() },
    saveAsked: {
      ...askedAll(),
      consent: { ...askedAll().consent, text: consentText([oneJob('', 'face-shave')]) },
    },
    editReadings: mapOf(),
    saveNotes: visit.notes,
    savePlan: { style: 'usual', edits: {}, within: 40 },
    addEvent: told,
    probe: { into: 'towel', outAtMs: Date.now() },
    saveProducts: { products: ['balm-plain'] },
    changeMessage: { text: 'x', state: 'waiting' },
    saveSkinAnswer: {
      atMs: Date.now(),
      zones: [{ zoneId: 'chin', redness: 1, bumps: 0 }],
      feeling: { stinging: 1, words: 'x' },
    },
    addHairReading: {
      id: randomUUID(),
      kind: 'measured',
      date: '2026-11-20',
      zoneId: 'chin',
      lengthMm: 1,
    },
    decide: { id: randomUUID(), finding: 'x', workerId: house.workerId, reason: 'looked at' },
    changeHouse: {
      name: 'x',
      schools: {},
      figures: {},
      rules: {},
      kit: house.kit,
      products: house.products,
    },
    addImport: { id: randomUUID(), source: 'x.csv', clients: [newClient()] },
    eraseClient: { confirmName: `nobody ${clientId}` },
  }
}

/**
 * @param requests how many
 * @param atOnce how many of them at the same time
 */
export async function fuzz(
  base: string,
  requests: number,
  random: () => number,
  atOnce = 8,
): Promise<Fuzzed> {
  const open = await plannedOver(base)
  const done = await plannedOver(base)
  for (const e of wholeService(done, Date.now() - 3_600_000))
    await send(base, 'POST', `/api/visits/${done.id}/events`, e)
  const link = await send<AnswerLink>(base, 'POST', `/api/visits/${done.id}/link`, {})
  const page = await send<ClientPage>(base, 'GET', `/api/clients/${open.clientId}`)
  const stream = hostileRequests(
    random,
    { client: page.client.id, visit: open.id, token: link.url.split('/').at(-1)! },
    await seedsFor(base, page.client.id, open),
  )
  const statuses: Record<string, number> = {}
  const faults: string[] = []
  let sent = 0
  const one = async () => {
    while (sent < requests) {
      sent++
      const request = stream.next().value as HostileRequest
      const status = await answerTo(base, request)
      statuses[status] = (statuses[status] ?? 0) + 1
      if (status === 0 || status >= 500)
        faults.push(
          `${status} ${request.method} ${request.path.slice(0, 90)} ${request.headers['Content-Type'] ?? ''} ${String(request.body ?? '').slice(0, 160)}`,
        )
    }
  }
  await Promise.all(Array.from({ length: atOnce }, one))
  return { sent, statuses, faults }
}
