/** What is entered at the stations of a visit: it shows at once, waits in the outbox, and is in the cache when it is kept. */
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { ToldBody } from '../../contract/routes.ts'
import type { Message, VisitPage } from '../../contract/types.ts'
import { editedReadings, type MapEdit } from '../../core/grain/index.ts'
import type { PlanChoice } from '../../core/plan/index.ts'
import { write, type About } from '../outbox/browser.ts'
import { usePast } from '../state/past.ts'
import { useSaved } from '../state/saved.ts'
import { call } from './call.ts'
import { about, useVisitRefresh } from './queries.ts'
import { rowOf, showTapped } from './tapped.ts'

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

/** What is told of a part in the list of what is not saved. */
const PART_WORDS = { asked: 'what was asked', notes: 'lines and hair' } as const

/**
 * A part of a visit that is entered tap by tap: changes build on what is shown, show at once, are sent in order, one at a
 * time, and can be taken back.
 */
function useTapped<P extends keyof typeof PART_WORDS>(
  id: string,
  part: P,
  send: (now: VisitPage[P], was: VisitPage[P], whose: About) => Promise<VisitPage>,
) {
  const cache = useQueryClient()
  const past = usePast<VisitPage[P]>(`${part}-${id}`)
  const refresh = useVisitRefresh()
  const shown = () => cache.getQueryData<VisitPage>(['visit', id])
  const mutation = useMutation({
    mutationFn: ({ now, was }: { now: VisitPage[P]; was: VisitPage[P] }) =>
      send(now, was, about(id, PART_WORDS[part], part)),
    meta: { row: rowOf(part, id) },
    onSuccess: (page) => refresh(page, part),
    onError: () => void cache.invalidateQueries({ queryKey: ['visit', id] }),
  })
  const put = (page: VisitPage, now: VisitPage[P]) => {
    showTapped(cache, { ...page, [part]: now })
    mutation.mutate({ now, was: page[part] })
  }
  return {
    error: mutation.error,
    change: (change: (before: VisitPage[P]) => Partial<VisitPage[P]>) => {
      const page = shown()
      if (!page) return
      past.remember(page[part])
      put(page, { ...page[part], ...change(page[part]) })
    },
    canUndo: past.any,
    /** Takes the last change back. */
    undo: () => {
      const page = shown()
      const before = page && past.takeBack()
      if (before) put(page, before)
    },
  }
}

/** Saves what was asked. */
export const useSaveAsked = (id: string) =>
  useTapped(id, 'asked', (body, was, whose) =>
    write('saveAsked', { params: { id }, body, was }, whose),
  )

/** Saves lines and hair. */
export const useSaveNotes = (id: string) =>
  useTapped(id, 'notes', (body, was, whose) =>
    write('saveNotes', { params: { id }, body, was }, whose),
  )

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
