/**
 * What the server answers, as Yup schemas; the types follow from them (`types.ts`). What core works out (a plan, a forecast, the
 * state of the chair) is carried as core's own type: its shape stands there. Tests hold every answer of the server to these.
 */
import type { ChairEvent, ChairState, KitEvent, ProbeCalibration } from '../core/chair/index.ts'
import type { CarePlan, Product } from '../core/care/index.ts'
import type { ClientEvent, DueWork, ZoneHere } from '../core/ahead/index.ts'
import type {
  ClientModel,
  HomeWork,
  LeftByJob,
  StudioLearned,
  VisitFacts,
} from '../core/history/index.ts'
import type { GateFacts, JobWindow, TodayFlag } from '../core/visit/index.ts'
import type { HouseRules, Asked } from '../core/screening/index.ts'
import type { Job, Work } from '../core/services/index.ts'
import type { KeepLine } from '../core/lines/index.ts'
import type { PaceSeen, Plan } from '../core/plan/index.ts'
import type { ReaderSeen, Reading } from '../core/grain/index.ts'
import type { SurfaceNotes } from '../core/hair/index.ts'
import type { TideCurve, VisitWindow } from '../core/regrowth/index.ts'
import { MESSAGE_KINDS } from '../core/care/index.ts'
import { BLADE_IDS, type BladeId, LEVELS } from '../core/kit/index.ts'
import type { ClosedDays } from '../core/time/index.ts'
import { HANDS } from '../core/plan/index.ts'
import { SERVICE_IDS, type ServiceId } from '../core/services/index.ts'
import { eachText, type SkinAndHair } from '../core/client.ts'
import type { AtChair, HairReading, SkinAnswer } from '../core/looks/index.ts'
import type { HouseSettings, Schools } from '../core/house/index.ts'
import type { Studio, WorkerHours } from '../core/week/index.ts'
import * as y from 'yup'
import { MESSAGE_STATES } from './chair.ts'
import { choice } from './parts.ts'
import { SCREEN_KINDS } from './people.ts'
import { JOINED_ROUTES } from './joined.ts'
import { RANKS } from './rights.ts'
import { BACKUP_WHYS, SAFETY_WORKS } from './safety.ts'

export const SESSION_MODES = ['first-run', 'open', 'demo', 'people'] as const
export const VISIT_STATES = ['open', 'running', 'finished'] as const

const yes = () => y.boolean().required()
export const text = () => y.string().defined()
export const number = () => y.number().required()
export const maybe = () => y.number().nullable().defined()
export const one = <T extends string>(of: readonly T[]) => choice(of).required()
/** What core keeps or works out; here only that it is there. */
export const core = <T extends object>() => y.mixed<T>().defined()
export const listOf = <T extends object>(of: y.ObjectSchema<T>) => y.array(of.required()).required()
/** A record, with no field that is not named. */
export const record = <S extends y.ObjectShape>(fields: S) => y.object(fields).noUnknown()

export const healthAnswer = record({
  ok: y.boolean<true>().oneOf([true]).required(),
  version: text(),
  clients: number(),
  visits: number(),
})

export const workerAnswer = record({
  id: text(),
  name: text(),
  role: text(),
  hand: one(HANDS),
  /** Whether they may hold a bare blade. */
  level: one(LEVELS),
  /** When they work by day of the week, and what they may do; null where it is as the house says. */
  hours: core<WorkerHours>().nullable(),
  services: core<readonly ServiceId[]>().nullable(),
})

/** One change of the house. */
export const houseChangeAnswer = record({
  atMs: number(),
  /** What was changed, in words. */
  what: text(),
  from: text(),
  to: text(),
})

export const houseAnswer = record({
  name: text(),
  schools: core<Schools>(),
  workers: listOf(workerAnswer),
  /** What each worker's latest services told of their pace, the latest first. */
  paces: core<Readonly<Record<string, readonly PaceSeen[]>>>(),
  /** What the maps that each worker read last told of how surely they read, the latest first. */
  readers: core<Readonly<Record<string, readonly ReaderSeen[]>>>(),
  /** Who works at this screen. */
  workerId: text(),
  settings: core<HouseSettings>(),
  /** Days on which nobody serves, and the hours of the others. */
  closed: core<ClosedDays>(),
  /** Chairs, beds, warm towels. */
  studio: core<Studio>(),
  /** Blades the house owns. */
  kit: core<readonly BladeId[]>(),
  /** Figures that differ from their defaults, by area and name. */
  figures: core<Record<string, number>>(),
  /** Rules of asking that differ from their defaults. */
  rules: core<HouseRules>(),
  /** Text that clients sign; the product's own while empty. */
  consentText: text(),
  /** Products of the house, with what of their ingredients matters. */
  products: core<readonly Product[]>(),
  /** What calibrating the probe thermometer found; null before the first time. */
  probe: core<ProbeCalibration>().nullable(),
  /** What was changed and when, oldest first. */
  changes: listOf(houseChangeAnswer),
})

