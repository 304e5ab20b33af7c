import { DEFAULTS } from '../house/index.ts'
import { corrected, calibrateProbe } from './probe.ts'
import { cooled, timeConstantMin, timeTo, towelNow, towelPlan, TOWEL_CONSTANTS } from './towel.ts'
import { meanwhile, soakLeftMs } from './meanwhile.ts'
import { BEFORE_START } from './state.ts'
import fc from 'fast-check'

const temperature = fc.double({ min: 30, max: 80, noNaN: true })
const tau = fc.double({ min: 1, max: 12, noNaN: true })

/** Newton's law of cooling, dT/dt = −(T − T_air)/τ, by fourth-order Runge–Kutta steps of a second. */
function byStep(fromC: number, airC: number, tauMin: number, ms: number): number {
  const h = 1 / 60
  const f = (t: number) => -(t - airC) / tauMin
  let t = fromC
  for (let s = 0; s < ms / 1000; s++) {
    const a = f(t)
    const b = f(t + (h / 2) * a)
    const c = f(t + (h / 2) * b)
    const d = f(t + h * c)
    t += (h / 6) * (a + 2 * b + 2 * c + d)
  }
  return t
}

describe('a towel (M12)', () => {
  it("follows Newton's law: the closed form equals the stepped equation", () => {
    fc.assert(
      fc.property(temperature, tau, fc.integer({ min: 0, max: 900 }), (from, t, seconds) => {
        expect(cooled(from, 22, t, 1000 * seconds)).toBeCloseTo(
          byStep(from, 22, t, 1000 * seconds),
          6,
        )
      }),
    )
  })

  it('says when a temperature is reached', () => {
    fc.assert(
      fc.property(temperature, tau, (from, t) => {
        const ms = timeTo(from, 28, 22, t)
        expect(cooled(from, 22, t, ms)).toBeCloseTo(28, 9)
      }),
    )
    expect(timeTo(40, 45, 22, 5)).toBe(0)
    expect(timeTo(40, 22, 22, 5)).toBe(Infinity)
    // By hand: 60 → 45 °C in air of 22 °C, τ 5 min: 5 · ln(38/23) = 2.5105 min.
    expect(timeTo(60, 45, 22, 5) / 60_000).toBeCloseTo(2.5105, 4)
  })

  it('finds the time constant of any towel from two readings', () => {
    fc.assert(
      fc.property(temperature, tau, fc.integer({ min: 20, max: 400 }), (from, t, seconds) => {
        const second = { atMs: 1000 * seconds, tempC: cooled(from, 22, t, 1000 * seconds) }
        expect(timeConstantMin({ atMs: 0, tempC: from }, second, 22)).toBeCloseTo(t, 6)
      }),
    )
  })

  it.each([
    ['warming', { atMs: 60_000, tempC: 60 }],
    ['at once', { atMs: 0, tempC: 50 }],
    ['colder than the room', { atMs: 60_000, tempC: 20 }],
  ])('refuses readings that show no cooling: %s', (_name, second) => {
    expect(() => timeConstantMin({ atMs: 0, tempC: 55 }, second, 22)).toThrow('cooling')
  })

  it('nobody has read is laid later than one that was: its margin counts', () => {
    const guessed = towelPlan(DEFAULTS, { outAtMs: 0, reads: [] }, 0)
    const read = towelPlan(
      DEFAULTS,
      { outAtMs: 0, reads: [{ atMs: 0, tempC: 60, withinC: 0.5 }] },
      0,
    )
    expect(guessed.now).toMatchObject({ by: 'estimate', tempC: TOWEL_CONSTANTS.startC.byDefault })
    expect(read.now.by).toBe('probe')
    expect(guessed.waitMs).toBeGreaterThan(read.waitMs)
    // By hand: 60.5 → 45: 5 · ln(38.5/23) min.
    expect(read.waitMs / 60_000).toBeCloseTo(5 * Math.log(38.5 / 23), 4)
  })

  it('cools by its own time constant after two readings, and faster once it is opened', () => {
    const at = (s: number) => ({ atMs: 1000 * s, tempC: cooled(62, 22, 8, 1000 * s), withinC: 0.3 })
    const towel = { outAtMs: 0, reads: [at(0), at(60)] }
    expect(towelNow(DEFAULTS, towel, 60_000).tauMin).toBeCloseTo(8, 6)
    expect(towelNow(DEFAULTS, towel, 180_000).tempC).toBeCloseTo(cooled(62, 22, 8, 180_000), 6)
    const laid = { ...towel, laidAtMs: 180_000 }
    const before = towelNow(DEFAULTS, laid, 180_000).tempC
    expect(towelNow(DEFAULTS, laid, 240_000).tempC).toBeCloseTo(cooled(before, 22, 3, 60_000), 6)
    const warm = towelPlan(DEFAULTS, laid, 180_000).warmthMs
    expect(towelNow(DEFAULTS, laid, 180_000 + warm).tempC).toBeCloseTo(
      TOWEL_CONSTANTS.offC.byDefault,
      6,
    )
  })

  it('is never said to be layable above the limit, whatever was read', () => {
    const reads = fc.array(
      fc.record({
        atMs: fc.integer({ min: 0, max: 600_000 }),
        tempC: fc.double({ min: -10, max: 100, noNaN: true }),
        withinC: fc.double({ min: 0, max: 5, noNaN: true }),
      }),
      { maxLength: 5 },
    )
    fc.assert(
      fc.property(reads, fc.integer({ min: 0, max: 900_000 }), (list, now) => {
        const plan = towelPlan(DEFAULTS, { outAtMs: 0, reads: list }, now)
        if (plan.waitMs === 0) expect(plan.now.tempC + plan.now.marginC).toBeLessThanOrEqual(45)
        expect(plan.waitMs).toBeGreaterThanOrEqual(0)
      }),
    )
  })

  it('leaves time for what is not yet done, in turn', () => {
    const all = meanwhile(DEFAULTS, BEFORE_START, 80_000)
    expect(all.map((t) => [t.id, t.fits])).toEqual([
      ['cold', true],
      ['lay-out', true],
      ['lather', false],
      ['soak', false],
    ])
    const some = meanwhile(
      DEFAULTS,
      { ...BEFORE_START, prepared: ['lay-out'], soakedAtMs: 0 },
      999_999,
    )
    expect(some.map((t) => t.id)).toEqual(['cold', 'lather'])
    expect(soakLeftMs(DEFAULTS, BEFORE_START, 5)).toBeUndefined()
    expect(soakLeftMs(DEFAULTS, { ...BEFORE_START, soakedAtMs: 0 }, 60_000)).toBe(540_000)
  })
})

