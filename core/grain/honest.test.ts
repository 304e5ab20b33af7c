/** What is told of the grain is right in the share it claims (M17): hidden fields, readers of 5 to 30°, fixed seeds. */
import { DEFAULTS } from '../house/index.ts'
import { unit, type Vec3 } from '../head/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import {
  bareGround,
  degBetween,
  guessErrors,
  guessGround,
  withinHeld,
} from '../testing/honest/grain.ts'
import { lanesHeld } from '../testing/honest/lanes.ts'
import { errorDeg, readerSpreadDeg, withinDeg } from './confidence.ts'
import { GrainField, type FieldReading } from './field.ts'
import { fieldAt } from './sample.ts'
import { hiddenField, noisyReadings, skinPoints, turned } from './trials.ts'

describe('"within X°"', () => {
  it.each([5, 10, 20, 30])('holds for two of three places for a reader of %d°', (noise) => {
    let [held, places] = [0, 0]
    for (const readings of [16, 48]) {
      const told = withinHeld(1000 * noise + readings, 4, readings, noise)
      held += told.held * told.places
      places += told.places
    }
    // Rounding up to a told figure makes it a little surer than it says.
    expect(held / places).toBeGreaterThan(0.66)
    expect(held / places).toBeLessThan(0.92)
  })

  it('says more of a noisy reader than of a careful one', () => {
    const surest = (noise: number) => {
      const { by } = withinHeld(1000 * noise, 1, 64, noise)
      return Math.min(...Object.keys(by).map(Number))
    }
    expect(surest(5)).toBeLessThanOrEqual(5)
    expect(surest(30)).toBeGreaterThan(10)
  })

  it('leaves readings out one by one in closed form as if they were taken out', () => {
    const random = mulberry32(3)
    const read = noisyReadings(
      hiddenField(random),
      skinPoints(HEAD.display, 14, random),
      0.3,
      random,
    )
    const field = new GrainField(DEFAULTS, bareGround())
    field.setAll(read)
    const residuals = field.residuals()
    expect(residuals.size).toBe(14)
    for (const r of read.slice(0, 6)) {
      field.take(r.id)
      const there = fieldAt(bareGround(), field.answer(), r).direction
      field.put(r)
      // The closed form speaks of the corners' sum, the place of their mean direction: near enough the same.
      expect((residuals.get(r.id)! * 180) / Math.PI).toBeCloseTo(degBetween(there, r.tangent), -1)
    }
  })

  it('knows a reader by their residuals and by what was known before', () => {
    const few = Array.from({ length: 4 }, () => 0.05)
    const many = Array.from({ length: 80 }, () => 0.05)
    const deg = (0.05 * 180) / Math.PI
    expect(readerSpreadDeg(DEFAULTS, [], 12)).toBe(12)
    // Four readings weigh as much as what is expected of anybody: the geometric mean.
    expect(readerSpreadDeg(DEFAULTS, few, undefined)).toBeCloseTo(Math.sqrt(18 * deg), 6)
    expect(readerSpreadDeg(DEFAULTS, many, 12)).toBeLessThan(1.25 * deg)
    expect([0.7, 0.3, 0.1, 0.03].map((t) => errorDeg(DEFAULTS, t, 20))).toEqual([
      expect.closeTo(9),
      expect.closeTo(11),
      expect.closeTo(14),
      expect.closeTo(18),
    ])
    expect(errorDeg(DEFAULTS, 0.01, 20)).toBeNaN()
  })

  it('is not surest where one of six readings says the opposite', () => {
    const { centre } = ZONES.find((z) => z.id === 'cheek-lower-left')!
    const down = unit([0, -1, 0])
    const at = (i: number, tangent: Vec3): FieldReading => ({
      ...centre,
      id: `r${i}`,
      tangent,
      weight: 1,
    })
    const told = (last: Vec3) => {
      const field = new GrainField(DEFAULTS, bareGround())
      field.setAll([0, 1, 2, 3, 4].map((i) => at(i, turned(down, centre.normal, 0.02 * (i - 2)))))
      field.put(at(5, last))
      return withinDeg(fieldAt(bareGround(), field.told(), centre).errorDeg)
    }
    expect(told(down)).toBeLessThanOrEqual(10)
    expect(told(turned(down, centre.normal, Math.PI))).toBeGreaterThanOrEqual(30)
  })
})

describe('starting guesses', () => {
  it.each(['unlike', 'like', 'neck-unlike'] as const)(
    'lose nothing on heads that are %s',
    (kind) => {
      for (const readings of [4, 8]) {
        const { withGuesses, without, kernel } = guessErrors(500 + readings, 6, readings, kind)
        expect(withGuesses).toBeLessThan(without + 1)
        expect(withGuesses).toBeLessThan(kernel)
      }
    },
  )

  it('give way to an old, lonely reading that says otherwise', () => {
    const guess = guessGround().guesses.find(
      (g) => g.reading.id === 'guess:neck-lower-left',
    )!.reading
    const far = guessGround().guesses.find(
      (g) => g.reading.id === 'guess:neck-upper-right',
    )!.reading
    const field = new GrainField(DEFAULTS, guessGround())
    // Three years old: it weighs hardly more than nothing.
    const old = turned(guess.tangent, guess.normal, Math.PI * 0.8)
    field.put({ ...guess, id: 'old', tangent: old, weight: 0.02 })
    expect(degBetween(fieldAt(guessGround(), field.answer(), guess).direction, old)).toBeLessThan(8)
    field.take('old')
    expect(
      degBetween(fieldAt(guessGround(), field.answer(), far).direction, far.tangent),
    ).toBeLessThan(40)
  })
})

it('nine tenths of a lane lie within what it tells, though whoever read it errs', () => {
  const found = [10, 20].flatMap((noise) =>
    [32, 72].map((readings) => lanesHeld(100 * noise + readings, 2, readings, noise).held),
  )
  const mean = found.reduce((s, v) => s + v, 0) / found.length
  expect(mean).toBeGreaterThan(0.86)
  expect(mean).toBeLessThan(0.96)
  for (const held of found) expect(held).toBeGreaterThan(0.8)
})
