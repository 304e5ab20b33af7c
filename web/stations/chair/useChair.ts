/** Driving a live service: each tap is an event that the server has stored before it counts. */
import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import type { ChairEvent, ChairEventKind } from '../../../core/chair/service.ts'
import { call, CallProblem } from '../../api/call.ts'
import { newId } from '../../state/words.ts'

export function useChair(visit: VisitPage) {
  const cache = useQueryClient()
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string>()
  /** An event whose answer never came: sent again with the same id, so that it counts once. */
  const unsure = useRef<ChairEvent>(undefined)
  const inFlight = useRef(false)

  const send = async (event: ChairEvent): Promise<boolean> => {
    if (inFlight.current) return false
    inFlight.current = true
    setBusy(true)
    setProblem(undefined)
    try {
      const { state } = await call('addEvent', { params: { id: visit.id }, body: event })
      unsure.current = undefined
      cache.setQueryData<VisitPage>(
        ['visit', visit.id],
        (before) =>
          before && {
            ...before,
            chair: state,
            events: [...before.events.filter((e) => e.seq !== event.seq), event],
            state:
              state.status === 'finished'
                ? 'finished'
                : state.status === 'running'
                  ? 'running'
                  : before.state,
            startedAtMs: state.startedAtMs ?? null,
            endedAtMs: state.finishedAtMs ?? null,
          },
      )
      if (event.kind === 'started' || event.kind === 'finished') {
        void cache.invalidateQueries({ queryKey: ['client', visit.clientId] })
        void cache.invalidateQueries({ queryKey: ['today'] })
      }
      // The care sheet comes with the visit as the server now has it.
      if (event.kind === 'finished')
        await cache.invalidateQueries({ queryKey: ['visit', visit.id] })
      return true
    } catch (error) {
      const told = error instanceof CallProblem ? error : undefined
      if (told && told.status >= 400 && told.status < 500) {
        // The server has another view of where the service stands: take its view.
        unsure.current = undefined
        void cache.invalidateQueries({ queryKey: ['visit', visit.id] })
      } else {
        unsure.current = event
      }
      setProblem(
        told && told.status > 0
          ? told.message
          : 'The server does not answer. That tap is not counted yet: tap again when it is back.',
      )
      return false
    } finally {
      inFlight.current = false
      setBusy(false)
    }
  }

  const tell = async (kind: ChairEventKind, stepId?: string, reason?: string): Promise<boolean> => {
    if (unsure.current) {
      const again = unsure.current
      const arrived = await send(again)
      if (!arrived || again.kind === kind) return arrived
    }
    const current = cache.getQueryData<VisitPage>(['visit', visit.id]) ?? visit
    // A pedal that bounces presses again before the next step is drawn: it meant the step before.
    const { chair, plan } = current
    const meant = stepId === undefined || plan?.steps[chair.index]?.id === stepId
    if (!meant || (kind === 'started' && chair.status !== 'waiting')) return false
    return send({
      id: newId(),
      seq: current.chair.seq + 1,
      kind,
      atMs: Date.now(),
      ...(stepId !== undefined && { stepId }),
      ...(reason !== undefined && { reason }),
    })
  }
  return { tell, busy, problem }
}
