/** Plans off the main thread: the three kinds, the one chosen with its edits, and the longer search for an order. */
import {
  groundKey,
  groundOf,
  planInput,
  type HeadSkin,
  type PlanAsk,
  type PlanGround,
} from '../../core/visit/index.ts'
import { replan, type Cause, type Replanned, type Live } from '../../core/chair/index.ts'
import { DomainError } from '../../core/errors.ts'
import { figuresOf } from '../../core/register/index.ts'
import {
  makePlan,
  type PlanInput,
  planSearch,
  type SearchState,
  type Plan,
} from '../../core/plan/index.ts'
import { STYLES, type Style } from '../../core/services/index.ts'

/** A plan, or why there is none. */
export interface Planned {
  readonly plan?: Plan
  readonly why?: string
}

/** A new rest of a service, or why there is none. */
export interface Replanning {
  readonly replanned?: Replanned
  readonly why?: string
}

/** How often the progress of a search is told, ms. */
const TOLD_EVERY_MS = 200

/** Plans asked about over and over while one looks and edits: what does not change is remembered. */
export class PlanDesk {
  private readonly head: HeadSkin
  private key = ''
  private ground: PlanGround | undefined
  private searching = 0

  constructor(head: HeadSkin) {
    this.head = head
  }

  private inputOf(ask: PlanAsk): PlanInput {
    const figures = figuresOf(ask.house.changed)
    const key = groundKey(ask)
    if (key !== this.key || !this.ground) {
      this.ground = groundOf(figures, ask, this.head)
      this.key = key
    }
    return planInput(figures, ask, this.ground)
  }

  /** The plan of a choice. */
  plan(ask: PlanAsk): Planned {
    try {
      return { plan: makePlan(this.inputOf(ask)) }
    } catch (error) {
      if (error instanceof DomainError) return { why: error.message }
      throw error
    }
  }

  /** The rest of a running service anew. */
  replan(ask: PlanAsk, live: Live, cause: Cause): Replanning {
    try {
      return { replanned: replan(this.inputOf(ask), live, cause) }
    } catch (error) {
      if (error instanceof DomainError) return { why: error.message }
      throw error
    }
  }

  /** The three kinds without edits, side by side. */
  three(ask: PlanAsk): Record<Style, Planned> {
    const of = (style: Style) =>
      this.plan({
        ...ask,
        choice: {
          style,
          edits: {},
          ...(ask.choice.within !== undefined && { within: ask.choice.within }),
        },
      })
    return Object.fromEntries(STYLES.map((s) => [s, of(s)])) as Record<Style, Planned>
  }

  /** Searches on for a better order for some seconds; stops early when asked to. */
  async search(
    ask: PlanAsk,
    seconds: number,
    onProgress: (state: SearchState, share: number) => void,
  ): Promise<SearchState | undefined> {
    const { plan } = this.plan(ask)
    const search =
      plan && planSearch(figuresOf(ask.house.changed), plan, ask.schools, ask.worker!.hand)
    if (!search) return undefined
    const mine = ++this.searching
    const began = performance.now()
    let told = -Infinity
    let state = search.step(1)
    for (;;) {
      const now = performance.now()
      const share = (now - began) / (1000 * seconds)
      if (share >= 1 || mine !== this.searching) return state
      state = search.step(4)
      // Told after every round it would come faster than a slow screen draws, and the end would wait behind it.
      if (now - told >= TOLD_EVERY_MS) {
        told = now
        onProgress(state, Math.min(1, share))
      }
      await new Promise((go) => setTimeout(go, 0))
    }
  }

  /** Ends a search that is running; what it has found stays. */
  stopSearch(): void {
    this.searching++
  }
}
