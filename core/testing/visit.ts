/** What is known of a visit at which nothing stands in the way, for tests. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { consentText, RULES, type Asked } from '../screening/index.ts'
import { serviceZones, type ServiceId } from '../services/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { Known } from '../visit/types.ts'
import type { PastVisit } from '../looks/index.ts'

export const NOW = Date.UTC(2026, 4, 20, 9)

/** All questions answered with no, and signed. */
export const askedAll = (service: ServiceId = 'face-shave'): Asked => ({
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
  spots: [],
  consent: {
    text: consentText(service),
    name: 'Ada Reef',
    asGuardian: false,
    signedAtMs: NOW - DAY_MS,
    path: 'M0 0L60 0',
  },
})

/** A visit that ended some days ago, calm unless it is said. */
export const pastVisit = (over: Partial<PastVisit> = {}): PastVisit => ({
  visitId: 'past',
  service: 'face-shave',
  endedAtMs: NOW - 10 * DAY_MS,
  zones: serviceZones('face-shave'),
  worked: serviceZones('face-shave'),
  answers: [],
  redAtChair: {},
  ...over,
})

export const knownVisit = (over: Partial<Known> = {}): Known => {
  const service = over.service ?? 'face-shave'
  return {
    figures: DEFAULTS,
    service,
    asked: askedAll(service),
    schools: DEFAULT_SCHOOLS,
    rules: {},
    consentText: '',
    nowMs: NOW,
    offset: 0,
    readZones: serviceZones(service),
    readAtMs: undefined,
    past: [],
    window: null,
    decisions: [],
    worker: { id: 'w', level: 'practised' },
    plan: null,
    planMadeAtMs: null,
    busy: [],
    ...over,
  }
}
