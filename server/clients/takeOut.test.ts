/** What can be taken out of a client: one document by its schema, tables, a report, a calendar. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Ajv2020 } from 'ajv/dist/2020.js'
import ICAL from 'ical.js'
import Papa from 'papaparse'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import request from 'supertest'
import type { ClientHistory, ClientPage, StudioAnswer, VisitPage } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { finishVisit, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'

let studio: Studio
let clientId: string
let visit: VisitPage
beforeAll(async () => {
  studio = await openStudio()
  const planned = await plannedVisit(studio.app)
  clientId = planned.client.id
  visit = planned.visit
  await finishVisit(studio.app, visit, Date.now() - 8.2 * DAY_MS)
  const spot = { kind: 'ingrown', zoneId: 'chin', point: [0, -60, 95], normal: [0, 0, 1] }
  const first = { ...spot, id: '11111111-1111-4111-8111-aaaaaaaaaaaa' }
  await put('48h', {
    zones: [{ zoneId: 'chin', redness: 2, bumps: 3, pustules: 1 }],
    spots: [first],
    feeling: { stinging: 4, itch: 2, dryness: 1, words: '=HYPERLINK("x") it stung' },
    source: 'phone',
  })
  await put('h150', {
    zones: [{ zoneId: 'chin', redness: 0, bumps: 1 }],
    spots: [{ ...spot, id: '22222222-2222-4222-8222-bbbbbbbbbbbb', again: first.id }],
  })
  await api()
    .post(`/api/visits/${visit.id}/hair`)
    .send({
      id: '33333333-3333-4333-8333-cccccccccccc',
      kind: 'measured',
      date: new Date(Date.now() - 4 * DAY_MS).toISOString().slice(0, 10),
      zoneId: 'chin',
      lengthMm: 1.7,
      method: 'ruler',
    })
    .expect(200)
})
afterAll(() => studio.close())

const api = () => request(studio.app)
const put = (moment: string, body: object) =>
  api()
    .put(`/api/visits/${visit.id}/skin/${moment}`)
    .send({
      atMs: Date.now() - 8 * DAY_MS + Number(moment.replace(/\D/g, '')) * 3_600_000,
      ...body,
    })
    .expect(200)

/** The words of a client's report, and how much is drawn in it. */
async function readReport(id: string): Promise<{ text: string; paths: number }> {
  const r = await api()
    .get(`/api/clients/${id}/report.pdf`)
    .buffer(true)
    .parse((res, done) => {
      const parts: Buffer[] = []
      res.on('data', (c: Buffer) => parts.push(c))
      res.on('end', () => done(null, Buffer.concat(parts)))
    })
    .expect(200)
  const fonts = join(process.cwd(), 'node_modules/pdfjs-dist/standard_fonts/')
  const doc = await getDocument({
    data: new Uint8Array(r.body as Buffer),
    standardFontDataUrl: fonts,
  }).promise
  let text = ''
  let paths = 0
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n)
    text += (await page.getTextContent()).items.map((i) => ('str' in i ? i.str : '')).join(' ')
    paths += (await page.getOperatorList()).fnArray.length
  }
  return { text, paths }
}

describe('a look at the skin', () => {
  it('keeps spots, feelings, source and any moment, and the summary follows', async () => {
    const page = (await api().get(`/api/visits/${visit.id}`)).body as VisitPage
    expect(page.answers.map((a) => a.moment).sort()).toEqual(['48h', 'h150', 'now'])
    expect(page.answers.find((a) => a.moment === '48h')).toMatchObject({
      source: 'phone',
      feeling: { stinging: 4 },
      spots: [{ kind: 'ingrown', zoneId: 'chin' }],
    })
    expect(page.hair[0]).toMatchObject({ method: 'ruler', lengthMm: 1.7 })
    const client = (await api().get(`/api/clients/${clientId}`)).body as ClientPage
    expect(client.visits[0]).toMatchObject({ worstRedness: 2, bumps: 4 })
    expect(client.model.answeredServices).toBe(1)
    expect(client.model.bumpServices).toBe(1)
    expect(client.model.learnedZones).toEqual(['chin'])
  })

  it('can be taken away again, and then nobody has answered', async () => {
    await put('h160', { zones: [] })
    const page = (await api().delete(`/api/visits/${visit.id}/skin/h160`).expect(200))
      .body as VisitPage
    expect(page.answers.some((a) => a.moment === 'h160')).toBe(false)
  })

  it('is refused where it cannot be: zones not worked, scales passed, nonsense moments', async () => {
    const bad = (moment: string, body: object) =>
      api()
        .put(`/api/visits/${visit.id}/skin/${moment}`)
        .send({ atMs: 1, zones: [], ...body })
    expect(
      (await bad('48h', { zones: [{ zoneId: 'calf-left', redness: 1, bumps: 0 }] })).status,
    ).toBe(422)
    expect((await bad('48h', { feeling: { stinging: 11 } })).status).toBe(422)
    expect((await bad('48h', { source: 'guess' })).status).toBe(422)
    expect((await bad('h99999', {})).status).toBe(400)
    expect((await bad('tomorrow', {})).status).toBe(400)
  })
})

