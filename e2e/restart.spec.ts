/** A line that breaks and a server that is killed while a service runs: the screen says so, goes on, and loses nothing. */
import { rmSync } from 'node:fs'
import { expect as say, test as plain } from '@playwright/test'
import type { VisitPage } from '../contract/types.ts'
import { count, press } from './chairHand.ts'
import { ask, plannedClient } from './support.ts'
import { serve } from './server.ts'

plain(
  'a whole head shave by pedal keys alone: network cut twice, tab reloaded, server killed and back',
  async ({ browser }) => {
    plain.setTimeout(300_000)
    let served = await serve({ demo: false })
    const port = new URL(served.base).port
    const context = await browser.newContext({ baseURL: served.base })
    const page = await context.newPage()
    const { client, visit } = await plannedClient(page, 'Ives Breakwater', 'head-shave')
    // Towels that come out cool enough, so that nobody waits minutes for them here.
    await ask(page, 'PATCH', '/api/house', { figures: { 'towel.startC': 34 } })
    const steps = visit.plan!.steps.length
    // The flat views draw at once; the pedal is the same.
    await page.goto(`/clients/${client.id}/chair?flat`)
    const go = page.getByTestId('chair-go')
    const away = page.getByText(/No connection/)
    let presses = 0
    /** Presses on until a step is in view. */
    const until = async (step: number) => {
      for (; presses < 400; presses++) {
        const words = (await count(page).textContent()) ?? ''
        if (words.startsWith(`step ${step} of`)) return
        if (await go.isEnabled()) await press(page, presses % 2 ? 'Space' : 'PageDown')
        else await page.waitForTimeout(500)
      }
      throw new Error(`Step ${step} never came.`)
    }
    await until(5)
    await context.setOffline(true)
    await until(8)
    await say(away).toContainText(/taps? (is|are) kept on this screen/)
    await context.setOffline(false)
    await say(away).toBeHidden()
    await until(10)
    await page.reload()
    await say(count(page)).toContainText(`step 10 of ${steps}`)

    await served.kill('SIGKILL')
    await until(12)
    await say(away).toContainText(/kept on this screen/)
    served = await serve({ demo: false, dir: served.dir, port })
    await say(away).toBeHidden()
    await context.setOffline(true)
    await until(14)
    await context.setOffline(false)
    await say(away).toBeHidden()
    // The rest, up to the first look and the finish.
    for (; presses < 400; presses++) {
      if (await page.getByRole('heading', { name: 'Care' }).isVisible()) break
      if (await go.isEnabled().catch(() => false)) await press(page)
      else await page.waitForTimeout(300)
    }
    await say(page.getByRole('heading', { name: 'Care' })).toBeVisible()
    const after = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
    say(after.state).toBe('finished')
    // Each step once, in its order, and every event in its place.
    const done = after.events.filter((e) => e.kind === 'done').map((e) => e.stepId)
    say(done).toEqual(visit.plan!.steps.map((s) => s.id))
    say(after.events.map((e) => e.seq)).toEqual(after.events.map((_, i) => i + 1))
    say(after.chair.towels['prepare:towel']!.askedAtMs).toBeDefined()
    await context.close()
    await served.kill()
    rmSync(served.dir, { recursive: true, force: true })
  },
)

plain('an empty house says the first useful thing', async ({ browser }) => {
  const served = await serve({ demo: false })
  const page = await browser.newPage({ baseURL: served.base })
  await page.goto('/')
  // Whose house it is; without figures nobody signs in at this machine.
  await page.getByLabel('What is the house called?').fill('Lantern Quay')
  await page.getByLabel('Who are you?').fill('Ines Marchetti-Roe')
  await page.getByRole('button', { name: 'Begin' }).click()
  await page.getByRole('button', { name: 'Add the first client' }).click()
  await page.getByLabel(/^Name/).first().fill('Una Slipway')
  await page.getByRole('button', { name: 'Add and start asking' }).click()
  await say(page.getByRole('heading', { name: '18 questions are open.' })).toBeVisible()
  await page.close()
  await served.kill()
  rmSync(served.dir, { recursive: true, force: true })
})
