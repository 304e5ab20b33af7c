/** What can be done while a towel works: the tasks that fit into the warmth that is left. */
import { constant, type Figures } from '../house/index.ts'
import type { ChairState } from './state.ts'

export const MEANWHILE_CONSTANTS = {
  latherMin: constant(1, 'min', 'Work up the lather', 'H'),
  layOutMin: constant(0.5, 'min', 'Lay out blade, paper, styptic and balm', 'H'),
  soakMin: constant(0.5, 'min', 'Implements into the disinfectant', 'H'),
  coldMin: constant(0.5, 'min', 'Put one towel aside to go cold', 'H'),
  contactMin: constant(
    10,
    'min',
    'Wet contact time of the disinfectant; the label comes first',
    'C',
  ),
} as const

const C = MEANWHILE_CONSTANTS

export interface Task {
  readonly id: 'cold' | 'lather' | 'lay-out' | 'soak'
  readonly text: string
  readonly minutes: number
}

const TASKS = (figures: Figures): readonly Task[] => [
  { id: 'cold', text: 'Put one towel aside, for the cold close', minutes: figures(C.coldMin) },
  { id: 'lay-out', text: 'Lay out blade, paper, styptic, balm', minutes: figures(C.layOutMin) },
  { id: 'lather', text: 'Work up the lather', minutes: figures(C.latherMin) },
  { id: 'soak', text: 'Used implements into the disinfectant', minutes: figures(C.soakMin) },
]

/** Tasks not yet done, and whether each still fits into the time left, in turn. */
export function meanwhile(
  figures: Figures,
  state: ChairState,
  leftMs: number,
): (Task & { fits: boolean })[] {
  let used = 0
  return TASKS(figures)
    .filter(
      (t) =>
        !state.prepared.includes(t.id) &&
        !(t.id === 'cold' && state.towels['kept']) &&
        !(t.id === 'soak' && state.soakedAtMs !== undefined),
    )
    .map((t) => {
      used += t.minutes * 60_000
      return { ...t, fits: used <= leftMs }
    })
}

/** Until implements may come out of the disinfectant, ms; undefined when none are in. */
export function soakLeftMs(figures: Figures, state: ChairState, nowMs: number): number | undefined {
  if (state.soakedAtMs === undefined) return undefined
  const contactMs = figures(C.contactMin) * 60_000
  return Math.min(contactMs, state.soakedAtMs + contactMs - nowMs)
}
