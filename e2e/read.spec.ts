/** Read: the field under the hand, the guided test, lines, hair, maps out and in, cards. */
import { oneJob } from '../core/services/index.ts'
import { readFileSync } from 'node:fs'
import type { Client, ClientPage, House, VisitPage } from '../contract/types.ts'
import {
  ask,
  clientNamed,
  draw,
  expect,
  head,
  headReady,
  onHead,
  plannedClient,
  tabTo,
  test,
  word,
  pickOne,
} from './support.ts'
import type { Page } from '@playwright/test'

const tab = (page: Page, name: string) =>
  page
    .getByRole('tablist', { name: 'What to read' })
    .getByRole('tab', { name: new RegExp(`^${name}`) })
const visitOf = (page: Page, id: string) => ask<VisitPage>(page, 'GET', `/api/visits/${id}`)
const marks = (page: Page) => head(page).getAttribute('data-marks').then(Number)
async function opened(page: Page, name: string) {
  const made = await plannedClient(page, name, 'face-shave', false)
  await page.goto(`/clients/${made.client.id}/read`)
  await headReady(page)
  return made
}

test('the head is plain until it is read, and the hair follows the stroke while it is drawn', async ({
  page,
}) => {
  const { visit } = await opened(page, 'Plain Driftwood')
  await expect(page.getByText(/Nothing is read yet, so the head is plain/)).toBeVisible()
  await page.waitForTimeout(800)
  expect(await marks(page)).toBe(0)
  await page.keyboard.press('g')
  await expect.poll(() => marks(page)).toBeGreaterThan(300)
  await page.keyboard.press('g')
  await expect.poll(() => marks(page)).toBe(0)
  // The button is still down: nothing is written yet, but the hair is there.
  const from = await onHead(page, 0.5, 0.625)
  const to = await onHead(page, 0.5, 0.69)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  for (let i = 1; i <= 8; i++) await page.mouse.move(from.x, from.y + ((to.y - from.y) * i) / 8)
  await expect.poll(() => marks(page)).toBeGreaterThan(5)
  expect((await visitOf(page, visit.id)).readings).toHaveLength(0)
  await page.mouse.up()
  await expect(page.getByText(/^grows down/)).toBeVisible()
  await expect.poll(async () => (await visitOf(page, visit.id)).readings.length).toBe(1)
  await page.keyboard.press('z')
  await expect.poll(() => marks(page)).toBe(0)
})

test('the hair of a stroke that is broken off goes with it', async ({ page }) => {
  const { visit } = await opened(page, 'Broken Oar')
  const from = await onHead(page, 0.5, 0.625)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  for (let i = 1; i <= 8; i++) await page.mouse.move(from.x, from.y + 5 * i)
  await expect.poll(() => marks(page)).toBeGreaterThan(5)
  await head(page).dispatchEvent('pointercancel', { pointerId: 1 })
  await expect.poll(() => marks(page)).toBe(0)
  await page.mouse.up()
  expect((await visitOf(page, visit.id)).readings).toHaveLength(0)
})

test('at rest nothing is drawn or measured again', async ({ page }) => {
  await page.addInitScript(`
    window.observed = 0
    const observe = ResizeObserver.prototype.observe
    ResizeObserver.prototype.observe = function (...of) { window.observed++; return observe.apply(this, of) }`)
  await opened(page, 'Still Waters')
  await expect(page.getByText(/Nothing is read yet/)).toBeVisible()
  expect(await page.evaluate('window.observed')).toBeGreaterThan(0)
  await expect
    .poll(async () => {
      await page.evaluate('window.observed = 0')
      await page.waitForTimeout(700)
      return page.evaluate('window.observed')
    })
    .toBe(0)
})

test('one combing stroke over several zones leaves a series of readings, undone as one', async ({
  page,
}) => {
  const { visit } = await opened(page, 'Comb Spindrift')
  await page.getByRole('button', { name: /^Comb/ }).click()
  await draw(page, [0.42, 0.47], [0.44, 0.66])
  const zones = async () => (await visitOf(page, visit.id)).readings.map((r) => r.zoneId)
  await expect.poll(async () => (await zones()).length).toBeGreaterThan(2)
  expect(new Set(await zones()).size).toBeGreaterThan(1)
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect.poll(async () => (await zones()).length).toBe(0)
})

