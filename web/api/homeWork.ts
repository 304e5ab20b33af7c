/** Work at home, noted and taken out again. */
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { ToldBody } from '../../contract/routes.ts'
import { useSaved } from '../state/saved.ts'
import { write } from '../outbox/browser.ts'

function useHomeWrite(clientId: string) {
  const cache = useQueryClient()
  const saved = useSaved((s) => s.mark)
  return () => {
    saved()
    void cache.invalidateQueries({ queryKey: ['client', clientId] })
    void cache.invalidateQueries({ queryKey: ['visit'] })
    void cache.invalidateQueries({ queryKey: ['today'] })
  }
}

export function useAddHome(clientId: string) {
  const done = useHomeWrite(clientId)
  return useMutation({
    mutationFn: (body: ToldBody<'addHomeWork'>) =>
      write('addHomeWork', { params: { id: clientId }, body }, { clientId, what: 'work at home' }),
    onSuccess: done,
  })
}

export function useRemoveHome(clientId: string) {
  const done = useHomeWrite(clientId)
  return useMutation({
    mutationFn: (id: string) =>
      write('removeHomeWork', { params: { id } }, { clientId, what: 'work at home, taken out' }),
    onSuccess: done,
  })
}
