/** What goes home, and what is planned back from: bands, products, messages, paper, pictures, an event; the probe. */
import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import type { House, VisitPage } from '../contract/types.ts'
import { count, passTowel, press, workAhead } from './chairHand.ts'
import { ask, askedAll, expect, plannedClient, test, pickOne } from './support.ts'

test('after a service: bands, products against allergies, messages, the sheet as PDF, pictures', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Care Lantern')
  await ask(
    page,
    'PUT',
    `/api/visits/${visit.id}/asked`,
    askedAll('face-shave', { allergy: { yes: true, kinds: ['nickel'] } }),
  )
  await ask(page, 'PUT', `/api/visits/${visit.id}/plan`)
  await workAhead(page, visit.id)
  await page.goto(`/clients/${client.id}/care`)
  const tab = (name: string) => page.getByRole('tab', { name, exact: true }).click()
  await expect(page.getByText('No strong sun')).toBeVisible()

  await tab('7 days')
  await expect(page.getByRole('heading', { name: '7 things to keep off' })).toBeVisible()
  await expect(
    page.getByRole('img', { name: /No pool or sea: .* Burning or redness/ }),
  ).toBeVisible()

  await tab('Products')
  await page.getByRole('button', { name: /^Steel blade holder/ }).click()
  await expect(page.getByRole('alert')).toContainText('holds nickel: this client is allergic to it')
  await page.getByRole('button', { name: /^Steel blade holder/ }).click()
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.getByRole('button', { name: /^Balm without alcohol/ }).click()
  await expect(page.getByRole('heading', { name: '1 product used' })).toBeVisible()

  await tab('Messages')
  await expect(page.getByText('Nothing leaves this machine')).toBeVisible()
  await page.getByRole('button', { name: 'How is your skin?' }).first().click()
  const words = page.getByLabel('Text of the message')
  await words.fill('How is it today? Send a word.')
  await words.blur()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByText('taken back', { exact: true })).toBeVisible()
  await expect
    .poll(async () => (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).messages)
    .toContainEqual(
      expect.objectContaining({ text: 'How is it today? Send a word.', state: 'taken-back' }),
    )

  await page.goto('/house/messages')
  await page.getByRole('link', { name: 'Care Lantern' }).first().click()
  await expect(page.getByRole('heading', { name: 'Care', exact: true })).toBeVisible()
  const sheet = await page.request.get(
    (await page.getByRole('link', { name: 'PDF' }).getAttribute('href'))!,
  )
  expect(sheet.headers()['content-type']).toBe('application/pdf')
  expect((await sheet.body()).subarray(0, 5).toString()).toBe('%PDF-')

  await page.goto(`/clients/${client.id}/chair`)
  const picture = await sharp({
    create: { width: 640, height: 480, channels: 3, background: '#c8a080' },
  })
    .jpeg()
    .toBuffer()
  await page
    .getByLabel('Picture of the skin')
    .setInputFiles({ name: 'skin.jpg', mimeType: 'image/jpeg', buffer: picture })
  await expect(page.getByRole('img', { name: /^Skin, / })).toBeVisible()
  await page.getByLabel('Picture of the skin').setInputFiles({
    name: 'x.jpg',
    mimeType: 'image/jpeg',
    buffer: readFileSync('package.json'),
  })
  await expect(page.getByRole('alert')).toContainText('cannot be read as a picture')
  await page.getByRole('button', { name: 'remove' }).click()
  await expect(page.getByRole('img', { name: /^Skin, / })).toHaveCount(0)
})
// A picture that cannot be read is refused by the server, which the browser writes to its console.
test.use({ harmless: /422/ })

test('before an event: the best time with its odds, and the visit put there', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Event Pilot', 'dermaplane')
  await page.goto(`/clients/${client.id}/care`)
  await page.getByRole('tab', { name: 'Event' }).click()
  await pickOne(page, 'What', 'Photographs or stage')
  await expect(page.getByRole('heading', { name: /^Best / })).toBeVisible()
  await expect(
    page.getByText(/Any time from .* to .*redness 2 or more (under )?\d+ %/),
  ).toBeVisible()
  await expect(page.getByText(/no make-up for 24 hours after/)).toBeVisible()
  await page.getByRole('button', { name: 'Put this visit then' }).click()
  await expect(page.getByRole('button', { name: 'This visit is then' })).toBeVisible()
  await expect
    .poll(async () => (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).slotAtMs)
    .toBeGreaterThan(Date.now())
  await page.getByRole('textbox', { name: 'Day' }).fill('1 Jan 2020')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('alert')).toContainText('That is over')
})

test('the probe is calibrated in ice and warmth, and reads a towel at the chair', async ({
  page,
}) => {
  await page.goto('/house/probe')
  const read = page.getByRole('button', { name: 'Read the probe' })
  await read.first().click()
  await expect(page.getByLabel(/In melting ice/)).not.toHaveValue('')
  await read.nth(1).click()
  await expect(page.getByLabel(/In the reference/)).not.toHaveValue('')
  await page.getByRole('button', { name: 'Keep this calibration' }).click()
  await expect(page.getByText(/^Calibrated .*Today it may be 0\.\d °C off/)).toBeVisible()
  expect((await ask<House>(page, 'GET', '/api/house')).probe!.offsetC).toBeLessThan(-0.5)

  const { client, visit } = await plannedClient(page, 'Towel Gull')
  await workAhead(page, visit.id, 1)
  await page.goto(`/clients/${client.id}/chair?flat`)
  await expect(count(page)).toContainText('step 2 of')
  await press(page)
  await press(page)
  // Nobody lays it while it is too hot.
  await expect(page.getByTestId('chair-go')).toBeDisabled()
  await page.getByRole('button', { name: 'Read the probe' }).click()
  await expect(page.getByText(/by the probe, within 0\.\d °C/)).toBeVisible()
  await page.keyboard.press('PageUp')
  await expect(count(page)).toContainText('step 1 of')
  await press(page)
  await page.keyboard.press('s')
  await page.keyboard.press('1')
  await expect(count(page)).toContainText('step 3 of')
  // The screen goes on before the server has heard of it.
  const after = () => ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  await expect.poll(async () => (await after()).chair.index).toBe(2)
  const towel = (await after()).chair.towels['prepare:towel']!
  expect(towel.reads).toHaveLength(1)
  expect(towel.laidAtMs).toBeUndefined()
})

test('a towel laid: what can be done meanwhile, and one kept back for the cold close', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Meanwhile Heron')
  await workAhead(page, visit.id, 1)
  await page.goto(`/clients/${client.id}/chair?flat`)
  let laid = false
  await passTowel(page, async () => {
    await press(page)
    if (laid || !(await page.getByTestId('chair-go').textContent())!.includes('Taken off')) return
    laid = true
    await page.getByRole('button', { name: /Put one towel aside/ }).click()
    await expect(page.getByRole('button', { name: /Put one towel aside/ })).toHaveCount(0)
    await page.getByRole('button', { name: /Used implements into the disinfectant/ }).click()
    await expect(page.getByTestId('clocks')).toContainText('disinfectant')
    await page.locator('main h1').click()
  })
  await expect(count(page)).toContainText('step 3 of')
  expect(laid).toBe(true)
  const cold = visit.plan!.steps.findIndex((s) => s.id === 'close:cold')
  await workAhead(page, visit.id, cold)
  await expect(page.getByText(/The towel kept back is at about \d+ °C/)).toBeVisible()
})
