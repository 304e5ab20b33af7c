/** The newcomer's trial strip, and a line that is moved over several visits. */
import type { ClientPage, House, VisitPage } from '../contract/types.ts'
import { oneJob } from '../core/services/index.ts'
import { violations } from './axe.ts'
import { begin, workAhead } from './chairHand.ts'
import { ask, askedAll, clientNamed, expect, headReady, plannedClient, test } from './support.ts'

test('a first is tried on a strip: drawn, worked alone, followed, and only then the whole', async ({
  page,
}) => {
  const { client, visit } = await plannedClient(page, 'Pia Thornbury', 'dermaplane')
  const first = askedAll('dermaplane', { 'first-ever': { yes: true } })
  await ask(page, 'PUT', `/api/visits/${visit.id}/asked`, first)
  const keep = (id: string) =>
    page.request.put(`/api/visits/${id}/plan`, { data: { style: 'balanced', edits: {} } })
  expect((await keep(visit.id)).status()).toBe(409)

  await page.goto(`/clients/${client.id}/read?tab=areas`)
  await headReady(page)
  await page.getByRole('button', { name: /^Take a strip on the jaw/ }).click()
  await expect(page.getByText(/cm² inside; nothing else is worked/)).toBeVisible()
  expect(await violations(page)).toEqual([])

  await page.getByRole('link', { name: /^Plan/ }).first().click()
  // What was planned of the whole before is not worked.
  await expect(page.getByText('What was drawn is newer than the plan.')).toBeVisible()
  await page.getByRole('button', { name: 'Plan again' }).click()
  await expect(page.getByText('What was drawn is newer than the plan.')).toHaveCount(0)
  await page.getByRole('button', { name: 'To the chair' }).click()
  await begin(page)
  const kept = await ask<VisitPage>(page, 'GET', `/api/visits/${visit.id}`)
  expect(kept.plan!.trial).toBe(true)
  const cm2 = kept.plan!.lanes.reduce((s, l) => s + l.areaCm2, 0)
  expect(cm2).toBeGreaterThan(3)
  expect(cm2).toBeLessThan(20)
  await workAhead(page, visit.id)

  // Followed: what comes next waits for a look, on the server too.
  await page.goto(`/clients/${client.id}/return?tab=next`)
  const course = page.getByRole('region', { name: 'First sessions' })
  await expect(course.getByRole('row', { name: /Trial strip/ })).toContainText('not yet told')
  await expect(course).toContainText(/which was not worked, and tell both/)
  const { workerId } = await ask<House>(page, 'GET', '/api/house')
  const next = crypto.randomUUID()
  await ask(page, 'POST', `/api/clients/${client.id}/visits`, {
    ...{ id: next, jobs: [oneJob(crypto.randomUUID(), 'dermaplane')], workerId },
    slotAtMs: null,
  })
  await page.goto(`/clients/${client.id}/ask`)
  await expect(page.getByText(/Nobody has told how the trial strip/).first()).toBeVisible()
  const refused = await keep(next)
  expect(refused.status()).toBe(409)
  expect(await refused.text()).toMatch(/trial strip/)
})

test('two lines to choose from; the one that is taken goes its way by steps', async ({ page }) => {
  const { id } = await clientNamed(page, 'Corin Abelard')
  const { currentVisitId } = await ask<ClientPage>(page, 'GET', `/api/clients/${id}`)
  await page.goto(`/clients/${id}/read?tab=lines`)
  await headReady(page)
  await page.getByRole('button', { name: /^cheek line, client’s left/ }).click()
  await page.getByRole('button', { name: /^Move it: two lines/ }).click()
  const table = page.getByRole('table', { name: 'Two lines to choose from' })
  await expect(table.getByRole('row', { name: /^Beard given up/ })).toContainText(
    /mm at most.*none/,
  )
  await expect(table.getByRole('row', { name: /^Filled in/ })).toContainText(
    /nothing to fill.*80 %/,
  )
  expect(await violations(page)).toEqual([])
  await page.getByLabel('Line A moved out by').fill('-8')
  await page.getByLabel('Line A moved out by').blur()
  await expect(table.getByRole('row', { name: /^Visits/ })).toBeVisible()
  await expect(page.getByLabel('Visits for line A')).toHaveValue(/^[45]$/)
  // While the client chooses, the line that is worked stays as it was.
  await page.getByRole('button', { name: 'Take line A' }).click()
  await expect(page.getByText(/On its way: step 1 of [45]/)).toBeVisible()
  await expect(table).toHaveCount(0)
  await page.getByRole('button', { name: 'Another step now' }).click()
  await expect(page.getByText(/On its way: step 2 of [45]/)).toBeVisible()
  await expect
    .poll(async () => {
      const { notes } = await ask<VisitPage>(page, 'GET', `/api/visits/${currentVisitId}`)
      return notes.lines.map((l) => l.move?.at)
    })
    .toContain(2)
})
