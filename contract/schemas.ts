/** What may come over the wire, as Yup schemas. The server checks every body, parameter and query with these. */
import type { InferType } from 'yup'
import { ALL_ZONE_IDS, type ZoneId } from '../core/zones/index.ts'
import { type Reading, ALL_METHODS } from '../core/grain/index.ts'
import { type Asked, type HouseRules, MARK_KINDS, type RuleEdit } from '../core/screening/index.ts'
import {
  BUMP_AREAS,
  CONCERNS,
  CONTRASTS,
  eachText,
  HABIT_KINDS,
  SKIN_TYPES,
  type SkinAndHair,
  SLEEP_SIDES,
  type TextField,
} from '../core/client.ts'
import {
  COARSENESSES,
  CURLS,
  DENSITIES,
  GREYS,
  SLIPS_HERE,
  HAIR_KINDS,
  HEAVIER_SIDES,
  type SurfaceNotes,
  type ZoneHair,
} from '../core/hair/index.ts'
import {
  CURRENCIES,
  DATE_ORDERS,
  SCHOOLS,
  type SchoolId,
  type Schools,
} from '../core/house/index.ts'
import { LINE_KINDS, OUTLINE_KINDS } from '../core/lines/index.ts'
import { BLADE_IDS, LEVELS } from '../core/kit/index.ts'
import { closedDays } from './closedDays.ts'
import { studioSchema, workerHours } from './places.ts'
import { REACTIVITIES } from '../core/skin/index.ts'
import { HANDS, STROKE_WAYS, type LaneEdit, type PlanChoice } from '../core/plan/index.ts'
import {
  STYLES,
  SEVERITY_ORDER,
  SERVICE_IDS,
  type ServiceId,
  METHODS,
} from '../core/services/index.ts'
import * as y from 'yup'
import { calibrationSchema, houseProductsSchema } from './chair.ts'
import { eventsSchema } from './followUp.ts'
import { bound } from './bound.ts'
import {
  choice,
  isoDate,
  list,
  mapOf,
  moment,
  oneOf,
  shaped,
  text,
  uuid,
  vec3,
  word,
  zone,
} from './parts.ts'

/** A place on the skin. */
const place = () =>
  y
    .object({ zoneId: zone().required(), point: vec3().required(), normal: vec3().required() })
    .noUnknown()

export const idParams = y.object({ id: uuid().required() }).noUnknown()

const service = () => choice(SERVICE_IDS)

/** Schools that are chosen: known questions with known choices. */
const schools = () =>
  y.mixed<Partial<Schools>>().test('schools', 'must hold known schools', (all) => {
    if (all === undefined) return true
    if (typeof all !== 'object' || all === null || Array.isArray(all)) return false
    return Object.entries(all).every(
      ([id, chosen]) =>
        Object.hasOwn(SCHOOLS, id) && SCHOOLS[id as SchoolId].choices.some((c) => c.id === chosen),
    )
  })

const SKIN_FACTS = ['reactivity', 'faceHair', 'coarseness', 'curl', 'bumpProne'] as const
export const skinSchema = bound<SkinAndHair>()(
  y
    .object({
      reactivity: choice(REACTIVITIES).required(),
      faceHair: y.string().oneOf(['beard', 'fuzz']).required(),
      coarseness: y.string().oneOf(['fine', 'medium', 'coarse']).required(),
      curl: y.string().oneOf(['straight', 'wavy', 'tight']).required(),
      bumpProne: y.boolean().required(),
      bumpAreas: list(choice(BUMP_AREAS).required(), 4).optional().default(undefined),
      type: choice(SKIN_TYPES).optional(),
      lax: y.boolean().optional(),
      concerns: list(choice(CONCERNS).required(), 2).optional().default(undefined),
      setBackMm: y.number().min(0).max(3).optional(),
      contrast: choice(CONTRASTS).optional(),
      sleepsOn: choice(SLEEP_SIDES).optional(),
      habits: y
        .array()
        .of(
          y
            .object({
              kind: choice(HABIT_KINDS).required(),
              days: list(y.number().integer().min(0).max(6).required(), 7).min(1).required(),
              fromHour: y.number().min(0).max(24).required(),
              toHour: y
                .number()
                .max(24)
                .required()
                .moreThan(y.ref('fromHour'), 'a habit ends after it begins'),
            })
            .noUnknown()
            .required(),
        )
        .max(20, 'at most 20 habits')
        .optional()
        .default(undefined),
      tone: y.number().integer().min(1).max(6).optional(),
      told: y
        .object(Object.fromEntries(SKIN_FACTS.map((key) => [key, y.boolean().optional()])))
        .noUnknown()
        .default(undefined)
        .optional(),
    })
    .noUnknown(),
)

