/** Lanes as jobs: what it costs to go from one to the next, and what must wait for what (M9). */
import { distance } from '../head/index.ts'
import { zoneStem, type ZoneStem, isBody, zoneSide } from '../zones/index.ts'
import { constant, type Figures, type Schools } from '../house/index.ts'
import type { HeavierSide } from '../hair/index.ts'
import { orderProblem, type OrderProblem } from '../order/index.ts'
import { SERVICES, type ServiceId, type Service, type ServiceFamily } from '../services/index.ts'
import type { Hand } from './hands.ts'
import { largestFirst, type Lane } from './types.ts'

export const ORDER_CONSTANTS = {
  stanceSeconds: constant(6, 's', 'Change of stance', 'H'),
  headTurnSeconds: constant(4, 's', 'Turn of the client’s head', 'H'),
  turnOverSeconds: constant(25, 's', 'The client turns over or moves an arm', 'H'),
  toolSeconds: constant(12, 's', 'Change of tool', 'H'),
  laneStartSeconds: constant(2, 's', 'Start of each lane', 'H'),
  lookAgainSeconds: constant(
    0.01,
    's/mm',
    'To a place farther off one has to look and feel again',
    'H',
  ),
  hardStartSeconds: constant(
    20,
    's',
    'Beginning elsewhere than on the flat of the cheek counts as this much longer',
    'H',
  ),
  farSeconds: constant(1, 's', 'Reaching over to the far side of the client', 'H'),
  farStartSeconds: constant(
    10,
    's',
    'Beginning on the far side of the client counts as this much longer',
    'H',
  ),
  searchRounds: constant(
    12,
    'rounds',
    'Rounds of the first search for an order of more than 14 jobs',
    'H',
  ),
} as const

const C = ORDER_CONSTANTS

/** Flat and easy first; these wait for the rest of their pass: longest soaked. */
const LAST: ReadonlySet<ZoneStem> = new Set([
  'nose-bridge',
  'nose-side',
  'mouth-corner',
  'under-lip',
  'chin',
  'upper-lip',
])

/** Bands from top to bottom. */
const BANDS: readonly (readonly ZoneStem[])[] = [
  ['forehead', 'forehead-centre', 'glabella', 'brow'],
  ['temple', 'sideburn', 'nose-bridge', 'nose-side', 'cheek-upper'],
  ['cheek-lower'],
  ['upper-lip', 'mouth-corner', 'under-lip', 'chin', 'jaw'],
  ['under-chin', 'under-chin-centre', 'neck-upper', 'neck-upper-centre'],
  ['neck-lower', 'neck-lower-centre'],
]

const bandOf = (bands: typeof BANDS, l: Lane) =>
  bands.findIndex((b) => b.includes(zoneStem(l.zoneId)))

/** Lanes that are done in one step, the largest first. */
export interface LaneGroup {
  /** That of the step. */
  readonly id: string
  readonly lead: Lane
  readonly lanes: readonly Lane[]
}

/** Lanes by the step that they are done in, in the order in which the steps come up. */
export function groupsOf(lanes: readonly Lane[]): LaneGroup[] {
  const groups = new Map<string, Lane[]>()
  for (const lane of lanes) {
    const id = lane.stepId ?? lane.id
    groups.set(id, [...(groups.get(id) ?? []), lane])
  }
  return [...groups].map(([id, own]) => {
    const sorted = largestFirst(own)
    return { id, lead: sorted[0]!, lanes: sorted }
  })
}

/** A job: a step of lanes, or the lather before a later pass. */
export type Job = { readonly group: LaneGroup } | { readonly lather: number }

/** The jobs of a service. */
export function jobsOf(lanes: readonly Lane[], lather: boolean): Job[] {
  const passes = [...new Set(lanes.map((l) => l.pass))].sort((a, b) => a - b).slice(1)
  return [
    ...groupsOf(lanes).map((group) => ({ group })),
    ...(lather ? passes.map((pass) => ({ lather: pass })) : []),
  ]
}

/** The id of a job: that of its step. */
export const jobId = (job: Job): string => ('group' in job ? job.group.id : `lather:${job.lather}`)

/** A part of a middle zone lies on a side when its middle is farther than this off the client's, mm. */
const MIDDLE_MM = 4

/** True for what lies on the side that the worker does not stand on; of a middle zone a part may. */
function farSide(group: LaneGroup, hand: Hand): boolean {
  const { lead, lanes } = group
  const x = lead.point[0]
  const middle = lanes.every((l) => zoneSide(l.zoneId) === undefined)
  const side =
    groupSide(group) ?? (middle && Math.abs(x) > MIDDLE_MM ? (x > 0 ? 'left' : 'right') : undefined)
  return side !== undefined && side !== nearSide(hand)
}

/** Seconds between two lanes. */
export function changeSeconds(figures: Figures, a: Lane, b: Lane): number {
  const far = distance(a.point, b.point)
  const turn =
    a.headTurn === b.headTurn
      ? 0
      : isBody(a.zoneId)
        ? figures(C.turnOverSeconds)
        : figures(C.headTurnSeconds)
  return (
    (a.stance.hour === b.stance.hour && a.stance.hand === b.stance.hand
      ? 0
      : figures(C.stanceSeconds)) +
    turn +
    (a.bladeId === b.bladeId ? 0 : figures(C.toolSeconds)) +
    Math.min(far, 200) * figures(C.lookAgainSeconds)
  )
}

