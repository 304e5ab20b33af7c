/** One look at the skin after a service: what is stored, what is being tapped, and the way back. */
import { useFigures } from '../../state/figures.ts'
import {
  type SkinAnswer,
  type Moment,
  isMarked,
  NOTHING_SEEN,
  type Look,
  momentHours,
} from '../../../core/looks/index.ts'
import { HOUR_MS } from '../../../core/time/index.ts'
import type { VisitPage } from '../../../contract/types.ts'
import { about, useVisitRefresh } from '../../api/queries.ts'
import { write } from '../../outbox/browser.ts'
import { usePast } from '../../state/past.ts'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'

export interface Looking {
  readonly look: Look
  /** The answer as it is kept; undefined while nobody answered. */
  readonly stored: SkinAnswer | undefined
  readonly answered: boolean
  readonly change: (change: (look: Look) => Partial<Look>) => void
  readonly undo: () => void
  readonly canUndo: boolean
  /** Takes the whole answer away: not answered again. */
  readonly takeAway: () => void
  readonly error: Error | null
}

export function useLook(visit: VisitPage, moment: Moment): Looking {
  const figures = useFigures()
  const refresh = useVisitRefresh()
  const cache = useQueryClient()
  const stored = visit.answers.find((a) => a.moment === moment)
  const [draft, setDraft] = useState<{ moment: Moment; look: Look | undefined }>()
  const kept: Look | undefined = stored && {
    zones: stored.zones,
    spots: stored.spots ?? [],
    feeling: stored.feeling ?? {},
    source: stored.source ?? 'seen',
  }
  const shown = draft?.moment === moment ? draft.look : kept
  // Quick taps build on each other even before the screen has caught up.
  const latest = useRef(shown)
  latest.current = shown
  const past = usePast<Look | undefined>(`look-${visit.id}-${moment}`)
  const save = useMutation({
    mutationFn: async ({ look, was }: { look: Look | undefined; was: Look | undefined }) => {
      const params = { id: visit.id, moment }
      const whose = about(visit.id, 'how the skin took it', `look-${moment}`)
      if (!look) return write('removeSkinAnswer', { params }, { ...whose, row: undefined })
      // Kept as the time it speaks of: an answer given late still belongs to its moment.
      const atMs = Math.min(Date.now(), visit.endedAtMs! + momentHours(figures, moment) * HOUR_MS)
      const body = { ...look, atMs: Math.round(atMs), zones: look.zones.filter(isMarked) }
      return write('saveSkinAnswer', { params, body, was: was ?? NOTHING_SEEN }, whose)
    },
    onSuccess: (page) => {
      refresh(page)
      void cache.invalidateQueries({ queryKey: ['client', page.clientId, 'history'] })
    },
  })
  const put = (look: Look | undefined) => {
    const was = latest.current
    latest.current = look
    setDraft({ moment, look })
    save.mutate({ look, was })
  }
  return {
    look: shown ?? NOTHING_SEEN,
    stored,
    answered: shown !== undefined,
    change: (change) => {
      const before = latest.current
      past.remember(before)
      put({ ...(before ?? NOTHING_SEEN), ...change(before ?? NOTHING_SEEN) })
    },
    undo: () => put(past.takeBack()),
    canUndo: past.any,
    takeAway: () => {
      past.remember(latest.current)
      put(undefined)
    },
    error: save.error,
  }
}
