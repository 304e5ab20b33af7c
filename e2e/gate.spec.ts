/** The one gate as the hands meet it: what is known stops or changes the next stroke, wherever it was learned. */
import { oneJob } from '../core/services/index.ts'
import type { ClientPage, House, VisitPage } from '../contract/types.ts'
import { begin, count, press, workAhead } from './chairHand.ts'
import {
  ask,
  askedAll,
  clientNamed,
  expect,
  plannedClient,
  readAll,
  sign,
  test,
} from './support.ts'

const HOUR = 3_600_000
const go = '[data-testid="chair-go"]'

/** The visit that follows a finished one. */
async function nextVisit(page: Parameters<typeof ask>[0], clientId: string): Promise<VisitPage> {
  const house = await ask<House>(page, 'GET', '/api/house')
  return ask<VisitPage>(page, 'POST', `/api/clients/${clientId}/visits`, {
    id: crypto.randomUUID(),
    jobs: [oneJob(crypto.randomUUID(), 'face-shave')],
    workerId: house.workerId,
    slotAtMs: Date.now(),
  })
}

test('who signs follows from age: a guardian’s hand does not stand for somebody of age', async ({
  page,
}) => {
  const { client } = await plannedClient(page, 'Pip Under', 'face-shave', false)
  await page.goto(`/clients/${client.id}/ask`)
  const pad = page.getByRole('region', { name: 'Consent' })
  const age = page.locator('[aria-label^="Under age"]')
  await age.click()
  // What was filled in for the client is not their guardian's name.
  await expect(pad.getByLabel('Guardian’s name')).toHaveValue('')
  await pad.getByLabel('Guardian’s name').fill('Ada Under')
  await pad.getByRole('button', { name: 'On paper instead' }).click()
  await expect(pad).toBeHidden()
  await age.click()
  await expect(page.getByText('Consent is a guardian’s')).toBeVisible()
  await expect(pad.getByLabel('Name')).toHaveValue('Pip Under')
  await pad.getByRole('button', { name: 'On paper instead' }).click()
  await expect(page.getByText('Consent is a guardian’s')).toBeHidden()
})

test('a new client: nothing is kept or begun until it was asked and signed', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: /New client/ }).click()
  await page.getByLabel(/^Name/).first().fill('Gate Hollyhock')
  await page.getByRole('button', { name: 'Add and start asking' }).click()
  await expect(page.getByRole('heading', { name: '18 questions are open.' })).toBeVisible()
  const { id } = await clientNamed(page, 'Gate Hollyhock')
  const keep = page.getByRole('button', { name: /Keep this plan/ })
  await page.getByRole('link', { name: /^Plan/ }).first().click()
  await expect(page.getByText('18 questions are open').first()).toBeVisible()
  await expect(keep).toBeDisabled()
  await page.goto(`/clients/${id}/chair`)
  await expect(page.getByRole('heading', { name: 'No plan is kept yet' })).toBeVisible()

  await page.goto(`/clients/${id}/ask`)
  await page.getByRole('button', { name: 'None of the rest' }).click()
  await expect(page.getByText(/Consent is not signed/).first()).toBeVisible()
  await page.getByRole('link', { name: /^Plan/ }).first().click()
  await keep.click()
  await page.getByRole('button', { name: 'To the chair' }).click()
  // A plan may be kept; the blade waits for the signature.
  await expect(page.getByRole('heading', { name: 'Ready for Gate' })).toBeVisible()
  await expect(page.locator(go)).toContainText('Not yet')
  await expect(page.locator(go)).toBeDisabled()
  await press(page)
  await expect(page.getByRole('heading', { name: 'Ready for Gate' })).toBeVisible()
  await page.getByRole('link', { name: 'Sign at Ask' }).click()
  await sign(page)
  await page.goto(`/clients/${id}/chair`)
  await begin(page)
})

