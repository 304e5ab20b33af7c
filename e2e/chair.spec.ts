/** The chair: by pedal, on two screens, with what goes wrong. */
import type { KitLog, VisitPage } from '../contract/types.ts'
import { replayLive } from '../core/chair/index.ts'
import { zoneName } from '../core/zones/index.ts'
import { violations } from './axe.ts'
import { begin, count, press, workAhead } from './chairHand.ts'
import { ask, clientNamed, expect, headReady, onHead, plannedClient, test } from './support.ts'

const go = '[data-testid="chair-go"]'

test('by pedal and keys: nick, tug, new blade, skip, back, pause, re-lather; the end says what it came to', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Pedal Windlass')
  const total = visit.plan!.steps.length
  const first = visit.plan!.steps.findIndex((s) => s.kind === 'stroke')
  await page.goto(`/clients/${client.id}/chair`)
  await expect(count(page)).toContainText(`${total} steps`)
  await workAhead(page, visit.id, first)
  await expect(count(page)).toContainText(`step ${first + 1} of`)
  // No stroke before a blade was opened.
  await expect(page.locator(go)).toContainText('Fresh blade opened')
  await press(page)
  await expect(page.locator(go)).toContainText('Done, next')
  await press(page, 'PageDown')
  await expect(count(page)).toContainText(`step ${first + 2} of`)
  // Client's and worker's side are both told.
  await expect(count(page)).toContainText(/client’s (left|right)/)
  await expect(count(page)).toContainText(/you/)
  await page.keyboard.press('n')
  const nick = page.getByRole('dialog', { name: 'The nick' })
  await expect(nick).toBeVisible()
  await nick.getByRole('button', { name: '4 mm' }).click()
  await nick.getByRole('button', { name: /blood touched me/ }).click()
  await expect(nick).toContainText('local rule')
  await page.keyboard.press('1')
  await expect(nick).toBeHidden()
  await page.keyboard.press('t')
  await expect(page.getByTestId('chair-said')).toContainText('Tug noted')
  // A blade that tugged is changed before the next stroke.
  await expect(page.locator(go)).toContainText('Blade changed')
  await press(page)
  await expect(page.getByText('blade 2', { exact: true })).toBeVisible()
  await page.keyboard.press('b')
  await expect(page.getByText('blade 3', { exact: true })).toBeVisible()
  await page.keyboard.press('r')
  await expect(page.getByTestId('chair-said')).toContainText('Fresh lather')
  await page.keyboard.press('p')
  await expect(page.getByRole('heading', { name: 'Paused' })).toBeVisible()
  await press(page)
  await expect(page.getByRole('heading', { name: 'Paused' })).toBeHidden()
  await page.keyboard.press('s')
  await page.keyboard.press('2')
  await expect(count(page)).toContainText(`step ${first + 3} of`)
  await press(page, 'PageUp')
  await expect(count(page)).toContainText(`step ${first + 2} of`)
  await page.keyboard.press('s')
  await page.keyboard.press('Escape')
  await expect(page.getByText('Why?')).toBeHidden()
  await expect(count(page)).toContainText(`step ${first + 2} of`)
  await workAhead(page, visit.id, total - 1)
  await expect(count(page)).toContainText(`step ${total} of ${total}`)
  await press(page)
  await expect(page.getByRole('heading', { name: 'Blades away' })).toBeVisible()
  await press(page)
  await press(page)
  await press(page)
  await expect(page.getByRole('heading', { name: 'Care' })).toBeVisible()
  await page.goto(`/clients/${client.id}/chair`)
  const facts = page.locator('dl')
  await expect(facts).toContainText('Nicks1')
  await expect(facts).toContainText('Blades3')
  await expect(facts).toContainText('First lookclear')
  await expect(page.getByText(/4 mm: pressure, styptic/)).toBeVisible()
  const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(after.chair.tugs).toHaveLength(1)
  expect(after.chair.nicks[0]).toMatchObject({ sizeMm: 4, contact: true })
  const { events } = await ask<KitLog>(page, 'GET', '/api/kit-events')
  const own = events.filter((e) => e.visitId === visit.id)
  expect(own.filter((e) => e.kind === 'opened')).toHaveLength(3)
  expect(own.find((e) => e.why === 'tug')).toMatchObject({ kind: 'changed' })
})

