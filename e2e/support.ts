/** What the browser tests share: a page that fails on console errors, and the hand on the head. */
import { oneJob, type ServiceId } from '../core/services/index.ts'
import type { KeepLine } from '../core/lines/index.ts'
import { BEARD_LINES, BROW_LINES } from '../core/testing/lines.ts'
import { consentText, RULES } from '../core/screening/index.ts'
import { readingsOf } from '../core/testing/readings.ts'
import { expect, test as plain, type Locator, type Page } from '@playwright/test'
import type { Client, ClientRow, ClientRows, House, VisitPage } from '../contract/types.ts'

/**
 * Lines of a software renderer that say nothing about the page; and a start that was refused because another test began
 * with the same worker in that moment.
 */
const HARMLESS =
  /GPU stall|THREE\.Clock|GroupMarkerNotSet|software WebGL|409 \(Conflict\) http:[^ ]*\/events$/

/** Errors in the console fail a test, but for those that it says are meant. */
export const test = plain.extend<{ quiet: void; harmless: RegExp | undefined }>({
  harmless: [undefined, { option: true }],
  baseURL: async ({}, use) => use(process.env['SLOW_TIDE_BASE']),
  quiet: [
    async ({ page, harmless }, use) => {
      const said: string[] = []
      page.on('console', (m) => {
        const text = `${m.text()} ${m.location().url}`
        if (m.type() !== 'error' || HARMLESS.test(text) || harmless?.test(text)) return
        said.push(text)
      })
      page.on('pageerror', (e) => said.push(e.message))
      await use()
      expect(said, 'console errors').toEqual([])
    },
    { auto: true },
  ],
})
export { expect }

export const head = (page: Page) => page.getByTestId('head')

/** Waits until the head is drawn. */
export async function headReady(page: Page): Promise<void> {
  await expect(head(page)).toBeVisible()
  await expect(head(page).locator('canvas, svg.head-flat').first()).toBeVisible()
  // The station beside it is fetched apart.
  await expect(page.getByRole('status', { name: 'Opening' })).toHaveCount(0)
}

/** Takes WebGL away from the next page on: what follows is told by the flat views, in half the time. */
export const withoutWebGL = (page: Page) =>
  page.addInitScript(() => {
    const get = HTMLCanvasElement.prototype.getContext
    HTMLCanvasElement.prototype.getContext = function (
      this: HTMLCanvasElement,
      kind: string,
      ...rest: unknown[]
    ) {
      return kind.startsWith('webgl')
        ? null
        : (get as (...a: unknown[]) => unknown).call(this, kind, ...rest)
    } as typeof get
  })

/** A point of the head: shares of the stage's width and height. */
export async function onHead(page: Page, x: number, y: number): Promise<{ x: number; y: number }> {
  const box = (await head(page).boundingBox())!
  return { x: box.x + x * box.width, y: box.y + y * box.height }
}

/** Draws from one place of the head to another with the mouse. */
export async function draw(
  page: Page,
  from: [number, number],
  to: [number, number],
): Promise<void> {
  const a = await onHead(page, ...from)
  const b = await onHead(page, ...to)
  await page.mouse.move(a.x, a.y)
  await page.mouse.down()
  for (let i = 1; i <= 8; i++) {
    await page.mouse.move(a.x + ((b.x - a.x) * i) / 8, a.y + ((b.y - a.y) * i) / 8)
  }
  await page.mouse.up()
}

/** Picks from a list that opens: by what is written, or by its place. */
export async function pickOne(
  at: Page | Locator,
  label: string | RegExp,
  option: string | RegExp | number,
): Promise<void> {
  const field = at
    .getByRole('combobox', { name: label })
    .or(at.getByRole('textbox', { name: label }))
  await field.first().click()
  const page = 'page' in at ? at.page() : at
  const list = page.getByRole('listbox').filter({ visible: true })
  const options = list.getByRole('option')
  await (
    typeof option === 'number' ? options.nth(option) : options.filter({ hasText: option }).first()
  ).click()
}

/** One of a few words side by side. */
export const word = (page: Page | Locator, of: string | RegExp, name: string | RegExp) =>
  page.getByRole('radiogroup', { name: of }).getByText(name, { exact: typeof name === 'string' })

/** A day that is typed into a field which opens a calendar: by its own button in it. */
export async function pickDay(page: Page, label: string | RegExp, day: Date): Promise<void> {
  await page.getByRole('button', { name: label }).first().click()
  const calendar = page.getByRole('dialog').last()
  const title = (d: Date) => d.toLocaleDateString('en-GB', { month: 'long', year: 'numeric' })
  for (
    let i = 0;
    i < 24 && !(await calendar.getByText(title(day), { exact: true }).isVisible());
    i++
  ) {
    const shown = new Date(
      `1 ${await calendar.locator('[data-calendar] button, button').nth(1).textContent()}`,
    )
    await calendar
      .getByRole('button', { name: shown > day ? 'The month before' : 'The month after' })
      .click()
  }
  await calendar
    .getByRole('button', {
      name: day.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' }),
    })
    .click()
}

