/** Single stations in their less usual states. */
import type { ClientPage, ClientRows, VisitPage } from '../contract/types.ts'
import {
  ask,
  clientNamed,
  draw,
  expect,
  headReady,
  onHead,
  plannedClient,
  test,
  pickOne,
} from './support.ts'
import { workAhead } from './chairHand.ts'

test('a patch test that stayed calm opens the way', async ({ page }) => {
  const wren = await clientNamed(page, 'Wren')
  await page.goto(`/clients/${wren.id}/ask`)
  await expect(
    page.getByRole('heading', { name: 'Postpone: first read the patch test.' }),
  ).toBeVisible()
  await page.getByText('reacted', { exact: true }).click()
  await expect(page.getByRole('heading', { name: /Stop/ })).toBeVisible()
  await page.getByText('calm', { exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Go.', exact: true })).toBeVisible()
  await page.getByText('waiting', { exact: true }).click()
  await expect(
    page.getByRole('heading', { name: 'Postpone: first read the patch test.' }),
  ).toBeVisible()
})

test('quick taps are all kept, in order', async ({ page }) => {
  const { client } = await plannedClient(page, 'Quick Halyard')
  await page.goto(`/clients/${client.id}/ask`)
  const answers = page.getByRole('list', { name: 'Questions' }).getByRole('button')
  await expect(answers).toHaveCount(18)
  // Faster than any answer can come back.
  await page.evaluate(() => {
    document
      .querySelectorAll<HTMLButtonElement>('[aria-label="Questions"] button')
      .forEach((answer, i) => i >= 12 && answer.click())
  })
  await expect(page.locator('[aria-label="Questions"] [aria-pressed="true"]')).toHaveCount(6)
  await expect
    .poll(async () => {
      const { currentVisitId } = await ask<ClientPage>(page, 'GET', `/api/clients/${client.id}`)
      const { asked } = await ask<VisitPage>(page, 'GET', `/api/visits/${currentVisitId!}`)
      return Object.values(asked.answers).filter((a) => a.yes).length
    })
    .toBe(6)
})

test('a mark can be placed from a list, and taken away', async ({ page }) => {
  const { client } = await plannedClient(page, 'Marks Bollard')
  await page.goto(`/clients/${client.id}/ask`)
  await headReady(page)
  await page.getByRole('tab', { name: /^Marks/ }).click()
  await page.getByText('scab', { exact: true }).click()
  await pickOne(page, 'Or in the middle of', "Upper neck, client's right")
  await expect(page.getByText("scab, Upper neck, client's right, 4 mm")).toBeVisible()
  await expect(
    page.getByRole('heading', { name: 'Go, but leave out what is marked.' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Take away' }).click()
  await expect(page.getByText('No marks yet.')).toBeVisible()
})

test('a stroke that says nothing is told so, and nothing is written', async ({ page }) => {
  const { client } = await plannedClient(page, 'Short Painter', 'face-shave', false)
  await page.goto(`/clients/${client.id}/read`)
  await headReady(page)
  await draw(page, [0.487, 0.56], [0.513, 0.56])
  await expect(page.getByRole('alert')).toContainText('did not cross skin')
  // Close up, so that a stroke of 2 mm is more than a tap.
  const p = await onHead(page, 0.5, 0.45)
  await page.mouse.move(p.x, p.y)
  await page.mouse.wheel(0, -900)
  await draw(page, [0.5, 0.45], [0.5, 0.462])
  await expect(page.getByRole('alert')).toContainText('too short')
  await expect(page.getByText('0 of 21 zones')).toBeVisible()
})

test('the zone chosen on the head is in view in the list', async ({ page }) => {
  const { client } = await plannedClient(page, 'Long List Sheave')
  for (const station of ['read', 'plan']) {
    await page.goto(`/clients/${client.id}/${station}`)
    await headReady(page)
    const neck = await onHead(page, 0.5, 0.93)
    await page.mouse.click(neck.x, neck.y)
    await expect(page.locator('.head-name')).toHaveText('Lower neck, middle')
    const row = page.locator('tr[data-chosen]')
    await expect(row).toContainText('Lower neck, middle')
    await expect(row).toBeInViewport({ ratio: 0.9 })
  }
})

test('the plan follows the map until it is kept, then says when it is behind', async ({ page }) => {
  const { client } = await plannedClient(page, 'Plan Fairlead', 'face-shave', false)
  await page.goto(`/clients/${client.id}/read`)
  await headReady(page)
  await draw(page, [0.47, 0.655], [0.53, 0.655])
  await expect(page.getByText(/^grows (to the client’s left|out|back|forward|in)/)).toBeVisible()
  await page.getByRole('button', { name: /^Plan/ }).click()
  await expect(page.getByText('What it rests on has changed since')).toBeVisible()
  await page.getByRole('button', { name: /Plan again/ }).click()
  await expect(page.getByText('It stays as it is when the map changes later.')).toBeVisible()
  await page.getByRole('button', { name: /^Chin/ }).first().click()
  await expect(page.getByText(/[1-5] o’clock in the picture/).first()).toBeVisible()
  await page.keyboard.press('9')
  await page.getByText('Pass 2', { exact: true }).first().click()
  await expect(page.locator('.arrow-across').first()).toBeVisible()
})

test('a running service freezes ask and map, and says so', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Frozen Capstan')
  await workAhead(page, visit.id, 1)
  await page.goto(`/clients/${client.id}/read`)
  await headReady(page)
  await page.getByRole('button', { name: 'Chin', exact: true }).click()
  await expect(page.getByRole('button', { name: /Turn on/ })).toBeDisabled()
  await page.goto(`/clients/${client.id}/ask`)
  await expect(
    page.getByRole('list', { name: 'Questions' }).getByRole('button').first(),
  ).toBeDisabled()
})

test('hair that was felt is written down, and taken away again', async ({ page }) => {
  const odile = await clientNamed(page, 'Odile')
  await page.goto(`/clients/${odile.id}/return`)
  await headReady(page)
  await page.getByRole('tab', { name: 'Hair' }).click()
  await expect(page.getByRole('heading', { name: 'How hair comes back' })).toBeVisible()
  const before = await page
    .getByRole('list', { name: 'Written down' })
    .getByRole('listitem')
    .count()
  await page.getByText('measured', { exact: true }).click()
  await page.getByLabel('Length, mm').fill('0.4')
  await pickOne(page, /^Where$/, 'Chin')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByRole('list', { name: 'Written down' }).getByRole('listitem')).toHaveCount(
    before + 1,
  )
  await expect(page.getByText(/measured on .* Chin, 0\.4 mm on a picture/)).toBeVisible()
  await page
    .getByRole('listitem')
    .filter({ hasText: /measured on .* Chin, 0\.4 mm on a picture/ })
    .getByRole('button', { name: 'Take away' })
    .click()
  await expect(page.getByRole('list', { name: 'Written down' }).getByRole('listitem')).toHaveCount(
    before,
  )
})

test('the care sheet prints alone, on paper colours', async ({ page }) => {
  const marlow = await clientNamed(page, 'Marlow')
  await page.addInitScript(() => localStorage.setItem('mantine-color-scheme-value', 'dark'))
  await page.goto(`/clients/${marlow.id}/care`)
  await expect(page.getByText('No strong sun')).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  await expect(
    page.getByRole('heading', { name: /^After your hot-towel face shave/ }),
  ).toBeVisible()
  for (const hidden of ['.top-band', '.station-strip', '.head-side', '.tide-line'])
    await expect(page.locator(hidden)).toBeHidden()
  expect(await page.locator('body').evaluate((b) => getComputedStyle(b).backgroundColor)).toBe(
    'rgb(255, 255, 255)',
  )
})

test('a client is erased only by typing the name', async ({ page }) => {
  const { client } = await plannedClient(page, 'Gone Seaward')
  await page.goto(`/clients/${client.id}/ask`)
  await page.getByRole('tab', { name: 'Person' }).click()
  await page.getByRole('button', { name: 'Erase this client' }).click()
  const last = page.getByRole('button', { name: 'Erase for good' })
  await expect(last).toBeDisabled()
  await page.getByLabel(/^Type/).fill('Gone Seaward')
  await last.click()
  await expect(page).toHaveURL(/\/clients$/)
  await page.getByLabel('Find by name or occupation').fill('Gone Seaward')
  await expect(page.getByText('Nobody matches')).toBeVisible()
})

test('a name that cannot be is refused in place, and what was typed stays', async ({ page }) => {
  await page.goto('/clients')
  await page.getByRole('button', { name: /New client/ }).click()
  await page.getByLabel('What they do').fill('chart seller')
  await page.getByRole('button', { name: 'Add and start asking' }).click()
  await expect(page.getByLabel(/^Name/).first()).toBeFocused()
  await expect(page.getByLabel('What they do')).toHaveValue('chart seller')
  await page.keyboard.press('Escape')
})

test.describe('where the server fails once', () => {
  test.use({ harmless: /Failed to load resource/ })

  test('a new client waits for the house, and is added once though the line breaks in between', async ({
    page,
  }) => {
    let answerHouse = () => {}
    const waited = new Promise<void>((resolve) => (answerHouse = resolve))
    await page.route('**/api/house', async (route) => {
      await waited
      await route.continue()
    })
    let refused = 0
    await page.route('**/api/clients/*/visits', (route) =>
      refused++ === 0 ? route.abort('connectionrefused') : route.continue(),
    )
    await page.goto('/clients')
    await page.getByRole('button', { name: /New client/ }).click()
    const dialog = page.getByRole('dialog', { name: 'New client' })
    const begin = dialog.getByRole('button', { name: 'Add and start asking' })
    await dialog.getByLabel(/^Name/).fill('Once Halyard')
    // Who works here is not known yet, so no visit can begin.
    await expect(begin).toBeDisabled()
    answerHouse()
    await begin.click()
    await expect(page.getByRole('heading', { name: '18 questions are open.' })).toBeVisible()
    const found = await ask<ClientRows>(page, 'GET', '/api/clients?find=Once%20Halyard')
    expect(found.rows).toHaveLength(1)
    const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${found.rows[0]!.id}`)
    expect(visits).toHaveLength(1)
  })
})

test('a finished visit can be followed by a new one', async ({ page }) => {
  const noor = await clientNamed(page, 'Noor')
  await page.goto(`/clients/${noor.id}/chair`)
  await expect(page.getByRole('heading', { name: 'Service done' })).toBeVisible()
  await page.goto(`/clients/${noor.id}/ask`)
  await page.getByRole('button', { name: 'Start a new visit' }).click()
  await expect(
    page.getByRole('heading', { name: /^\d+ answers from last time: still so\?/ }),
  ).toBeVisible()
  await page.getByRole('tab', { name: 'Skin' }).click()
  await page.getByText('reactive', { exact: true }).click()
  await expect(page.getByRole('radio', { name: 'reactive' })).toBeChecked()
  await pickOne(page, 'Worker', 0)
  await expect(page.getByText(/^Saved/)).toBeVisible()
})

test('all keys are told on ?', async ({ page }) => {
  const marlow = await clientNamed(page, 'Marlow')
  await page.goto(`/clients/${marlow.id}/read`)
  await headReady(page)
  await page.getByRole('button', { name: /all keys/ }).click()
  await expect(page.getByRole('dialog')).toContainText('Turns the chosen direction')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
})
