/** The screen and the server put the same plan together: from what is stored, and from what the server answered. */
import request from 'supertest'
import { readersOf } from '../core/grain/index.ts'
import { FIRST_CHOICE, makePlan, type Plan } from '../core/plan/index.ts'
import { figuresOf } from '../core/register/index.ts'
import { SERVICE_IDS, SERVICES, type ServiceId } from '../core/services/index.ts'
import { offsetHere } from '../core/time/index.ts'
import { gate, groundOf, knownOf, planAsk, planInput } from '../core/visit/index.ts'
import type { ClientPage, House, VisitPage } from '../contract/types.ts'
import { headSkin } from '../server/atlas.ts'
import { readHistory } from '../server/clients/model.ts'
import { modelNow } from '../server/clients/model.ts'
import { readHouse } from '../server/house/service.ts'
import { gateOf } from '../server/visits/known.ts'
import { readVisit } from '../server/visits/record.ts'
import { openStudio, plannedVisit, type Studio } from '../server/testing/studio.ts'
import { PlanDesk } from '../web/workers/plans.ts'

let studio: Studio
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())

const api = () => request(studio.app)
const get = async <T>(path: string) => (await api().get(path).expect(200)).body as T

/** What the screen sends to its worker, from the pages that it was given. */
async function askOfScreen(visitId: string, nowMs: number) {
  const visit = await get<VisitPage>(`/api/visits/${visitId}`)
  const page = await get<ClientPage>(`/api/clients/${visit.clientId}`)
  const house = await get<House>('/api/house')
  const figures = figuresOf(house.figures)
  const { schools } = page.client
  const known = knownOf(figures, visit, house, schools, visit.facts, nowMs, offsetHere)
  const client = { ...page.client, model: page.model }
  return planAsk(figures, visit, client, house, gate(known).screening, FIRST_CHOICE, nowMs)
}

/** What the server makes its plan from, from what is stored. */
async function askOfServer(visitId: string, nowMs: number) {
  const visit = await readVisit(studio.db, visitId)
  const [house, history] = await Promise.all([
    readHouse(studio.db),
    readHistory(studio.db, visit.clientId),
  ])
  const figures = figuresOf(house.figures)
  const { skin, schools } = visit
  const client = { skin, schools, model: modelNow(figures, history, skin) }
  const { screening } = await gateOf(studio.db, visit, house)
  const readerDeg = readersOf(figures, house.readers, visit.readBy)
  return planAsk(figures, { ...visit, readerDeg }, client, house, screening, FIRST_CHOICE, nowMs)
}

const onTheWire = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
const PLANNED = SERVICE_IDS.filter(
  (id) => !('alongLines' in SERVICES[id] || 'edges' in SERVICES[id]),
)

describe('the input of a plan', () => {
  it.each(PLANNED)(
    'is the same on the screen and on the server: %s',
    async (service: ServiceId) => {
      const { visit } = await plannedVisit(studio.app, service)
      const nowMs = Date.now()
      const [screen, server] = [
        await askOfScreen(visit.id, nowMs),
        await askOfServer(visit.id, nowMs),
      ]
      expect(onTheWire(screen)).toEqual(onTheWire(server))
      expect(screen.worker).not.toBeNull()
      expect(screen.jobs).toEqual(visit.jobs)
    },
  )

  it('comes to the plan that the server keeps, in the worker of the screen', async () => {
    const { visit } = await plannedVisit(studio.app)
    const nowMs = Date.now()
    const figures = figuresOf({})
    const desk = new PlanDesk(headSkin(figures))
    const made = desk.plan(await askOfScreen(visit.id, nowMs)).plan!
    expect(onTheWire(made)).toEqual(visit.plan)
    // Asked again with other edits, what does not change is remembered and nothing of it is lost.
    const first = made.lanes[0]!
    const ask = await askOfScreen(visit.id, nowMs)
    const edits = { [first.id]: { skip: true } }
    const without = desk.plan({ ...ask, choice: { ...FIRST_CHOICE, edits } }).plan!
    expect(without.lanes.map((l) => l.id)).not.toContain(first.id)
    expect(without.leftOut.find((z) => z.skipped)!.skipped).toEqual({
      laneId: first.id,
      pass: first.pass,
    })
    expect(onTheWire(desk.plan(ask).plan)).toEqual(visit.plan)
  })

  it('follows the house’s figures, schools and worker, on both sides', async () => {
    const { visit } = await plannedVisit(studio.app)
    const house = await get<House>('/api/house')
    const worker = house.workers.find((w) => w.id === visit.workerId)!
    const change = {
      figures: { 'skin.rednessLimit': 0.05 },
      schools: { beardPasses: 'with-only' },
      worker: { ...worker, level: 'learning' },
    }
    await api().patch('/api/house').send(change).expect(200)
    const nowMs = Date.now()
    const [screen, server] = [
      await askOfScreen(visit.id, nowMs),
      await askOfServer(visit.id, nowMs),
    ]
    expect(onTheWire(screen)).toEqual(onTheWire(server))
    expect(screen.house.changed).toEqual({ 'skin.rednessLimit': 0.05 })
    expect([screen.schools.beardPasses, screen.worker!.level]).toEqual(['with-only', 'learning'])
    const figures = figuresOf(screen.house.changed)
    const plan: Plan = makePlan(
      planInput(figures, screen, groundOf(figures, screen, headSkin(figures))),
    )
    expect(new Set(plan.lanes.map((l) => l.pass))).toEqual(new Set([1]))
    expect(plan.lanes.map((l) => l.bladeId)).not.toContain('shavette')
  })

  it('is refused in words where the worker is none of the house’s', async () => {
    const { visit } = await plannedVisit(studio.app)
    const ask = { ...(await askOfScreen(visit.id, Date.now())), worker: null }
    const desk = new PlanDesk(headSkin(figuresOf({})))
    expect(desk.plan(ask).why).toMatch(/not of this house/)
  })
})
