/** Plans of made-up clients on the built head, for tests and measuring. */
import { oneJob, type Job, isBodyService, serviceZones, type ServiceId } from '../services/index.ts'
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
import { directionOf, type Vec3 } from '../head/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { drawnOutlines, type KeepLine, type Outline } from '../lines/index.ts'
import { BLADE_IDS } from '../kit/index.ts'
import {
  bodyFlow,
  bodyGround,
  drawnLines,
  headFlow,
  headGround,
  headRoom,
  type PlanInput,
  type SkinFlow,
  FIRST_CHOICE,
  PlanMemory,
  NO_PACE,
} from '../plan/index.ts'
import { priorGrowth } from '../regrowth/index.ts'
import { RULES, screen, type Asked, type SkinMark } from '../screening/index.ts'
import {
  nothingSeen,
  believe,
  expectedMean,
  learnBumps,
  skinPooling,
  zoneSensitivity,
} from '../skin/index.ts'
import { SKIN } from './client.ts'
import type { ZoneId } from '../zones/index.ts'
import { HEAD, ZONES } from './head.ts'
import { surfaceOf } from './lines.ts'

export { surfaceOf }

const GROUND = headGround(HEAD, ZONES)
const ROOM = headRoom(HEAD.display)
const FIELD = fieldGround(DEFAULTS, HEAD.solve, guessReadings(DEFAULTS, ZONES))
const DISPLAY = displayCarry(FIELD, HEAD.display)

/** Every question answered with no. */
export const NOTHING: Asked['answers'] = Object.fromEntries(
  RULES.map((r) => [r.id, { yes: false }]),
)

export { SKIN }

export interface PlanCase extends Partial<
  Omit<PlanInput, 'jobs' | 'client' | 'schools' | 'lines' | 'outlines' | 'notes' | 'choice'>
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
  readonly outlines?: readonly Outline[]
  readonly notes?: Partial<PlanInput['notes']>
  readonly choice?: Partial<PlanInput['choice']>
}

/** The growth over the head for a list of readings. */
export function flowOf(readings: readonly ZonedReading[]) {
  const field = new GrainField(DEFAULTS, FIELD)
  field.setAll(readings)
  return headFlow(DEFAULTS, FIELD, field.told(), readings, HEAD.display, HEAD.solve.zones, DISPLAY)
}

/**
 * A map as a reader might leave it: every zone of a service read three times about its usual growth, up to 20° off either way.
 * Zones of other services are left as they are guessed.
 */
export function randomMap(seed: number, service: ServiceId = 'face-shave'): SkinFlow {
  const random = mulberry32(seed)
  const own = new Set(serviceZones(service))
  return flowOf(
    ZONES.filter((z) => own.has(z.id)).flatMap((z) => {
      const [guess] = guessReadings(DEFAULTS, [z])
      if (!guess) return []
      return [0, 1, 2].map((i) => {
        const at = z.samples[Math.floor(random() * z.samples.length)]!
        const swing = directionOf(z.id, at.point, at.normal, random() * 2 * Math.PI)
        const tangent = guess.tangent.map((c, k) => c + 0.35 * swing[k]!) as unknown as Vec3
        return { id: `${z.id}${i}`, zoneId: z.id, ...at, tangent, weight: 1 }
      })
    }),
  )
}

/** The same growth on the mirrored client. */
export function mirrorFlow(flow: SkinFlow): SkinFlow {
  const { mirrorOf } = HEAD.display
  const vectors = new Float32Array(flow.vectors.length)
  const trust = new Float32Array(flow.trust.length)
  const errorDeg = new Float32Array(flow.trust.length)
  mirrorOf.forEach((twin, v) => {
    vectors[3 * v] = 0 - flow.vectors[3 * twin]!
    vectors[3 * v + 1] = flow.vectors[3 * twin + 1]!
    vectors[3 * v + 2] = flow.vectors[3 * twin + 2]!
    trust[v] = flow.trust[twin]!
    errorDeg[v] = flow.errorDeg[twin]!
  })
  return {
    vectors,
    trust,
    errorDeg,
    turning: flow.turning.map((p): Vec3 => [0 - p[0], p[1], p[2]]),
  }
}

const flows = new Map<string, ReturnType<typeof flowOf>>()

/** One service of with and across, after which skin was half as red as such skin is expected to be. */
const SEEN = { load: 2.7, share: 0.5 } as const

/** What is believed of a client who was here before. */
const knownBelief = (mean: number, zones: readonly ZoneId[]) =>
  believe(
    {
      ...nothingSeen(DEFAULTS),
      zones: new Map(
        zones.map(
          (z) => [z, { count: SEEN.share * mean * SEEN.load, exposure: SEEN.load }] as const,
        ),
      ),
    },
    skinPooling(DEFAULTS, mean),
  )

/** Everything that a plan needs, from what a test cares about. */
export function planInput(c: PlanCase = {}): PlanInput {
  const { service = 'face-shave' } = c
  const client = { ...SKIN, ...c.skin }
  const schools = { ...DEFAULT_SCHOOLS, ...c.schools }
  const belief =
    c.belief ??
    knownBelief(
      expectedMean(DEFAULTS, client.reactivity),
      serviceZones(c.jobs?.[0]?.service ?? service),
    )
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
    outlines: drawnOutlines(surfaceOf, c.outlines ?? []),
    client,
    screening:
      c.screening ??
      screen(
        DEFAULTS,
        c.jobs ?? [oneJob('job', service)],
        asked,
        schools,
        '2026-05-20',
        Date.UTC(2026, 4, 20, 10),
        0,
      ),
    schools,
    hand: c.hand ?? 'right',
    level: c.level ?? 'practised',
    pace: c.pace ?? NO_PACE,
    kit: c.kit ?? BLADE_IDS,
    sensitivity: c.sensitivity ?? ((zone) => zoneSensitivity(belief, zone)),
    belief,
    bumps: c.bumps ?? ((zone) => learnBumps(DEFAULTS, [zone], client, [])[zone]!),
    ...(c.record && { record: c.record }),
    growth: c.growth ?? ((zone) => priorGrowth(DEFAULTS, zone, hairIn(zone, client.faceHair))),
    notes: { keptZones: [], hair: {}, strays: [], ...c.notes },
    house: { version: 0, changed: {} },
    choice: { ...FIRST_CHOICE, ...c.choice },
    memory: c.memory ?? new PlanMemory(),
  }
}
