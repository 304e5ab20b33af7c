/** What a worker waits for at the screen: Plan opened from Read, a plan kept, Read on a slow tablet; the longest task meanwhile. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Browser, Page } from '@playwright/test'
import { skinToBegin } from '../core/client.ts'
import { plannedOver } from '../server/testing/overTheWire.ts'

type Figure = (name: string, value: number, unit: string) => void

const RUNS = 3
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!
const VIEW = { viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' } as const

async function timed(work: () => Promise<void>): Promise<number> {
  const began = performance.now()
  await work()
  return performance.now() - began
}

/** Keeps the length of the longest main-thread task of a page from now on. */
const watchTasks = (page: Page) =>
  page.addInitScript(`
    window.longest = 0
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration)
    }).observe({ type: 'longtask' })`)

const headDrawn = (page: Page) => page.locator('[data-testid=head] canvas').waitFor()
const planShown = (page: Page) =>
  page
    .locator('main h1')
    .filter({ hasText: /\d+ min/ })
    .waitFor()

export async function pageFigures(browser: Browser, base: string, figure: Figure): Promise<void> {
  const ready: number[] = []
  const cold: number[] = []
  const keep: number[] = []
  const tasks: number[] = []
  for (let i = 0; i < RUNS; i++) {
    const { id, clientId } = await plannedOver(base)
    const context = await browser.newContext(VIEW)
    const page = await context.newPage()
    await watchTasks(page)
    const at = (station: string) => `${base}/clients/${clientId}/${station}?visit=${id}`
    await page.goto(at('read'))
    await headDrawn(page)
    // So long does anybody look before going on.
    await page.waitForTimeout(4000)
    page.setDefaultTimeout(9000)
    await page.evaluate('window.longest = 0')
    const strip = page.getByRole('navigation', { name: 'Stations' })
    await strip.getByRole('link', { name: /^Plan/ }).click({ trial: true })
    ready.push(
      await timed(async () => {
        await strip.getByRole('link', { name: /^Plan/ }).click()
        await planShown(page)
      }),
    )
    tasks.push(await page.evaluate<number>('window.longest'))
    const other = page.getByRole('button', { name: /^(Gentlest|Closest)/, pressed: false })
    await other.locator('visible=true').and(page.locator(':enabled')).first().click()
    const again = page.getByRole('button', { name: /^(Plan again|Keep this plan)/ })
    await again.and(page.locator(':enabled')).waitFor()
    keep.push(
      await timed(async () => {
        await again.click()
        await again.waitFor({ state: 'detached' })
      }),
    )
    await context.close()
    const fresh = await browser.newContext(VIEW)
    const direct = await fresh.newPage()
    cold.push(
      await timed(async () => {
        await direct.goto(at('plan'))
        await planShown(direct)
      }),
    )
    await fresh.close()
  }
  figure('web.plan.ready_ms', median(ready), 'ms, from Read')
  figure('web.plan.cold_ms', median(cold), 'ms, its address opened anew')
  figure('web.plan.keep_ms', median(keep), 'ms until it shows as kept')
  figure('web.plan.longest_task_ms', Math.max(...tasks), 'ms while Plan opens')
  await slowTablet(browser, base, figure)
  await strokeOnSlow(browser, base, figure)
  await manyClients(browser, base, figure)
  const bytes = readdirSync('dist/web/assets')
    .filter((f) => /^(head-.*\.bin|zones-.*)$/.test(f))
    .map((f) => gzipSync(readFileSync(join('dist/web/assets', f))).length)
  figure('web.head.kb', Math.max(...bytes) / 1024, 'kB gzip')
}