export const clientAnswer = record({
  id: text(),
  name: text(),
  ...eachText(() => text()),
  service: one(SERVICE_IDS),
  skin: core<SkinAndHair>(),
  /** Schools that differ from the house's for this client. */
  schools: core<Partial<Schools>>(),
  /** Events that services are laid out for. */
  events: core<readonly ClientEvent[]>(),
  createdAtMs: number(),
})

/** A visit in a list. */
export const visitSummaryAnswer = record({
  id: text(),
  /** That of the first job. */
  service: one(SERVICE_IDS),
  /** What is done at it; of a trial strip that it was one. */
  jobs: core<(Work & Pick<LeftByJob, 'trial'>)[]>(),
  state: one(VISIT_STATES),
  slotAtMs: maybe(),
  startedAtMs: maybe(),
  endedAtMs: maybe(),
  /** The worst redness that was seen or told, from 6 h on; null when nobody answered. */
  worstRedness: maybe(),
  /** Bumps of days 2 to 14; null when nobody counted. */
  bumps: maybe(),
  /** A change of routine that began with this visit. */
  routine: text(),
})

/** The hair of one kind of work over time: which (`kindOfWork`), and as it is named. */
const tideOf = {
  id: text(),
  name: text(),
  curve: core<TideCurve>(),
  /** What the height means, in words. */
  hairWords: text(),
  /** The forecast is drawn up to this length, mm. */
  topMm: number(),
  window: core<VisitWindow>().nullable(),
  /** When something was taken off at home, where, and how much of the skin of the line. */
  home: listOf(record({ atMs: number(), words: text(), share: number() })),
}

/** The tide line of a client. */
export const tideAnswer = record({
  ...tideOf,
  /** The other kinds of work that the client comes for, each with its own. */
  others: listOf(record(tideOf)),
  visits: listOf(visitSummaryAnswer),
  /** True when there are visits before the line begins. */
  earlier: yes(),
  fromMs: number(),
  untilMs: number(),
  nowMs: number(),
})

/** A field that two screens entered differently: what arrived later, and what stood here. */
export const differenceAnswer = record({
  id: text(),
  what: one(JOINED_ROUTES),
  path: y.array(text()).required(),
  clientId: text(),
  visitId: y.string().nullable().defined(),
  mine: y.mixed<NonNullable<unknown>>().nullable().defined(),
  theirs: y.mixed<NonNullable<unknown>>().nullable().defined(),
  /** Who entered what arrived later, and when. */
  worker: text(),
  enteredAtMs: number(),
  atMs: number(),
})

export const clientPageAnswer = record({
  client: clientAnswer.required(),
  /** Newest first. */
  visits: listOf(visitSummaryAnswer),
  /** The visit that is open, running, or the last one. */
  currentVisitId: y.string().nullable().defined(),
  model: core<ClientModel>(),
  tide: tideAnswer.required(),
  /** What was taken off at home, the latest first. */
  home: core<HomeWork[]>(),
  /** Each kind of work that the client comes for, and whether it is due today. */
  due: core<DueWork[]>(),
  /** Fields that two screens entered differently, until somebody has chosen. */
  differences: listOf(differenceAnswer),
})

/** What each way of taking hair off comes to in one place. */
export const methodsAnswer = record({ here: core<ZoneHere>() })

/** A picture of a visit, kept on this machine. */
export const photoAnswer = record({
  id: text(),
  visitId: text(),
  atMs: number(),
  width: number(),
  height: number(),
})

/** A message of the outbox: nothing leaves this machine. */
export const messageAnswer = record({
  id: text(),
  /** Null where it is about an hour in the book. */
  visitId: text().nullable(),
  clientId: text(),
  to: text(),
  kind: one(MESSAGE_KINDS),
  subject: text(),
  text: text(),
  dueAtMs: number(),
  state: one(MESSAGE_STATES),
})

