import { productLooks } from './productLooks.ts'

describe('looks after products', () => {
  const visits = [
    { visitId: 'a', products: ['balm'], bumps: { chin: 2, 'jaw-left': 1 } },
    { visitId: 'b', products: ['splash'], bumps: null },
  ]

  it('tell how it felt, by what was used then; who said nothing of it tells nothing', () => {
    const looks = [
      { visitId: 'b', answer: { feeling: { stinging: 6 } } },
      { visitId: 'b', answer: { feeling: { itch: 2 } } },
      { visitId: 'a', answer: {} },
    ]
    expect(productLooks(visits, looks)).toEqual([
      { products: ['splash'], stinging: 6, dryness: undefined },
      { products: ['balm'], bumps: 3 },
    ])
  })
})
