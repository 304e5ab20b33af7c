/** The whole path of a client: by mouse, by touch, by keyboard alone. */
import { readFileSync } from 'node:fs'
import ICAL from 'ical.js'
import type { Page } from '@playwright/test'
import type { ClientPage, VisitPage } from '../contract/types.ts'
import { begin, count, passTowel, press, workAhead } from './chairHand.ts'
import {
  ask,
  clientNamed,
  draw,
  expect,
  headReady,
  onHead,
  readAll,
  sign,
  tabTo,
  test,
  withoutWebGL,
  word,
} from './support.ts'

const stepCount = async (page: Page): Promise<number> => {
  const words = (await page.getByTestId('chair-count').textContent())!
  return Number(/(\d+) steps/.exec(words)![1])
}

const stepAt = async (page: Page): Promise<number> =>
  Number(/step (\d+) of/.exec((await count(page).textContent())!)![1])

/** The id of a client's newest visit. */
async function newestVisit(page: Page, name: string): Promise<string> {
  const { id } = await clientNamed(page, name)
  const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${id}`)
  return visits[0]!.id
}

/** Once the skip has reached the server, works ahead beside the screen to near the end. */
async function nearTheEnd(page: Page, name: string, upTo: number): Promise<void> {
  const id = await newestVisit(page, name)
  await expect
    .poll(
      async () =>
        Object.keys((await ask<VisitPage>(page, 'GET', `/api/visits/${id}`)).chair.skipReasons)
          .length,
    )
    .toBe(1)
  await workAhead(page, id, upTo)
  await expect(count(page)).toContainText(`step ${upTo + 1} of`)
}

/** From the last steps to the finish: blades away, the first look, the end. */
async function toTheFinish(page: Page, steps: number, by: () => Promise<void>): Promise<void> {
  for (let i = steps - 2; i <= steps; i++) {
    await expect(count(page)).toContainText(`step ${i} of ${steps}`)
    await by()
  }
  await expect(page.getByRole('heading', { name: 'Blades away' })).toBeVisible()
  await by()
  await expect(page.getByRole('heading', { name: 'First look' })).toBeVisible()
  await by()
  await expect(page.getByRole('heading', { name: 'All done' })).toBeVisible()
  await by()
}

test('a new client with a face shave, by mouse', { tag: '@drawn' }, async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: /New client/ }).click()
  await page
    .getByLabel('Name', { exact: true })
    .or(page.getByLabel(/^Name/))
    .first()
    .fill('Mira Quayside')
  await page.getByLabel('What they do').fill('bell founder')
  await page.getByRole('button', { name: 'Add and start asking' }).click()

  // Ask: nothing found but a mole, tapped on the head.
  await expect(page.getByRole('heading', { name: '18 questions are open.' })).toBeVisible()
  await page.getByRole('button', { name: 'None of the rest' }).click()
  await expect(page.getByRole('heading', { name: 'Go.', exact: true })).toBeVisible()
  await page.getByRole('tab', { name: 'Skin' }).click()
  await page.getByText('bump-prone', { exact: true }).click()
  await headReady(page)
  await page.getByRole('tab', { name: 'Marks' }).click()
  const chin = await onHead(page, 0.5, 0.665)
  await page.mouse.click(chin.x, chin.y)
  await expect(page.getByText('mole, Chin, 4 mm')).toBeVisible()
  await expect(page.getByRole('heading', { name: /leave out what is marked/ })).toBeVisible()

  // Nothing is begun unsigned.
  await expect(page.getByText(/Consent is not signed/).first()).toBeVisible()
  await sign(page)
  await expect(page.getByText(/Consent is not signed/)).toHaveCount(0)

  // Read: a stroke down the chin, another across it, undone again.
  await page.getByRole('link', { name: 'Read the grain' }).click()
  await expect(page.getByText(/a starting guess/i)).toBeVisible()
  await draw(page, [0.5, 0.625], [0.5, 0.69])
  await expect(page.getByText(/^grows down/)).toBeVisible()
  await expect(
    page
      .getByRole('list', { name: 'Readings of this zone' })
      .getByRole('button', { name: /^felt/ }),
  ).toHaveCount(1)
  await draw(page, [0.47, 0.66], [0.53, 0.66])
  await expect(page.getByText(/Readings disagree here, Chin/)).toBeVisible()
  await page.getByRole('button', { name: /Undo/ }).click()
  await expect(
    page
      .getByRole('list', { name: 'Readings of this zone' })
      .getByRole('button', { name: /^felt/ }),
  ).toHaveCount(1)

  // Plan: made from it, with reasons, kept.
  await page.getByRole('button', { name: /^Plan/ }).click()
  await page.getByRole('button', { name: /^Chin/ }).first().click()
  await expect(page.getByText(/with the grain/).first()).toBeVisible()
  await expect(page.getByText(/mole: leave 9 mm round it/)).toBeVisible()
  await page.getByRole('button', { name: /Keep this plan/ }).click()
  await page.getByRole('button', { name: 'To the chair' }).click()

  // Chair: a nick, a skipped step, a reload in the middle, then to the end.
  const steps = await stepCount(page)
  const go = page.getByTestId('chair-go')
  const onward = async () => {
    await go.click()
    await page.waitForTimeout(300)
  }
  await begin(page, onward)
  await onward()
  // Zones that nobody has read are felt first.
  const felts = page.getByRole('heading', { name: /^Feel / })
  await expect(felts).toBeVisible()
  while (await felts.isVisible()) {
    await expect(page.getByText(/guess/).first()).toBeVisible()
    await onward()
  }
  await passTowel(page, onward)
  await onward()
  await expect(go).toContainText('Fresh blade opened')
  await onward()
  const at = await stepAt(page)
  await onward()
  await expect(count(page)).toContainText(`step ${at + 1} of ${steps}`)
  await page.getByRole('button', { name: /^Nick/ }).click()
  await expect(page.getByRole('dialog', { name: 'The nick' })).toContainText('Nick noted')
  await page.getByRole('button', { name: /Keep it so/ }).click()
  await withoutWebGL(page)
  await page.reload()
  await expect(count(page)).toContainText(`step ${at + 1} of ${steps}`)
  await page.getByRole('button', { name: /Skip/ }).click()
  await page.getByRole('button', { name: /client asks/ }).click()
  await nearTheEnd(page, 'Mira Quayside', steps - 3)
  await toTheFinish(page, steps, onward)

  // Care: dated lines, a calendar that another parser reads.
  await expect(page.getByRole('heading', { name: 'Care' })).toBeVisible()
  await expect(page.getByText('No strong sun')).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Calendar file' }).click()
  const file = await (await download).path()
  expect(
    new ICAL.Component(ICAL.parse(readFileSync(file, 'utf8'))).getAllSubcomponents('vevent').length,
  ).toBeGreaterThan(8)

  // Return: redness tapped on the head, bumps counted, the next window with its reasons.
  await page.getByRole('link', { name: /^Return/ }).click()
  await expect(page.getByRole('heading', { name: 'How it went' })).toBeVisible()
  await headReady(page)
  const again = await onHead(page, 0.5, 0.665)
  await page.mouse.click(again.x, again.y)
  await page.mouse.click(again.x, again.y)
  await expect(
    page.getByRole('group', { name: 'Redness, Chin' }).getByRole('button', { name: /^2/ }),
  ).toHaveAttribute('aria-pressed', 'true')
  await page
    .getByRole('group', { name: 'Bumps, Chin' })
    .getByRole('button', { name: 'One more' })
    .click()
  await page.getByRole('tab', { name: 'Next visit' }).click()
  await expect(page.getByText(/Least interval for average, bump-prone skin/)).toBeVisible()
  await expect
    .poll(async () => {
      const row = await clientNamed(page, 'Mira Quayside')
      const { visits } = await ask<ClientPage>(page, 'GET', `/api/clients/${row.id}`)
      const visit = await ask<VisitPage>(page, 'GET', `/api/visits/${visits[0]!.id}`)
      return [
        visit.answers[0]?.zones,
        visit.chair.nicks.length,
        Object.values(visit.chair.skipReasons),
      ]
    })
    .toEqual([[{ zoneId: 'chin', redness: 2, bumps: 1 }], 1, ['client asks']])
})

test.describe('on a tablet', () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true })

  test('a new client with dermaplaning, by touch', { tag: '@drawn' }, async ({ page }) => {
    const tap = (name: string | RegExp) => page.getByRole('button', { name }).tap()
    await page.goto('/')
    await tap(/New client/)
    await page.getByLabel(/^Name/).first().fill('Sol Lanternhill')
    await page.getByRole('combobox', { name: 'Service wanted' }).tap()
    await page.getByRole('option', { name: 'Dermaplaning of the face' }).tap()
    await tap('Add and start asking')
    await tap(/First treatment of this kind/)
    await expect(
      page
        .getByText('Patch test on a small spot')
        .or(page.getByText('Place a patch test on a small spot'))
        .first(),
    ).toBeVisible()
    await expect(page.getByText("Patch test on jaw, client's left")).toBeVisible()
    await tap('Place it now')
    await tap('None of the rest')
    await expect(page.getByRole('radio', { name: 'calm' })).toBeDisabled()
    await expect(page.getByRole('heading', { name: /^Postpone/ })).toBeVisible()
    // A day passes: the test was placed yesterday, and is read today.
    const visitId = await newestVisit(page, 'Sol Lanternhill')
    const { asked } = await ask<VisitPage>(page, 'GET', `/api/visits/${visitId}`)
    const patchTest = { ...asked.patchTest, placedAtMs: Date.now() - 25 * 3_600_000 }
    await ask(page, 'PUT', `/api/visits/${visitId}/asked`, { ...asked, patchTest })
    await page.reload()
    await word(page, 'What the patch test shows', 'calm').tap()
    await expect(page.getByRole('heading', { name: 'Go.', exact: true })).toBeVisible()
    await sign(page)

    await page.getByRole('link', { name: 'Read the grain' }).tap()
    // The head stays from station to station; it has its place once the new one stands.
    await expect(page.getByRole('tab', { name: 'Grain' })).toBeVisible()
    await headReady(page)
    // A finger drawn over the forehead, as the browser's own touch events.
    const cdp = await page.context().newCDPSession(page)
    const touch = async (
      type: 'touchStart' | 'touchMove' | 'touchEnd',
      points: { x: number; y: number; id?: number }[],
    ) => cdp.send('Input.dispatchTouchEvent', { type, touchPoints: points })
    const from = await onHead(page, 0.5, 0.24)
    await touch('touchStart', [from])
    for (let i = 1; i <= 6; i++) await touch('touchMove', [{ x: from.x, y: from.y + 6 * i }])
    await touch('touchEnd', [])
    await expect(page.getByRole('heading', { name: 'Forehead, middle' })).toBeVisible()
    await expect(page.getByText(/^grows down/)).toBeVisible()
    // Two fingers turn the head and leave the map alone.
    const a = await onHead(page, 0.4, 0.5)
    const b = await onHead(page, 0.6, 0.5)
    await touch('touchStart', [
      { ...a, id: 1 },
      { ...b, id: 2 },
    ])
    for (let i = 1; i <= 5; i++)
      await touch('touchMove', [
        { x: a.x - 15 * i, y: a.y, id: 1 },
        { x: b.x - 15 * i, y: b.y, id: 2 },
      ])
    await touch('touchEnd', [])
    await expect(
      page.getByRole('group', { name: 'Views of the head' }).locator('[aria-pressed=true]'),
    ).toHaveCount(0)
    await expect(page.getByRole('heading', { name: 'Forehead, middle' })).toBeVisible()

    await readAll(page, visitId, 'dermaplane')
    await withoutWebGL(page)
    await page.reload()
    await page.getByRole('button', { name: /^Plan/ }).tap()
    await expect(page.getByText('across', { exact: true })).toHaveCount(0)
    await tap(/Keep this plan/)
    await tap('To the chair')
    const steps = await stepCount(page)
    const go = page.getByTestId('chair-go')
    const onward = async () => {
      await go.tap()
      await page.waitForTimeout(300)
    }
    await begin(page, onward)
    for (let i = 1; i <= steps; i++) {
      await expect(count(page)).toContainText(`step ${i} of ${steps}`)
      // A fresh blade of each kind is opened before its first stroke.
      if ((await go.textContent())!.includes('Fresh blade')) await onward()
      if (i < steps) await onward()
    }
    await onward()
    await expect(page.getByRole('heading', { name: 'Blades away' })).toBeVisible()
    for (let i = 0; i < 3; i++) await onward()
    await expect(page.getByText('School: None for 48 h.')).toBeVisible()
    await page.getByRole('link', { name: /^Return/ }).tap()
    await expect(page.getByText('All clear.', { exact: false })).toBeVisible()
  })
})

test('a new client with a face shave, by keyboard alone', async ({ page }) => {
  const key = (k: string) => page.keyboard.press(k)
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Tobias Arkwell' })).toBeVisible()
  await key('n')
  await expect(page.getByLabel(/^Name/).first()).toBeFocused()
  await page.keyboard.type('Kit Harbourmaster')
  await key('Enter')
  await expect(page.getByRole('heading', { name: '18 questions are open.' })).toBeVisible()
  await tabTo(page, 'None of the rest')
  await key('Enter')
  await expect(page.getByRole('heading', { name: 'Go.', exact: true })).toBeVisible()
  // Of tabs, and of words side by side, one stands in the order of Tab; arrows lead to the others.
  await tabTo(page, /^Questions$/, 'tab')
  await key('ArrowRight')
  await key('ArrowRight')
  await expect(page.getByRole('tab', { name: 'Skin' })).toHaveAttribute('aria-selected', 'true')
  await tabTo(page, /^(tough|average|reactive)$/)
  const reactive = page.getByRole('radio', { name: 'reactive' })
  for (let i = 0; i < 3 && !(await reactive.isChecked()); i++) {
    await key('ArrowRight')
    // What is chosen is drawn before it is looked at.
    await page.waitForTimeout(200)
  }
  await expect(reactive).toBeChecked()
  // Signed by hand; this once it was agreed by word of mouth, and the worker says so.
  await tabTo(page, 'I have seen it and decide')
  await key('Enter')
  await page.keyboard.type('hand in a sling, agreed aloud')
  await key('Enter')
  await tabTo(page, 'Read the grain')
  await key('Enter')
  await headReady(page)
  await tabTo(page, "Lower neck, client's left")
  await key('Enter')
  await expect(page.getByText(/may grow up/)).toBeVisible()
  await key(']')
  await key(']')
  await expect(page.getByText(/^grows up/)).toBeVisible()
  await key(']')
  await expect(page.getByText(/^grows up and/)).toBeVisible()
  await key('m')
  await expect(page.getByRole('heading', { name: "Lower neck, client's right" })).toBeVisible()
  await expect(page.getByText(/^grows up and/)).toBeVisible()
  await key('z')
  await expect(page.getByText(/may grow up/)).toBeVisible()
  await key('Shift+Z')
  await expect(page.getByText(/^grows up and/)).toBeVisible()
  await key('4')
  await expect(page.getByRole('button', { name: /Under chin/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await tabTo(page, /^Plan/)
  await key('Enter')
  await expect(page.getByRole('button', { name: /Keep this plan/ })).toBeVisible()
  // A key that comes in the very frame in which the button does may be too early.
  await expect(async () => {
    await key('k')
    await expect(page.getByText(/^Kept \d/)).toBeVisible({ timeout: 2000 })
  }).toPass()
  await tabTo(page, 'To the chair')
  await key('Enter')
  const steps = await stepCount(page)
  await begin(page)
  await press(page, 'PageDown')
  await expect(count(page)).toContainText(`step 2 of ${steps}`)
  await press(page, 'PageUp')
  await expect(count(page)).toContainText(`step 1 of ${steps}`)
  await key('s')
  await expect(page.getByRole('dialog', { name: 'Why is it skipped?' })).toBeVisible()
  await key('2')
  await expect(count(page)).toContainText(`step 2 of ${steps}`)
  await nearTheEnd(page, 'Kit Harbourmaster', steps - 3)
  let times = 0
  await toTheFinish(page, steps, () => press(page, times++ % 2 ? 'Space' : 'PageDown'))
  await expect(page.getByRole('heading', { name: 'Care' })).toBeVisible()
  await tabTo(page, /^Return/)
  await key('Enter')
  // The first look at the chair is the first answer.
  await expect(page.getByText('All clear.', { exact: false })).toBeVisible()
})
