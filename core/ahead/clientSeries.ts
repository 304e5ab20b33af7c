/** The visits ahead of a client, from what is known of them: used by the screen and by the calendar alike. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { eventQuestion } from './eventQuestion.ts'
import type { Product } from '../care/index.ts'
import type { ClientModel } from '../history/index.ts'
import type { Plan } from '../plan/index.ts'
import type { ClosedDays } from '../time/index.ts'
import type { ServiceId } from '../services/index.ts'
import type { VisitWindow } from '../regrowth/index.ts'
import { visitSeries, type ClientEvent, type SeriesVisit } from './series.ts'

export interface SeriesFacts {
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly model: Pick<ClientModel, 'sensitivity' | 'growth' | 'fading'>
  readonly schools: Schools
  readonly noFragrance: boolean
  readonly products: readonly Product[]
  readonly events: readonly ClientEvent[]
  readonly window: VisitWindow
  /** The last service of the kind. */
  readonly last: {
    readonly endedAtMs: number
    readonly leftMm: Readonly<Record<string, number>> | null
    readonly plan?: Pick<Plan, 'zones' | 'totalMinutes'> | undefined
  }
  readonly nowMs: number
  readonly throughMs: number
  readonly closed: ClosedDays
  /** Minutes east of UTC at a moment. */
  readonly offset: (ms: number) => number
}

export const clientSeries = (figures: Figures, f: SeriesFacts): SeriesVisit[] =>
  visitSeries(figures, {
    service: f.service,
    lastAtMs: f.last.endedAtMs,
    window: f.window,
    nowMs: f.nowMs,
    throughMs: f.throughMs,
    growth: f.model.growth,
    leftMm: f.last.leftMm ?? {},
    events: f.events,
    closed: f.closed,
    offset: f.offset,
    question: (event, notBeforeMs) => ({
      ...eventQuestion(
        figures,
        { ...f, window: undefined, plan: f.last.plan },
        event.kind,
        event.atMs,
      ),
      notBeforeMs,
      notBeforeWhy: 'The skin is not ready before.',
    }),
  })
