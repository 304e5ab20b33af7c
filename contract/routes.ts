/** The one table of routes: what the server answers and what the web asks. */
import type { InferType, Schema } from 'yup'
import type { Vec3 } from '../core/head/frames.ts'
import type { CarePlan } from '../core/care/clearances.ts'
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
  health: route<t.Health>()({ method: 'GET', path: '/api/health' }),
  today: route<t.Today>()({ method: 'GET', path: '/api/today' }),
  house: route<t.House>()({ method: 'GET', path: '/api/house' }),
  changeHouse: route<t.House>()({ method: 'PATCH', path: '/api/house', body: s.houseChangeSchema }),
  clients: route<t.ClientRow[]>()({ method: 'GET', path: '/api/clients', query: s.clientQuery }),
  addClient: route<t.Client>()({ method: 'POST', path: '/api/clients', body: s.newClientSchema }),
  client: route<t.ClientPage>()({ method: 'GET', path: '/api/clients/:id', params: s.idParams }),
  changeClient: route<t.Client>()({
    method: 'PATCH',
    path: '/api/clients/:id',
    params: s.idParams,
    body: s.clientChangeSchema,
  }),
  eraseClient: route<{ erased: true }>()({
    method: 'DELETE',
    path: '/api/clients/:id',
    params: s.idParams,
    body: s.eraseSchema,
  }),
  takeOutClient: route<unknown>()({
    method: 'GET',
    path: '/api/clients/:id/export.json',
    params: s.idParams,
  }),
  addVisit: route<t.VisitPage>()({
    method: 'POST',
    path: '/api/clients/:id/visits',
    params: s.idParams,
    body: s.newVisitSchema,
  }),
  visit: route<t.VisitPage>()({ method: 'GET', path: '/api/visits/:id', params: s.idParams }),
  changeVisit: route<t.VisitPage>()({
    method: 'PATCH',
    path: '/api/visits/:id',
    params: s.idParams,
    body: s.visitChangeSchema,
  }),
  saveAsked: route<t.VisitPage>()({
    method: 'PUT',
    path: '/api/visits/:id/asked',
    params: s.idParams,
    body: s.askedSchema,
  }),
  editReadings: route<t.VisitPage>()({
    method: 'POST',
    path: '/api/visits/:id/readings',
    params: s.idParams,
    body: s.readingEditSchema,
  }),
  saveNotes: route<t.VisitPage>()({
    method: 'PUT',
    path: '/api/visits/:id/notes',
    params: s.idParams,
    body: s.notesSchema,
  }),
  savePlan: route<t.VisitPage>()({
    method: 'PUT',
    path: '/api/visits/:id/plan',
    params: s.idParams,
    body: s.planChoiceSchema,
  }),
  addEvent: route<t.ChairAnswer>()({
    method: 'POST',
    path: '/api/visits/:id/events',
    params: s.idParams,
    body: c.eventSchema,
  }),
  /** Server-sent events: each chair event as it is stored, and the server's clock. */
  follow: route<unknown>()({
    method: 'GET',
    path: '/api/visits/:id/follow',
    params: s.idParams,
    query: c.followQuery,
  }),
  probe: route<t.ProbeReading>()({ method: 'POST', path: '/api/probe', body: c.probeSchema }),
  saveProducts: route<t.VisitPage>()({
    method: 'PUT',
    path: '/api/visits/:id/products',
    params: s.idParams,
    body: c.productsSchema,
  }),
  addPhoto: route<t.Photo>()({
    method: 'POST',
    path: '/api/visits/:id/photos',
    params: s.idParams,
  }),
  photo: route<unknown>()({
    method: 'GET',
    path: '/api/photos/:id',
    params: c.photoParams,
    query: c.photoQuery,
  }),
  removePhoto: route<{ removed: true }>()({
    method: 'DELETE',
    path: '/api/photos/:id',
    params: c.photoParams,
  }),
  messages: route<t.Message[]>()({ method: 'GET', path: '/api/messages' }),
  changeMessage: route<t.Message>()({
    method: 'PATCH',
    path: '/api/messages/:id',
    params: s.idParams,
    body: c.messageSchema,
  }),
  kitEvents: route<t.KitLog>()({ method: 'GET', path: '/api/kit-events' }),
  care: route<CarePlan>()({ method: 'GET', path: '/api/visits/:id/care', params: s.idParams }),
  careSheet: route<unknown>()({
    method: 'GET',
    path: '/api/visits/:id/care.pdf',
    params: s.idParams,
  }),
  careCalendar: route<string>()({
    method: 'GET',
    path: '/api/visits/:id/care.ics',
    params: s.idParams,
  }),
  saveSkinAnswer: route<t.VisitPage>()({
    method: 'PUT',
    path: '/api/visits/:id/skin/:moment',
    params: f.answerParams,
    body: f.skinAnswerSchema,
  }),
  addHairReading: route<t.VisitPage>()({
    method: 'POST',
    path: '/api/visits/:id/hair',
    params: s.idParams,
    body: f.hairReadingSchema,
  }),
  removeSkinAnswer: route<t.VisitPage>()({
    method: 'DELETE',
    path: '/api/visits/:id/skin/:moment',
    params: f.answerParams,
  }),
  /** A link page for the client, for this visit only; told once, kept as a digest. */
  addLink: route<t.AnswerLink>()({
    method: 'POST',
    path: '/api/visits/:id/link',
    params: s.idParams,
    body: f.emptyBody,
  }),
  takeBackLinks: route<t.VisitPage>()({
    method: 'DELETE',
    path: '/api/visits/:id/link',
    params: s.idParams,
  }),
  /** A worker's word that lifts a finding, or that an alarm was looked into. */
  decide: route<t.VisitPage>()({
    method: 'POST',
    path: '/api/visits/:id/decisions',
    params: s.idParams,
    body: f.decisionSchema,
  }),
  takeBackDecision: route<t.VisitPage>()({
    method: 'DELETE',
    path: '/api/decisions/:id',
    params: s.idParams,
  }),
  /** Earlier stretches of the tide line. */
  tide: route<t.Tide>()({
    method: 'GET',
    path: '/api/clients/:id/tide',
    params: s.idParams,
    query: f.tideQuery,
  }),
  history: route<t.ClientHistory>()({
    method: 'GET',
    path: '/api/clients/:id/history',
    params: s.idParams,
  }),
  studio: route<t.StudioHistory>()({ method: 'GET', path: '/api/studio' }),
  readingsCsv: route<string>()({
    method: 'GET',
    path: '/api/clients/:id/readings.csv',
    params: s.idParams,
  }),
  report: route<unknown>()({
    method: 'GET',
    path: '/api/clients/:id/report.pdf',
    params: s.idParams,
  }),
  seriesCalendar: route<string>()({
    method: 'GET',
    path: '/api/clients/:id/visits.ics',
    params: s.idParams,
    query: f.throughQuery,
  }),
  imports: route<t.ImportRecord[]>()({ method: 'GET', path: '/api/imports' }),
  addImport: route<t.ImportRecord>()({
    method: 'POST',
    path: '/api/imports',
    body: s.importSchema,
  }),
  undoImport: route<t.ImportUndone>()({
    method: 'DELETE',
    path: '/api/imports/:id',
    params: s.idParams,
  }),
  removeHairReading: route<{ removed: true }>()({
    method: 'DELETE',
    path: '/api/hair/:id',
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
