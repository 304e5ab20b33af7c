/** Every main view: usable by assistive technology, quiet, whole at both sizes; and what the head can do. */
import { dateAt, DAY_MS, offsetHere } from '../core/time/index.ts'
import { violations } from './axe.ts'
import {
  clientNamed,
  draw,
  expect,
  head,
  headReady,
  onHead,
  plannedClient,
  test,
  withoutWebGL,
  pickOne,
} from './support.ts'

/** Next week: in this one other tests have clients at any hour of the night, all at once. */
const NEXT_WEEK = `/week?from=${dateAt(Date.now() + 7 * DAY_MS, offsetHere)}`
const PLAIN = ['/', NEXT_WEEK, '/clients', '/clients/import', '/kit', '/practice', '/house']
const STATIONS = ['ask', 'read', 'plan', 'chair', 'care', 'return']

// Each scheme and each size once.
for (const [scheme, size, what] of [
  ['light', { width: 1024, height: 768 }, 'all'],
  ['dark', { width: 1280, height: 800 }, 'contrast'],
] as const) {
  test(`axe finds nothing serious, nothing overflows: ${scheme}, ${size.width}×${size.height}`, async ({
    page,
  }) => {
    await page.setViewportSize(size)
    await page.addInitScript((s) => localStorage.setItem('mantine-color-scheme-value', s), scheme)
    const client = await clientNamed(page, 'Marlow')
    const { client: waiting } = await plannedClient(page, `Axe ${scheme} ${size.width}`)
    const { client: swimmer } = await plannedClient(page, `Axe body ${scheme}`, 'body-shave')
    const paths = [
      ...PLAIN,
      ...STATIONS.filter((s) => s !== 'chair').map((s) => `/clients/${client.id}/${s}`),
      ...['ask', 'plan', 'chair', 'wall'].map((s) => `/clients/${waiting.id}/${s}`),
      ...['read', 'plan'].map((s) => `/clients/${swimmer.id}/${s}`),
      `/clients/${waiting.id}/cards/plan`,
      `/clients/${waiting.id}/cards/consent`,
    ]
    for (const path of paths) {
      // By the link to it where there is one, as a worker goes: that is quicker than to load the page anew.
      // At the chair there is no strip of stations to tell when one has arrived.
      const atChair = /\/(chair|wall)$/.test(path)
      const link = page.locator(`nav a[href="${path}"]`)
      if (!atChair && (await link.count()) === 1) {
        await link.click()
        await expect(page).toHaveURL(path)
        await expect(link.and(page.locator('[aria-current=page]'))).toHaveCount(1)
      } else await page.goto(path)
      if (/^\/clients\/[0-9a-f-]{36}\/(?!cards)/.test(path)) await headReady(page)
      if (!atChair) await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible()
      expect([path, await violations(page, what)]).toEqual([path, []])
      const sideways = await page.evaluate(
        () => document.documentElement.scrollWidth - window.innerWidth,
      )
      expect([path, sideways]).toEqual([path, 0])
    }
    // The tabs that are fetched when they are opened.
    await page.goto(`/clients/${client.id}/return`)
    await headReady(page)
    for (const tab of ['Looks', 'Skin', 'Bumps', 'Hair', 'Home', 'Next visit', 'Then, now']) {
      await page
        .getByRole('tablist', { name: 'What to look at' })
        .getByRole('tab', { name: tab })
        .click()
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible()
      expect([tab, await violations(page, what)]).toEqual([tab, []])
      const table = await page.evaluate(
        () =>
          document.querySelector('main')!.scrollWidth - document.querySelector('main')!.clientWidth,
      )
      expect([tab, table]).toEqual([tab, 0])
    }
    await page.goto(PLAIN.find((p) => p.startsWith('/week'))!)
    for (const [tab, shown] of [
      ['Waiting', 'Waiting list'],
      ['Load', 'Load ahead'],
    ] as const) {
      await page.getByText(tab, { exact: true }).click()
      await expect(page.getByRole('region', { name: shown })).toBeVisible()
      expect([tab, await violations(page, what)]).toEqual([tab, []])
    }
    for (const tab of ['forecast', 'studio']) {
      await page.goto(`/house/${tab}`)
      await expect(page.getByText(/The forecast|Skin reddened/).first()).toBeVisible()
      expect([tab, await violations(page, what)]).toEqual([tab, []])
    }
  })
}

test('no page scrolls sideways on a narrow phone', async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 })
  const client = await clientNamed(page, 'Marlow')
  const { client: waiting } = await plannedClient(page, 'Narrow Phone')
  const paths = [
    ...PLAIN,
    ...['hours', 'look', 'people', 'estimates', 'safety'].map((part) => `/house/${part}`),
    ...['ask', 'ask?tab=person', 'read', 'plan', 'chair'].map((s) => `/clients/${waiting.id}/${s}`),
    ...['care', 'return', 'return?tab=hair', 'return?tab=then'].map(
      (s) => `/clients/${client.id}/${s}`,
    ),
  ]
  for (const path of paths) {
    await page.goto(path)
    if (path.includes(waiting.id) || path.includes(client.id)) await headReady(page)
    if (!path.endsWith('/chair'))
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible()
    const sideways = () =>
      page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    expect([path, await sideways()]).toEqual([path, 0])
  }
})

