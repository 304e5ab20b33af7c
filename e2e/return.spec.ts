/** Return: looks at the skin, the client's own page, bumps that are followed, what changed, the next visit, then and now. */
import { readFileSync } from 'node:fs'
import ICAL from 'ical.js'
import type { ClientPage, House, ImportRecord, Today, VisitPage } from '../contract/types.ts'
import { violations } from './axe.ts'
import { ask, clientNamed, expect, headReady, onHead, tabTo, test, pickOne } from './support.ts'
import type { Page } from '@playwright/test'

/** A client's last finished visit. */
async function lastVisit(page: Page, name: string): Promise<{ clientId: string; visitId: string }> {
  const { id } = await clientNamed(page, name)
  const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${id}`)
  return { clientId: id, visitId: visits.find((v) => v.state === 'finished')!.id }
}
const visitOf = (page: Page, id: string) => ask<VisitPage>(page, 'GET', `/api/visits/${id}`)
const tab = (page: Page, name: string) =>
  page
    .getByRole('tablist', { name: 'What to look at' })
    .getByRole('tab', { name, exact: true })
    .click()

test('a client answers on a phone: six questions by touch, and the worker sees it', async ({
  page,
  browser,
}) => {
  const owed = async () => (await ask<Today>(page, 'GET', '/api/today')).answersOwed
  const before = await owed()
  // From what is owed on Today to the question.
  await page.goto('/')
  await page
    .getByRole('row', { name: /Marlow Quist/ })
    .getByRole('link', { name: /answer owed/ })
    .click()
  await expect(page.getByText('Not answered, which is not clear', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Ask the client' }).click()
  await page.getByRole('button', { name: 'Make a link' }).click()
  const url = await page.getByLabel('Link for the client').inputValue()
  await expect(page.getByAltText('The link as a code to scan')).toBeVisible()

  const phone = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    javaScriptEnabled: false,
  })
  const client = await phone.newPage()
  await client.goto(url)
  await expect(
    client.getByRole('heading', { name: 'Hello Marlow, how is your skin?' }),
  ).toBeVisible()
  // Nothing stands out at the side, and a finger finds everything.
  const wide = await client.locator('main').boundingBox()
  expect(wide!.width).toBeLessThanOrEqual(390)
  for (const tap of await client.locator('label.tap').all()) {
    expect((await tap.boundingBox())!.height).toBeGreaterThanOrEqual(44)
  }
  await client.getByRole('radio', { name: '2, mild' }).tap()
  await client.getByRole('checkbox', { name: 'chin', exact: true }).first().tap()
  await client.getByLabel('Bumps or ingrown hairs').fill('3')
  await client.getByRole('radio', { name: '4 of 10' }).first().tap()
  await client.getByRole('radio', { name: 'Not dry' }).tap()
  await client.getByRole('radio', { name: '1 of 10' }).last().tap()
  await client.getByRole('radio', { name: 'I can see it' }).tap()
  await client.getByLabel('Anything else').fill('<b>It itched</b> under the strap')
  await client.getByRole('button', { name: /^Send to/ }).tap()
  await expect(client.getByRole('heading', { name: 'Thank you.' })).toBeVisible()
  await client.goto(url)
  await expect(client.getByText('is here already', { exact: false })).toBeVisible()
  await phone.close()

  // A page with scripts only for the looking: what assistive technology finds on it.
  const look = await browser.newPage({ viewport: { width: 390, height: 844 } })
  await look.route('**/answer/**', async (route) => {
    const answer = await route.fetch()
    const { 'content-security-policy': _policy, ...headers } = answer.headers()
    await route.fulfill({ response: answer, headers })
  })
  const other = await lastVisit(page, 'Ansel')
  const { url: fresh } = await ask<{ url: string }>(
    page,
    'POST',
    `/api/visits/${other.visitId}/link`,
  )
  await look.goto(fresh)
  expect(await violations(look)).toEqual([])
  await look.close()

  await page.reload()
  await page
    .getByRole('radiogroup', { name: 'When' })
    .getByText(/^7 days/)
    .click()
  await expect(page.getByRole('combobox', { name: 'Who said it' })).toHaveValue('by the client')
  await expect(page.getByText('<b>It itched</b> under the strap')).toBeVisible()
  await expect(
    page.getByRole('group', { name: 'Redness, Chin' }).getByRole('button', { name: /^2/ }),
  ).toHaveAttribute('aria-pressed', 'true')
  expect(await owed()).toBe(before - 1)
})

test('bumps are tapped on the head, taken away, undone, and found again at the next look', async ({
  page,
}) => {
  const { clientId, visitId } = await lastVisit(page, 'Emeka')
  const own = async (moment: string) =>
    (await visitOf(page, visitId)).answers.find((a) => a.moment === moment)?.spots ?? []
  await page.goto(`/clients/${clientId}/return?visit=${visitId}`)
  await headReady(page)
  await page.getByRole('radiogroup', { name: 'When' }).getByText('1 h', { exact: true }).click()
  await page.getByText('Ingrown hair', { exact: true }).click()
  const chin = await onHead(page, 0.5, 0.665)
  const before = (await own('1h')).length
  await page.mouse.click(chin.x, chin.y)
  await expect.poll(async () => (await own('1h')).length).toBe(before + 1)
  const bumps = page.getByRole('group', { name: 'Bumps, Chin' })
  await expect(bumps.locator('b')).toHaveText('1')
  // What was tapped cannot be counted away; a second tap takes it off the skin.
  await expect(bumps.getByRole('button', { name: 'One fewer' })).toBeDisabled()
  await page.mouse.click(chin.x, chin.y)
  await expect.poll(async () => (await own('1h')).length).toBe(before)
  await page.keyboard.press('z')
  await expect.poll(async () => (await own('1h')).length).toBe(before + 1)
  await expect(page.locator('.skin-mark:not(.earlier)[data-mark="ingrown"]')).toHaveCount(1)

  // A day later it is still there: tapped again it is the same spot.
  await page.getByRole('button', { name: 'Other …' }).click()
  const at = new Date(Date.now() - 3_600_000)
  await page.getByLabel('When was it looked at?: hours').fill(String(at.getHours()))
  await page.getByLabel('When was it looked at?: minutes').fill(String(at.getMinutes()))
  await page.getByRole('textbox', { name: 'When was it looked at?' }).fill(written(at))
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Look', exact: true }).click()
  const page2 = await visitOf(page, visitId)
  const hours = Math.round((at.getTime() - page2.endedAtMs!) / 3_600_000)
  await expect(page.getByRole('radiogroup', { name: 'When' }).locator('input:checked')).toHaveCount(
    1,
  )
  const [first] = await own('1h')
  await page.mouse.click(chin.x, chin.y)
  await expect
    .poll(async () => {
      const looks = (await visitOf(page, visitId)).answers.filter(
        (a) =>
          a.moment === `h${hours}` || a.moment === `h${hours - 1}` || a.moment === `h${hours + 1}`,
      )
      return looks.flatMap((a) => a.spots ?? []).length
    })
    .toBe(1)
  const again = (await visitOf(page, visitId)).answers.find((a) => a.moment.startsWith('h'))!
  // It follows whichever look came last before it.
  expect(again.spots![0]!.zoneId).toBe('chin')
  expect(first!.zoneId).toBe('chin')
  await page.reload()
  await expect(page.getByText(/^The last visit, |^Visit of |^Last visit/).first()).toBeVisible()
})

test('what the skin does is told as a range, and what a change did with its doubt', async ({
  page,
}) => {
  const { clientId, visitId } = await lastVisit(page, 'Tobias')
  await page.goto(`/clients/${clientId}/return?visit=${visitId}`)
  await headReady(page)
  await tab(page, 'Skin')
  await expect(
    page.getByText(/reddens to 2 or more .*80 %: (under |over )?\d+ % to (under |over )?\d+ %/),
  ).toBeVisible()
  await expect(page.getByText(/Learned from \d+ answered services/)).toBeVisible()
  await expect(page.getByText('What differed between quiet and red visits')).toBeVisible()
  await expect(page.getByTestId('effect').first()).toContainText(/95 % from/)
  await tab(page, 'Bumps')
  await expect(page.getByText(/single edge, with the grain only/).first()).toBeVisible()
  await expect(
    page.getByText(/Bumps fell from \d+ in \d+ visits to \d+ in \d+ visits/),
  ).toContainText('unlikely to be chance')
  await expect(
    page.getByText(/Changed together and not separable|only this differs/).first(),
  ).toBeVisible()
  await expect(page.getByText(/Bumps have fallen below/)).toBeVisible()
  await tab(page, 'Hair')
  await expect(page.getByRole('row', { name: /Chin .*mm|Chin/ }).first()).toBeVisible()
})

test('the next visit has odds, an event sets its service, and it is put into the book', async ({
  page,
}) => {
  const { clientId, visitId } = await lastVisit(page, 'Sefa')
  await page.goto(`/clients/${clientId}/return?visit=${visitId}`)
  await headReady(page)
  await tab(page, 'Next visit')
  await expect(
    page.getByText(/(skin clear with|Skin was seen clear).*hair seen with (under |over )?\d+ %/),
  ).toBeVisible()
  await expect(page.getByText('School: every 4 weeks.', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Add an event' }).click()
  await pickOne(page, 'What kind of event', 'Photographs')
  await page.getByLabel('What it is').fill('Book fair portrait')
  await page
    .getByRole('textbox', { name: 'When' })
    .fill(written(new Date(Date.now() + 45 * 86_400_000)))
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page
    .getByRole('textbox', { name: 'Through' })
    .fill(written(new Date(Date.now() + 90 * 86_400_000)))
  await page.keyboard.press('Tab')
  await expect(page.getByTestId('series')).toContainText('for Book fair portrait')
  await expect(page.getByTestId('series')).toContainText('upper lip alone')
  // The calendar is made of what the house has.
  await expect
    .poll(
      async () => (await ask<ClientPage>(page, 'GET', `/api/clients/${clientId}`)).client.events,
    )
    .toContainEqual(expect.objectContaining({ title: 'Book fair portrait' }))
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Into a calendar' }).click()
  const file = readFileSync(await (await download).path(), 'utf8')
  const events = new ICAL.Component(ICAL.parse(file) as unknown[]).getAllSubcomponents('vevent')
  expect(events.map((e) => String(e.getFirstPropertyValue('summary'))).join('; ')).toContain(
    'Book fair portrait',
  )
  // On to the book, where the first hour that works is there to be taken.
  await page.getByRole('link', { name: 'Book an hour' }).click()
  await expect(page.getByRole('combobox', { name: 'Who comes' })).toHaveValue(/^Sefa/)
  await page.getByRole('button', { name: /^Book \d/ }).click()
  const chosen = page.getByRole('region', { name: /^Sefa/ })
  await expect(chosen.getByText('booked', { exact: true })).toBeVisible()
  const later = await chosen.getByText(/ to \d\d:\d\d with /).textContent()
  expect(later).toMatch(/Dermaplaning of the face/)
})

test('two visits stand side by side, the tide line changes one, and the head shows what differs', async ({
  page,
}) => {
  const { clientId } = await lastVisit(page, 'Tobias')
  const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${clientId}`)
  const [newest, ...before] = visits.filter((v) => v.state === 'finished' && v.bumps !== null)
  const other = before.findLast((v) => v.bumps !== newest!.bumps)!
  await page.goto(`/clients/${clientId}/return?visit=${newest!.id}`)
  await headReady(page)
  await tab(page, 'Then, now')
  await pickOne(
    page,
    'Beside which visit',
    written(new Date(other.endedAtMs!)).replace(/ \d{4}$/, ''),
  )
  await expect(page.locator('.skin-picture')).toHaveCount(2)
  await expect(page.getByRole('row', { name: /^Plan/ }).getByRole('cell')).toHaveCount(2)
  await page
    .getByRole('radiogroup', { name: 'What differs on the head' })
    .getByText('Bumps')
    .click()
  await expect(page.locator('.head-label').first()).toContainText(/[+−]\d/)
  await page.getByRole('radiogroup', { name: 'What differs on the head' }).getByText('Load').click()
  await expect(page.locator('.head-label').first()).toContainText(/[+−]\d\.\d/)
  // The heads turn together.
  const drawn = await page.locator('.skin-picture').first().innerHTML()
  await page.keyboard.press('2')
  await expect.poll(() => page.locator('.skin-picture').first().innerHTML()).not.toBe(drawn)
  // Another visit by the tide line: the right one changes, the left one stays.
  const right = page.getByTestId('then-now').locator('figcaption').last()
  const was = await right.textContent()
  const box = (await page.getByTestId('tide-chart').boundingBox())!
  const url = page.url()
  for (let x = box.width * 0.85; x > box.width * 0.3 && page.url() === url; x -= 6) {
    await page.mouse.click(box.x + x, box.y + 103)
  }
  await expect(page).not.toHaveURL(url)
  await tab(page, 'Then, now')
  await expect(right).not.toHaveText(was!)
  // And any visit there ever was, by going back along the line.
  const line = page.getByRole('region', { name: 'Tide line' })
  const latest = await line.locator('.hidden').textContent()
  await page.getByRole('button', { name: 'Earlier visits' }).click()
  await expect(line.locator('.hidden')).not.toHaveText(latest!)
  await page.getByRole('button', { name: 'Later visits' }).click()
  await expect(line.locator('.hidden')).toHaveText(latest!)
})

