/** Services at the chair led on by hand, for tests. */
import { admit, nextPress, type Draft, type Live } from '../chair/index.ts'
import { DEFAULTS } from '../house/index.ts'

export const BLADE_LIFE = 400

let n = 0
/** Tells a service something, by its rules. */
export const tell = (live: Live, draft: Draft, atMs = live.state.lastAtMs + 1000): Live =>
  admit(DEFAULTS, live, { ...draft, id: `t${++n}`, screen: 's', n, atMs, seq: live.state.seq + 1 })

/** Presses on, waiting where one has to, until something is so. */
export function through(live: Live, stop: (l: Live) => boolean): Live {
  let at = live
  let clock = live.state.lastAtMs
  for (let i = 0; i < 500 && !stop(at); i++) {
    clock += 15_000
    const { draft, waitMs } = nextPress(DEFAULTS, at, clock, BLADE_LIFE)
    if (draft) at = tell(at, draft, clock)
    else clock += waitMs ?? 0
  }
  return at
}

export const stepOf = ({ plan, state }: Live) => plan.steps[state.index]
