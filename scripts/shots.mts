/** Takes the pictures of docs/screenshots/ from the demo studio, at 1280 × 800. */
import { mkdirSync, rmSync } from 'node:fs'
import { chromium, type Page } from '@playwright/test'
import type { ClientRow, VisitPage } from '../contract/types.ts'
import { RULES } from '../core/screening/rules.ts'
import { CHROMIUM } from '../e2e/chromium.ts'
import { serve } from '../e2e/server.ts'

const served = await serve({ demo: true })
const browser = await chromium.launch(CHROMIUM)
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: served.base })
mkdirSync('docs/screenshots', { recursive: true })

async function shot(name: string, on: Page = page): Promise<void> {
  await on.waitForLoadState('networkidle')
  await on.waitForTimeout(2200)
  await on.screenshot({ path: `docs/screenshots/${name}.png` })
  console.log(`docs/screenshots/${name}.png`)
}
const headDrawn = () => page.getByTestId('head').locator('canvas').waitFor()
const client = async (name: string) =>
  (
    (await (
      await page.request.get(`/api/clients?find=${encodeURIComponent(name)}`)
    ).json()) as ClientRow[]
  )[0]!.id
const openVisit = async (id: string) =>
  ((await (await page.request.get(`/api/clients/${id}`)).json()) as { currentVisitId: string })
    .currentVisitId

await page.goto('/')
await shot('today')
await page.goto('/clients')
await shot('clients')
await page.goto('/house')
await page.getByText('Learning the skin').click()
await shot('house')
await page.getByRole('button', { name: 'Rules of asking' }).click()
await shot('rules')

const toby = await client('Tobias')
await page.goto(`/clients/${await client('Liv Ostrander')}/ask`)
await shot('ask')
await page.goto(`/clients/${toby}/read`)
await headDrawn()
await page.getByRole('button', { name: "Lower neck, client's left" }).click()
await shot('read')
const visit = await openVisit(toby)
await page.request.put(`/api/visits/${visit}/asked`, {
  data: { answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])), spots: [] },
})
const marlow = await client('Marlow')
const ask = async (name: string) => {
  const id = await client(name)
  const open = await openVisit(id)
  await page.request.put(`/api/visits/${open}/asked`, {
    data: { answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])), spots: [] },
  })
  return id
}
// The plan of somebody who comes today, with the choice still open.
const corin = await ask('Corin')
await page.goto(`/clients/${corin}/plan`)
await headDrawn()
const idris = await ask('Idris')
await page.goto(`/clients/${idris}/plan`)
await headDrawn()
await page
  .getByRole('button', { name: /^Lower cheek.*client's left/ })
  .first()
  .click()
await shot('plan')
await page.goto(`/clients/${await ask('Petra')}/plan`)
await headDrawn()
await page.getByRole('button', { name: 'Compare' }).click()
await page.getByRole('button', { name: 'Show on the head' }).click()
await page.keyboard.press('5')
await shot('compare')
await page.goto(`/clients/${corin}/plan`)
await headDrawn()
await page.getByRole('button', { name: 'Time', exact: true }).click()
await page.keyboard.press('2')
await shot('time')
await page.goto(`/clients/${await ask('Juno')}/plan`)
await shot('body')
await page.goto(`/clients/${marlow}/cards/plan`)
await page.locator('.flat-label').first().waitFor()
await shot('plan-card')
const planned = (await (await page.request.put(`/api/visits/${visit}/plan`)).json()) as VisitPage
const send = (seq: number, kind: string, stepId?: string) =>
  page.request.post(`/api/visits/${visit}/events`, {
    data: {
      id: crypto.randomUUID(),
      seq,
      kind,
      atMs: Date.now() - (12 - seq) * 50_000,
      ...(stepId && { stepId }),
    },
  })
await send(1, 'started')
for (let i = 0; i < 9; i++) await send(i + 2, 'done', planned.plan!.steps[i]!.id)
await page.goto(`/clients/${toby}/chair`)
await shot('chair')
await page.goto(`/clients/${marlow}/care`)
await shot('care')
await page.goto(`/clients/${await client('Ansel')}/return`)
await shot('return')
const lamp = await browser.newContext({
  viewport: { width: 1280, height: 800 },
  baseURL: served.base,
})
await lamp.addInitScript(() => localStorage.setItem('mantine-color-scheme-value', 'dark'))
const dim = await lamp.newPage()
await dim.goto(`/clients/${toby}/chair`)
await shot('chair-by-lamp', dim)

await browser.close()
await served.kill()
rmSync(served.dir, { recursive: true, force: true })
