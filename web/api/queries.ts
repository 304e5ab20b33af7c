/** What is asked of the server, cached; and what changes it. */
import type { Supposed } from '../../core/ahead/index.ts'
import { useRef } from 'react'
import type { ZoneId } from '../../core/zones/index.ts'
import type { HouseEdit, ToldBody } from '../../contract/routes.ts'
import {
  MutationCache,
  queryOptions,
  QueryCache,
  QueryClient,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import type { Client, ClientPage, House, VisitPage } from '../../contract/types.ts'
import { takeFigures } from '../state/figures.ts'
import { useSaved } from '../state/saved.ts'
import { takeSettings } from '../state/shape.ts'
import { outbox, outboxOpened, write, type About } from '../outbox/browser.ts'
import { withEntered, withEnteredOfClient } from '../outbox/overlay.ts'
import { forgetAhead } from '../offline/ahead.ts'
import { tellFailed } from '../ui/notices.ts'
import { call, CallProblem, mayTryAgain } from './call.ts'
import { keepTapped, type TappedPart } from './tapped.ts'

/** Nobody is signed in, or the screen is locked: the door shows itself. */
const atTheDoor = (error: unknown) => {
  if (error instanceof CallProblem && ['sign-in', 'locked', 'not-paired'].includes(error.code))
    void queryClient.invalidateQueries({ queryKey: ['session'] })
}

export const queryClient: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError: atTheDoor }),
  mutationCache: new MutationCache({ onError: atTheDoor }),
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (count, error) =>
        count < 2 && (!(error instanceof CallProblem) || error.status === 0 || error.status >= 500),
      refetchOnWindowFocus: true,
    },
    // What is entered is kept by the outbox, whether or not the browser believes that there is a net.
    mutations: { networkMode: 'always' },
  },
})

/** Where the next page of a list begins; undefined when there is none. */
const next = (shown: number, last: readonly unknown[], total: number) =>
  last.length > 0 && shown < total ? shown : undefined

export const useToday = () =>
  useInfiniteQuery({
    queryKey: ['today'],
    queryFn: ({ pageParam }) => call('today', { query: { from: pageParam } }),
    initialPageParam: 0,
    getNextPageParam: ({ from, rows, total }) => next(from + rows.length, rows, total),
    refetchInterval: 60_000,
  })
const houseQuery = () =>
  queryOptions({
    queryKey: ['house'],
    queryFn: async () => {
      const house = await call('house')
      // Models ask their figures: they must be the house's before anything is worked out.
      await takeFigures(house.figures)
      takeSettings(house.settings)
      return house
    },
    staleTime: 60_000,
  })
const clientQuery = (id: string) =>
  queryOptions({
    queryKey: ['client', id],
    queryFn: async () =>
      withEnteredOfClient(await call('client', { params: { id } }), outbox.look().waiting),
  })
const visitQuery = (id: string) =>
  queryOptions({
    queryKey: ['visit', id],
    queryFn: async () =>
      withEntered(await call('visit', { params: { id } }), outbox.look().waiting),
  })
export const useHouse = () => useQuery(houseQuery())
export const useClient = (id: string) => useQuery({ ...clientQuery(id), enabled: id !== '' })
export const useVisit = (id: string | null | undefined) =>
  useQuery({ ...visitQuery(id ?? ''), enabled: Boolean(id) })

/** Asks for what a client's page shows while the page itself still comes. What waits on this screen must be known first. */
export async function openAhead(clientId: string, visitId: string | null): Promise<void> {
  await outboxOpened
  if (visitId) void queryClient.prefetchQuery(visitQuery(visitId))
  void queryClient.prefetchQuery(houseQuery())
  await queryClient.prefetchQuery(clientQuery(clientId))
  const current = queryClient.getQueryData<ClientPage>(['client', clientId])?.currentVisitId
  if (!visitId && current) void queryClient.prefetchQuery(visitQuery(current))
}

/** Whose a write of a visit is: what belongs to one client is sent in order. */
export const about = (visitId: string, what: string, part?: string): About => ({
  clientId: queryClient.getQueryData<VisitPage>(['visit', visitId])?.clientId ?? visitId,
  visitId,
  what,
  ...(part !== undefined && { row: `${part}-${visitId}` }),
})

