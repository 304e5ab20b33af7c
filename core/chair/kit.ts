/** What a service does to the kit: blades opened, changed and binned. */
import type { BladeId } from '../kit/index.ts'
import { bladeInHand } from './kinds/kind.ts'
import type { BladeEnd, ChairEvent } from './events.ts'
import type { ChairPlan, Live } from './state.ts'

/** One blade opened, changed or binned. A blade that did not tug or need pressure did not fail: it is censored (M13). */
export interface KitEvent {
  readonly id: string
  readonly visitId: string
  readonly atMs: number
  readonly kind: 'opened' | 'changed' | 'binned'
  readonly bladeId: BladeId
  /** Strokes it had made; 0 when opened. */
  readonly strokes: number
  readonly why: BladeEnd | ''
}

/** What an event does to the kit; `before` is the service as it stood. */
export function kitEvents(
  visitId: string,
  before: Live<ChairPlan>,
  event: ChairEvent,
  newId: () => string,
): KitEvent[] {
  const { state, plan } = before
  const row = (
    kind: KitEvent['kind'],
    bladeId: BladeId | undefined,
    strokes = 0,
    why: KitEvent['why'] = '',
  ): KitEvent[] =>
    bladeId === undefined
      ? []
      : [{ id: newId(), visitId, atMs: event.atMs, kind, bladeId, strokes, why }]
  switch (event.kind) {
    case 'blade-opened':
      return row('opened', event.detail?.bladeId)
    case 'blade-changed': {
      const held = bladeInHand(before, plan.steps[state.index])?.blade
      return [
        ...row('changed', held?.bladeId, held?.strokes, event.detail?.why ?? 'by-hand'),
        ...row('opened', held?.bladeId),
      ]
    }
    case 'blades-binned':
    case 'ended-late':
      return state.blades
        .filter((b) => b.end === undefined)
        .flatMap((b) => row('binned', b.bladeId, b.strokes, 'end'))
    default:
      return []
  }
}
