import { DEFAULTS } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { USUAL_PRODUCTS } from './products.ts'
import { effectWords, rankProducts } from './rankProducts.ts'

const AFTER = USUAL_PRODUCTS.filter((p) => p.use === 'after')
const order = (skin: object = {}, looks: Parameters<typeof rankProducts>[3] = []) =>
  rankProducts(DEFAULTS, AFTER, { ...SKIN, ...skin }, looks)

describe('products by what they do', () => {
  it('plain balm is kindest, a splash with alcohol and scent harshest', () => {
    const ranked = order()
    expect(ranked[0]!.product.id).toBe('balm-plain')
    expect(ranked.at(-1)!.product.id).toBe('splash')
    expect(ranked.at(-1)!.why.join()).toMatch(/^by its alcohol and fragrance/)
    expect(ranked[0]!.why).toEqual([])
    expect(effectWords(ranked[0]!)).toBeUndefined()
    expect(effectWords(ranked.at(-1)!)).toBe('stings much, dries much')
  })

  it('reactive and dry skin makes it worse', () => {
    const of = (skin: object) => order(skin).find((r) => r.product.id === 'splash')!
    expect(of({ reactivity: 'reactive' }).sting).toBeGreaterThan(of({}).sting)
    expect(of({ type: 'dry' }).dryness).toBeGreaterThan(of({}).dryness)
  })

  it('oil on oily skin brings bumps, balm on dry skin keeps it moist', () => {
    const oil = USUAL_PRODUCTS.filter((p) => p.id === 'oil-plain')
    const of = (type: 'oily' | 'normal') => rankProducts(DEFAULTS, oil, { ...SKIN, type }, [])[0]!
    expect(of('oily').bumps).toBeGreaterThan(of('normal').bumps)
  })

  it('the client’s own record moves it: by hand, four looks of the estimate and two of theirs', () => {
    const looks = [9, 7].map((stinging) => ({ products: ['balm-plain'], stinging }))
    const balm = order({}, looks).find((r) => r.product.id === 'balm-plain')!
    expect(balm.sting).toBeCloseTo((4 * 0.5 + 16) / 6, 9)
    expect(balm.looks).toBe(2)
    expect(balm.why.join()).toMatch(/2 looks of this client/)
    const many = Array.from({ length: 20 }, () => looks[0]!)
    expect(order({}, many)[0]!.product.id).not.toBe('balm-plain')
  })
})
