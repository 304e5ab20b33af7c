/** The house: its figures, rules, kit and schools, dated, and what they do to plans. */
import request from 'supertest'
import type { Client, House, VisitPage } from '../../contract/types.ts'
import { readerOf } from '../../core/grain/index.ts'
import { DEFAULTS } from '../../core/house/index.ts'
import { BLADE_IDS } from '../../core/kit/index.ts'
import { finishVisit, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'

import { SKIN } from '../../core/testing/client.ts'

let studio: Studio
let api: () => ReturnType<typeof request>
beforeAll(async () => {
  studio = await openStudio()
  api = () => request(studio.app)
})
afterAll(() => studio.close())

const house = async () => (await api().get('/api/house')).body as House
const change = (body: object) => api().patch('/api/house').send(body)

/** With a second pass wherever it is borne. */
const CLOSEST = { style: 'closest' }
const TOUGH = { skin: { ...SKIN, reactivity: 'tough' } } as const

describe('a house', () => {
  it('comes with every blade, no figure changed and nothing to tell', async () => {
    const h = await house()
    expect(h.kit).toEqual([...BLADE_IDS])
    expect([h.figures, h.rules, h.changes]).toEqual([{}, {}, []])
    expect(h.workers.every((w) => w.level === 'practised')).toBe(true)
  })

  it('changes a figure, dates it, plans by it, keeps it with the plan, and gives the default back', async () => {
    const { visit } = await plannedVisit(studio.app, 'face-shave', true, CLOSEST, TOUGH)
    const second = (v: VisitPage) => v.plan!.lanes.filter((l) => l.pass === 2).length
    expect(second(visit)).toBeGreaterThan(0)
    const before = Date.now()
    const h = (await change({ figures: { 'skin.rednessLimit': 0.05 } }).expect(200)).body as House
    expect(h.figures).toEqual({ 'skin.rednessLimit': 0.05 })
    expect(h.changes.at(-1)).toMatchObject({ from: '0.2 probability', to: '0.05 probability' })
    expect(h.changes.at(-1)!.atMs).toBeGreaterThanOrEqual(before)
    const again = (await api().put(`/api/visits/${visit.id}/plan`).send(CLOSEST).expect(200))
      .body as VisitPage
    expect(second(again)).toBe(0)
    expect(again.plan!.house).toEqual({ version: 1, changed: { 'skin.rednessLimit': 0.05 } })
    const back = (await change({ figures: { 'skin.rednessLimit': null } })).body as House
    expect(back.figures).toEqual({})
    expect(back.changes).toHaveLength(2)
    // The plan keeps what it was made with.
    const kept = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
    expect(kept.plan!.house.changed).toEqual({ 'skin.rednessLimit': 0.05 })
    // And a new one is made with the default again.
    const anew = (await api().put(`/api/visits/${visit.id}/plan`).send(CLOSEST).expect(200))
      .body as VisitPage
    expect(second(anew)).toBe(second(visit))
    expect(anew.plan!.house.changed).toEqual({})
  })

  it('learns how long a worker’s strokes take from the services they end, for the next plan', async () => {
    const { visit } = await plannedVisit(studio.app)
    const paces = async () => (await house()).paces[visit.workerId]!
    expect([visit.plan!.pace, await paces()]).toEqual([1, []])
    await finishVisit(studio.app, visit, Date.now() - 3 * 3_600_000, 1.5)
    const [seen] = await paces()
    expect(seen!.service).toBe('face-shave')
    expect(seen!.ratio).toBeGreaterThan(1.5)
    const next = (await plannedVisit(studio.app)).visit.plan!
    // Half of what one service told counts (core/plan/pace.ts).
    expect(next.pace).toBeCloseTo(Math.sqrt(seen!.ratio), 5)
    expect(next.totalMinutes).toBeGreaterThan(visit.plan!.totalMinutes)
    expect(next.reasons.some((r) => r.text.startsWith('Strokes are timed'))).toBe(true)
    const { [visit.workerId]: _own, ...ofOthers } = (await house()).paces
    expect(Object.values(ofOthers)).toEqual([[]])
  })

  it('learns where a worker misses from the second looks of the visits they end, for the next one', async () => {
    const { visit } = await plannedVisit(studio.app)
    const chin = async () => {
      const next = (await plannedVisit(studio.app)).visit
      const { facts } = (await api().get(`/api/visits/${next.id}`).expect(200)).body as VisitPage
      return facts.misses!.find((m) => m.zoneId === 'chin' && m.own)
    }
    const { looks = 0, missed = 0 } = (await chin()) ?? {}
    const point = visit.plan!.lanes.find((l) => l.zoneId === 'chin')!.point
    const patches = [{ zoneId: 'chin' as const, point }]
    await finishVisit(studio.app, visit, Date.now() - 3 * 3_600_000, 1, patches)
    expect(await chin()).toMatchObject({ looks: looks + 1, missed: missed + 1 })
  })

  it('learns how surely a worker reads from the maps of the visits they end, for the next map', async () => {
    const { visit } = await plannedVisit(studio.app)
    const readers = async () => (await house()).readers[visit.workerId]!
    const before = (await readers()).length
    const next = async () => (await plannedVisit(studio.app)).visit.readerDeg
    // While nobody has ended a visit with a map of theirs nothing is known.
    if (before === 0) expect(visit.readerDeg).toBeNull()
    await finishVisit(studio.app, visit, Date.now() - 3 * 3_600_000)
    const seen = await readers()
    expect(seen).toHaveLength(before + 1)
    expect(seen[0]!.readings).toBeGreaterThanOrEqual(5)
    expect(seen[0]!.deg).toBeGreaterThanOrEqual(1)
    expect(await next()).toBeCloseTo(readerOf(DEFAULTS, seen)!, 6)
  })

  it.each([
    [{ figures: { 'skin.rednessLimit': 7 } }, 'figure-out-of-range'],
    [{ figures: { 'no.such': 1 } }, 'no-such-figure'],
    [{ figures: { 'test.bins': 12 } }, 'fixed-figure'],
    [{ rules: { 'no-such-rule': { 'face-shave': { severity: 'stop' } } } }, 'no-such-rule'],
    [{ rules: { sunburn: { haircut: { severity: 'stop' } } } }, 'no-such-service'],
    [{ schools: { beardPasses: 'twice' } }, 'no-such-school'],
  ])('refuses %j and changes nothing', async (body, code) => {
    const before = await house()
    const r = await change(body)
    expect([r.status, (r.body as { code: string }).code]).toEqual([422, code])
    expect(await house()).toEqual(before)
  })

  it('refuses what is no figure, no blade, no severity at all', async () => {
    for (const body of [
      { figures: { 'skin.rednessLimit': 'many' } },
      { kit: ['axe'] },
      { rules: { sunburn: { 'face-shave': { severity: 'perhaps' } } } },
      { rules: { sunburn: { 'face-shave': { waitDays: -1 } } } },
    ])
      expect((await change(body)).status).toBe(422)
  })

  it('overrules a rule of asking in one service, and goes back', async () => {
    const rule = (edit: object) => change({ rules: { sunburn: { 'face-shave': edit } } })
    const h = (await rule({ waitDays: 12 }).expect(200)).body as House
    expect(h.rules).toEqual({ sunburn: { 'face-shave': { waitDays: 12 } } })
    expect(h.changes.at(-1)!.what).toContain('Sunburn')
    expect(((await rule({})).body as House).rules).toEqual({})
  })

  it('plans from its kit only, and by the practice of the worker', async () => {
    const { visit } = await plannedVisit(studio.app)
    const blades = async () => {
      const r = await api().put(`/api/visits/${visit.id}/plan`).expect(200)
      return [...new Set((r.body as VisitPage).plan!.lanes.map((l) => l.bladeId))]
    }
    await change({ kit: ['shavette', 'cartridge'] }).expect(200)
    expect(await blades()).toEqual(['shavette'])
    await change({ kit: [...BLADE_IDS] }).expect(200)
    const { workers } = await house()
    const worker = workers.find((w) => w.id === visit.workerId)!
    await change({ worker: { ...worker, level: 'learning' } }).expect(200)
    expect(await blades()).toEqual(['safety'])
    await change({ kit: ['cartridge'] }).expect(200)
    const none = await api().put(`/api/visits/${visit.id}/plan`)
    expect([none.status, (none.body as { code: string }).code]).toEqual([422, 'no-blade'])
    await change({ kit: [...BLADE_IDS], worker }).expect(200)
  })
})

describe('a plan as it is chosen', () => {
  it('keeps its kind, its edits, its time and what follows from them', async () => {
    const { visit } = await plannedVisit(studio.app)
    const lane = visit.plan!.lanes.find((l) => l.pass === 1)!
    const choice = {
      style: 'gentlest',
      edits: { [lane.id]: { skip: true } },
      within: 40,
    }
    const r = (await api().put(`/api/visits/${visit.id}/plan`).send(choice).expect(200))
      .body as VisitPage
    expect(r.plan!.choice).toMatchObject(choice)
    expect(r.plan!.style).toBe('gentlest')
    expect(r.plan!.lanes.some((l) => l.id === lane.id)).toBe(false)
    expect(r.plan!.lanes.every((l) => l.pass === 1)).toBe(true)
  })

  it.each([
    { style: 'wildest' },
    { edits: { 'chin:1:a': { way: 'upward' } } },
    { edits: { '../../etc': { skip: true } } },
    { within: -3 },
    { order: 'as you like' },
  ])('refuses %j', async (choice) => {
    const { visit } = await plannedVisit(studio.app)
    expect((await api().put(`/api/visits/${visit.id}/plan`).send(choice)).status).toBe(422)
  })

  it('follows a client’s own schools, and the house’s again without them', async () => {
    const { client, visit } = await plannedVisit(studio.app, 'face-shave', true, CLOSEST, TOUGH)
    const own = (schools: object) => api().patch(`/api/clients/${client.id}`).send({ schools })
    const saved = (await own({ beardPasses: 'with-only' }).expect(200)).body as Client
    expect(saved.schools).toEqual({ beardPasses: 'with-only' })
    const passes = async () => {
      const page = (await api().put(`/api/visits/${visit.id}/plan`).send(CLOSEST)).body as VisitPage
      return Math.max(...page.plan!.lanes.map((l) => l.pass))
    }
    expect(await passes()).toBe(1)
    await own({}).expect(200)
    expect(await passes()).toBe(2)
    expect((await own({ beardPasses: 'nine' })).status).toBe(422)
  })

  it('is kept packed, and a plan of the first version is still read', async () => {
    const { visit } = await plannedVisit(studio.app)
    const old = {
      version: 1,
      service: 'face-shave',
      schools: visit.plan!.schools,
      steps: [],
      zones: [],
    }
    await studio.db.write(() =>
      studio.db.models.Plan.sequelize!.query('UPDATE plans SET plan = ? WHERE visitId = ?', {
        replacements: [JSON.stringify(old), visit.id],
      }),
    )
    const page = (await api().get(`/api/visits/${visit.id}`).expect(200)).body as VisitPage
    expect(page.plan).toMatchObject({ version: 1, lanes: [], steps: [] })
  })
})
