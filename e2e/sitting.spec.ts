/** A sitting of two jobs from Ask to Return: a shave, and strays about the brows by tweezers. */
import type { ClientPage, VisitPage } from '../contract/types.ts'
import { violations } from './axe.ts'
import { begin, count, press, workAhead } from './chairHand.ts'
import {
  ask,
  clientNamed,
  expect,
  headReady,
  pickOne,
  plannedClient,
  sign,
  test,
} from './support.ts'

test('two jobs in one sitting, from Ask to Return', { tag: '@drawn' }, async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Ulla Brevik')
  await page.goto(`/clients/${client.id}/ask?tab=sitting`)
  await headReady(page)
  // Another job: strays about the brows, by tweezers; each with its own rhythm.
  await page.getByRole('button', { name: 'Another job' }).click()
  const brows = page.getByRole('region', { name: 'Tweezers: the brows' })
  await expect(brows).toBeVisible()
  await brows.getByLabel('Every, days').fill('9')
  await brows.getByLabel('Every, days').blur()
  // Wax on skin that is shaved is refused, and what was chosen stays.
  await pickOne(brows, 'And', 'Guarded facial razor')
  const fuzz = page.getByRole('region', { name: /^Tweezers/ })
  await fuzz.getByRole('button', { name: /^Where/ }).click()
  await fuzz.getByText('lip', { exact: true }).click()
  await expect(page.getByRole('region', { name: /^Tweezers: .*the lip/ })).toBeVisible()
  await pickOne(fuzz, 'By', 'Wax')
  await expect(page.getByText(/What was chosen before stays/)).toBeVisible()
  await expect(fuzz.getByRole('combobox', { name: 'By' })).toHaveValue('Tweezers')
  await pickOne(fuzz, 'And', 'Brow tidy')
  await expect(brows).toBeVisible()
  await expect(page.getByText(/What was chosen before stays/)).toHaveCount(0)
  expect(await violations(page)).toEqual([])

  // One asking, one signature: both are agreed to.
  await expect(page.getByText(/text of consent has changed/)).toBeVisible()
  await sign(page)
  await expect(page.getByText(/text of consent has changed/)).toHaveCount(0)

  // One plan: by hand first, on dry skin; then the strokes.
  await page.getByRole('link', { name: /^Plan/ }).first().click()
  const lanes = page.getByRole('row')
  await expect(lanes.filter({ hasText: 'Tweezers: the brows' })).toContainText('by hand')
  await expect(lanes.nth(1)).toContainText('Tweezers: the brows')
  await page.getByRole('button', { name: /Keep this plan/ }).click()
  await page.getByRole('button', { name: 'To the chair' }).click()

  // The chair says what the hand does, and goes on by the same key.
  await begin(page)
  const plan = (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).plan!
  const at = plan.steps.findIndex((s) => s.kind === 'hand')
  await workAhead(page, visit.id, at)
  await expect(count(page)).toContainText(`step ${at + 1} of ${plan.steps.length}`)
  await expect(page.getByRole('heading', { name: 'Tweezers: the brows' })).toBeVisible()
  await expect(page.getByTestId('chair-line')).toContainText('one hair at a time')
  await press(page)
  await expect(count(page)).toContainText(`step ${at + 2} of`)
  await workAhead(page, visit.id)

  // One sheet goes home, and each job comes again by its own rhythm.
  await page.goto(`/clients/${client.id}/care?visit=${visit.id}`)
  await expect(page.getByText(/face shave and tweezers: the brows/).first()).toBeVisible()
  const done = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(done.windows).toHaveLength(2)
  expect(done.loads!['glabella']).toBeGreaterThan(0)
  expect(done.loads!['chin']).toBeGreaterThan(0)
})

test('what is due today is offered at Ask with what it saves and costs', async ({ page }) => {
  const { id } = await clientNamed(page, 'Rhea Calder-Noss')
  await page.goto(`/clients/${id}/ask?tab=sitting`)
  const due = page.getByRole('region', { name: 'Also due today' })
  await expect(due.getByText('Wax: the lip')).toBeVisible()
  await expect(due).toContainText(
    /Due in \d+ days?\. Done now it saves a visit; its skin bears load/,
  )
  await due.getByRole('button', { name: 'Add' }).click()
  await expect(due).toHaveCount(0)
  await expect(page.getByRole('region', { name: 'Wax: the lip' })).toBeVisible()
  await expect(page.getByRole('tab', { name: 'Sitting 3' })).toBeVisible()
  // The tide line follows each kind of work.
  await page.goto(`/clients/${id}/return`)
  const works = page.getByRole('radiogroup', { name: 'Hair of which work' })
  await works.getByText('Wax: the lip').click()
  await expect(works.getByRole('radio', { name: 'Wax: the lip' })).toBeChecked()
})

test('a client tells from a phone what was shaved at home, and the worker sees it', async ({
  page,
  browser,
}) => {
  const { id } = await clientNamed(page, 'Dov Ettinger')
  const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${id}`)
  const { url } = await ask<{ url: string }>(page, 'POST', `/api/visits/${visits[0]!.id}/link`)
  const phone = await browser.newContext({
    viewport: { width: 360, height: 780 },
    hasTouch: true,
    isMobile: true,
    javaScriptEnabled: false,
  })
  const client = await phone.newPage()
  await client.goto(url)
  expect((await client.locator('main').boundingBox())!.width).toBeLessThanOrEqual(360)
  // In one tap: the same as last time.
  await client.getByRole('button', { name: /^The same again today: .*cartridge razor/ }).tap()
  await expect(client.getByRole('heading', { name: 'Noted, thank you.' })).toBeVisible()
  await phone.close()

  await page.goto(`/clients/${id}/return?tab=home`)
  const home = page.getByRole('region', { name: 'At home', exact: true })
  await expect(home).toContainText('told by the client')
  // One cartridge for weeks: it is over, and says so.
  await expect(home).toContainText(/Cartridge razor: 4 of at most 4 uses.*It is over/)
  expect(await violations(page)).toEqual([])
  // Noted by the worker, and taken out again.
  await home
    .getByRole('group', { name: 'Where at home' })
    .getByText('chin', { exact: true })
    .click()
  await home.getByRole('button', { name: 'Note it' }).click()
  const chin = home.getByRole('button', { name: /^Take out: \d+ \w+, the chin, / })
  await chin.click()
  await expect(chin).toHaveCount(0)
  // The card that goes home is drawn as the mirror shows it.
  await home.getByRole('link', { name: 'Home card' }).click()
  await expect(page.getByRole('article', { name: 'Home card: shaving' })).toContainText(
    'as the mirror shows it',
  )
})
