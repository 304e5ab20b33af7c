/** Takes back an import as a whole; who has had a visit since stays. */
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { listWords } from '../../core/words.ts'
import { call } from '../api/call.ts'
import { tellDone, tellFailed } from '../ui/notices.ts'

export function useUndoImport() {
  const cache = useQueryClient()
  const undo = useMutation({
    mutationFn: (id: string) => call('undoImport', { params: { id } }),
    onSuccess: ({ removed, kept }) => {
      for (const key of ['clients', 'known-clients', 'today', 'imports'])
        void cache.invalidateQueries({ queryKey: [key] })
      tellDone(
        `${removed} ${removed === 1 ? 'client was' : 'clients were'} taken back.${
          kept.length > 0 ? ` These have had a visit since and stay: ${listWords(kept)}.` : ''
        }`,
      )
    },
    onError: (error, id) => tellFailed(error.message, () => undo.mutate(id)),
  })
  return undo
}
