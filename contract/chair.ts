/** What may come over the wire from the chair and for what goes home, as Yup schemas. */
import * as y from 'yup'
import {
  BLADE_ENDS,
  NICK_CARE,
  type ToldEvent,
  CHAIR_EVENT_KINDS,
  KINDS,
} from '../core/chair/index.ts'
import { PRODUCT_FACTS, type Product } from '../core/care/index.ts'
import { BLADE_IDS } from '../core/kit/index.ts'
import { bound } from './bound.ts'
import { choice, list, moment, text, uuid, vec3, word, zone } from './parts.ts'

const relation = () => y.string().oneOf(['with', 'across', 'against'])
const number = (low: number, high: number) => y.number().min(low).max(high)
const stance = y
  .object({
    hour: number(0, 12).required(),
    text: text(200).required(),
    hand: y.string().oneOf(['left', 'right']).optional(),
  })
  .noUnknown()
  .default(undefined)
const angle = () => number(-10, 10)

const step = y
  .object({
    id: word().required(),
    jobId: uuid().optional(),
    kind: y
      .string()
      .oneOf(['prepare', 'feel', 'hand', 'stroke', 'lather', 'check', 'close'])
      .required(),
    title: text(160).required(),
    short: text(160).optional(),
    text: text(600).defined(),
    minutes: number(0, 240).required(),
    zoneId: zone().optional(),
    pass: number(1, 9).optional(),
    laneId: word().optional(),
    laneIds: list(word().required(), 80).optional(),
    zoneIds: list(zone().required(), 80).optional(),
    relation: relation().optional(),
    strokeBearing: angle().optional(),
    growthDirection: angle().optional(),
    bladeAngleDeg: number(0, 90).optional(),
    blade: text(80).optional(),
    freeHand: text(400).optional(),
    pullBearing: angle().optional(),
    stance: stance.optional(),
    headTurn: text(200).optional(),
    action: text(200).optional(),
    strokes: number(0, 5000).optional(),
    areaCm2: number(0, 2000).optional(),
    leftMm: number(0, 60).optional(),
    watch: text(300).optional(),
    avoid: list(text(200).required(), 40).optional(),
    lays: y.string().oneOf(['towel', 'lather']).optional(),
    renews: y.boolean().isTrue().optional(),
    freshBlade: y.boolean().isTrue().optional(),
    wipes: y.boolean().isTrue().optional(),
  })
  .noUnknown()

const lane = y
  .object({
    id: word().required(),
    jobId: uuid().required(),
    stepId: word().optional(),
    zoneId: zone().required(),
    pass: number(1, 9).required(),
    letter: y
      .string()
      .matches(/^[a-zA-Z]$/)
      .required(),
    relation: relation().required(),
    point: vec3().required(),
    normal: vec3().required(),
    stroke: vec3().required(),
    strokeBearing: angle().required(),
    growthDirection: angle().required(),
    toward: text(300).optional(),
    growsToward: text(300).optional(),
    grain: y.string().oneOf(['read', 'guess', 'unsure']).optional(),
    withinDeg: number(0, 180).required(),
    areaCm2: number(0, 2000).required(),
    lengthMm: number(0, 1000).required(),
    widthMm: number(0, 1000).required(),
    bladeId: choice(BLADE_IDS).required(),
    blade: text(80).required(),
    bladeAngleDeg: number(0, 90).required(),
    usableWidthMm: number(0, 100).required(),
    strokeLengthMm: number(0, 200).required(),
    strokes: number(0, 5000).required(),
    seconds: number(0, 10_000).required(),
    load: number(0, 100).required(),
    leftMm: number(0, 60).required(),
    stance: stance.required(),
    headTurn: text(200).defined(),
    freeHand: text(400).defined(),
    // Plans kept before the free hand was told by its holds.
    anchor: text(80).optional(),
    holds: list(
      y
        .object({
          zoneId: zone().required(),
          point: vec3().required(),
          normal: vec3().required(),
          pull: vec3().required(),
          text: text(300).required(),
        })
        .noUnknown()
        .required(),
      3,
    ).optional(),
    pullBearing: angle().required(),
    action: text(200).defined(),
    watch: text(300).defined(),
    avoid: list(text(200).required(), 40).required(),
    reasons: list(
      y.object({ text: text(400).required(), mark: y.string().oneOf(['P', 'C', 'H']).required() }),
      40,
    ).required(),
    edited: y.boolean().optional(),
  })
  .noUnknown()

