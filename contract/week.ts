/** The book over the wire. */
import * as y from 'yup'
import type { InferType } from 'yup'
import type { Job, ServiceId } from '../core/services/index.ts'
import { isServiceId } from '../core/services/index.ts'
import type { ClosedDays } from '../core/time/index.ts'
import {
  APPOINTMENT_STATES,
  GRID_MIN,
  LEAST_MIN,
  MOST_CALENDAR,
  MOST_MIN,
  type Studio,
  type Wishes,
  wishesProblem,
  type WorkerHours,
} from '../core/week/index.ts'
import { core, listOf, maybe, number, one, record, text as words, VISIT_STATES } from './answers.ts'
import { choice, isoDate, moment, text, uuid } from './parts.ts'
import { jobs } from './schemas.ts'

/** So many days are shown at once, at most: four weeks and the days around. */
const MOST_DAYS = 35

export const weekQuery = y
  .object({
    from: isoDate().required(),
    days: y.number().integer().min(1).max(MOST_DAYS).default(7),
  })
  .noUnknown()

const minutes = () =>
  y
    .number()
    .integer()
    .min(LEAST_MIN, `takes ${LEAST_MIN} minutes at the least`)
    .max(MOST_MIN, `takes ${MOST_MIN / 60} hours at the most`)
    .test('grid', `goes by ${GRID_MIN} minutes`, (m) => m === undefined || m % GRID_MIN === 0)

export const newAppointmentSchema = y
  .object({
    id: uuid().required(),
    clientId: uuid().required(),
    workerId: uuid().required(),
    startMs: moment().required('When is it?'),
    /** As it is expected to take when left out. */
    minutes: minutes().optional(),
    jobs: jobs().required(),
    note: text(300).default(''),
  })
  .noUnknown()

export const appointmentChangeSchema = y
  .object({
    /** Of the appointment as it was seen: another change in between is told. */
    mark: y.number().integer().min(1).required(),
    workerId: uuid().optional(),
    startMs: moment().optional(),
    minutes: minutes().optional(),
    jobs: jobs().optional(),
    note: text(300).optional(),
    state: choice(APPOINTMENT_STATES).optional(),
    /** The client is told of another hour: a message lies in the outbox. */
    tell: y.boolean().optional(),
  })
  .noUnknown()

export const awaySchema = y
  .object({
    id: uuid().required(),
    workerId: uuid().nullable().default(null),
    fromMs: moment().required('From when?'),
    toMs: moment()
      .required('Until when?')
      .test('order', 'It ends before it begins.', function (to) {
        return to > (this.parent as { fromMs: number }).fromMs
      }),
    why: text(80).default(''),
  })
  .noUnknown()

export const lengthQuery = y
  .object({
    worker: uuid().required(),
    /** The day that is thought of. */
    at: moment().optional(),
    services: text(300)
      .required()
      .test('services', 'are no services', (s) => s?.split(',').every(isServiceId) ?? false),
  })
  .noUnknown()

export const appointmentAnswer = record({
  id: words(),
  clientId: words(),
  client: words(),
  phone: words(),
  visitId: words().nullable(),
  workerId: words(),
  startMs: number(),
  minutes: number(),
  jobs: core<readonly Job[]>(),
  note: words(),
  state: one(APPOINTMENT_STATES),
  cancelledAtMs: maybe(),
  visitState: one(VISIT_STATES).nullable().defined(),
  startedAtMs: maybe(),
  endedAtMs: maybe(),
  mark: number(),
  changedBy: words(),
  /** Of how many appointments that are over the client did not come to how many. */
  missed: record({ of: number(), missed: number() }),
})

const hourOfDay = () => y.number().min(0).max(24).nullable().default(null)