test('a guided test by keyboard alone finds the direction and keeps its answers', async ({
  page,
}) => {
  const { visit } = await opened(page, 'Test Halyard')
  await tabTo(page, 'Chin')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Chin' })).toBeVisible()
  await page.keyboard.press('t')
  await expect(page.getByRole('heading', { name: 'Feel: Chin' })).toBeVisible()
  await expect(page.getByTestId('ring')).toBeVisible()
  // Hair grows down: a stroke upward catches.
  for (let i = 0; i < 16; i++) {
    const words = await page.getByRole('region', { name: 'Guided test' }).innerText()
    if (words.includes('Written down')) break
    const deg = 30 * Number(/(\d+) o’clock in the picture/.exec(words)![1])
    await page.keyboard.press(
      Math.cos(((deg - 180) * Math.PI) / 180) < 0 ? 'ArrowRight' : 'ArrowLeft',
    )
    if (i === 1) {
      await page.keyboard.press('Backspace')
      await expect(page.getByText(/^1 answer:/)).toBeVisible()
    }
  }
  await expect(page.getByText(/Written down after/)).toBeVisible()
  await page.keyboard.press('Escape')
  await expect.poll(async () => (await visitOf(page, visit.id)).readings.length).toBe(1)
  const { readings } = await visitOf(page, visit.id)
  expect(readings[0]!.method).toBe('test')
  expect(readings[0]!.answers!.length).toBeGreaterThan(2)
  await expect(page.getByText(/grows down/i)).toBeVisible()
})

test.describe('with gloves on a tablet', () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true })
  test('the guided test has two large answers, and a tap on the head tests there', async ({
    page,
  }) => {
    const { visit } = await opened(page, 'Glove Capstan')
    await page.getByRole('button', { name: 'Chin', exact: true }).tap()
    await page.getByRole('button', { name: /^Test/ }).first().tap()
    const slides = page.getByRole('button', { name: /Slides/ })
    for (const answer of [slides, page.getByRole('button', { name: /Catches/ })]) {
      const box = (await answer.boundingBox())!
      expect(box.height).toBeGreaterThanOrEqual(72)
      expect(box.width).toBeGreaterThanOrEqual(120)
    }
    await slides.tap()
    await expect(page.getByText(/^1 answer:/)).toBeVisible()
    const cheek = await onHead(page, 0.5, 0.5)
    await page.touchscreen.tap(cheek.x, cheek.y)
    await expect(page.getByRole('heading', { name: /^Feel: (?!Chin)/ })).toBeVisible()
    await page.getByRole('button', { name: /Leave/ }).tap()
    expect((await visitOf(page, visit.id)).readings).toHaveLength(0)
  })
})

test('a reading is moved by its root, turned, and forgotten on its own', async ({ page }) => {
  const { visit } = await opened(page, 'Move Bollard')
  await draw(page, [0.5, 0.635], [0.5, 0.69])
  await expect(
    page
      .getByRole('list', { name: 'Readings of this zone' })
      .getByRole('button', { name: /^felt/ }),
  ).toHaveCount(1)
  const root = page.locator('.head-handle circle').first()
  await expect(root).toBeVisible()
  await expect.poll(async () => (await visitOf(page, visit.id)).readings.length).toBe(1)
  const before = (await visitOf(page, visit.id)).readings[0]!
  const at = (await root.boundingBox())!
  const from = { x: at.x + at.width / 2, y: at.y + at.height / 2 }
  // A tap chooses it; only then does a drag take it along instead of drawing.
  await page.mouse.click(from.x, from.y)
  await expect(page.locator('.head-handle.chosen')).toHaveCount(1)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  for (let i = 1; i <= 6; i++) await page.mouse.move(from.x + 3 * i, from.y)
  await page.mouse.up()
  await expect
    .poll(async () => (await visitOf(page, visit.id)).readings[0]!.point[0])
    .toBeGreaterThan(before.point[0] + 4)
  const moved = (await visitOf(page, visit.id)).readings
  expect(moved).toHaveLength(1)
  await page.keyboard.press(']')
  await expect
    .poll(async () => (await visitOf(page, visit.id)).readings[0]!.tangent[0])
    .not.toBeCloseTo(moved[0]!.tangent[0], 2)
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await visitOf(page, visit.id)).readings.length).toBe(0)
})

