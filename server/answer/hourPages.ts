/** Pages for one hour in the book, as plain HTML without script: say that one comes, take another, cancel, take what came free. */
import { longDate, timeWords } from '../../core/time/index.ts'
import escape from 'escape-html'
import type { OtherHour } from '../week/clientDesk.ts'
import type { OfferSeen } from '../week/offers.ts'
import { frame } from './page.ts'

export interface HourShown {
  readonly house: string
  readonly name: string
  readonly phone: string
  /** Where the forms are sent. */
  readonly action: string
  readonly startMs: number
  readonly minutes: number
  readonly worker: string
  readonly confirmed: boolean
  /** What was done just now, or could not be. */
  readonly said?: string | undefined
  readonly problem?: string | undefined
  /** Cancelled now it counts as late: so many hours before. */
  readonly lateHours?: number | undefined
}

const at = (ms: number) => `${longDate(ms)}, ${timeWords(ms)}`
const ring = (phone: string) =>
  phone
    ? ` Or ring <a href="tel:${escape(phone.replace(/[^0-9+]/g, ''))}">${escape(phone)}</a>.`
    : ''
const says = (h: { said?: string | undefined; problem?: string | undefined }) =>
  `${h.said ? `<p role="status" class="care good">${escape(h.said)}</p>` : ''}${h.problem ? `<p role="alert" class="care">${escape(h.problem)}</p>` : ''}`
const one = (action: string, act: string, words: string, kind = '') =>
  `<form method="post" action="${escape(action)}"><input type="hidden" name="act" value="${act}"><button type="submit"${kind && ` class="${kind}"`}>${escape(words)}</button></form>`

/** The hour itself with what may be done: a page, or a part of another. */
export function hourPart(h: HourShown): string {
  const come = h.confirmed
    ? '<p>You have said that you come.</p>'
    : one(h.action, 'confirm', 'I come')
  return `<p class="hour"><b>${escape(at(h.startMs))}</b><br>about ${h.minutes} minutes, with ${escape(h.worker)}</p>
${says(h)}${come}
<form method="get" action="${escape(`${h.action}/other`)}"><button type="submit" class="plain">Another hour</button></form>
${one(h.action, 'cancel', 'Cancel it', 'plain')}
${h.lateHours === undefined ? '' : `<small>It is less than ${h.lateHours} hours until then: please cancel only if you must.</small>`}`
}

export const hourPage = (h: HourShown): string =>
  frame(
    `Your hour. ${h.house}`,
    `<p class="hint">${escape(h.house)}</p><h1>${h.name ? `Hello ${escape(h.name)}, your` : 'Your'} hour</h1>${hourPart(h)}<p class="hint">${ring(h.phone)}</p>`,
  )

/** Hours to choose among; by day. */
export function otherPage(
  h: HourShown & { readonly hours: readonly (OtherHour & { readonly worker: string })[] },
): string {
  const days = new Map<string, typeof h.hours>()
  for (const o of h.hours) {
    const day = longDate(o.startMs)
    days.set(day, [...(days.get(day) ?? []), o])
  }
  const list = [...days].map(
    ([day, hours]) =>
      `<fieldset><legend>${escape(day)}</legend><div class="rows">${hours
        .map(
          (o) =>
            `<label class="tap"><input type="radio" name="hour" value="${o.startMs}|${escape(o.workerId)}" required><span>${escape(timeWords(o.startMs))} with ${escape(o.worker)}</span></label>`,
        )
        .join('')}</div></fieldset>`,
  )
  const choose =
    list.length === 0
      ? `<p>No other hour of the next weeks suits by what is known.${ring(h.phone)}</p>`
      : `<p>These are free, and suit skin and hair.${ring(h.phone)}</p>
<form method="post" action="${escape(h.action)}"><input type="hidden" name="act" value="move">${list.join('')}<button type="submit">Take this hour</button></form>`
  return frame(
    `Another hour. ${h.house}`,
    `<p class="hint">${escape(h.house)}</p><h1>Another hour</h1><p>Now: <b>${escape(at(h.startMs))}</b>. It stays yours until you take another.</p>${says(h)}${choose}
<form method="get" action="${escape(h.action.replace(/\/hour$/, ''))}"><button type="submit" class="plain">Keep it as it is</button></form>`,
  )
}

export const cancelledPage = (house: string, phone: string, startMs: number): string =>
  frame(
    `Cancelled. ${house}`,
    `<p class="hint">${escape(house)}</p><h1>Cancelled</h1><p>Your hour on ${escape(at(startMs))} is free again. Thank you for telling us.${ring(phone)}</p>`,
  )

/** An hour that is over, or is kept no more. */
export const noHourPage = (house: string, phone: string): string =>
  frame(
    `Your hour. ${house}`,
    `<p class="hint">${escape(house)}</p><h1>Nothing to answer</h1><p>This hour is over, or it was cancelled.${ring(phone)}</p>`,
  )

export interface OfferShown {
  readonly house: string
  readonly name: string
  readonly phone: string
  readonly action: string
  readonly worker: string
  readonly offer: OfferSeen
  readonly problem?: string | undefined
}

export function offerPage({
  house,
  name,
  phone,
  action,
  worker,
  offer,
  problem,
}: OfferShown): string {
  const when = escape(at(offer.startMs))
  const head = `<p class="hint">${escape(house)}</p>`
  if (offer.state === 'yours')
    return frame(
      `It is yours. ${house}`,
      `${head}<h1>It is yours</h1><p class="hour"><b>${when}</b><br>with ${escape(worker)}</p><p>We look forward to it.</p>`,
    )
  if (offer.state === 'gone')
    return frame(
      `Gone. ${house}`,
      `${head}<h1>That hour is gone</h1><p>Somebody else was quicker. You stay on our list.${ring(phone)}</p>`,
    )
  return frame(
    `An hour came free. ${house}`,
    `${head}<h1>${name ? `Hello ${escape(name)}, an` : 'An'} hour came free</h1>
<p class="hour"><b>${when}</b><br>about ${offer.minutes} minutes, with ${escape(worker)}</p>
${problem ? `<p role="alert" class="care">${escape(problem)}</p>` : ''}
${offer.hasMs === null ? '' : `<p>You have ${escape(at(offer.hasMs))}; that hour is given back if you take this one.</p>`}
<p>Whoever takes it first has it.</p>${one(action, 'take', 'Take it')}<p class="hint">If it does not suit, do nothing.${ring(phone)}</p>`,
  )
}
