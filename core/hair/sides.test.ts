import { sideDensity, sideWords } from './sides.ts'

describe('left against right', () => {
  it('is told only of pairs of which both sides were', () => {
    expect(sideDensity({})).toBeUndefined()
    expect(
      sideDensity({ 'jaw-left': { density: 'dense' }, chin: { density: 'dense' } }),
    ).toBeUndefined()
  })

  it('is the mean of the steps, set against the side slept on', () => {
    const told = sideDensity({
      'jaw-left': { density: 'sparse' },
      'jaw-right': { density: 'dense' },
      'cheek-lower-left': { density: 'medium' },
      'cheek-lower-right': { density: 'medium' },
    })!
    expect(told).toEqual({ pairs: 2, leftMore: -1 })
    expect(sideWords(told, 'left')).toMatch(/left is thinner, which is the side slept on/)
    expect(sideWords(told, 'right')).toMatch(/not the side slept on/)
    expect(sideWords(told, undefined)).toBe('The client’s left is thinner (2 pairs of zones told).')
    expect(sideWords({ pairs: 1, leftMore: 0 }, 'left')).toMatch(/as dense \(1 pair/)
  })
})