/** A text of a client, as `CLIENT_TEXTS` has it. */
const clientText = ({ most, shape }: TextField) => {
  const any = text(most)
  if (!shape) return any
  const [of, says] = shape
  return any.test('shape', says, (v) => !v || of.test(v))
}

const clientFields = {
  name: text(80).required('A client needs a name.'),
  ...eachText((_, field) => clientText(field).default('')),
  service: service().required(),
  skin: skinSchema.required(),
}

export const newClientSchema = y.object({ id: uuid().required(), ...clientFields }).noUnknown()

export const clientChangeSchema = y
  .object({
    name: text(80).min(1, 'A client needs a name.'),
    ...eachText((_, field) => clientText(field)),
    events: eventsSchema.optional(),
    service: service(),
    skin: skinSchema.default(undefined).optional(),
    schools: schools().optional(),
  })
  .noUnknown()

/** Clients brought in together: all or none. */
export const importSchema = y
  .object({
    id: uuid().required(),
    source: text(120).required(),
    clients: y
      .array()
      .of(
        y
          .object({ id: uuid().required(), ...clientFields })
          .noUnknown()
          .required(),
      )
      .min(1, 'nobody was chosen')
      .max(20_000, 'at most 20 000 clients at once')
      .required(),
  })
  .noUnknown()

export const eraseSchema = y
  .object({ confirmName: text(80).required('Type the client’s name to erase.') })
  .noUnknown()

/** Where a page of a list begins. */
const begins = () => y.number().integer().min(0).max(1_000_000).default(0)
export const clientQuery = y
  .object({
    find: text(80).default(''),
    sort: y.string().oneOf(['name', 'due', 'last']).default('name'),
    which: y.string().oneOf(['all', 'due', 'late', 'new']).default('all'),
    from: begins(),
  })
  .noUnknown()
export const todayQuery = y.object({ from: begins() }).noUnknown()

/** What a visit is to do. */
export const jobs = () =>
  y
    .array()
    .of(
      y
        .object({
          id: uuid().required(),
          service: service().required(),
          zones: y.array().of(zone().required()).min(1).max(80).nullable().default(null),
          method: choice(METHODS).default('blade'),
          everyDays: y.number().min(1).max(400).optional(),
        })
        .noUnknown()
        .required(),
    )
    .min(1, 'a visit needs a job')
    .max(12, 'at most 12 jobs')

export const newVisitSchema = y
  .object({
    id: uuid().required(),
    jobs: jobs().required(),
    workerId: uuid().required(),
    slotAtMs: moment().nullable().default(null),
  })
  .noUnknown()

export const visitChangeSchema = y
  .object({
    jobs: jobs(),
    workerId: uuid(),
    slotAtMs: moment().nullable(),
    /** Where the book does not let it be then, the nearest hour of the same worker will do. */
    orNearest: y.boolean().optional(),
    routine: text(120),
  })
  .noUnknown()

const answerSchema = y
  .object({
    yes: y.boolean().required(),
    date: isoDate().optional(),
    zones: list(zone().required(), 80).optional(),
    kinds: y.array().of(text(40).required()).max(12).optional(),
    still: y.string().oneOf(['ask']).optional(),
    since: isoDate().optional(),
  })
  .noUnknown()
  .required()

