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
import { useOptimisticSave, whole, type Whole } from '../../api/optimistic.ts'
import { write } from '../../outbox/browser.ts'

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

const lookOf = (stored: SkinAnswer | undefined): Look | undefined =>
  stored && {
    zones: stored.zones,
    spots: stored.spots ?? [],
    feeling: stored.feeling ?? {},
    source: stored.source ?? 'seen',
  }

export function useLook(visit: VisitPage, moment: Moment): Looking {
  const figures = useFigures()
  // Kept as the time it speaks of: an answer given late still belongs to its moment.
  const atMs = () =>
    Math.round(Math.min(Date.now(), visit.endedAtMs! + momentHours(figures, moment) * HOUR_MS))
  const save = useOptimisticSave<Look | undefined, Whole<Look | undefined>>(visit.id, {
    ...whole(),
    part: 'answers',
    past: `look-${moment}`,
    what: 'how the skin took it',
    row: `look-${moment}`,
    of: (page) => lookOf(page.answers.find((a) => a.moment === moment)),
    put: (page, look) => ({
      ...page,
      answers: [
        ...page.answers.filter((a) => a.moment !== moment),
        ...(look ? [{ moment, atMs: atMs(), ...look }] : []),
      ],
    }),
    send: (page, { from, to }, whose) => {
      const params = { id: page.id, moment }
      if (!to) return write('removeSkinAnswer', { params }, { ...whose, row: undefined })
      const body = { ...to, atMs: atMs(), zones: to.zones.filter(isMarked) }
      return write('saveSkinAnswer', { params, body, was: from ?? NOTHING_SEEN }, whose)
    },
    also: (page) => [['client', page.clientId, 'history']],
  })
  const stored = visit.answers.find((a) => a.moment === moment)
  const shown = lookOf(stored)
  const step = (to: (now: Look | undefined) => Look | undefined) => {
    const from = save.now()
    save.step({ from, to: to(from) })
  }
  return {
    look: shown ?? NOTHING_SEEN,
    stored,
    answered: shown !== undefined,
    change: (change) =>
      step((now) => ({ ...(now ?? NOTHING_SEEN), ...change(now ?? NOTHING_SEEN) })),
    undo: save.undo,
    canUndo: save.canUndo,
    takeAway: () => step(() => undefined),
    error: save.error,
  }
}
