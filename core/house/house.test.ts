import { CONSTANT_REGISTER } from './register.ts'
import { DEFAULT_SCHOOLS, SCHOOL_IDS, SCHOOLS, schoolWords } from './schools.ts'

describe('the register of constants', () => {
  const all = CONSTANT_REGISTER.flatMap((a) =>
    Object.entries(a.constants).map(([key, c]) => ({ id: `${a.id}.${key}`, ...c })),
  )

  it('marks every constant, says what it is, and names the source of what is published', () => {
    expect(all.length).toBeGreaterThan(100)
    for (const c of all) {
      expect([c.id, Number.isFinite(c.value)]).toEqual([c.id, true])
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
