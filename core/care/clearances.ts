/** What to keep off and until when (M15), from the end of a service, the schools, the client's skin and what was put on it. */
import { constant, type Mark, type Figures, schoolWords, type Schools } from '../house/index.ts'
import { NOTHING_AT_CHAIR, type AtChair, askedMoments, type UsualMoment } from '../looks/index.ts'
import type { SkinAndHair } from '../client.ts'
import { SERVICES, type ServiceId } from '../services/index.ts'
import { HOUR_MS } from '../time/index.ts'
import { placesWords, todaySentences } from './careWords.ts'
import type { Product } from './products.ts'

export const CARE_CONSTANTS = {
  sunHours: constant(48, 'h', 'Keep out of strong sun', 'H'),
  sunFuzzHours: constant(72, 'h', 'Keep out of strong sun after dermaplaning', 'H'),
  sunAcidHours: constant(168, 'h', 'Keep out of strong sun after an acid', 'H'),
  sweatHours: constant(24, 'h', 'No hard exercise, sauna or hot bath', 'H'),
  swimHours: constant(24, 'h', 'No pool or sea', 'H'),
  swimNickHours: constant(48, 'h', 'No pool or sea after a nick', 'H'),
  swimLongNickHours: constant(96, 'h', 'No pool or sea after a long nick', 'H'),
  longNickMm: constant(5, 'mm', 'A nick from this length on is long', 'H'),
  coverHours: constant(24, 'h', 'A long nick is kept dry and covered', 'H'),
  nickBladeDays: constant(7, 'days', 'No blade over a long nick', 'H'),
  maskHours: constant(12, 'h', 'No tight mask or strap on the area', 'H'),
  makeUpRazorHours: constant(4, 'h', 'No make-up after a razor shave', 'H'),
  acidEveningHours: constant(8, 'h', 'Acid from the same evening begins after this', 'H'),
  acidStartHours: constant(24, 'h', 'Nightly acid begins after this', 'C'),
  acidAtMostDays: constant(7, 'days', 'Nightly acid or brushing, at most until', 'H'),
  acidRazorHours: constant(24, 'h', 'No acids after a razor shave', 'H'),
  acidAgainHours: constant(72, 'h', 'No second acid after one was put on', 'H'),
  touchHours: constant(6, 'h', 'Hands off', 'H'),
  reactiveTimes: constant(
    1.5,
    '',
    'Reactive skin keeps off sun, sweat and water this much longer',
    'H',
  ),
  normalHours: constant(1, 'h', 'Slight redness right after is normal for about this', 'C'),
  burnFromHours: constant(2, 'h', 'Burning that begins this late or later is told to us', 'H'),
  watchDays: constant(3, 'days', 'Burn and infection show within this', 'H'),
  reddenedHours: constant(48, 'h', 'Nothing but plain balm where skin reddened', 'H'),
} as const

const C = CARE_CONSTANTS

/** Something to keep off, to do, to expect, or to watch for. */
export interface Clearance {
  readonly id: string
  readonly title: string
  readonly text: string
  readonly kind: 'avoid' | 'do' | 'normal' | 'watch'
  readonly fromMs: number
  readonly untilMs: number
  readonly mark: Mark
  /** The moment whose answer it asks for. */
  readonly asks?: UsualMoment
}

/** What goes home: dated. */
export interface CarePlan {
  readonly endedAtMs: number
  /** What happened at the service that the client should know, in sentences; often nothing. */
  readonly today: readonly string[]
  readonly clearances: readonly Clearance[]
  /** Plain sentences without a date. */
  readonly normal: string
  readonly notNormal: string
  readonly product: string
}

/** What happened at the service, as far as the aftercare hangs on it. */
export interface CareFacts {
  /** Products that were used. */
  readonly products?: readonly Product[] | undefined
  /** What reddened, was nicked and was left out. */
  readonly atChair?: AtChair | undefined
  /** In the first sessions: what is common there is said to nobody else. */
  readonly newcomer?: boolean | undefined
  /** When hair shows again, ms; exfoliating ends there. */
  readonly hairShowsMs?: number | undefined
}

/** What the aftercare of one service hangs on, worked out once. */
interface CareCase {
  readonly figures: Figures
  readonly service: ServiceId
  readonly client: SkinAndHair
  readonly schools: Schools
  readonly endedAtMs: number
  readonly fuzz: boolean
  /** Reactive skin keeps off sun, sweat and water this much longer, and is told so. */
  readonly longer: number
  readonly skinSays: string
  readonly acidOn: Product | undefined
  readonly nicked: boolean
  /** Places of nicks that are long. */
  readonly longNicks: readonly string[]
  /** Zones that reddened. */
  readonly red: readonly string[]
  readonly hairShowsMs: number | undefined
  readonly newcomer: boolean
  readonly put: (
    kind: Clearance['kind'],
    id: string,
    title: string,
    fromHours: number,
    untilHours: number,
    text: string,
    mark: Mark,
    asks?: UsualMoment,
  ) => void
  readonly avoid: (id: string, title: string, hours: number, text: string, mark: Mark) => void
}

