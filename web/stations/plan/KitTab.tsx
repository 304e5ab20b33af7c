/** What to lay out before the client sits down, with counts and costs. */
import { Table, Text } from '@mantine/core'
import { useUnits } from '../../state/shape.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import type { Plan } from '../../../core/plan/index.ts'

export function KitTab({ plan }: { plan: Plan }) {
  const { money } = useUnits()
  return (
    <>
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Lay out</Table.Th>
            <Table.Th data-num scope="col">
              How many
            </Table.Th>
            <Table.Th data-num scope="col">
              <Estimate of="plan-cost">Cost</Estimate>
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {plan.kit.map((k) => (
            <Table.Tr key={k.name}>
              <Table.Td>{k.name}</Table.Td>
              <Table.Td data-num>
                {k.count} {k.unit}
              </Table.Td>
              <Table.Td data-num>{k.cost === 0 ? '–' : money(k.cost)}</Table.Td>
            </Table.Tr>
          ))}
          <Table.Tr>
            <Table.Td>
              <b>This service</b>
            </Table.Td>
            <Table.Td />
            <Table.Td data-num>
              <b>{money(plan.cost)}</b>
            </Table.Td>
          </Table.Tr>
        </Table.Tbody>
      </Table>
      <Text size="sm" c="dimmed" mt="sm">
        <Estimate mark="C" of="fresh-blade">
          A fresh blade for every client
        </Estimate>
        ; used ones straight into the sharps box. Prices are the house’s, in House under Blades and
        What lies ready.
      </Text>
    </>
  )
}