/** Puts a fresh visit into the cache and lets what depends on it be asked again. */
export function useVisitRefresh() {
  const cache = useQueryClient()
  const saved = useSaved((s) => s.mark)
  return (page: VisitPage, own?: TappedPart) => {
    cache.setQueryData(['visit', page.id], keepTapped(cache, page, own))
    void cache.invalidateQueries({ queryKey: ['client', page.clientId] })
    void cache.invalidateQueries({ queryKey: ['today'] })
    void cache.invalidateQueries({ queryKey: ['clients'] })
    saved()
  }
}

export function useAddClient() {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (body: Omit<Client, 'createdAtMs' | 'schools' | 'events'>) =>
      write('addClient', { body }, { clientId: body.id, what: `the client ${body.name}` }),
    onSuccess: () => {
      void cache.invalidateQueries({ queryKey: ['clients'] })
      void cache.invalidateQueries({ queryKey: ['today'] })
    },
  })
}

export function useChangeClient(id: string) {
  const cache = useQueryClient()
  // What is tapped shows at once, so what was there before is looked up before that.
  const shown = useRef<Client>(undefined)
  const before = (change: object) =>
    Object.fromEntries(
      Object.keys(change).map((key) => [key, shown.current?.[key as keyof Client]]),
    )
  const saved = useSaved((s) => s.mark)
  return useMutation({
    mutationFn: (body: ToldBody<'changeClient'>) =>
      write(
        'changeClient',
        { params: { id }, body, was: before(body) },
        { clientId: id, what: 'details of the client' },
      ),
    // What is tapped shows at once; the server's answer follows.
    onMutate: (change) => {
      const before = cache.getQueryData<ClientPage>(['client', id])
      shown.current = before?.client
      if (before) {
        cache.setQueryData(['client', id], { ...before, client: { ...before.client, ...change } })
      }
      return before
    },
    onError: (_error, _change, before) => before && cache.setQueryData(['client', id], before),
    onSuccess: () => {
      saved()
      void cache.invalidateQueries({ queryKey: ['client', id] })
      void cache.invalidateQueries({ queryKey: ['clients'] })
      void cache.invalidateQueries({ queryKey: ['today'] })
    },
  })
}

export function useEraseClient(id: string) {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (confirmName: string) =>
      call('eraseClient', { params: { id }, body: { confirmName } }),
    // The client's own queries are left alone: asking again for what is gone would find nothing.
    onSuccess: () => {
      void forgetAhead()
      for (const key of ['clients', 'today', 'house']) {
        void cache.invalidateQueries({ queryKey: [key] })
      }
    },
  })
}

export const useHistory = (clientId: string) =>
  useQuery({
    queryKey: ['client', clientId, 'history'],
    queryFn: () => call('history', { params: { id: clientId } }),
  })

/** What each way of taking hair off comes to in one place. */
export const useMethods = (clientId: string, zone: ZoneId, supposed: Supposed) =>
  useQuery({
    queryKey: ['client', clientId, 'methods', zone, supposed],
    queryFn: () => call('methods', { params: { id: clientId }, query: { zone, supposed } }),
    placeholderData: (before) => before,
  })

/** An earlier stretch of the tide line; none while it shows the latest. */
export const useEarlierTide = (clientId: string, back: number, work: string) =>
  useQuery({
    queryKey: ['client', clientId, 'tide', back, work],
    queryFn: () => call('tide', { params: { id: clientId }, query: { back, work } }),
    enabled: back > 0,
    placeholderData: (before) => before,
  })

export function useChangeHouse() {
  const cache = useQueryClient()
  const saved = useSaved((s) => s.mark)
  const change = useMutation({
    mutationFn: async (body: HouseEdit): Promise<House> => {
      const house = await call('changeHouse', { body })
      await takeFigures(house.figures)
      takeSettings(house.settings)
      return house
    },
    onSuccess: (house) => {
      cache.setQueryData(['house'], house)
      saved()
      void cache.invalidateQueries({ queryKey: ['client'] })
      void cache.invalidateQueries({ queryKey: ['today'] })
    },
    // What is refused is told where it was typed.
    onError: (error, body) => {
      if (mayTryAgain(error)) tellFailed(error.message, () => change.mutate(body))
    },
  })
  return change
}

/** Says which of two entries that differ is to stand. */
export function useSettle(clientId: string) {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: ({ id, take }: { id: string; take: 'mine' | 'theirs' }) =>
      call('settle', { params: { id }, body: { take } }),
    onSuccess: () => {
      void cache.invalidateQueries({ queryKey: ['client', clientId] })
      void cache.invalidateQueries({ queryKey: ['visit'] })
    },
  })
}
