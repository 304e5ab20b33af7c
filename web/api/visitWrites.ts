/** What is entered at the stations of a visit: it shows at once, waits in the outbox, and is in the cache when it is kept. */
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { ToldBody } from '../../contract/routes.ts'
import type { Message, VisitPage } from '../../contract/types.ts'
import { editedReadings, inverseEdit, type MapEdit } from '../../core/grain/index.ts'
import type { PlanChoice } from '../../core/plan/index.ts'
import { write } from '../outbox/browser.ts'
import { useSaved } from '../state/saved.ts'
import { call } from './call.ts'
import { about, useVisitRefresh } from './queries.ts'
import { useOptimisticSave, useWholeSave, whole, type Whole } from './optimistic.ts'

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

/** A part that takes only what changed of it. */
type Patch<V> = (change: (before: V) => Partial<V>) => void

/** Saves what was asked. */
export function useSaveAsked(id: string) {
  const save = useWholeSave<VisitPage['asked']>(id, {
    ...whole(),
    part: 'asked',
    what: 'what was asked',
    row: 'asked',
    of: (page) => page.asked,
    put: (page, asked) => ({ ...page, asked }),
    send: (page, { from, to }, whose) =>
      write('saveAsked', { params: { id: page.id }, body: to, was: from }, whose),
  })
  const change: Patch<VisitPage['asked']> = (change) =>
    save.change((before) => ({ ...before, ...change(before) }))
  return { ...save, change }
}

/** Saves lines and hair. */
export function useSaveNotes(id: string) {
  const save = useWholeSave<VisitPage['notes']>(id, {
    ...whole(),
    part: 'notes',
    what: 'lines and hair',
    row: 'notes',
    of: (page) => page.notes,
    put: (page, notes) => ({ ...page, notes }),
    send: (page, { from, to }, whose) =>
      write('saveNotes', { params: { id: page.id }, body: to, was: from }, whose),
  })
  const change: Patch<VisitPage['notes']> = (change) =>
    save.change((before) => ({ ...before, ...change(before) }))
  return { ...save, change }
}

/** Edits the map. A step is what is taken away and what is added, so that what another hand read meanwhile stays. */
export const useEditReadings = (id: string) =>
  useOptimisticSave<VisitPage['readings'], MapEdit>(id, {
    part: 'readings',
    what: 'the map of the grain',
    of: (page) => page.readings,
    put: (page, readings) => ({ ...page, readings }),
    apply: editedReadings,
    back: inverseEdit,
    send: (page, edit, whose) =>
      write(
        'editReadings',
        {
          params: { id: page.id },
          body: { remove: edit.remove.map((r) => r.id), add: edit.add },
        },
        whose,
      ),
  })

/** What is kept of a plan: the choice, and the plan that the screen has worked out of it. */
type KeptPlan = Pick<VisitPage, 'plan' | 'planMadeAtMs'>

/** Keeps a plan: it shows as kept at once, and the server works out the same one from the choice. */
export function useSavePlan(id: string) {
  const save = useOptimisticSave<KeptPlan, Whole<KeptPlan>>(id, {
    ...whole(),
    part: 'plan',
    what: 'the plan',
    row: 'plan',
    of: ({ plan, planMadeAtMs }) => ({ plan, planMadeAtMs }),
    put: (page, kept) => ({ ...page, ...kept }),
    send: (page, { to }, whose) =>
      write('savePlan', { params: { id: page.id }, body: to.plan!.choice }, whose),
  })
  return {
    ...save,
    keep: (plan: NonNullable<VisitPage['plan']>) => {
      const from = save.now()
      if (from) save.send({ from, to: { plan, planMadeAtMs: Date.now() } })
    },
  }
}

/** Keeps the plan that a choice leads to, where the screen has none yet: the server works it out. */
export function useMakePlan(id: string) {
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

/** Saves which products were used. */
export const useSaveProducts = (id: string) =>
  useWholeSave<VisitPage['products']>(id, {
    ...whole(),
    part: 'products',
    what: 'products used',
    row: 'products',
    of: (page) => page.products,
    put: (page, products) => ({ ...page, products }),
    send: (page, { to }, whose) =>
      write('saveProducts', { params: { id: page.id }, body: { products: [...to] } }, whose),
  })

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