test('stations do not scroll the page, and each says where it stands', async ({ page }) => {
  const client = await clientNamed(page, 'Marlow')
  for (const station of STATIONS.filter((s) => s !== 'chair')) {
    await page.goto(`/clients/${client.id}/${station}`)
    await headReady(page)
    expect(
      await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight),
    ).toBeLessThanOrEqual(0)
  }
  const strip = page.getByRole('navigation', { name: 'Stations' })
  await expect(strip.getByRole('link')).toHaveText([
    /Ask.*go/,
    /Read.*of 21 zones/,
    /Plan.*min/,
    /Chair.*done/,
    /Care.*(over|to keep off)/,
    /Return.*answers/,
  ])
})

test(
  'the head turns to its named views, by hand and closer, and tells its zones',
  { tag: '@drawn' },
  async ({ page }) => {
    const client = await clientNamed(page, 'Marlow')
    await page.goto(`/clients/${client.id}/care`)
    await headReady(page)
    const zoneUnder = async (x: number, y: number) => {
      const p = await onHead(page, x, y)
      await page.mouse.move(p.x, p.y)
      await page.mouse.move(p.x + 1, p.y)
      return page.locator('.head-name').textContent()
    }
    await expect.poll(() => zoneUnder(0.5, 0.665)).toBe('Chin')
    await page.keyboard.press('6')
    await expect.poll(() => zoneUnder(0.5, 0.35)).toBe('Back of the scalp')
    await page.keyboard.press('2')
    await expect.poll(() => zoneUnder(0.45, 0.55)).toContain("client's left")
    await page.keyboard.press('3')
    await expect.poll(() => zoneUnder(0.55, 0.55)).toContain("client's right")
    await page.keyboard.press('4')
    await expect.poll(() => zoneUnder(0.5, 0.62)).toMatch(/neck|Under the chin/)
    await page.keyboard.press('5')
    await expect.poll(() => zoneUnder(0.5, 0.3)).toMatch(/scalp|Crown/)
    await page.keyboard.press('1')
    await expect.poll(() => zoneUnder(0.5, 0.665)).toBe('Chin')
    // The right button turns; no named view is shown any more.
    const p = await onHead(page, 0.5, 0.5)
    await page.mouse.move(p.x, p.y)
    await page.mouse.down({ button: 'right' })
    await page.mouse.move(p.x + 120, p.y, { steps: 4 })
    await page.mouse.up({ button: 'right' })
    await expect(
      page.getByRole('group', { name: 'Views of the head' }).locator('[aria-pressed=true]'),
    ).toHaveCount(0)
  },
)

test('nothing is drawn while nothing changes', { tag: '@drawn' }, async ({ page }) => {
  const client = await clientNamed(page, 'Marlow')
  await page.addInitScript(() => {
    const w = window as unknown as { drawn: number }
    w.drawn = 0
    const draw = WebGL2RenderingContext.prototype.drawElements
    WebGL2RenderingContext.prototype.drawElements = function (...args) {
      w.drawn++
      return draw.apply(this, args)
    }
  })
  await page.goto(`/clients/${client.id}/read`)
  await headReady(page)
  const drawn = () => page.evaluate(() => (window as unknown as { drawn: number }).drawn)
  await expect.poll(drawn).toBeGreaterThan(0)
  // Let the first marks arrive, then look whether the count stands still.
  await expect
    .poll(async () => {
      const before = await drawn()
      await page.waitForTimeout(700)
      return (await drawn()) - before
    })
    .toBe(0)
  const before = await drawn()
  await page.keyboard.press('2')
  await expect.poll(drawn).toBeGreaterThan(before)
})

