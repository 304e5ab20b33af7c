/** What was put on the skin, picked from the kit list and checked against the client. */
import { Alert, Fieldset, SimpleGrid, Text, UnstyledButton } from '@mantine/core'
import { clashes, FACT_WORDS, USE_WORDS, type Product } from '../../../core/care/index.ts'
import { useSaveProducts } from '../../api/visitWrites.ts'
import { useScreening } from '../useGate.ts'
import { Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import css from './Care.module.css'
import type { StationProps } from '../useStation.ts'

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
        Tap what was used. The list, and what is in each, is the house’s (Kit, Products).
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
              {house.products
                .filter((p) => p.use === use)
                .map((p) => (
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
                  </UnstyledButton>
                ))}
            </SimpleGrid>
          </Fieldset>
        ))}
      </Scroll>
    </>
  )
}
