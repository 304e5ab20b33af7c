/** Plans of made-up clients on the built head, for tests and measuring. */
import { oneJob, type Job, isBodyService, type ServiceId } from '../services/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../house/index.ts'
import { hairIn, type SkinAndHair } from '../client.ts'
import {
  displayCarry,
  fieldGround,
  GrainField,
  guessReadings,
  toFieldReading,
  type Reading,
  type ZonedReading,
} from '../grain/index.ts'
import { makeSurface, type Surface } from '../head/index.ts'
import type { KeepLine } from '../lines/index.ts'
import { BLADE_IDS } from '../kit/index.ts'
import {
  bodyFlow,
  bodyGround,
  drawnLines,
  headFlow,
  headGround,
  headRoom,
  type PlanInput,
  FIRST_CHOICE,
  PlanMemory,
} from '../plan/index.ts'
import { priorGrowth } from '../regrowth/index.ts'
import { RULES, screen, type Asked, type SkinMark } from '../screening/index.ts'
import { priorSensitivity } from '../skin/index.ts'
import { SKIN } from './client.ts'
import { HEAD, ZONES } from './head.ts'

const GROUND = headGround(HEAD.display, ZONES)
const ROOM = headRoom(HEAD.display)
const FIELD = fieldGround(DEFAULTS, HEAD.solve, guessReadings(DEFAULTS, ZONES))
const DISPLAY = displayCarry(FIELD, HEAD.display)
let surface: Surface | undefined
export const surfaceOf = () => (surface ??= makeSurface(HEAD.display))

/** Every question answered with no. */
export const NOTHING: Asked['answers'] = Object.fromEntries(
  RULES.map((r) => [r.id, { yes: false }]),
)

export { SKIN }

export interface PlanCase extends Partial<
  Omit<PlanInput, 'jobs' | 'client' | 'schools' | 'lines' | 'notes' | 'choice'>
> {
  readonly service?: ServiceId
  /** A whole service with a blade when left out. */
  readonly jobs?: readonly Job[]
  readonly skin?: Partial<SkinAndHair>
  readonly schools?: Partial<Schools>
  readonly answers?: Asked['answers']
  readonly spots?: readonly SkinMark[]
  readonly readings?: readonly Reading[]
  readonly keepLines?: readonly KeepLine[]
  readonly notes?: Partial<PlanInput['notes']>
  readonly choice?: Partial<PlanInput['choice']>
}

/** The growth over the head for a list of readings. */
export function flowOf(readings: readonly ZonedReading[]) {
  const field = new GrainField(DEFAULTS, FIELD)
  field.setAll(readings)
  return headFlow(
    DEFAULTS,
    FIELD,
    field.answer(),
    readings,
    HEAD.display,
    HEAD.solve.zones,
    DISPLAY,
  )
}

const flows = new Map<string, ReturnType<typeof flowOf>>()

/** Everything that a plan needs, from what a test cares about. */
export function planInput(c: PlanCase = {}): PlanInput {
  const { service = 'face-shave' } = c
  const client = { ...SKIN, ...c.skin }
  const schools = { ...DEFAULT_SCHOOLS, ...c.schools }
  const asked: Asked = { answers: { ...NOTHING, ...c.answers }, spots: c.spots ?? [] }
  const body = isBodyService(service)
  const readings = (c.readings ?? []).map((r) => toFieldReading(DEFAULTS, r, 0))
  const key = body ? 'body' : JSON.stringify(readings.map((r) => [r.id, r.tangent]))
  let flow = c.flow ?? (body ? undefined : flows.get(key))
  if (!flow) {
    flow = body ? bodyFlow(DEFAULTS, readings) : flowOf(readings)
    if (!body) flows.set(key, flow)
  }
  return {
    figures: DEFAULTS,
    jobs: c.jobs ?? [oneJob('job', service)],
    ground: c.ground ?? (body ? bodyGround() : GROUND),
    flow,
    room: 'room' in c ? c.room : body ? undefined : ROOM,
    lines: drawnLines(surfaceOf, c.keepLines ?? []),
    client,
    screening:
      c.screening ??
      screen(DEFAULTS, service, asked, schools, '2026-05-20', Date.UTC(2026, 4, 20, 10), 0),
    schools,
    hand: c.hand ?? 'right',
    level: c.level ?? 'practised',
    kit: c.kit ?? BLADE_IDS,
    sensitivity: c.sensitivity ?? (() => priorSensitivity(DEFAULTS, client.reactivity)),
    growth: c.growth ?? ((zone) => priorGrowth(DEFAULTS, zone, hairIn(zone, client.faceHair))),
    notes: { keptZones: [], hair: {}, strays: [], ...c.notes },
    house: { version: 0, changed: {} },
    choice: { ...FIRST_CHOICE, ...c.choice },
    memory: c.memory ?? new PlanMemory(),
  }
}
