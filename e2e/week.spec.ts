/** The book: by mouse, by keys alone, by touch, on two screens at once. */
import type { Page } from '@playwright/test'
import type { BookedRow, Week } from '../contract/week.ts'
import type { House } from '../contract/types.ts'
import { addDays, dateAt, isClosed, offsetHere } from '../core/time/index.ts'
import { hourAt, momentAt } from '../core/week/index.ts'
import { randomUUID } from 'node:crypto'
import { ask, expect, test } from './support.ts'
import { oneJob } from '../core/services/index.ts'
import { skinToBegin } from '../core/client.ts'

/** Somebody of the test's own. */
async function somebody(page: Page, name: string): Promise<string> {
  const id = randomUUID()
  const texts = { calledName: '', pronouns: '', bornOn: '', occupation: '', phone: '', email: '' }
  await ask(page, 'POST', '/api/clients', {
    ...{ id, name, ...texts, note: '', service: 'face-shave', skin: skinToBegin('razor') },
  })
  return id
}

/** A day of its own for each test, weeks beyond what the demo has booked: of today's weekday, on which both work. */
async function farDay(page: Page, nth: number): Promise<{ date: string; house: House }> {
  const house = await ask<House>(page, 'GET', '/api/house')
  let date = addDays(dateAt(Date.now(), offsetHere), 42 + 7 * nth)
  while (isClosed(house.closed, date)) date = addDays(date, 1)
  return { date, house }
}
const lane = (page: Page, date: string, who: string) => page.getByTestId(`lane-${date}-${who}`)
const booked = async (page: Page, date: string, clientId: string): Promise<BookedRow> =>
  (await ask<Week>(page, 'GET', `/api/week?from=${date}&days=1`)).appointments.find(
    (a) => a.clientId === clientId,
  )!
const hour = (a: BookedRow) => hourAt(a.startMs, offsetHere)

/** Books somebody by the wire. */
async function book(page: Page, date: string, clientId: string, at: number): Promise<BookedRow> {
  const { workerId } = await ask<House>(page, 'GET', '/api/house')
  return ask<BookedRow>(page, 'POST', '/api/appointments', {
    ...{ id: randomUUID(), clientId, workerId, minutes: 60, note: '' },
    ...{ startMs: momentAt(date, at, offsetHere), jobs: [oneJob(randomUUID(), 'face-shave')] },
  })
}

test('an hour is tapped, given to somebody, dragged to another worker, drawn longer, taken back, cancelled', async ({
  page,
}) => {
  const { date } = await farDay(page, 0)
  const clientId = await somebody(page, 'Sheet Bend')
  await page.goto(`/week?view=day&from=${date}`)
  const ines = (await lane(page, date, 'Ines').boundingBox())!
  // The lane goes from nine to six: ten o'clock is a ninth along.
  await page.mouse.click(ines.x + ines.width / 9, ines.y + 60)
  const adding = page.getByRole('region', { name: 'A new appointment' })
  await expect(adding.getByRole('heading', { name: /10:00$/ })).toBeVisible()
  await adding.getByRole('combobox', { name: 'Who comes' }).fill('Sheet')
  await page.getByRole('option', { name: 'Sheet Bend' }).click()
  await expect(adding.getByText(/The service takes about \d+ min/)).toBeVisible()
  await adding.getByRole('button', { name: /^Book 10:00/ }).click()
  const bar = page.getByRole('button', { name: /^Sheet Bend, Hot-towel face shave/ })
  await expect(bar).toBeVisible()
  expect(hour(await booked(page, date, clientId))).toBe(10)

  const joren = (await lane(page, date, 'Joren').boundingBox())!
  const box = (await bar.boundingBox())!
  await page.mouse.move(box.x + 10, box.y + 10)
  await page.mouse.down()
  for (let i = 1; i <= 6; i++)
    await page.mouse.move(
      box.x + 10 + (ines.width / 9) * (i / 6),
      box.y + 10 + ((joren.y - ines.y) * i) / 6,
    )
  await page.mouse.up()
  await expect(bar).toHaveAccessibleName(/11:00 to .*Joren/)
  await expect.poll(async () => hour(await booked(page, date, clientId))).toBe(11)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(bar).toHaveAccessibleName(/10:00 to .*Ines/)

  const before = await booked(page, date, clientId)
  const grip = (await page
    .getByRole('button', { name: 'Draw it longer or shorter' })
    .boundingBox())!
  await page.mouse.move(grip.x + 6, grip.y + 10)
  await page.mouse.down()
  for (let i = 1; i <= 4; i++)
    await page.mouse.move(grip.x + 6 + (ines.width / 18) * (i / 4), grip.y + 10)
  await page.mouse.up()
  await expect
    .poll(async () => (await booked(page, date, clientId)).minutes)
    .toBe(before.minutes + 30)

  await page.keyboard.press('Delete')
  const chosen = page.getByRole('region', { name: 'Sheet Bend' })
  await expect(chosen.getByText('cancelled in time')).toBeVisible()
  await chosen.getByRole('button', { name: 'Book it again' }).click()
  await expect.poll(async () => (await booked(page, date, clientId)).state).toBe('booked')
})

