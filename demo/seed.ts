/**
 * Lantern Quay, made by core's own models from a seed: hidden true grain, growth and sensitivity, noisy readings, and
 * eighteen months of visits up to today. The same every time for the same day.
 */
import { DEFAULT_SCHOOLS } from '../core/house/index.ts'
import { NO_NOTES, type SurfaceNotes } from '../core/hair/index.ts'
import type { Reading, ReaderSeen } from '../core/grain/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { DAY_MS } from '../core/time/index.ts'
import { type PlanGround } from '../core/visit/index.ts'
import { type Model, type ModelStatic, QueryTypes } from 'sequelize'
import { DEMO_SECRETS, hashSecret } from '../server/people/people.ts'
import type { Database } from '../server/db/connection.ts'
import { keepHouse } from '../server/house/service.ts'
import { VISITS_INTO_BOOK } from '../server/db/migrations.ts'
import { bookAhead, HOURS, STUDIO_PLACES } from './book.ts'
import { closedAt, workingTime } from './days.ts'
import { loweredCheek, makeReadings, trialStrip, usualLines } from './map.ts'
import { drawTruth } from './outcomes.ts'
import { PEOPLE, STUDIO, type Person } from './people.ts'
import { feltAtChair, makeGround, planner, readerOfMap, signed, moleOnJaw } from './plans.ts'
import { addLeftOpen, addOpenVisit, addVisit, idMaker, readingRow, type Rows } from './visits.ts'

const MONTHS_18_DAYS = 547

/** Numbers that reach nobody. */
const phoneOf = (i: number) => `0555 01 ${String(i + 10).padStart(2, '0')}`

/** Fills an empty database with Lantern Quay; leaves one that already has clients as it is. */
export async function seedDemo(
  db: Database,
  nowMs: number,
  people: readonly Person[] = PEOPLE,
): Promise<void> {
  if ((await db.models.Client.count()) > 0) return
  const random = mulberry32(0x51de)
  const newId = idMaker(random)
  const secrets = await Promise.all(DEMO_SECRETS.map(hashSecret))
  const workers = STUDIO.workers.map((w, i) => ({
    ...{ id: newId(), ...w, secret: secrets[i]! },
    hours: HOURS[i]!(nowMs),
  }))
  const rows: Rows = {
    clients: [],
    visits: [],
    readings: [],
    events: [],
    answers: [],
    plans: [],
    hair: [],
    kit: [],
    messages: [],
    home: [],
  }
  for (const person of people) {
    addPerson(person, workers, nowMs, random, newId, rows)
  }
  const m = db.models
  await db.write(async () => {
    await m.Worker.bulkCreate(workers)
    await keepHouse(db, {
      name: STUDIO.name,
      settings: STUDIO.settings,
      workerId: workers[0]!.id,
      closed: closedAt(nowMs),
      studio: STUDIO_PLACES,
    })
    const fill = async <M extends Model>(model: ModelStatic<M>, list: readonly object[]) => {
      for (let i = 0; i < list.length; i += 400) {
        await model.bulkCreate(list.slice(i, i + 400) as never[])
      }
    }
    await fill(m.Client, rows.clients)
    await fill(m.Visit, rows.visits)
    await fill(m.Plan, rows.plans)
    await fill(m.Reading, rows.readings)
    await fill(m.Event, rows.events)
    await fill(m.SkinAnswer, rows.answers)
    await fill(m.HairReading, rows.hair)
    await fill(m.KitEvent, rows.kit)
    await fill(m.Message, rows.messages)
    await fill(m.HomeWork, rows.home)
    await db.sequelize.query(VISITS_INTO_BOOK)
    const book = bookAhead(people, rows.clients as never, workers, nowMs)
    await fill(m.Appointment, book.appointments)
    await fill(m.Away, book.away)
    const put = (sql: string, values: unknown[]) =>
      db.sequelize.query(sql, { replacements: values, type: QueryTypes.INSERT })
    for (const w of book.waiting)
      await put(
        'INSERT INTO waiting (id, clientId, jobs, wishes, note, sinceMs) VALUES (?, ?, ?, ?, ?, ?)',
        [w.id, w.clientId, JSON.stringify(w.jobs), JSON.stringify(w.wishes), w.note, w.sinceMs],
      )
    for (const h of book.hours)
      await put('INSERT INTO client_hours (clientId, wishes, first) VALUES (?, ?, ?)', [
        ...[h.clientId, JSON.stringify(h.wishes), h.first],
      ])
    // Whoever was here last came late.
    await db.sequelize.query(
      `UPDATE appointments SET startMs = startMs - 1200000, note = 'came 20 minutes late'
       WHERE visitId = (SELECT id FROM visits WHERE state = 'finished' ORDER BY endedAtMs DESC LIMIT 1)`,
    )
  })
}

