/** Products of the house, and whether what is in them suits a client. Generic kinds; a house names its own. */
import type { Asked } from '../screening/index.ts'

/** What of a product's ingredients matters here. */
export const PRODUCT_FACTS = [
  'fragrance',
  'alcohol',
  'acid',
  'nickel',
  'latex',
  'plant-extracts',
] as const
export type ProductFact = (typeof PRODUCT_FACTS)[number]

export const FACT_WORDS: Readonly<Record<ProductFact, string>> = {
  fragrance: 'fragrance',
  alcohol: 'alcohol',
  acid: 'acid',
  nickel: 'nickel',
  latex: 'latex',
  'plant-extracts': 'plant extracts',
}

export interface Product {
  readonly id: string
  readonly name: string
  readonly use: 'before' | 'lather' | 'after' | 'home' | 'tool'
  readonly holds: readonly ProductFact[]
}

export const USE_WORDS: Readonly<Record<Product['use'], string>> = {
  before: 'before',
  lather: 'under the blade',
  after: 'after',
  home: 'to take home',
  tool: 'tools and gloves',
}

/** What a house has until it keeps a list of its own. Made-up generic kinds; common practice. */
export const USUAL_PRODUCTS: readonly Product[] = [
  { id: 'cleanser-mild', name: 'Mild cleanser', use: 'before', holds: [] },
  { id: 'oil-plain', name: 'Pre-shave oil, unscented', use: 'before', holds: [] },
  {
    id: 'oil-herbal',
    name: 'Pre-shave oil, herbal',
    use: 'before',
    holds: ['fragrance', 'plant-extracts'],
  },
  { id: 'cream-plain', name: 'Shaving cream, unscented', use: 'lather', holds: [] },
  { id: 'soap-scented', name: 'Shaving soap, scented', use: 'lather', holds: ['fragrance'] },
  { id: 'gel-clear', name: 'Clear shaving gel', use: 'lather', holds: [] },
  { id: 'balm-plain', name: 'Balm without alcohol or scent', use: 'after', holds: [] },
  { id: 'balm-herbal', name: 'Balm, herbal', use: 'after', holds: ['fragrance', 'plant-extracts'] },
  { id: 'splash', name: 'Splash with alcohol', use: 'after', holds: ['alcohol', 'fragrance'] },
  { id: 'gel-soothing', name: 'Soothing gel', use: 'after', holds: ['plant-extracts'] },
  { id: 'serum-acid', name: 'Leave-on acid', use: 'home', holds: ['acid'] },
  { id: 'sun-cream', name: 'Sun cream, mineral, SPF 50', use: 'home', holds: [] },
  { id: 'holder-steel', name: 'Steel blade holder', use: 'tool', holds: ['nickel'] },
  { id: 'holder-resin', name: 'Resin blade holder', use: 'tool', holds: [] },
  { id: 'gloves-latex', name: 'Latex gloves', use: 'tool', holds: ['latex'] },
  { id: 'gloves-nitrile', name: 'Nitrile gloves', use: 'tool', holds: [] },
]

/** Something in a product that does not suit a client. */
export interface Clash {
  readonly productId: string
  readonly fact: ProductFact
  /** `allergy`: told at Ask. `skin`: fresh from the blade. */
  readonly because: 'allergy' | 'skin'
  readonly text: string
}

const ALLERGY_FACT: Readonly<Record<string, ProductFact>> = {
  nickel: 'nickel',
  latex: 'latex',
  fragrance: 'fragrance',
  'plant extracts': 'plant-extracts',
}

/** What the client is allergic to; an allergy told without its kind counts as all of them. */
export function allergies(asked: Pick<Asked, 'answers'>): ProductFact[] {
  const answer = asked.answers['allergy']
  if (!answer?.yes) return []
  const kinds = answer.kinds && answer.kinds.length > 0 ? answer.kinds : Object.keys(ALLERGY_FACT)
  return kinds.flatMap((k) => (ALLERGY_FACT[k] ? [ALLERGY_FACT[k]] : []))
}

/** Checks products against a client. */
export function clashes(
  products: readonly Product[],
  asked: Pick<Asked, 'answers'>,
  noFragrance: boolean,
): Clash[] {
  const all = allergies(asked)
  return products.flatMap((p) =>
    p.holds.flatMap((fact): Clash[] => {
      if (all.includes(fact)) {
        return [
          {
            productId: p.id,
            fact,
            because: 'allergy',
            text: `${p.name} holds ${FACT_WORDS[fact]}: this client is allergic to it. Take another.`,
          },
        ]
      }
      if (fact === 'fragrance' && noFragrance) {
        return [
          {
            productId: p.id,
            fact,
            because: 'skin',
            text: `${p.name} holds fragrance: nothing scented on this skin today.`,
          },
        ]
      }
      if (fact === 'alcohol' && p.use === 'after') {
        return [
          {
            productId: p.id,
            fact,
            because: 'skin',
            text: `${p.name} holds alcohol: it stings and dries fresh skin.`,
          },
        ]
      }
      return []
    }),
  )
}