test('a severe answer: what the client is told, the alarm on Today, the next visit, looked into', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Severe Samphire')
  await ask(page, 'PATCH', `/api/clients/${client.id}`, { phone: '0555 0107' })
  await workAhead(page, visit.id, Infinity, { startMs: Date.now() - 30 * HOUR })
  const { url } = await ask<{ url: string }>(page, 'POST', `/api/visits/${visit.id}/link`, {})
  await page.goto(new URL(url).pathname)
  await page.getByRole('radio', { name: /^4, severe/ }).check({ force: true })
  await page
    .getByRole('group', { name: 'Where?' })
    .getByRole('checkbox', { name: 'Neck' })
    .check({ force: true })
  await page.getByLabel('Bumps or ingrown hairs').fill('35')
  await page.getByRole('checkbox', { name: 'Some hold pus' }).check({ force: true })
  const stings = page.locator('input[name=stinging][value="8"]')
  await stings.check({ force: true })
  for (const name of ['dryness', 'itch'])
    await page.locator(`input[name=${name}][value="0"]`).check({ force: true })
  await page.locator('input[name=hair][value=no]').check({ force: true })
  await page.getByRole('button', { name: /^Send to/ }).click()
  await expect(page.getByRole('heading', { name: 'What to do now' })).toBeVisible()
  await expect(page.getByText('A pharmacist or doctor')).toBeVisible()

  await nextVisit(page, client.id)
  await page.goto('/')
  const row = page.getByRole('row', { name: /Severe Samphire/ })
  await expect(row).toContainText('redness 4, severe')
  await expect(row.getByRole('link', { name: /0555 0107/ })).toHaveAttribute('href', 'tel:05550107')

  await page.goto(`/clients/${client.id}/ask`)
  await expect(page.getByText(/redness 4, severe, 35 bumps, some with pus/).first()).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Go.', exact: true })).toHaveCount(0)
  await page.getByRole('link', { name: 'Look at that visit' }).first().click()

  const alarm = page.getByRole('alert').filter({ hasText: 'Redness 4, severe' })
  await expect(alarm).toBeVisible()
  await alarm.getByLabel(/^Ring/).fill('Rang: calmer, sees the pharmacist today')
  await alarm.getByRole('button', { name: 'Looked into' }).click()
  await expect(page.getByText('Rang: calmer, sees the pharmacist today')).toBeVisible()
  await page.goto('/')
  await expect(row).toBeVisible()
  await expect(row).not.toContainText('redness 4, severe')
})

test('a severe answer that comes in at the chair stops the next stroke; by keys the zone is left out, and the rest goes on', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'News Nettle')
  await workAhead(page, visit.id, Infinity, { startMs: Date.now() - 30 * 24 * HOUR })
  const next = await nextVisit(page, client.id)
  await readAll(page, next.id, 'face-shave')
  await ask(page, 'PUT', `/api/visits/${next.id}/asked`, askedAll('face-shave'))
  const { plan } = await ask<VisitPage>(page, 'PUT', `/api/visits/${next.id}/plan`)
  const stroke = plan!.steps.findIndex((s) => s.kind === 'stroke' && s.zoneId === 'chin')
  await workAhead(page, next.id, stroke)
  await page.goto(`/clients/${client.id}/chair`)
  await expect(count(page)).toContainText(`step ${stroke + 1} of`)

  const zones = [{ zoneId: 'chin', redness: 4, bumps: 0 }]
  const atMs = Date.now() - 29 * 24 * HOUR
  await ask(page, 'PUT', `/api/visits/${visit.id}/skin/24h`, { atMs, source: 'client', zones })
  await expect(page.getByRole('heading', { name: 'Look first' })).toBeVisible()
  await expect(page.getByRole('alert')).toContainText('redness 4, severe; chin')
  await expect(page.locator(go)).toContainText('Looked: go on')
  // What is found is written down before anything goes on.
  await page.keyboard.press('w')
  await page.getByRole('dialog', { name: 'Skin reddens' }).waitFor()
  await page.keyboard.press('3')
  await expect(page.getByRole('button', { name: /Leave the chin, the rest gentler/ })).toBeEnabled()
  await page.keyboard.press('1')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Look first' })).toBeVisible()
  await press(page)
  await expect(page.getByRole('heading', { name: 'Look first' })).toHaveCount(0)
  const told = () => ask<VisitPage>(page, 'GET', `/api/visits/${next.id}`)
  await expect
    .poll(async () => (await told()).events.slice(-4).map((e) => e.kind))
    .toEqual(['paused', 'redness', 'amended', 'resumed'])
  const left = (await told()).events.at(-2)!.detail!.amendment!.steps
  expect(left.some((s) => s.kind === 'stroke')).toBe(true)
  expect(left.filter((s) => s.zoneId === 'chin')).toEqual([])
})

