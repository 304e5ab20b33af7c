/** A client's history read from the database in a few queries, and what it teaches. */
import type { Figures, Schools } from '../../core/house/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { ServiceId } from '../../core/services/index.ts'
import {
  type ClientModel,
  type ComesAgain,
  learnClient,
  learnSkin,
  type LoadedService,
  readyAfter,
} from '../../core/history/index.ts'
import { seenClearMs, type SkinOf } from '../../core/regrowth/index.ts'
import type { HairReading, SkinAnswer } from '../../core/looks/index.ts'
import { expectedOf, type StudioSkin } from '../../core/skin/index.ts'
import type { House, VisitSummary } from '../../contract/types.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { type AnswerColumns, groupAnswers, readHair } from '../visits/record.ts'
import { studioSkin } from '../studio/skin.ts'

/** Older visits say little about today's skin and cost time to read. */
const VISITS_READ = 60

/** A past or open visit, with what learning needs of it. */
export interface StoredVisit extends VisitSummary {
  readonly loads: () => Record<string, number>
  readonly leftMm: () => Record<string, number> | null
  readonly redAtChair: () => Record<string, number>
}

export interface History {
  readonly clientId: string
  /** Newest first. */
  readonly visits: readonly StoredVisit[]
  /** Answers of the latest visits, by visit. */
  readonly answers: ReadonlyMap<string, SkinAnswer[]>
  readonly hair: readonly (HairReading & { leftMm: number })[]
  /** What the studio has found for each kind of skin. */
  readonly studio: StudioSkin
}

interface HistoryColumns extends VisitSummary {
  loads: Json<Record<string, number>> | null
  leftMm: Json<Record<string, number>> | null
  red: Json<Record<string, number>> | null
}

/** Reads the latest visits of a client, the answers to them, and all readings of hair. */
export async function readHistory(db: Reads, clientId: string): Promise<History> {
  const [rows, given, hair, studio] = await Promise.all([
    db.select<HistoryColumns>(
      `SELECT id, service, state, slotAtMs, startedAtMs, endedAtMs, routine, worstRedness, bumps, loads, leftMm,
         atChair ->> '$.redness' AS red
       FROM visits WHERE clientId = ? ORDER BY createdAtMs DESC LIMIT ?`,
      [clientId, VISITS_READ],
    ),
    db.select<AnswerColumns>(
      `SELECT visitId, moment, atMs, zones FROM skin_answers WHERE visitId IN
         (SELECT id FROM visits WHERE clientId = ? ORDER BY createdAtMs DESC LIMIT ?)`,
      [clientId, VISITS_READ],
    ),
    readHair(db, clientId),
    studioSkin(db),
  ])
  const visits = rows.map(({ loads, leftMm, red, ...r }): StoredVisit => ({
    ...r,
    // Most are never looked at: parsed when asked for.
    loads: () => json(loads) ?? {},
    leftMm: () => json(leftMm),
    redAtChair: () => json(red) ?? {},
  }))
  return { clientId, visits, answers: groupAnswers(given), hair, studio }
}

/** Past services of a kind with what was told of each. */
const toldOf = (history: History, service: ServiceId) =>
  history.visits
    .filter((v) => v.state === 'finished' && v.service === service)
    .map((v) => ({ v, answers: history.answers.get(v.id) ?? [], redAtChair: v.redAtChair() }))
    .filter((p) => p.answers.length > 0 || Object.keys(p.redAtChair).length > 0)
    .map(({ v, ...told }) => ({ endedAtMs: v.endedAtMs!, loads: v.loads(), ...told }))

const othersOf = ({ studio, clientId }: History, { reactivity }: SkinAndHair) => ({
  mean: expectedOf(studio, { clientId, reactivity }),
  clients: studio.clients[reactivity],
})

/** What a history teaches for a service. */
export const modelFrom = (
  figures: Figures,
  history: History,
  skin: SkinAndHair,
  service: ServiceId,
): ClientModel =>
  learnClient(
    figures,
    skin,
    service,
    toldOf(history, service),
    history.hair,
    othersOf(history, skin),
  )

/** What a history teaches of the skin alone, for when to come again. */
export const skinFrom = (
  figures: Figures,
  history: History,
  skin: SkinAndHair,
  service: ServiceId,
): SkinOf => learnSkin(figures, skin, toldOf(history, service), othersOf(history, skin))

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
  if (!last || seenClearMs(last) !== undefined) return last?.endedAtMs ?? 0
  const history = await readHistory(db, client.id)
  return readyAfter(figures, last, skinFrom(figures, history, client.skin, last.service))
}