/** Builds the aftercare of a service that ended at `endedAtMs`, in order of when each thing ends. */
export function carePlan(
  figures: Figures,
  service: ServiceId,
  client: SkinAndHair,
  schools: Schools,
  noFragrance: boolean,
  endedAtMs: number,
  facts: CareFacts = {},
): CarePlan {
  const list: Clearance[] = []
  const put: CareCase['put'] = (kind, id, title, fromHours, untilHours, text, mark, asks) => {
    if (untilHours <= fromHours) return
    const at = (hours: number) => Math.round(endedAtMs + hours * HOUR_MS)
    list.push({
      ...{ id, title, text, kind, mark },
      ...{ fromMs: at(fromHours), untilMs: at(untilHours) },
      ...(asks && { asks }),
    })
  }
  const { atChair = NOTHING_AT_CHAIR, products = [], hairShowsMs, newcomer = false } = facts
  const longer = client.reactivity === 'reactive' ? figures(C.reactiveTimes) : 1
  const it: CareCase = {
    ...{ figures, service, client, schools, endedAtMs, hairShowsMs, longer, newcomer, put },
    fuzz: SERVICES[service].family === 'fuzz',
    skinSays: longer > 1 ? ' Longer for reactive skin.' : '',
    acidOn: products.find((p) => p.use !== 'home' && p.holds.includes('acid')),
    nicked: Object.keys(atChair.nicks).length > 0,
    longNicks: longNicks(figures, atChair),
    red: Object.keys(atChair.redness),
    avoid: (id, title, hours, text, mark) => put('avoid', id, title, 0, hours, text, mark),
  }
  fromTouch(it)
  fromWater(it)
  fromNicks(it)
  fromProducts(it)
  toDo(it)
  toWatch(it)
  list.sort((a, b) => a.untilMs - b.untilMs)
  return {
    endedAtMs,
    today: todaySentences(atChair),
    clearances: list,
    normal: `Slight redness for about an hour is normal. On brown and black skin it shows as a darker or violet tone.${newcomer ? ' Small bumps in the first sessions are common.' : ''}`,
    notNormal:
      'Spreading redness, pus, fever or pain that grows is not: see a clinician, and tell us.',
    product: noFragrance
      ? 'Balm or gel without alcohol and without scent, a coin-sized amount, morning and night.'
      : 'Balm or gel without alcohol, a coin-sized amount, morning and night.',
  }
}

/** Hands, straps, make-up. */
function fromTouch({ figures, service, schools, fuzz, longer, red, avoid }: CareCase): void {
  avoid('touch', 'Hands off', figures(C.touchHours), 'Do not touch, rub or scratch.', 'C')
  avoid(
    'mask',
    'No tight mask or strap',
    figures(C.maskHours),
    'Seals and straps press into fresh skin.',
    'H',
  )
  if (red.length > 0) {
    avoid(
      'reddened',
      `Nothing but plain balm on ${placesWords(red)}`,
      figures(C.reddenedHours) * longer,
      'It reddened during the service: cool it, no scent, no acid, no make-up there.',
      'H',
    )
  }
  const makeUp = fuzz ? Number(schools.makeUpAfter) : figures(C.makeUpRazorHours)
  if (SERVICES[service].underMakeUp) {
    avoid(
      'make-up',
      'No make-up',
      makeUp,
      fuzz
        ? `School: ${schoolWords('makeUpAfter', schools.makeUpAfter)}.`
        : 'Let the skin close first.',
      'C',
    )
  }
}

/** Sweat, heat and water. */
function fromWater({ figures, longer, skinSays, nicked, longNicks, avoid }: CareCase): void {
  avoid(
    'exercise',
    'No hard exercise, sauna or hot bath',
    figures(C.sweatHours) * longer,
    `Sweat and heat sting and redden.${skinSays}`,
    'H',
  )
  avoid(
    'swimming',
    'No pool or sea',
    Math.max(
      figures(C.swimHours) * longer,
      longNicks.length > 0 ? figures(C.swimLongNickHours) : nicked ? figures(C.swimNickHours) : 0,
    ),
    nicked
      ? 'Chlorine and salt sting, and a nick is a way in.'
      : `Chlorine and salt sting.${skinSays}`,
    'H',
  )
}

/** Places whose nick is long. */
export const longNicks = (figures: Figures, { nickMm = {} }: Pick<AtChair, 'nickMm'>): string[] =>
  Object.entries(nickMm).flatMap(([zone, mm]) => (mm >= figures(C.longNickMm) ? [zone] : []))

