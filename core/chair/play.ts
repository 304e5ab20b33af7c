/** A service that goes by the pedal from start to end, for the demo, for measuring and for tests. */
import type { Figures } from '../house/index.ts'
import { nextPress, admit } from './rules.ts'
import type { PlanStep } from '../plan/index.ts'
import { numbered } from './outbox.ts'
import { begin, type ChairPlan, type Live } from './state.ts'
import type { ChairEvent, Draft } from './events.ts'

export interface Play {
  readonly startMs: number
  readonly bladeLife: number
  readonly screen: string
  readonly newId: () => string
  /** What happens besides, before a step is done; each is counted if it may be. */
  readonly besides?: ((live: Live<ChairPlan>) => readonly Draft[]) | undefined
  /** How long a step takes, ms; as planned when left out. */
  readonly lasts?: ((step: PlanStep) => number) | undefined
}

/** Presses the pedal until the service is finished; waits where it must. */
export function play(figures: Figures, plan: ChairPlan, by: Play): ChairEvent[] {
  const events: ChairEvent[] = []
  let live: Live<ChairPlan> = begin(plan)
  let clock = by.startMs
  const happen = (draft: Draft) => {
    const n = events.length + 1
    const event = {
      ...numbered(draft, { id: by.newId(), screen: by.screen, n, atMs: Math.round(clock) }),
      seq: n,
    }
    live = admit(figures, live, event)
    events.push(event)
  }
  while (live.state.status !== 'finished') {
    const step = live.plan.steps[live.state.index]
    const press = nextPress(figures, live, clock, by.bladeLife)
    if (!press.draft) {
      clock += press.waitMs ?? 1000
      continue
    }
    if (press.draft.kind === 'done' && step) {
      const at = live.state.index
      for (const draft of by.besides?.(live) ?? []) happen(draft)
      if (live.state.index !== at) continue
      clock += by.lasts ? by.lasts(step) : step.minutes * 60_000
    } else clock += 2000
    happen(press.draft)
  }
  return events
}
