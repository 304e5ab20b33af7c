/** Who is at this screen. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { mayDo, type RIGHTS } from '../../contract/rights.ts'
import type { Session } from '../../contract/types.ts'
import type { ToldBody } from '../../contract/routes.ts'
import { call } from '../api/call.ts'
import { forgetAhead } from '../offline/ahead.ts'
import { outbox } from '../outbox/browser.ts'
import { hereNow, setHere } from '../state/here.ts'

export const useSession = () =>
  useQuery({
    queryKey: ['session'],
    queryFn: async () => {
      const session = await call('session')
      arrived(session)
      return session
    },
    staleTime: 60_000,
  })

/** What waits of whoever is here now is sent. */
function arrived({ worker }: Session): void {
  if (hereNow() === (worker?.id ?? null)) return
  setHere(worker?.id ?? null)
  outbox.wake()
}

/** Whether whoever is here may do something; what would be refused is not shown. */
export function useMay(): (name: keyof typeof RIGHTS) => boolean {
  const { data } = useSession()
  return (name) => {
    if (!data) return true
    if (data.wall) return mayDo('wall', name)
    return data.worker
      ? mayDo(data.worker.rank, name)
      : data.mode === 'open' || data.mode === 'first-run'
  }
}

/** What changes who is here; whatever was known before belongs to somebody else. */
export function useDoor() {
  const cache = useQueryClient()
  const changed = (told: Session) => {
    cache.setQueryData(['session'], told)
    arrived(told)
    void forgetAhead()
    // A session that opens or ends changes what every other question is answered.
    void cache.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'session' })
  }
  return {
    signIn: useMutation({
      mutationFn: (body: ToldBody<'signIn'>) => call('signIn', { body }),
      onSuccess: changed,
    }),
    begin: useMutation({
      mutationFn: (body: ToldBody<'makeOwner'>) => call('makeOwner', { body }),
      onSuccess: changed,
    }),
    lock: useMutation({
      mutationFn: () => call('lockScreen', { body: {} }),
      onSuccess: (told) => {
        cache.setQueryData(['session'], told)
        // Asked for again, so that what this screen keeps of it says so too.
        void cache.invalidateQueries({ queryKey: ['session'] })
      },
    }),
    signOut: useMutation({ mutationFn: () => call('signOut'), onSuccess: changed }),
    signOutEverywhere: useMutation({
      mutationFn: () => call('signOutEverywhere'),
      onSuccess: changed,
    }),
    changeSecret: useMutation({
      mutationFn: (body: ToldBody<'changeSecret'>) => call('changeSecret', { body }),
      onSuccess: changed,
    }),
  }
}
