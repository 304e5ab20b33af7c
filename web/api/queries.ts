/** What is asked of the server, cached; and what changes it. */
import type { HouseEdit, QueryOf, ToldBody } from '../../contract/routes.ts'
import {
  MutationCache,
  QueryCache,
  QueryClient,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import type { Client, ClientPage, Message, VisitPage } from '../../contract/types.ts'
import { editedReadings, type MapEdit } from '../../core/grain/index.ts'
import type { SurfaceNotes } from '../../core/hair/index.ts'
import type { PlanChoice } from '../../core/plan/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import { usePast } from '../state/past.ts'
import { takeFigures } from '../state/figures.ts'
import { useSaved } from '../state/saved.ts'
import { outbox, write, type About } from '../outbox/browser.ts'
import { withEntered, withEnteredOfClient } from '../outbox/overlay.ts'
import { call, CallProblem } from './call.ts'
import { keepTapped, rowOf, showTapped, type TappedPart } from './tapped.ts'

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

export const useToday = () =>
  useQuery({ queryKey: ['today'], queryFn: () => call('today'), refetchInterval: 60_000 })
export const useHouse = () =>
  useQuery({
    queryKey: ['house'],
    queryFn: async () => {
      const house = await call('house')
      // Models ask their figures: they must be the house's before anything is worked out.
      await takeFigures(house.figures)
      return house
    },
    staleTime: 60_000,
  })
export const useClients = (find: string, sort: QueryOf<'clients'>['sort']) =>
  useQuery({
    queryKey: ['clients', find, sort],
    queryFn: () => call('clients', { query: { find, sort } }),
    placeholderData: (before) => before,
  })
export const useClient = (id: string) =>
  useQuery({
    queryKey: ['client', id],
    queryFn: async () =>
      withEnteredOfClient(await call('client', { params: { id } }), outbox.look().waiting),
  })
export const useVisit = (id: string | null | undefined) =>
  useQuery({
    queryKey: ['visit', id],
    queryFn: async () =>
      withEntered(await call('visit', { params: { id: id! } }), outbox.look().waiting),
    enabled: Boolean(id),
  })

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
  const saved = useSaved((s) => s.mark)
  return useMutation({
    mutationFn: (body: ToldBody<'changeClient'>) =>
      write(
        'changeClient',
        { params: { id }, body },
        { clientId: id, what: 'details of the client' },
      ),
    // What is tapped shows at once; the server's answer follows.
    onMutate: (change) => {
      const before = cache.getQueryData<ClientPage>(['client', id])
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
      for (const key of ['clients', 'today', 'house']) {
        void cache.invalidateQueries({ queryKey: [key] })
      }
    },
  })
}

export function useAddVisit(clientId: string) {
  const refresh = useVisitRefresh()
  return useMutation({
    mutationFn: (body: ToldBody<'addVisit'>) =>
      write(
        'addVisit',
        { params: { id: clientId }, body },
        { clientId, visitId: body.id, what: 'a new visit' },
      ),
    onSuccess: (page) => refresh(page),
  })
}

export function useChangeVisit(id: string) {
  const refresh = useVisitRefresh()
  return useMutation({
    mutationFn: (body: ToldBody<'changeVisit'>) =>
      write('changeVisit', { params: { id }, body }, about(id, 'the time or worker of the visit')),
    onSuccess: (page) => refresh(page),
  })
}

