/** Kit: which blades the house owns; plans choose from these. */
import { useFigures } from '../state/figures.ts'
import { BLADE_IDS, BLADES } from '../../core/kit/index.ts'
import { SERVICE_IDS, SERVICES } from '../../core/services/index.ts'
import { useChangeHouse, useHouse } from '../api/queries.ts'
import { BladeLog } from './BladeLog.tsx'
import { ProductList } from './ProductList.tsx'

export function KitPage() {
  const figures = useFigures()
  const house = useHouse()
  const change = useChangeHouse()
  const kit = house.data?.kit ?? []
  return (
    <main className="page narrow">
      <div className="page-head">
        <h1>Kit</h1>
        <p>blades that plans choose from, products, what became of blades</p>
      </div>
      <p>
        Tick what the house owns. Plans take the widest that lies on the skin of a lane; a bare
        dermaplaning blade or a shavette only in practised hands. Measures and prices are house
        estimates and can be changed in House. Stock counts are not built yet.
      </p>
      {(house.isError || change.isError) && (
        <p role="alert" className="problem">
          {(house.error ?? change.error)?.message}
        </p>
      )}
      <table className="list">
        <thead>
          <tr>
            <th scope="col">Blade</th>
            <th scope="col" className="num">
              Edge, mm
            </th>
            <th scope="col" className="num">
              Angle, °
            </th>
            <th scope="col">For</th>
          </tr>
        </thead>
        <tbody>
          {BLADE_IDS.map((id) => {
            const b = BLADES[id]
            const services = SERVICE_IDS.filter(
              (s) => SERVICES[s].blades.includes(id) || SERVICES[s].first?.id === id,
            )
            return (
              <tr key={id}>
                <td>
                  <label className="tick">
                    <input
                      type="checkbox"
                      checked={kit.includes(id)}
                      disabled={!house.data || change.isPending}
                      onChange={(e) =>
                        change.mutate({
                          kit: BLADE_IDS.filter((k) =>
                            k === id ? e.currentTarget.checked : kit.includes(k),
                          ),
                        })
                      }
                    />
                    {b.name}
                    {b.practised && <small> practised hands</small>}
                  </label>
                </td>
                <td className="num">{figures(b.edgeMm)}</td>
                <td className="num">{figures(b.angleDeg)}</td>
                <td>{services.map((s) => SERVICES[s].name).join(', ')}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {house.data && (
        <ProductList
          products={house.data.products}
          onChange={(products) => change.mutate({ products })}
        />
      )}
      <BladeLog />
    </main>
  )
}
