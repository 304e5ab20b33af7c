/** What a client's looks say of the products that were used before them. */
import type { ProductLook } from '../care/index.ts'
import type { SkinAnswer } from '../looks/index.ts'
import { sum } from '../stats/index.ts'
import type { VisitFacts } from './facts.ts'

/** Each look that tells how it felt, and each visit whose bumps were counted. */
export function productLooks(
  visits: readonly Pick<VisitFacts, 'visitId' | 'products' | 'bumps'>[],
  looks: readonly { readonly visitId: string; readonly answer: Pick<SkinAnswer, 'feeling'> }[],
): ProductLook[] {
  const used = new Map(visits.map((v) => [v.visitId, v.products]))
  return [
    ...looks.flatMap(({ visitId, answer }): ProductLook[] => {
      const { stinging, dryness } = answer.feeling ?? {}
      return stinging === undefined && dryness === undefined
        ? []
        : [{ products: used.get(visitId) ?? [], stinging, dryness }]
    }),
    ...visits.flatMap(({ products, bumps }): ProductLook[] =>
      bumps ? [{ products, bumps: sum(Object.values(bumps)) }] : [],
    ),
  ]
}
