import fc from 'fast-check'
import { capital, listWords, lowerFirst } from './words.ts'

describe('words', () => {
  it('are listed as one says them', () => {
    expect(['a'].map((w) => listWords([w]))).toEqual(['a'])
    expect(listWords(['chin', 'jaw'])).toBe('chin and jaw')
    expect(listWords(['chin', 'jaw', 'neck'])).toBe('chin, jaw and neck')
    expect(listWords([])).toBe('')
  })

  it('change their first letter and nothing else', () => {
    expect(capital('with the grain')).toBe('With the grain')
    expect(lowerFirst("Upper lip, client's left")).toBe("upper lip, client's left")
    fc.assert(
      fc.property(fc.string(), (s) => {
        expect(capital(s).slice(1)).toBe(s.slice(1))
        expect(lowerFirst(capital(s)).toLowerCase()).toBe(s.toLowerCase())
      }),
    )
  })
})
