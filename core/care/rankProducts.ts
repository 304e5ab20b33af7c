/**
 * Products by what they would do to this skin: sting, dryness, bumps. From what they hold and how the skin is (house estimates),
 * and from this client's own record: each look after a visit on which a product was used counts as one more, against a few
 * looks that the estimate weighs.
 */
import type { SkinAndHair } from '../client.ts'
import { constant, type Figures } from '../house/index.ts'
import { listWords } from '../words.ts'
import { FACT_WORDS, type Product, type ProductFact } from './products.ts'

export const RANK_CONSTANTS = {
  looks: constant(
    4,
    'looks',
    'What a product holds weighs as much as so many looks of the client',
    'H',
  ),
} as const

/** What a product does, each 0 (nothing) to 10. */
export interface ProductEffect {
  readonly sting: number
  readonly dryness: number
  readonly bumps: number
}

/** What a fact of a product adds, and by what skin it is made more: common practice in kind, house estimates in size. */
const ADDS: Readonly<Record<ProductFact, Partial<ProductEffect>>> = {
  alcohol: { sting: 4, dryness: 4 },
  fragrance: { sting: 2 },
  acid: { sting: 3, dryness: 1, bumps: -2 },
  'plant-extracts': { sting: 1 },
  nickel: {},
  latex: {},
}
const PLAIN: ProductEffect = { sting: 0.5, dryness: 1, bumps: 2 }

/** A look after a visit on which products were used. */
export interface ProductLook {
  readonly products: readonly string[]
  /** 0 to 10. */
  readonly stinging?: number | undefined
  /** 0 to 3, as it is told. */
  readonly dryness?: number | undefined
  /** Bumps that were counted. */
  readonly bumps?: number | undefined
}

export interface RankedProduct extends ProductEffect {
  readonly product: Product
  /** The sum that it is ranked by: lower is kinder. */
  readonly score: number
  /** Looks of the client that speak of it. */
  readonly looks: number
  readonly why: readonly string[]
}

const TOP_DRYNESS = 3
/** Bumps at which an effect is full. */
const FULL_BUMPS = 12

function expectedOf(product: Product, skin: SkinAndHair): { effect: ProductEffect; why: string[] } {
  const why: string[] = []
  let { sting, dryness, bumps } = PLAIN
  const reactive = skin.reactivity === 'reactive' ? 1.5 : 1
  for (const fact of product.holds) {
    const adds = ADDS[fact]
    sting += reactive * (adds.sting ?? 0)
    dryness += (skin.type === 'dry' || skin.lax ? 1.5 : 1) * (adds.dryness ?? 0)
    bumps += (skin.bumpProne ? 1 : 0.4) * (adds.bumps ?? 0)
  }
  const harsh = product.holds.filter((f) => ADDS[f].sting || ADDS[f].dryness)
  if (harsh.length > 0) why.push(`by its ${listWords(harsh.map((f) => FACT_WORDS[f]))}`)
  if (product.holds.includes('acid')) why.push('its acid frees tips')
  if (reactive > 1 && sting > 2) why.push('on reactive skin more')
  if (/oil/i.test(product.name) && (skin.type === 'oily' || skin.type === 'combination')) {
    bumps += 1.5
    why.push('oil on skin that is oily already')
  }
  if (/oil|balm|cream/i.test(product.name) && skin.type === 'dry') {
    dryness -= 0.8
    why.push('it keeps dry skin from losing more')
  }
  const within = (x: number) => Math.max(0, Math.min(10, x))
  return {
    effect: { sting: within(sting), dryness: within(dryness), bumps: within(bumps) },
    why,
  }
}

const SHARES = [
  [1.5, 'hardly'],
  [4, 'a little'],
  [Infinity, 'much'],
] as const

/** "stings much, dries a little": in words, for no more is known than that. Undefined where it hardly does anything. */
export function effectWords({ sting, dryness, bumps }: ProductEffect): string | undefined {
  const how = (x: number) => SHARES.find(([below]) => x < below)![1]
  const told = [
    ['stings', sting],
    ['dries', dryness],
    ['brings bumps', bumps - PLAIN.bumps],
  ] as const
  const words = told.flatMap(([does, x]) => (how(x) === 'hardly' ? [] : [`${does} ${how(x)}`]))
  return words.length > 0 ? words.join(', ') : undefined
}

/** The kindest first, within each use; alike ones stay as the house lists them. */
export function rankProducts(
  figures: Figures,
  products: readonly Product[],
  skin: SkinAndHair,
  looks: readonly ProductLook[],
): RankedProduct[] {
  const weight = figures(RANK_CONSTANTS.looks)
  return products
    .map((product): RankedProduct => {
      const { effect, why } = expectedOf(product, skin)
      const own = looks.filter((l) => l.products.includes(product.id))
      const learned = (prior: number, of: (l: ProductLook) => number | undefined) => {
        const told = own.flatMap((l) => of(l) ?? [])
        return (weight * prior + told.reduce((s, x) => s + x, 0)) / (weight + told.length)
      }
      const sting = learned(effect.sting, (l) => l.stinging)
      const dryness = learned(effect.dryness, (l) =>
        l.dryness === undefined ? undefined : (10 / TOP_DRYNESS) * l.dryness,
      )
      const bumps = learned(effect.bumps, (l) =>
        l.bumps === undefined ? undefined : 10 * Math.min(1, l.bumps / FULL_BUMPS),
      )
      return {
        ...{ product, sting, dryness, bumps, looks: own.length },
        score: sting + dryness + bumps,
        why: [
          ...why,
          ...(own.length > 0
            ? [`${own.length} ${own.length === 1 ? 'look' : 'looks'} of this client after it`]
            : []),
        ],
      }
    })
    .sort((a, b) => a.score - b.score)
}