/** When somebody can come. */
export const wishesSchema = y
  .object({
    days: y.array().of(y.number().integer().min(0).max(6).required()).max(7).default([]),
    fromHour: hourOfDay(),
    toHour: hourOfDay(),
    workerId: uuid().nullable().default(null),
  })
  .noUnknown()
  .test({
    name: 'hours',
    test(wishes, { createError }) {
      const wrong = wishes && wishesProblem(wishes)
      return wrong ? createError({ message: wrong }) : true
    },
  })

/** Of a client for the book alone. */
export const hoursSchema = y
  .object({
    wishes: wishesSchema.required(),
    /** The house serves them first where hours are short. */
    first: y.boolean().default(false),
  })
  .noUnknown()

export const waitingSchema = y
  .object({
    id: uuid().required(),
    clientId: uuid().required(),
    jobs: jobs().required(),
    wishes: wishesSchema.required(),
    note: text(300).default(''),
  })
  .noUnknown()

export const freeQuery = y
  .object({ worker: uuid().required(), at: moment().required() })
  .noUnknown()

export const offerSchema = y
  .object({
    id: uuid().required(),
    workerId: uuid().required(),
    fromMs: moment().required(),
    toMs: moment().required(),
    clients: y
      .array()
      .of(
        y
          .object({
            clientId: uuid().required(),
            startMs: moment().required(),
            minutes: minutes().required(),
            jobs: jobs().required(),
          })
          .noUnknown()
          .required(),
      )
      .min(1, 'nobody was chosen')
      .max(20, 'at most twenty at once')
      .required(),
  })
  .noUnknown()

export const busySchema = y
  .object({
    workerId: uuid().required(),
    text: y
      .string()
      .required('The file is empty.')
      .max(MOST_CALENDAR, 'is too long for a calendar of one worker'),
  })
  .noUnknown()

/** A client's own hours. */
export const hoursAnswer = record({ wishes: core<Wishes>(), first: y.boolean().required() })

export const busyAnswer = record({
  /** Stretches that are busy now, events in the file, and those of them that take no time. */
  times: number(),
  events: number(),
  free: number(),
  /** Busy times that were here before and are replaced. */
  replaced: number(),
})

export const feedAnswer = record({ url: words() })
export const toldAnswer = record({ told: number() })

export const waitingAnswer = record({
  id: words(),
  clientId: words(),
  client: words(),
  jobs: core<readonly Job[]>(),
  wishes: core<Wishes>(),
  note: words(),
  sinceMs: number(),
  /** The hour that they have, and would give back. */
  has: record({ id: words(), startMs: number(), workerId: words() }).nullable().defined(),
})

export const offerAnswer = record({
  id: words(),
  workerId: words(),
  fromMs: number(),
  toMs: number(),
  closedAtMs: maybe(),
  takenBy: words().nullable(),
  asked: number(),
})

/** Free time round an hour, and who gains from it, the most first; no slot where that hour is not free. */
export const freeSlotAnswer = record({
  slot: record({ workerId: words(), fromMs: number(), toMs: number() }).nullable().defined(),
  rows: listOf(
    record({
      clientId: words(),
      name: words(),
      phone: words(),
      jobs: core<readonly Job[]>(),
      startMs: number(),
      minutes: number(),
      odds: number(),
      /** Days to the good days; below 0 they are over. */
      toWindowDays: number(),
      usualWorker: y.boolean().required(),
      waits: y.boolean().required(),
      /** The hour that they have and would give back. */
      hasMs: maybe(),
    }),
  ),
})

export const loadAnswer = record({
  days: listOf(
    record({
      date: words(),
      hasMin: number(),
      bookedMin: number(),
      towels: number(),
      blades: core<Record<string, number>>(),
      chairs: maybe(),
      beds: maybe(),
      income: number(),
      should: number(),
      missed: number(),
    }),
  ),
  short: listOf(record({ kind: words(), takes: number(), has: number() })),
  /** Of a week, by what the four weeks before brought; null where they brought nothing. */
  meanIncome: maybe(),
})

