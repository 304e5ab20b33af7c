/** The house: its name, its workers, its schools, who works at this screen. */
import type { HouseEdit } from '../../contract/routes.ts'
import {
  type Figures,
  DEFAULT_SCHOOLS,
  type HouseSettings,
  isSchoolId,
  SCHOOLS,
  type Schools,
  USUAL_SETTINGS,
  warmthStepWords,
} from '../../core/house/index.ts'
import { checkFigure, figuresOf } from '../../core/register/index.ts'
import { USUAL_PRODUCTS, type Product } from '../../core/care/index.ts'
import { calibrateProbe, type ProbeCalibration } from '../../core/chair/index.ts'
import { BLADE_IDS, BLADES, type BladeId } from '../../core/kit/index.ts'
import { RULES, type HouseRules } from '../../core/screening/index.ts'
import { isServiceId, SERVICES } from '../../core/services/index.ts'
import { type Studio, USUAL_STUDIO } from '../../core/week/index.ts'
import {
  type ClosedDays,
  closedWords,
  USUALLY_CLOSED,
  writeTimesAs,
} from '../../core/time/index.ts'
import type { House, HouseChange, Worker } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { HttpProblem } from '../http/problem.ts'

/** What is kept under the one settings key. */
interface KeptHouse {
  name?: string
  settings?: Partial<HouseSettings>
  schools?: Partial<Schools>
  workerId?: string
  kit?: readonly BladeId[]
  studio?: Studio
  closed?: ClosedDays
  figures?: Record<string, number>
  rules?: HouseRules
  consentText?: string
  products?: readonly Product[]
  probe?: ProbeCalibration
  changes?: HouseChange[]
}

const KEY = 'house'

/** Services of a worker, the latest, that their paces are learned from: of all kinds of work. */
const PACES_READ = 90

/** Maps of a worker, the latest, that their readers' scatter is learned from. */
const MAPS_READ = 30

/** Reads the house. Schools that were never chosen have their default. */
export async function readHouse(db: Reads): Promise<House> {
  const [row] = await db.select<{
    kept: Json<KeptHouse> | null
    workers: Json<Worker[]>
    paces: Json<House['paces']>
    readers: Json<House['readers']>
  }>(
    `WITH here AS (SELECT * FROM workers WHERE goneAtMs IS NULL
        OR id IN (SELECT workerId FROM visits WHERE state <> 'finished') ORDER BY name)
    SELECT (SELECT value FROM settings WHERE key = ?) AS kept,
      (SELECT json_group_array(json_object('id', id, 'name', name, 'role', role, 'hand', hand, 'level', level,
          'hours', json(hours), 'services', json(services)))
        FROM here) AS workers,
      (SELECT json_group_object(id, json((
          SELECT json_group_array(json_object('service', service, 'ratio', pace)) FROM
            (SELECT service, pace FROM visits WHERE workerId = here.id AND pace IS NOT NULL
             ORDER BY endedAtMs DESC LIMIT ?)))) FROM here) AS paces,
      (SELECT json_group_object(id, json((
          SELECT json_group_array(json_object('deg', readDeg, 'readings', readCount)) FROM
            (SELECT readDeg, readCount FROM visits WHERE workerId = here.id AND readDeg IS NOT NULL AND state = 'finished'
             ORDER BY endedAtMs DESC LIMIT ?)))) FROM here) AS readers`,
    [KEY, PACES_READ, MAPS_READ],
  )
  const kept = json(row!.kept) ?? {}
  const workers = json(row!.workers)
  const settings = { ...USUAL_SETTINGS, ...kept.settings }
  // What this process writes next, on paper or into a calendar, is written as the house writes.
  writeTimesAs(settings)
  return {
    name: kept.name ?? 'This house',
    settings,
    schools: { ...DEFAULT_SCHOOLS, ...kept.schools },
    workers,
    paces: json(row!.paces),
    readers: json(row!.readers),
    workerId: kept.workerId ?? workers[0]?.id ?? '',
    kit: kept.kit ?? [...BLADE_IDS],
    studio: { ...USUAL_STUDIO, ...kept.studio },
    closed: kept.closed ?? USUALLY_CLOSED,
    figures: kept.figures ?? {},
    rules: kept.rules ?? {},
    consentText: kept.consentText ?? '',
    products: kept.products ?? [...USUAL_PRODUCTS],
    probe: kept.probe ?? null,
    changes: kept.changes ?? [],
  }
}

/** The figures that every model is asked with. */
export const readFigures = async (db: Reads): Promise<Figures> =>
  figuresOf((await readHouse(db)).figures)

/** Keeps what is given of the house, beside what was kept before. Part of a write. */
export async function keepHouse(db: Database, change: KeptHouse): Promise<void> {
  const before = await db.models.Setting.findByPk(KEY)
  await db.models.Setting.upsert({
    key: KEY,
    value: { ...(before?.value as KeptHouse | undefined), ...change },
  })
}

const refuse = (code: string, sentence: string) =>
  new HttpProblem(422, code, `${sentence} Nothing was changed.`)