/** Presses Tab until the focused control has the name. */
export async function tabTo(page: Page, name: string | RegExp, role?: string): Promise<void> {
  for (let i = 0; i < 150; i++) {
    const said = await page.evaluate((wanted) => {
      const e = document.activeElement as HTMLElement | null
      if (wanted && e?.getAttribute('role') !== wanted) return ''
      const label = (e as HTMLInputElement | null)?.labels?.[0]?.textContent
      return (e?.getAttribute('aria-label') ?? label ?? e?.textContent ?? '').trim()
    }, role)
    if (typeof name === 'string' ? said.startsWith(name) : name.test(said)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`Tab never reached "${name}".`)
}

/** Asks the server beside the page. */
/** Waits until the server has what was tapped: what is asked beside the page would come before it. */
async function allSaved(page: Page): Promise<void> {
  if (!page.url().startsWith('http')) return
  // A tap is on its way to the browser's own database for a moment before it is counted.
  await page.waitForTimeout(120)
  await expect(page.getByText(/\d+ not saved yet/)).toHaveCount(0)
}

export async function ask<T>(page: Page, method: string, path: string, body?: unknown): Promise<T> {
  await allSaved(page)
  // Only a connection that was closed as it was used again is tried anew.
  const r = await page.request.fetch(path, {
    method,
    maxRetries: 2,
    ...(body !== undefined && { data: body }),
  })
  expect(r.ok(), `${method} ${path}: ${r.status()}`).toBe(true)
  return (await r.json()) as T
}

export async function clientNamed(page: Page, name: string): Promise<ClientRow> {
  const { rows } = await ask<ClientRows>(
    page,
    'GET',
    `/api/clients?find=${encodeURIComponent(name)}`,
  )
  return rows[0]!
}

export const NO_TO_ALL = Object.fromEntries(RULES.map((r) => [r.id, { yes: false }]))

/** Reads every zone of a service beside the page. */
export async function readAll(page: Page, visitId: string, service: ServiceId): Promise<void> {
  const add = readingsOf(service, Date.now() - 60_000, () => crypto.randomUUID())
  await ask(page, 'POST', `/api/visits/${visitId}/readings`, { remove: [], add })
}

/** All asked, nothing found, and signed. */
export const askedAll = (service: ServiceId, answers: object = {}) => ({
  answers: { ...NO_TO_ALL, ...answers },
  spots: [],
  consent: {
    text: consentText([oneJob('', service)]),
    name: 'Signed Here',
    asGuardian: false,
    signedAtMs: Date.now() - 60_000,
    path: 'M10.0 60.0L60.0 40.0L120.0 60.0',
  },
})

/** Signs in the place of the tide line: who, and a stroke of the pen. */
export async function sign(page: Page): Promise<void> {
  const field = page.getByLabel(/^Field to sign in/)
  await field.scrollIntoViewIfNeeded()
  const box = (await field.boundingBox())!
  await page.mouse.move(box.x + 30, box.y + 40)
  await page.mouse.down()
  for (let i = 1; i <= 6; i++) await page.mouse.move(box.x + 30 + 22 * i, box.y + 40 + 5 * (i % 2))
  await page.mouse.up()
  const kept = page.waitForResponse((r) => r.url().endsWith('/asked') && r.ok())
  await page.getByRole('button', { name: 'Signed', exact: true }).click()
  await kept
  await page.getByRole('tab', { name: 'Consent' }).click()
  await expect(page.getByRole('img', { name: /^Signature of/ })).toBeVisible()
}

/** The usual lines that a service works along: those of the beard, or the edges of the brows. */
async function drawLines(page: Page, visitId: string, usual: readonly KeepLine[]): Promise<void> {
  const lines = usual.map((l) => ({ ...l, id: crypto.randomUUID(), drawnAtMs: Date.now() }))
  await ask(page, 'PUT', `/api/visits/${visitId}/notes`, {
    lines,
    keptZones: [],
    hair: {},
    strays: [],
  })
}

/**
 * A client with a visit that is asked, signed, read and planned, without the screens.
 * @param read false leaves the map to the guesses
 */
export async function plannedClient(
  page: Page,
  name: string,
  service: ServiceId = 'face-shave',
  read = true,
): Promise<{ client: Client; visit: VisitPage }> {
  const house = await ask<House>(page, 'GET', '/api/house')
  const fuzz = ['dermaplane', 'facial-razor', 'brow-tidy'].includes(service)
  const client = await ask<Client>(page, 'POST', '/api/clients', {
    id: crypto.randomUUID(),
    name,
    service,
    skin: {
      // Far from the house's limits, so that what the studio learns meanwhile does not change the plan.
      reactivity: 'tough',
      faceHair: fuzz ? 'fuzz' : 'beard',
      coarseness: 'medium',
      curl: 'straight',
      bumpProne: false,
    },
  })
  const id = crypto.randomUUID()
  await ask(page, 'POST', `/api/clients/${client.id}/visits`, {
    id,
    jobs: [oneJob(crypto.randomUUID(), service)],
    workerId: house.workerId,
    slotAtMs: Date.now(),
  })
  await ask(page, 'PUT', `/api/visits/${id}/asked`, askedAll(service))
  if (read) await readAll(page, id, service)
  if (service === 'beard-line') await drawLines(page, id, BEARD_LINES)
  if (service === 'brow-tidy') await drawLines(page, id, BROW_LINES)
  return { client, visit: await ask<VisitPage>(page, 'PUT', `/api/visits/${id}/plan`) }
}
