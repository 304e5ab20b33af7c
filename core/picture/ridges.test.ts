/** Lines of known angle: gratings, single hairs, stubble drawn by chance; bare skin has none. */
import { drawNormal, median, mulberry32 } from '../stats/index.ts'
import { brightness, gathered, levelled, type Plane, ridgesOf } from './ridges.ts'

const N = 96
const RAD = Math.PI / 180
const drawn = (of: (x: number, y: number) => number): Plane => ({
  ...{ width: N, height: N },
  values: Float32Array.from({ length: N * N }, (_, i) => of(i % N, Math.floor(i / N))),
})
const whole = (plane: Plane, sigma = 0.9, dark = true) =>
  gathered(ridgesOf(levelled(plane, 6), sigma, dark), [N / 2, N / 2], 36, (x, y) => x * x + y * y < 36 ** 2, 9) // prettier-ignore
const apart = (a: number, b: number) => Math.abs(((a - b + 270) % 180) - 90)

/** Dark hairs on lighter skin, each a little off one direction. */
function stubble(
  seed: number,
  degrees: number,
  { many = 60, spread = 8, noise = 0.012 } = {},
): Plane {
  const random = mulberry32(seed)
  const values = new Float32Array(N * N).fill(0.7)
  for (let h = 0; h < many; h++) {
    const [x, y] = [N * random(), N * random()]
    const angle = (degrees + spread * drawNormal(random)) * RAD
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    for (let j = Math.max(0, Math.floor(y - 9)); j < Math.min(N, y + 9); j++)
      for (let i = Math.max(0, Math.floor(x - 9)); i < Math.min(N, x + 9); i++) {
        const along = (i - x) * c + (j - y) * s
        const off = (j - y) * c - (i - x) * s
        const ends = 1 / (1 + Math.exp(3 * (Math.abs(along) - 4)))
        values[j * N + i]! -= 0.35 * ends * Math.exp((-off * off) / (2 * 0.7 * 0.7))
      }
  }
  for (let i = 0; i < values.length; i++) values[i]! += noise * drawNormal(random)
  return { width: N, height: N, values }
}

it('a grating has its own angle, to a fifth of a degree', () => {
  for (let degrees = 0; degrees < 180; degrees += 7) {
    const [c, s] = [Math.cos(degrees * RAD), Math.sin(degrees * RAD)]
    const seen = whole(
      drawn((x, y) => 0.5 + 0.2 * Math.cos((2 * Math.PI * (y * c - x * s)) / 7)),
      1.2,
    )!
    expect(apart(seen.degrees, degrees)).toBeLessThan(0.2)
    expect(seen.unity).toBeGreaterThan(0.99)
  }
})

it('stubble of sixty hairs that each lie 8° off is read within a degree or two, and says how sure it is', () => {
  const off: number[] = []
  let within = 0
  for (let seed = 1; seed <= 60; seed++) {
    const degrees = (seed * 37) % 180
    const seen = whole(stubble(seed, degrees))!
    off.push(apart(seen.degrees, degrees))
    // Its own spread is too small by about two, as a hair lies in several blocks.
    if (apart(seen.degrees, degrees) < 2 * 1.2816 * seen.sd) within++
  }
  expect(median(off)!).toBeLessThan(2)
  expect(Math.max(...off)).toBeLessThan(6)
  expect(within / 60).toBeGreaterThan(0.7)
})

it('light hair on dark skin is read where it is asked for', () => {
  const light = stubble(3, 40)
  const turned = { ...light, values: light.values.map((v) => 1 - v) }
  expect(apart(whole(turned, 0.9, false)!.degrees, 40)).toBeLessThan(4)
})

it('bare skin, even or with noise, shows no way that all of it goes', () => {
  expect(whole(drawn(() => 0.6))).toBeUndefined()
  const random = mulberry32(5)
  const seen = whole(drawn(() => 0.6 + 0.004 * drawNormal(random)))
  expect(seen?.unity ?? 0).toBeLessThan(0.15)
})

it('uneven light is levelled: a shadow across the face does not turn the hair', () => {
  const hair = stubble(9, 110)
  const shaded = { ...hair, values: hair.values.map((v, i) => v * (0.5 + (0.5 * (i % N)) / N)) }
  expect(apart(whole(shaded)!.degrees, whole(hair)!.degrees)).toBeLessThan(1.5)
})

it('brightness weighs green most, as skin and hair differ most there', () => {
  const one = (r: number, g: number, b: number) => brightness(Uint8Array.of(r, g, b, 255), 1, 1).values[0]! // prettier-ignore
  expect(one(255, 255, 255)).toBeCloseTo(1, 6)
  expect(one(0, 255, 0)).toBeGreaterThan(one(255, 0, 0) + one(0, 0, 255))
})
