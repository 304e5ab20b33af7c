/** The chair: by pedal, on two screens, with what goes wrong. */
import type { VisitPage } from '../contract/types.ts'
import { ask, clientNamed, expect, plannedClient, test } from './support.ts'

test('by pedal and keys: nick, tug, new blade, skip, back; the end says what it came to', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Pedal Windlass')
  await page.goto(`/clients/${client.id}/chair`)
  const count = page.locator('.chair-count')
  const total = visit.plan!.steps.length
  await expect(count).toContainText(`${total} steps`)
  await page.keyboard.press('Space')
  await expect(count).toContainText('step 1 of')
  for (let i = 2; i <= 4; i++) {
    await page.keyboard.press('PageDown')
    await expect(count).toContainText(`step ${i} of`)
  }
  for (const [key, words] of [
    ['n', 'Nick noted'],
    ['t', 'Tug noted'],
    ['b', 'New blade'],
  ] as const) {
    await page.keyboard.press(key)
    await expect(page.getByRole('status')).toContainText(words)
  }
  await expect(page.getByText('blade 2', { exact: true })).toBeVisible()
  await page.keyboard.press('s')
  await page.keyboard.press('2')
  await expect(count).toContainText('step 5 of')
  await page.keyboard.press('PageUp')
  await expect(count).toContainText('step 4 of')
  await page.keyboard.press('s')
  await page.keyboard.press('Escape')
  await expect(page.getByText('Why?')).toBeHidden()
  await expect(count).toContainText('step 4 of')
  // The rest without the screen: drawing in software takes its time.
  const { events } = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  for (const [i, step] of visit.plan!.steps.slice(3, -1).entries()) {
    await ask(page, 'POST', `/api/visits/${visit.id}/events`, {
      id: crypto.randomUUID(),
      seq: events.length + 1 + i,
      kind: 'done',
      atMs: Date.now(),
      stepId: step.id,
    })
  }
  await page.reload()
  await expect(count).toContainText(`step ${total} of ${total}`)
  await page.keyboard.press('Space')
  await expect(page.getByRole('heading', { name: 'All done' })).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByRole('heading', { name: 'Care' })).toBeVisible()
  await page.goto(`/clients/${client.id}/chair`)
  const facts = page.locator('.facts')
  await expect(facts).toContainText('Nicks1')
  await expect(facts).toContainText('Blades2')
  const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(after.chair.tugs).toHaveLength(1)
  expect(after.chair.nicks[0]!.stepId).toBe(visit.plan!.steps[3]!.id)
})

test('a pedal that bounces moves one step, and nothing is refused aloud', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Bouncing Capstan')
  await page.goto(`/clients/${client.id}/chair`)
  const count = page.locator('.chair-count')
  await expect(count).toContainText('steps, about')
  // Both presses of each pair come before the screen can have changed.
  const bounce = () =>
    page.evaluate(() => {
      for (let i = 0; i < 2; i++) {
        const press = { code: 'PageDown', key: 'PageDown', bubbles: true }
        document.body.dispatchEvent(new KeyboardEvent('keydown', press))
      }
    })
  await bounce()
  await expect(count).toContainText('step 1 of')
  await bounce()
  await expect(count).toContainText('step 2 of')
  await expect(page.getByRole('alert')).toHaveCount(0)
  const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(after.events.map((e) => e.kind)).toEqual(['started', 'done'])
})

test('a second screen that fell behind is told, catches up, and counts nothing twice', async ({
  page,
  context,
}) => {
  const { client, visit } = await plannedClient(page, 'Twin Bollard')
  await page.goto(`/clients/${client.id}/chair`)
  await page.locator('.chair-go').click()
  await expect(page.locator('.chair-count')).toContainText('step 1 of')
  const wall = await context.newPage()
  await wall.goto(`/clients/${client.id}/chair`)
  await expect(wall.locator('.chair-count')).toContainText('step 1 of')
  await page.locator('.chair-go').click()
  await expect(page.locator('.chair-count')).toContainText('step 2 of')
  await wall.locator('.chair-go').click()
  await expect(wall.getByRole('alert')).toContainText('Another screen has moved this service on')
  await expect(wall.locator('.chair-count')).toContainText('step 2 of')
  const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(after.events.map((e) => e.kind)).toEqual(['started', 'done'])
  await wall.close()
})

test('what is marked is kept before the eyes on its zone', async ({ page }) => {
  const ansel = await clientNamed(page, 'Ansel')
  await page.goto(`/clients/${ansel.id}/plan`)
  await expect(page.getByText(/mole: leave \d+ mm round it/).first()).toBeHidden()
  await page
    .getByRole('button', { name: /^Jaw.*client's left$/ })
    .first()
    .click()
  await expect(page.getByText(/mole: leave \d+ mm round it/).first()).toBeVisible()
})

test('an address that leads nowhere says so and leads back', async ({ page }) => {
  await page.goto('/nowhere/at/all')
  await expect(page.getByRole('heading').first()).toBeVisible()
  await expect(page.getByRole('link', { name: /Today/ }).first()).toBeVisible()
})