test('readings that disagree are shown as such, with the two to check', async ({ page }) => {
  await opened(page, 'Clash Mizzen')
  await draw(page, [0.5, 0.635], [0.5, 0.69])
  await expect(
    page
      .getByRole('list', { name: 'Readings of this zone' })
      .getByRole('button', { name: /^felt/ }),
  ).toHaveCount(1)
  await draw(page, [0.505, 0.69], [0.505, 0.635])
  const told = page.getByText(/Readings disagree here, Chin/)
  await expect(told).toBeVisible()
  await expect(page.locator('[data-sign="disagree"]')).toBeVisible()
  await expect(told.locator('..').getByRole('button')).toHaveCount(2)
  await told.locator('..').getByRole('button').first().click()
  await page.keyboard.press('Delete')
  await expect(told).toBeHidden()
})

test('a line is tapped, dragged, mirrored, measured, and what it keeps is not in the plan', async ({
  page,
}) => {
  const { client, visit } = await opened(page, 'Line Staysail')
  await tab(page, 'Lines').click()
  await page.getByText('cheek', { exact: true }).click()
  await page.keyboard.press('2')
  await page.waitForTimeout(900)
  for (const [x, y] of [
    [0.44, 0.56],
    [0.53, 0.5],
    [0.6, 0.42],
  ] as const) {
    const at = await onHead(page, x, y)
    await page.mouse.click(at.x, at.y)
    await page.waitForTimeout(150)
  }
  await expect(page.getByRole('button', { name: 'cheek line, client’s left' })).toBeVisible()
  await expect(page.locator('[data-line]')).toHaveCount(1)
  const tap = page.locator('.head-handle circle').nth(1)
  const box = (await tap.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 5)
  await page.mouse.down()
  for (let i = 1; i <= 5; i++) await page.mouse.move(box.x + 5, box.y + 5 + 4 * i)
  await page.mouse.up()
  await page.keyboard.press('m')
  await expect(page.getByText('Right against left')).toBeVisible()
  await expect(page.getByText('the same as the other')).toBeVisible()
  // Move one point of the mirrored line: the difference is told in mm.
  await page.keyboard.press('.')
  for (let i = 0; i < 4; i++) {
    await page.keyboard.press('ArrowUp')
    await page.waitForTimeout(120)
  }
  await expect(page.getByText(/mm on average, .* mm at most/)).toBeVisible()
  await word(page, 'Side that is kept', /^Keep below/).click()
  const lines = async () => (await visitOf(page, visit.id)).notes.lines.length
  await expect.poll(lines).toBe(2)
  await page.getByRole('button', { name: 'Take away' }).first().click()
  await expect.poll(lines).toBe(1)
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect.poll(lines).toBe(2)
  const planned = await ask<VisitPage>(page, 'PUT', `/api/visits/${visit.id}/plan`)
  const area = (p: VisitPage, id: string) =>
    p.plan!.zones.find((z) => z.zoneId === id)?.areaCm2 ?? 0
  expect(area(planned, 'cheek-lower-right')).toBeLessThan(0.9 * area(visit, 'cheek-lower-right'))
  await page.goto(`/clients/${client.id}/plan`)
  await expect(page.locator('[data-line]').first()).toBeAttached()
})

