/** Who asks: found once for each request, and carried along to whatever is written because of it. */
import { AsyncLocalStorage } from 'node:async_hooks'
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

/** The deed that a request is; written with what it changes. */
export const underWay = new AsyncLocalStorage<{ deed: Deed | undefined }>()
