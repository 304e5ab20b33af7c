/** A visit that is opened, with what is there again of the last one. */
import type { BodyOf } from '../../contract/routes.ts'
import { DEFAULTS } from '../../core/house/index.ts'
import { NO_NOTES, type SurfaceNotes } from '../../core/hair/index.ts'
import type { LeftByJob } from '../../core/history/index.ts'
import { keptLines, moveOn, placeOn, standingOutlines } from '../../core/lines/index.ts'
import {
  carriedAnswers,
  carriedMarks,
  NOTHING_ASKED,
  type Asked,
} from '../../core/screening/index.ts'
import { leadJob } from '../../core/services/index.ts'
import { dateOf, offsetHere } from '../../core/time/index.ts'
import { atlas } from '../atlas.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'

/** Opens a visit of a client who has none that is unfinished. Part of a write. */
export async function openVisit(
  db: Database,
  clientId: string,
  body: BodyOf<'addVisit'>,
): Promise<void> {
  const [last] = await db.select<{ last: Json<LastVisit> }>(
    `SELECT json_object('asked', json(asked), 'notes', json(notes), 'service', service, 'endedAtMs', endedAtMs, 'jobs', json(jobs)) AS last
     FROM visits WHERE clientId = ? AND state = 'finished' ORDER BY endedAtMs DESC LIMIT 1`,
    [clientId],
  )
  await db.models.Visit.create({
    ...body,
    clientId,
    state: 'open',
    createdAtMs: Date.now(),
    ...carriedOver(last ? json(last.last) : null, leadJob(body.jobs).service),
  })
}

interface LastVisit {
  readonly asked: Asked
  readonly notes: SurfaceNotes
  readonly service: string
  readonly endedAtMs: number
  readonly jobs: readonly Pick<LeftByJob, 'trial'>[]
}

/**
 * What is there again at the next visit: marks, to be looked at once more; answers, asked only as "still so?"; the patch test
 * and the signature of the same service; lines, areas and kinds of hair as they were. Strays were tweezed, a trial strip is over.
 */
function carriedOver(
  before: LastVisit | null,
  service: string,
): {
  asked: Asked
  notes: SurfaceNotes
} {
  if (!before) return { asked: NOTHING_ASKED, notes: NO_NOTES }
  const { answers, spots, consent, patchTest, clinician } = before.asked
  const askedOn = dateOf(before.endedAtMs, offsetHere(before.endedAtMs))
  const same = before.service === service
  return {
    asked: {
      // A service that is new to the client is asked about as a first one again.
      answers: carriedAnswers(
        same ? answers : withoutFirst(answers),
        askedOn,
        before.jobs.some((j) => j.trial),
      ),
      spots: carriedMarks(spots),
      ...(same && consent && { consent }),
      ...(same && patchTest && { patchTest }),
      ...(clinician && { clinician }),
    },
    notes: {
      ...withoutLength(before.notes),
      lines: linesOnward(before.notes.lines),
      strays: [],
      ...(before.notes.outlines && {
        outlines: standingOutlines(
          before.notes.outlines.filter((o) => o.kind !== 'trial'),
          dateOf(Date.now(), offsetHere(Date.now())),
        ),
      }),
    },
  }
}

/** How long hair is now, and which side has more of it, is told anew at each visit. */
const withoutLength = ({ lengthMm: _was, heavier: _side, ...notes }: SurfaceNotes): SurfaceNotes =>
  notes

/** Lines as they stand at the next visit: one that is on its way goes a step, what was only thought of is over. */
function linesOnward(lines: SurfaceNotes['lines']): SurfaceNotes['lines'] {
  const kept = keptLines(lines)
  if (!kept.some((l) => l.move)) return kept
  const place = placeOn(atlas(DEFAULTS).surface())
  return kept.map((l) => moveOn(l, place, Date.now()))
}

function withoutFirst({ 'first-ever': _first, ...rest }: Asked['answers']): Asked['answers'] {
  return rest
}