test('a press over several zones goes on without any one of them, once the rest has been told', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Skip Tidewaiter')
  const { steps } = visit.plan!
  const joint = steps.findIndex((s) => (s.zoneIds?.length ?? 0) > 1)
  await workAhead(page, visit.id, joint)
  await page.goto(`/clients/${client.id}/chair`)
  await expect(count(page)).toContainText(`step ${joint + 1} of`)
  await page.keyboard.press('s')
  const names = page.getByRole('button', { name: /skip all of it/ })
  await expect(names).toHaveCount(steps[joint]!.zoneIds!.length)
  await names.last().click()
  const leaving = page.getByRole('dialog', { name: 'Skip a zone' })
  await expect(leaving).toContainText(/no more strokes there. The rest takes \d+ min/)
  await press(page)
  await expect(leaving).toBeHidden()
  const left = steps[joint]!.zoneIds!.at(-1)!
  // The screen goes on before the house has heard of it.
  await expect
    .poll(async () =>
      (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).chair.amendments.map(
        (a) => a.text,
      ),
    )
    .toEqual([`${zoneName(left)}: the rest of it is skipped.`])
})

test('a pedal that bounces moves one step, and nothing is refused aloud', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Bouncing Capstan')
  await page.goto(`/clients/${client.id}/chair`)
  await expect(count(page)).toContainText('steps, about')
  // Both presses of each pair come before the screen can have changed.
  const bounce = async () => {
    await page.evaluate(() => {
      for (let i = 0; i < 2; i++) {
        const down = { code: 'PageDown', key: 'PageDown', bubbles: true }
        document.body.dispatchEvent(new KeyboardEvent('keydown', down))
      }
    })
    await page.waitForTimeout(320)
  }
  await begin(page, bounce)
  await bounce()
  await expect(count(page)).toContainText('step 2 of')
  await expect(page.getByRole('alert')).toHaveCount(0)
  await expect
    .poll(async () =>
      (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).events.map((e) => e.kind),
    )
    .toEqual(['started', 'towel-out', 'done'])
})

test('a second screen on the wall follows at once, and the other tablet counts nothing twice', async ({
  page,
  context,
}) => {
  const { client, visit } = await plannedClient(page, 'Twin Bollard')
  await page.goto(`/clients/${client.id}/chair`)
  const wall = await context.newPage()
  await wall.goto(`/clients/${client.id}/wall`)
  await expect(wall.getByRole('heading', { name: /^Ready for/ })).toBeVisible()
  await expect(wall.getByRole('contentinfo')).toHaveCount(0)
  await begin(page, () => page.locator(go).click())
  await expect(count(wall)).toContainText('step 1 of')
  // A key at the wall does nothing.
  await press(wall)
  await page.waitForTimeout(320)
  await page.locator(go).click()
  await expect(count(page)).toContainText('step 2 of')
  await expect(count(wall)).toContainText('step 2 of')
  await expect
    .poll(async () =>
      (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).events.map((e) => e.kind),
    )
    .toEqual(['started', 'towel-out', 'done'])
  await wall.close()
})

test(
  'skin that reddens: the rest is planned anew by the worker’s word, and a place found is left out',
  { tag: '@drawn' },
  async ({ page }) => {
    const { client, visit } = await plannedClient(page, 'Reddening Tern')
    const first = visit.plan!.steps.findIndex((s) => s.kind === 'stroke')
    await workAhead(page, visit.id, first + 3)
    await page.goto(`/clients/${client.id}/chair`)
    await headReady(page)
    await expect(count(page)).toContainText(`step ${first + 4} of`)
    // Straight ahead lies the lane to which the head has turned.
    await page.keyboard.press('l')
    const found = page.getByRole('dialog', { name: 'Leave a place out' })
    const middle = await onHead(page, 0.5, 0.5)
    await page.mouse.click(middle.x, middle.y)
    await expect(found).toContainText(/leave 8 mm round it/)
    await found.getByRole('button', { name: '4 mm' }).click()
    await expect(found.getByRole('button', { name: /lanes? are cut round it/ })).toBeEnabled()
    await page.keyboard.press('1')
    await expect(found).toBeHidden()
    const changed = async () =>
      (await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)).chair.amendments.map(
        (a) => a.text,
      )
    await expect.poll(changed).toEqual([expect.stringContaining('left out, 4 mm round it')])

    await page.keyboard.press('w')
    const red = page.getByRole('dialog', { name: 'Skin reddens' })
    await red.getByRole('button', { name: /a welt/ }).click()
    await page.keyboard.press('3')
    const rest = page.getByRole('dialog', { name: 'The rest' })
    await expect(rest).toContainText(/redness 2 or more by tomorrow (under )?\d+ %/)
    await expect(rest.getByRole('button', { name: /Leave .*, the rest gentler/ })).toBeEnabled()
    await page.keyboard.press('1')
    await expect(rest).toBeHidden()
    await expect.poll(changed).toHaveLength(2)
    await page.keyboard.press('x')
    const stop = page.getByRole('dialog', { name: 'Stop' })
    await expect(stop.getByRole('button', { name: /are left undone/ })).toBeEnabled()
    await page.keyboard.press('1')
    await expect(page.getByRole('heading', { name: 'Cold towel' })).toBeVisible()
    await expect.poll(changed).toHaveLength(3)
  },
)

