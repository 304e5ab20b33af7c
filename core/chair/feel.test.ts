/** What a finger says at the chair, turned or drawn, as a growth direction on the skin. */
import fc from 'fast-check'
import { strokeAngle, toRadians, type StrokePoint } from '../grain/index.ts'
import { bearingOf, directionOf, type Vec3 } from '../head/index.ts'
import { makePlan } from '../plan/index.ts'
import { ZONES } from '../testing/head.ts'
import { planInput } from '../testing/plan.ts'
import type { ZoneId } from '../zones/index.ts'
import { feltByStroke, toFeel, turnedFelt } from './feel.ts'

const GUESSED = makePlan(planInput())
const FELT = GUESSED.zones.map((z) => toFeel(GUESSED, z.zoneId)!)
const bearing = (f: (typeof FELT)[number]) => bearingOf(f.zoneId, f.point, f.normal, f.tangent)
const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** A stroke across the middle of a zone toward a bearing. */
function strokeOver(zoneId: ZoneId, toward: number, lengthMm = 16): StrokePoint[] {
  const { point, normal } = ZONES.find((z) => z.id === zoneId)!.centre
  const way = directionOf(zoneId, point, normal, toward)
  return [-0.5, -0.25, 0, 0.25, 0.5].map((s) => ({
    zoneId,
    normal,
    point: point.map((c, k) => c + s * lengthMm * way[k]!) as unknown as Vec3,
  }))
}

describe('a direction that is felt', () => {
  it('turns by as much as it is turned, stays in the skin, and comes round', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FELT),
        fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
        (felt, by) => {
          const turned = turnedFelt(felt, by)
          expect(strokeAngle(bearing(turned), bearing(felt) + by)).toBeLessThan(1e-6)
          expect(Math.abs(dot(turned.tangent, felt.normal))).toBeLessThan(1e-6)
          expect(Math.hypot(...turned.tangent)).toBeCloseTo(1, 9)
          const back = turnedFelt(turned, -by)
          expect(dot(back.tangent, felt.tangent)).toBeGreaterThan(1 - 1e-9)
        },
      ),
      { numRuns: 80 },
    )
  })

  it('six turns of a key each way are a quarter, as the chair’s keys go by 15°', () => {
    const turned = Array.from({ length: 6 }).reduce<(typeof FELT)[number]>(
      (f) => turnedFelt(f, toRadians(15)),
      FELT[0]!,
    )
    expect(strokeAngle(bearing(turned), bearing(FELT[0]!))).toBeCloseTo(Math.PI / 2, 6)
  })

  it('is what a stroke from root to tip says', () => {
    for (const zoneId of ['chin', 'cheek-lower-left', 'jaw-right'] as const)
      for (const toward of [0, 1, 2.5, 4]) {
        const felt = feltByStroke(zoneId, strokeOver(zoneId, toward))
        expect(felt.zoneId).toBe(zoneId)
        expect(strokeAngle(bearing(felt), toward)).toBeLessThan(toRadians(2))
      }
  })

  it('is not taken from a stroke over another zone, nor from a dot', () => {
    expect(() => feltByStroke('chin', strokeOver('jaw-left', 0))).toThrow(
      'That stroke ran over the jaw (client',
    )
    expect(() => feltByStroke('chin', strokeOver('chin', 0, 0.1))).toThrow()
  })

  it('is asked for at the largest lane that was guessed, and nowhere that was read', () => {
    for (const felt of FELT) {
      const own = GUESSED.lanes.filter((l) => l.zoneId === felt.zoneId)
      const largest = Math.max(...own.map((l) => l.areaCm2))
      expect(own.find((l) => l.areaCm2 === largest)!.point).toEqual(felt.point)
    }
    expect(toFeel(GUESSED, 'scalp-crown')).toBeUndefined()
    expect(toFeel(GUESSED, undefined)).toBeUndefined()
  })
})
