/** Poses out of landmarks that are tapped a little off: against the truth they were drawn from. */
import { drawNormal, median, mulberry32 } from '../stats/index.ts'
import {
  degreesApart,
  inCamera,
  lookingFrom,
  onPicture,
  type Pose,
  product,
  rotated,
  rotationOf,
} from './camera.ts'
import { fitPose, type PoseWish, type Tapped, wrongLandmark } from './pose.ts'

/** Landmarks that a face shows from the front and half from the side, mm. */
const FACE: readonly (readonly [string, number, number, number])[] = [
  ['tip of the nose', 0, -37, 117],
  ['chin point', 0, -102, 95],
  ['left eye corner', 47, -1, 66],
  ['right eye corner', -47, -1, 66],
  ['left mouth corner', 28, -69, 80],
  ['right mouth corner', -28, -69, 80],
  ['left temple', 64, 20, 38],
  ['right temple', -64, 20, 38],
  ['root of the nose', 0, 4, 92],
  ['left nose wing', 15, -40, 96],
  ['right nose wing', -15, -40, 96],
  ['left brow', 32, 21, 80],
  ['right brow', -32, 21, 80],
]
const WIDTH = 1600
const WISH: PoseWish = { width: WIDTH, height: 1200, tapPx: 2 }

interface Scene {
  readonly truth: Pose
  readonly tapped: Tapped[]
}

/** A face from somewhere in front, its landmarks tapped some pixels off. */
function scene(seed: number, many: number, offPx: number, faceMm = 0): Scene {
  const random = mulberry32(seed)
  const between = (a: number, b: number) => a + (b - a) * random()
  const truth: Pose = {
    rotation: product(
      rotationOf([0, 0, between(-0.3, 0.3)]),
      lookingFrom(between(-50, 50), between(-25, 15)),
    ),
    shift: [between(-40, 40), between(-40, 40), between(300, 520)],
    focal: 0.72 * WIDTH * Math.exp(0.15 * drawNormal(random)),
    centre: [WIDTH / 2, 600],
  }
  const tapped = FACE.slice(0, many).map(([name, x, y, z]): Tapped => {
    const off = () => faceMm * drawNormal(random)
    const at = onPicture(truth, [x + off(), y + off(), z + off()])!
    const tap = (v: number) => v + offPx * drawNormal(random)
    return { name, point: [x, y, z], at: [tap(at[0]), tap(at[1])] }
  })
  return { truth, tapped }
}
const quantile = (list: readonly number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.floor(q * list.length)]!

describe('a camera', () => {
  it('sees the client’s left at its right, and what is up above', () => {
    const pose: Pose = {
      ...{ rotation: lookingFrom(0), shift: [0, 0, 400], focal: 1000, centre: [500, 400] },
    }
    expect(onPicture(pose, [40, 0, 0])).toEqual([600, 400])
    expect(onPicture(pose, [0, 40, 0])![1]).toBeCloseTo(300, 9)
    expect(inCamera(pose, [0, 0, 100])[2]).toBeCloseTo(300, 9)
    // From the client's left the left ear is near.
    const left = { ...pose, rotation: lookingFrom(90) }
    expect(inCamera(left, [70, 0, 0])[2]).toBeCloseTo(330, 6)
    const above = { ...pose, rotation: lookingFrom(0, 90) }
    expect(inCamera(above, [0, 100, 0])[2]).toBeCloseTo(300, 6)
    expect(onPicture(pose, [0, 0, 500])).toBeUndefined()
  })

  it('turns are rotations: lengths stay, and they undo', () => {
    const turn = rotationOf([0.3, -1.1, 0.7])
    const v = rotated(turn, [3, -4, 12])
    expect(Math.hypot(...v)).toBeCloseTo(13, 9)
    expect(degreesApart(product(turn, rotationOf([-0.3, 1.1, -0.7])), rotationOf([0, 0, 0]))).toBeLessThan(1e-5) // prettier-ignore
    expect(degreesApart(turn, product(rotationOf([0, 0.2, 0]), turn))).toBeCloseTo(11.459, 3)
  })
})

