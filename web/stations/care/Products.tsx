/** What was put on the skin, picked from the kit list and checked against the client. */
import { Alert, Fieldset, SimpleGrid, Text, UnstyledButton } from '@mantine/core'
import { useMemo } from 'react'
import {
  clashes,
  effectWords,
  FACT_WORDS,
  type Product,
  type RankedProduct,
  rankProducts,
  USE_WORDS,
} from '../../../core/care/index.ts'
import { productLooks } from '../../../core/history/index.ts'
import { useHistory } from '../../api/queries.ts'
import { useFigures } from '../../state/figures.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { useSaveProducts } from '../../api/visitWrites.ts'
import { useScreening } from '../useGate.ts'
import { Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import css from './Care.module.css'
import type { StationProps } from '../useStation.ts'

/** What a product does to this skin and why; nothing where it does nothing. */
function ofSkin({ why, ...effect }: Omit<RankedProduct, 'product'>): string | undefined {
  const does = effectWords(effect)
  const told = [...(does ? [`on this skin ${does}`] : []), ...why]
  return told.length > 0 ? told.join('; ') : undefined
}

/** The house's products, the kindest to this client first. */
function useRanked({ page, house }: StationProps) {
  const figures = useFigures()
  const history = useHistory(page.client.id)
  const { skin } = page.client
  return useMemo(() => {
    const told = history.data ? productLooks(history.data.visits, history.data.looks) : []
    return rankProducts(figures, house.products, skin, told)
  }, [figures, house.products, skin, history.data])
}

const USES = ['before', 'lather', 'after', 'home', 'tool'] as const

export function Products(props: StationProps) {
  const { visit, house } = props
  const screening = useScreening(props)
  const save = useSaveProducts(visit.id)
  const used = house.products.filter((p) => visit.products.includes(p.id))
  const found = clashes(used, visit.asked, screening.noFragrance)
  // What would not suit is told before it is picked.
  const warned = new Map(
    clashes(house.products, visit.asked, screening.noFragrance).map((c) => [c.productId, c]),
  )
  const ranked = useRanked(props)
  const toggle = (p: Product) =>
    save.change((before) =>
      before.includes(p.id) ? before.filter((id) => id !== p.id) : [...before, p.id],
    )
  return (
    <>
      <h1>
        {used.length === 0
          ? 'Products used'
          : `${used.length} ${used.length === 1 ? 'product' : 'products'} used`}
      </h1>
      <Text size="sm" c="dimmed">
        Tap what was used; the kindest to this skin stands first,{' '}
        <Estimate of="products">by what is in it</Estimate> and by what this client told after it.
      </Text>
      {found.map((c) => (
        <Alert
          key={c.productId + c.fact}
          c={c.because === 'allergy' ? 'var(--coral)' : 'var(--ink)'}
          role="alert"
        >
          {c.text}
        </Alert>
      ))}
      <Problem>{save.error?.message}</Problem>
      <Scroll label="Products">
        {USES.map((use) => (
          <Fieldset key={use} variant="unstyled" legend={USE_WORDS[use]} mb="sm">
            <SimpleGrid cols={2} spacing="xs" verticalSpacing="xs">
              {ranked
                .filter((r) => r.product.use === use)
                .map(({ product: p, ...r }) => (
                  <UnstyledButton
                    key={p.id}
                    className={css.product}
                    aria-pressed={visit.products.includes(p.id)}
                    onClick={() => toggle(p)}
                  >
                    {p.name}
                    <small>
                      {p.holds.map((f) => FACT_WORDS[f]).join(', ') || 'none of what matters'}
                      {warned.has(p.id) &&
                        (warned.get(p.id)!.because === 'allergy'
                          ? ' · allergy'
                          : ' · not on this skin')}
                    </small>
                    {use !== 'tool' && <small>{ofSkin(r)}</small>}
                  </UnstyledButton>
                ))}
            </SimpleGrid>
          </Fieldset>
        ))}
      </Scroll>
    </>
  )
}
