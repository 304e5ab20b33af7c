/** What an event is asked with: a middling client of whom nothing was learned, in a house that never closes. */
import type { EventFacts } from '../ahead/index.ts'
import { learnClient } from '../history/index.ts'
import { DEFAULT_SCHOOLS, DEFAULTS } from '../house/index.ts'
import { serviceZones } from '../services/index.ts'
import { ALWAYS_OPEN } from '../time/index.ts'
import { SKIN } from './client.ts'

export const NEW_MODEL = learnClient(DEFAULTS, SKIN, serviceZones('face-shave'), [], [])

export const eventFacts = (over: Partial<EventFacts> = {}): EventFacts => ({
  service: 'face-shave',
  skin: SKIN,
  model: NEW_MODEL,
  schools: DEFAULT_SCHOOLS,
  noFragrance: false,
  products: [],
  nowMs: 0,
  closed: ALWAYS_OPEN,
  offset: () => 0,
  ...over,
})
