/** What may come over the wire, as Yup schemas. The server checks every body, parameter and query with these. */
import * as y from 'yup'
import { COARSENESSES, CURLS, DENSITIES, GREYS, HAIR_KINDS } from '../core/hair/layer.ts'
import { SCHOOL_IDS, SCHOOLS, type SchoolId } from '../core/house/schools.ts'
import { LINE_KINDS } from '../core/lines/keepLine.ts'
import { BLADE_IDS } from '../core/kit/blades.ts'
import { STROKE_WAYS, type LaneEdit } from '../core/plan/types.ts'
import { STYLES } from '../core/services/service.ts'
import { SEVERITY_ORDER } from '../core/services/effect.ts'
import { type HouseRules } from '../core/screening/rules.ts'
import { SERVICE_IDS } from '../core/services/index.ts'
import { calibrationSchema, houseProductsSchema } from './chair.ts'
import { eventsSchema } from './followUp.ts'
import { METHODS } from '../core/services/job.ts'
import { choice, isoDate, moment, text, uuid, vec3, word, zone } from './parts.ts'

/** A place on the skin. */
const place = () =>
  y.object({ zoneId: word().required(), point: vec3(), normal: vec3() }).noUnknown()

export const idParams = y.object({ id: uuid().required() }).noUnknown()

export const SERVICE_CHOICES = SERVICE_IDS
const service = () => y.string().oneOf([...SERVICE_CHOICES])

/** Schools that are chosen: known questions with known choices. */
const schools = () =>
  y.mixed<Record<string, string>>().test('schools', 'must hold known schools', (all) => {
    if (all === undefined) return true
    if (typeof all !== 'object' || all === null || Array.isArray(all)) return false
    return Object.entries(all).every(
      ([id, choice]) =>
        SCHOOL_IDS.includes(id as SchoolId) &&
        SCHOOLS[id as SchoolId].choices.some((c) => c.id === choice),
    )
  })

export const skinSchema = y
  .object({
    reactivity: y.string().oneOf(['tough', 'average', 'reactive']).required(),
    faceHair: y.string().oneOf(['beard', 'fuzz']).required(),
    coarseness: y.string().oneOf(['fine', 'medium', 'coarse']).required(),
    curl: y.string().oneOf(['straight', 'wavy', 'tight']).required(),
    bumpProne: y.boolean().required(),
  })
  .noUnknown()

const phone = () =>
  y
    .string()
    .trim()
    .matches(/^[0-9+()./ -]{0,30}$/, 'is not a telephone number')
