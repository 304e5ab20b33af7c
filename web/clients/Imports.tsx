/** What was imported before, with the way back. */
import { Button, Text, Title } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { ImportRecord } from '../../contract/types.ts'
import { Row, Rows } from '../ui/Rows.tsx'
import { call } from '../api/call.ts'
import { useUndoImport } from './useUndoImport.ts'
import { atWords } from '../state/words.ts'

export function Imports() {
  const imports = useQuery({ queryKey: ['imports'], queryFn: () => call('imports') })
  const undo = useUndoImport()
  if (!imports.data || imports.data.length === 0) {
    return (
      <Text size="sm" c="dimmed">
        Nothing was imported so far. What is imported can be taken back as a whole.
      </Text>
    )
  }
  return (
    <section>
      <Title order={2}>Imported before</Title>
      <Rows>
        {imports.data.map((i: ImportRecord) => (
          <Row
            key={i.id}
            acts={
              i.undoneAtMs === null ? (
                <Button
                  variant="bare"
                  size="sm"
                  disabled={undo.isPending}
                  onClick={() => undo.mutate(i.id)}
                >
                  Take all of it back
                </Button>
              ) : (
                <Text span size="sm" c="dimmed">
                  taken back {atWords(i.undoneAtMs)}
                </Text>
              )
            }
          >
            {atWords(i.atMs)}: {i.clients} {i.clients === 1 ? 'client' : 'clients'} from {i.source}
          </Row>
        ))}
      </Rows>
    </section>
  )
}