function addPerson(
  person: Person,
  workers: readonly { id: string; hand: 'right' | 'left' }[],
  nowMs: number,
  random: () => number,
  newId: () => string,
  rows: Rows,
): void {
  const clientId = newId()
  const worker = workers[person.worker]!
  const times: number[] = []
  if (person.everyDays !== undefined && person.lastDaysAgo !== undefined) {
    for (
      let daysAgo = person.lastDaysAgo;
      daysAgo < MONTHS_18_DAYS;
      daysAgo += person.everyDays * (0.85 + 0.3 * random())
    ) {
      if (person.story === 'newcomer' && times.length === 2) break
      times.unshift(workingTime(nowMs - daysAgo * DAY_MS, nowMs, random))
    }
  }
  rows.clients.push({
    id: clientId,
    name: person.name,
    calledName: person.called ?? '',
    pronouns: person.pronouns ?? '',
    occupation: person.occupation,
    service: person.service,
    skin: person.skin,
    phone: phoneOf(rows.clients.length),
    email: `${person.name.split(' ')[0]!.toLowerCase()}@example.org`,
    events: (person.events ?? []).map(({ inDays, hour, ...event }) => ({
      id: newId(),
      ...event,
      atMs: new Date(nowMs + inDays * DAY_MS).setHours(hour, 0, 0, 0),
    })),
    createdAtMs: times[0] ?? nowMs - 2 * DAY_MS,
  })
  const spots = person.story === 'mole' ? [moleOnJaw(newId)] : []
  const { change } = person
  const drawn: SurfaceNotes = {
    ...NO_NOTES,
    lines: usualLines(person.service, newId, times[0] ?? nowMs),
  }
  let notes = drawn
  // Only a strip is worked at the first time.
  const tried: SurfaceNotes | undefined =
    person.story === 'newcomer' ? { ...notes, outlines: [trialStrip(newId, times[0]!)] } : undefined
  const truth = drawTruth(person, random)
  let readings: Reading[] = []
  const planned = planner()
  let ground: PlanGround | undefined
  let changed = false
  for (const [index, atMs] of times.entries()) {
    const visitId = newId()
    let reader: ReaderSeen | undefined
    // A full map at the first visit; read again every half year or so.
    if (index === 0 || (index % 24 === 23 && random() < 0.8)) {
      const fresh = makeReadings(person, atMs, random, newId)
      readings = [...readings, ...fresh]
      ground ??= makeGround(person, fresh, tried ?? notes)
      reader = readerOfMap(person, fresh)
      rows.readings.push(...fresh.map((r) => readingRow(r, clientId, visitId)))
    }
    // What the map left open was felt at the chair, at the first visit and again where it has faded.
    if (person.story !== 'half-read' && (index === 0 || index === times.length - 1)) {
      const visit = {
        person,
        atMs,
        worker,
        spots,
        notes,
        skin: person.skin,
        style: 'balanced',
      } as const
      const felt = feltAtChair(person, readings, { ...visit, schools: DEFAULT_SCHOOLS }, newId)
      readings = [...readings, ...felt]
      rows.readings.push(...felt.map((r) => readingRow(r, clientId, visitId)))
    }
    // Visits that were not the last so many are as they began.
    const nth = times.length - 1 - index
    const moving = person.story === 'line-moved' && nth < 4
    if (moving) notes = { ...drawn, lines: loweredCheek(drawn.lines, 4 - nth) }
    if (moving || (tried && index === 1)) ground = makeGround(person, readings, notes)
    const before = change && atMs < nowMs - change.daysAgo * DAY_MS ? change : undefined
    const turning: boolean = change !== undefined && !before && !changed
    changed ||= turning
    addVisit(
      {
        person,
        truth,
        clientId,
        visitId,
        worker,
        atMs,
        nowMs,
        notes: (index === 0 && tried) || notes,
        first: person.story === 'newcomer',
        // Read at the first visit, so it is there at every one.
        ground: ground!,
        planned,
        spots,
        skin: before ? { ...person.skin, bumpProne: before.bumpProne } : person.skin,
        schools: { ...DEFAULT_SCHOOLS, ...before?.schools },
        style: before?.style ?? 'balanced',
        bumpFactor: before?.bumpFactor ?? 1,
        routine: turning && change ? change.words : '',
        silentLately: person.story === 'answer-owed',
        settled:
          index === times.length - 1 &&
          person.slotHour !== undefined &&
          person.story !== 'too-often' &&
          person.story !== 'severe',
        nth: times.length - 1 - index,
        consent: signed(person, times[0]!, times.length - 1 - index),
        reader,
      },
      random,
      newId,
      rows,
    )
  }
  if (person.story === 'left-open') {
    addLeftOpen(
      { person, clientId, worker, nowMs, notes, spots, ground: ground!, planned },
      signed(person, times[0]!),
      random,
      newId,
      rows,
    )
    return
  }
  const { home } = person
  for (const daysAgo of home?.daysAgo ?? []) {
    const atMs = new Date(nowMs - daysAgo * DAY_MS).setHours(12, 0, 0, 0)
    const { zones, tool, dull } = home!
    rows.home.push({
      ...{ id: newId(), clientId, atMs, zones, tool, fresh: 0 },
      ...{ dull: dull && daysAgo === home!.daysAgo.at(-1) ? 1 : 0 },
      ...{ source: 'client', toldAtMs: atMs },
    })
  }
  addOpenVisit(person, clientId, worker.id, nowMs, spots, notes, times, random, newId, rows)
}
