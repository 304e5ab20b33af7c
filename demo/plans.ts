/** Plans of past visits: made once for each map, skin and school. */
import { DEFAULTS } from '../core/house/constants.ts'
import { hairIn, type SkinAndHair } from '../core/client.ts'
import { toFieldReading, type Reading } from '../core/grain/readings.ts'
import type { SurfaceNotes } from '../core/hair/layer.ts'
import type { Schools } from '../core/house/schools.ts'
import { BLADE_IDS } from '../core/kit/blades.ts'
import { tangentPart, unit } from '../core/head/frames.ts'
import { consentText } from '../core/screening/consent.ts'
import { bodyFlow, bodyGround, drawnLines } from '../core/plan/ground.ts'
import type { Hand } from '../core/plan/hands.ts'
import { makePlan, type PlanInput } from '../core/plan/makePlan.ts'
import { PlanMemory } from '../core/plan/question.ts'
import { FIRST_CHOICE, type Plan } from '../core/plan/types.ts'
import type { Style } from '../core/services/service.ts'
import { priorGrowth } from '../core/regrowth/growth.ts'
import { RULES } from '../core/screening/rules.ts'
import { screen } from '../core/screening/screen.ts'
import type { Asked, Consent } from '../core/screening/asked.ts'
import type { SkinMark } from '../core/screening/asked.ts'
import { isBodyService } from '../core/services/index.ts'
import { priorSensitivity, type Sensitivity } from '../core/skin/sensitivity.ts'
import { dateOf } from '../core/time/dates.ts'
import { atlas } from '../server/atlas.ts'
import { flowFrom, offsetMinutes } from '../server/visits/plan.ts'
import { packPlan } from '../server/visits/planStore.ts'
import { growthOf } from './map.ts'
import type { Person } from './people.ts'
import { trueFlow } from './truth.ts'

export type SkinOf = Pick<PlanInput, 'ground' | 'flow' | 'room' | 'lines' | 'memory'>

/** The skin that a person's past plans worked on. */
export function makeSkin(
  person: Person,
  readings: readonly Reading[],
  notes: SurfaceNotes,
): SkinOf {
  const memory = new PlanMemory()
  if (isBodyService(person.service)) {
    const given = readings.map((r) => toFieldReading(DEFAULTS, r, r.atMs))
    return {
      ground: bodyGround(),
      flow: bodyFlow(DEFAULTS, given),
      room: undefined,
      lines: [],
      memory,
    }
  }
  const head = atlas(DEFAULTS)
  return {
    ground: head.ground,
    flow: trueFlow(person),
    room: head.room,
    lines: drawnLines(head.surface, notes.lines),
    memory,
  }
}

/** All questions answered with no. */
export function nothingFound(spots: readonly SkinMark[] = []): Asked {
  return { answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])), spots }
}

/** A name written by hand, as far as it matters here. */
const SIGNATURE =
  'M22.0 70.0L34.0 38.0L46.0 72.0L58.0 44.0L72.0 70.0L90.0 58.0L112.0 66.0L150.0 60.0L196.0 64.0'

/** What was signed before the first service. */
export const signed = (person: Person, atMs: number): Consent => ({
  text: consentText(person.service),
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
  v: Omit<PlannedVisit, 'skinOf'>,
  newId: () => string,
): Reading[] {
  const grows = growthOf(person)
  const felt: Reading[] = []
  for (let round = 0; round < 2; round++) {
    const known = [...readings, ...felt].map((r) => toFieldReading(DEFAULTS, r, v.atMs))
    const skin = makeSkin(person, [], v.notes)
    const flow = flowFrom(DEFAULTS, person.service, known)
    const plan = makePlan(
      questionOf(
        { ...v, skinOf: { ...skin, flow } },
        priorSensitivity(DEFAULTS, v.skin.reactivity),
      ),
    )
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
  readonly worker: { readonly hand: Hand }
  readonly spots: readonly SkinMark[]
  readonly notes: SurfaceNotes
  readonly skinOf: SkinOf
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly style: Style
}

export type Planner = (v: PlannedVisit, prior: Sensitivity) => { plan: Plan; packed: Buffer }

/** Plans a person's visits; while map, skin and schools stay as they are the plan is the same and is made once. */
export function planner(): Planner {
  let last: { of: readonly unknown[]; plan: Plan; packed: Buffer } | undefined
  return (v, prior) => {
    const of = [v.skinOf, v.skin.bumpProne, JSON.stringify(v.schools), v.style]
    if (!last || of.some((x, i) => x !== last!.of[i])) {
      const plan = makePlan(questionOf(v, prior))
      last = { of, plan, packed: packPlan(plan) }
    }
    return last
  }
}

function questionOf(v: PlannedVisit, prior: Sensitivity): PlanInput {
  const { person, atMs } = v
  const offset = offsetMinutes(atMs)
  const asked = nothingFound(v.spots)
  return {
    figures: DEFAULTS,
    ...v.skinOf,
    service: person.service,
    client: v.skin,
    screening: screen(
      DEFAULTS,
      person.service,
      asked,
      v.schools,
      dateOf(atMs, offset),
      atMs,
      offset,
    ),
    schools: v.schools,
    hand: v.worker.hand,
    level: 'practised',
    kit: BLADE_IDS,
    sensitivity: () => prior,
    growth: (zone) => priorGrowth(DEFAULTS, zone, hairIn(zone, v.skin.faceHair)),
    notes: v.notes,
    house: { version: 0, changed: {} },
    choice: { ...FIRST_CHOICE, style: v.style },
  }
}
