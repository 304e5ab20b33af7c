/**
 * What a screen has told and the server has not yet stored: kept in order, sent one at a time, shown at once. Pure; the
 * screen keeps it where it outlives the tab.
 */
import type { Figures } from '../house/index.ts'
import { DomainError } from '../errors.ts'
import { admit } from './rules.ts'
import type { ChairPlan, Live } from './state.ts'
import type { Draft, ToldEvent } from './events.ts'

/** Numbers an event of a screen. `n` only ever rises. */
export function numbered(
  draft: Draft,
  by: { readonly id: string; readonly screen: string; readonly n: number; readonly atMs: number },
): ToldEvent {
  const { kind, stepId, reason, detail } = draft
  return {
    ...by,
    kind,
    ...(stepId !== undefined && { stepId }),
    ...(reason !== undefined && { reason }),
    ...(detail !== undefined && { detail }),
  }
}

/** Waiting events in the order in which they were made, each once, without those that the server has stored. */
export function inOrder(
  waiting: readonly ToldEvent[],
  stored: ReadonlySet<string> = new Set(),
): ToldEvent[] {
  const seen = new Set(stored)
  return [...waiting]
    .sort((a, b) => a.n - b.n)
    .filter((e) => !seen.has(e.id) && seen.add(e.id) !== undefined)
}

/** The service as the screen shows it: what is stored, then what waits, as far as it fits. */
export function foresee<P extends ChairPlan>(
  figures: Figures,
  stored: Live<P>,
  waiting: readonly ToldEvent[],
): { readonly live: Live<P>; readonly misfits: readonly ToldEvent[] } {
  let live = stored
  const misfits: ToldEvent[] = []
  for (const event of waiting) {
    try {
      live = admit(figures, live, { ...event, seq: live.state.seq + 1 })
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
      misfits.push(event)
    }
  }
  return { live, misfits }
}