test('a zone that nobody has read is felt first, and what was felt is read into the map', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Guess Fennel', 'face-shave', false)
  const feel = visit.plan!.steps.findIndex((s) => s.kind === 'feel')
  const zone = visit.plan!.steps[feel]!.zoneId!
  await page.goto(`/clients/${client.id}/plan`)
  await expect(page.getByText(/guess/).first()).toBeVisible()
  await workAhead(page, visit.id, feel)
  await page.goto(`/clients/${client.id}/chair`)
  await expect(page.getByRole('heading', { name: /^Feel / })).toBeVisible()
  const felt = page.getByRole('group', { name: 'Which way it is felt to grow' })
  await expect(felt).toContainText('As guessed')
  await page.keyboard.press(']')
  await page.keyboard.press(']')
  await expect(felt).toContainText(/Felt: .*toward/)
  await press(page)
  await expect
    .poll(async () => (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).readings)
    .toEqual([expect.objectContaining({ zoneId: zone, method: 'felt' })])
  // It is not passed over: the next one asks again.
  await expect(count(page)).toContainText(`step ${feel + 2} of`)
})

test('redness, a zone left out and a nick stand at Return and in what goes home; the main key goes to the redness', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Told Tansy')
  const chin = visit.plan!.steps.findIndex((s) => s.zoneId === 'chin')
  let told = false
  const steps = visit.plan!.steps.length
  await workAhead(page, visit.id, steps, {
    besides: ({ state, plan }) => {
      const step = plan.steps[state.index]
      if (state.index === chin && !told) {
        told = true
        return [
          { kind: 'redness', stepId: step!.id, detail: { zoneId: 'chin', grade: 2 } },
          { kind: 'nick', stepId: step!.id, detail: { zoneId: 'jaw-left', sizeMm: 2 } },
        ]
      }
      return step?.kind === 'stroke' && step.zoneId === 'chin'
        ? [{ kind: 'skipped', stepId: step.id, reason: 'the skin reddens' }]
        : []
    },
  })
  await page.goto(`/clients/${client.id}/chair`)
  await expect(page.getByRole('heading', { name: 'Blades away' })).toBeVisible()
  await press(page)
  await expect(page.getByRole('heading', { name: 'First look' })).toBeVisible()
  await expect(page.getByRole('group', { name: 'Chin' })).toContainText('at the chair: 2')
  await expect(page.locator(go)).toContainText('Keep this reading')
  await press(page)
  await press(page)
  await expect(page.getByRole('heading', { name: 'Care', exact: true })).toBeVisible()
  const sheet = page.getByRole('article', { name: 'Care sheet' })
  await expect(sheet).toContainText(/Reddened today: .*chin/i)
  await expect(sheet).toContainText(/Left out today: .*chin/i)
  await page.getByRole('tab', { name: 'Messages' }).click()
  await page
    .getByRole('button', { name: /^After your/ })
    .first()
    .click()
  await expect(page.getByLabel('Text of the message').first()).toHaveValue(/Reddened today/)
  // The sheet of today stays in reach when the next visit is booked.
  await nextVisit(page, client.id)
  await page.goto(`/clients/${client.id}/care`)
  await expect(sheet).toContainText('Reddened today')
  await page.goto(`/clients/${client.id}/return`)
  await expect(page.getByText(/at the chair: red 2; left out, it reddened/)).toBeVisible()
  await expect(page.getByText('a nick', { exact: true })).toBeVisible()
  await expect(
    page.getByRole('group', { name: 'Redness, Chin' }).getByRole('button', { name: /^2/ }),
  ).toHaveAttribute('aria-pressed', 'true')
})

