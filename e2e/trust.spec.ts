/** Saved means saved, and nobody in who does not belong: with a server that goes away, a foreign one in its place, and hostile pages. */
import { createServer, type Server } from 'node:http'
import { rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { chromium, expect as say, test as plain, type Page } from '@playwright/test'
import type { ClientRows, Session, VisitPage } from '../contract/types.ts'
import { CHROMIUM_FLAT } from './chromium.ts'
import { begin, press } from './chairHand.ts'
import { serve, type Served } from './server.ts'
import { ask, plannedClient } from './support.ts'

const served: Served[] = []
const servers: Server[] = []
plain.afterEach(async () => {
  for (const s of served.splice(0)) {
    await s.kill()
    rmSync(s.dir, { recursive: true, force: true })
  }
  for (const s of servers.splice(0)) s.close()
})
const start = async (dir?: string, port?: string) => {
  const s = await serve({ demo: false, ...(dir && { dir }), ...(port && { port }) })
  served.push(s)
  return s
}

plain(
  'seven tabs on one service: one stream for all, each hears of it, and pages still open',
  async ({ browser }) => {
    const { base } = await start()
    const context = await browser.newContext({ baseURL: base })
    const chair = await context.newPage()
    const { client, visit } = await plannedClient(chair, 'Ives Breakwater')
    const streams = new Set<string>()
    context.on('request', (r) => r.url().includes('/api/follow') && streams.add(r.url()))
    await chair.goto(`/clients/${client.id}/chair?flat`)
    const walls: Page[] = []
    for (let i = 0; i < 6; i++) {
      const wall = await context.newPage()
      await wall.goto(`/clients/${client.id}/wall?flat`)
      walls.push(wall)
    }
    await begin(chair)
    for (const wall of walls) await say(wall.getByText(/step 1 of/).first()).toBeVisible()
    // Browsers hold six connections to a house: with a stream a tab nothing more would be answered.
    const one = await context.newPage()
    await one.goto('/')
    await say(one.getByRole('link', { name: 'Ives Breakwater' })).toBeVisible()
    say((await ask<VisitPage>(one, 'GET', `/api/visits/${visit.id}`)).state).toBe('running')
    await context.close()
  },
)

plain(
  'a tap while the server is away is counted, survives a foreign server, and is saved when it is back',
  async ({ browser }) => {
    const first = await start()
    const { port } = new URL(first.base)
    const page = await browser.newPage({ baseURL: first.base })
    const { client, visit } = await plannedClient(page, 'Ives Breakwater')
    // The chair's own part of the program is fetched when it is first opened.
    await page.goto(`/clients/${client.id}/chair?flat`)
    await say(page.getByTestId('chair-go')).toBeEnabled()
    await page.getByTestId('chair-name').click()
    await page.getByRole('link', { name: /^Ask/ }).click()
    const sunburn = page.getByRole('button', { name: /sunburn.*(Not asked yet|No|Yes)/i })
    await say(sunburn).toBeVisible()
    await first.kill('SIGKILL')
    await sunburn.click()
    const band = page.getByRole('banner').getByRole('status')
    await say(band).toHaveText('1 not saved yet')
    await page.getByRole('button', { name: 'What?' }).click()
    await say(page.getByRole('dialog')).toContainText('what was asked')
    await page.keyboard.press('Escape')
    // Another program takes the port and knows nothing of it.
    let foreign = 0
    const other = createServer((_request, response) => {
      foreign++
      response
        .writeHead(404, { 'Content-Type': 'application/json' })
        .end('{"status":404,"code":"not-found","detail":"x"}')
    })
    servers.push(other)
    await new Promise<void>((go) => other.listen(Number(port), '127.0.0.1', go))
    await say.poll(() => foreign).toBeGreaterThan(1)
    await say(band).toHaveText('1 not saved yet')
    other.closeAllConnections()
    await new Promise((gone) => other.close(gone))
    // What depends on it waits with it.
    await page.getByRole('link', { name: 'Chair' }).click()
    await say(page.getByTestId('chair-go')).toBeDisabled()
    await say(page.getByTestId('chair-go')).toHaveAttribute(
      'title',
      /Not saved yet: what was asked/,
    )
    await page.goBack()
    await start(first.dir, port)
    await say(band).toHaveText(/^Saved/)
    const kept = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
    say(kept.asked.answers['sunburn']?.yes).toBe(true)
    await page.close()
  },
)

plain(
  'a house begins with its owner; figures lock and unlock a screen by keyboard, and a service goes on under the lock',
  async ({ browser }) => {
    const s = await start()
    const page = await browser.newPage({ baseURL: s.base })
    await page.goto('/')
    await page.getByLabel('What is the house called?').fill('Lantern Quay')
    await page.keyboard.press('Tab')
    await page.keyboard.type('Ines Marchetti-Roe')
    await page.getByLabel('Your figures, or a passphrase').fill('12')
    await page.keyboard.press('Enter')
    await say(page.getByText(/Four to twelve figures, or a passphrase of 8/)).toBeVisible()
    await page.getByLabel('Your figures, or a passphrase').fill('4821')
    await page.keyboard.press('Enter')
    await say(page.getByRole('button', { name: 'Add the first client' })).toBeVisible()
    const { client } = await plannedClient(page, 'Una Slipway')
    await page.goto(`/clients/${client.id}/chair?flat`)
    await begin(page)
    await page.request.post('/api/session/lock', { data: {} })
    await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')))
    await press(page)
    await page.goto('/')
    await say(page.getByRole('heading', { name: 'Who is it?' })).toBeVisible()
    await say(page.getByText('Una Slipway')).toHaveCount(0)
    await page.keyboard.type('0000')
    await page.keyboard.press('Enter')
    await say(page.getByText('Those are not the figures')).toBeVisible()
    for (const key of ['4', '8', '2', '1'])
      await page.getByRole('button', { name: key, exact: true }).click()
    await page.getByRole('button', { name: 'Come in' }).click()
    await say(page.getByRole('link', { name: 'Una Slipway' })).toBeVisible()
    await page.close()
  },
)

/** A page of somebody else's, on another port of this machine. */
async function hostilePage(html: (base: string) => string, base: string): Promise<string> {
  const server = createServer((_request, response) => {
    response.writeHead(200, { 'Content-Type': 'text/html' }).end(html(base))
  })
  servers.push(server)
  await new Promise<void>((go) => server.listen(0, '127.0.0.1', go))
  return `http://localhost:${(server.address() as AddressInfo).port}/`
}

plain(
  'a page elsewhere cannot write by a form or by script, show a picture, or frame the house',
  async ({ browser }) => {
    const s = await start()
    const page = await browser.newPage({ baseURL: s.base })
    const { visit } = await plannedClient(page, 'Una Slipway')
    const seen: string[] = []
    const there = await hostilePage(
      (
        base,
      ) => `<form id="f" method="post" enctype="text/plain" action="${base}/api/clients" target="t"><input name='{"id":"a' value='"}'></form>
      <iframe name="t"></iframe><iframe id="framed" src="${base}/"></iframe>
      <img id="p" src="${base}/api/photos/${visit.id}">
      <script>
        f.submit()
        fetch('${base}/api/clients').then(() => (window.read = 'opaque or read'), () => (window.read = 'refused'))
        fetch('${base}/api/visits/${visit.id}/plan', { method: 'PUT', mode: 'no-cors' }).catch(() => 0)
      </script>`,
      s.base,
    )
    page.on('response', (r) => seen.push(`${r.status()} ${new URL(r.url()).pathname}`))
    page.on('requestfailed', (r) => seen.push(`blocked ${new URL(r.url()).pathname}`))
    await page.goto(there)
    await say
      .poll(() => page.evaluate(() => (window as unknown as { read: string }).read))
      .toBe('refused')
    // The form's own write, the picture, and the house in a frame.
    for (const what of ['403 /api/clients', `blocked /api/photos/${visit.id}`, 'blocked /'])
      await say.poll(() => seen).toContain(what)
    await page.goto(s.base)
    const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
    say(after.planMadeAtMs).toBe(visit.planMadeAtMs)
    say((await ask<ClientRows>(page, 'GET', '/api/clients')).rows).toHaveLength(1)
    await page.close()
  },
)

plain('a page under another name that resolves here is not answered', async () => {
  const s = await start()
  const { port } = new URL(s.base)
  const browser = await chromium.launch({
    ...CHROMIUM_FLAT,
    args: [...CHROMIUM_FLAT.args, '--host-resolver-rules=MAP rebound.example 127.0.0.1'],
  })
  try {
    const page: Page = await browser.newPage()
    const r = await page.goto(`http://rebound.example:${port}/`)
    say(r!.status()).toBe(421)
    const told = await page.evaluate(async () => {
      const list = await fetch('/api/clients')
      const made = await fetch('/api/clients', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: '{}',
      })
      return [list.status, made.status]
    })
    say(told).toEqual([421, 421])
    const session = (await (await fetch(`${s.base}/api/session`)).json()) as Session
    say(session.mode).toBe('first-run')
  } finally {
    await browser.close()
  }
})
