import { begin } from '../../../core/chair/index.ts'
import { toRadians } from '../../../core/grain/index.ts'
import { bearingOf, directionOf, type Vec3 } from '../../../core/head/index.ts'
import { makePlan } from '../../../core/plan/index.ts'
import { stepOf, tell, through } from '../../../core/testing/chair.ts'
import { planInput } from '../../../core/testing/plan.ts'
import { drawFelt, feltAt, turnFelt, useFelt } from './felt.ts'

const PLAN = makePlan(planInput())
const started = tell(begin(PLAN), { kind: 'started' }, 1000)
const feeling = through(started, (l) => stepOf(l)?.kind === 'feel')
const later = through(
  tell(feeling, { kind: 'felt', stepId: stepOf(feeling)!.id, detail: feltAt(feeling) }),
  (l) => stepOf(l)?.kind === 'feel',
)
const bearing = (f: NonNullable<ReturnType<typeof feltAt>>) =>
  bearingOf(f.zoneId, f.point, f.normal, f.tangent)
const stroke = (over: NonNullable<ReturnType<typeof feltAt>>, toward: number) => {
  const way = directionOf(over.zoneId, over.point, over.normal, toward)
  return [-8, -4, 0, 4, 8].map((s) => ({
    ...{ zoneId: over.zoneId, normal: over.normal },
    point: over.point.map((c, k) => c + s * way[k]!) as unknown as Vec3,
  }))
}
beforeEach(() => useFelt.setState({ now: undefined, problem: undefined }))

describe('what is being felt', () => {
  it('is the guess until a finger says otherwise, and nothing at any other step', () => {
    expect(feltAt(feeling)!.zoneId).toBe(stepOf(feeling)!.zoneId)
    expect(feltAt(started)).toBeUndefined()
    turnFelt(started, 15)
    expect(useFelt.getState().now).toBeUndefined()
  })

  it('turns by the keys, degree by degree', () => {
    const before = bearing(feltAt(feeling)!)
    turnFelt(feeling, 15)
    turnFelt(feeling, 15)
    turnFelt(feeling, -1)
    const turned = bearing(feltAt(feeling)!) - before
    expect(Math.cos(turned - toRadians(29))).toBeCloseTo(1, 9)
  })

  it('is drawn over its own zone; elsewhere it says where, and what was felt stays', () => {
    const guess = feltAt(feeling)!
    drawFelt(feeling, stroke(guess, 1))
    expect(Math.cos(bearing(feltAt(feeling)!) - 1)).toBeGreaterThan(0.999)
    const kept = feltAt(feeling)
    drawFelt(feeling, stroke(feltAt(later)!, 2))
    expect(useFelt.getState().problem).toMatch(/^That stroke ran over /)
    expect(feltAt(feeling)).toBe(kept)
    // The next good one takes the words away.
    turnFelt(feeling, 1)
    expect(useFelt.getState().problem).toBeUndefined()
  })

  it('belongs to its step: the next zone begins with its own guess', () => {
    turnFelt(feeling, 90)
    expect(feltAt(later)!.zoneId).toBe(stepOf(later)!.zoneId)
    expect(feltAt(later)!.zoneId).not.toBe(feltAt(feeling)!.zoneId)
  })
})
