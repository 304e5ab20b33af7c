/** Random clients: a left hand on the mirrored client gets the mirror plan. `MIRRORS=200` goes through two hundred. */
import { zoneSide } from '../zones/index.ts'
import { BEARD_LINES, BROW_LINES } from '../testing/lines.ts'
import { mirrorDifferences } from '../testing/mirror.ts'
import { many } from '../testing/many.ts'
import { planInput, randomMap } from '../testing/plan.ts'
import { makePlan } from './makePlan.ts'
import { groupsOf } from './order.ts'

const SERVICES = [
  'face-shave',
  'head-shave',
  'dermaplane',
  'facial-razor',
  'beard-line',
  'brow-tidy',
] as const
const STYLES = ['gentlest', 'balanced', 'closest'] as const
const SKINS = ['tough', 'average', 'reactive'] as const
const COUNT = Number(process.env['MIRRORS'] ?? 36)

many.each(SERVICES)('mirrors the plans of random clients: %s', (service) => {
  const off: string[] = []
  for (let seed = SERVICES.indexOf(service) + 1; seed <= COUNT; seed += SERVICES.length) {
    const input = planInput({
      service,
      choice: { style: STYLES[seed % 3]! },
      skin: { reactivity: SKINS[(seed % 5) % 3]!, bumpProne: seed % 7 === 0 },
      flow: randomMap(1000 + seed, service),
      keepLines: { 'beard-line': BEARD_LINES, 'brow-tidy': BROW_LINES }[service as string] ?? [],
    })
    const differ = mirrorDifferences(input)
    if (differ.length > 0) off.push(`${seed}: ${differ.join('; ')}`)
  }
  expect(off).toEqual([])
})

it('begins on the side that the worker stands on, unless a school says otherwise', () => {
  for (const hand of ['right', 'left'] as const) {
    const p = makePlan(planInput({ hand, flow: randomMap(5) }))
    const first = groupsOf(p.lanes).find((g) => zoneSide(g.lead.zoneId))!
    expect(zoneSide(first.lead.zoneId)).toBe(hand)
  }
})