/** Saves what is asked. Changes build on what is shown now, so that quick taps do not undo each other. */
export function useSaveAsked(id: string) {
  const cache = useQueryClient()
  const past = usePast<Asked>(`asked-${id}`)
  const refresh = useVisitRefresh()
  const shown = () => cache.getQueryData<VisitPage>(['visit', id])
  const mutation = useMutation({
    mutationFn: (asked: Asked) =>
      write('saveAsked', { params: { id }, body: asked }, about(id, 'what was asked', 'asked')),
    // Taps follow each other faster than answers: they are sent in order, one at a time.
    meta: { row: rowOf('asked', id) },
    onSuccess: (page) => refresh(page, 'asked'),
  })
  return {
    error: mutation.error,
    change: (change: (asked: Asked) => Partial<Asked>) => {
      const before = shown()
      if (!before) return
      const asked = { ...before.asked, ...change(before.asked) }
      past.remember(before.asked)
      showTapped(cache, { ...before, asked })
      mutation.mutate(asked)
    },
    canUndo: past.any,
    /** Takes the last change back. */
    undo: () => {
      const before = shown()
      const asked = before && past.takeBack()
      if (!asked) return
      showTapped(cache, { ...before, asked })
      mutation.mutate(asked)
    },
  }
}

/** Edits the map. What is drawn shows at once, and the next edit already sees it. */
export function useEditReadings(id: string) {
  const cache = useQueryClient()
  const refresh = useVisitRefresh()
  const shown = () => cache.getQueryData<VisitPage>(['visit', id])
  const mutation = useMutation({
    mutationFn: (edit: MapEdit) =>
      write(
        'editReadings',
        { params: { id }, body: { remove: edit.remove.map((r) => r.id), add: edit.add } },
        about(id, 'the map of the grain'),
      ),
    meta: { row: rowOf('readings', id) },
    onSuccess: (page) => refresh(page, 'readings'),
    onError: () => void cache.invalidateQueries({ queryKey: ['visit', id] }),
  })
  return {
    error: mutation.error,
    /** The readings as they are shown now. */
    readings: () => shown()?.readings ?? [],
    edit: (edit: MapEdit) => {
      const before = shown()
      if (!before) return
      showTapped(cache, { ...before, readings: editedReadings(before.readings, edit) })
      mutation.mutate(edit)
    },
  }
}

/** Saves lines and hair. Changes build on what is shown, are sent in order, and can be taken back. */
export function useSaveNotes(id: string) {
  const cache = useQueryClient()
  const past = usePast<SurfaceNotes>(`notes-${id}`)
  const refresh = useVisitRefresh()
  const shown = () => cache.getQueryData<VisitPage>(['visit', id])
  const mutation = useMutation({
    mutationFn: (notes: SurfaceNotes) =>
      write('saveNotes', { params: { id }, body: notes }, about(id, 'lines and hair', 'notes')),
    meta: { row: rowOf('notes', id) },
    onSuccess: (page) => refresh(page, 'notes'),
    onError: () => void cache.invalidateQueries({ queryKey: ['visit', id] }),
  })
  return {
    error: mutation.error,
    change: (change: (notes: SurfaceNotes) => Partial<SurfaceNotes>) => {
      const before = shown()
      if (!before) return
      const notes = { ...before.notes, ...change(before.notes) }
      past.remember(before.notes)
      showTapped(cache, { ...before, notes })
      mutation.mutate(notes)
    },
    canUndo: past.any,
    undo: () => {
      const before = shown()
      const notes = before && past.takeBack()
      if (!notes) return
      showTapped(cache, { ...before, notes })
      mutation.mutate(notes)
    },
  }
}

export function useSavePlan(id: string) {
  const refresh = useVisitRefresh()
  return useMutation({
    mutationFn: (choice: PlanChoice) =>
      write('savePlan', { params: { id }, body: choice }, about(id, 'the plan', 'plan')),
    onSuccess: (page) => refresh(page),
  })
}

/** A worker's word that lifts a finding of a visit, or that an alarm was looked into. */
export function useDecide(visitId: string) {
  const refresh = useVisitRefresh()
  return useMutation({
    mutationFn: (body: { id: string; finding: string; workerId: string; reason: string }) =>
      write(
        'decide',
        { params: { id: visitId }, body },
        about(visitId, 'a word that lifts a finding'),
      ),
    onSuccess: (page) => refresh(page),
  })
}

