/** The tables as Sequelize models. JSON columns hold plain data of core's types. */
import type { Model } from 'sequelize'
import {
  DataTypes,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize'
import type { AtChair, Feeling, SkinSpot, ZoneAnswer } from '../../core/looks/index.ts'
import type { ChairDetail } from '../../core/chair/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import type { TestAnswer } from '../../core/grain/index.ts'
import { NO_NOTES, type SurfaceNotes } from '../../core/hair/index.ts'
import { type ClientText, eachText, type SkinAndHair } from '../../core/client.ts'
import type { Schools } from '../../core/house/index.ts'
import type { SecondLook } from '../../core/history/index.ts'
import type { FinishedJob } from '../../core/visit/index.ts'
import type { Job, ServiceId } from '../../core/services/index.ts'
import type { ClientEvent } from '../../core/ahead/index.ts'
import type { Vec3 } from '../../core/head/index.ts'
import type { WorkerHours } from '../../core/week/index.ts'

type Row<M extends Model> = Model<InferAttributes<M>, InferCreationAttributes<M>>

export interface WorkerRow extends Row<WorkerRow> {
  id: string
  name: string
  role: string
  hand: string
  level: CreationOptional<string>
  rank: CreationOptional<string>
  /** What they sign in with, as argon2id keeps it; null when they do not. */
  secret: CreationOptional<string | null>
  goneAtMs: CreationOptional<number | null>
  hours: CreationOptional<WorkerHours | null>
  services: CreationOptional<string[] | null>
}
export interface SettingRow extends Row<SettingRow> {
  key: string
  value: unknown
}
export interface ClientRecord
  extends Row<ClientRecord>, Record<ClientText, CreationOptional<string>> {
  id: string
  name: string
  service: ServiceId
  skin: SkinAndHair
  /** Schools that differ from the house's for this client. */
  schools: CreationOptional<Partial<Schools>>
  /** Events that services are laid out for. */
  events: CreationOptional<readonly ClientEvent[]>
  /** The import that brought them; null when entered by hand. */
  importId: CreationOptional<string | null>
  createdAtMs: number
}
export interface VisitRow extends Row<VisitRow> {
  id: string
  clientId: string
  workerId: string
  /** What is done, and what each job left; SQL reads the first off it as columns of their own. */
  jobs: readonly (Job | FinishedJob)[]
  state: string
  slotAtMs: number | null
  createdAtMs: number
  startedAtMs: CreationOptional<number | null>
  endedAtMs: CreationOptional<number | null>
  routine: CreationOptional<string>
  asked: Asked
  notes: CreationOptional<SurfaceNotes>
  /** What happened to the skin at the chair. */
  atChair: CreationOptional<AtChair | null>
  /** Worst redness that was seen, and bumps of days 2 to 14; null while nobody answered. */
  worstRedness: CreationOptional<number | null>
  bumps: CreationOptional<number | null>
  /** 1 when an answer or the chair told of something severe. */
  severe: CreationOptional<number>
  /** Ids of products used. */
  products: CreationOptional<string[]>
  /** Sums of the worst grades and of the loads, once answered. */
  gradeSum: CreationOptional<number | null>
  loadSum: CreationOptional<number | null>
  /** What it told of its worker's pace; null where it told nothing. */
  pace: CreationOptional<number | null>
  /** What its second look found: `SecondLook`; null where nobody looked. */
  misses: CreationOptional<SecondLook | null>
  /** What its map told of its reader: `ReaderSeen`; null where it told nothing. */
  readDeg: CreationOptional<number | null>
  readCount: CreationOptional<number | null>
  /** Minutes of the plan that was kept last. */
  planMin: CreationOptional<number | null>
  planBlades: CreationOptional<Readonly<Record<string, number>> | null>
}
export interface AppointmentRow extends Row<AppointmentRow> {
  id: string
  clientId: string
  visitId: CreationOptional<string | null>
  workerId: string
  startMs: number
  minutes: number
  /** While there is no visit. */
  jobs: readonly Job[]
  note: CreationOptional<string>
  state: string
  cancelledAtMs: CreationOptional<number | null>
  madeAtMs: number
  /** Counts its changes: who moves it says which they saw. */
  mark: CreationOptional<number>
  changedBy: CreationOptional<string>
}
export interface AwayRow extends Row<AwayRow> {
  id: string
  workerId: string | null
  fromMs: number
  toMs: number
  why: string
  source: CreationOptional<string>
}
export interface PlanRow extends Row<PlanRow> {
  visitId: string
  madeAtMs: number
  /** Packed (visits/planStore.ts). */
  plan: Buffer
}
export interface ReadingRow extends Row<ReadingRow> {
  id: string
  clientId: string
  visitId: string
  zoneId: string
  at: { point: Vec3; normal: Vec3; tangent: Vec3 }
  method: string
  atMs: number
  answers: CreationOptional<readonly TestAnswer[] | null>
  /** From this moment it no longer counts; null while it does. */
  goneAtMs: CreationOptional<number | null>
}
export interface EventRow extends Row<EventRow> {
  id: string
  visitId: string
  jobId: CreationOptional<string | null>
  seq: number
  kind: string
  atMs: number
  stepId: string | null
  reason: string | null
  screen: string
  n: number
  detail: CreationOptional<ChairDetail | null>
}
export interface KitEventRow extends Row<KitEventRow> {
  id: string
  visitId: string | null
  atMs: number
  kind: string
  bladeId: string
  strokes: number
  why: string
}
export interface PhotoRow extends Row<PhotoRow> {
  id: string
  visitId: string
  atMs: number
  width: number
  height: number
}
export interface MessageRow extends Row<MessageRow> {
  id: string
  clientId: string
  visitId: CreationOptional<string | null>
  appointmentId: CreationOptional<string | null>
  aboutMs: CreationOptional<number | null>
  kind: string
  subject: string
  text: string
  dueAtMs: number
  state: string
}
export interface SkinAnswerRow extends Row<SkinAnswerRow> {
  visitId: string
  moment: string
  atMs: number
  zones: readonly ZoneAnswer[]
  spots: CreationOptional<readonly SkinSpot[]>
  feeling: CreationOptional<Feeling>
  source: CreationOptional<string>
  toldAtMs: CreationOptional<number | null>
}
export interface HomeWorkRow extends Row<HomeWorkRow> {
  id: string
  clientId: string
  atMs: number
  zones: readonly string[]
  tool: string
  fresh: number
  dull: number
  source: string
  toldAtMs: number
}
export interface HairReadingRow extends Row<HairReadingRow> {
  id: string
  clientId: string
  visitId: string
  kind: string
  days: number
  zoneId: string | null
  lengthMm: number | null
  method: CreationOptional<string | null>
  leftMm: number
  /** 1 where the hair had come out by its root. */
  byRoot: CreationOptional<number>
  atMs: number
}
export interface DecisionRow extends Row<DecisionRow> {
  id: string
  visitId: string
  finding: string
  workerId: string
  workerName: string
  reason: string
  atMs: number
  takenBackAtMs: CreationOptional<number | null>
}
export interface ImportRow extends Row<ImportRow> {
  id: string
  atMs: number
  source: string
  clients: number
  undoneAtMs: CreationOptional<number | null>
}
export interface AnswerLinkRow extends Row<AnswerLinkRow> {
  /** SHA-256 of the token, hex. */
  digest: string
  visitId: string
  createdAtMs: number
  expiresAtMs: number
  takenBackAtMs: CreationOptional<number | null>
}

export interface ScreenRow extends Row<ScreenRow> {
  id: string
  name: string
  kind: string
  /** SHA-256 of what lets it in, hex. */
  digest: string
  pairedAtMs: number
  seenAtMs: CreationOptional<number | null>
  takenBackAtMs: CreationOptional<number | null>
}

export interface Models {
  Worker: ModelStatic<WorkerRow>
  Setting: ModelStatic<SettingRow>
  Client: ModelStatic<ClientRecord>
  Visit: ModelStatic<VisitRow>
  Appointment: ModelStatic<AppointmentRow>
  Away: ModelStatic<AwayRow>
  Plan: ModelStatic<PlanRow>
  Reading: ModelStatic<ReadingRow>
  Event: ModelStatic<EventRow>
  SkinAnswer: ModelStatic<SkinAnswerRow>
  HairReading: ModelStatic<HairReadingRow>
  HomeWork: ModelStatic<HomeWorkRow>
  KitEvent: ModelStatic<KitEventRow>
  Photo: ModelStatic<PhotoRow>
  Message: ModelStatic<MessageRow>
  Import: ModelStatic<ImportRow>
  AnswerLink: ModelStatic<AnswerLinkRow>
  Decision: ModelStatic<DecisionRow>
  Screen: ModelStatic<ScreenRow>
}

const text = { type: DataTypes.TEXT, allowNull: false }
const number = { type: DataTypes.INTEGER, allowNull: false }
const maybeText = { type: DataTypes.TEXT }
const maybeNumber = { type: DataTypes.INTEGER }
const json = { type: DataTypes.JSON, allowNull: false }
const maybeReal = { type: DataTypes.FLOAT }
const maybeJson = { type: DataTypes.JSON }
const key = { type: DataTypes.TEXT, primaryKey: true }

/** Defines the models on a connection. */
export function defineModels(sequelize: Sequelize): Models {
  const table = <M extends Model>(name: string, tableName: string, columns: object) => {
    // Sequelize writes the field's name into each definition, so none may be shared.
    const own = Object.fromEntries(Object.entries(columns).map(([k, v]) => [k, { ...v }]))
    return sequelize.define(name, own as never, {
      tableName,
      timestamps: false,
    }) as unknown as ModelStatic<M>
  }
  return {
    Worker: table<WorkerRow>('Worker', 'workers', {
      id: key,
      name: text,
      role: text,
      hand: text,
      level: { ...text, defaultValue: 'practised' },
      rank: { ...text, defaultValue: 'worker' },
      secret: maybeText,
      goneAtMs: maybeNumber,
      hours: maybeJson,
      services: maybeJson,
    }),
    Setting: table<SettingRow>('Setting', 'settings', { key, value: json }),
    Client: table<ClientRecord>('Client', 'clients', {
      id: key,
      name: text,
      ...eachText(() => ({ ...text, defaultValue: '' })),
      service: text,
      skin: json,
      schools: { ...json, defaultValue: {} },
      events: { ...json, defaultValue: [] },
      importId: maybeText,
      createdAtMs: number,
    }),
    Visit: table<VisitRow>('Visit', 'visits', {
      id: key,
      clientId: text,
      workerId: text,
      jobs: json,
      state: text,
      slotAtMs: maybeNumber,
      createdAtMs: number,
      startedAtMs: maybeNumber,
      endedAtMs: maybeNumber,
      routine: { ...text, defaultValue: '' },
      asked: json,
      notes: { ...json, defaultValue: NO_NOTES },
      atChair: maybeJson,
      worstRedness: maybeNumber,
      bumps: maybeNumber,
      severe: { ...number, defaultValue: 0 },
      products: { ...json, defaultValue: [] },
      gradeSum: maybeReal,
      loadSum: maybeReal,
      pace: maybeReal,
      misses: maybeJson,
      readDeg: maybeReal,
      readCount: maybeReal,
      planMin: maybeReal,
      planBlades: maybeJson,
    }),
    Appointment: table<AppointmentRow>('Appointment', 'appointments', {
      ...{ id: key, clientId: text, visitId: maybeText, workerId: text },
      ...{ startMs: number, minutes: number, jobs: { ...json, defaultValue: [] } },
      ...{ note: { ...text, defaultValue: '' }, state: text, cancelledAtMs: maybeNumber },
      ...{ madeAtMs: number, mark: { ...number, defaultValue: 1 } },
      changedBy: { ...text, defaultValue: '' },
    }),
    Away: table<AwayRow>('Away', 'away', {
      ...{ id: key, workerId: maybeText, fromMs: number, toMs: number, why: text },
      source: { ...text, defaultValue: 'hand' },
    }),
    Plan: table<PlanRow>('Plan', 'plans', {
      visitId: key,
      madeAtMs: number,
      plan: { type: DataTypes.BLOB, allowNull: false },
    }),
    Reading: table<ReadingRow>('Reading', 'readings', {
      id: key,
      clientId: text,
      visitId: text,
      zoneId: text,
      at: json,
      method: text,
      atMs: number,
      answers: maybeJson,
      goneAtMs: maybeNumber,
    }),
    Event: table<EventRow>('Event', 'chair_events', {
      id: key,
      visitId: text,
      jobId: maybeText,
      seq: number,
      kind: text,
      atMs: number,
      stepId: maybeText,
      reason: maybeText,
      screen: text,
      n: number,
      detail: maybeJson,
    }),
    KitEvent: table<KitEventRow>('KitEvent', 'kit_events', {
      id: key,
      visitId: maybeText,
      atMs: number,
      kind: text,
      bladeId: text,
      strokes: number,
      why: text,
    }),
    Photo: table<PhotoRow>('Photo', 'photos', {
      id: key,
      visitId: text,
      atMs: number,
      width: number,
      height: number,
    }),
    Message: table<MessageRow>('Message', 'messages', {
      id: key,
      clientId: text,
      visitId: maybeText,
      appointmentId: maybeText,
      aboutMs: maybeNumber,
      kind: text,
      subject: text,
      text,
      dueAtMs: number,
      state: text,
    }),
    SkinAnswer: table<SkinAnswerRow>('SkinAnswer', 'skin_answers', {
      visitId: key,
      moment: key,
      atMs: number,
      zones: json,
      spots: { ...json, defaultValue: [] },
      feeling: { ...json, defaultValue: {} },
      source: { ...text, defaultValue: 'seen' },
      toldAtMs: maybeNumber,
    }),
    HomeWork: table<HomeWorkRow>('HomeWork', 'home_work', {
      id: key,
      clientId: text,
      atMs: number,
      zones: json,
      tool: text,
      fresh: number,
      dull: number,
      source: text,
      toldAtMs: number,
    }),
    HairReading: table<HairReadingRow>('HairReading', 'hair_readings', {
      id: key,
      clientId: text,
      visitId: text,
      kind: text,
      days: { type: DataTypes.FLOAT, allowNull: false },
      zoneId: maybeText,
      lengthMm: { type: DataTypes.FLOAT },
      method: maybeText,
      leftMm: { type: DataTypes.FLOAT, allowNull: false },
      byRoot: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      atMs: number,
    }),
    Import: table<ImportRow>('Import', 'imports', {
      id: key,
      atMs: number,
      source: text,
      clients: number,
      undoneAtMs: maybeNumber,
    }),
    AnswerLink: table<AnswerLinkRow>('AnswerLink', 'answer_links', {
      digest: key,
      visitId: text,
      createdAtMs: number,
      expiresAtMs: number,
      takenBackAtMs: maybeNumber,
    }),
    Decision: table<DecisionRow>('Decision', 'decisions', {
      id: key,
      visitId: text,
      finding: text,
      workerId: text,
      workerName: text,
      reason: text,
      atMs: number,
      takenBackAtMs: maybeNumber,
    }),
    Screen: table<ScreenRow>('Screen', 'screens', {
      ...{ id: key, name: text, kind: text, digest: text, pairedAtMs: number },
      ...{ seenAtMs: maybeNumber, takenBackAtMs: maybeNumber },
    }),
  }
}
