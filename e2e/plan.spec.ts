/** Plans as a worker meets them: every service, three side by side, changed by hand, fitted, printed. */
import { oneJob, SERVICES, type ServiceId } from '../core/services/index.ts'
import { DEFAULTS } from '../core/house/index.ts'
import type { ClientPage, House, VisitPage } from '../contract/types.ts'
import { count, press, workAhead } from './chairHand.ts'
import { ask, expect, head, plannedClient, test, pickOne } from './support.ts'

const minutes = (page: import('@playwright/test').Page) =>
  page.getByRole('heading', { name: /^\d+ min/ })

/** What a plan of each service must show: a lane, its words, how many passes. */
const SHOWS: readonly (readonly [ServiceId, string, RegExp, readonly number[]])[] = [
  [
    'face-shave',
    'Lower cheek',
    /(shavette, half blade|safety razor, single edge), 30° to the skin/,
    [1, 2],
  ],
  ['head-shave', 'Crown', /(with|across) the grain.*shavette, half blade, 30°/s, [1]],
  ['dermaplane', 'Forehead', /surgical shape \d+, 45° to the skin/, [1]],
  ['facial-razor', 'Lower cheek', /guarded facial razor, 45° to the skin/, [1]],
  ['beard-line', 'Upper cheek', /trimmer, flat on the skin/, [2]],
  ['body-shave', 'Shin', /safety razor, single edge, 30°/, [1, 2]],
  ['brow-tidy', 'Between the brows', /small brow razor, 45° to the skin/, [1]],
]

for (const [service, zone, words, passes] of SHOWS) {
  test(`${service}: planned lane by lane, and worked at the chair`, async ({ page }) => {
    const { client, visit } = await plannedClient(page, `Plan ${service}`, service)
    // How far a balanced plan goes hangs on what the studio has learned meanwhile.
    expect(passes).toContain(Math.max(...visit.plan!.lanes.map((l) => l.pass)))
    await page.goto(`/clients/${client.id}/plan`)
    await expect(minutes(page)).toContainText(
      `of a ${DEFAULTS(SERVICES[service].slotMin)} min slot`,
    )
    // What the browser makes is what the server has kept.
    await expect(page.getByText(/^Kept .* It stays as it is/)).toBeVisible()
    await page
      .getByRole('region', { name: 'Lanes' })
      .getByRole('button', { name: new RegExp(`^\\d* ?${zone}`) })
      .first()
      .click()
    await expect(page.getByTestId('lane-detail')).toContainText(words)
    await expect(page.getByTestId('lane-detail')).toContainText('Free hand:')
    await expect(page.getByTestId('lane-detail').locator('li').first()).toBeVisible()
    await page.getByRole('button', { name: 'To the chair' }).click()
    const first = visit.plan!.steps.findIndex((s) => s.kind === 'stroke')
    await expect(page.getByTestId('chair-go')).toBeVisible()
    await workAhead(page, visit.id, first)
    await expect(count(page)).toContainText(`step ${first + 1} of`)
    await expect(page.getByTestId('chair-go')).not.toContainText('Start')
    // A razor is opened before the client's eyes; a trimmer is not.
    if ((await page.getByTestId('chair-go').textContent())!.includes('Fresh blade'))
      await press(page)
    const lane = visit.plan!.lanes[0]!
    await expect(page.getByTestId('chair-line')).toContainText(
      /the grain.*(up|down|back|forward|toward|out|in).*o’clock in the picture/s,
    )
    await expect(page.getByText(lane.stance.text).first()).toBeVisible()
    await expect(page.getByText(lane.freeHand.slice(0, 40))).toBeVisible()
  })
}

