import { randomUUID } from 'node:crypto'
import express from 'express'
import request, { type Response } from 'supertest'
import pino from 'pino'
import type { VisitPage } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { createAnswerApp } from '../app.ts'
import { openChair } from '../chair/chair.ts'
import { finishVisit, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'
import { answerRoutes } from './routes.ts'

let studio: Studio
let visit: VisitPage
beforeAll(async () => {
  studio = await openStudio()
})
afterAll(() => studio.close())

const api = () => request(studio.app)
const page = async () => (await api().get(`/api/visits/${visit.id}`).expect(200)).body as VisitPage

/** Answers after the first look at the chair. */
const answers = async () => (await page()).answers.filter((a) => a.moment !== 'now')

/** A service that ended so many days ago. */
async function finished(daysAgo: number): Promise<void> {
  ;({ visit } = await plannedVisit(studio.app))
  await finishVisit(studio.app, visit, Date.now() - daysAgo * DAY_MS)
}
const link = async () => {
  const { url } = (await api().post(`/api/visits/${visit.id}/link`).expect(201)).body as {
    url: string
  }
  return new URL(url).pathname
}
const FORM = {
  redness: '2',
  areas: ['neck', 'chin'],
  bumps: '5',
  stinging: '3',
  itch: '1',
  dryness: '1',
  hair: 'no',
  since: '0',
  words: '',
}
const send = (path: string, over: Record<string, unknown> = {}) =>
  api()
    .post(path)
    .type('form')
    .send({ ...FORM, ...over })

describe('a link page', () => {
  beforeEach(() => finished(1.1))

  it('asks six questions and takes the answer for the moment that has come', async () => {
    const path = await link()
    const asked = await api().get(path).expect(200)
    expect(asked.text.match(/<legend>\d\. /g)).toHaveLength(6)
    expect(asked.text).toContain('the day after')
    expect(asked.headers['cache-control']).toBe('no-store')
    // No other site learns of the address; our own form still says where it comes from.
    expect(asked.headers['referrer-policy']).toBe('same-origin')
    expect(asked.headers['content-security-policy']).toContain("script-src 'self'")
    // It shows how the client is called, and nothing else of them.
    expect(asked.text).toContain('Hello Ada')
    expect(asked.text).not.toContain('Reef')

    expect((await send(path).expect(200)).text).toContain('Thank you')
    const [answer] = await answers()
    expect(answer).toMatchObject({
      source: 'client',
      feeling: { stinging: 3, itch: 1, dryness: 1 },
    })
    const neck = answer!.zones.filter((z) => z.redness === 2)
    expect(neck.length).toBeGreaterThan(3)
    expect(neck.every((z) => /^(neck|under-chin|chin|under-lip)/.test(z.zoneId))).toBe(true)
    expect(answer!.zones.reduce((s, z) => s + z.bumps, 0)).toBe(5)
  })

  it('learns from it, and Today owes one answer fewer', async () => {
    const owed = async () =>
      ((await api().get('/api/today')).body as { answersOwed: number }).answersOwed
    const before = await owed()
    await send(await link()).expect(200)
    expect(await owed()).toBe(before - 1)
    expect(await answers()).toHaveLength(1)
  })

  it('keeps when hair was felt, once, on the day that was said', async () => {
    await finished(2.2)
    await send(await link(), { hair: 'felt', since: '1' }).expect(200)
    const { hair } = await page()
    // Felt yesterday, and not seen yet today.
    expect(hair.map((h) => [h.kind, h.zoneId])).toEqual([
      ['felt', null],
      ['not-seen', null],
    ])
    expect(hair[1]!.days - hair[0]!.days).toBeCloseTo(1, 1)
    expect(hair[0]!.days).toBeGreaterThan(0)
    expect(hair[0]!.days).toBeLessThan(2.2)
  })

  it('sent again changes nothing: what is there stays', async () => {
    const path = await link()
    await send(path).expect(200)
    const before = await answers()
    expect((await send(path, { redness: '4' }).expect(409)).text).toContain('not changed')
    expect((await api().get(path).expect(200)).text).toContain('here already')
    expect(await answers()).toEqual(before)
  })

  it('never writes over what was seen here', async () => {
    await api()
      .put(`/api/visits/${visit.id}/skin/24h`)
      .send({ atMs: Date.now(), zones: [{ zoneId: 'chin', redness: 1, bumps: 0 }] })
      .expect(200)
    const path = await link()
    await send(path, { redness: '4' }).expect(409)
    expect((await answers())[0]).toMatchObject({ source: 'seen' })
  })

  it('opens by its own token only: guesses, halves and others find one and the same closed page', async () => {
    const path = await link()
    const token = path.split('/').pop()!
    const other = `${token[0] === 'a' ? 'b' : 'a'}${token.slice(1)}`
    // But for the nonce, which is another every time.
    const bare = (text: string) => text.replaceAll(/nonce="[^"]*"/g, '')
    const closed = bare((await api().get('/answer/x').expect(404)).text)
    for (const guess of [
      other,
      token.slice(0, 42),
      `${token}A`,
      'a'.repeat(43),
      '..%2f..%2fapi%2fhouse',
      "'%20OR%201=1--",
      visit.id,
    ]) {
      const r: Response = await api().get(`/answer/${guess}`)
      expect([r.status, bare(r.text)]).toEqual([404, closed])
      expect((await api().post(`/answer/${guess}`).type('form').send(FORM)).status).toBe(404)
    }
    expect(await answers()).toHaveLength(0)
  })

  it('keeps only the digest of a token', async () => {
    const token = (await link()).split('/').pop()!
    const rows = await studio.db.select('SELECT * FROM answer_links')
    expect(rows.length).toBeGreaterThan(0)
    expect(JSON.stringify(rows)).not.toContain(token)
    expect(rows[0]!['digest']).toMatch(/^[0-9a-f]{64}$/)
  })

  it('closes on its day, and when it is taken back', async () => {
    const path = await link()
    await studio.db.models.AnswerLink.update(
      { expiresAtMs: Date.now() - 1 },
      { where: { visitId: visit.id } },
    )
    await api().get(path).expect(404)
    await send(path).expect(404)
    const fresh = await link()
    await api().get(fresh).expect(200)
    await api().delete(`/api/visits/${visit.id}/link`).expect(200)
    await send(fresh).expect(404)
    expect(await answers()).toHaveLength(0)
    expect((await page()).linkUntilMs).toBeNull()
  })

  it('speaks for its own visit: another’s zones, ids and fields are refused', async () => {
    const path = await link()
    for (const wrong of [
      { areas: ['legs; DROP TABLE visits'] },
      { redness: '9' },
      { redness: '' },
      { bumps: '-1' },
      { bumps: '1e9' },
      { hair: 'maybe' },
      { visitId: randomUUID() },
      { __proto__x: '1' },
      { words: 'x'.repeat(501) },
    ]) {
      expect((await send(path, wrong)).status).toBe(422)
    }
    expect(await answers()).toHaveLength(0)
    // An area that was not worked names no zone.
    await send(path, { areas: ['legs'] }).expect(200)
    const zones = (await answers())[0]!.zones.map((z) => z.zoneId)
    expect(zones.some((z) => z.startsWith('shin'))).toBe(false)
  })

  it('what cannot be taken is said, and what was given stands in the form again', async () => {
    const path = await link()
    const r = await send(path, { bumps: '999', areas: ['chin', 'neck'], words: 'sore "here" <b>' })
    expect(r.status).toBe(422)
    expect(r.text).toContain('Not sent yet')
    expect(r.text).toMatch(/name="redness" value="2" required checked/)
    expect(r.text.match(/name="areas" value="(chin|neck)" checked/g)).toHaveLength(2)
    expect(r.text).toMatch(/name="bumps"[^>]*value="999"/)
    expect(r.text).toContain('sore &quot;here&quot; &lt;b&gt;</textarea>')
    expect(r.text).not.toContain('here" <b>')
  })

  it('script in text is kept as text and shown as text', async () => {
    const words = '<script>alert(1)</script>"><img src=x onerror=alert(2)> ‮txt'
    await send(await link(), { words }).expect(200)
    const kept = (await answers())[0]!.feeling!.words!
    expect(kept).toContain('<script>alert(1)</script>')
    const { clientId } = await page()
    await api()
      .patch(`/api/clients/${clientId}`)
      .send({ calledName: '<b onclick=x>Ada' })
      .expect(200)
    await api().delete(`/api/visits/${visit.id}/skin/24h`).expect(200)
    const html = (
      await api()
        .get(await link())
        .expect(200)
    ).text
    expect(html).not.toContain('<b onclick')
    expect(html).toContain('&lt;b onclick')
  })

  it('a huge body, a flood of fields and a body of another kind are refused', async () => {
    const path = await link()
    expect((await send(path, { words: 'x'.repeat(200_000) })).status).toBe(413)
    const flood = Object.fromEntries(Array.from({ length: 500 }, (_, i) => [`f${i}`, '1']))
    expect((await send(path, flood)).status).toBe(413)
    expect(
      (
        await api()
          .post(path)
          .send({ ...FORM })
      ).status,
    ).toBe(415)
    expect(await answers()).toHaveLength(0)
  })

  it('goes into the waiting questions of the outbox, the newest in the place of the older', async () => {
    const first = await link()
    const second = await link()
    const texts = (await page()).messages
      .filter((m) => m.subject === 'How is your skin?')
      .map((m) => m.text)
    expect(texts.length).toBeGreaterThan(1)
    for (const text of texts) {
      expect(text).toContain(second)
      expect(text).not.toContain(first)
    }
    await api().delete(`/api/visits/${visit.id}/link`).expect(200)
    for (const m of (await page()).messages) expect(m.text).not.toContain('/answer/')
  })
})

it('no link is made before the end, or long after it', async () => {
  ;({ visit } = await plannedVisit(studio.app))
  expect((await api().post(`/api/visits/${visit.id}/link`)).body).toMatchObject({
    code: 'not-finished',
  })
  await finished(20)
  expect((await api().post(`/api/visits/${visit.id}/link`)).body).toMatchObject({
    code: 'link-too-late',
  })
})

it('the port for clients serves link pages and nothing else', async () => {
  await finished(1.1)
  const path = await link()
  const alone = createAnswerApp(
    studio.db,
    { hosts: [] },
    pino({ level: 'silent' }),
    openChair(studio.db),
  )
  await request(alone).get(path).expect(200)
  for (const there of ['/', '/api/clients', '/api/house', `/api/visits/${visit.id}`, '/clients']) {
    const r = await request(alone).get(there)
    expect([r.status, r.text.includes('This page is closed')]).toEqual([404, true])
  }
})

it('a guesser is slowed down', async () => {
  const app = express()
  app.use(answerRoutes(studio.db, openChair(studio.db), {}, 5))
  const statuses: number[] = []
  for (let i = 0; i < 7; i++) statuses.push((await request(app).get(`/answer/guess${i}`)).status)
  expect(statuses).toEqual([404, 404, 404, 404, 404, 429, 429])
})