/** Changes the house. All of it or nothing; what changes plans and answers is written down with its date. */
export async function changeHouse(db: Database, change: HouseEdit): Promise<House> {
  // What it builds on is read within the write, so that two changes at once are both kept.
  await db.write(async () => {
    const before = await readHouse(db)
    const log: HouseChange[] = []
    const atMs = Date.now()
    const note = (what: string, from: string, to: string) => {
      if (from !== to) log.push({ atMs, what, from, to })
    }
    const named = [change.workerId, change.worker?.id].filter((id) => id !== undefined)
    if (named.some((id) => !before.workers.some((w) => w.id === id))) {
      throw refuse('no-such-worker', 'That worker is not of this house.')
    }
    for (const [id, choice] of Object.entries(change.schools ?? {})) {
      const none = () => refuse('no-such-school', `There is no school "${choice}" for "${id}".`)
      if (!isSchoolId(id)) throw none()
      const { question, choices } = SCHOOLS[id]
      const chosen = choices.find((c) => c.id === choice)
      if (!chosen) throw none()
      const was = choices.find((c) => c.id === before.schools[id])
      note(question, was!.text, chosen.text)
    }
    const figures = { ...before.figures }
    for (const [id, value] of Object.entries(change.figures ?? {})) {
      const { text, byDefault, unit } = checkFigure(id, value)
      const was = figures[id] ?? byDefault
      if (value === null || value === byDefault) delete figures[id]
      else figures[id] = value
      note(text, `${was} ${unit}`.trim(), `${value ?? byDefault} ${unit}`.trim())
    }
    const rules = editRules(before.rules, change.rules ?? {}, note)
    if (change.kit) {
      const words = (kit: readonly BladeId[]) => kit.map((id) => BLADES[id].name).join(', ')
      note('Blades in the kit', words(before.kit), words(change.kit))
    }
    if (change.name !== undefined) note('Name of the house', before.name, change.name)
    if (change.closed) note('Closed days', closedWords(before.closed), closedWords(change.closed))
    if (change.consentText !== undefined)
      note('Text of consent', before.consentText, change.consentText)
    if (change.products) {
      if (new Set(change.products.map((p) => p.id)).size < change.products.length) {
        throw refuse('same-product', 'Two products have the same id.')
      }
      const words = (list: readonly Product[]) => list.map((p) => p.name).join(', ')
      note('Products', words(before.products), words(change.products))
    }
    const probe =
      change.probe &&
      calibrateProbe(figuresOf(figures), change.probe.iceShowsC, change.probe.warm, atMs)
    if (probe) {
      const words = (c: ProbeCalibration | null) =>
        c
          ? `${c.offsetC >= 0 ? '+' : '−'}${warmthStepWords(Math.abs(c.offsetC), before.settings.warmth)}`
          : 'never'
      note('Probe thermometer put right by', words(before.probe), words(probe))
    }
    if (change.worker) {
      const { services, ...worker } = change.worker
      await db.models.Worker.update(
        { ...worker, ...(services !== undefined && { services: services && [...services] }) },
        { where: { id: worker.id } },
      )
    }
    await keepHouse(db, {
      ...(change.name !== undefined && { name: change.name.trim() }),
      ...(change.settings && {
        settings: { ...before.settings, ...(change.settings as Partial<HouseSettings>) },
      }),
      ...(change.schools && { schools: { ...before.schools, ...change.schools } }),
      ...(change.workerId !== undefined && { workerId: change.workerId }),
      ...(change.kit && { kit: change.kit }),
      ...(change.studio && { studio: change.studio }),
      ...(change.closed && { closed: change.closed }),
      ...(change.figures && { figures }),
      ...(change.rules && { rules }),
      ...(change.consentText !== undefined && { consentText: change.consentText }),
      ...(change.products && { products: change.products }),
      ...(probe && { probe }),
      ...(log.length > 0 && { changes: [...before.changes, ...log] }),
    })
  })
  return readHouse(db)
}

function editRules(
  before: HouseRules,
  edits: HouseRules,
  note: (what: string, from: string, to: string) => void,
): HouseRules {
  const rules: Record<string, HouseRules[string]> = { ...before }
  for (const [ruleId, services] of Object.entries(edits)) {
    const rule = RULES.find((r) => r.id === ruleId)
    if (!rule) throw refuse('no-such-rule', `There is no rule "${ruleId}".`)
    for (const [service, edit] of Object.entries(services)) {
      if (!isServiceId(service)) {
        throw refuse('no-such-service', `There is no service "${service}".`)
      }
      const own = { ...rules[ruleId] }
      const words = (e: typeof edit | undefined) =>
        [e?.severity, e?.waitDays === undefined ? undefined : `${e.waitDays} days`]
          .filter(Boolean)
          .join(', ') || 'default'
      note(`${rule.short}, ${SERVICES[service].name}`, words(own[service]), words(edit))
      if (edit.severity === undefined && edit.waitDays === undefined) delete own[service]
      else own[service] = edit
      if (Object.keys(own).length === 0) delete rules[ruleId]
      else rules[ruleId] = own
    }
  }
  return rules
}

/** Makes sure there is somebody to work: a house without workers gets one of each hand. */
export async function ensureWorkers(db: Database): Promise<void> {
  if ((await db.models.Worker.count()) > 0) return
  await db.write(() =>
    db.models.Worker.bulkCreate([
      {
        id: '00000000-0000-4000-8000-000000000001',
        name: 'Right hand',
        role: 'barber',
        hand: 'right',
      },
      {
        id: '00000000-0000-4000-8000-000000000002',
        name: 'Left hand',
        role: 'esthetician',
        hand: 'left',
      },
    ]),
  )
}
