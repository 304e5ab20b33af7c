/** All keys, on `?`, on every page. */
import { Kbd, Modal, SimpleGrid, Table, Title, UnstyledButton } from '@mantine/core'
import { create } from 'zustand'
import { GESTURES, keysByPlace } from './shortcuts.ts'
import { useKeys } from './useKeys.ts'

const useHelp = create<{ readonly opened: boolean }>(() => ({ opened: false }))
export const openHelp = () => useHelp.setState({ opened: true })

export function KeysHelp() {
  const opened = useHelp((s) => s.opened)
  useKeys({ keys: openHelp })
  return (
    <Modal
      opened={opened}
      onClose={() => useHelp.setState({ opened: false })}
      title="All keys"
      size={1000}
    >
      <SimpleGrid cols={{ base: 1, sm: 2 }} spacing={36}>
        {keysByPlace().map(([place, keys]) => (
          <section key={place}>
            <Title order={3}>{place}</Title>
            <Rows rows={keys.map((k) => [k.sign ?? k.keys[0]!, k.does])} />
          </section>
        ))}
        <section>
          <Title order={3}>By hand</Title>
          <Rows rows={GESTURES} />
        </section>
      </SimpleGrid>
    </Modal>
  )
}

const Rows = ({ rows }: { rows: readonly (readonly [string, string])[] }) => (
  <Table>
    <Table.Tbody>
      {rows.map(([key, does]) => (
        <Table.Tr key={key + does}>
          <Table.Th scope="row" w={110}>
            {key.length > 8 ? key : <Kbd>{key}</Kbd>}
          </Table.Th>
          <Table.Td>{does}</Table.Td>
        </Table.Tr>
      ))}
    </Table.Tbody>
  </Table>
)

/** The way to them for who has no key. */
export const KeysButton = () => (
  <UnstyledButton c="dimmed" fz="sm" mih={36} visibleFrom="sm" onClick={openHelp}>
    <Kbd aria-hidden>?</Kbd> all keys
  </UnstyledButton>
)