test('the second look: a missed patch tapped on the head becomes a lane', async ({ page }) => {
  const { client, visit } = await plannedClient(page, 'Second Look')
  const check = visit.plan!.steps.findIndex((s) => s.kind === 'check')
  await workAhead(page, visit.id, check)
  await page.goto(`/clients/${client.id}/chair`)
  await headReady(page)
  await expect(page.getByRole('heading', { name: 'Second look' })).toBeVisible()
  // Where this worker misses in such hair, by the second looks before.
  await expect(page.getByRole('group', { name: 'Feel first' })).toContainText(
    /you \d+ of \d+ times/,
  )
  const at = await onHead(page, 0.5, 0.66)
  await expect(async () => {
    await page.mouse.click(at.x, at.y)
    await expect(page.locator(go)).toContainText(/Take the patch, \d+ min/, { timeout: 4000 })
  }).toPass()
  // Leaving it is a choice of its own, with its name.
  await expect(page.getByRole('button', { name: 'Leave this patch undone' })).toBeVisible()
  await press(page)
  await expect(page.getByRole('heading', { name: /^Missed: / })).toBeVisible()
  await press(page)
  // On lather that has long dried, or with a blade at its end, the pedal asks for those first.
  const again = page.getByRole('heading', { name: 'Second look' })
  for (let i = 0; i < 3; i++) {
    const there = await again.waitFor({ timeout: 3000 }).then(
      () => true,
      () => false,
    )
    if (there) break
    await press(page)
  }
  await expect(again).toBeVisible()
})

test('what is marked is kept before the eyes on its zone', async ({ page }) => {
  const ansel = await clientNamed(page, 'Ansel')
  await page.goto(`/clients/${ansel.id}/plan`)
  await expect(page.getByText(/mole: leave \d+ mm round it/).first()).toBeHidden()
  await page
    .getByRole('button', { name: /jaw.*client's left$/i })
    .first()
    .click()
  await expect(page.getByText(/mole: leave \d+ mm round it/).first()).toBeVisible()
})

test('an address that leads nowhere says so and leads back', async ({ page }) => {
  await page.goto('/nowhere/at/all')
  await expect(page.getByRole('heading').first()).toBeVisible()
  await expect(page.getByRole('link', { name: /Today/ }).first()).toBeVisible()
})

test('the voice is off until it is wanted, then says each step; the screen stays awake', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const said: string[] = []
    const locks: string[] = []
    Object.assign(window, { said, locks })
    Object.defineProperty(window, 'speechSynthesis', {
      value: { speak: (u: { text: string }) => said.push(u.text), cancel: () => undefined },
    })
    Object.defineProperty(window, 'SpeechSynthesisUtterance', {
      value: class {
        text: string
        constructor(text: string) {
          this.text = text
        }
      },
    })
    Object.defineProperty(navigator, 'wakeLock', {
      value: {
        request: (kind: string) => {
          locks.push(kind)
          return Promise.resolve({ release: () => Promise.resolve() })
        },
      },
    })
  })
  const { client, visit } = await plannedClient(page, 'Voice Kittiwake')
  await workAhead(page, visit.id, 2)
  await page.goto(`/clients/${client.id}/chair?flat`)
  const heard = () => page.evaluate(() => (window as unknown as { said: string[] }).said)
  await expect(count(page)).toContainText('step 3 of')
  expect(await heard()).toEqual([])
  expect(await page.evaluate(() => (window as unknown as { locks: string[] }).locks)).toContain(
    'screen',
  )
  await page.getByRole('button', { name: 'Voice off' }).click()
  await expect.poll(heard).toEqual([expect.stringContaining('Oil and lather.')])
  await page.locator('main h1').click()
  await press(page)
  await expect.poll(heard).toContainEqual(expect.stringContaining('Open a fresh blade'))
})

test('both sides are compared: the one with more to do goes first, answered at the chair', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Evan Combes', 'beard-line')
  const at = visit.plan!.steps.findIndex((s) => s.id === 'prepare:comb')
  await workAhead(page, visit.id, at)
  const sides = async () => {
    const { plan, events } = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
    const { steps } = replayLive(plan!, events).plan
    return steps.flatMap((s) => /-(left|right)$/.exec(s.zoneId ?? '')?.[1] ?? [])
  }
  const other = (await sides())[0] === 'left' ? 'right' : 'left'
  await page.goto(`/clients/${client.id}/chair`)
  await expect(page.getByRole('heading', { name: 'Comb and compare' })).toBeVisible()
  await page.getByRole('button', { name: `Client’s ${other}` }).click()
  await expect(page.getByText('The lanes are in that order.')).toBeVisible()
  expect((await sides())[0]).toBe(other)
  expect(await violations(page)).toEqual([])
})
