/** The one table of routes: what the server answers and what the web asks. */
import type { InferType, Schema } from 'yup'
import { ADDRESSES } from './addresses.ts'
import type { Vec3 } from '../core/head/index.ts'
import * as a from './answers.ts'
import * as c from './chair.ts'
import * as f from './followUp.ts'
import * as p from './people.ts'
import * as s from './schemas.ts'
import * as w from './week.ts'
import { settleSchema } from './joined.ts'
import { safetyChangeSchema } from './safety.ts'

/** A route: where, what goes in (what is not given is not taken), and what comes out as JSON. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
  readonly path: string
  readonly params?: Schema
  readonly query?: Schema
  readonly body?: Schema
  /** Left out where what is answered is no JSON of the contract: a picture, a paper, a file to take away. */
  readonly answer?: Schema
}

const route = <const R extends Route>(it: R): R => it

export const ROUTES = {
  health: route({ answer: a.healthAnswer, ...ADDRESSES.health }),
  today: route({ answer: a.todayAnswer, ...ADDRESSES.today, query: s.todayQuery }),
  house: route({ answer: a.houseAnswer, ...ADDRESSES.house }),
  changeHouse: route({
    answer: a.houseAnswer,
    ...ADDRESSES.changeHouse,
    body: s.houseChangeSchema,
  }),
  clients: route({ answer: a.clientRowsAnswer, ...ADDRESSES.clients, query: s.clientQuery }),
  knownClients: route({ answer: a.knownClientsAnswer, ...ADDRESSES.knownClients }),
  addClient: route({ answer: a.clientAnswer, ...ADDRESSES.addClient, body: s.newClientSchema }),
  client: route({ answer: a.clientPageAnswer, ...ADDRESSES.client, params: s.idParams }),
  changeClient: route({
    answer: a.clientAnswer,
    ...ADDRESSES.changeClient,
    params: s.idParams,
    body: s.clientChangeSchema,
  }),
  eraseClient: route({
    answer: a.erasedAnswer,
    ...ADDRESSES.eraseClient,
    params: s.idParams,
    body: s.eraseSchema,
  }),
  takeOutClient: route({ ...ADDRESSES.takeOutClient, params: s.idParams }),
  addVisit: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.addVisit,
    params: s.idParams,
    body: s.newVisitSchema,
  }),
  visit: route({ answer: a.visitPageAnswer, ...ADDRESSES.visit, params: s.idParams }),
  changeVisit: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.changeVisit,
    params: s.idParams,
    body: s.visitChangeSchema,
  }),
  saveAsked: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.saveAsked,
    params: s.idParams,
    body: s.askedSchema,
  }),
  editReadings: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.editReadings,
    params: s.idParams,
    body: s.readingEditSchema,
  }),
  saveNotes: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.saveNotes,
    params: s.idParams,
    body: s.notesSchema,
  }),
  savePlan: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.savePlan,
    params: s.idParams,
    body: s.planChoiceSchema,
  }),
  addEvent: route({
    answer: a.chairAnswer,
    ...ADDRESSES.addEvent,
    params: s.idParams,
    body: c.eventSchema,
  }),
  /** Server-sent events: each chair event as it is stored, and the server's clock. */
  follow: route({ ...ADDRESSES.follow, params: s.idParams, query: c.followQuery }),
  /** The same for all services that a browser follows. */
  followAll: route({ ...ADDRESSES.followAll, query: c.followAllQuery }),
  probe: route({ answer: a.probeAnswer, ...ADDRESSES.probe, body: c.probeSchema }),
  saveProducts: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.saveProducts,
    params: s.idParams,
    body: c.productsSchema,
  }),
  addPhoto: route({ answer: a.photoAnswer, ...ADDRESSES.addPhoto, params: s.idParams }),
  photo: route({ ...ADDRESSES.photo, params: c.photoParams, query: c.photoQuery }),
  removePhoto: route({ answer: a.removedAnswer, ...ADDRESSES.removePhoto, params: c.photoParams }),
  messages: route({ answer: a.messagesAnswer, ...ADDRESSES.messages }),
  changeMessage: route({
    answer: a.messageAnswer,
    ...ADDRESSES.changeMessage,
    params: s.idParams,
    body: c.messageSchema,
  }),
  kitEvents: route({ answer: a.kitLogAnswer, ...ADDRESSES.kitEvents }),
  care: route({ answer: a.careAnswer, ...ADDRESSES.care, params: s.idParams }),
  careSheet: route({ ...ADDRESSES.careSheet, params: s.idParams }),
  careCalendar: route({ answer: a.textAnswer, ...ADDRESSES.careCalendar, params: s.idParams }),
  saveSkinAnswer: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.saveSkinAnswer,
    params: f.answerParams,
    body: f.skinAnswerSchema,
  }),
  addHairReading: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.addHairReading,
    params: s.idParams,
    body: f.hairReadingSchema,
  }),
  removeSkinAnswer: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.removeSkinAnswer,
    params: f.answerParams,
  }),
  /** A link page for the client, for this visit only; told once, kept as a digest. */
  addLink: route({
    answer: a.answerLinkAnswer,
    ...ADDRESSES.addLink,
    params: s.idParams,
    body: f.emptyBody,
  }),
  takeBackLinks: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.takeBackLinks,
    params: s.idParams,
  }),
  /** A worker's word that lifts a finding, or that an alarm was looked into. */
  decide: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.decide,
    params: s.idParams,
    body: f.decisionSchema,
  }),
  takeBackDecision: route({
    answer: a.visitPageAnswer,
    ...ADDRESSES.takeBackDecision,
    params: s.idParams,
  }),
  /** Which of two that differ is to stand. */
  settle: route({
    answer: a.removedAnswer,
    ...ADDRESSES.settle,
    params: s.idParams,
    body: settleSchema,
  }),
  /** Earlier stretches of the tide line. */
  tide: route({ answer: a.tideAnswer, ...ADDRESSES.tide, params: s.idParams, query: f.tideQuery }),
  history: route({ answer: a.clientHistoryAnswer, ...ADDRESSES.history, params: s.idParams }),
  studio: route({ answer: a.studioAnswer, ...ADDRESSES.studio }),
  readingsCsv: route({ answer: a.textAnswer, ...ADDRESSES.readingsCsv, params: s.idParams }),
  report: route({ ...ADDRESSES.report, params: s.idParams }),
  seriesCalendar: route({
    answer: a.textAnswer,
    ...ADDRESSES.seriesCalendar,
    params: s.idParams,
    query: f.throughQuery,
  }),
  imports: route({ answer: a.importsAnswer, ...ADDRESSES.imports }),
  addImport: route({ answer: a.importAnswer, ...ADDRESSES.addImport, body: s.importSchema }),
  undoImport: route({ answer: a.importUndoneAnswer, ...ADDRESSES.undoImport, params: s.idParams }),
  session: route({ answer: a.sessionAnswer, ...ADDRESSES.session }),
  signIn: route({ answer: a.sessionAnswer, ...ADDRESSES.signIn, body: p.signInSchema }),
  signOut: route({ answer: a.sessionAnswer, ...ADDRESSES.signOut }),
  lockScreen: route({ answer: a.sessionAnswer, ...ADDRESSES.lockScreen, body: f.emptyBody }),
  signOutEverywhere: route({ answer: a.sessionAnswer, ...ADDRESSES.signOutEverywhere }),
  changeSecret: route({
    answer: a.sessionAnswer,
    ...ADDRESSES.changeSecret,
    body: p.secretChangeSchema,
  }),
  makeOwner: route({ answer: a.sessionAnswer, ...ADDRESSES.makeOwner, body: p.ownerSchema }),
  people: route({ answer: a.peopleAnswer, ...ADDRESSES.people }),
  addWorker: route({ answer: a.peopleAnswer, ...ADDRESSES.addWorker, body: p.newWorkerSchema }),
  changeWorker: route({
    answer: a.peopleAnswer,
    ...ADDRESSES.changeWorker,
    params: s.idParams,
    body: p.workerChangeSchema,
  }),
  screens: route({ answer: a.screensAnswer, ...ADDRESSES.screens }),
  newPairing: route({ answer: a.screensAnswer, ...ADDRESSES.newPairing, body: p.newPairingSchema }),
  changeScreen: route({
    answer: a.screensAnswer,
    ...ADDRESSES.changeScreen,
    params: s.idParams,
    body: p.screenChangeSchema,
  }),
  pairScreen: route({ answer: a.pairedAnswer, ...ADDRESSES.pairScreen, body: p.pairSchema }),
  /** What a screen on the wall shows now. */
  wall: route({ answer: a.wallAnswer, ...ADDRESSES.wall }),
  trail: route({ answer: a.trailAnswer, ...ADDRESSES.trail, query: p.trailQuery }),
  /** Everything kept of a client as a paper to read. */
  record: route({ ...ADDRESSES.record, params: s.idParams }),
  safety: route({ answer: a.safetyAnswer, ...ADDRESSES.safety }),
  changeSafety: route({
    answer: a.safetyAnswer,
    ...ADDRESSES.changeSafety,
    body: safetyChangeSchema,
  }),
  /** Begins; how far it is is asked with `safety`. */
  backUp: route({ answer: a.safetyAnswer, ...ADDRESSES.backUp, body: f.emptyBody }),
  prove: route({ answer: a.safetyAnswer, ...ADDRESSES.prove, body: f.emptyBody }),
  stopSafety: route({ answer: a.safetyAnswer, ...ADDRESSES.stopSafety }),
  /** What a client took off at home, as it is told to the worker. */
  addHomeWork: route({
    answer: a.clientPageAnswer,
    ...ADDRESSES.addHomeWork,
    params: s.idParams,
    body: f.homeWorkSchema,
  }),
  removeHomeWork: route({
    answer: a.clientPageAnswer,
    ...ADDRESSES.removeHomeWork,
    params: s.idParams,
  }),
  /** What each way of taking hair off comes to in one place of a client. */
  methods: route({
    answer: a.methodsAnswer,
    ...ADDRESSES.methods,
    params: s.idParams,
    query: f.methodsQuery,
  }),
  removeHairReading: route({
    answer: a.removedAnswer,
    ...ADDRESSES.removeHairReading,
    params: s.idParams,
  }),
  /** The book of some days. */
  week: route({ answer: w.weekAnswer, ...ADDRESSES.week, query: w.weekQuery }),
  /** How long a client's appointment takes. */
  appointmentLength: route({
    answer: w.lengthAnswer,
    ...ADDRESSES.appointmentLength,
    params: s.idParams,
    query: w.lengthQuery,
  }),
  addAppointment: route({
    answer: w.appointmentAnswer,
    ...ADDRESSES.addAppointment,
    body: w.newAppointmentSchema,
  }),
  changeAppointment: route({
    answer: w.appointmentAnswer,
    ...ADDRESSES.changeAppointment,
    params: s.idParams,
    body: w.appointmentChangeSchema,
  }),
  /** One that was made by mistake a moment ago. */
  removeAppointment: route({
    answer: a.removedAnswer,
    ...ADDRESSES.removeAppointment,
    params: s.idParams,
  }),
  propose: route({ answer: w.proposalAnswer, ...ADDRESSES.propose, body: w.proposalSchema }),
  weekLoad: route({ answer: w.loadAnswer, ...ADDRESSES.weekLoad, query: w.weekQuery }),
  weekCsv: route({ ...ADDRESSES.weekCsv, query: w.weekQuery }),
  /** When a client can come. */
  hours: route({ answer: w.hoursAnswer, ...ADDRESSES.hours, params: s.idParams }),
  saveHours: route({
    answer: w.hoursAnswer,
    ...ADDRESSES.saveHours,
    params: s.idParams,
    body: w.hoursSchema,
  }),
  addWaiting: route({ answer: a.removedAnswer, ...ADDRESSES.addWaiting, body: w.waitingSchema }),
  removeWaiting: route({ answer: a.removedAnswer, ...ADDRESSES.removeWaiting, params: s.idParams }),
  freeSlot: route({ answer: w.freeSlotAnswer, ...ADDRESSES.freeSlot, query: w.freeQuery }),
  addOffer: route({ answer: a.removedAnswer, ...ADDRESSES.addOffer, body: w.offerSchema }),
  removeOffer: route({ answer: a.removedAnswer, ...ADDRESSES.removeOffer, params: s.idParams }),
  tellLate: route({ answer: w.toldAnswer, ...ADDRESSES.tellLate, body: f.emptyBody }),
  newFeed: route({
    answer: w.feedAnswer,
    ...ADDRESSES.newFeed,
    params: s.idParams,
    body: f.emptyBody,
  }),
  takeBackFeed: route({ answer: a.removedAnswer, ...ADDRESSES.takeBackFeed, params: s.idParams }),
  bringInBusy: route({ answer: w.busyAnswer, ...ADDRESSES.bringInBusy, body: w.busySchema }),
  removeBusy: route({ answer: a.removedAnswer, ...ADDRESSES.removeBusy, params: s.idParams }),
  addAway: route({ answer: a.removedAnswer, ...ADDRESSES.addAway, body: w.awaySchema }),
  removeAway: route({ answer: a.removedAnswer, ...ADDRESSES.removeAway, params: s.idParams }),
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
/** What it answers. */
export type AnswerOf<N extends RouteName> =
  Of<N> extends { readonly answer: infer S extends Schema } ? InferType<S> : unknown

/** What may be changed of the house; null gives a figure its default back, an empty edit a rule its own. */
export type HouseEdit = BodyOf<'changeHouse'>
