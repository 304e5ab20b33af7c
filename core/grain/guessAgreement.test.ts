/** Guesses are held while what was read agrees with them (figures of M3, by hand). */
import { DEFAULTS } from '../house/index.ts'
import type { FieldReading } from './field.ts'
import { GuessAgreement } from './guessAgreement.ts'

const UP = [0, 1, 0] as const
const guess = (area: string | undefined): FieldReading => ({
  ...{ id: 'g', point: [0, 0, 0], normal: UP, tangent: [1, 0, 0], weight: 0.05, area },
})
const read = (deg: number): FieldReading => ({
  ...{ id: 'r', point: [0, 0, 0], normal: UP, weight: 1 },
  tangent: [Math.cos((deg * Math.PI) / 180), 0, -Math.sin((deg * Math.PI) / 180)],
})
const heard = (...told: (readonly [area: string | undefined, deg: number, times: number])[]) => {
  const agreement = new GuessAgreement(DEFAULTS)
  for (const [area, deg, times] of told)
    for (let i = 0; i < times; i++) agreement.add(guess(area), read(deg), 1)
  return agreement
}

describe('guesses', () => {
  it('are believed before anything is read', () => {
    expect(new GuessAgreement(DEFAULTS).believed()('face')).toBe(true)
  })

  it('are held where readings agree by 0.75 and more, given four expected at 0.7', () => {
    // (n c + 4 · whole) / (n + 4) of the area, where whole = (n c + 2.8) / (n + 4): two at 25° make 0.85.
    expect(heard(['face', 25, 2]).believed()('face')).toBe(true)
    // Two at 45°: whole 0.702, the area 0.704.
    expect(heard(['face', 45, 2]).believed()('face')).toBe(false)
    expect(heard(['face', 90, 1]).believed()('face')).toBe(false)
    expect(heard(['face', 180, 3]).believed()('face')).toBe(false)
  })

  it('are judged by the whole head where an area has no readings, and by its own where it has', () => {
    const agreement = heard(['face', 0, 5], ['neck', 180, 2])
    // Whole: (5 − 2 + 2.8) / 11 = 0.53; face: (5 + 4 · 0.53) / 9 = 0.79; neck: (−2 + 2.1) / 6.
    const believed = agreement.believed()
    expect(['face', 'neck', 'crown'].map(believed)).toEqual([true, false, false])
    // With nothing read against them the rest is held too: (5 + 2.8) / 9 = 0.87.
    expect(heard(['face', 0, 5]).believed()('crown')).toBe(true)
  })

  it('give way for good at sixteen readings, and come back as readings go', () => {
    expect(heard(['face', 0, 15]).believed()('face')).toBe(true)
    const all = heard(['face', 0, 16])
    expect(all.believed()('face')).toBe(false)
    all.add(guess('face'), read(0), -1)
    expect(all.believed()('face')).toBe(true)
    const against = heard(['face', 180, 1])
    expect(against.believed()('face')).toBe(false)
    against.add(guess('face'), read(180), -1)
    expect(against.believed()('face')).toBe(true)
  })

  it('without an area belong together', () => {
    expect(heard([undefined, 180, 2]).believed()('')).toBe(false)
  })

  it('are carried to where the reading lies before they are compared', () => {
    const agreement = new GuessAgreement(DEFAULTS)
    // Round a quarter of a cylinder: what ran along x runs down there, and agrees.
    for (let i = 0; i < 2; i++)
      agreement.add(guess('face'), { ...read(0), normal: [1, 0, 0], tangent: [0, -1, 0] }, 1)
    expect(agreement.believed()('face')).toBe(true)
  })
})
