/** Hair from lines: drawn from known hairs, seen from known poses. */
import { unit, cross, type Vec3 } from '../head/index.ts'
import { drawNormal, median, mulberry32 } from '../stats/index.ts'
import { lookingFrom, onPicture, type Pose } from './camera.ts'
import {
  bearingsOf,
  hairAlong,
  hairOf,
  lineOf,
  misfit,
  seenLine,
  type SkinFrame,
} from './hairLine.ts'

const poseFrom = (yaw: number, pitch = -20): Pose => ({
  ...{ rotation: lookingFrom(yaw, pitch), shift: [0, 60, 400] as Vec3, focal: 2880 },
  centre: [2000, 1500],
})
/** Skin that faces a direction. */
function skinFacing(normal: Vec3): SkinFrame {
  const n = unit(normal)
  const a = unit(cross([0, 1, 0], n))
  return { a, b: cross(n, a), normal: n }
}
const PLACE: Vec3 = [25, -75, 85]
const SKIN = skinFacing([0.35, -0.1, 0.93])
const apart = (x: number, y: number) => Math.abs(((x - y + 540) % 360) - 180)

const look = (yaw: number, hair: Vec3, off = 0) => {
  const pose = poseFrom(yaw)
  const at = onPicture(pose, PLACE)!
  return seenLine(pose, at, lineOf(pose, at, hair) + off, 4)
}

it('the plane of a line holds the hair that made it, whichever the pose', () => {
  for (let bearing = 0; bearing < 360; bearing += 30)
    for (const lift of [5, 30, 60]) {
      const hair = hairAlong(SKIN, bearing, lift)
      for (const yaw of [-40, 0, 40]) {
        const line = look(yaw, hair)
        expect(line.plane[0] * hair[0] + line.plane[1] * hair[1] + line.plane[2] * hair[2]).toBeCloseTo(0, 9) // prettier-ignore
        expect(misfit([line], hair, lift, { lift, sd: 7 })).toBeCloseTo(0, 9)
      }
    }
})

it('one picture leaves two bearings, the true one among them, and they are not opposite', () => {
  for (let bearing = 0; bearing < 360; bearing += 15) {
    const two = bearingsOf(look(40, hairAlong(SKIN, bearing, 45)), SKIN, 45)
    expect(two).toHaveLength(2)
    expect(Math.min(...two.map((t) => apart(t, bearing)))).toBeLessThan(1e-6)
  }
  const slanted = bearingsOf(look(50, hairAlong(SKIN, 80, 45)), SKIN, 45)
  expect(apart(slanted[0]!, slanted[1]!)).toBeLessThan(170)
})

it('taken for flat, slanted skin is read wrong by tens of degrees; with the lift it is not', () => {
  const flat: number[] = []
  const known: number[] = []
  for (let bearing = 0; bearing < 360; bearing += 10) {
    const line = look(-35, hairAlong(SKIN, bearing, 45))
    const off = (lift: number) => Math.min(...bearingsOf(line, SKIN, lift).map((t) => apart(t, bearing)), 90) // prettier-ignore
    flat.push(off(0))
    known.push(off(45))
  }
  expect(median(flat)!).toBeGreaterThan(20)
  expect(median(known)!).toBeLessThan(1e-6)
})

it('pictures from two sides tell bearing, lift and root end, without knowing the lift', () => {
  // Where a hair lies as the camera goes round, all pictures show the same plane: there the lift stays as it was believed.
  const lifts: number[] = []
  for (let bearing = 0; bearing < 360; bearing += 24)
    for (const lift of [20, 35, 50]) {
      const hair = hairAlong(SKIN, bearing, lift)
      const found = hairOf([look(-45, hair), look(45, hair), look(0, hair)], SKIN, {
        ...{ lift: 40, sd: 30 },
      })
      expect(apart(found.bearing, bearing)).toBeLessThan(2)
      lifts.push(Math.abs(found.lift - lift))
    }
  expect(median(lifts)!).toBeLessThan(1.5)
})

it('lines some degrees off: where it says that it is sure of the end, it is right', () => {
  const random = mulberry32(21)
  const errors: number[] = []
  let sure = 0
  let wrong = 0
  for (let i = 0; i < 120; i++) {
    const bearing = 360 * random()
    const lift = 25 + 25 * random()
    const hair = hairAlong(SKIN, bearing, lift)
    const lines = [-42, 0, 42].map((yaw) => look(yaw, hair, 4 * drawNormal(random)))
    const found = hairOf(lines, SKIN, { lift: 40, sd: 12 })
    if (found.margin > 6) {
      sure++
      if (apart(found.bearing, bearing) > 90) wrong++
      else errors.push(apart(found.bearing, bearing))
    }
  }
  expect(sure).toBeGreaterThan(70)
  expect(wrong / sure).toBeLessThanOrEqual(0.02)
  expect(median(errors)!).toBeLessThan(6)
})
