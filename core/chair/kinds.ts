/** Every kind of event at the chair, by its name. */
import { FLOW } from './kinds/flow.ts'
import type { EventKind } from './kinds/kind.ts'
import { SKIN_EVENTS } from './kinds/skin.ts'
import { TOOL_EVENTS } from './kinds/tools.ts'

export type ChairEventKind = keyof typeof FLOW | keyof typeof SKIN_EVENTS | keyof typeof TOOL_EVENTS

export const KINDS: Readonly<Record<ChairEventKind, EventKind>> = {
  ...FLOW,
  ...SKIN_EVENTS,
  ...TOOL_EVENTS,
}
export const CHAIR_EVENT_KINDS = Object.keys(KINDS) as ChairEventKind[]
