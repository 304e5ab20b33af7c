/** The one table of routes: what the server answers and what the web asks. */
import type { InferType, Schema } from 'yup'
import { ADDRESSES } from './addresses.ts'
import type { Vec3 } from '../core/head/index.ts'
import type { CarePlan } from '../core/care/index.ts'
import * as c from './chair.ts'
import * as f from './followUp.ts'
import * as s from './schemas.ts'
import type * as t from './types.ts'

/** What goes into a route; what is not given is not taken. */
export interface Takes {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
  readonly path: string
  readonly params?: Schema
  readonly query?: Schema
  readonly body?: Schema
}

/** A route: where, what goes in, and (as a type only) what comes out. */
export type Route<T extends Takes, Answer> = T & {
  /** Never set: carries the answer's type. */
  readonly answer?: Answer
}

const route =
  <Answer>() =>
  <const T extends Takes>(takes: T): Route<T, Answer> =>
    takes

export const ROUTES = {
  health: route<t.Health>()({ ...ADDRESSES.health }),
  today: route<t.Today>()({ ...ADDRESSES.today }),
  house: route<t.House>()({ ...ADDRESSES.house }),
  changeHouse: route<t.House>()({ ...ADDRESSES.changeHouse, body: s.houseChangeSchema }),
  clients: route<t.ClientRow[]>()({ ...ADDRESSES.clients, query: s.clientQuery }),
  addClient: route<t.Client>()({ ...ADDRESSES.addClient, body: s.newClientSchema }),
  client: route<t.ClientPage>()({ ...ADDRESSES.client, params: s.idParams }),
  changeClient: route<t.Client>()({
    ...ADDRESSES.changeClient,
    params: s.idParams,
    body: s.clientChangeSchema,
  }),
  eraseClient: route<{ erased: true }>()({
    ...ADDRESSES.eraseClient,
    params: s.idParams,
    body: s.eraseSchema,
  }),
  takeOutClient: route<unknown>()({ ...ADDRESSES.takeOutClient, params: s.idParams }),
  addVisit: route<t.VisitPage>()({
    ...ADDRESSES.addVisit,
    params: s.idParams,
    body: s.newVisitSchema,
  }),
  visit: route<t.VisitPage>()({ ...ADDRESSES.visit, params: s.idParams }),
  changeVisit: route<t.VisitPage>()({
    ...ADDRESSES.changeVisit,
    params: s.idParams,
    body: s.visitChangeSchema,
  }),
  saveAsked: route<t.VisitPage>()({
    ...ADDRESSES.saveAsked,
    params: s.idParams,
    body: s.askedSchema,
  }),
  editReadings: route<t.VisitPage>()({
    ...ADDRESSES.editReadings,
    params: s.idParams,
    body: s.readingEditSchema,
  }),
  saveNotes: route<t.VisitPage>()({
    ...ADDRESSES.saveNotes,
    params: s.idParams,
    body: s.notesSchema,
  }),
  savePlan: route<t.VisitPage>()({
    ...ADDRESSES.savePlan,
    params: s.idParams,
    body: s.planChoiceSchema,
  }),
  addEvent: route<t.ChairAnswer>()({
    ...ADDRESSES.addEvent,
    params: s.idParams,
    body: c.eventSchema,
  }),
  /** Server-sent events: each chair event as it is stored, and the server's clock. */
  follow: route<unknown>()({ ...ADDRESSES.follow, params: s.idParams, query: c.followQuery }),
  probe: route<t.ProbeReading>()({ ...ADDRESSES.probe, body: c.probeSchema }),
  saveProducts: route<t.VisitPage>()({
    ...ADDRESSES.saveProducts,
    params: s.idParams,
    body: c.productsSchema,
  }),
  addPhoto: route<t.Photo>()({ ...ADDRESSES.addPhoto, params: s.idParams }),
  photo: route<unknown>()({ ...ADDRESSES.photo, params: c.photoParams, query: c.photoQuery }),
  removePhoto: route<{ removed: true }>()({ ...ADDRESSES.removePhoto, params: c.photoParams }),
  messages: route<t.Message[]>()({ ...ADDRESSES.messages }),
  changeMessage: route<t.Message>()({
    ...ADDRESSES.changeMessage,
    params: s.idParams,
    body: c.messageSchema,
  }),
  kitEvents: route<t.KitLog>()({ ...ADDRESSES.kitEvents }),
  care: route<CarePlan>()({ ...ADDRESSES.care, params: s.idParams }),
  careSheet: route<unknown>()({ ...ADDRESSES.careSheet, params: s.idParams }),
  careCalendar: route<string>()({ ...ADDRESSES.careCalendar, params: s.idParams }),
  saveSkinAnswer: route<t.VisitPage>()({
    ...ADDRESSES.saveSkinAnswer,
    params: f.answerParams,
    body: f.skinAnswerSchema,
  }),
  addHairReading: route<t.VisitPage>()({
    ...ADDRESSES.addHairReading,
    params: s.idParams,
    body: f.hairReadingSchema,
  }),
  removeSkinAnswer: route<t.VisitPage>()({ ...ADDRESSES.removeSkinAnswer, params: f.answerParams }),
  /** A link page for the client, for this visit only; told once, kept as a digest. */
  addLink: route<t.AnswerLink>()({ ...ADDRESSES.addLink, params: s.idParams, body: f.emptyBody }),
  takeBackLinks: route<t.VisitPage>()({ ...ADDRESSES.takeBackLinks, params: s.idParams }),
  /** A worker's word that lifts a finding, or that an alarm was looked into. */
  decide: route<t.VisitPage>()({ ...ADDRESSES.decide, params: s.idParams, body: f.decisionSchema }),
  takeBackDecision: route<t.VisitPage>()({ ...ADDRESSES.takeBackDecision, params: s.idParams }),
  /** Earlier stretches of the tide line. */
  tide: route<t.Tide>()({ ...ADDRESSES.tide, params: s.idParams, query: f.tideQuery }),
  history: route<t.ClientHistory>()({ ...ADDRESSES.history, params: s.idParams }),
  studio: route<t.StudioHistory>()({ ...ADDRESSES.studio }),
  readingsCsv: route<string>()({ ...ADDRESSES.readingsCsv, params: s.idParams }),
  report: route<unknown>()({ ...ADDRESSES.report, params: s.idParams }),
  seriesCalendar: route<string>()({
    ...ADDRESSES.seriesCalendar,
    params: s.idParams,
    query: f.throughQuery,
  }),
  imports: route<t.ImportRecord[]>()({ ...ADDRESSES.imports }),
  addImport: route<t.ImportRecord>()({ ...ADDRESSES.addImport, body: s.importSchema }),
  undoImport: route<t.ImportUndone>()({ ...ADDRESSES.undoImport, params: s.idParams }),
  removeHairReading: route<{ removed: true }>()({
    ...ADDRESSES.removeHairReading,
    params: s.idParams,
  }),
} as const