/** Read on a tablet of a quarter of the speed, over 1.6 Mbit/s with 150 ms: opened first, and again. */
async function slowTablet(browser: Browser, base: string, figure: Figure): Promise<void> {
  const { id, clientId } = await plannedOver(base)
  const context = await browser.newContext({ ...VIEW, viewport: { width: 1024, height: 768 } })
  const page = await context.newPage()
  const cdp = await context.newCDPSession(page)
  await cdp.send('Network.enable')
  await cdp.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 150,
    downloadThroughput: 1.6e6 / 8,
    uploadThroughput: 0.75e6 / 8,
  })
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  const open = () =>
    timed(async () => {
      await page.goto(`${base}/clients/${clientId}/read?visit=${id}`, { timeout: 60_000 })
      await headDrawn(page)
    })
  figure('web.read.slow_first_ms', await open(), 'ms, 4× CPU, 1.6 Mbit/s')
  await page.waitForTimeout(8000)
  figure('web.read.slow_again_ms', await open(), 'ms, 4× CPU, 1.6 Mbit/s, from what is kept')
  await context.close()
}

/** The longest task while a stroke is drawn on the head, at a quarter of the speed. */
async function strokeOnSlow(browser: Browser, base: string, figure: Figure): Promise<void> {
  const { id, clientId } = await plannedOver(base)
  const context = await browser.newContext(VIEW)
  const page = await context.newPage()
  await watchTasks(page)
  await page.goto(`${base}/clients/${clientId}/read?visit=${id}`)
  await headDrawn(page)
  await page.waitForTimeout(4000)
  const cdp = await context.newCDPSession(page)
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  const box = (await page.locator('[data-testid=head] canvas').boundingBox())!
  const at = (x: number, y: number) => [box.x + x * box.width, box.y + y * box.height] as const
  await page.mouse.move(...at(0.44, 0.64))
  // The zone under the hand is shown first; that is not the stroke.
  await page.waitForTimeout(1000)
  await page.evaluate('window.longest = 0')
  await page.mouse.down()
  for (let i = 1; i <= 12; i++) await page.mouse.move(...at(0.44 + i * 0.008, 0.64))
  const drawing = await page.evaluate<number>('window.longest')
  await page.mouse.up()
  await page.waitForTimeout(3000)
  figure('web.stroke.drawing_task_ms', drawing, 'ms, the longest while a stroke is drawn, 4× CPU')
  figure(
    'web.stroke.kept_task_ms',
    await page.evaluate<number>('window.longest'),
    'ms, the longest until it is kept, 4× CPU',
  )
  await context.close()
}

const MANY = 20_000

/** All clients, opened in a house that holds so many; and whether a row is blank while they are scrolled. */
async function manyClients(browser: Browser, base: string, figure: Figure): Promise<void> {
  const clients = Array.from({ length: MANY }, (_, i) => ({
    id: crypto.randomUUID(),
    name: `Bench ${String(i).padStart(5, '0')}`,
    service: 'face-shave',
    skin: skinToBegin('razor'),
  }))
  const told = await fetch(`${base}/api/imports`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: base },
    body: JSON.stringify({ id: crypto.randomUUID(), source: 'bench', clients }),
  })
  if (!told.ok) throw new Error(`The import was refused: ${await told.text()}`)
  const context = await browser.newContext(VIEW)
  const page = await context.newPage()
  await page.goto(`${base}/`)
  await page.waitForTimeout(3000)
  const rows = page.locator('tbody tr[aria-rowindex]')
  figure(
    'web.clients.open_20k_ms',
    await timed(async () => {
      await page.getByRole('navigation', { name: 'Places' }).getByText('Clients').click()
      await rows.first().waitFor()
    }),
    'ms, 20 000 clients',
  )
  // What stands in view right after each jump; a row that waits for its client says nothing.
  let blank = 0
  for (let i = 1; i <= 12; i++) {
    await page.mouse.move(640, 500)
    await page.mouse.wheel(0, 2400)
    await page.waitForTimeout(120)
    const empty = await rows.evaluateAll((all) => all.filter((r) => !r.textContent?.trim()).length)
    const any = await rows.count()
    if (any === 0 || empty > any / 2) blank++
  }
  figure('web.clients.blank_share', blank / 12, 'of jumps by 2 400 px, 0.12 s after')
  await context.close()
}