export const visitPageAnswer = record({
  id: text(),
  clientId: text(),
  workerId: text(),
  jobs: core<Job[]>(),
  /** That of the first job. */
  service: one(SERVICE_IDS),
  state: one(VISIT_STATES),
  slotAtMs: maybe(),
  routine: text(),
  startedAtMs: maybe(),
  endedAtMs: maybe(),
  asked: core<Asked>(),
  plan: core<Plan>().nullable(),
  planMadeAtMs: maybe(),
  readings: core<Reading[]>(),
  /** What is known of whoever read them, degrees; null while nothing is. */
  readerDeg: number().nullable(),
  /** Keep-lines, kept zones, kinds of hair, strays. */
  notes: core<SurfaceNotes>(),
  /** The keep-lines of the visit before; null at the first. */
  before: record({ visitId: text(), atMs: number(), lines: core<KeepLine[]>() })
    .nullable()
    .defined(),
  events: core<ChairEvent[]>(),
  chair: core<ChairState>(),
  care: core<CarePlan>().nullable(),
  /** Products used at this visit, by id. */
  products: y.array(text()).required(),
  photos: listOf(photoAnswer),
  /** What would be sent to the client, and when. */
  messages: listOf(messageAnswer),
  answers: core<SkinAnswer[]>(),
  hair: core<HairReading[]>(),
  /** The window of each job's next time; and the one that opens first. */
  windows: core<JobWindow[]>(),
  window: core<VisitWindow>().nullable(),
  /** Load given and hair left standing, mm, by zone; null before the end. */
  loads: core<Record<string, number>>().nullable(),
  leftMm: core<Record<string, number>>().nullable(),
  /** What happened to the skin at the chair; nothing before the end. */
  atChair: core<AtChair>(),
  /** Zones to look at after the service; those that were left out among them. */
  lookAt: y.array(text()).required(),
  /** What the gate knows besides the visit itself. */
  facts: core<GateFacts>(),
  /** Until when the client may answer on a link page; null when no link is out. */
  linkUntilMs: maybe(),
})

/** A link page for a client. */
export const answerLinkAnswer = record({ url: text(), expiresAtMs: number() })

/** A client's finished visits as comparing needs them, oldest first, and what was looked at after each. */
export const clientHistoryAnswer = record({
  visits: core<VisitFacts[]>(),
  looks: listOf(record({ visitId: text(), answer: core<SkinAnswer>() })),
})

/** All clients' finished visits, for learning over the studio. */
/** What is learned of all clients; null while so many of so many are still gone through. */
export const studioAnswer = record({
  left: number(),
  of: number(),
  learned: core<StudioLearned>().nullable(),
})

/** Clients brought in together. */
export const importAnswer = record({
  id: text(),
  atMs: number(),
  source: text(),
  clients: number(),
  undoneAtMs: maybe(),
})

export const importUndoneAnswer = record({
  removed: number(),
  /** Clients who have had visits since: they stay. */
  kept: y.array(text()).required(),
})

export const chairAnswer = record({
  state: core<ChairState>(),
  /** The event's place in the service. */
  seq: number(),
  /** True when the event was already stored. */
  repeated: yes(),
})

/** What the probe shows, and the same put right by its calibration. */
export const probeAnswer = record({
  atMs: number(),
  rawC: number(),
  tempC: number(),
  withinC: number(),
})

/** What happened to blades, newest first. */
export const kitLogAnswer = record({
  events: core<(KitEvent & { client: string })[]>(),
  /** Blades put away so far, by blade and why. */
  counts: listOf(
    record({ bladeId: one(BLADE_IDS), opened: number(), failed: number(), put: number() }),
  ),
})

export const todayRowAnswer = record({
  client: record({ id: text(), name: text(), occupation: text() }).required(),
  service: one(SERVICE_IDS),
  visitId: y.string().nullable().defined(),
  slotAtMs: maybe(),
  /** Minutes by which their hour of today will begin late; null where it will not. */
  lateMin: maybe(),
  /** End of the last service. */
  lastAtMs: maybe(),
  curve: core<TideCurve>(),
  window: record({ fromMs: number(), toMs: number() }).nullable().defined(),
  /** Odds that hair is seen by the window's end. */
  seenByEnd: maybe(),
  /** The client's telephone, for asking how it went. */
  phone: text(),
  dueMs: number(),
  flags: core<TodayFlag[]>(),
})

export const todayAnswer = record({
  nowMs: number(),
  /** Clients whose severe answer nobody has looked into. */
  alarms: number(),
  fromMs: number(),
  untilMs: number(),
  rows: listOf(todayRowAnswer),
  /** Clients in all, and how many were on earlier pages. */
  total: number(),
  from: number(),
  answersOwed: number(),
  patchTestsToRead: number(),
  /** Those who are still to come, begin late, and were not told. */
  lateToTell: number(),
  firstVisits: number(),
  /** What is wrong with the backups; null while all is well. */
  safety: y.string().nullable().defined(),
})

