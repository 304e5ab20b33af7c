/** What may come over the wire of what follows a service, as Yup schemas. */
import { type ClientEvent, EVENT_KINDS, SUPPOSED } from '../core/ahead/index.ts'
import {
  ANSWER_SOURCES,
  DRYNESS_WORDS,
  HAIR_TOLD,
  LENGTH_METHODS,
  NICK_STATES,
  SPOT_KINDS,
  type NickState,
  AREA_IDS,
  USUAL_MOMENTS,
  type Moment,
} from '../core/looks/index.ts'
import * as y from 'yup'
import { bound } from './bound.ts'
import { HOME_TOOLS } from '../core/history/index.ts'
import { choice, isoDate, mapOf, moment, text, uuid, vec3, zone, zoneKey, word } from './parts.ts'

const scale = (most: number) => y.number().integer().min(0).max(most)

export const answerParams = y
  .object({
    id: uuid().required(),
    moment: y
      .string<Moment>()
      .test(
        'moment',
        'is not a moment after a service',
        (m) => m === undefined || (USUAL_MOMENTS as string[]).includes(m) || /^h\d{1,4}$/.test(m),
      )
      .required(),
  })
  .noUnknown()

const nicks = mapOf<string, NickState>(
  (id) => uuid().isValidSync(id),
  choice(NICK_STATES).required(),
  'how each nick heals',
  60,
)

export const skinAnswerSchema = y
  .object({
    atMs: moment().required(),
    zones: y
      .array()
      .of(
        y
          .object({
            zoneId: zoneKey().required(),
            redness: scale(4).required(),
            bumps: scale(500).required(),
            pustules: scale(500).optional(),
          })
          .noUnknown(),
      )
      .max(80)
      .required(),
    spots: y
      .array()
      .of(
        y
          .object({
            id: uuid().required(),
            kind: choice(SPOT_KINDS).required(),
            zoneId: zoneKey().required(),
            point: vec3().required(),
            normal: vec3().required(),
            again: uuid().optional(),
          })
          .noUnknown()
          .required(),
      )
      .max(300, 'at most 300 spots')
      .default([]),
    feeling: y
      .object({
        stinging: scale(10).optional(),
        itch: scale(10).optional(),
        dryness: scale(DRYNESS_WORDS.length - 1).optional(),
        nicks: nicks.optional(),
        words: text(500).optional(),
        spreading: y.boolean().optional(),
      })
      .noUnknown()
      .default({}),
    source: choice(ANSWER_SOURCES).default('seen'),
  })
  .noUnknown()

export const hairReadingSchema = y
  .object({
    id: uuid().required(),
    kind: choice(HAIR_TOLD).required(),
    date: isoDate().required('When was it?'),
    zoneId: zoneKey().nullable().default(null),
    lengthMm: y
      .number()
      .min(0.05)
      .max(60)
      .when('kind', { is: 'measured', then: (s) => s.required('How long was it?') }),
    method: choice(LENGTH_METHODS).optional(),
  })
  .noUnknown()

/** The six questions as a form sends them: every field a string. */
export const clientAnswerSchema = y
  .object({
    redness: scale(4).required('How red is it?'),
    areas: y
      .array()
      .of(choice(AREA_IDS).required())
      .max(20)
      .default([])
      .transform((value: unknown, given: unknown) => (typeof given === 'string' ? [given] : value)),
    bumps: scale(200).required('How many bumps?'),
    pus: y.boolean().default(false),
    spreading: y.boolean().default(false),
    stinging: scale(10).required('How much does it sting?'),
    itch: scale(10).required('How much does it itch?'),
    dryness: scale(DRYNESS_WORDS.length - 1).required('How dry is it?'),
    hair: y.string().oneOf(['no', 'felt', 'seen']).required('Is hair felt or seen?'),
    since: scale(15).default(0),
    words: text(500).default(''),
  })
  .noUnknown()

/** Work at home as the link page's form sends it. */
export const homeFormSchema = y
  .object({
    date: isoDate().required('On which day?'),
    areas: y
      .array()
      .of(choice(AREA_IDS).required())
      .min(1, 'Tap where it was.')
      .max(20)
      .default([])
      .transform((value: unknown, given: unknown) => (typeof given === 'string' ? [given] : value))
      .required(),
    tool: choice(HOME_TOOLS).required('With what?'),
    fresh: y.boolean().default(false),
    dull: y.boolean().default(false),
  })
  .noUnknown()

export const eventsSchema = bound<ClientEvent[]>()(
  y
    .array()
    .of(
      y
        .object({
          id: uuid().required(),
          kind: choice(EVENT_KINDS).required(),
          title: text(60).required('What is it?'),
          atMs: moment().required(),
        })
        .noUnknown()
        .required(),
    )
    .max(40, 'at most 40 events'),
)

/** A calendar of visits up to a day. */
export const throughQuery = y.object({ through: isoDate().required() }).noUnknown()

/** A worker's word on what stands in the way of a visit, or on an alarm that was looked into. */
export const decisionSchema = y
  .object({
    id: uuid().required(),
    finding: text(160).required(),
    workerId: uuid().required(),
    reason: text(300).required('Say in a few words why.'),
  })
  .noUnknown()

/** A request that says nothing but that it is made. */
export const emptyBody = y.object({}).noUnknown()

/** Work at home: which day, where, with what. */
export const homeWorkSchema = y
  .object({
    id: uuid().required(),
    date: isoDate().required('On which day?'),
    zones: y.array().of(zone().required()).min(1, 'where?').max(80).required(),
    tool: choice(HOME_TOOLS).required(),
    fresh: y.boolean().default(false),
    dull: y.boolean().default(false),
  })
  .noUnknown()

/** Which place is asked about. */
export const methodsQuery = y
  .object({ zone: zone().required(), supposed: choice(SUPPOSED).optional() })
  .noUnknown()

/** How many stretches back from the one that ends now. */
export const tideQuery = y
  .object({
    back: y.number().integer().min(1).max(400).default(1),
    /** The kind of work whose hair is drawn (`kindOfWork`). */
    work: word().optional(),
  })
  .noUnknown()
