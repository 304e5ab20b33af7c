/** The house does not answer: what was seen today opens, what is entered is kept, and all of it arrives when it is back. */
import { appendFileSync, cpSync, rmSync } from 'node:fs'
import { expect as say, test as plain, type Page } from '@playwright/test'
import type { VisitPage } from '../contract/types.ts'
import { begin, count, press } from './chairHand.ts'
import { serve, type Served } from './server.ts'
import { ask, plannedClient } from './support.ts'

plain.use({ serviceWorkers: 'allow' })
const served: Served[] = []
plain.afterEach(async () => {
  for (const s of served.splice(0)) {
    await s.kill()
    rmSync(s.dir, { recursive: true, force: true })
  }
})
const start = async (more: { dir?: string; port?: string; web?: string } = {}) => {
  const s = await serve({ demo: false, ...more })
  served.push(s)
  return s
}
const band = (page: Page) => page.getByRole('banner')
/** Presses once more, until the screen says that it keeps a tap: a page opened this moment may not hear its keys yet. */
const pressKept = (page: Page) =>
  say(async () => {
    await press(page)
    const kept = page.getByText(/No connection/)
    await say(kept).toContainText(/\d+ taps? (is|are) kept on this screen/, { timeout: 5000 })
  }).toPass()
const keptHere = (page: Page, id: string) =>
  page.evaluate(
    async (visit) =>
      (await (await caches.open('slow-tide-pages')).keys()).some((r) =>
        r.url.endsWith(`/api/visits/${visit}`),
      ),
    id,
  )

plain(
  'with the house away the day’s clients open, the chair goes on after a reload, and nothing is lost',
  async ({ browser }) => {
    plain.setTimeout(300_000)
    const first = await start()
    const { port } = new URL(first.base)
    const context = await browser.newContext({ baseURL: first.base })
    const page = await context.newPage()
    const { client, visit } = await plannedClient(page, 'Odalys Keel')
    const other = await plannedClient(page, 'Ives Breakwater')
    const third = await plannedClient(page, 'Runa Wakefield')
    await page.goto('/')
    // Nobody has opened this client here; the screen fetches the day's pages by itself.
    for (const kept of [visit.id, third.visit.id])
      await say.poll(() => keptHere(page, kept)).toBe(true)
    const manifest = await page.request.get('/manifest.webmanifest')
    say((await manifest.json()) as object).toMatchObject({ display: 'standalone', start_url: '/' })
    await page.goto(`/clients/${other.client.id}/chair?flat`)
    await begin(page)
    const words = await count(page).textContent()
    const there = async (id: string) =>
      (await ask<VisitPage>(page, 'GET', `/api/visits/${id}`)).events.length
    const before = await there(other.visit.id)

    await first.kill('SIGKILL')
    await page.reload()
    await say(count(page)).toHaveText(words!)
    await pressKept(page)

    // A client whom this screen has never opened: it says what it cannot know, and the service begins.
    await page.goto(`/clients/${third.client.id}/chair?flat`)
    await say(page.getByRole('note').filter({ hasText: 'The house does not answer' })).toBeVisible()
    await begin(page)
    await pressKept(page)

    // What was tapped at the two chairs is told anywhere, on narrow screens too.
    await page.setViewportSize({ width: 1024, height: 768 })
    await page.goto(`/clients/${client.id}/ask?flat`)
    await say(band(page)).toContainText('House away: as of')
    await say(band(page).getByText(/not saved yet/)).toBeVisible()
    const sunburn = page.getByRole('button', { name: /sunburn.*(Not asked yet|No|Yes)/i })
    await sunburn.click()
    await say(band(page)).toContainText('not saved yet')
    // Two days later.
    await page.clock.install({ time: Date.now() + 2 * 86_400_000 })
    await page.reload()
    await say(page.getByRole('button', { name: /sunburn.*Yes/i })).toBeVisible()
    await page.goto('/')
    await say(page.getByRole('link', { name: 'Odalys Keel' })).toBeVisible()

    await start({ dir: first.dir, port })
    await page.goto(`/clients/${client.id}/ask?flat`)
    await say(band(page)).not.toContainText('not saved yet')
    await say(band(page)).not.toContainText('House away')
    const asked = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
    say(asked.asked.answers['sunburn']).toMatchObject({ yes: true })
    // Nobody opens those chairs again: what was tapped there arrives by itself.
    for (const [id, least] of [
      [other.visit.id, before],
      [third.visit.id, 1],
    ] as const) {
      await say.poll(() => there(id)).toBeGreaterThan(least)
      const now = await ask<VisitPage>(page, 'GET', `/api/visits/${id}`)
      say(now.events.map((e) => e.seq)).toEqual(now.events.map((_, i) => i + 1))
      say(now.state).toBe('running')
    }
    await say(band(page)).not.toContainText('not saved yet')
    await context.close()
  },
)

plain('a new version waits until no service runs in any tab', async ({ browser }) => {
  plain.setTimeout(300_000)
  const web = 'test-results/next-version'
  cpSync('dist/web', web, { recursive: true })
  const { base } = await start({ web })
  const context = await browser.newContext({ baseURL: base })
  const chair = await context.newPage()
  const { client } = await plannedClient(chair, 'Ives Breakwater')
  await chair.goto(`/clients/${client.id}/chair?flat`)
  await begin(chair)
  const today = await context.newPage()
  await today.goto('/')
  await today.waitForFunction(() => navigator.serviceWorker.controller !== null)
  // Opened a while ago: it does not load itself anew.
  await today.waitForTimeout(5500)
  const mark = (page: Page) => page.evaluate(() => ((window as { here?: true }).here = true))
  const marked = (page: Page) => page.evaluate(() => (window as { here?: true }).here === true)
  await mark(chair)
  await mark(today)
  appendFileSync(`${web}/sw.js`, '\n// The next version.\n')
  await today.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()))
  await today.getByRole('button', { name: 'Take the new version' }).click()
  await say(today.getByRole('button', { name: /the new version waits/ })).toBeVisible()
  say([await marked(chair), await marked(today)]).toEqual([true, true])
  // The client is left: its service stands still, and nobody follows it here.
  await chair.getByTestId('chair-name').click()
  await chair.getByRole('link', { name: /^Ask/ }).click()
  await chair.getByRole('link', { name: 'Today', exact: true }).click()
  await say(chair.getByTestId('today')).toBeVisible()
  await today.waitForTimeout(2500)
  // The button tells by itself that nothing runs any more; every tab is loaded anew.
  // The browser lets the worker of before end what it is at first.
  const anew = [today, chair].map((page) => page.waitForEvent('load', { timeout: 200_000 }))
  await today.getByRole('button', { name: 'Take the new version' }).click()
  await Promise.all(anew)
  say([await marked(today), await marked(chair)]).toEqual([false, false])
  await context.close()
  rmSync(web, { recursive: true, force: true })
})