// What the house refuses, the browser writes into its console as well.
test.use({ harmless: /status of (422|409)/ })

test('what cannot be goes back with its reason, and hours that work are offered', async ({
  page,
}) => {
  const { date } = await farDay(page, 1)
  const [one, other] = [await somebody(page, 'Reef Point'), await somebody(page, 'Clove Hitch')]
  await book(page, date, one, 10)
  await book(page, date, other, 14)
  await page.goto(`/week?view=day&from=${date}`)
  const bar = page.getByRole('button', { name: /^Clove Hitch/ })
  // Once it lies still: what is measured while the page settles is somewhere else when the hand gets there.
  await bar.hover()
  const ines = (await lane(page, date, 'Ines').boundingBox())!
  const box = (await bar.boundingBox())!
  await page.mouse.move(box.x + 10, box.y + 10)
  await page.mouse.down()
  for (let i = 1; i <= 6; i++)
    await page.mouse.move(box.x + 10 - (ines.width * 3.5 * i) / 54, box.y + 10)
  await page.mouse.up()
  await expect(page.getByText(/Ines has somebody from .*Nothing was changed/)).toBeVisible()
  await expect(bar).toHaveAccessibleName(/14:00 to 15:00/)
  // Given by the form it is told before, with hours to tap.
  await page.keyboard.press('n')
  const adding = page.getByRole('region', { name: 'A new appointment' })
  await adding.getByRole('combobox', { name: 'Who comes' }).fill('Clove')
  await page.getByRole('option', { name: 'Clove Hitch' }).click()
  await expect(adding.getByText(/Ines has somebody/)).toBeVisible()
  await expect(adding.getByRole('button', { name: /^Book/ })).toBeDisabled()
  await adding.getByRole('note').getByRole('button').first().click()
  await expect(adding.getByRole('button', { name: /^Book/ })).toBeEnabled()
})

test('by keys alone: somebody is given an hour, moved, drawn longer, given to the other, confirmed', async ({
  page,
}) => {
  const { date } = await farDay(page, 2)
  const clientId = await somebody(page, 'Bowline Keys')
  await page.goto(`/week?view=week&from=${date}`)
  await expect(page.getByRole('heading', { name: 'Who the week wants' })).toBeVisible()
  await page.keyboard.press('1')
  await expect(page.getByRole('button', { name: 'Print the day' })).toBeVisible()
  await page.keyboard.press('n')
  await page.getByRole('combobox', { name: 'Who comes' }).focus()
  await page.keyboard.type('Bowline')
  await expect(page.getByRole('option')).toHaveText(['Bowline Keys'])
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  const go = page.getByRole('button', { name: /^Book 10:00/ })
  await expect(go).toBeEnabled()
  await go.focus()
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await booked(page, date, clientId))?.state).toBe('booked')
  const { minutes, workerId } = await booked(page, date, clientId)
  await page.keyboard.press('Escape')
  await page.keyboard.press('.')
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('w')
  await expect.poll(async () => hour(await booked(page, date, clientId))).toBe(10.25)
  const moved = await booked(page, date, clientId)
  expect(moved.minutes).toBe(minutes + 5)
  expect(moved.workerId).not.toBe(workerId)
  await page.keyboard.press('c')
  await expect.poll(async () => (await booked(page, date, clientId)).state).toBe('confirmed')
  await page.keyboard.press('z')
  await expect.poll(async () => (await booked(page, date, clientId)).state).toBe('booked')
})

test('a week is proposed, dashed until it is taken, with its reasons and how good it is', async ({
  page,
}) => {
  await page.goto('/week?view=four')
  await expect(page.getByRole('heading', { name: 'Who the week wants' })).toBeVisible()
  await page.keyboard.press('p')
  const panel = page.getByRole('region', { name: 'Proposals' })
  await expect(
    panel.getByText(/^(The best possible|Within [\d.]+ % of the best possible)/),
  ).toBeVisible()
  const first = panel.getByRole('button', { name: /^Take (?!all)/ }).first()
  const name = (await first.getAttribute('aria-label'))!.slice('Take '.length)
  await expect(page.getByRole('img', { name: `Proposed: ${name}` })).toBeVisible()
  await panel.getByRole('button', { name: 'Why then' }).first().click()
  await expect(panel.getByText(/hair seen with .* skin clear with /)).toBeVisible()
  await first.click()
  await expect(page.getByText(`${name} is booked:`)).toBeVisible()
  await expect(page.getByRole('img', { name: `Proposed: ${name}` })).toHaveCount(0)
  await expect(page.getByRole('img', { name: `${name},` }).first()).toBeVisible()
  // Taken back, they are wanted again.
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await panel.getByRole('button', { name: 'Close' }).click()
  await expect(
    page.getByRole('region', { name: 'Who the week wants' }).getByText(name),
  ).toBeVisible()
})

