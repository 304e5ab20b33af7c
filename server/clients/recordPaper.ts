/** Everything kept of a client as a paper that a person can read, with who looked at it: for the client, when they ask. */
import { trailWords } from '../../contract/trailWords.ts'
import { lengthWords } from '../../core/house/index.ts'
import { replay } from '../../core/chair/index.ts'
import { CLIENT_TEXT_IDS, CLIENT_TEXTS } from '../../core/client.ts'
import { DRYNESS_WORDS, momentWords, type SkinAnswer } from '../../core/looks/index.ts'
import { CLOSING_SENTENCE, RULES } from '../../core/screening/index.ts'
import { jobsWords, SERVICES } from '../../core/services/index.ts'
import { lowerFirst } from '../../core/words.ts'
import { homeWords } from '../../core/history/index.ts'
import { readHome } from './readHome.ts'
import { fullDate, whenWords } from '../../core/time/index.ts'
import { serviceInWords } from '../../core/visit/index.ts'
import { zoneInWords, type ZoneId } from '../../core/zones/index.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { Pen, SOFT } from '../paper/pen.ts'
import type { TrailRow } from '../people/trail.ts'
import { readHair, readVisits, type VisitRecord } from '../visits/record.ts'
import { figuresOf } from '../../core/register/index.ts'
import { STATUS_WORDS, statusOf } from '../../core/week/index.ts'
import { readOwn } from '../week/book.ts'
import { readTold } from './takeOut.ts'
import { readClient } from './read.ts'

/** Uses told on paper; older ones are counted. */
const USES_TOLD = 300

/** @param uses of the trail, the newest first */
export async function clientRecord(
  db: Reads,
  uses: readonly TrailRow[],
  id: string,
): Promise<Buffer> {
  const [client, visits, hair, home, booked, told, house] = await Promise.all([
    readClient(db, id),
    readVisits(db, id),
    readHair(db, id),
    readHome(db, id),
    readOwn(db, id),
    readTold(db, id),
    readHouse(db),
  ])
  const pen = new Pen(`Everything kept of ${client.name}`, house.name, 10, 46)
  const section = (title: string, room = 60) => {
    pen.need(room)
    pen.skip(0.5)
    pen.write(title, { weight: 700, scale: 1.25, gap: 0.1 })
    pen.rule()
  }
  const line = (name: string, words: string) => {
    pen.need(16)
    pen.write(`${name}: ${words}`)
  }
  pen.write(client.name, { weight: 700, scale: 2 })
  pen.write(`Everything that ${house.name} keeps of you, ${fullDate(Date.now())}`, {
    colour: SOFT,
    gap: 0.5,
  })
  section('You')
  for (const field of CLIENT_TEXT_IDS)
    if (client[field]) line(CLIENT_TEXTS[field].title, client[field])
  line('Comes for', SERVICES[client.service].name)
  for (const [name, value] of Object.entries(client.skin)) line(SKIN[name] ?? name, plain(value))
  for (const e of client.events) line('Event', `${e.title}, ${fullDate(e.atMs)}`)
  line('Kept since', fullDate(client.createdAtMs))
  for (const visit of [...visits].reverse()) {
    const of = visit.endedAtMs ?? visit.slotAtMs
    section(
      `${of === null ? 'A visit without a time' : fullDate(of)}, ${lowerFirst(jobsWords(visit.jobs))}`,
      90,
    )
    const worker = house.workers.find((w) => w.id === visit.workerId)
    line('By', worker?.name ?? 'somebody who no longer works here')
    tellAsked(line, visit)
    line('Map of the grain', `${visit.readings.length} readings`)
    if (visit.plan && visit.events.length > 0)
      for (const told of serviceInWords(visit.plan, replay(visit.plan, visit.events)))
        line(told.name, [told.words, told.beside].filter(Boolean).join(', '))
    if (visit.photos.length > 0) line('Pictures', `${visit.photos.length}, to be had as files`)
    for (const answer of visit.answers) line(momentWords(answer.moment), answerWords(answer))
    for (const h of hair.filter((r) => r.visitId === visit.id))
      line(
        'Hair',
        `${h.kind} after ${Math.round(h.days)} days${h.lengthMm == null ? '' : `, ${lengthWords(h.lengthMm, house.settings.length)}`}`,
      )
    for (const m of visit.messages)
      line(
        'Message',
        `${m.subject}, for ${whenWords(m.dueAtMs)}${m.state === 'taken-back' ? ', taken back' : ''}`,
      )
  }
  if (home.length > 0) {
    section('Taken off at home')
    for (const h of home) line(fullDate(h.atMs), homeWords(h))
  }
  if (booked.length > 0) {
    section('Appointments')
    const figures = figuresOf(house.figures)
    for (const a of booked)
      line(
        whenWords(a.startMs),
        [`${a.minutes} min, ${STATUS_WORDS[statusOf(figures, a)]}`, a.note]
          .filter(Boolean)
          .join(': '),
      )
  }
  if (told.messages.length > 0) {
    section('Told of hours')
    for (const m of told.messages)
      line(whenWords(m.dueAtMs), `${m.subject}${m.state === 'taken-back' ? ', taken back' : ''}`)
  }
  section('Who looked at it, changed it or took it out')
  if (uses.length === 0) pen.write('Nothing is on the trail yet.')
  for (const use of uses.slice(0, USES_TOLD))
    line(
      whenWords(use.atMs),
      `${use.worker || 'a screen'} ${trailWords(use.use, use.what)} (${use.screen})`,
    )
  if (uses.length > USES_TOLD) pen.write(`and ${uses.length - USES_TOLD} earlier times.`)
  pen.skip(0.8)
  pen.need(40)
  pen.write(
    `You may have this as a file too, have it put right, or have all of it erased. Models’ estimates are worked out anew each time and not kept. ${CLOSING_SENTENCE}`,
    { colour: SOFT, scale: 0.86 },
  )
  return pen.end()
}

const SKIN: Readonly<Record<string, string>> = {
  reactivity: 'Skin',
  faceHair: 'Hair on the face',
  coarseness: 'Hair',
  curl: 'Curl',
  bumpProne: 'Prone to bumps',
}
const plain = (value: unknown) => (value === true ? 'yes' : value === false ? 'no' : String(value))

function tellAsked(line: (name: string, words: string) => void, { asked }: VisitRecord): void {
  for (const rule of RULES) {
    const answer = asked.answers[rule.id]
    if (answer)
      line(rule.short, `${answer.yes ? 'yes' : 'no'}${answer.date ? `, ${answer.date}` : ''}`)
  }
  if (asked.spots.length > 0) line('Marks on the skin', `${asked.spots.length}`)
  const { consent } = asked
  if (consent) line('Consent', `signed by ${consent.name}, ${whenWords(consent.signedAtMs)}`)
}

function answerWords({ zones, feeling, source }: SkinAnswer): string {
  const seen = zones
    .filter((z) => z.redness > 0 || z.bumps > 0)
    .map(
      (z) =>
        `${zoneInWords(z.zoneId as ZoneId)} redness ${z.redness}${z.bumps > 0 ? `, ${z.bumps} bumps` : ''}`,
    )
  const { stinging, itch, dryness, words } = feeling ?? {}
  return [
    seen.join('; ') || 'clear',
    stinging ? `stinging ${stinging} of 10` : '',
    itch ? `itch ${itch} of 10` : '',
    dryness ? `dryness: ${DRYNESS_WORDS[dryness]}` : '',
    words ? `“${words}”` : '',
    source === 'client' ? 'told by yourself' : '',
  ]
    .filter(Boolean)
    .join('; ')
}
