/** What was brought in before, with the way back. */
import { Button } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { ImportRecord } from '../../contract/types.ts'
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
      <p className="soft">
        Nothing was brought in so far. What is brought in can be taken back as a whole.
      </p>
    )
  }
  return (
    <section>
      <h2>Brought in before</h2>
      {undo.data && (
        <p role="status">
          {undo.data.removed} clients were taken back.
          {undo.data.kept.length > 0 &&
            ` These have had a visit since and stay: ${undo.data.kept.join(', ')}.`}
        </p>
      )}
      {undo.isError && (
        <p role="alert" className="problem">
          {undo.error.message}
        </p>
      )}
      <ul className="plain-list">
        {imports.data.map((i: ImportRecord) => (
          <li key={i.id}>
            <span>
              {atWords(i.atMs)}: {i.clients} {i.clients === 1 ? 'client' : 'clients'} from{' '}
              {i.source}
            </span>
            {i.undoneAtMs === null ? (
              <Button
                variant="bare"
                size="sm"
                disabled={undo.isPending}
                onClick={() => undo.mutate(i.id)}
              >
                Take all of it back
              </Button>
            ) : (
              <span className="soft">taken back {atWords(i.undoneAtMs)}</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
