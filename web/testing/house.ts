/** A house and a client of it as the server tells them, for tests of parts. Whatever a test is not about is as usual. */
import { oneJob } from '../../core/services/index.ts'
import type { Client, ClientPage, House, VisitPage } from '../../contract/types.ts'
import { eachText, skinToBegin } from '../../core/client.ts'
import { DEFAULT_SCHOOLS, USUAL_SETTINGS } from '../../core/house/index.ts'
import { NO_NOTES } from '../../core/hair/index.ts'
import { NOTHING_AT_CHAIR } from '../../core/looks/index.ts'
import { NO_FACTS } from '../../core/visit/index.ts'
import { USUAL_STUDIO } from '../../core/week/index.ts'
import { NOTHING_ASKED } from '../../core/screening/index.ts'

export const NOW = Date.UTC(2026, 10, 25, 10)

export const aWorker = (over: Partial<House['workers'][number]> = {}) => ({
  ...{ id: 'w1', name: 'Ines Marchetti-Roe', role: 'barber', hand: 'right' as const },
  ...{ level: 'practised' as const, hours: null, services: null },
  ...over,
})

export const aHouse = (over: Partial<House> = {}): House => ({
  ...{ name: 'Lantern Quay', schools: DEFAULT_SCHOOLS, workers: [aWorker()], workerId: 'w1' },
  ...{ paces: {}, readers: {}, settings: USUAL_SETTINGS, closed: { weekdays: [], dates: [] } },
  ...{
    studio: USUAL_STUDIO,
    kit: [],
    figures: {},
    rules: {},
    consentText: '',
    products: [],
    probe: null,
    changes: [],
  },
  ...over,
})

export const aClient = (over: Partial<Client> = {}): Client => ({
  ...{ id: 'c1', name: 'Tobias Arkwell', ...eachText(() => '') },
  ...{ service: 'face-shave' as const, skin: skinToBegin('razor'), schools: {}, events: [] },
  createdAtMs: NOW - 1e9,
  ...over,
})

export const aVisit = (over: Partial<VisitPage> = {}): VisitPage => ({
  ...{
    id: 'v1',
    clientId: 'c1',
    workerId: 'w1',
    jobs: [oneJob('job', 'face-shave')],
    service: 'face-shave' as const,
  },
  ...{ state: 'open' as const, slotAtMs: null, startedAtMs: null, endedAtMs: null, routine: '' },
  ...{ asked: NOTHING_ASKED, plan: null, planMadeAtMs: null, readings: [], readerDeg: null },
  ...{ notes: NO_NOTES, before: null, events: [], care: null, products: [], photos: [] },
  ...{ messages: [], answers: [], hair: [], window: null, windows: [], loads: null, leftMm: null },
  ...{ atChair: NOTHING_AT_CHAIR, lookAt: [], facts: NO_FACTS },
  ...{ linkUntilMs: null, chair: {} as VisitPage['chair'] },
  ...over,
})

export const aPage = (over: Partial<ClientPage> = {}): ClientPage => ({
  ...{ client: aClient(), visits: [], currentVisitId: 'v1', differences: [], due: [], home: [] },
  ...{ model: {} as ClientPage['model'], tide: {} as ClientPage['tide'] },
  ...over,
})

/** What every station is given. */
export const aStation = (over: {
  client?: Partial<Client>
  visit?: Partial<VisitPage>
  house?: Partial<House>
}) => ({
  page: aPage({ client: aClient(over.client) }),
  visit: aVisit(over.visit),
  house: aHouse(over.house),
})
