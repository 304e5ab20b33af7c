/** What the server answers, as types. */
import type { MessageKind, CarePlan, Product } from '../core/care/index.ts'
import type { Job, ServiceId } from '../core/services/index.ts'
import type { SkinAndHair } from '../core/client.ts'
import type { KitEvent, ProbeCalibration, ChairEvent, ChairState } from '../core/chair/index.ts'
import type { HairReading, SkinAnswer, AtChair } from '../core/looks/index.ts'
import type { TodayFlag, GateFacts } from '../core/visit/index.ts'
import type { VisitFacts, ClientModel } from '../core/history/index.ts'
import type { ClientEvent } from '../core/ahead/index.ts'
import type { Reactivity } from '../core/skin/index.ts'
import type { Reading } from '../core/grain/index.ts'
import type { SurfaceNotes } from '../core/hair/index.ts'
import type { KeepLine } from '../core/lines/index.ts'
import type { Schools } from '../core/house/index.ts'
import type { Hand, Plan } from '../core/plan/index.ts'
import type { BladeId, Level } from '../core/kit/index.ts'
import type { HouseRules, Asked } from '../core/screening/index.ts'
import type { VisitWindow, TideCurve } from '../core/regrowth/index.ts'

export interface Health {
  ok: true
  version: string
  clients: number
  visits: number
}

export interface Worker {
  id: string
  name: string
  role: string
  hand: Hand
  /** Whether they may hold a bare blade. */
  level: Level
}

export interface House {
  name: string
  schools: Schools
  workers: Worker[]
  /** Who works at this screen. */
  workerId: string
  /** Blades the house owns. */
  kit: readonly BladeId[]
  /** Figures that differ from their defaults, by area and name. */
  figures: Record<string, number>
  /** Rules of asking that differ from their defaults. */
  rules: HouseRules
  /** Text that clients sign; the product's own while empty. */
  consentText: string
  /** Products of the house, with what of their ingredients matters. */
  products: readonly Product[]
  /** What calibrating the probe thermometer found; null before the first time. */
  probe: ProbeCalibration | null
  /** What was changed and when, oldest first. */
  changes: HouseChange[]
}

/** One change of the house. */
export interface HouseChange {
  readonly atMs: number
  /** What was changed, in words. */
  readonly what: string
  readonly from: string
  readonly to: string
}

export interface Client {
  id: string
  name: string
  calledName: string
  pronouns: string
  occupation: string
  service: ServiceId
  skin: SkinAndHair
  /** Schools that differ from the house's for this client. */
  schools: Partial<Schools>
  phone: string
  email: string
  note: string
  /** Events that services are laid out for. */
  events: readonly ClientEvent[]
  createdAtMs: number
}

export type VisitState = 'open' | 'running' | 'finished'

/** A visit in a list. */
export interface VisitSummary {
  id: string
  /** That of the first job. */
  service: ServiceId
  state: VisitState
  slotAtMs: number | null
  startedAtMs: number | null
  endedAtMs: number | null
  /** Worst redness within 48 h; null when nobody answered. */
  worstRedness: number | null
  /** Bumps of days 2 to 14; null when nobody counted. */
  bumps: number | null
  /** A change of routine that began with this visit. */
  routine: string
}

export interface ClientPage {
  client: Client
  /** Newest first. */
  visits: VisitSummary[]
  /** The visit that is open, running, or the last one. */
  currentVisitId: string | null
  model: ClientModel
  tide: Tide
}

/** The tide line of a client. */
export interface Tide {
  curve: TideCurve
  /** What the height means, in words. */
  hairWords: string
  /** The forecast is drawn up to this length, mm. */
  topMm: number
  visits: VisitSummary[]
  window: VisitWindow | null
  /** True when there are visits before the line begins. */
  earlier: boolean
  fromMs: number
  untilMs: number
  nowMs: number
}

