/** The pages of one hour: their own link, or the part of a link page that tells of the client's next hour. */
import type { RequestHandler, Response, Router } from 'express'
import type { BookedRow } from '../../contract/week.ts'
import { longDate, timeWords } from '../../core/time/index.ts'
import { hostile } from '../../contract/keys.ts'
import type { Database } from '../db/connection.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { sendPage } from '../http/headers.ts'
import {
  actOnHour,
  answerable,
  lateCancel,
  nextHourOf,
  type OtherHour,
  otherHours,
} from '../week/clientDesk.ts'
import { readAppointment } from '../week/book.ts'
import { calledOf, workerCalled } from '../week/hourMessages.ts'
import { offerSeen, takeOffer } from '../week/offers.ts'
import {
  cancelledPage,
  hourPage,
  hourPart,
  type HourShown,
  noHourPage,
  offerPage,
  otherPage,
} from './hourPages.ts'
import { visitOfToken } from './links.ts'
import { closedPage } from './page.ts'
import { digestOf, isToken } from './tokens.ts'

interface HourLink {
  readonly clientId: string
  readonly appointmentId: string | null
  readonly offerId: string | null
}

/** What a token opens; undefined for one that never was, is over, or was taken back: no page tells which. */
async function linkOf(db: Reads, token: string): Promise<HourLink | undefined> {
  if (!isToken(token)) return undefined
  const [row] = await db.select<HourLink>(
    'SELECT clientId, appointmentId, offerId FROM hour_links WHERE digest = ? AND takenBackAtMs IS NULL AND expiresAtMs > ?',
    [digestOf(token), Date.now()],
  )
  return row
}

async function shownOf(
  db: Database,
  a: BookedRow,
  action: string,
  more: Pick<HourShown, 'said' | 'problem'> = {},
): Promise<HourShown> {
  const house = await readHouse(db)
  const lateHours = await lateCancel(db, a)
  return {
    ...{ house: house.name, phone: house.settings.phone, action },
    name: await calledOf(db, a.clientId),
    ...{ startMs: a.startMs, minutes: a.minutes, worker: workerCalled(house, a.workerId) },
    confirmed: a.state === 'confirmed',
    ...{ ...more, lateHours },
  }
}

/** The part of another page that tells of the client's next hour; empty where there is none. */
export async function hourPartOf(db: Database, clientId: string, action: string): Promise<string> {
  const a = await nextHourOf(db, clientId)
  return answerable(a) ? hourPart(await shownOf(db, a, action)) : ''
}

/** What a form asks; undefined for what no form of ours sends. */
function actOf(body: unknown): 'confirm' | 'cancel' | 'take' | OtherHour | undefined {
  if (typeof body !== 'object' || body === null || hostile(body)) return undefined
  const { act, hour } = body as Record<string, unknown>
  if (act === 'confirm' || act === 'cancel' || act === 'take') return act
  const [, ms, workerId] = /^(\d{12,14})\|([0-9a-f-]{36})$/.exec(String(hour)) ?? []
  return act === 'move' && ms !== undefined
    ? { startMs: Number(ms), workerId: workerId! }
    : undefined
}

interface Door {
  /** What a form goes through before it is read. */
  readonly form: readonly RequestHandler[]
  /** Under which address clients find such pages. */
  readonly baseFor: (response: Response) => string
}

