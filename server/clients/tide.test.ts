/** The tide line: the latest visits with what lies ahead, and every earlier stretch. */
import { writeCard } from '../safety/folder.ts'
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import type { ClientPage, Tide, ClientRows, Today } from '../../contract/types.ts'
import { serviceZones } from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { seedDemo } from '../../demo/seed.ts'
import { PEOPLE } from '../../demo/people.ts'
import { openStudio, type Studio } from '../testing/studio.ts'
import { studioSkin } from '../studio/skin.ts'

let studio: Studio
let id: string
beforeAll(async () => {
  studio = await openStudio()
  // The demo signs in by itself.
  writeCard(studio.dir, { demo: true })
  await studio.db.models.Worker.destroy({ where: {} })
  // Somebody who has come for long.
  await seedDemo(
    studio.db,
    Date.now(),
    PEOPLE.filter((p) => p.name === 'Noor Castellane'),
  )
  id = ((await request(studio.app).get('/api/clients')).body as ClientRows).rows[0]!.id
})
afterAll(() => studio.close())
const get = async <T>(path: string) => (await request(studio.app).get(path).expect(200)).body as T

describe('the tide line', () => {
  it('reaches every visit there ever was, each once, going back', async () => {
    const page = await get<ClientPage>(`/api/clients/${id}`)
    const seen = page.tide.visits.filter((v) => v.endedAtMs !== null).map((v) => v.id)
    let tide: Tide = page.tide
    for (let back = 1; tide.earlier && back < 20; back++) {
      tide = await get<Tide>(`/api/clients/${id}/tide?back=${back}`)
      const again = tide.visits.filter((v) => seen.includes(v.id))
      expect(again).toEqual([])
      seen.push(...tide.visits.map((v) => v.id))
      for (const v of tide.visits) {
        expect(v.endedAtMs).toBeGreaterThanOrEqual(tide.fromMs)
        expect(v.endedAtMs).toBeLessThanOrEqual(tide.untilMs)
      }
      expect(tide.curve.ahead).toEqual([])
      expect(tide.window).toBeNull()
      expect(tide.curve.past.length).toBeGreaterThan(0)
    }
    expect(tide.earlier).toBe(false)
    const [row] = await studio.db.select(
      `SELECT COUNT(*) AS n FROM visits WHERE state = 'finished'`,
    )
    expect(new Set(seen).size).toBe(row!['n'])
  })

  it('is refused a stretch that is none, and ends where there are no more', async () => {
    expect((await request(studio.app).get(`/api/clients/${id}/tide?back=0`)).status).toBe(400)
    expect((await request(studio.app).get(`/api/clients/${id}/tide?back=x`)).status).toBe(400)
    const far = await get<Tide>(`/api/clients/${id}/tide?back=300`)
    expect([far.visits, far.earlier]).toEqual([[], false])
  })

  it('and Today tell the odds that hair is seen by the end of the window', async () => {
    const { rows } = await get<Today>('/api/today')
    expect(rows[0]!.seenByEnd).toBeGreaterThan(0.4)
    expect(rows[0]!.seenByEnd).toBeLessThanOrEqual(1)
  })
})

describe('the studio’s mean of a kind of skin', () => {
  it('moves with what is answered, is kept for a while, and then worked out anew', async () => {
    const now = Date.now()
    const first = await studioSkin(studio.db, now + DAY_MS)
    expect(first.clients.average).toBe(1)
    await studio.db.write(async () => {
      await studio.db.models.Visit.update({ gradeSum: 80 }, { where: {} })
    })
    expect(await studioSkin(studio.db, now + DAY_MS + 1000)).toBe(first)
    const later = await studioSkin(studio.db, now + DAY_MS + 60_000)
    expect(later.mean.average).toBeGreaterThan(first.mean.average)
  })

  it('shows what was taken off at home on earlier stretches too', async () => {
    const before = await get<Tide>(`/api/clients/${id}/tide?back=1`)
    expect(before.home).toEqual([])
    const end = before.visits.at(-1)!.endedAtMs!
    const atMs = end + 0.6 * (before.visits.at(-2)!.endedAtMs! - end)
    const usual = (await get<ClientPage>(`/api/clients/${id}`)).client.service
    const zones = serviceZones(usual)
    await studio.db.write(() =>
      studio.db.models.HomeWork.create({
        ...{ id: randomUUID(), clientId: id, atMs, zones, tool: 'cartridge' },
        ...{ source: 'client', toldAtMs: atMs, fresh: 0, dull: 0 },
      }),
    )
    const after = await get<Tide>(`/api/clients/${id}/tide?back=1`)
    expect(after.home).toEqual([expect.objectContaining({ atMs, share: 1 })])
    const at = (t: Tide) => t.curve.past.findLast((p) => p.atMs <= atMs + DAY_MS)!.mm
    expect(at(after)).toBeLessThan(at(before))
  })
})