test('a service left open overnight ends as of its last event by one tap', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Open Oxlip')
  await workAhead(page, visit.id, 5, { startMs: Date.now() - 20 * HOUR })
  await page.goto('/')
  await expect(page.getByRole('row', { name: /Open Oxlip/ })).toContainText('Left open since')
  await page.goto(`/clients/${client.id}/chair`)
  const asked = page.getByRole('dialog', { name: 'Left open' })
  await expect(asked).toContainText('Left open since')
  await expect(page.getByTestId('chair')).not.toContainText(/\d{2,}:\d\d of/)
  // The key that the hand repeats does not end it.
  await press(page)
  await page.keyboard.press('PageDown')
  await expect(asked).toBeVisible()
  await asked.getByRole('button', { name: /End it as of/ }).click()
  await expect(page.getByRole('heading', { name: 'Care', exact: true })).toBeVisible()
  const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(after.state).toBe('finished')
  expect(after.endedAtMs).toBe(after.events.at(-2)!.atMs)
})

test('one client in the chair of a worker: a second start asks', async ({ page }) => {
  const first = await plannedClient(page, 'First Yarrow')
  const second = await plannedClient(page, 'Second Yarrow')
  await workAhead(page, first.visit.id, 1)
  await page.goto(`/clients/${second.client.id}/chair`)
  await expect(page.locator(go)).toContainText('Begin')
  await press(page)
  const busy = page.getByRole('dialog', { name: 'Somebody is in the chair' })
  await expect(busy).toContainText('still in the chair')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: /^Ready for/ })).toBeVisible()
  await press(page)
  await busy.getByRole('button', { name: /Both go on/ }).click()
  await expect(count(page)).toContainText('step 1 of')
})

test('a start and a nick recorded by mistake are taken back, and stay in the record', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Back Betony')
  await page.goto(`/clients/${client.id}/chair`)
  await begin(page)
  const takeBack = async (what: RegExp) => {
    await page.keyboard.press('m')
    await page.getByRole('button', { name: /Take something back/ }).click()
    await page
      .getByRole('dialog', { name: 'Take back' })
      .getByRole('button', { name: what })
      .click()
  }
  await page.keyboard.press('n')
  await page.getByRole('button', { name: /Keep it so/ }).click()
  await takeBack(/nick/)
  const state = async () => {
    const v = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
    return [v.state, v.chair.nicks.length, v.events.map((e) => e.kind)]
  }
  await expect
    .poll(state)
    .toEqual(['running', 0, expect.arrayContaining(['nick', 'taken-back']) as unknown])
  await takeBack(/the start/)
  await expect(page.getByRole('heading', { name: /^Ready for/ })).toBeVisible()
  await expect.poll(async () => (await state())[0]).toBe('open')
})

test('a returning client reaches the first lane in ten taps, all asked', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Tapped Teasel')
  await workAhead(page, visit.id, Infinity, { startMs: Date.now() - 30 * 24 * HOUR })
  const next = await nextVisit(page, client.id)
  await readAll(page, next.id, 'face-shave')
  let taps = 0
  const tap = async (what: ReturnType<typeof page.locator>) => {
    await what.click()
    taps++
    await page.waitForTimeout(300)
  }
  await page.goto('/')
  await tap(page.getByRole('link', { name: 'Tapped Teasel' }))
  await tap(page.getByRole('button', { name: /still so/i }).first())
  await tap(page.getByRole('button', { name: 'To the chair' }))
  await tap(page.locator(go))
  const both = page.getByRole('button', { name: /Both go on/ })
  await expect(count(page).filter({ hasText: 'step 1 of' }).or(both).first()).toBeVisible()
  if (await both.isVisible()) await both.click()
  while (!(await page.locator(go).textContent())!.includes('Fresh blade') && taps < 20) {
    const wait = page.getByLabel(/Temperature read by hand/)
    if (await wait.isVisible()) {
      await wait.fill('42')
      await page.keyboard.press('Enter')
      await page.locator('main h1').click()
    }
    await expect(page.locator(go)).toBeEnabled()
    await tap(page.locator(go))
  }
  await expect(page.locator(go)).toContainText('Fresh blade')
  expect(taps).toBeLessThanOrEqual(10)
  const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${client.id}`)
  expect(visits.find((v) => v.id === next.id)!.state).toBe('running')
})