test('a client is taken out: report, readings, everything', async ({ page }) => {
  const { clientId } = await lastVisit(page, 'Tobias')
  await page.goto(`/clients/${clientId}/ask`)
  await page.getByRole('tab', { name: 'Person' }).click()
  const report = page.getByRole('link', { name: 'report (PDF)' })
  const pdf = await page.request.get((await report.getAttribute('href'))!)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  for (const [name, begins] of [
    ['readings (CSV)', 'visit,service'],
    ['everything (JSON)', '{"format":"slow-tide-client"'],
  ] as const) {
    const download = page.waitForEvent('download')
    await page.getByRole('link', { name }).click()
    expect(readFileSync(await (await download).path(), 'utf8').startsWith(begins)).toBe(true)
  }
})

test('clients are brought in from a file after a look, and taken back as a whole', async ({
  page,
}) => {
  await page.goto('/clients')
  await page.getByRole('link', { name: 'Import', exact: true }).click()
  const rows = Array.from(
    { length: 120 },
    (_, i) => `Guest ${i},0555 9${100 + i},guest${i}@example.org`,
  )
  await page.getByLabel('File with clients').setInputFiles({
    name: 'harbour.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `who,number,mail\nTobias Arkwell,,\n"<img src=x onerror=alert(1)>",0555,bad mail\n,0555,\n${rows.join('\n')}`,
    ),
  })
  // No heading is known: the first column is taken as the name, the rest is chosen by hand.
  await pickOne(page, 'Telephone', 2)
  await pickOne(page, 'E-mail', 3)
  await expect(page.getByText(/1 here already\?/)).toBeVisible()
  await expect(page.getByText('Seems to be Tobias Arkwell.')).toBeVisible()
  await expect(page.getByText('E-mail "bad mail" was left out: it is none.')).toBeVisible()
  await expect(page.getByText('There is no name.')).toBeVisible()
  await page.getByLabel('Take Guest 7', { exact: true }).uncheck()
  const bring = page.getByRole('button', { name: /^Import \d/ })
  const n = Number(/\d+/.exec((await bring.textContent())!)![0])
  await bring.click()
  await expect(page.getByText(`${n} clients were imported.`)).toBeVisible()
  const [record] = await ask<ImportRecord[]>(page, 'GET', '/api/imports')
  expect(record).toMatchObject({ clients: n, source: 'harbour.csv' })
  expect((await clientNamed(page, 'Guest 8')).name).toContain('Guest 8')
  await page.getByRole('button', { name: 'Take all of it back' }).click()
  await expect(page.getByText(`${n} clients were taken back.`)).toBeVisible()
  const house = await ask<House>(page, 'GET', '/api/house')
  expect(house.name).toBe('Lantern Quay')
  // A file that is none of these says so, and nothing was changed.
  await page.getByLabel('File with clients').setInputFiles({
    name: 'empty.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('\n\n'),
  })
  await expect(page.getByRole('alert')).toContainText('nobody in that file')
})

