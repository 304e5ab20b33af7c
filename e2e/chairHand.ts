/** What browser tests do at the chair: press on, pass the towel, and work ahead beside the screen as another one would. */
import { DEFAULTS } from '../core/house/index.ts'
import {
  numbered,
  admit,
  nextPress,
  replayLive,
  type Draft,
  type ToldEvent,
  type Live,
} from '../core/chair/index.ts'
import { expect, type Page } from '@playwright/test'
import type { VisitPage } from '../contract/types.ts'

export const count = (page: Page) => page.getByTestId('chair-count')

/** A pedal pressed again within this is taken for a bounce. */
const BETWEEN_MS = 300

/** Presses the pedal once and lets it come to rest. */
export async function press(page: Page, key = 'Space'): Promise<void> {
  await page.keyboard.press(key)
  await page.waitForTimeout(BETWEEN_MS)
}

/** The hot towel of the step in view: out, asked, read by a thermometer, laid, taken off. */
export async function passTowel(page: Page, by: () => Promise<void> = () => press(page)) {
  const go = page.getByTestId('chair-go')
  await expect(
    page.getByLabel(/Temperature read by hand/).or(go.getByText('Towel is out')),
  ).toBeVisible()
  if ((await go.textContent())!.includes('Towel is out')) await by()
  await page.getByLabel(/Temperature read by hand/).fill('42')
  await page.keyboard.press('Enter')
  await expect(go).toContainText('Asked')
  await page.locator('main h1').click()
  await by()
  await expect(go).toContainText('Laid')
  await by()
  await expect(go).toContainText('Taken off')
  await by()
}

/** Begins from the ready screen; where the worker has another client in the chair, both go on. */
export async function begin(page: Page, by: () => Promise<void> = () => press(page)) {
  const both = page.getByRole('button', { name: /Both go on/ })
  const first = count(page).filter({ hasText: 'step 1 of' })
  await expect(page.getByTestId('chair-go')).toContainText('Begin')
  // Tests share the workers: one that begins in the same moment is known only once the server has refused.
  await expect(async () => {
    if (!(await first.isVisible())) {
      if (!(await both.isVisible())) await by()
      await expect(first.or(both).first()).toBeVisible({ timeout: 5000 })
      if (await both.isVisible()) await both.click()
    }
    await expect(first).toBeVisible({ timeout: 5000 })
    await page.waitForTimeout(400)
    expect(await first.isVisible()).toBe(true)
  }).toPass()
  // The first towel is taken out at once: it cools while everything else is readied.
  if ((await page.getByTestId('chair-go').textContent())!.includes('Towel is out')) await by()
}

export interface Ahead {
  /** The step that comes next; the number of steps when all are done. */
  readonly step: number
  readonly live: Live
}

/**
 * Works beside the screen, as a second one would, until a step comes next; without one to the finish.
 * @param more when it began, and what happens before a press
 */
export async function workAhead(
  page: Page,
  visitId: string,
  until = Infinity,
  more: { readonly startMs?: number; readonly besides?: (live: Live) => readonly Draft[] } = {},
): Promise<Ahead> {
  const path = `/api/visits/${visitId}`
  const read = async () => {
    const visit = (await (await page.request.get(path)).json()) as VisitPage
    return replayLive(visit.plan!, visit.events)
  }
  let live = await read()
  let clock = Math.max(more.startMs ?? Date.now(), live.state.lastAtMs)
  const screen = crypto.randomUUID()
  let n = 0
  const send = async (draft: Draft) => {
    // Tests share the workers: many services of one are under way at once.
    const both = draft.kind === 'started' ? { ...draft, detail: { beside: true as const } } : draft
    const event: ToldEvent = numbered(both, {
      id: crypto.randomUUID(),
      screen,
      n: ++n,
      atMs: Math.round(clock),
    })
    const r = await page.request.post(`${path}/events`, { data: event })
    // The screen in view was quicker, or its last taps are still on their way: look again, and go on from there.
    if (r.status() === 409 || (r.status() === 422 && (await r.text()).includes('"paused"'))) {
      await page.waitForTimeout(300)
      live = await read()
      return
    }
    expect(r.ok(), await r.text()).toBe(true)
    live = admit(DEFAULTS, live, { ...event, seq: live.state.seq + 1 })
  }
  while (
    live.state.status !== 'finished' &&
    (live.state.status === 'waiting' || live.state.index < until)
  ) {
    const before = live
    for (const besides of more.besides?.(live) ?? []) await send(besides)
    if (live !== before) continue
    const { draft, waitMs } = nextPress(DEFAULTS, live, clock, 400)
    clock += waitMs ?? 1500
    if (draft) await send(draft)
  }
  return { step: live.state.index, live }
}