export function useTakeBackDecision(visitId: string) {
  const cache = useQueryClient()
  const refresh = useVisitRefresh()
  return useMutation({
    mutationFn: (id: string) =>
      write('takeBackDecision', { params: { id } }, about(visitId, 'a word taken back')),
    onSuccess: (page) => refresh(page),
    onError: () => void cache.invalidateQueries({ queryKey: ['visit', visitId] }),
  })
}

/** Saves which products were used. Taps follow each other faster than answers. */
export function useSaveProducts(id: string) {
  const cache = useQueryClient()
  const refresh = useVisitRefresh()
  const shown = () => cache.getQueryData<VisitPage>(['visit', id])
  const mutation = useMutation({
    mutationFn: (products: string[]) =>
      write(
        'saveProducts',
        { params: { id }, body: { products } },
        about(id, 'products used', 'products'),
      ),
    meta: { row: rowOf('products', id) },
    onSuccess: (page) => refresh(page, 'products'),
    onError: () => void cache.invalidateQueries({ queryKey: ['visit', id] }),
  })
  return {
    error: mutation.error,
    change: (change: (products: string[]) => string[]) => {
      const before = shown()
      if (!before) return
      const products = change(before.products)
      showTapped(cache, { ...before, products })
      mutation.mutate(products)
    },
  }
}

export function useChangeMessage(visitId: string) {
  const cache = useQueryClient()
  const saved = useSaved((s) => s.mark)
  return useMutation({
    mutationFn: ({ id, ...body }: { id: string; text?: string; state?: Message['state'] }) =>
      write('changeMessage', { params: { id }, body }, about(visitId, 'a message')),
    onSuccess: () => {
      saved()
      return cache.invalidateQueries({ queryKey: ['visit', visitId] })
    },
  })
}

export function useAddHair(id: string) {
  const refresh = useVisitRefresh()
  return useMutation({
    mutationFn: (body: ToldBody<'addHairReading'>) =>
      write('addHairReading', { params: { id }, body }, about(id, 'a reading of regrowth')),
    onSuccess: (page) => refresh(page),
  })
}

export function useRemoveHair(visitId: string) {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (id: string) =>
      write(
        'removeHairReading',
        { params: { id } },
        about(visitId, 'a reading of regrowth, taken out'),
      ),
    onSuccess: () => {
      void cache.invalidateQueries({ queryKey: ['visit', visitId] })
      void cache.invalidateQueries({ queryKey: ['client'] })
    },
  })
}

export const useHistory = (clientId: string) =>
  useQuery({
    queryKey: ['client', clientId, 'history'],
    queryFn: () => call('history', { params: { id: clientId } }),
  })

/** An earlier stretch of the tide line; none while it shows the latest. */
export const useEarlierTide = (clientId: string, back: number) =>
  useQuery({
    queryKey: ['client', clientId, 'tide', back],
    queryFn: () => call('tide', { params: { id: clientId }, query: { back } }),
    enabled: back > 0,
    placeholderData: (before) => before,
  })

/** A link page for the client of a visit. */
export function useLink(visitId: string) {
  const cache = useQueryClient()
  const again = () => cache.invalidateQueries({ queryKey: ['visit', visitId] })
  const make = useMutation({
    mutationFn: () => call('addLink', { params: { id: visitId } }),
    onSuccess: again,
  })
  const takeBack = useMutation({
    mutationFn: () => call('takeBackLinks', { params: { id: visitId } }),
    onSuccess: again,
  })
  return { make, takeBack }
}

export function useChangeHouse() {
  const cache = useQueryClient()
  const saved = useSaved((s) => s.mark)
  return useMutation({
    mutationFn: async (body: HouseEdit) => {
      const house = await call('changeHouse', { body })
      await takeFigures(house.figures)
      return house
    },
    onSuccess: (house) => {
      cache.setQueryData(['house'], house)
      saved()
      void cache.invalidateQueries({ queryKey: ['client'] })
      void cache.invalidateQueries({ queryKey: ['today'] })
    },
  })
}