test('House tells whether the forecast is right, and the studio’s rates with their ranges', async ({
  page,
}) => {
  await page.goto('/house/forecast')
  await expect(page.getByText(/The forecast (holds|is off)/)).toBeVisible()
  await expect(page.getByTestId('calibration-chart').locator('svg')).toBeVisible()
  await expect(page.getByText(/Mean squared error \(Brier\)/)).toBeVisible()
  await page.goto('/house/studio')
  await expect(page.getByRole('row', { name: /Skin reddened to 2 or more/ })).toContainText(
    /95 %: \d+ % to \d+ %/,
  )
  await expect(page.getByRole('row', { name: /Joren Aldous/ })).toContainText(/in \d+/)
  await expect(page.getByTestId('effect').first()).toBeVisible()
})

/** "25 Nov 2026": as the house writes days. */
const written = (d: Date) =>
  d.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

test('a look is answered by keyboard alone', async ({ page }) => {
  const { clientId, visitId } = await lastVisit(page, 'Bram')
  await page.goto(`/clients/${clientId}/return?visit=${visitId}`)
  await headReady(page)
  await page.getByRole('radiogroup', { name: 'When' }).locator('input:checked').focus()
  for (let i = 0; i < 8 && !(await page.getByRole('radio', { name: /^1 h/ }).isChecked()); i++)
    await page.keyboard.press('ArrowLeft')
  await tabTo(page, 'All clear')
  await page.keyboard.press('Enter')
  await expect(page.getByText('All clear.', { exact: false })).toBeVisible()
  await tabTo(page, '2, mild')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Not marked: clear.', { exact: false })).toBeVisible()
  await expect
    .poll(async () => {
      const look = (await visitOf(page, visitId)).answers.find((a) => a.moment === '1h')
      return look?.zones.map((z) => z.redness)
    })
    .toEqual([2])
  await page.keyboard.press('z')
  await expect(page.getByText('All clear.', { exact: false })).toBeVisible()
})
