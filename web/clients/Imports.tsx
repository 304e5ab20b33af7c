/** What was imported before, with the way back. */
import { Problem } from '../ui/Panel.tsx'
import { Button, Text, Title } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { ImportRecord } from '../../contract/types.ts'
import { Row, Rows } from '../ui/Rows.tsx'
import { call } from '../api/call.ts'
import { atWords } from '../state/words.ts'

export function Imports() {
  const cache = useQueryClient()
  const imports = useQuery({ queryKey: ['imports'], queryFn: () => call('imports') })
  const undo = useMutation({
    mutationFn: (id: string) => call('undoImport', { params: { id } }),
    onSuccess: () => {
      for (const key of ['clients', 'known-clients', 'today', 'imports']) {
        void cache.invalidateQueries({ queryKey: [key] })
      }
    },
  })
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
      {undo.data && (
        <p role="status">
          {undo.data.removed} clients were taken back.
          {undo.data.kept.length > 0 &&
            ` These have had a visit since and stay: ${undo.data.kept.join(', ')}.`}
        </p>
      )}
      {undo.isError && <Problem>{undo.error.message}</Problem>}
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
