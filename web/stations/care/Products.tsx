/** What was put on the skin, picked from the kit list and checked against the client. */
import { Button } from '@mantine/core'
import { clashes, FACT_WORDS, USE_WORDS, type Product } from '../../../core/care/index.ts'
import { useSaveProducts } from '../../api/visitWrites.ts'
import { useScreening } from '../useGate.ts'
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
      <p className="soft">
        Tap what was used. The list, and what is in each, is the house’s (Kit, Products).
      </p>
      {found.map((c) => (
        <p
          key={c.productId + c.fact}
          className={c.because === 'allergy' ? 'notice coral' : 'notice'}
          role="alert"
        >
          {c.text}
        </p>
      ))}
      {save.error && (
        <p role="alert" className="problem">
          {save.error.message}
        </p>
      )}
      <div className="scroll product-list" tabIndex={0} role="region" aria-label="Products">
        {USES.map((use) => (
          <fieldset key={use}>
            <legend>{USE_WORDS[use]}</legend>
            {house.products
              .filter((p) => p.use === use)
              .map((p) => (
                <Button
                  size="sm"
                  key={p.id}
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
                </Button>
              ))}
          </fieldset>
        ))}
      </div>
    </>
  )
}