describe('a pose out of landmarks', () => {
  it('is found to the bit where they are tapped exactly, the focal length too', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const { truth, tapped } = scene(seed, 8, 0)
      const { pose, cost } = fitPose(tapped, { ...WISH, focal: truth.focal })
      expect(degreesApart(pose.rotation, truth.rotation)).toBeLessThan(0.01)
      expect(cost).toBeLessThan(1e-6)
    }
  })

  it('eight landmarks 2 px off: nine of ten within 2° and 3 mm on the skin', () => {
    const degrees: number[] = []
    const skin: number[] = []
    for (let seed = 1; seed <= 300; seed++) {
      const { truth, tapped } = scene(seed, 8, 2)
      const { pose } = fitPose(tapped, WISH)
      degrees.push(degreesApart(pose.rotation, truth.rotation))
      // Where the chin would be drawn, against where it is, in mm of the skin there.
      const [u, v] = onPicture(pose, [20, -60, 90])!
      const [a, b] = onPicture(truth, [20, -60, 90])!
      const perMm = truth.focal / inCamera(truth, [20, -60, 90])[2]
      skin.push(Math.hypot(u - a, v - b) / perMm)
    }
    expect(quantile(degrees, 0.9)).toBeLessThan(2)
    expect(quantile(skin, 0.9)).toBeLessThan(3)
    expect(median(degrees)!).toBeLessThan(1)
  })

  it('a focal length that the camera has told is better than a guess', () => {
    const off = (told: boolean) => {
      const all: number[] = []
      for (let seed = 1; seed <= 120; seed++) {
        const { truth, tapped } = scene(seed, 6, 2)
        const { pose } = fitPose(tapped, { ...WISH, ...(told && { focal: truth.focal }) })
        all.push(Math.abs(Math.log(pose.focal / truth.focal)))
      }
      return quantile(all, 0.9)
    }
    expect(off(true)).toBeLessThan(0.5 * off(false))
  })

  it('three landmarks are too few', () => {
    expect(() => fitPose(scene(1, 3, 0).tapped, WISH)).toThrow(RangeError)
  })
})

describe('a landmark that does not belong', () => {
  const spoilt = (seed: number, px: number) => {
    const { tapped } = scene(seed, 8, 2)
    const random = mulberry32(9000 + seed)
    const index = Math.floor(8 * random())
    const way = 2 * Math.PI * random()
    const at = tapped[index]!.at
    tapped[index] = {
      ...tapped[index]!,
      at: [at[0] + px * Math.cos(way), at[1] + px * Math.sin(way)],
    }
    return { tapped, index }
  }

  it('30 px off is named in 95 of 100', () => {
    let named = 0
    for (let seed = 1; seed <= 300; seed++) {
      const { tapped, index } = spoilt(seed, 30)
      if (wrongLandmark(fitPose(tapped, WISH), tapped, WISH)?.index === index) named++
    }
    expect(named / 300).toBeGreaterThanOrEqual(0.95)
  })

  it('of 500 that are as they should be none is suspected', () => {
    let alarms = 0
    for (let seed = 1; seed <= 500; seed++) {
      const { tapped } = scene(3000 + seed, 8, 2)
      if (wrongLandmark(fitPose(tapped, WISH), tapped, WISH)) alarms++
    }
    expect(alarms).toBe(0)
  })

  it('on another face the spread of the face is allowed for', () => {
    let alarms = 0
    for (let seed = 1; seed <= 200; seed++) {
      const { tapped } = scene(5000 + seed, 12, 2, 2.5)
      const wish = { ...WISH, faceMm: 2.5 }
      if (wrongLandmark(fitPose(tapped, wish), tapped, wish)) alarms++
    }
    expect(alarms).toBeLessThanOrEqual(2)
  })
})