describe('taken out', () => {
  it('as one document, it is what its schema says', async () => {
    const schema = JSON.parse(
      readFileSync(join(process.cwd(), 'docs/formats/client.schema.json'), 'utf8'),
    ) as object
    const validate = new Ajv2020({ allErrors: true, strict: false }).compile(schema)
    const out = (await api().get(`/api/clients/${clientId}/export.json`).expect(200)).body as {
      visits: { skin: { spots: unknown[] }[] }[]
    }
    expect(validate(out) ? [] : validate.errors).toEqual([])
    expect(out.visits[0]!.skin.flatMap((s) => s.spots)).toHaveLength(2)
    // The schema can fail.
    expect(validate({ ...out, visits: [{ id: 'x' }] })).toBe(false)
    expect(validate({ ...out, format: 'other' })).toBe(false)
  })

  it('as a table, one line a reading, clear zones with zeros, and no cell that runs', async () => {
    const r = await api().get(`/api/clients/${clientId}/readings.csv`).expect(200)
    expect(r.headers['content-type']).toContain('text/csv')
    const { data, errors } = Papa.parse<Record<string, string>>(r.text, {
      header: true,
      skipEmptyLines: true,
    })
    expect(errors).toEqual([])
    const day2 = data.filter((d) => d['what'] === 'skin' && d['hours_after'] === '48')
    const worked = Object.keys(
      ((await api().get(`/api/visits/${visit.id}`)).body as VisitPage).loads!,
    )
    expect(day2.map((d) => d['zone']).sort()).toEqual([...worked].sort())
    expect(day2.find((d) => d['zone'] === 'chin')).toMatchObject({
      redness_0_4: '2',
      bumps: '3',
      pustules: '1',
      told_by: 'phone',
    })
    expect(day2.find((d) => d['zone'] === 'jaw-left')).toMatchObject({
      redness_0_4: '0',
      bumps: '0',
    })
    expect(day2[0]!['words']).toMatch(/^'=HYPERLINK/)
    expect(data.find((d) => d['what'] === 'measured')).toMatchObject({
      length_mm: '1.7',
      method: 'ruler',
    })
  })

  it('as a report, which pdf.js can read: history, maps, charts', async () => {
    const { text, paths } = await readReport(clientId)
    expect(text).toContain('Ada Reef')
    expect(text).toContain('It is no diagnosis')
    expect(text).toMatch(/redness\s+2/)
    expect(text).toContain('ingrown hair')
    expect(text).toContain('it stung')
    // Maps and charts are drawn, not pasted: many paths, no picture.
    expect(paths).toBeGreaterThan(1000)
  })

  it('a report of somebody new claims nothing that was not asked, done or answered', async () => {
    const { client } = await plannedVisit(studio.app)
    const before = await readReport(client.id)
    expect(before.text).toContain('once a visit is finished')
    expect(before.text).toContain('No service has been finished yet')
    expect(before.text).not.toContain('Nothing was found')
    const problem = await api().get(`/api/clients/${client.id}/visits.ics?through=2027-01-31`)
    expect([problem.status, (problem.body as { code: string }).code]).toEqual([409, 'no-window'])
    expect((problem.body as { detail: string }).detail).toContain('after the first service')
  })

  it('as a calendar of the visits ahead, read by another library', async () => {
    const until = new Date(Date.now() + 40 * DAY_MS).toISOString().slice(0, 10)
    const r = await api().get(`/api/clients/${clientId}/visits.ics?through=${until}`).expect(200)
    const events = new ICAL.Component(ICAL.parse(r.text) as unknown[]).getAllSubcomponents('vevent')
    expect(events.length).toBeGreaterThan(3)
    for (const e of events) {
      const event = new ICAL.Event(e)
      expect(event.summary).toContain('Hot-towel face shave')
      expect(event.startDate.toJSDate().getTime()).toBeLessThan(Date.parse(until) + 7 * DAY_MS)
    }
    expect((await api().get(`/api/clients/${clientId}/visits.ics`)).status).toBe(400)
  })

  it('as history: what was done, zone by zone, and what was told of the next visit', async () => {
    const h = (await api().get(`/api/clients/${clientId}/history`).expect(200))
      .body as ClientHistory
    const [facts] = h.visits
    expect(facts!.choices!.zones['chin']).toMatchObject({
      relation: expect.any(String),
      lanes: expect.any(Number),
    })
    expect(facts!.worst).toEqual({ chin: 2 })
    expect(facts!.bumps).toEqual({ chin: 4 })
    expect(facts!.due!.fromMs).toBeGreaterThan(facts!.endedAtMs)
    expect(h.looks).toHaveLength(3)
    const { left, learned } = (await api().get('/api/studio').expect(200)).body as StudioAnswer
    expect(left).toBe(0)
    expect(learned!.view).toMatchObject({ visits: 1, red: { hits: 1, of: 1 } })
    expect(learned!.effects.map((e) => [e.outcome, e.visits])).toEqual([
      ['redness', 1],
      ['bumps', 1],
    ])
  })
})