export type RouteName = keyof typeof ROUTES
/** As JSON gives it: what may be left out is left out, never there as undefined. */
type Given<T> = T extends string | number | boolean | null | undefined
  ? T
  : T extends [number, number, number]
    ? Vec3
    : T extends readonly (infer U)[]
      ? readonly Given<U>[]
      : { readonly [K in keyof T]: Given<Exclude<T[K], undefined>> }

/** As it may be put together before it is sent: JSON leaves out what is undefined. */
type Told<T> = T extends string | number | boolean | null | undefined
  ? T
  : T extends [number, number, number]
    ? Vec3
    : T extends readonly (infer U)[]
      ? readonly Told<U>[]
      : { readonly [K in keyof T]: Told<T[K]> }

type Of<N extends RouteName> = (typeof ROUTES)[N]
type Taken<R, Part extends 'params' | 'query' | 'body'> =
  R extends Record<Part, infer S extends Schema> ? Given<InferType<S>> : undefined

/** What a route is asked with, as its schemas let it through. */
export type ParamsOf<N extends RouteName> = Taken<Of<N>, 'params'>
export type QueryOf<N extends RouteName> = Taken<Of<N>, 'query'>
export type BodyOf<N extends RouteName> = Taken<Of<N>, 'body'>
/** The same as whoever asks may put it together. */
export type ToldBody<N extends RouteName> =
  Of<N> extends { readonly body: infer S extends Schema } ? Told<InferType<S>> : undefined
export type AnswerOf<N extends RouteName> = NonNullable<Of<N>['answer']>

/** What may be changed of the house; null gives a figure its default back, an empty edit a rule its own. */
export type HouseEdit = BodyOf<'changeHouse'>