const somebody = record({ id: text(), name: text() })

export const sessionAnswer = record({
  /** `open`: nobody signs in, at this machine alone; `demo`: the demo signs in by itself. */
  mode: one(SESSION_MODES),
  house: text(),
  nowMs: number(),
  worker: record({ id: text(), name: text(), rank: one(RANKS) })
    .nullable()
    .defined(),
  /** False on another machine's screen that was not let in yet. */
  letIn: yes(),
  /** A screen that only shows. */
  wall: yes(),
  /** What is typed is asked for again. */
  locked: yes(),
  /** Who may sign in here. */
  workers: listOf(somebody),
  /** Figures to try the demo with, by worker; none in a studio. */
  demoSecrets: core<Record<string, string>>(),
  idleMinutes: number(),
})

export const peopleAnswer = record({
  people: listOf(
    record({
      id: text(),
      name: text(),
      role: text(),
      rank: one(RANKS),
      signsIn: yes(),
      gone: yes(),
      sessions: number(),
    }),
  ),
})

export const screensAnswer = record({
  /** Whether other machines can reach this one at all. */
  lan: record({ url: text(), trustUrl: text(), fingerprint: text() }).nullable().defined(),
  screens: listOf(
    record({
      id: text(),
      name: text(),
      kind: one(SCREEN_KINDS),
      pairedAtMs: number(),
      seenAtMs: maybe(),
      takenBackAtMs: maybe(),
    }),
  ),
  pairing: record({ code: text(), url: text(), qr: text(), name: text(), untilMs: number() })
    .nullable()
    .defined(),
})

export const pairedAnswer = record({ name: text(), kind: one(SCREEN_KINDS) })

export const wallAnswer = record({
  running: listOf(record({ visitId: text(), clientId: text(), name: text(), worker: text() })),
})

export const trailAnswer = record({
  rows: listOf(
    record({
      seq: number(),
      atMs: number(),
      worker: text(),
      screen: text(),
      use: text(),
      what: text(),
      clientId: y.string().nullable().defined(),
      /** Null of one who was erased. */
      client: y.string().nullable().defined(),
    }),
  ),
  more: yes(),
  whole: yes(),
})

const workAnswer = record({ what: one(SAFETY_WORKS), part: text(), done: number() })

export const safetyAnswer = record({
  demo: yes(),
  dataDir: text(),
  folder: text(),
  second: y.string().nullable().defined(),
  /** Folders on other disks that a second copy could go to. */
  otherDisks: y.array(text()).required(),
  /** True when every copy lies on the disk of the data. */
  sameDisk: yes(),
  /** Whether backups are locked with a passphrase. */
  locked: yes(),
  working: workAnswer.nullable().defined(),
  failure: record({ what: one(SAFETY_WORKS), atMs: number(), problem: text() })
    .nullable()
    .defined(),
  lastAtMs: maybe(),
  provenAtMs: maybe(),
  /** When the next night's is due. */
  nextAtMs: number(),
  backups: listOf(
    record({
      name: text(),
      madeAtMs: number(),
      why: one(BACKUP_WHYS),
      bytes: number(),
      clients: number(),
      visits: number(),
      provenAtMs: maybe(),
      problem: y.string().nullable().defined(),
      onSecond: yes(),
    }),
  ),
})

export const clientRowAnswer = record({
  id: text(),
  name: text(),
  calledName: text(),
  occupation: text(),
  phone: text(),
  email: text(),
  service: one(SERVICE_IDS),
  visits: number(),
  lastAtMs: maybe(),
  dueFromMs: maybe(),
  dueToMs: maybe(),
})

/** RFC 9457 problem details, with a code and what was kept. */
export const problemAnswer = record({
  type: text(),
  title: text(),
  status: number(),
  detail: text(),
  code: text(),
  /** The number of the write that was refused, as it was sent. */
  write: y.string().optional(),
  errors: y.array(record({ path: text(), message: text() }).required()).optional(),
})

export const erasedAnswer = record({ erased: y.boolean<true>().oneOf([true]).required() })
export const removedAnswer = record({ removed: y.boolean<true>().oneOf([true]).required() })
export const careAnswer = core<CarePlan>().nullable()
/** A form of its own: a calendar, a table of readings. */
export const textAnswer = y.string().required()
/** A page of clients, and how many there are in all. */
export const clientRowsAnswer = record({ rows: listOf(clientRowAnswer), total: number() })
export const knownClientsAnswer = listOf(record({ name: text(), phone: text(), email: text() }))
export const messagesAnswer = listOf(messageAnswer)
export const importsAnswer = listOf(importAnswer)