const amendment = y
  .object({
    text: text(300).required(),
    after: y.number().integer().min(0).max(2000).required(),
    steps: list(step.required(), 600).required(),
    lanes: list(lane.required(), 600).required(),
    covers: list(
      y
        .object({
          zoneId: zone().required(),
          cover: y
            .string()
            .matches(/^(\d+[.a-zA-Z])*$/)
            .max(60_000)
            .required(),
        })
        .noUnknown()
        .required(),
      80,
    ).required(),
  })
  .noUnknown()
  .default(undefined)

const detail = y
  .object({
    bladeId: choice(BLADE_IDS).optional(),
    why: choice(BLADE_ENDS).optional(),
    of: uuid().optional(),
    zoneId: zone().optional(),
    point: vec3().optional(),
    normal: vec3().optional(),
    tangent: vec3().optional(),
    beside: y.boolean().isTrue().optional(),
    away: y.boolean().isTrue().optional(),
    patches: list(
      y.object({ zoneId: zone().required(), point: vec3().required() }).noUnknown().required(),
      80,
    ).optional(),
    sizeMm: number(0.2, 60).optional(),
    did: list(choice(NICK_CARE).required(), 8).optional(),
    contact: y.boolean().optional(),
    grade: y.number().integer().min(0).max(4).optional(),
    welt: y.boolean().optional(),
    rawC: number(-40, 130).optional(),
    tempC: number(-40, 130).optional(),
    withinC: number(0, 20).optional(),
    task: word().optional(),
    amendment: amendment.optional(),
    zones: list(
      y
        .object({
          zoneId: zone().required(),
          redness: y.number().integer().min(0).max(4).required(),
        })
        .noUnknown()
        .required(),
      80,
    ).optional(),
  })
  .noUnknown()
  .default(undefined)

export const eventSchema = bound<ToldEvent>()(
  y
    .object({
      id: uuid().required(),
      screen: uuid().required(),
      n: y.number().integer().min(1).max(1_000_000_000).required(),
      kind: choice(CHAIR_EVENT_KINDS).required(),
      atMs: moment().required(),
      stepId: word().optional(),
      reason: text(200).optional(),
      detail: detail.optional(),
    })
    .noUnknown()
    .test('takes', 'holds what that kind of event does not tell', ({ kind, detail: told }) => {
      const takes: readonly string[] = KINDS[kind]?.takes ?? []
      return Object.keys(told ?? {}).every((field) => takes.includes(field))
    }),
)

/** Events after this number are wanted. */
export const followQuery = y
  .object({ after: y.number().integer().min(0).max(1_000_000_000).default(0) })
  .noUnknown()

const FOLLOWED = /^[0-9a-f-]{36}:\d{1,9}$/i

/** Visits, each with the place in its service that was heard last: `id:12,id:0`. */
export const followAllQuery = y
  .object({
    of: y
      .string()
      .required()
      .max(40 * 24, 'too many at once')
      .test(
        'of',
        'must name visits and places',
        (of) => of === undefined || of.split(',').every((one) => FOLLOWED.test(one)),
      ),
  })
  .noUnknown()

export const probeSchema = y
  .object({
    /** Where the probe is put: into ice, into the warm reference, or into a towel. */
    into: y.string().oneOf(['ice', 'warm', 'towel']).required(),
    outAtMs: moment().optional(),
    laidAtMs: moment().optional(),
  })
  .noUnknown()

export const calibrationSchema = y
  .object({
    iceShowsC: number(-40, 130).required('What does it show in ice water?'),
    warm: y
      .object({ knownC: number(20, 100).required(), showsC: number(-40, 130).required() })
      .noUnknown()
      .default(undefined)
      .optional(),
  })
  .noUnknown()

export const productsSchema = y
  .object({ products: list(word().required(), 40).required() })
  .noUnknown()

export const houseProductsSchema = bound<Product[]>()(
  list(
    y
      .object({
        id: word().required(),
        name: text(80).required('A product needs a name.'),
        use: y.string().oneOf(['before', 'lather', 'after', 'home', 'tool']).required(),
        holds: list(choice(PRODUCT_FACTS).required(), 8).required(),
      })
      .noUnknown()
      .required(),
    80,
  ),
)

/** Whether a message still waits to be sent. */
export const MESSAGE_STATES = ['waiting', 'taken-back'] as const

export const messageSchema = y
  .object({
    text: text(4000).optional(),
    dueAtMs: moment().optional(),
    state: choice(MESSAGE_STATES).optional(),
  })
  .noUnknown()

export const photoParams = y.object({ id: uuid().required() }).noUnknown()
export const photoQuery = y
  .object({ size: y.string().oneOf(['whole', 'thumbnail']).default('whole') })
  .noUnknown()