test('usual lines are laid by one tap: the edges of the brows, without which there is no plan, and a sideburn', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Brow Halyard', 'brow-tidy')
  const none = { lines: [], keptZones: [], hair: {}, strays: [] }
  await ask(page, 'PUT', `/api/visits/${visit.id}/notes`, none)
  await page.goto(`/clients/${client.id}/plan`)
  await expect(page.getByText(/edges come first: draw the upper and the lower edge/)).toBeVisible()
  await page.getByRole('link', { name: 'To Read' }).click()
  await tab(page, 'Lines').click()
  await page.getByRole('button', { name: 'Take the usual brow edges' }).click()
  await expect(page.locator('[data-line]')).toHaveCount(4)
  const kinds = async () => (await visitOf(page, visit.id)).notes.lines.map((l) => l.kind)
  await expect.poll(kinds).toEqual(['brow', 'brow-under', 'brow', 'brow-under'])
  await page.getByText('sideburn', { exact: true }).click()
  await pickOne(page, 'Usual sideburn, left', 'lobe')
  await expect.poll(async () => (await kinds()).at(-1)).toBe('sideburn')
  await page.getByRole('button', { name: /^Plan/ }).click()
  await expect(page.getByText('Kept: it lies behind a keep-line.').first()).toBeVisible()
})

test('hair is painted over zones by dragging, and strays are tweezed first', async ({ page }) => {
  const { visit } = await opened(page, 'Paint Oakum')
  await tab(page, 'Hair').click()
  await page.getByText('sparse', { exact: true }).click()
  await draw(page, [0.42, 0.5], [0.5, 0.66])
  await expect
    .poll(async () => Object.values((await visitOf(page, visit.id)).notes.hair).length)
    .toBeGreaterThan(1)
  await page.getByRole('button', { name: 'Mark strays' }).click()
  const chin = await onHead(page, 0.5, 0.665)
  await page.mouse.click(chin.x, chin.y)
  await expect.poll(async () => (await visitOf(page, visit.id)).notes.strays.length).toBe(1)
  const planned = await ask<VisitPage>(page, 'PUT', `/api/visits/${visit.id}/plan`)
  expect(planned.plan!.steps.some((s) => s.title === 'Tweeze strays first')).toBe(true)
})

test('the map goes out as files and comes in again, whole or not at all', async ({ page }) => {
  const { visit } = await opened(page, 'Out Fairlead')
  await draw(page, [0.5, 0.625], [0.5, 0.69])
  await expect(page.getByText(/^grows down/)).toBeVisible()
  await tab(page, 'Maps').click()
  const files: Record<string, string> = {}
  for (const [button, key] of [
    ['Map, JSON', 'json'],
    ['Readings, CSV', 'csv'],
    ['Flat views, SVG', 'svg'],
    ['Head and field, glTF', 'glb'],
  ] as const) {
    const coming = page.waitForEvent('download')
    await page.getByRole('button', { name: button }).click()
    const file = await coming
    expect(file.suggestedFilename()).toMatch(new RegExp(`^growth-map-.*\\.${key}$`))
    files[key] = await file.path()
  }
  expect(readFileSync(files['svg']!, 'utf8')).toContain('<svg')
  expect(readFileSync(files['glb']!).subarray(0, 4).toString()).toBe('glTF')
  const json = readFileSync(files['json']!, 'utf8')

  const other = await opened(page, 'In Gunwale')
  await tab(page, 'Maps').click()
  const give = (name: string, text: string) =>
    page
      .getByLabel('Growth map or readings')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  for (const [name, text, words] of [
    [
      'short.json',
      json.slice(0, 300),
      'short.json: This file is not JSON, or it ends too early. Nothing was changed.',
    ],
    ['later.json', json.replace('"version": 1', '"version": 9'), 'is of version 9'],
    ['other.json', json.replace(/head-\d+-/, 'head-1-'), 'made on another head'],
    ['bad.csv', 'zone,method,at\nelbow,felt,2026-01-01', '"elbow" is no zone'],
  ] as const) {
    await give(name, text)
    await expect(page.getByRole('alert').filter({ hasText: words })).toBeVisible()
  }
  expect((await visitOf(page, other.visit.id)).readings).toHaveLength(0)
  await give('map.json', json)
  await expect(page.getByText(/1 reading can be taken/)).toBeVisible()
  await page.getByRole('button', { name: 'Take them in' }).click()
  const came = async () => (await visitOf(page, other.visit.id)).readings
  await expect.poll(async () => (await came()).length).toBe(1)
  const [sent] = (await visitOf(page, visit.id)).readings
  expect((await came())[0]).toMatchObject({
    zoneId: sent!.zoneId,
    point: sent!.point,
    tangent: sent!.tangent,
  })
  // The same once more: the map holds it already.
  await give('readings.csv', readFileSync(files['csv']!, 'utf8'))
  await expect(page.getByText('the map already holds it')).toBeVisible()
  await page.getByRole('button', { name: 'Leave it' }).click()
})

