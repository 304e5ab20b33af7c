/**
 * Link pages: a client answers for one visit without being let in to anything else. The token is 256 random bits; only its
 * digest is kept, and it opens until a day.
 */
import { readFigures } from '../house/service.ts'
import { FOLLOW_CONSTANTS } from '../../core/looks/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import type { AnswerLink, VisitPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem } from '../http/problem.ts'
import { visitPage } from '../visits/page.ts'
import { readVisit, type VisitRecord } from '../visits/record.ts'
import { digestOf, isToken, newToken } from './tokens.ts'

/** Where the link stands in a message, so that a new one takes the place of the old. */
const LINE = /\nOr answer in a minute here: \S+\n/

/**
 * Makes a link for a finished visit, puts it into the questions of its outbox, and tells it once.
 * @throws HttpProblem 409 `not-finished`, `link-too-late`
 */
export async function addLink(db: Database, visitId: string, base: string): Promise<AnswerLink> {
  const token = newToken()
  const url = `${base}/answer/${token}`
  const expiresAtMs = await db.write(async () => {
    const visit = await readVisit(db, visitId)
    if (visit.endedAtMs === null) {
      throw new HttpProblem(
        409,
        'not-finished',
        'The service is not finished yet: there is nothing to ask about.',
      )
    }
    const figures = await readFigures(db)
    const until = visit.endedAtMs + figures(FOLLOW_CONSTANTS.linkDays) * DAY_MS
    if (until <= Date.now()) {
      throw new HttpProblem(
        409,
        'link-too-late',
        'That service is too long ago for a link. Ask by telephone, or look at the next visit.',
      )
    }
    await db.models.AnswerLink.create({
      digest: digestOf(token),
      visitId,
      createdAtMs: Date.now(),
      expiresAtMs: Math.round(until),
    })
    for (const m of visit.messages.filter((x) => x.state === 'waiting' && x.kind === 'question')) {
      const line = `\nOr answer in a minute here: ${url}\n`
      const text = LINE.test(m.text) ? m.text.replace(LINE, line) : `${m.text}\n${line}`
      await db.models.Message.update({ text }, { where: { id: m.id } })
    }
    return Math.round(until)
  })
  return { url, expiresAtMs }
}

/** Takes every link of a visit back: none opens any more. */
export async function takeBackLinks(db: Database, visitId: string): Promise<VisitPage> {
  await db.write(async () => {
    const visit = await readVisit(db, visitId)
    await db.models.AnswerLink.update(
      { takenBackAtMs: Date.now() },
      { where: { visitId, takenBackAtMs: null } },
    )
    for (const m of visit.messages.filter((x) => LINE.test(x.text))) {
      await db.models.Message.update({ text: m.text.replace(LINE, '\n') }, { where: { id: m.id } })
    }
  })
  return visitPage(db, visitId)
}

/** The visit that a token opens; undefined for one that never was, is over, or was taken back: no page tells which. */
export async function visitOfToken(db: Database, token: string): Promise<VisitRecord | undefined> {
  if (!isToken(token)) return undefined
  const [row] = await db.select<{ visitId: string }>(
    'SELECT visitId FROM answer_links WHERE digest = ? AND takenBackAtMs IS NULL AND expiresAtMs > ?',
    [digestOf(token), Date.now()],
  )
  return row && readVisit(db, row.visitId)
}