test('three plans side by side: picked, changed by hand, taken back, fitted, searched, kept, printed', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Side By Side')
  await page.goto(`/clients/${client.id}/plan`)
  const pick = (name: string) => page.getByRole('button', { name: new RegExp(`^${name}`) })
  await expect(pick('Balanced')).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('7')
  await expect(pick('Gentlest')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByText(/What it rests on has changed/)).toBeVisible()
  await page.keyboard.press('8')

  await page.getByRole('button', { name: 'Compare' }).click()
  const table = page.getByRole('table', { name: 'The plans side by side' })
  const row = async (name: string) =>
    (await table.getByRole('row', { name }).locator('td').allInnerTexts()).map((t) =>
      parseFloat(t.replace(/[^\d.]/g, '')),
    )
  for (const what of ['Load, mean over the skin', 'Any zone at redness']) {
    const [gentlest, balanced, closest] = await row(what)
    expect(gentlest).toBeLessThan(balanced!)
    expect(balanced).toBeLessThanOrEqual(closest!)
  }
  await expect(table.getByRole('row', { name: 'Blades' })).toBeVisible()
  await expect(table.getByRole('row', { name: 'Costs' })).toBeVisible()
  await expect(table.getByRole('row', { name: /Chin/ })).toBeVisible()
  await expect(page.getByText(/lanes differ/)).toBeVisible()

  // By hand: against on the cheek costs more; taken back it is as before.
  await page.keyboard.press('9')
  await expect(pick('Closest')).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('button', { name: 'Lanes', exact: true }).click()
  await page.getByText('Pass 2', { exact: true }).first().click()
  const cheek = page.getByRole('row', { name: /lower cheek.*client's left/i }).last()
  await cheek.getByRole('button').click()
  const detail = page.getByTestId('lane-detail')
  const load = async () => Number(/load ([\d.]+)/.exec(await detail.innerText())![1])
  const before = await load()
  await pickOne(detail, 'Direction', 'against the grain')
  await expect(detail).toContainText('Changed by hand.')
  await expect.poll(load).toBeGreaterThan(before)
  await expect(page.getByText(/lanes? (is|are) changed by hand\./)).toBeVisible()
  // A cartridge is refused there.
  await detail.getByRole('combobox', { name: 'Blade' }).click()
  await expect(
    page.locator('[role=option][data-combobox-disabled]').filter({ visible: true }).first(),
  ).toBeVisible()
  await page.keyboard.press('Escape')
  await page.locator('body').press('z')
  await expect.poll(load).toBe(before)
  await detail.getByRole('button', { name: 'Skip it' }).click()
  await expect(page.getByText(/pass 2: skipped by hand/).first()).toBeVisible()
  await page.locator('body').press('z')
  await expect(page.getByText(/skipped by hand/)).toHaveCount(0)

  await page.getByRole('button', { name: 'Time', exact: true }).click()
  await expect(page.getByRole('img', { name: /^Timetable/ })).toBeVisible()
  const whole = Number(/^\d+/.exec(await minutes(page).innerText())![0])
  await page.getByLabel('Make it').fill(String(whole - 4))
  await page.getByRole('button', { name: 'Fit', exact: true }).click()
  await expect(page.getByText(/Dropped across the grain/)).toBeVisible()
  await expect
    .poll(async () => Number(/^\d+/.exec(await minutes(page).innerText())![0]))
    .toBeLessThanOrEqual(whole - 4)
  await page.getByRole('button', { name: 'Search for a better order' }).click()
  // A quick machine is through before a hand gets there: then nothing is left to be stopped.
  const stop = page.getByRole('button', { name: 'Stop and take it' })
  await stop.click({ timeout: 5_000 }).catch(() => expect(stop).toBeHidden())
  await expect(page.getByText(/rounds: \d+ s of changes/)).toBeVisible()

  await page.getByRole('button', { name: /Plan again/ }).click()
  await expect(page.getByText(/^Kept/)).toBeVisible()
  await expect
    .poll(async () => (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).plan!.choice)
    .toMatchObject({ style: 'closest', within: whole - 4 })
  const kept = (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).plan!
  expect(kept.dropped.length).toBeGreaterThan(0)
  expect(kept.choice.order!.filter((id) => !id.startsWith('lather'))).toEqual(
    expect.arrayContaining(kept.lanes.map((l) => l.stepId)),
  )

  await page.getByRole('link', { name: 'Plan card' }).click()
  await expect(page.locator('.flat-label').first()).toBeVisible()
  await expect(page.locator('.card-line', { hasText: 'Lay out:' })).toContainText(
    '1 × shavette, half blade',
  )
  const pdf = (await page.pdf({ format: 'A4' })).toString('latin1')
  expect(pdf.match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1)
})

test('arms and legs: strokes on the outlines, what is not wanted stays', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Body Gunwale', 'body-shave', false)
  await page.goto(`/clients/${client.id}/read`)
  await expect(page.getByText('0 of 16 zones read')).toBeVisible()
  const box = (await head(page).boundingBox())!
  const from = { x: box.x + box.width * 0.575, y: box.y + box.height * 0.3 }
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  for (let i = 1; i <= 6; i++) await page.mouse.move(from.x + 2 * i, from.y + 8 * i)
  await page.mouse.up()
  await expect(page.getByText('1 of 16 zones read')).toBeVisible()
  await page.keyboard.press('m')
  await expect(page.getByText('2 of 16 zones read')).toBeVisible()
  await page.getByText('Arms', { exact: true }).click()
  await expect
    .poll(
      async () =>
        (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).notes.keptZones.length,
    )
    .toBe(4)
  await page.getByRole('button', { name: /^Plan/ }).last().click()
  await page.getByRole('button', { name: /Plan again/ }).click()
  await expect
    .poll(
      async () => (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).plan!.zones.length,
    )
    .toBe(12)
})