test('without WebGL the flat views take its place: picking, drawing, named views', async ({
  page,
}) => {
  await withoutWebGL(page)
  const { client } = await plannedClient(page, 'Flat Stanchion')
  await page.goto(`/clients/${client.id}/read`)
  await headReady(page)
  await expect(head(page)).toHaveAttribute('data-flat', 'true')
  await expect(head(page).locator('canvas')).toHaveCount(0)
  await draw(page, [0.5, 0.625], [0.5, 0.69])
  await expect(page.getByRole('heading', { name: 'Chin' })).toBeVisible()
  await expect(page.getByText(/^grows down/)).toBeVisible()
  await page.keyboard.press('6')
  await expect(page.getByRole('button', { name: /Nape/ })).toHaveAttribute('aria-pressed', 'true')
  const p = await onHead(page, 0.5, 0.35)
  await page.mouse.move(p.x, p.y)
  await page.mouse.move(p.x + 1, p.y)
  await expect(page.locator('.head-name')).toHaveText('Back of the scalp')
  // A zone chosen from the list brings up the view nearest to it, and picking goes by what is seen.
  await page.getByRole('button', { name: "Lower cheek, client's left" }).click()
  await expect(page.locator('svg.head-flat')).toHaveAttribute('data-view', 'left')
  await expect(page.getByRole('heading', { name: "Lower cheek, client's left" })).toBeVisible()
  await expect(async () => {
    const cheek = await onHead(page, 0.47, 0.53)
    await page.mouse.move(cheek.x - 3, cheek.y)
    await page.mouse.move(cheek.x, cheek.y)
    await expect(page.locator('.head-name')).toHaveText(/cheek, client's left/, { timeout: 1500 })
  }).toPass()
})

test('a drawing that cannot be fetched does not take the page along', async ({ page }) => {
  await page.route(/\/assets\/(HeadCanvas|TideChart)-/, (route) => route.abort())
  page.removeAllListeners('console')
  const marlow = await clientNamed(page, 'Marlow')
  await page.goto(`/clients/${marlow.id}/plan`)
  await expect(head(page)).toHaveAttribute('data-flat', 'true')
  await expect(page.getByText('The tide line could not be loaded.')).toBeVisible()
  await expect(page.getByText(/It stays as it is when the map changes later/)).toBeVisible()
})

test('the tide line chooses a visit and says everything in words', async ({ page }) => {
  const client = await clientNamed(page, 'Tobias')
  await page.goto(`/clients/${client.id}/return`)
  await headReady(page)
  await expect(page.getByRole('region', { name: 'Tide line' })).toContainText(
    /Beard\..*redness \d.*Good days for the next visit/,
  )
  // The marks under the curve: the last one before today.
  const marks = page.getByTestId('tide-chart').locator('svg path[fill^="#"], svg path[fill^="rgb"]')
  await expect(marks.first()).toBeVisible()
  const box = (await page.getByTestId('tide-chart').boundingBox())!
  for (let x = box.width * 0.9; x > box.width * 0.4 && !page.url().includes('visit='); x -= 6) {
    await page.mouse.click(box.x + x, box.y + 103)
  }
  await expect(page).toHaveURL(/visit=/)
  await expect(page.getByText(/^The last visit, |^Visit of /)).toBeVisible()
  await page.getByRole('link', { name: /^Back to the current one|^To the next visit/ }).click()
  await expect(page).not.toHaveURL(/visit=/)
})

test('finds a client by Ctrl K, lights the lamp, and keeps it lit', async ({ page }) => {
  await page.goto('/')
  // Who comes first hangs on the hour and on the clients of other tests.
  await expect(page.getByTestId('today').getByRole('link').first()).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.keyboard.type('organ')
  await expect(page.getByRole('dialog').getByText('Bram Tolliver')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/clients\/.*\/ask/)
  await page.getByRole('button', { name: 'Lamp' }).click()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Daylight' })).toBeVisible()
  await page.getByRole('button', { name: 'Daylight' }).click()
})

test('finds and sorts on the clients page, says so when nobody matches', async ({ page }) => {
  await page.goto('/clients')
  await page.getByLabel('Find by name or occupation').fill('diver')
  await expect(page.getByRole('link', { name: 'Tobias Arkwell' })).toBeVisible()
  await expect(page.locator('tbody tr[aria-rowindex]')).toHaveCount(1)
  await page.getByLabel('Find by name or occupation').fill('zzz')
  await expect(page.getByText('Nobody matches “zzz”.')).toBeVisible()
  await page.getByLabel('Find by name or occupation').fill('')
  await page.getByText('by last visit').click()
  await expect(page.locator('tbody tr').first()).toBeVisible()
})

test('shows what postpones, and lets the house choose its schools', async ({ page }) => {
  const liv = await clientNamed(page, 'Liv Ostrander')
  await page.goto(`/clients/${liv.id}/ask`)
  await expect(page.getByRole('heading', { name: /Postpone until/ })).toBeVisible()
  await page.goto(`/clients/${liv.id}/plan`)
  await expect(page.getByText(/has not cleared this service/)).toBeVisible()
  await page.goto('/house/schools')
  const school = page.getByRole('combobox', { name: 'Stretch on bump-prone necks' })
  await pickOne(page, 'Stretch on bump-prone necks', 'Taut everywhere')
  await expect(page.getByText(/^Saved/)).toBeVisible()
  await page.reload()
  await expect(school).toHaveValue('Taut everywhere')
  await pickOne(page, 'Stretch on bump-prone necks', '(default)')
  await expect(page.getByText(/^Saved/)).toBeVisible()
  await page.goto('/house/estimates')
  await page.getByText('Learning the skin').click()
  await expect(page.getByText('Shape of the prior on grade per unit load')).toBeVisible()
})
