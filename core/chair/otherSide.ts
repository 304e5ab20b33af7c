/** The beard is combed down and the sides are compared: the one with more to do goes first, told at the chair. */
import { DomainError } from '../errors.ts'
import type { HeavierSide } from '../hair/index.ts'
import { makePlan, type PlanInput, type PlanStep } from '../plan/index.ts'
import { newRest, type Replanned } from './newRest.ts'
import type { Live } from './state.ts'

/** The step in which both sides are compared. */
export const COMB_STEP = 'prepare:comb'

const SIDE_WORDS: Readonly<Record<HeavierSide, string>> = {
  left: 'More to do on the client’s left: it goes first, the right is matched to it.',
  right: 'More to do on the client’s right: it goes first, the left is matched to it.',
  alike: 'Both sides alike: the order goes by the areas.',
}

/**
 * The rest in the order that the side seen gives it.
 * @throws DomainError `nothing-to-change`; `too-late` after that step
 */
export function otherSide(
  input: PlanInput,
  live: Live,
  rest: readonly PlanStep[],
  side: HeavierSide,
): Replanned {
  const at = rest.findIndex((s) => s.id === COMB_STEP)
  if (at < 0) {
    throw new DomainError(
      'too-late',
      'The sides were compared already: match the second to the first.',
    )
  }
  const asked = makePlan({ ...input, notes: { ...input.notes, heavier: side } }).steps
  const [old, anew] = [
    rest.slice(at + 1),
    asked.slice(1 + asked.findIndex((s) => s.id === COMB_STEP)),
  ]
  const ids = (of: readonly PlanStep[]) => of.flatMap((s) => (s.kind === 'lather' ? [] : [s.id]))
  // What was changed on the way is no longer as a plan made anew has it: then the old order stands.
  if (ids(old).sort().join() !== ids(anew).sort().join()) {
    throw new DomainError(
      'nothing-to-change',
      'The rest was changed on the way, so it keeps its order. What you saw still holds: match the sides by eye.',
    )
  }
  if (ids(old).join() === ids(anew).join()) {
    throw new DomainError('nothing-to-change', 'The lanes are in that order.')
  }
  const steps = [...rest.slice(0, at + 1), ...anew]
  return newRest(input, live, steps, [], [], SIDE_WORDS[side])
}
