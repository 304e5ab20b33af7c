/** A client's history read from the database in a few queries, and what it teaches. */
import type { Figures } from '../../core/house/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { ServiceId } from '../../core/services/index.ts'
import { type ClientModel, learnClient } from '../../core/history/index.ts'
import type { HairReading, SkinAnswer } from '../../core/looks/index.ts'
import type { StudioSkin } from '../../core/skin/index.ts'
import type { VisitSummary } from '../../contract/types.ts'
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
  return { visits, answers: groupAnswers(given), hair, studio }
}

/** What a history teaches for a service. */
export function modelFrom(
  figures: Figures,
  history: History,
  skin: SkinAndHair,
  service: ServiceId,
): ClientModel {
  const past = history.visits
    .filter((v) => v.state === 'finished' && v.service === service)
    .map((v) => ({ v, answers: history.answers.get(v.id) ?? [], redAtChair: v.redAtChair() }))
    .filter((p) => p.answers.length > 0 || Object.keys(p.redAtChair).length > 0)
    .map(({ v, ...told }) => ({ endedAtMs: v.endedAtMs!, loads: v.loads(), ...told }))
  return learnClient(figures, skin, service, past, history.hair, history.studio)
}
