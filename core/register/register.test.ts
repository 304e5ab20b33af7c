import { SKIN_CONSTANTS, LOAD_CONSTANTS } from '../skin/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS, SCHOOL_IDS, SCHOOLS, schoolWords } from '../house/index.ts'
import { figuresOf, checkFigure, CONSTANT_REGISTER, FIXED_FIGURES } from './register.ts'

describe('the register of constants', () => {
  const all = CONSTANT_REGISTER.flatMap((a) =>
    Object.entries(a.constants).map(([key, c]) => ({ id: `${a.id}.${key}`, ...c })),
  )

  it('marks every constant, says what it is, and names the source of what is published', () => {
    expect(all.length).toBeGreaterThan(100)
    for (const c of all) {
      expect([c.id, Number.isFinite(c.byDefault)]).toEqual([c.id, true])
      expect(c.text.length).toBeGreaterThan(8)
      if (c.mark === 'P') expect([c.id, c.source]).toEqual([c.id, expect.stringMatching(/.+/)])
    }
  })

  it('names each area once', () => {
    expect(new Set(CONSTANT_REGISTER.map((a) => a.id)).size).toBe(CONSTANT_REGISTER.length)
  })
})

describe('the schools', () => {
  it('each have a default and at least two choices, all with words', () => {
    for (const id of SCHOOL_IDS) {
      const { choices } = SCHOOLS[id]
      expect(choices.length).toBeGreaterThanOrEqual(2)
      expect(new Set(choices.map((c) => c.id)).size).toBe(choices.length)
      expect(schoolWords(id, DEFAULT_SCHOOLS[id])).toBe(choices[0].text)
    }
  })
})

describe('the house’s own figures', () => {
  it('count in place of the defaults, for those who are given them', () => {
    const [guarded, normal] = [LOAD_CONSTANTS.guarded, SKIN_CONSTANTS.rednessLimit]
    const own = figuresOf({ 'load.guarded': 0.7, 'no.such': 3 })
    expect([own(guarded), DEFAULTS(guarded), guarded.byDefault]).toEqual([0.7, 0.8, 0.8])
    expect(own(normal)).toBe(normal.byDefault)
    expect(figuresOf({})(guarded)).toBe(0.8)
  })

  it('can be changed one and all, but for what a model is built on', () => {
    for (const area of CONSTANT_REGISTER) {
      for (const [key, c] of Object.entries(area.constants)) {
        const id = `${area.id}.${key}`
        if (FIXED_FIGURES.has(id)) expect(() => checkFigure(id, c.byDefault)).toThrow('built in')
        else expect(checkFigure(id, c.byDefault)).toBe(c)
      }
    }
    expect(() => checkFigure('load.guarded', 900)).toThrow('is not between')
    expect(() => checkFigure('load.guarded', Number.NaN)).toThrow('is not between')
    expect(() => checkFigure('skin.rednessLimit', 1.5)).toThrow('is not between')
    expect(checkFigure('skin.rednessLimit', null).byDefault).toBe(0.2)
  })
})