export const askedSchema = bound<Asked>()(
  y
    .object({
      answers: mapOf<string, InferType<typeof answerSchema>>(
        (key) => word().isValidSync(key),
        answerSchema,
        'one answer per question',
        60,
      ).required(),
      spots: y
        .array()
        .of(
          y
            .object({
              id: uuid().required(),
              kind: choice(MARK_KINDS).required(),
              zoneId: zone().required(),
              point: vec3().required(),
              normal: vec3().required(),
              radiusMm: y.number().min(1).max(60).required(),
              trail: y.array().of(place().required()).max(400).optional(),
              marginMm: y.number().min(0).max(60).optional(),
              seenOn: isoDate().optional(),
              stillThere: y.string().oneOf(['ask', 'yes']).optional(),
            })
            .noUnknown(),
        )
        .max(200, 'at most 200 marks')
        .required(),
      patchTest: y
        .object({
          zoneId: zone().required(),
          point: vec3().optional(),
          normal: vec3().optional(),
          plannedFor: isoDate().optional(),
          placedAtMs: moment().optional(),
          readAtMs: moment().optional(),
          result: y.string().oneOf(['planned', 'waiting', 'calm', 'reacted']).required(),
        })
        .noUnknown()
        .default(undefined)
        .optional(),
      consent: y
        .object({
          text: text(6000).required(),
          name: text(80).required('Whose signature is it?'),
          asGuardian: y.boolean().required(),
          signedAtMs: moment().required(),
          onPaper: y.boolean().optional(),
          path: y
            .string()
            .defined()
            .when('onPaper', {
              is: true,
              then: (path) => path.max(0),
              otherwise: (path) =>
                path
                  .matches(/^[ML0-9. -]{3,30000}$/, 'is not a signature')
                  .required('Sign in the field.'),
            }),
        })
        .noUnknown()
        .default(undefined)
        .optional(),
      clinician: y
        .object({
          who: text(80).required('Who said it?'),
          on: isoDate().required(),
          said: y.string().oneOf(['yes', 'no']).required(),
        })
        .noUnknown()
        .default(undefined)
        .optional(),
    })
    .noUnknown(),
)

export const readingSchema = bound<Reading>()(
  y
    .object({
      id: uuid().required(),
      zoneId: zone().required(),
      point: vec3().required(),
      normal: vec3().required(),
      tangent: vec3().required(),
      method: choice(ALL_METHODS).required(),
      atMs: moment().required(),
      answers: y
        .array()
        .of(
          y
            .object({
              strokeDeg: y.number().min(0).max(360).required(),
              catches: y.boolean().required(),
            })
            .noUnknown(),
        )
        .max(60)
        .optional(),
    })
    .noUnknown(),
)

/** One edit of the map: readings taken out and readings put in, together or not at all. */
export const readingEditSchema = y
  .object({
    remove: y.array().of(uuid().required()).max(1000).required(),
    add: y.array().of(readingSchema.required()).max(1000).required(),
  })
  .noUnknown()

const zoneHair = y
  .object({
    kind: choice(HAIR_KINDS).optional(),
    coarseness: choice(COARSENESSES).optional(),
    density: choice(DENSITIES).optional(),
    curl: choice(CURLS).optional(),
    grey: choice(GREYS).optional(),
    slip: choice(SLIPS_HERE).optional(),
  })
  .noUnknown()
  .required()

const taps = () => y.array().of(place().required()).min(1).max(40)