/** The client's side that the worker stands on: a right hand works from the client's right. */
export const nearSide = (hand: Hand): 'left' | 'right' => hand

/** A side has more work when the other has less than this share of it: a smaller difference is that of the cutting. */
const ALIKE_SHARE = 0.95

/** The client's side that has more work, by the area and the passes on it. */
export function heavierSide(
  lanes: readonly Lane[],
  hand: Hand,
  told?: HeavierSide,
): 'left' | 'right' {
  // Whoever combed it down and looked knows better than areas do.
  if (told === 'left' || told === 'right') return told
  const work = (side: 'left' | 'right') =>
    lanes.filter((l) => zoneSide(l.zoneId) === side).reduce((s, l) => s + l.areaCm2, 0)
  const near = nearSide(hand)
  const far = near === 'left' ? 'right' : 'left'
  // Sides that are alike begin on the worker's own side.
  return work(near) >= ALIKE_SHARE * work(far) ? near : far
}

/** The school that orders a face; undefined where no school does. Fuzz has no heavier side: there it is flat first. */
function faceOrder(
  order: Service['order'],
  schools: Schools,
  family: ServiceFamily,
): Schools['faceOrder'] | undefined {
  if (order === 'heavier-side') return 'most-work-first'
  if (order !== 'school') return undefined
  return schools.faceOrder === 'most-work-first' && family === 'fuzz'
    ? 'flat-first'
    : schools.faceOrder
}

/** What must come before what: passes, lather, and the house's school. */
export function precedences(
  jobs: readonly Job[],
  schools: Schools,
  service: ServiceId,
  hand: Hand,
  told?: HeavierSide,
): [number, number][] {
  const pairs: [number, number][] = []
  const groupAt = (i: number) => (jobs[i] as { group?: LaneGroup }).group
  const { family, order, first } = SERVICES[service]
  const bands = typeof order === 'object' ? order : undefined
  const school = faceOrder(order, schools, family)
  const heavy = heavierSide(
    jobs.flatMap((j) => ('group' in j ? j.group.lanes : [])),
    hand,
    told,
  )
  jobs.forEach((job, i) => {
    if ('lather' in job) {
      jobs.forEach((other, j) => {
        if ('lather' in other) {
          if (other.lather > job.lather) pairs.push([i, j])
        } else pairs.push(other.group.lead.pass >= job.lather ? [i, j] : [j, i])
      })
      return
    }
    const a = job.group.lead
    for (let j = 0; j < jobs.length; j++) {
      const other = groupAt(j)
      if (!other || j === i) continue
      const b = other.lead
      if (a.pass < b.pass && sharesZone(job.group, other)) pairs.push([i, j])
      // With two tools everything of the first tool is done before it is laid down.
      if (first && a.pass < b.pass && a.bladeId !== b.bladeId) pairs.push([i, j])
      if (a.pass !== b.pass) continue
      if (bands && bandOf(bands, a) < bandOf(bands, b)) pairs.push([i, j])
      if (school === undefined) continue
      const lastA = LAST.has(zoneStem(a.zoneId))
      const lastB = LAST.has(zoneStem(b.zoneId))
      if (school === 'flat-first' && !lastA && lastB) pairs.push([i, j])
      if (school === 'top-down' && bandOf(BANDS, a) < bandOf(BANDS, b)) pairs.push([i, j])
      if (school === 'most-work-first') {
        const there = groupSide(other)
        if (groupSide(job.group) === heavy && there !== undefined && there !== heavy)
          pairs.push([i, j])
      }
    }
  })
  return pairs
}

/** The side on which all of a group lies; undefined where it is the middle or both. */
function groupSide({ lanes }: LaneGroup): 'left' | 'right' | undefined {
  const sides = new Set(lanes.map((l) => zoneSide(l.zoneId)))
  return sides.size === 1 ? [...sides][0] : undefined
}

const sharesZone = (a: LaneGroup, b: LaneGroup) =>
  a.lanes.some((l) => b.lanes.some((m) => m.zoneId === l.zoneId))

/** The jobs as a problem of order. */
export function laneProblem(
  figures: Figures,
  jobs: readonly Job[],
  schools: Schools,
  service: ServiceId,
  hand: Hand,
  told?: HeavierSide,
): OrderProblem {
  return orderProblem(
    jobs.length,
    (i, j) => {
      const a = jobs[i]!
      const b = jobs[j]!
      // After lathering one takes a stance anew.
      if ('lather' in a) return figures(C.stanceSeconds) + figures(C.headTurnSeconds)
      if ('lather' in b) return 0
      // One begins on the side that one stands on, and comes to the other once.
      const far = farSide(b.group, hand) && !farSide(a.group, hand)
      const cost =
        changeSeconds(figures, a.group.lead, b.group.lead) + (far ? figures(C.farSeconds) : 0)
      // What differs by rounding alone must not decide: a mirrored client is worked in the mirrored order.
      return Math.round(cost * 1e5) / 1e5
    },
    precedences(jobs, schools, service, hand, told),
    // Flat and easy first, on the near side: the flattest place is where one begins.
    (i) => {
      const job = jobs[i]!
      if ('lather' in job) return 0
      const { lead } = job.group
      const easy = zoneStem(lead.zoneId) === 'cheek-lower'
      return (
        (schools.faceOrder === 'flat-first' && !easy ? figures(C.hardStartSeconds) : 0) +
        (SERVICES[service].order !== 'heavier-side' && farSide(job.group, hand)
          ? figures(C.farStartSeconds)
          : 0)
      )
    },
  )
}