export function hourRoutes(router: Router, db: Database, { form, baseFor }: Door): void {
  /** The page for an hour, or that there is none. */
  const show = async (
    response: Response,
    a: BookedRow | undefined,
    action: string,
    more: Pick<HourShown, 'said' | 'problem'> = {},
  ) => {
    if (answerable(a)) return sendPage(response, hourPage(await shownOf(db, a, action, more)))
    const house = await readHouse(db)
    sendPage(response.status(404), noHourPage(house.name, house.settings.phone))
  }
  const showOthers = async (
    response: Response,
    a: BookedRow | undefined,
    action: string,
    problem?: string,
  ) => {
    if (!answerable(a)) return show(response, a, action)
    const house = await readHouse(db)
    const hours = (await otherHours(db, a)).map((h) => ({
      ...h,
      worker: workerCalled(house, h.workerId),
    }))
    sendPage(response, otherPage({ ...(await shownOf(db, a, action, { problem })), hours }))
  }
  const doAct = async (
    response: Response,
    a: BookedRow | undefined,
    action: string,
    body: unknown,
  ): Promise<void> => {
    const act = actOf(body)
    if (!answerable(a)) return show(response, a, action)
    if (act === undefined || act === 'take') {
      response.status(422)
      const words = 'The form was changed on its way. Nothing was changed; choose again.'
      return show(response, a, action, { problem: words })
    }
    const { now, why } = await actOnHour(db, a, act, baseFor(response))
    if (why !== undefined) {
      response.status(409)
      return typeof act === 'string'
        ? show(response, now, action, { problem: why })
        : showOthers(response, now, action, why)
    }
    if (act === 'cancel') {
      const house = await readHouse(db)
      return sendPage(response, cancelledPage(house.name, house.settings.phone, a.startMs))
    }
    const said =
      act === 'confirm'
        ? 'Thank you: the studio knows that you come.'
        : `It is yours: ${longDate(now.startMs)}, ${timeWords(now.startMs)}. The other hour is given back.`
    return show(response, now, action, { said })
  }
  const showOffer = async (
    response: Response,
    { clientId, offerId }: HourLink,
    action: string,
    problem?: string,
  ) => {
    const [house, offer, name] = await Promise.all([
      readHouse(db),
      offerSeen(db, offerId!, clientId),
      calledOf(db, clientId),
    ])
    if (!offer) return sendPage(response.status(404), closedPage())
    const worker = workerCalled(house, offer.workerId)
    const shown = { house: house.name, phone: house.settings.phone, name, action, worker, offer }
    sendPage(response, offerPage({ ...shown, problem }))
  }

  // A link of its own: one hour, or an offer.
  router.get<{ token: string }>('/hour/:token', async (request, response) => {
    const { token } = request.params
    const link = await linkOf(db, token)
    if (!link) return sendPage(response.status(404), closedPage())
    if (link.offerId !== null) return showOffer(response, link, `/hour/${token}`)
    return show(response, await readAppointment(db, link.appointmentId!), `/hour/${token}`)
  })
  router.get<{ token: string }>('/hour/:token/other', async (request, response) => {
    const { token } = request.params
    const link = await linkOf(db, token)
    if (!link || link.appointmentId === null) return sendPage(response.status(404), closedPage())
    return showOthers(response, await readAppointment(db, link.appointmentId), `/hour/${token}`)
  })
  router.post<{ token: string }>('/hour/:token', ...form, async (request, response) => {
    const { token } = request.params
    const link = await linkOf(db, token)
    if (!link) return sendPage(response.status(404), closedPage())
    const action = `/hour/${token}`
    if (link.offerId === null)
      return doAct(response, await readAppointment(db, link.appointmentId!), action, request.body)
    if (actOf(request.body) !== 'take') {
      response.status(422)
      return showOffer(response, link, action, 'The form was changed on its way. Choose again.')
    }
    const { taken, why } = await takeOffer(db, link.offerId, link.clientId)
    if (!taken) response.status(409)
    return showOffer(response, link, action, taken ? undefined : why)
  })

  // The same for the client's next hour, from the page that asks after the skin.
  const clientOf = async (token: string) => (await visitOfToken(db, token))?.clientId
  router.get<{ token: string }>('/answer/:token/hour/other', async (request, response) => {
    const clientId = await clientOf(request.params.token)
    if (clientId === undefined) return sendPage(response.status(404), closedPage())
    const a = await nextHourOf(db, clientId)
    return showOthers(response, a, `/answer/${request.params.token}/hour`)
  })
  router.post<{ token: string }>('/answer/:token/hour', ...form, async (request, response) => {
    const clientId = await clientOf(request.params.token)
    if (clientId === undefined) return sendPage(response.status(404), closedPage())
    const a = await nextHourOf(db, clientId)
    return doAct(response, a, `/answer/${request.params.token}/hour`, request.body)
  })
}