/** What Read notes besides the grain. */
export const notesSchema = bound<SurfaceNotes>()(
  y
    .object({
      lines: y
        .array()
        .of(
          y
            .object({
              id: uuid().required(),
              kind: choice(LINE_KINDS).required(),
              keep: choice(['left', 'right']).required(),
              drawnAtMs: moment().required(),
              taps: taps().required(),
              candidate: choice(['a', 'b']).optional(),
              move: y
                .object({
                  from: taps().required(),
                  to: taps().required(),
                  steps: y.number().integer().min(1).max(40).required(),
                  at: y.number().integer().min(0).max(40).required(),
                })
                .noUnknown()
                .optional()
                .default(undefined),
            })
            .noUnknown()
            .required(),
        )
        .max(40, 'at most 40 lines')
        .required(),
      keptZones: list(zone().required(), 80).required(),
      hair: mapOf<ZoneId, ZoneHair>(
        oneOf(ALL_ZONE_IDS),
        zoneHair,
        'kinds of hair by zone',
      ).required(),
      strays: y
        .array()
        .of(place().shape({ id: uuid().required() }).required())
        .max(200, 'at most 200 strays')
        .required(),
      heavier: choice(HEAVIER_SIDES).optional(),
      lengthMm: y.number().min(0).max(300).optional(),
      outlines: y
        .array()
        .of(
          y
            .object({
              id: uuid().required(),
              kind: choice(OUTLINE_KINDS).required(),
              drawnAtMs: moment().required(),
              taps: taps().required(),
              until: isoDate().optional(),
            })
            .noUnknown()
            .required(),
        )
        .max(20, 'at most 20 outlines')
        .optional(),
    })
    .noUnknown(),
)

const laneEdit = y
  .object({
    skip: y.boolean().optional(),
    bladeId: choice(BLADE_IDS).optional(),
    way: choice(STROKE_WAYS).optional(),
  })
  .noUnknown()
  .required()

/** Which plan is kept. */
export const planChoiceSchema = bound<PlanChoice>()(
  y
    .object({
      style: choice(STYLES).default('balanced'),
      edits: mapOf<string, LaneEdit>(
        shaped(/^[a-z0-9-]{1,40}:\d{1,2}:[a-zA-Z]$/),
        laneEdit,
        'changes by lane',
      ).default({}),
      hours: y.number().min(0).max(20_000).optional(),
      within: y.number().min(1).max(300).optional(),
      order: y.array().of(y.string().max(60).required()).max(400).optional(),
    })
    .noUnknown(),
)

const ruleEdit = y
  .object({
    severity: choice(SEVERITY_ORDER).optional(),
    waitDays: y.number().integer().min(0).max(730).optional(),
  })
  .noUnknown()
  .required()

export const houseChangeSchema = y
  .object({
    name: text(80).min(1, 'A house needs a name.').optional(),
    settings: y
      .object({
        address: text(200).optional(),
        phone: text(40).optional(),
        currency: choice(CURRENCIES).optional(),
        dates: choice(DATE_ORDERS).optional(),
        firstDay: y.number().oneOf([0, 1, 6]).optional(),
        clock: y.number().oneOf([12, 24]).optional(),
        length: y.string().oneOf(['mm', 'inch']).optional(),
        warmth: y.string().oneOf(['C', 'F']).optional(),
      })
      .noUnknown()
      .default(undefined)
      .optional(),
    schools: y.mixed<Record<string, string>>().optional(),
    workerId: uuid().optional(),
    kit: y.array().of(choice(BLADE_IDS).required()).optional(),
    closed: closedDays.default(undefined).optional(),
    /** null gives a figure its default back. */
    figures: mapOf<string, number | null>(
      shaped(/^[a-zA-Z0-9.-]{1,80}$/),
      y.number().nullable().defined(),
      'figures',
    ).optional(),
    rules: mapOf<string, HouseRules[string]>(
      shaped(/^[a-z-]{1,40}$/),
      mapOf<ServiceId, RuleEdit>(shaped(/^[a-z-]{1,40}$/), ruleEdit, 'edits by service').defined(),
      'edits by rule',
    ).optional(),
    consentText: text(6000).optional(),
    products: houseProductsSchema.optional(),
    probe: calibrationSchema.default(undefined).optional(),
    worker: y
      .object({
        id: uuid().required(),
        name: text(60).required('A worker needs a name.'),
        role: text(60).required(),
        hand: choice(HANDS).required(),
        level: choice(LEVELS).default('practised'),
        hours: workerHours.nullable().optional(),
        services: y.array().of(service().required()).max(40).nullable().optional(),
      })
      .noUnknown()
      .default(undefined)
      .optional(),
    studio: studioSchema.default(undefined).optional(),
  })
  .noUnknown()