export interface VisitPage {
  id: string
  clientId: string
  workerId: string
  jobs: Job[]
  /** That of the first job. */
  service: ServiceId
  state: VisitState
  slotAtMs: number | null
  routine: string
  startedAtMs: number | null
  endedAtMs: number | null
  asked: Asked
  /** Marks of the last visit that last (moles, scars), offered again. */
  plan: Plan | null
  planMadeAtMs: number | null
  readings: Reading[]
  /** Keep-lines, kept zones, kinds of hair, strays. */
  notes: SurfaceNotes
  /** The keep-lines of the visit before; null at the first. */
  before: { visitId: string; atMs: number; lines: KeepLine[] } | null
  events: ChairEvent[]
  chair: ChairState
  care: CarePlan | null
  /** Products used at this visit, by id. */
  products: string[]
  photos: Photo[]
  /** What would be sent to the client, and when. */
  messages: Message[]
  answers: SkinAnswer[]
  hair: HairReading[]
  window: VisitWindow | null
  /** Load given and hair left standing, mm, by zone; null before the end. */
  loads: Record<string, number> | null
  leftMm: Record<string, number> | null
  /** What happened to the skin at the chair; nothing before the end. */
  atChair: AtChair
  /** Zones to look at after the service; those that were left out among them. */
  lookAt: string[]
  /** What the gate knows besides the visit itself. */
  facts: GateFacts
  /** Until when the client may answer on a link page; null when no link is out. */
  linkUntilMs: number | null
}

/** A link page for a client. */
export interface AnswerLink {
  url: string
  expiresAtMs: number
}

/** A client's finished visits as comparing needs them, oldest first, and what was looked at after each. */
export interface ClientHistory {
  visits: VisitFacts[]
  looks: { visitId: string; answer: SkinAnswer }[]
}

/** All clients' finished visits, for learning over the studio. */
export interface StudioHistory {
  nowMs: number
  clients: {
    clientId: string
    name: string
    reactivity: Reactivity
    visits: VisitFacts[]
  }[]
}

/** Clients brought in together. */
export interface ImportRecord {
  id: string
  atMs: number
  source: string
  clients: number
  undoneAtMs: number | null
}

export interface ImportUndone {
  removed: number
  /** Clients who have had visits since: they stay. */
  kept: string[]
}

export interface ChairAnswer {
  state: ChairState
  /** The event's place in the service. */
  seq: number
  /** True when the event was already stored. */
  repeated: boolean
}

/** What the probe shows, and the same put right by its calibration. */
export interface ProbeReading {
  atMs: number
  rawC: number
  tempC: number
  withinC: number
}

/** A picture of a visit, kept on this machine. */
export interface Photo {
  id: string
  visitId: string
  atMs: number
  width: number
  height: number
}

/** A message of the outbox: nothing leaves this machine. */
export interface Message {
  id: string
  visitId: string
  clientId: string
  to: string
  kind: MessageKind
  subject: string
  text: string
  dueAtMs: number
  state: 'waiting' | 'taken-back'
}

/** What happened to blades, newest first. */
export interface KitLog {
  events: (KitEvent & { client: string })[]
  /** Blades put away so far, by blade and why. */
  counts: { bladeId: BladeId; opened: number; failed: number; put: number }[]
}

export interface TodayRow {
  client: { id: string; name: string; occupation: string }
  service: ServiceId
  visitId: string | null
  slotAtMs: number | null
  curve: TideCurve
  window: { fromMs: number; toMs: number } | null
  /** Odds that hair is seen by the window's end. */
  seenByEnd: number | null
  /** The client's telephone, for asking how it went. */
  phone: string
  dueMs: number
  flags: TodayFlag[]
}

export interface Today {
  nowMs: number
  /** Clients whose severe answer nobody has looked into. */
  alarms: number
  fromMs: number
  untilMs: number
  rows: TodayRow[]
  answersOwed: number
  patchTestsToRead: number
  firstVisits: number
}

export interface ClientRow {
  id: string
  name: string
  calledName: string
  occupation: string
  phone: string
  email: string
  service: ServiceId
  visits: number
  lastAtMs: number | null
  dueFromMs: number | null
  dueToMs: number | null
}

/** RFC 9457 problem details, with a code and what was kept. */
export interface Problem {
  type: string
  title: string
  status: number
  detail: string
  code: string
  errors?: { path: string; message: string }[]
}
