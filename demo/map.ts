/** Maps and lines as a careful worker would make them, from the hidden truth. */
import { toRadians, type Reading, type ReadingMethod } from '../core/grain/index.ts'
import { BODY_ZONES } from '../core/body/index.ts'
import { tangentPart, unit, type Vec3, type SurfacePoint } from '../core/head/index.ts'
import { zoneStem } from '../core/zones/index.ts'
import {
  type KeepLine,
  type LineKind,
  type Outline,
  placeOn,
  shiftTaps,
  stepTaps,
  usualLine,
  usualStrip,
} from '../core/lines/index.ts'
import {
  isBodyService,
  isPlanned,
  jobZones,
  type ServiceId,
  serviceZones,
} from '../core/services/index.ts'
import { drawNormal } from '../core/stats/index.ts'
import { DEFAULTS } from '../core/house/index.ts'
import { atlas, ZONES } from '../server/atlas.ts'
import { type Person, TRUE_READERS_DEG } from './people.ts'
import { trueGrain } from './truth.ts'

export const zoneById = new Map([...ZONES, ...BODY_ZONES].map((z) => [z.id, z]))

/** Hair of arms and legs runs down the limb and a little outward. */
const bodyGrain = (at: { point: Vec3 }): Vec3 => unit([at.point[0] > 0 ? 0.25 : -0.25, -1, 0])

/** Readings of the zones of a client's service, as their worker makes them: one with a surer hand than the other. */
export function makeReadings(
  person: Person,
  atMs: number,
  random: () => number,
  newId: () => string,
): Reading[] {
  const methods: ReadingMethod[] = ['felt', 'felt', 'pad', 'looked', 'card']
  const grows = growthOf(person)
  const out: Reading[] = []
  for (const id of person.rhythms
    ? person.rhythms.flatMap(({ job }) => (isPlanned(job.method) ? jobZones(job) : []))
    : serviceZones(person.service)) {
    // Now and then a zone is not read.
    if (random() < 0.12) continue
    const zone = zoneById.get(id)!
    const strokes = zoneStem(id) === 'scalp-crown' ? 6 : 1 + Math.floor(random() * 3)
    for (let i = 0; i < strokes; i++) {
      const at = zone.samples[Math.floor(random() * zone.samples.length)]!
      const truth = grows(at)
      const noise = toRadians(TRUE_READERS_DEG[person.worker]) * drawNormal(random)
      const side = unit([
        at.normal[1] * truth[2] - at.normal[2] * truth[1],
        at.normal[2] * truth[0] - at.normal[0] * truth[2],
        at.normal[0] * truth[1] - at.normal[1] * truth[0],
      ])
      const tangent = unit(
        tangentPart(
          truth.map((c, k) => Math.cos(noise) * c + Math.sin(noise) * side[k]!) as unknown as Vec3,
          at.normal,
        ),
      )
      out.push({
        id: newId(),
        zoneId: id,
        point: at.point,
        normal: at.normal,
        tangent,
        method: methods[Math.floor(random() * methods.length)]!,
        atMs: atMs + i * 1000,
      })
    }
  }
  return out
}

/** The hidden growth at a place of a person's skin. */
export const growthOf = (person: Person): ((at: SurfacePoint) => Vec3) =>
  isBodyService(person.service) ? bodyGrain : trueGrain(person)

const LINES: Readonly<Partial<Record<ServiceId, readonly LineKind[]>>> = {
  'beard-line': ['cheek', 'neck'],
  'brow-tidy': ['brow', 'brow-under'],
}

/** The lines of somebody whose beard or brow is kept. */
/** How far the cheek line of one story was lowered, mm, and in how many visits. */
const LOWERED = { mm: -8, steps: 4 } as const

/** Lines on their way: the cheek's as it stands after so many steps. */
export function loweredCheek(lines: readonly KeepLine[], step: number): KeepLine[] {
  const place = placeOn(atlas(DEFAULTS).surface())
  const { mm, steps } = LOWERED
  return lines.map((line) => {
    if (line.kind !== 'cheek' || step <= 0) return line
    const move = {
      from: line.taps,
      to: shiftTaps(line, mm, place),
      steps,
      at: Math.min(step, steps),
    }
    const taps = stepTaps(move, step, place)
    return { ...line, taps, ...(step < steps && { move }) }
  })
}

/** A trial strip where it usually lies. */
export const trialStrip = (newId: () => string, drawnAtMs: number): Outline => ({
  ...{ id: newId(), kind: 'trial', drawnAtMs },
  taps: usualStrip(zoneById.get('jaw-left')!, placeOn(atlas(DEFAULTS).surface())),
})

export function usualLines(service: ServiceId, newId: () => string, drawnAtMs: number): KeepLine[] {
  const kinds = LINES[service]
  if (!kinds) return []
  const place = placeOn(atlas(DEFAULTS).surface())
  return kinds.flatMap((kind) =>
    (['left', 'right'] as const).map((side) => ({
      ...usualLine(kind, side, place),
      id: newId(),
      drawnAtMs,
    })),
  )
}