test('asking again: still so, a clinician’s word, methods, consent signed and printed', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Still Mizzen')
  // A whole visit beside the screen, then the next.
  await workAhead(page, visit.id)
  const house = await ask<House>(page, 'GET', '/api/house')
  const id = crypto.randomUUID()
  await ask(page, 'POST', `/api/clients/${client.id}/visits`, {
    id,
    jobs: [oneJob(crypto.randomUUID(), 'face-shave')],
    workerId: house.workerId,
    slotAtMs: Date.now(),
  })
  await page.goto(`/clients/${client.id}/ask`)
  await expect(
    page.getByRole('heading', { name: /answers from last time: still so\?/ }),
  ).toBeVisible()
  await page.getByRole('button', { name: /^Blood thinners/ }).click()
  await page.getByRole('button', { name: 'Still so', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Postpone: not today.' })).toBeVisible()
  await expect(page.getByText('What would have to change:')).toBeVisible()
  await page.getByText('go ahead', { exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Go, with care.' })).toBeVisible()

  await page.getByRole('tab', { name: 'Methods' }).click()
  await page.getByRole('button', { name: 'Thicker?' }).click()
  await expect(page.getByText(/A blade cuts at the surface/)).toBeVisible()
  await expect(page.getByRole('row', { name: /^Wax/ })).toContainText('Bleeding or slow healing')
  await page.getByRole('button', { name: 'Sooner?' }).click()
  await expect(
    page.getByText(/hair is felt again after .+ with a blade, after .+ with wax/),
  ).toBeVisible()
  await expect(page.getByRole('row', { name: /^Blade/ })).toContainText(
    /Redness .+ %.+A year( a house estimate)?: \d+ visits/,
  )

  await page.getByRole('tab', { name: 'Consent' }).click()
  await page.getByRole('button', { name: 'Sign anew' }).click()
  const field = page.getByRole('application', { name: /Field to sign in/ })
  await field.scrollIntoViewIfNeeded()
  const box = (await field.boundingBox())!
  await page.mouse.move(box.x + 40, box.y + 50)
  await page.mouse.down()
  for (let i = 1; i < 12; i++)
    await page.mouse.move(box.x + 40 + 15 * i, box.y + 50 + 18 * Math.sin(i))
  await page.mouse.up()
  await page.getByRole('button', { name: 'Signed', exact: true }).click()
  await expect(page.getByRole('img', { name: /^Signature of Still Mizzen/ })).toBeVisible()
  await expect
    .poll(
      async () =>
        (await ask<VisitPage>(page, 'GET', `/api/visits/${id}`)).asked.consent?.path ?? '',
    )
    .toMatch(/^M[\d.]+ [\d.]+L/)
  await page.getByRole('link', { name: 'Print' }).click()
  await expect(page.getByRole('article', { name: 'Consent' })).toContainText('Still Mizzen')
})

test('a house changes a figure and a rule, sees the date of it, and goes back', async ({
  page,
}) => {
  // What is refused is a refusal to the browser too.
  page.removeAllListeners('console')
  await page.goto('/house/estimates')
  await page.getByText('Time at the chair').click()
  const figure = page.getByLabel('Change of tool')
  await figure.fill('13')
  await figure.press('Enter')
  await expect(page.getByText('default 12 s')).toBeVisible()
  await figure.fill('99999')
  await figure.press('Enter')
  await expect(page.getByRole('alert')).toContainText('is not between')
  await expect(figure).toHaveValue('13')
  await page.getByRole('link', { name: 'Rules of asking' }).click()
  const days = page.getByLabel('Sunburn: days to wait')
  await days.fill('9')
  await days.press('Tab')
  await expect(page.getByText(/default: postpone, 7 days/)).toBeVisible()
  await page.getByRole('link', { name: 'What was changed' }).click()
  await expect(page.getByRole('row', { name: /Change of tool 12 s 13 s/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /Sunburn, Hot-towel face shave/ })).toBeVisible()
  await ask(page, 'PATCH', '/api/house', {
    figures: { 'time.toolSeconds': null },
    rules: { sunburn: { 'face-shave': {} } },
  })
  const house = await ask<House>(page, 'GET', '/api/house')
  expect([house.figures, house.rules]).toEqual([{}, {}])
})

test('a client has schools of their own', async ({ page }) => {
  const { client } = await plannedClient(page, 'Own Capstan')
  await page.goto(`/clients/${client.id}/ask`)
  await page.getByRole('tab', { name: 'Skin' }).click()
  await page.getByText('Schools for this client').click()
  await pickOne(page, 'Passes on a beard', 2)
  await expect
    .poll(
      async () => (await ask<ClientPage>(page, 'GET', `/api/clients/${client.id}`)).client.schools,
    )
    .toEqual({ beardPasses: 'one-across' })
  await page.goto(`/clients/${client.id}/plan`)
  await page.getByRole('button', { name: 'Why' }).click()
  await page.getByRole('button', { name: 'Lanes', exact: true }).click()
  await page.keyboard.press('9')
  await expect(page.getByRole('row', { name: /lower cheek.*across/i }).first()).toBeVisible()
})
