/** Lanes as jobs: what it costs to go from one to the next, and what must wait for what (M9). */
import { zoneStem, type ZoneStem, isBody, zoneSide } from '../zones/index.ts'
import { constant, type Figures, type Schools } from '../house/index.ts'
import { orderProblem, type OrderProblem } from '../order/index.ts'
import { SERVICES, type ServiceId, type Service, type ServiceFamily } from '../services/index.ts'
import type { Lane } from './types.ts'

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

/** A job: a lane, or the lather before a later pass. */
export type Job = { readonly lane: Lane } | { readonly lather: number }

/** The jobs of a service. */
export function jobsOf(lanes: readonly Lane[], lather: boolean): Job[] {
  const passes = [...new Set(lanes.map((l) => l.pass))].sort((a, b) => a - b).slice(1)
  return [
    ...lanes.map((lane) => ({ lane })),
    ...(lather ? passes.map((pass) => ({ lather: pass })) : []),
  ]
}

/** Seconds between two lanes. */
export function changeSeconds(figures: Figures, a: Lane, b: Lane): number {
  const far = Math.hypot(a.point[0] - b.point[0], a.point[1] - b.point[1], a.point[2] - b.point[2])
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

/** The client's side that has more work, by the area and the passes on it. */
export function heavierSide(lanes: readonly Lane[]): 'left' | 'right' {
  const work = (side: 'left' | 'right') =>
    lanes.filter((l) => zoneSide(l.zoneId) === side).reduce((s, l) => s + l.areaCm2, 0)
  // Sides that are alike but for rounding begin on the left.
  return work('left') >= work('right') - 0.05 ? 'left' : 'right'
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
): [number, number][] {
  const pairs: [number, number][] = []
  const laneAt = (i: number) => (jobs[i] as { lane?: Lane }).lane
  const { family, order, first } = SERVICES[service]
  const bands = typeof order === 'object' ? order : undefined
  const school = faceOrder(order, schools, family)
  const heavy = heavierSide(jobs.flatMap((j) => ('lane' in j ? [j.lane] : [])))
  jobs.forEach((job, i) => {
    if ('lather' in job) {
      jobs.forEach((other, j) => {
        if ('lather' in other) {
          if (other.lather > job.lather) pairs.push([i, j])
        } else pairs.push(other.lane.pass >= job.lather ? [i, j] : [j, i])
      })
      return
    }
    const a = job.lane
    for (let j = 0; j < jobs.length; j++) {
      const b = laneAt(j)
      if (!b || j === i) continue
      if (a.zoneId === b.zoneId && a.pass < b.pass) pairs.push([i, j])
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
        const other = zoneSide(b.zoneId)
        if (zoneSide(a.zoneId) === heavy && other !== undefined && other !== heavy)
          pairs.push([i, j])
      }
    }
  })
  return pairs
}

/** The jobs as a problem of order. */
export function laneProblem(
  figures: Figures,
  jobs: readonly Job[],
  schools: Schools,
  service: ServiceId,
): OrderProblem {
  return orderProblem(
    jobs.length,
    (i, j) => {
      const a = jobs[i]!
      const b = jobs[j]!
      // After lathering one takes a stance anew.
      if ('lather' in a) return figures(C.stanceSeconds) + figures(C.headTurnSeconds)
      return 'lather' in b ? 0 : changeSeconds(figures, a.lane, b.lane)
    },
    precedences(jobs, schools, service),
    // Flat and easy first: the flattest place is where one begins.
    (i) => {
      const job = jobs[i]!
      const easy = 'lane' in job && zoneStem(job.lane.zoneId) === 'cheek-lower'
      return schools.faceOrder === 'flat-first' && !easy ? figures(C.hardStartSeconds) : 0
    },
  )
}
