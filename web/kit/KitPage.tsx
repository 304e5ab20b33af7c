/** Kit: which blades the house owns; plans choose from these. */
import { Table } from '@mantine/core'
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
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Blade</Table.Th>
            <Table.Th data-num scope="col">
              Edge, mm
            </Table.Th>
            <Table.Th data-num scope="col">
              Angle, °
            </Table.Th>
            <Table.Th scope="col">For</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {BLADE_IDS.map((id) => {
            const b = BLADES[id]
            const services = SERVICE_IDS.filter(
              (s) => SERVICES[s].blades.includes(id) || SERVICES[s].first?.id === id,
            )
            return (
              <Table.Tr key={id}>
                <Table.Td>
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
                </Table.Td>
                <Table.Td data-num>{figures(b.edgeMm)}</Table.Td>
                <Table.Td data-num>{figures(b.angleDeg)}</Table.Td>
                <Table.Td>{services.map((s) => SERVICES[s].name).join(', ')}</Table.Td>
              </Table.Tr>
            )
          })}
        </Table.Tbody>
      </Table>
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
