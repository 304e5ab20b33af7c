/** Who asks: found once for each request, and carried along to whatever is written because of it. */
import { AsyncLocalStorage } from 'node:async_hooks'
import type { Basis } from '../../contract/joined.ts'
import type { Asker, Use } from '../../contract/rights.ts'

export interface Who {
  readonly asker: Asker
  readonly workerId: string | null
  readonly worker: string
  /** The screen it was asked on: this machine's, or the name of a paired one. */
  readonly screen: string
  readonly locked: boolean
  /** False on another machine that was not paired. */
  readonly letIn: boolean
}

/** What the trail keeps of one use. */
export interface Deed {
  readonly who: Who
  readonly use: Use
  readonly what: string
  readonly clientId: string | null
}

/** A request while it is handled. */
export interface Handled {
  /** Written with what it changes. */
  deed: Deed | undefined
  readonly who?: Who
  /** What the entry was made on, where it may meet another. */
  readonly basis?: Basis | undefined
}
export const underWay = new AsyncLocalStorage<Handled>()
