/** Events of the tools: blades, towels, lather, the disinfectant. */
import type { Towel } from '../state.ts'
import { towelPlan } from '../towel.ts'
import {
  bladeInHand,
  forbid,
  latherAt,
  refuse,
  withBlade,
  type EventKind,
  type Meets,
} from './kind.ts'

export const TOOL_EVENTS = {
  tug: { words: 'The blade tugged', takes: [], admit: needsBlade, effect: worn('tug') },
  pressure: {
    words: 'The blade needed pressure',
    takes: [],
    admit: needsBlade,
    effect: worn('pressure'),
  },
  'blade-opened': {
    words: 'A fresh blade',
    takes: ['bladeId'],
    effect: ({ state, event }) => ({
      ...state,
      blades: [
        ...state.blades,
        { bladeId: event.detail?.bladeId, openedAtMs: event.atMs, strokes: 0 },
      ],
    }),
  },
  'blade-changed': {
    words: 'The blade was changed',
    takes: ['why'],
    admit: needsBlade,
    effect: (meets) => {
      const { state, current, event } = meets
      const { atMs, detail } = event
      const held = bladeInHand(meets, current)
      // Services of before told of changes only: the first blade was in hand unsaid.
      const blades = held
        ? withBlade(state, held.index, { end: detail?.why ?? 'by-hand', endedAtMs: atMs }).blades
        : [{ openedAtMs: atMs, strokes: 0, end: 'by-hand' as const, endedAtMs: atMs }]
      const bladeId = held?.blade.bladeId
      return { ...state, blades: [...blades, { bladeId, openedAtMs: atMs, strokes: 0 }] }
    },
  },
  'blades-binned': {
    words: 'Blades into the sharps box',
    takes: [],
    effect: ({ state, event }) => ({
      ...state,
      blades: state.blades.map((b) => (b.end ? b : { ...b, end: 'end', endedAtMs: event.atMs })),
    }),
  },
  'towel-out': {
    words: 'Towel out of the warmer',
    takes: [],
    effect: ({ state, event, stepId }) => ({
      ...state,
      towels: { ...state.towels, [stepId]: { outAtMs: event.atMs, reads: [] } },
    }),
  },
  'towel-kept': {
    words: 'A towel kept back',
    takes: [],
    effect: ({ state, event }) => ({
      ...state,
      towels: { ...state.towels, kept: { outAtMs: event.atMs, reads: [] } },
    }),
  },
  'towel-read': {
    words: 'Towel read with the probe',
    takes: ['rawC', 'tempC', 'withinC'],
    effect: (meets) => {
      const { state, event, stepId } = meets
      const { tempC = 0, withinC = 0 } = event.detail ?? {}
      const read = { atMs: event.atMs, tempC, withinC }
      // What is read now counts for more than what was felt before.
      return towel(meets, {
        reads: [...(state.towels[stepId]?.reads ?? []), read],
        wristAtMs: undefined,
      })
    },
  },
  'towel-asked': {
    words: 'Asked whether the warmth is right',
    takes: [],
    effect: (meets) => towel(meets, { askedAtMs: meets.event.atMs }),
  },
  'towel-wrist': {
    words: 'Towel felt on the wrist, and asked',
    takes: [],
    admit: (figures, { state, stepId, event }) => {
      const out = state.towels[stepId]
      if (out && towelPlan(figures, out, event.atMs).wristMs > 0) {
        throw forbid(
          'too-hot',
          'Not yet: the wrist decides from the time on at which even a slow towel in a warm room is below what harms. Wait, or read it with the probe.',
        )
      }
    },
    effect: (meets) => towel(meets, { askedAtMs: meets.event.atMs, wristAtMs: meets.event.atMs }),
  },
  'towel-laid': {
    words: 'Towel laid',
    takes: [],
    admit: (figures, { state, current, event }) => {
      const laid = current && state.towels[current.id]
      if (laid?.askedAtMs === undefined) {
        throw forbid('ask-first', 'Ask the client first whether the warmth is right, always.')
      }
      if (laid.wristAtMs === undefined && towelPlan(figures, laid, event.atMs).waitMs > 0) {
        throw forbid(
          'too-hot',
          'The towel may still be too hot to lay. Wait, read it with the probe, or feel it on your wrist once that is safe.',
        )
      }
    },
    effect: (meets) => towel(meets, { laidAtMs: meets.event.atMs }),
  },
  're-lathered': {
    words: 'Lathered anew',
    takes: [],
    effect: ({ plan, state, event }) => ({
      ...state,
      lathered: latherAt(plan, state, state.index, event.atMs),
    }),
  },
  soaked: {
    words: 'Tools into the disinfectant',
    takes: [],
    effect: ({ state, event }) => ({ ...state, soakedAtMs: event.atMs }),
  },
  prepared: {
    words: 'Made ready meanwhile',
    takes: ['task'],
    effect: ({ state, event }) => ({
      ...state,
      prepared: [...new Set([...state.prepared, event.detail?.task ?? ''])],
    }),
  },
} as const satisfies Record<string, EventKind>

/** A plan with lanes tells its blades apart: one must be open. */
function needsBlade(_: unknown, meets: Meets): void {
  const { plan, current } = meets
  if (plan.lanes && plan.lanes.length > 0 && !bladeInHand(meets, current)) {
    throw forbid('no-blade-opened', 'No blade is open yet.')
  }
}

function worn(kind: 'tug' | 'pressure'): EventKind['effect'] {
  return (meets) => {
    const { state, event, stepId, current } = meets
    const tugs = [...state.tugs, { stepId, atMs: event.atMs, pressure: kind === 'pressure' }]
    const held = bladeInHand(meets, current)
    return { ...state, tugs, ...(held && withBlade(state, held.index, { worn: kind })) }
  }
}

function towel({ state, stepId }: Meets, change: Partial<Towel>) {
  const had = state.towels[stepId]
  if (!had) throw refuse('That towel has not been taken out yet.')
  return { ...state, towels: { ...state.towels, [stepId]: { ...had, ...change } } }
}