const email = () =>
  y
    .string()
    .trim()
    .max(120, 'at most 120 characters')
    .test('email', 'is not an e-mail address', (v) => !v || /^[^\s@<>"']+@[^\s@<>"']+$/.test(v))

const clientFields = {
  name: text(80).required('A client needs a name.'),
  calledName: text(40).default(''),
  pronouns: text(30).default(''),
  occupation: text(80).default(''),
  phone: phone().default(''),
  email: email().default(''),
  note: text(500).default(''),
  service: service().required(),
  skin: skinSchema.required(),
}

export const newClientSchema = y.object({ id: uuid().required(), ...clientFields }).noUnknown()

export const clientChangeSchema = y
  .object({
    name: text(80).min(1, 'A client needs a name.'),
    calledName: text(40),
    pronouns: text(30),
    occupation: text(80),
    phone: phone(),
    email: email(),
    note: text(500),
    events: eventsSchema.optional(),
    service: service(),
    skin: skinSchema.default(undefined),
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

export const clientQuery = y
  .object({
    find: text(80).default(''),
    sort: y.string().oneOf(['name', 'due', 'last']).default('name'),
  })
  .noUnknown()

/** What a visit is to do. */
const jobs = () =>
  y
    .array()
    .of(
      y
        .object({
          id: uuid().required(),
          service: service().required(),
          zones: y.array().of(zone().required()).min(1).max(80).nullable().default(null),
          method: choice(METHODS).default('blade'),
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
    routine: text(120),
  })
  .noUnknown()

const answerSchema = y
  .object({
    yes: y.boolean().required(),
    date: isoDate().optional(),
    zones: y.array().of(word().required()).max(80).optional(),
    kinds: y.array().of(text(40).required()).max(12).optional(),
    still: y.string().oneOf(['ask']).optional(),
    since: isoDate().optional(),
  })
  .noUnknown()
  .required()

export const askedSchema = y
  .object({
    answers: y
      .mixed<Record<string, object>>()
      .required()
      .test('answers', 'must hold one answer per question', (value) => {
        if (typeof value !== 'object' || value === null || Array.isArray(value)) return false
        const entries = Object.entries(value)
        return (
          entries.length <= 60 &&
          entries.every(
            ([key, a]) =>
              word().isValidSync(key) &&
              typeof a === 'object' &&
              a !== null &&
              answerSchema.isValidSync(a, { strict: true }),
          )
        )
      }),
    spots: y
      .array()
      .of(
        y
          .object({
            id: uuid().required(),
            kind: word().required(),
            zoneId: word().required(),
            point: vec3(),
            normal: vec3(),
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
        zoneId: word().required(),
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
        path: y
          .string()
          .matches(/^[ML0-9. -]{3,30000}$/, 'is not a signature')
          .required('Sign in the field.'),
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
  .noUnknown()

export const readingSchema = y
  .object({
    id: uuid().required(),
    zoneId: word().required(),
    point: vec3(),
    normal: vec3(),
    tangent: vec3(),
    method: y.string().oneOf(['felt', 'looked', 'pad', 'card', 'test']).required(),
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
  .noUnknown()

/** One edit of the map: readings taken out and readings put in, together or not at all. */
export const readingEditSchema = y
  .object({
    remove: y.array().of(uuid().required()).max(1000).required(),
    add: y.array().of(readingSchema.required()).max(1000).required(),
  })
  .noUnknown()

/** What Read notes besides the grain. */
export const notesSchema = y
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
            taps: y.array().of(place().required()).min(1).max(40).required(),
          })
          .noUnknown()
          .required(),
      )
      .max(40, 'at most 40 lines')
      .required(),
    keptZones: y.array().of(word().required()).max(80).required(),
    hair: y
      .mixed<Record<string, object>>()
      .required()
      .test('hair', 'must hold kinds of hair by zone', (value) => {
        if (typeof value !== 'object' || value === null || Array.isArray(value)) return false
        return Object.entries(value).every(
          ([zone, hair]) =>
            word().isValidSync(zone) && zoneHair.isValidSync(hair, { strict: true }),
        )
      }),
    strays: y
      .array()
      .of(place().shape({ id: uuid().required() }).required())
      .max(200, 'at most 200 strays')
      .required(),
  })
  .noUnknown()

const zoneHair = y
  .object({
    kind: choice(HAIR_KINDS).optional(),
    coarseness: choice(COARSENESSES).optional(),
    density: choice(DENSITIES).optional(),
    curl: choice(CURLS).optional(),
    grey: choice(GREYS).optional(),
  })
  .noUnknown()
  .required()

/** A map from names to things, each checked. */
const mapOf = <T>(name: RegExp, value: y.Schema, what: string) =>
  y.mixed<Record<string, T>>().test(what, `must hold ${what}`, (all) => {
    if (all === undefined) return true
    if (typeof all !== 'object' || all === null || Array.isArray(all)) return false
    const entries = Object.entries(all)
    return (
      entries.length <= 600 &&
      entries.every(([key, v]) => name.test(key) && value.isValidSync(v, { strict: true }))
    )
  })

const laneEdit = y
  .object({
    skip: y.boolean().optional(),
    bladeId: y.string().oneOf(BLADE_IDS).optional(),
    way: y
      .string()
      .oneOf([...STROKE_WAYS])
      .optional(),
  })
  .noUnknown()
  .required()

/** Which plan is kept. */
export const planChoiceSchema = y
  .object({
    style: y
      .string()
      .oneOf([...STYLES])
      .default('balanced'),
    edits: mapOf<LaneEdit>(
      /^[a-z0-9-]{1,40}:\d{1,2}:[a-zA-Z]$/,
      laneEdit,
      'changes by lane',
    ).default({}),
    within: y.number().min(1).max(300).optional(),
    order: y.array().of(y.string().max(60).required()).max(400).optional(),
  })
  .noUnknown()

const ruleEdit = y
  .object({
    severity: y
      .string()
      .oneOf([...SEVERITY_ORDER])
      .optional(),
    waitDays: y.number().integer().min(0).max(730).optional(),
  })
  .noUnknown()
  .required()

export const houseChangeSchema = y
  .object({
    schools: y.mixed<Record<string, string>>().optional(),
    workerId: uuid().optional(),
    kit: y.array().of(y.string().oneOf(BLADE_IDS).required()).optional(),
    /** null gives a figure its default back. */
    figures: mapOf<number | null>(
      /^[a-zA-Z0-9.-]{1,80}$/,
      y.number().nullable(),
      'figures',
    ).optional(),
    rules: mapOf<HouseRules[string]>(
      /^[a-z-]{1,40}$/,
      mapOf(/^[a-z-]{1,40}$/, ruleEdit, 'edits by service'),
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
        hand: y.string().oneOf(['right', 'left']).required(),
        level: y.string().oneOf(['practised', 'learning']).default('practised'),
      })
      .noUnknown()
      .default(undefined)
      .optional(),
  })
  .noUnknown()