/** A nick by its length: a short one is left alone, a long one kept dry and covered, and no blade goes over it. */
function fromNicks({ figures, longNicks, avoid }: CareCase): void {
  if (longNicks.length === 0) return
  const places = placesWords(longNicks)
  avoid(
    'nick-wet',
    `Keep the nick on ${places} dry and covered`,
    figures(C.coverHours),
    'A clean plaster, changed when it is wet. Bleeding that does not stop under ten minutes of pressing: see somebody.',
    'H',
  )
  avoid(
    'nick-blade',
    `No blade over the nick on ${places}`,
    figures(C.nickBladeDays) * 24,
    'Until it has closed and the scab has gone by itself.',
    'H',
  )
}

/** Acids, and light on skin that took one. */
function fromProducts({
  figures,
  client,
  schools,
  fuzz,
  longer,
  skinSays,
  acidOn,
  avoid,
}: CareCase): void {
  const evening = exfoliatesBy(fuzz, client, schools) === 'acid-evening'
  const acids = fuzz
    ? Number(schools.acidsAfter)
    : figures(evening ? C.acidEveningHours : C.acidRazorHours)
  avoid(
    'acids',
    'No acids, retinoids or scrubs',
    acidOn ? Math.max(acids, figures(C.acidAgainHours)) : acids,
    acidOn
      ? `${acidOn.name} was put on: no second acid.`
      : fuzz
        ? `School: ${schoolWords('acidsAfter', schools.acidsAfter)}.`
        : evening
          ? `School: ${schoolWords('exfoliate', schools.exfoliate).toLowerCase()}.`
          : 'A day between blade and acid.',
    acidOn ? 'H' : 'C',
  )
  avoid(
    'sun',
    'No strong sun',
    Math.max(
      (fuzz ? figures(C.sunFuzzHours) : figures(C.sunHours)) * longer,
      acidOn ? figures(C.sunAcidHours) : 0,
    ),
    acidOn ? `${acidOn.name} makes skin take light badly.` : `Fresh skin burns sooner.${skinSays}`,
    'H',
  )
}

/** What frees the tips of who is bump-prone between shaves, by the school that counts for them; nothing after fuzz. */
export function exfoliatesBy(
  fuzz: boolean,
  client: Pick<SkinAndHair, 'bumpProne'>,
  { exfoliate }: Pick<Schools, 'exfoliate'>,
): Exclude<Schools['exfoliate'], 'none'> | undefined {
  return fuzz || !client.bumpProne || exfoliate === 'none' ? undefined : exfoliate
}

/** Sun cream; and what frees the tips of hair that curls back in. */

function toDo({ figures, client, schools, fuzz, endedAtMs, hairShowsMs, put }: CareCase): void {
  put(
    'do',
    'sun-cream',
    'Sun cream, SPF 30 or more',
    0,
    168,
    'Every day, whenever you are out.',
    'C',
  )
  const by = exfoliatesBy(fuzz, client, schools)
  if (by) {
    const acid = by === 'acid' || by === 'acid-evening'
    const shows = ((hairShowsMs ?? Infinity) - endedAtMs) / HOUR_MS
    const start = figures(by === 'acid-evening' ? C.acidEveningHours : C.acidStartHours)
    const milder =
      client.reactivity === 'reactive'
        ? ' On this skin a milder one, and a covering cream on top.'
        : ''
    put(
      'do',
      'exfoliate',
      acid
        ? 'Leave-on acid, nightly'
        : `Brush against the grain, ${by === 'brush-twice' ? 'twice a day' : 'daily'}`,
      start,
      Math.max(start + 24, Math.min(shows, figures(C.acidAtMostDays) * 24)),
      acid
        ? `From ${by === 'acid-evening' ? 'this evening' : 'the day after'} until hair shows: it frees the tips before they curl back in.${milder}`
        : 'Softly, the opposite way to your map, until hair shows: it frees the tips before they curl back in.',
      'C',
    )
  }
}

/** What is normal, what is not, and when somebody looks. */
function toWatch({ figures, newcomer, put }: CareCase): void {
  put(
    'normal',
    'redness-normal',
    'Slight redness is normal',
    0,
    figures(C.normalHours),
    'For about an hour. On brown and black skin it shows darker or violet.',
    'C',
  )
  put(
    'normal',
    'bumps-normal',
    'Small bumps may come',
    24,
    168,
    newcomer
      ? 'Common in the first sessions. Do not squeeze.'
      : 'Where hair curls back in. Do not squeeze; count them for us.',
    'C',
  )
  put(
    'watch',
    'burn-watch',
    'Burning or redness that begins or grows: write to us',
    figures(C.burnFromHours),
    figures(C.watchDays) * 24,
    'A place gone over too often burns hours later. Cool it, put nothing on, write.',
    'C',
  )
  for (const { moment, hours, lookFor } of askedMoments(figures)) {
    put('do', `answer-${moment}`, 'Look and tell us', hours, hours + 12, lookFor, 'C', moment)
  }
}
