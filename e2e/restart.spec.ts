/** The server is killed while a service runs: the screen says so, and goes on from the same step when it is back. */
import { rmSync } from 'node:fs'
import { expect as say, test as plain } from '@playwright/test'
import type { VisitPage } from '../contract/types.ts'
import { ask, plannedClient } from './support.ts'
import { serve } from './server.ts'

plain('a killed server loses no step and counts none twice', async ({ browser }) => {
  let served = await serve({ demo: false })
  const port = new URL(served.base).port
  const page = await browser.newPage({ baseURL: served.base })
  const { client, visit } = await plannedClient(page, 'Ives Breakwater')
  await page.goto(`/clients/${client.id}/chair`)
  const count = page.locator('.chair-count')
  await page.locator('.chair-go').click()
  await say(count).toContainText('step 1 of')
  await page.keyboard.press('Space')
  await say(count).toContainText('step 2 of')

  await served.kill('SIGKILL')
  await page.keyboard.press('Space')
  await say(page.getByText(/not counted yet/)).toBeVisible()
  await say(count).toContainText('step 2 of')
  served = await serve({ demo: false, dir: served.dir, port })
  say(new URL(served.base).port).toBe(port)
  await page.keyboard.press('Space')
  await say(count).toContainText('step 3 of')
  const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  say(after.events.map((e) => e.kind)).toEqual(['started', 'done', 'done'])
  await page.reload()
  await say(count).toContainText('step 3 of')
  await page.close()
  await served.kill()
  rmSync(served.dir, { recursive: true, force: true })
})

plain('an empty house says the first useful thing', async ({ browser }) => {
  const served = await serve({ demo: false })
  const page = await browser.newPage({ baseURL: served.base })
  await page.goto('/')
  await page.getByRole('button', { name: 'Add the first client' }).click()
  await page.getByLabel(/^Name/).first().fill('Una Slipway')
  await page.getByRole('button', { name: 'Add and start asking' }).click()
  await say(page.getByRole('heading', { name: '20 questions are open.' })).toBeVisible()
  await page.close()
  await served.kill()
  rmSync(served.dir, { recursive: true, force: true })
})
