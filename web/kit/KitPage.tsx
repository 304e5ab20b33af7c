/** Kit: which blades the house owns; plans choose from these. */
import { Problem } from '../ui/Panel.tsx'
import { Checkbox, Group, Stack, Table, Text, Title } from '@mantine/core'
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
    <Stack component="main" className="page" maw={980} gap="md">
      <Group align="baseline" gap="md">
        <Title order={1}>Kit</Title>
        <Text c="dimmed">blades that plans choose from, products, what became of blades</Text>
      </Group>
      <Text maw="66ch">
        Tick what the house owns. Plans take the widest that lies on the skin of a lane; a bare
        dermaplaning blade or a shavette only in practised hands. Measures and prices are house
        estimates and can be changed in House. Stock counts are not built yet.
      </Text>
      {(house.isError || change.isError) && (
        <Problem>{(house.error ?? change.error)?.message}</Problem>
      )}
      <Table.ScrollContainer minWidth={560}>
        <Table>
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col" w={230}>
                Blade
              </Table.Th>
              <Table.Th data-num scope="col" w={90}>
                Edge, mm
              </Table.Th>
              <Table.Th data-num scope="col" w={90}>
                Angle, °
              </Table.Th>
              <Table.Th scope="col" pl="lg">
                For
              </Table.Th>
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
                  <Table.Td py={5}>
                    <Checkbox
                      label={b.name}
                      description={b.practised && 'practised hands'}
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
                  </Table.Td>
                  <Table.Td data-num>{figures(b.edgeMm)}</Table.Td>
                  <Table.Td data-num>{figures(b.angleDeg)}</Table.Td>
                  <Table.Td pl="lg">{services.map((s) => SERVICES[s].name).join(', ')}</Table.Td>
                </Table.Tr>
              )
            })}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      {house.data && (
        <ProductList
          products={house.data.products}
          onChange={(products) => change.mutate({ products })}
        />
      )}
      <BladeLog />
    </Stack>
  )
}
