/** Takes the pictures of docs/screenshots/ from the demo studio, at 1280 × 800. */
import { mkdirSync, rmSync } from 'node:fs'
import { chromium, type Page } from '@playwright/test'
import type { ClientPage, ClientRows, VisitPage } from '../contract/types.ts'
import { RULES } from '../core/screening/index.ts'
import { CHROMIUM } from '../e2e/chromium.ts'
import { workAhead } from '../e2e/chairHand.ts'
import { serve } from '../e2e/server.ts'

const served = await serve({ demo: true })
const browser = await chromium.launch(CHROMIUM)
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: served.base })
mkdirSync('docs/screenshots', { recursive: true })

/** Names of pictures that are wanted; all when none is named. */
const only = process.argv.slice(2)

async function shot(name: string, on: Page = page): Promise<void> {
  if (only.length > 0 && !only.includes(name)) return
  // A screen at the chair keeps its stream open: there the network never rests.
  await on.waitForLoadState('networkidle', { timeout: 4000 }).catch(() => undefined)
  await on.waitForTimeout(2200)
  await on.screenshot({ path: `docs/screenshots/${name}.png` })
  console.log(`docs/screenshots/${name}.png`)
}
const headDrawn = () => page.getByTestId('head').locator('canvas').waitFor()
const client = async (name: string) =>
  (
    (await (
      await page.request.get(`/api/clients?find=${encodeURIComponent(name)}`)
    ).json()) as ClientRows
  ).rows[0]!.id
const openVisit = async (id: string) =>
  ((await (await page.request.get(`/api/clients/${id}`)).json()) as { currentVisitId: string })
    .currentVisitId

await page.goto('/')
await shot('today')
await page.goto('/week')
await page.getByRole('heading', { name: 'Who the week wants' }).waitFor()
await page.keyboard.press('p')
await page.getByRole('region', { name: 'Proposals' }).waitFor()
await shot('week')
await page.goto('/clients')
await shot('clients')
await page.goto('/house/hours')
await shot('house')

const toby = await client('Tobias')
await page.goto(`/clients/${await client('Liv Ostrander')}/ask`)
await shot('ask')
await page.goto(`/clients/${toby}/read`)
await headDrawn()
await page.getByRole('button', { name: "Lower neck, client's left" }).click()
await shot('read')
const visit = await openVisit(toby)
/** All asked anew, nothing found; what was signed and marked stays. */
const askAgain = async (id: string) => {
  const { asked } = (await (await page.request.get(`/api/visits/${id}`)).json()) as VisitPage
  const answers = Object.fromEntries(RULES.map((r) => [r.id, { yes: false }]))
  await page.request.put(`/api/visits/${id}/asked`, { data: { ...asked, answers } })
}
await askAgain(visit)
const marlow = await client('Marlow')
const ask = async (name: string) => {
  const id = await client(name)
  await askAgain(await openVisit(id))
  return id
}
// The plan of somebody who comes today, with the choice still open.
const corin = await ask('Corin')
await page.goto(`/clients/${corin}/plan`)
await headDrawn()
await page
  .getByRole('button', { name: /client's left$/ })
  .first()
  .click()
await shot('plan')
await page.goto(`/clients/${await ask('Petra')}/plan`)
await headDrawn()
await page.getByRole('button', { name: 'Compare' }).click()
await page.keyboard.press('5')
await shot('compare')
await page.goto(`/clients/${await ask('Juno')}/plan`)
await shot('body')
await page.goto(`/clients/${marlow}/cards/plan`)
await page.locator('.flat-label').first().waitFor()
await shot('plan-card')
await page.request.put(`/api/visits/${visit}/plan`)
await page.goto(`/clients/${toby}/chair`)
await page.getByRole('heading', { name: /^Ready for/ }).waitFor()
await shot('ready')
await workAhead(page, visit, 10)
await page.reload()
await page
  .getByTestId('chair-count')
  .filter({ hasText: /step 11 of/ })
  .waitFor()
await shot('chair')
const emeka = await client('Emeka')
await page.goto(`/clients/${emeka}/return`)
await headDrawn()
await shot('alarm')
const tobys = (await (await page.request.get(`/api/clients/${toby}`)).json()) as ClientPage
const done = tobys.visits.filter((v) => v.state === 'finished' && v.worstRedness !== null)
await page.goto(`/clients/${toby}/return?visit=${done[0]!.id}`)
await headDrawn()
await shot('return')
await page.getByRole('tab', { name: 'Bumps' }).click()
await shot('bumps')
await page.goto('/house/forecast')
await page.getByTestId('calibration-chart').locator('svg').waitFor()
await shot('forecast')
const lamp = await browser.newContext({
  viewport: { width: 1280, height: 800 },
  baseURL: served.base,
})
await lamp.addInitScript(() => localStorage.setItem('mantine-color-scheme-value', 'dark'))
const dim = await lamp.newPage()
await dim.goto(`/clients/${toby}/chair`)
await shot('chair-by-lamp', dim)
await workAhead(page, visit)
await page.goto(`/clients/${toby}/care`)
await page.getByRole('tab', { name: '7 days' }).click()
await shot('care')
await page.getByRole('tab', { name: 'Event' }).click()
await shot('event')

await browser.close()
await served.kill()
rmSync(served.dir, { recursive: true, force: true })
