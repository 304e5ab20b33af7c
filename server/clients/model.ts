/** A client's history read from the database in a few queries, and what it teaches. */
import type { Figures, Schools } from '../../core/house/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import {
  byRoot,
  type Job,
  oneJob,
  type ServiceId,
  type Work,
  zonesOfJobs,
} from '../../core/services/index.ts'
import { type LeftByJob, sumLoads } from '../../core/history/index.ts'
import {
  type ClientModel,
  type ComesAgain,
  hiddenByHome,
  homeSince,
  type HomeWork,
  type KeptHair,
  learnClient,
  learnSkin,
  type LoadedService,
  notCutAtHome,
  clearAfter,
  readyAfter,
} from '../../core/history/index.ts'
import { type ClearOdds, seenClearMs, type SkinOf } from '../../core/regrowth/index.ts'
import type { SkinAnswer } from '../../core/looks/index.ts'
import { expectedOf, type StudioSkin } from '../../core/skin/index.ts'
import type { House, VisitSummary } from '../../contract/types.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { type AnswerColumns, groupAnswers, jobsLeft, readHair, toLeft } from '../visits/record.ts'
import { studioSkin } from '../studio/skin.ts'
import { readHome } from './readHome.ts'

/** Older visits say little about today's skin and cost time to read. */
const VISITS_READ = 60

/** A past or open visit, with what learning needs of it. */
export interface StoredVisit extends Omit<VisitSummary, 'jobs'> {
  /** Its jobs, and what each of them left. */
  readonly left: () => LeftByJob[]
  readonly redAtChair: () => Record<string, number>
}

export interface History {
  readonly clientId: string
  /** The service that the client comes for. */
  readonly usual: ServiceId
  /** Newest first. */
  readonly visits: readonly StoredVisit[]
  /** Answers of the latest visits, by visit. */
  readonly answers: ReadonlyMap<string, SkinAnswer[]>
  readonly hair: readonly KeptHair[]
  /** What was taken off at home, the latest first. */
  readonly home: readonly HomeWork[]
  /** What the studio has found for each kind of skin. */
  readonly studio: StudioSkin
}

interface HistoryColumns extends Omit<VisitSummary, 'jobs'> {
  jobs: Parameters<typeof toLeft>[0]
  red: Json<Record<string, number>> | null
}

/** Reads the latest visits of a client, the answers to them, and all readings of hair. */
export async function readHistory(db: Reads, clientId: string): Promise<History> {
  const [[client], rows, given, hair, home, studio] = await Promise.all([
    db.select<{ service: ServiceId }>('SELECT service FROM clients WHERE id = ?', [clientId]),
    db.select<HistoryColumns>(
      `SELECT id, service, state, slotAtMs, startedAtMs, endedAtMs, routine, worstRedness, bumps,
         ${jobsLeft('visits')} AS jobs, atChair ->> '$.redness' AS red
       FROM visits WHERE clientId = ? ORDER BY createdAtMs DESC LIMIT ?`,
      [clientId, VISITS_READ],
    ),
    db.select<AnswerColumns>(
      `SELECT visitId, moment, atMs, zones FROM skin_answers WHERE visitId IN
         (SELECT id FROM visits WHERE clientId = ? ORDER BY createdAtMs DESC LIMIT ?)`,
      [clientId, VISITS_READ],
    ),
    readHair(db, clientId),
    readHome(db, clientId),
    studioSkin(db),
  ])
  const visits = rows.map(({ jobs, red, ...r }): StoredVisit => ({
    ...r,
    // Most are never looked at: parsed when asked for.
    left: () => toLeft(jobs),
    redAtChair: () => json(red) ?? {},
  }))
  const usual = client?.service ?? 'face-shave'
  const answers = groupAnswers(given)
  return { clientId, usual, visits, answers, hair: notCutAtHome(hair, home), home, studio }
}

/** What is learned for: a blade's work teaches a blade's, what tears teaches of itself. */
export type LearnedFor = readonly Pick<Job, 'service' | 'method'>[]

/**
 * Past visits at which such a service was done, with what was told of each. Skin that was torn by wax or thread says nothing of
 * how it takes a blade, so its zones are not among them.
 */
