import { DEFAULTS } from '../house/index.ts'
import { corrected, calibrateProbe } from './probe.ts'
import { cooled, timeTo, towelNow, towelPlan, TOWEL_CONSTANTS } from './towel.ts'
import { meanwhile, soakLeftMs } from './meanwhile.ts'
import { BEFORE_START } from './state.ts'
import { drawNormal, mulberry32 } from '../stats/index.ts'
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

  /** A towel as it truly is, in a room as it truly is. */
  const drawTowel = (random: () => number) => {
    const [tau, air, start] = [3 + 6 * random(), 15 + 15 * random(), 60 + 3 * drawNormal(random)]
    return { tau, air, start, at: (ms: number) => cooled(start, air, tau, ms) }
  }

  it.each([
    ['nobody has read, in the worst rooms too', 0, 0, 0.4],
    ['read once', 1, 0, 0.4],
    ['read twice in a hurry', 2, 20, 0.4],
    ['read twice, a minute apart', 2, 60, 0.4],
    ['read by a thermometer of the kitchen', 2, 60, 1],
    ['read twice by a probe that was never calibrated', 2, 60, 3.3],
    ['read four times', 4, 40, 0.4],
  ])(
    'that is told ready is above 46 °C at most once in 1 000, never above 47: %s',
    (_name, count, apartS, withinC) => {
      const random = mulberry32(17 + count + apartS)
      const towels = 1000
      let [above, extraMs] = [0, 0]
      for (let i = 0; i < towels; i++) {
        const { tau, air, start, at } = drawTowel(random)
        // The probe's own error is in all its readings; noise is in each.
        const own = 0.4 * withinC * drawNormal(random)
        const firstMs = 20_000 * random()
        const reads = Array.from({ length: count }, (_, k) => {
          const atMs = firstMs + 1000 * apartS * k
          return { atMs, tempC: at(atMs) + own + 0.3 * withinC * drawNormal(random), withinC }
        })
        const last = reads[reads.length - 1]?.atMs ?? 0
        const readyMs = last + towelPlan(DEFAULTS, { outAtMs: 0, reads }, last).waitMs
        if (at(readyMs) > 46) above++
        expect(at(readyMs)).toBeLessThan(47)
        extraMs += readyMs - Math.max(last, timeTo(start, 45, air, tau))
      }
      expect(above).toBeLessThanOrEqual(towels / 1000)
      // Two readings a minute apart by a calibrated probe cost no more than half a minute over knowing all.
      if (count === 2 && apartS === 60 && withinC === 0.4)
        expect(extraMs / towels / 1000).toBeLessThanOrEqual(30)
    },
    60_000,
  )

  it('is surely below what harms when the wrist may decide, slow towels in warm rooms too', () => {
    const random = mulberry32(3)
    const { wristMs } = towelPlan(DEFAULTS, { outAtMs: 0, reads: [] }, 0)
    const harm = TOWEL_CONSTANTS.harmC.byDefault
    const draws = 20_000
    let above = 0
    for (let i = 0; i < draws; i++) if (drawTowel(random).at(wristMs) > harm) above++
    expect(above / draws).toBeLessThanOrEqual(0.001)
    expect(cooled(64.5, 30, 9, wristMs)).toBeLessThanOrEqual(harm + 1e-6)
    expect(wristMs / 60_000).toBeLessThan(6)
  })

  it('that was read hot keeps the wrist from deciding, and one that was read cool lets it sooner', () => {
    const wrist = (tempC: number) =>
      towelPlan(DEFAULTS, { outAtMs: 0, reads: [{ atMs: 360_000, tempC, withinC: 0.4 }] }, 360_000)
        .wristMs
    expect(towelPlan(DEFAULTS, { outAtMs: 0, reads: [] }, 360_000).wristMs).toBe(0)
    expect(wrist(51)).toBeGreaterThan(0)
    expect(wrist(46)).toBe(0)
    const early = { outAtMs: 0, reads: [{ atMs: 60_000, tempC: 45, withinC: 0.4 }] }
    expect(towelPlan(DEFAULTS, early, 60_000).wristMs).toBe(0)
  })

  it('nobody has read waits longest; each reading shortens the doubt, time since the last one lengthens it', () => {
    const margin = (reads: number, sinceMs: number) => {
      const list = Array.from({ length: reads }, (_, k) => ({
        atMs: 60_000 * k,
        tempC: cooled(60, 22, 5, 60_000 * k),
        withinC: 0.4,
      }))
      const last = list[reads - 1]?.atMs ?? 0
      return towelNow(DEFAULTS, { outAtMs: 0, reads: list }, last + sinceMs).marginC
    }
    expect(margin(1, 0)).toBeLessThan(margin(0, 0))
    // Each at the same moment, with one reading more.
    expect(margin(2, 60_000)).toBeLessThan(margin(1, 120_000))
    expect(margin(3, 60_000)).toBeLessThan(margin(2, 120_000))
    expect(margin(1, 90_000)).toBeGreaterThan(margin(1, 0) + 1)
    expect(margin(2, 120_000)).toBeGreaterThan(margin(2, 10_000))
  })

  it('finds how it cools from its readings, and cools faster once it is opened', () => {
    const at = (s: number) => ({ atMs: 1000 * s, tempC: cooled(62, 22, 8, 1000 * s), withinC: 0.2 })
    const towel = { outAtMs: 0, reads: [at(0), at(60), at(120), at(180)] }
    expect(
      Math.abs(towelNow(DEFAULTS, towel, 180_000).tempC - cooled(62, 22, 8, 180_000)),
    ).toBeLessThan(0.3)
    expect(towelNow(DEFAULTS, towel, 180_000).tauMin).toBeGreaterThan(6)
    const laid = { ...towel, laidAtMs: 180_000 }
    const before = towelNow(DEFAULTS, laid, 180_000).tempC
    const later = towelNow(DEFAULTS, laid, 240_000).tempC
    expect(later).toBeLessThan(cooled(before, 22, 6, 60_000))
    const warm = towelPlan(DEFAULTS, laid, 180_000).warmthMs
    expect(towelNow(DEFAULTS, laid, 180_000 + warm).tempC).toBeCloseTo(
      TOWEL_CONSTANTS.offC.byDefault,
      3,
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
        if (plan.waitMs === 0)
          expect(plan.now.tempC + plan.now.marginC).toBeLessThanOrEqual(45 + 1e-3)
        expect(plan.waitMs).toBeGreaterThanOrEqual(0)
        expect(Number.isFinite(plan.now.tempC)).toBe(true)
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