test('maps of other visits are looked at, compared and copied; the tide line switches', async ({
  page,
}) => {
  const toby = await clientNamed(page, 'Tobias')
  await page.goto(`/clients/${toby.id}/read`)
  await headReady(page)
  const { visits, currentVisitId } = await ask<ClientPage>(page, 'GET', `/api/clients/${toby.id}`)
  const before = await visitOf(page, currentVisitId!)
  await page.getByRole('button', { name: 'Chin', exact: true }).click()
  await page.keyboard.press(']')
  await page.keyboard.press(']')
  await page.keyboard.press(']')
  await expect
    .poll(async () =>
      (await visitOf(page, currentVisitId!)).readings.some((r) =>
        before.readings.every((b) => b.id !== r.id),
      ),
    )
    .toBe(true)
  const last = visits.find((v) => v.endedAtMs !== null)!
  expect((await visitOf(page, last.id)).readings.map((r) => r.id).sort()).toEqual(
    before.readings.map((r) => r.id).sort(),
  )
  await tab(page, 'Maps').click()
  await page.getByRole('button', { name: 'Compare' }).first().click()
  await expect(
    page.getByTestId('difference').getByRole('button', { name: 'Chin', exact: true }),
  ).toBeVisible()
  await expect(
    page
      .getByTestId('difference')
      .getByText(/^\d+°$/)
      .first(),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Copy' }).first().click()
  await expect(page.getByRole('status').filter({ hasText: /copied/ })).toBeVisible()
  await page
    .getByRole('status')
    .filter({ hasText: /copied/ })
    .getByRole('button', { name: 'Undo' })
    .click()
  await page.getByRole('link', { name: 'Look at' }).first().click()
  await expect(page.getByText(/^Visit of/)).toBeVisible()
  await tab(page, 'Grain').click()
  await page.getByRole('button', { name: 'Chin', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Turn on' })).toBeDisabled()
})

test('the mirror card is one page of lines, with initials and no name', async ({ page }) => {
  const toby = await clientNamed(page, 'Tobias')
  await page.goto(`/clients/${toby.id}/cards/mirror`)
  await expect(page.locator('.flat-arrow').first()).toBeVisible()
  const sheet = page.getByRole('article', { name: 'Mirror card' })
  await expect(sheet).toContainText('T. A.')
  await expect(sheet).not.toContainText('Tobias')
  for (const view of ['Front', "Client's left", "Client's right", 'Under chin', 'Crown']) {
    await expect(sheet.getByText(view)).toBeVisible()
  }
  expect(await sheet.locator('img, canvas').count()).toBe(0)
  const pdf = (await page.pdf({ format: 'A4' })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
})

test('a bump-prone client gets a home card only where the school brushes, with arrows against the growth', async ({
  page,
}) => {
  const house = await ask<House>(page, 'GET', '/api/house')
  const id = crypto.randomUUID()
  await ask<Client>(page, 'POST', '/api/clients', {
    id,
    name: 'Home Lugger',
    service: 'face-shave',
    skin: {
      reactivity: 'average',
      faceHair: 'beard',
      coarseness: 'coarse',
      curl: 'tight',
      bumpProne: true,
    },
  })
  await ask(page, 'POST', `/api/clients/${id}/visits`, {
    id: crypto.randomUUID(),
    jobs: [oneJob(crypto.randomUUID(), 'face-shave')],
    workerId: house.workerId,
    slotAtMs: null,
  })
  await page.goto(`/clients/${id}/read`)
  await headReady(page)
  await draw(page, [0.5, 0.625], [0.5, 0.69])
  await expect(page.getByText(/^grows down/)).toBeVisible()
  await page.getByText('Exfoliate', { exact: true }).click()
  await expect(page.getByText(/^rub up/)).toBeVisible()
  await page.getByText('First pass', { exact: true }).click()
  await expect(page.getByText(/^first pass down/)).toBeVisible()
  await tab(page, 'Maps').click()
  await expect(page.getByRole('link', { name: 'Mirror card' })).toBeVisible()
  await expect(page.getByText(/there is no home card/)).toBeVisible()
  // The card is printed from what the house has.
  const current = async () =>
    (await ask<ClientPage>(page, 'GET', `/api/clients/${id}`)).currentVisitId!
  await expect.poll(async () => (await visitOf(page, await current())).readings.length).toBe(1)
  await page.goto(`/clients/${id}/cards/home`)
  await expect(page.getByRole('heading', { name: 'There is no home card' })).toBeVisible()
  // By the school that counts for this client alone there is one.
  await ask(page, 'PATCH', `/api/clients/${id}`, { schools: { exfoliate: 'brush' } })
  await page.goto(`/clients/${id}/read`)
  await headReady(page)
  await tab(page, 'Maps').click()
  await page.getByRole('link', { name: 'Home card: brushing' }).click()
  // However noisy a reader the house has found this one to be: the zone that was read has its arrow.
  await expect(page.getByRole('article', { name: 'Home card: brushing' })).toContainText('Front')
  const arrow = page.locator('.flat-arrow path').first()
  await expect(arrow).toBeVisible()
  const [, y0, y1] = /M[\d.]+ ([\d.]+)L[\d.]+ ([\d.]+)/
    .exec((await arrow.getAttribute('d'))!)!
    .map(Number)
  expect(y1!).toBeLessThan(y0!)
})

test('marks are painted with a margin, and asked about at the next visit', async ({ page }) => {
  const { visit } = await opened(page, 'Patch Leeboard')
  await tab(page, 'Marks').click()
  await page.getByText('scar', { exact: true }).click()
  await page.getByText('Paint a patch').click()
  await draw(page, [0.44, 0.5], [0.46, 0.58])
  await expect(page.getByText(/scar, .* patch, .* cm² with margin/)).toBeVisible()
  const kept = async () => (await visitOf(page, visit.id)).asked.spots
  await expect.poll(async () => (await kept())[0]?.trail?.length ?? 0).toBeGreaterThan(2)
  await ask(page, 'PUT', `/api/visits/${visit.id}/asked`, {
    answers: {},
    spots: (await kept()).map((s) => ({ ...s, stillThere: 'ask' })),
  })
  await page.reload()
  await tab(page, 'Marks').click()
  await expect(page.getByRole('heading', { name: 'Still there?' })).toBeVisible()
  await page.getByRole('button', { name: 'Still there' }).click()
  await expect(page.getByRole('heading', { name: 'Still there?' })).toBeHidden()
  await expect.poll(async () => (await kept())[0]!.stillThere).toBe('yes')
})

test.describe('where motion is welcome', () => {
  test.use({ contextOptions: { reducedMotion: 'no-preference' } })
  test(
    'hair drifts slowly along its way, and rests when the map is left',
    { tag: '@drawn' },
    async ({ page }) => {
      const toby = await clientNamed(page, 'Tobias')
      // In software the drift would rest by itself, since frames take long; here it is asked for.
      await page.goto(`/clients/${toby.id}/read?drift`)
      await headReady(page)
      await expect.poll(() => marks(page)).toBeGreaterThan(100)
      const picture = () => head(page).locator('canvas').screenshot()
      await page.waitForTimeout(1500)
      const first = await picture()
      await expect.poll(async () => (await picture()).equals(first)).toBe(false)
    },
  )
})

test('hair stands still for those who ask for less motion', { tag: '@drawn' }, async ({ page }) => {
  const toby = await clientNamed(page, 'Tobias')
  await page.goto(`/clients/${toby.id}/read?drift`)
  await headReady(page)
  await expect.poll(() => marks(page)).toBeGreaterThan(100)
  await page.waitForTimeout(2000)
  const first = await head(page).locator('canvas').screenshot()
  await page.waitForTimeout(1200)
  expect((await head(page).locator('canvas').screenshot()).equals(first)).toBe(true)
})