const toldOf = (figures: Figures, history: History, jobs: LearnedFor) => {
  const services = new Set(jobs.map((j) => j.service))
  return history.visits
    .filter((v) => v.state === 'finished')
    .map((v) => ({ v, answers: history.answers.get(v.id) ?? [], redAtChair: v.redAtChair() }))
    .filter((p) => p.answers.length > 0 || Object.keys(p.redAtChair).length > 0)
    .map(({ v, ...told }) => ({ left: v.left(), endedAtMs: v.endedAtMs!, ...told }))
    .filter(({ left }) => left.some((j) => services.has(j.service)))
    .map(({ left, ...told }) => {
      const torn = left.filter((j) => byRoot(j.method) && j.method !== 'tweezers')
      const loads = sumLoads(left.filter((j) => !torn.includes(j)))
      for (const job of torn) for (const zone of Object.keys(job.loads ?? {})) delete loads[zone]
      for (const zone of hiddenByHome(figures, told.endedAtMs, history.home)) delete loads[zone]
      return { loads, ...told }
    })
}

/** What the studio’s others showed of such skin. */
export const othersOf = ({ studio, clientId }: History, { reactivity }: SkinAndHair) => ({
  mean: expectedOf(studio, { clientId, reactivity }),
  clients: studio.clients[reactivity],
})

/** What a client's model is learned for: what they come for, what is open now, and what was done last. */
function learnedNow({ usual, visits }: History): Work[] {
  const open = visits.find((v) => v.state !== 'finished')
  const last = visits.find((v) => v.state === 'finished')
  return [oneJob('usual', usual), ...(open?.left() ?? []), ...(last?.left() ?? [])]
}

/** The client's model as it stands: the screen and the server plan with the same. */
export function modelNow(figures: Figures, history: History, skin: SkinAndHair): ClientModel {
  const jobs = learnedNow(history)
  // Of the hair and skin of all that was done here lately, whatever is planned now.
  const done = history.visits.slice(0, LATELY).flatMap((v) => v.left())
  return modelFrom(figures, history, skin, jobs, zonesOfJobs([...jobs, ...done]))
}

/** Visits whose skin is told of in the model. */
const LATELY = 12

/** What a history teaches for some jobs. */
const modelFrom = (
  figures: Figures,
  history: History,
  skin: SkinAndHair,
  jobs: readonly Work[],
  zones: readonly ZoneId[],
): ClientModel =>
  learnClient(
    figures,
    skin,
    zones,
    toldOf(figures, history, jobs),
    history.hair,
    othersOf(history, skin),
  )

/** What a history teaches of the skin alone, for when to come again. */
export const skinFrom = (
  figures: Figures,
  history: History,
  skin: SkinAndHair,
  jobs: LearnedFor,
): SkinOf => learnSkin(figures, skin, toldOf(figures, history, jobs), othersOf(history, skin))

/** Whom a window is told to. */
export interface Comer {
  readonly id: string
  readonly skin: SkinAndHair
}

/** Who comes again, and where: as windows are told to everybody. */
export const comesAgain = (
  house: Pick<House, 'schools' | 'closed'>,
  { skin, schools }: { readonly skin: SkinAndHair; readonly schools: Partial<Schools> },
): ComesAgain => ({
  skin,
  schools: { ...house.schools, ...schools },
  closed: house.closed,
  offset: offsetHere,
})

/** How likely the skin of a client is clear after their last service of a kind, at any moment. */
export async function clearOf(
  db: Reads,
  figures: Figures,
  client: Comer,
  last: LoadedService,
): Promise<ClearOdds> {
  const history = await readHistory(db, client.id)
  const skin = skinFrom(figures, history, client.skin, [last])
  return clearAfter(figures, last, skin, history.home, client.skin.coarseness)
}

/**
 * From when the skin of a client is clear enough after their last service of a kind. What was seen clear needs no history; for
 * the rest it is read.
 */
export async function readyOf(
  db: Reads,
  figures: Figures,
  client: Comer,
  last: LoadedService | undefined,
): Promise<number> {
  if (!last) return 0
  const history = await readHistory(db, client.id)
  // What was seen clear needs no belief, unless something was done there since.
  const since = homeSince(history.home, last.endedAtMs)
  if (seenClearMs(last) !== undefined && since.length === 0) return last.endedAtMs
  return readyAfter(
    figures,
    last,
    skinFrom(figures, history, client.skin, [last]),
    history.home,
    client.skin.coarseness,
  )
}