describe('the probe', () => {
  it('is put right by two known temperatures, exactly', () => {
    const off = fc.double({ min: -4, max: 4, noNaN: true })
    const gain = fc.double({ min: 0.92, max: 1.08, noNaN: true })
    fc.assert(
      fc.property(off, gain, temperature, (offset, g, t) => {
        const shows = (c: number) => g * c + offset
        const c = calibrateProbe(DEFAULTS, shows(0), { knownC: 40, showsC: shows(40) }, 0)
        expect(corrected(DEFAULTS, shows(t), c, 0).tempC).toBeCloseTo(t, 6)
      }),
    )
  })

  it('by ice alone is right at nought, says how far it may have drifted, and refuses a broken one', () => {
    const c = calibrateProbe(DEFAULTS, 1.8, undefined, 0)
    expect(corrected(DEFAULTS, 1.8, c, 0)).toEqual({ tempC: 0, withinC: 0.3 })
    expect(corrected(DEFAULTS, 1.8, c, 100 * 86_400_000).withinC).toBeCloseTo(3.3, 9)
    expect(corrected(DEFAULTS, 50, undefined, 0)).toEqual({ tempC: 50, withinC: 3.3 })
    expect(() => calibrateProbe(DEFAULTS, 30, undefined, 0)).toThrow('too far off')
    expect(() => calibrateProbe(DEFAULTS, 1, { knownC: 40, showsC: 1 }, 0)).toThrow('too far off')
  })
})
