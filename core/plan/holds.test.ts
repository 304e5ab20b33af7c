/** The free hand: always against the stroke, on skin, never on a mark, and one sentence that says what is drawn. */
import { DEFAULTS } from '../house/index.ts'
import { dot, tangentPart, unit } from '../head/index.ts'
import { markMargin, type SkinMark } from '../screening/index.ts'
import { isBody, isSkin } from '../zones/index.ts'
import { planInput, randomMap } from '../testing/plan.ts'
import { tellWay } from '../telling/index.ts'
import { holdNow, NOTHING_TO_HOLD } from './holds.ts'
import { makePlan } from './makePlan.ts'

const SERVICES = ['face-shave', 'head-shave', 'dermaplane', 'body-shave'] as const
const mole = (input = planInput()): SkinMark => ({
  id: 'm',
  kind: 'mole',
  zoneId: 'cheek-upper-left',
  ...input.ground.records.get('cheek-upper-left')!.centre,
  radiusMm: 4,
})

describe('the free hand', () => {
  it.each(SERVICES.flatMap((s) => (['right', 'left'] as const).map((h) => [s, h] as const)))(
    'of a %s, blade in the %s hand: pulls against the stroke from skin that may be touched',
    (service, hand) => {
      const spots = [mole()]
      const body = service === 'body-shave'
      const input = planInput({
        ...{ service, hand, spots: body ? [] : spots },
        ...(!body && { flow: randomMap(17, service) }),
      })
      const plan = makePlan(input)
      let held = 0
      for (const lane of plan.lanes) {
        expect(lane.holds!.length).toBeLessThanOrEqual(3)
        expect(lane.freeHand).toBe(lane.holds![0]?.text ?? NOTHING_TO_HOLD)
        for (const h of lane.holds!) {
          held++
          expect(isSkin(h.zoneId)).toBe(true)
          // Behind the start of the stroke, and away from it.
          const back = lane.point.map((x, k) => h.point[k]! - x)
          expect(dot(back as never, lane.stroke)).toBeLessThan(0)
          expect(dot(unit(tangentPart(h.pull, h.normal)), lane.stroke)).toBeLessThan(-0.2)
          if (!isBody(h.zoneId)) {
            const gap = Math.hypot(...spots[0]!.point.map((x, k) => x - h.point[k]!))
            expect(gap).toBeGreaterThan(4 + markMargin(DEFAULTS, spots[0]!))
          }
          // The sentence is made from the arrow that is drawn.
          const { words } = tellWay(input.ground.landmarks, h.zoneId, h.point, h.normal, h.pull)
          expect(h.text).toContain(words)
        }
      }
      // Nearly every lane can be held somewhere.
      expect(held).toBeGreaterThan(1.5 * plan.lanes.length)
    },
  )

  it('takes another place once one was nicked or has reddened, and says so where none is left', () => {
    const lane = makePlan(planInput({ flow: randomMap(3) })).lanes.find((l) => l.holds!.length > 1)!
    const [first, second] = lane.holds!
    const none = { points: [], zones: new Set<never>() }
    expect(holdNow(lane.holds!, none)).toBe(first)
    const now = holdNow(lane.holds!, { ...none, points: [first!.point] })!
    expect(now).not.toBe(first)
    expect(Math.hypot(...now.point.map((x, k) => x - first!.point[k]!))).toBeGreaterThan(15)
    expect(second).toBeDefined()
    const zones = new Set(lane.holds!.map((h) => h.zoneId))
    expect(holdNow(lane.holds!, { points: [], zones })).toBeUndefined()
  })

  it('is light on a bump-prone neck by default, taut there by the other school, taut on a cheek by both', () => {
    const words = (stem: string, neckStretch: 'light' | 'taut') =>
      makePlan(planInput({ skin: { bumpProne: true }, schools: { neckStretch } })).lanes.find((l) =>
        l.zoneId.startsWith(stem),
      )!.freeHand
    expect(words('neck-upper', 'light')).toMatch(/^Hold lightly/)
    expect(words('neck-upper', 'taut')).toMatch(/^Pull/)
    expect(words('cheek-lower', 'light')).toMatch(/^Pull/)
  })
})