test('two screens move the same at once: one wins, the other is told', async ({
  page,
  browser,
}) => {
  const { date } = await farDay(page, 3)
  const clientId = await somebody(page, 'Two Half Hitches')
  const made = await book(page, date, clientId, 10)
  await page.goto(`/week?view=day&from=${date}`)
  await page.getByRole('button', { name: /^Two Half Hitches/ }).click()
  const context = await browser.newContext()
  const other = await context.newPage()
  await other.goto(`${process.env['SLOW_TIDE_BASE']}/week?view=day&from=${date}`)
  await other.getByRole('button', { name: /^Two Half Hitches/ }).click()
  // Neither has heard of the other when both send.
  await Promise.all([page.keyboard.press('ArrowRight'), other.keyboard.press('ArrowLeft')])
  const told = /has changed this appointment meanwhile: it is at .* That stands; yours was not kept/
  await Promise.any([page, other].map((p) => expect(p.getByText(told)).toBeVisible()))
  const now = await booked(page, date, clientId)
  expect(now.mark).toBe(made.mark + 1)
  expect(Math.abs(hour(now) - 10)).toBeCloseTo(5 / 60, 6)
  await context.close()
})

test.describe('by touch', () => {
  test.use({ hasTouch: true, viewport: { width: 1024, height: 768 } })
  test('a lane is tapped, an hour given, and a finger that rests drags it', async ({ page }) => {
    const { date } = await farDay(page, 4)
    const clientId = await somebody(page, 'Touch Line')
    await book(page, date, clientId, 10)
    await page.goto(`/week?view=day&from=${date}`)
    const ines = (await lane(page, date, 'Ines').boundingBox())!
    const bar = page.getByRole('button', { name: /^Touch Line/ })
    const box = (await bar.boundingBox())!
    const cdp = await page.context().newCDPSession(page)
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x?: number) =>
      cdp.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: x === undefined ? [] : [{ x, y: box.y + 12 }],
      })
    await touch('touchStart', box.x + 12)
    await page.waitForTimeout(350)
    for (let i = 1; i <= 6; i++) await touch('touchMove', box.x + 12 + (ines.width * 4 * i) / 54)
    await touch('touchEnd')
    await expect.poll(async () => hour(await booked(page, date, clientId))).toBe(14)
    await bar.tap()
    await page.getByRole('button', { name: 'Arrived' }).tap()
    await expect.poll(async () => (await booked(page, date, clientId)).state).toBe('arrived')
  })
})

test('a free hour is offered, and taken on a phone without script; the other is told that it is gone', async ({
  page,
  browser,
}) => {
  const { date } = await farDay(page, 6)
  const names = ['Cat Paw', 'Round Turn']
  const ids: string[] = []
  for (const name of names) {
    const clientId = await somebody(page, name)
    ids.push(clientId)
    await ask(page, 'POST', '/api/waiting', {
      ...{ id: randomUUID(), clientId, note: '', jobs: [oneJob(randomUUID(), 'face-shave')] },
      wishes: { days: [], fromHour: 10, toHour: null, workerId: null },
    })
  }
  const gone = await book(page, date, await somebody(page, 'Gives Back'), 11)
  await page.goto(`/week?view=day&from=${date}`)
  await page.getByRole('button', { name: /^Gives Back, / }).click()
  await page.getByRole('button', { name: 'Cancel it' }).click()
  await page.getByRole('button', { name: 'Offer the hour' }).click()
  const panel = page.getByRole('region', { name: 'A free hour' })
  const rows = panel.getByRole('checkbox')
  await expect(panel.getByRole('checkbox', { name: /^Cat Paw/ })).toBeVisible()
  // Only these two, whoever else would gain.
  for (const row of await rows.all()) await row.uncheck()
  for (const name of names)
    await panel.getByRole('checkbox', { name: new RegExp(`^${name}`) }).check()
  await panel.getByRole('button', { name: /messages into the outbox/ }).click()
  await expect(page.getByText(/messages are in the outbox/)).toBeVisible()
  await page.getByText('Waiting', { exact: true }).click()
  await expect(page.getByRole('region', { name: 'Hours offered' })).toContainText(/asked, open/)

  interface Sent {
    clientId: string
    kind: string
    text: string
  }
  const messages = await ask<Sent[]>(page, 'GET', '/api/messages')
  const linkOf = (id: string) =>
    /here: (\S+)/.exec(messages.find((m) => m.clientId === id && m.kind === 'offer')!.text)![1]!
  const phone = await browser.newContext({
    viewport: { width: 390, height: 760 },
    javaScriptEnabled: false,
  })
  const [first, second] = [await phone.newPage(), await phone.newPage()]
  await first.goto(linkOf(ids[0]!))
  await second.goto(linkOf(ids[1]!))
  await first.getByRole('button', { name: 'Take it' }).click()
  await expect(first.getByRole('heading', { name: 'It is yours' })).toBeVisible()
  await second.getByRole('button', { name: 'Take it' }).click()
  await expect(second.getByRole('heading', { name: 'That hour is gone' })).toBeVisible()
  const own = await booked(page, date, ids[0]!)
  expect([own.state, own.changedBy]).toEqual(['booked', 'The client'])
  expect(own.id).not.toBe(gone.id)
  await phone.close()
})
