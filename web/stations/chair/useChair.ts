/** The chair in React: one link for each visit on the screen, fed by the server's stream of events. */
import type { Figures } from '../../../core/house/index.ts'
import type { ChairEvent } from '../../../core/chair/index.ts'
import type { Plan } from '../../../core/plan/index.ts'
import { sendsByItself } from './left.ts'
import { useAway } from '../../state/away.ts'
import { useFigures } from '../../state/figures.ts'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { call, isRefused } from '../../api/call.ts'
import { stream } from '../../stream/browser.ts'
import { newId } from '../../state/words.ts'
import { ChairLink, type LinkView } from './link.ts'
import { keptStore, passingStore } from './waiting.ts'

/** Browsers without a database of their own (private windows) keep events only as long as the tab. */
const store = typeof indexedDB === 'undefined' ? passingStore() : keptStore

function makeLink(
  figures: Figures,
  visitId: string,
  plan: Plan,
  events: readonly ChairEvent[],
): ChairLink {
  return new ChairLink(
    figures,
    {
      store,
      newId,
      send: (event) => call('addEvent', { params: { id: visitId }, body: event, write: event.id }),
      fetch: async () => {
        const page = await call('visit', { params: { id: visitId } })
        return { plan: page.plan!, events: page.events }
      },
      refused: (error, event) => isRefused(error, event.id),
      steadyMs: () => performance.now(),
      wallMs: () => Date.now(),
      later: (work, ms) => {
        const timer = setTimeout(work, ms)
        return () => clearTimeout(timer)
      },
    },
    visitId,
    plan,
    events,
  )
}

export interface Chair extends LinkView {
  readonly link: ChairLink
}

export function useChair(visit: VisitPage, plan: Plan): Chair {
  const figures = useFigures()
  const cache = useQueryClient()
  const { id, clientId } = visit
  // Plan and events are handed over once; later ones come by the stream, or as `changed`.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const link = useMemo(() => makeLink(figures, id, plan, visit.events), [id])
  const view = useSyncExternalStore(link.subscribe, link.view)
  useEffect(() => {
    const byItself = sendsByItself(id)
    void link.open(useAway.getState().keptAtMs !== null)
    const from = link.view().stored.length
    const end = stream().follow(id, from, {
      chair: (event) => link.arrived(event),
      clock: (nowMs) => link.clock(nowMs),
      changed: () => void cache.invalidateQueries({ queryKey: ['visit', id] }),
      here: (here) => link.connected(here),
    })
    // A tablet that slept, or was carried back into the room.
    const wake = () => document.visibilityState === 'visible' && link.wake()
    document.addEventListener('visibilitychange', wake)
    window.addEventListener('online', wake)
    return () => {
      byItself()
      end()
      document.removeEventListener('visibilitychange', wake)
      window.removeEventListener('online', wake)
      link.close()
    }
  }, [link, id, cache])
  useEffect(() => link.take(plan, visit.events), [link, plan, visit.events])
  // What the rest of the page shows of the visit follows.
  const { stored } = view
  const last = stored[stored.length - 1]
  useEffect(() => {
    if (!last) return
    // Those that change the visit itself, or the map.
    if (['started', 'finished', 'ended-late', 'taken-back', 'felt'].includes(last.kind)) {
      void cache.invalidateQueries({ queryKey: ['client', clientId] })
      void cache.invalidateQueries({ queryKey: ['today'] })
      void cache.invalidateQueries({ queryKey: ['visit', id] })
      // What has ended teaches the worker's pace.
      void cache.invalidateQueries({ queryKey: ['house'] })
    }
  }, [last, cache, clientId, id])
  // What was refused knows something that this screen does not.
  useEffect(() => {
    if (view.problem) void cache.invalidateQueries({ queryKey: ['visit', id] })
  }, [view.problem, cache, id])
  return useMemo(() => ({ ...view, link }), [view, link])
}

/** Now by the link's clock, told anew every second. */
export function useChairNow(link: ChairLink): number {
  const [now, setNow] = useState(() => link.nowMs())
  useEffect(() => {
    const timer = setInterval(() => setNow(link.nowMs()), 1000)
    return () => clearInterval(timer)
  }, [link])
  // What has just happened must not lie ahead of the second shown.
  return Math.max(now, link.nowMs() - 1000)
}
