/** What is known of a visit at which nothing stands in the way, for tests. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { consentText, RULES, type Asked } from '../screening/index.ts'
import type { VisitWindow } from '../regrowth/index.ts'
import { oneJob, serviceZones, type ServiceId } from '../services/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { Known } from '../visit/types.ts'
import type { PastVisit } from '../looks/index.ts'

export const NOW = Date.UTC(2026, 4, 20, 9)

/** All questions answered with no, and signed. */
export const askedAll = (service: ServiceId = 'face-shave'): Asked => ({
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
  spots: [],
  consent: {
    text: consentText([oneJob('job', service)]),
    name: 'Ada Reef',
    asGuardian: false,
    signedAtMs: NOW - DAY_MS,
    path: 'M0 0L60 0',
  },
})

/** A visit that ended some days ago, calm unless it is said. */
export const pastVisit = ({
  service = 'face-shave',
  ...over
}: Partial<PastVisit> & { readonly service?: ServiceId } = {}): PastVisit => ({
  visitId: 'past',
  jobs: [oneJob('job', service)],
  endedAtMs: NOW - 10 * DAY_MS,
  zones: serviceZones('face-shave'),
  worked: serviceZones('face-shave'),
  answers: [],
  redAtChair: {},
  ...over,
})

/** A whole service as its only job, with the window told for it, where nothing else is said. */
export const knownVisit = ({
  service = 'face-shave',
  window = null,
  ...over
}: Partial<Known> & {
  readonly service?: ServiceId
  readonly window?: VisitWindow | null
} = {}): Known => {
  return {
    figures: DEFAULTS,
    jobs: [oneJob('job', service)],
    asked: askedAll(service),
    schools: DEFAULT_SCHOOLS,
    rules: {},
    consentText: '',
    nowMs: NOW,
    offset: 0,
    readZones: serviceZones(service),
    readAtMs: undefined,
    past: [],
    windows: window ? [{ jobId: 'job', window }] : [],
    decisions: [],
    worker: { id: 'w', level: 'practised' },
    plan: null,
    planMadeAtMs: null,
    busy: [],
    ...over,
  }
}