export const weekAnswer = record({
  from: words(),
  days: number(),
  nowMs: number(),
  closed: core<ClosedDays>(),
  studio: core<Studio>(),
  workers: listOf(
    record({
      id: words(),
      name: words(),
      hours: core<WorkerHours>().nullable(),
      services: core<readonly ServiceId[]>().nullable(),
    }),
  ),
  away: listOf(
    record({
      id: words(),
      workerId: words().nullable(),
      fromMs: number(),
      toMs: number(),
      why: words(),
      /** Entered here, or out of their calendar. */
      source: one(['hand', 'calendar'] as const),
    }),
  ),
  /** Of these days, and of those around them that speak for an hour of theirs. */
  appointments: listOf(appointmentAnswer),
  /** Whose good days touch these days and who has no hour yet, who is due first first. */
  wants: listOf(
    record({
      clientId: words(),
      name: words(),
      /** Who served them last. */
      workerId: words(),
      jobs: core<readonly Job[]>(),
      minutes: number(),
      fromMs: number(),
      toMs: number(),
      /** What holds their next visit back as it stands, in words; null where nothing does. */
      held: words().nullable(),
      /** Odds that hair is seen by the end of the good days; null where nothing tells. */
      seenByEnd: maybe(),
      /** An event that it must be done before. */
      event: record({ name: words(), atMs: number(), byMs: number() }).nullable().defined(),
    }),
  ),
  more: number(),
  waiting: listOf(waitingAnswer),
  offers: listOf(offerAnswer),
})

export const proposalSchema = y
  .object({
    from: isoDate().required(),
    days: y.number().integer().min(1).max(MOST_DAYS).required(),
    /** What is only booked may be moved a little within its day. */
    moves: y.boolean().default(false),
  })
  .noUnknown()

export const proposalAnswer = record({
  /** Hours that are proposed; nothing is booked yet. */
  proposals: listOf(
    record({
      clientId: words(),
      name: words(),
      workerId: words(),
      startMs: number(),
      minutes: number(),
      jobs: core<readonly Job[]>(),
      /** Odds on that day: hair is seen, skin is clear. */
      seen: number(),
      clear: number(),
      /** Why this hour, and what another day costs, in sentences. */
      why: y.array(words().required()).required(),
    }),
  ),
  /** Appointments that would be moved to let others in. */
  moves: listOf(
    record({
      id: words(),
      mark: number(),
      clientId: words(),
      client: words(),
      workerId: words(),
      startMs: number(),
      minutes: number(),
      wasMs: number(),
      why: words(),
    }),
  ),
  /** Those for whom no hour was found, with the reason. */
  without: listOf(record({ clientId: words(), name: words(), why: words() })),
  /** What is proposed is within this share of the best possible. */
  within: number(),
  /** It is the best, as an exact solver has found. */
  exact: y.boolean().required(),
  choices: number(),
  tookMs: number(),
})

/** How long an appointment takes, min. */
export const lengthAnswer = record({
  /** On the book. */
  minutes: number(),
  plannedMin: number(),
  /** Greeting and cleaning. */
  besidesMin: number(),
  /** What the service itself takes: the middle, and between what with 80 %. */
  midMin: number(),
  lowMin: number(),
  highMin: number(),
  /** Visits that this is learned from. */
  visits: number(),
  /** The good days of what is due first; null where nothing tells. */
  good: record({ fromMs: number(), toMs: number() }).nullable().defined(),
  /** What would hold a visit on that day back, in words; null where nothing is known that does. */
  held: words().nullable(),
})

export type Week = InferType<typeof weekAnswer>
export type BookedRow = InferType<typeof appointmentAnswer>
export type WaitingRow = InferType<typeof waitingAnswer>
export type OfferRow = InferType<typeof offerAnswer>
export type FreeSlotAnswer = InferType<typeof freeSlotAnswer>
export type WeekLoad = InferType<typeof loadAnswer>
export type WantRow = Week['wants'][number]
export type Proposal = InferType<typeof proposalAnswer>
export type AppointmentLength = InferType<typeof lengthAnswer>
