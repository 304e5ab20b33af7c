/** Plans of past visits: made once for each map, skin and school. */
import { isBodyService, oneJob, type Job, type Style, zonesOfJobs } from '../core/services/index.ts'
import { groundOf, planAsk, planInput, type PlanGround } from '../core/visit/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../core/house/index.ts'
import { hairIn, type SkinAndHair } from '../core/client.ts'
import { readerSeen, type ReaderSeen, toFieldReading, type Reading } from '../core/grain/index.ts'
import { NO_NOTES, type SurfaceNotes } from '../core/hair/index.ts'
import { BLADE_IDS } from '../core/kit/index.ts'
import { tangentPart, unit } from '../core/head/index.ts'
import {
  consentText,
  RULES,
  screen,
  type Screening,
  type Asked,
  type Consent,
  type SkinMark,
} from '../core/screening/index.ts'
import { type Hand, makePlan, type PlanInput, FIRST_CHOICE, type Plan } from '../core/plan/index.ts'
import { priorGrowth } from '../core/regrowth/index.ts'
import {
  nothingSeen,
  believe,
  expectedMean,
  learnBumps,
  skinPooling,
  zoneSensitivity,
} from '../core/skin/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { dateOf, offsetHere } from '../core/time/index.ts'
import { headSkin } from '../server/atlas.ts'
import { packPlan } from '../server/visits/planStore.ts'
import { growthOf, makeReadings, usualLines, zoneById } from './map.ts'
import type { Person } from './people.ts'
import { trueFlow } from './truth.ts'

/** The ground that a person's past plans worked on: the head as its hair truly grows, the body as it was read. */
export function makeGround(
  person: Person,
  readings: readonly Reading[],
  notes: SurfaceNotes,
): PlanGround {
  const given = readings.map((r) => toFieldReading(DEFAULTS, r, r.atMs))
  const head = { ...headSkin(DEFAULTS), flow: () => trueFlow(person) }
  return groundOf(DEFAULTS, { jobs: jobsOf(person), readings: given, ...drawnIn(notes) }, head)
}

const drawnIn = ({ lines, outlines = [] }: SurfaceNotes) => ({ lines, outlines })

/** What a map tells of whoever read it; the sheet of the body tells nothing. */
export function readerOfMap(person: Person, readings: readonly Reading[]): ReaderSeen | undefined {
  if (isBodyService(person.service)) return undefined
  const given = readings.map((r) => toFieldReading(DEFAULTS, r, r.atMs))
  return readerSeen(headSkin(DEFAULTS).flow(given).apart ?? [])
}

/** Which of a person's visits: so many back from the last one, today's, or any that does all of it. */
export type Nth = number | 'today' | 'all'

/** What a visit of a person is to do. */
export function jobsOf(person: Person, id = 'job', nth: Nth = 'all'): Job[] {
  if (!person.rhythms) return [oneJob(id, person.service)]
  const now = person.rhythms.filter(
    (r) => nth === 'all' || (nth === 'today' ? r.today : (nth - r.last) % r.every === 0),
  )
  // Ids of their own beside the first, whatever it ends in.
  const last = parseInt(id.at(-1)!, 16) || 0
  const other = (i: number) => id.slice(0, -1) + ((last + i) % 16).toString(16)
  return now.map(({ job }, i) => ({ ...job, id: i === 0 ? id : other(i) }))
}

/** All questions answered with no. */
export function nothingFound(spots: readonly SkinMark[] = []): Asked {
  return { answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])), spots }
}

/** A name written by hand, as far as it matters here. */
const SIGNATURE =
  'M22.0 70.0L34.0 38.0L46.0 72.0L58.0 44.0L72.0 70.0L90.0 58.0L112.0 66.0L150.0 60.0L196.0 64.0'

/** What was signed before the first service. */
export const signed = (person: Person, atMs: number, nth: Nth = 'all'): Consent => ({
  text: consentText(jobsOf(person, 'job', nth)),
  name: person.name,
  asGuardian: false,
  signedAtMs: atMs - 15 * 60_000,
  path: SIGNATURE,
})

/**
 * What is felt at the chair where the map says nothing: a reading at each lane that goes by a guess. Twice, since lanes are
 * laid anew by what was felt.
 */
