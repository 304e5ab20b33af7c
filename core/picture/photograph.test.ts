/** The simulated camera, and the whole way back: photographed hair is read as it was. */
import { cross, dot, unit, type Vec3 } from '../head/index.ts'
import { median, mulberry32 } from '../stats/index.ts'
import { lookingFrom, onPicture, type Pose } from './camera.ts'
import { bearingsOf, hairAlong, hairOf, seenLine, type SeenLine } from './hairLine.ts'
import { photograph, type PhotoWish, type TrueSkin } from './photograph.ts'
import { brightness, gathered, levelled, ridgesOf } from './ridges.ts'

const RADIUS = 80

/** A ball with hair that lies one way round it, in triangles of 2 mm. */
function ball(
  hair: TrueSkin['hair'],
  colour: TrueSkin['colour'] = () => [0.45, 0.32, 0.26],
): TrueSkin {
  const [rings, round] = [60, 120]
  const positions: number[] = []
  const indices: number[] = []
  // The cap that faces z, within 60°.
  for (let i = 0; i <= rings; i++)
    for (let k = 0; k < round; k++) {
      const off = (i / rings) * 1.05
      const way = (2 * Math.PI * k) / round
      positions.push(RADIUS * Math.sin(off) * Math.cos(way), RADIUS * Math.sin(off) * Math.sin(way), RADIUS * Math.cos(off)) // prettier-ignore
    }
  const at = (i: number, k: number) => i * round + (k % round)
  for (let i = 0; i < rings; i++)
    for (let k = 0; k < round; k++) {
      indices.push(at(i, k), at(i + 1, k), at(i + 1, k + 1))
      if (i > 0) indices.push(at(i, k), at(i + 1, k + 1), at(i, k + 1))
    }
  const p = Float32Array.from(positions)
  return {
    ...{ positions: p, normals: p.map((v) => v / RADIUS), indices: Uint32Array.from(indices) },
    ...{ hairSpreadDeg: 8, hair, colour },
  }
}
const frameAt = (normal: Vec3) => {
  const a = unit(cross([0, 1, 0], normal))
  return { a, b: cross(normal, a), normal }
}
const SIZE = 700
const poseFrom = (yaw: number): Pose => ({
  ...{ rotation: lookingFrom(yaw), shift: [0, 0, 320], focal: 1800, centre: [SIZE / 2, SIZE / 2] },
})
const wish = (yaw: number, over: Partial<PhotoWish> = {}): PhotoWish => ({
  ...{ pose: poseFrom(yaw), width: SIZE, height: SIZE, light: [0.3, 0.6, 1], soft: 0.7 },
  ...{ blurPx: 0.7, noise: 0.012, shadow: 0 },
  ...over,
})
const stubble = (bearing: number, lift: number): TrueSkin['hair'] => ({ normal }) => ({
  ...{ direction: hairAlong(frameAt(normal), bearing, lift), lengthMm: 0.9, perCm2: 45 },
  ...{ widthMm: 0.09, tone: 0.25 },
}) // prettier-ignore

/** Places that all pictures see. */
const PLACES: Vec3[] = [-0.3, 0, 0.3].flatMap((x) => [-0.25, 0.05, 0.3].map((y) => unit([x, y, 1])))
const bytesMean = (rgba: Uint8ClampedArray, at: readonly [number, number], k: number) =>
  rgba[4 * (Math.round(at[1]) * SIZE + Math.round(at[0])) + k]!

/** What a picture shows at each place. */
function linesOf(skin: TrueSkin, yaw: number, seed: number, sd = 5): (SeenLine | undefined)[] {
  const photo = photograph(skin, wish(yaw), mulberry32(seed))
  const perMm = 1800 / 240
  const plane = levelled(brightness(photo.rgba, SIZE, SIZE), Math.round(0.6 * perMm))
  const ridges = ridgesOf(plane, 0.9)
  const reach = 5 * perMm
  return PLACES.map((n) => {
    const at = onPicture(poseFrom(yaw), [RADIUS * n[0], RADIUS * n[1], RADIUS * n[2]])!
    const seen = gathered(ridges, at, reach, (u, v) => u * u + v * v < reach * reach, 8)
    return seen && seenLine(poseFrom(yaw), at, seen.degrees, sd)
  })
}
const apart = (x: number, y: number) => Math.abs(((x - y + 540) % 360) - 180)

it('shows what faces the camera, where the camera says, in the light it has', () => {
  const skin = ball(() => undefined)
  const { rgba } = photograph(skin, wish(0, { noise: 0 }), mulberry32(1))
  const middle = onPicture(poseFrom(0), [0, 0, RADIUS])!
  expect(middle).toEqual([SIZE / 2, SIZE / 2])
  expect(bytesMean(rgba, middle, 0)).toBeGreaterThan(bytesMean(rgba, middle, 2))
  // Brighter towards the light, which stands above.
  const up = onPicture(poseFrom(0), [0, 45, 66])!
  const down = onPicture(poseFrom(0), [0, -45, 66])!
  expect(up[1]).toBeLessThan(down[1])
  expect(bytesMean(rgba, up, 1)).toBeGreaterThan(bytesMean(rgba, down, 1))
  // The same seed is the same picture.
  const again = photograph(skin, wish(0, { noise: 0 }), mulberry32(1))
  expect(Buffer.compare(Buffer.from(again.rgba), Buffer.from(rgba))).toBe(0)
})

it('three pictures of stubble are read back: direction, lift and root end, without a stroke', () => {
  const errors: number[] = []
  const lifts: number[] = []
  let sure = 0
  let wrong = 0
  let all = 0
  for (const [bearing, lift] of [
    [70, 30],
    [200, 45],
    [310, 20],
  ] as const) {
    const skin = ball(stubble(bearing, lift))
    const pictures = [-38, 0, 38].map((yaw, i) => linesOf(skin, yaw, 10 * bearing + i))
    PLACES.forEach((normal, p) => {
      const lines = pictures.flatMap((of) => of[p] ?? [])
      if (lines.length < 2) return
      all++
      const found = hairOf(lines, frameAt(normal), { lift: 35, sd: 12 })
      errors.push(Math.min(apart(found.bearing, bearing), apart(found.bearing, bearing + 180)))
      if (found.margin <= 6) return
      sure++
      lifts.push(Math.abs(found.lift - lift))
      if (apart(found.bearing, bearing) > 90) wrong++
    })
  }
  expect(all).toBe(27)
  expect(median(errors)!).toBeLessThan(4)
  expect(median(lifts)!).toBeLessThan(8)
  expect(sure).toBeGreaterThan(10)
  expect(wrong).toBe(0)
})

it('a lift that is taken for nought reads slanted skin wrong, as it should', () => {
  const skin = ball(stubble(80, 45))
  const lines = linesOf(skin, -38, 5)
  const off = (lift: number) =>
    median(
      PLACES.flatMap((normal, p) => {
        const line = lines[p]
        if (!line || dot(line.view, normal) > -0.5) return []
        return [Math.min(90, ...bearingsOf(line, frameAt(normal), lift).map((b) => apart(b, 80)))]
      }),
    )!
  expect(off(45)).toBeLessThan(8)
  expect(off(0)).toBeGreaterThan(2 * off(45))
})