export function feltAtChair(
  person: Person,
  readings: readonly Reading[],
  v: Omit<PlannedVisit, 'ground' | 'clientId'>,
  newId: () => string,
): Reading[] {
  const grows = growthOf(person)
  const felt: Reading[] = []
  for (let round = 0; round < 2; round++) {
    const known = [...readings, ...felt].map((r) => toFieldReading(DEFAULTS, r, v.atMs))
    const ask = { jobs: jobsOf(person), readings: known, ...drawnIn(v.notes) }
    const ground = groundOf(DEFAULTS, ask, headSkin(DEFAULTS))
    const plan = makePlan(inputOf({ ...v, clientId: 'job', ground }))
    const guesses = plan.lanes.filter((l) => l.grain === 'guess' && l.pass === 1)
    for (const { zoneId, point, normal } of guesses) {
      const tangent = unit(tangentPart(grows({ point, normal }), normal))
      felt.push({ id: newId(), zoneId, point, normal, tangent, method: 'felt', atMs: v.atMs })
    }
    if (guesses.length === 0) break
  }
  return felt
}

/** What of a visit its plan depends on. */
export interface PlannedVisit {
  readonly person: Person
  readonly atMs: number
  readonly clientId: string
  readonly worker: { readonly id: string; readonly hand: Hand }
  readonly spots: readonly SkinMark[]
  readonly notes: SurfaceNotes
  readonly ground: PlanGround
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly style: Style
  /** Which of the person's visits it is. */
  readonly nth?: Nth
}

/** The mole that one story is about. */
export function moleOnJaw(newId: () => string): SkinMark {
  const zone = zoneById.get('jaw-left')!
  const at = zone.samples[2]!
  return {
    id: newId(),
    kind: 'mole',
    zoneId: 'jaw-left',
    point: at.point,
    normal: at.normal,
    radiusMm: 4,
  }
}

/** What a person's plan of today is made from, their map read as a careful worker would; the same every time. */
export function ownInput(person: Person, hand: Hand = 'right'): PlanInput {
  const atMs = Date.UTC(2026, 10, 2, 10)
  const random = mulberry32(1)
  let n = 0
  const newId = () => `demo-${++n}`
  const notes: SurfaceNotes = { ...NO_NOTES, lines: usualLines(person.service, newId, atMs) }
  return inputOf({
    ...{ person, atMs, clientId: 'job', notes, skin: person.skin, schools: DEFAULT_SCHOOLS },
    ...{ worker: { id: 'worker', hand }, style: 'balanced' },
    spots: person.story === 'mole' ? [moleOnJaw(newId)] : [],
    ground: makeGround(person, makeReadings(person, atMs, random, newId), notes),
  })
}

export type Planner = (v: PlannedVisit) => { plan: Plan; packed: Buffer }

/** Plans a person's visits; while map, skin and schools stay as they are the plan is the same and is made once. */
export function planner(): Planner {
  let last: { of: readonly unknown[]; plan: Plan; packed: Buffer } | undefined
  return (v) => {
    const jobs = JSON.stringify(jobsOf(v.person, v.clientId, v.nth))
    const of = [v.ground, v.skin.bumpProne, JSON.stringify(v.schools), v.style, jobs]
    if (!last || of.some((x, i) => x !== last!.of[i])) {
      const plan = makePlan(inputOf(v))
      last = { of, plan, packed: packPlan(plan) }
    }
    return last
  }
}

const KNOWN_SHARE = 0.5

function inputOf(v: PlannedVisit): PlanInput {
  const { person, atMs, skin, schools, notes, worker } = v
  const zones = zonesOfJobs(jobsOf(person))
  // Who plans has seen this skin before and found it calmer than such skin is expected to be.
  const belief = believe(
    nothingSeen(DEFAULTS),
    skinPooling(DEFAULTS, KNOWN_SHARE * expectedMean(DEFAULTS, skin.reactivity)),
  )
  const model = {
    sensitivity: Object.fromEntries(zones.map((z) => [z, zoneSensitivity(belief, z)])),
    belief,
    bumps: learnBumps(DEFAULTS, zones, skin, []),
    record: { visits: 0, reddened: 0 },
    growth: Object.fromEntries(
      zones.map((z) => [z, priorGrowth(DEFAULTS, z, hairIn(z, skin.faceHair))]),
    ),
  }
  const ask = planAsk(
    DEFAULTS,
    {
      ...{ jobs: jobsOf(person, v.clientId, v.nth), workerId: worker.id, readings: [], notes },
      ...{ readerDeg: null, endedAtMs: atMs },
    },
    { skin, schools: {}, model },
    {
      ...{ schools, kit: BLADE_IDS, figures: {}, changes: [], paces: {} },
      workers: [{ ...worker, level: 'practised' }],
    },
    screenedAt(v),
    { ...FIRST_CHOICE, style: v.style },
    atMs,
  )
  return planInput(DEFAULTS, ask, v.ground)
}

function screenedAt({ person, atMs, spots, schools, nth }: PlannedVisit): Screening {
  const offset = offsetHere(atMs)
  const asked = nothingFound(spots)
  return screen(
    DEFAULTS,
    jobsOf(person, 'job', nth),
    asked,
    schools,
    dateOf(atMs, offset),
    atMs,
    offset,
  )
}
