/** Walks through the lanes in order: steps with their times, lather renewed when it dries, a fresh blade where one is done. */
import { capital } from '../words.ts'
import { zoneBase, type ZoneId, zoneSide } from '../zones/index.ts'
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { clockWords, RELATION_WORDS } from '../grain/index.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { Screening } from '../screening/index.ts'
import { type ServiceId, SERVICES, ROUTINE_CONSTANTS } from '../services/index.ts'
import type { BladeId } from '../kit/index.ts'
import { changeSeconds, ORDER_CONSTANTS } from './order.ts'
import {
  betweenPasses,
  closingSteps,
  feelStep,
  preparationSteps,
  renewLather,
  tweezeStep,
} from './routine.ts'
import type { SkinGround } from './skin.ts'
import { bladeLifeStrokes } from './tools.ts'
import type { Lane, PlanStep, ZonePlan } from './types.ts'

/** What walking depends on besides the lanes. */
export interface WalkInput {
  readonly figures: Figures
  readonly service: ServiceId
  readonly schools: Schools
  readonly screening: Pick<Screening, 'noFragrance'>
  readonly client: SkinAndHair
  readonly ground: Pick<SkinGround, 'records'>
  readonly notes: Pick<SurfaceNotes, 'strays'>
}

/** Steps with what they need and how long they take. */
export interface Walked {
  readonly steps: PlanStep[]
  readonly blades: Map<BladeId, number>
  readonly totalMinutes: number
}

/** Walks through the lanes. */
export function walkThrough(
  input: WalkInput,
  lanes: readonly Lane[],
  zones: readonly ZonePlan[],
): Walked {
  const { service, schools, screening } = input
  const C = ORDER_CONSTANTS
  const steps: PlanStep[] = preparationSteps(input.figures, service, schools, screening.noFragrance)
  const strays = straysOf(input, zones)
  if (strays.length > 0) {
    steps.splice(
      1,
      0,
      tweezeStep(
        input.figures,
        strays.map((s) => input.ground.records.get(s.zoneId)!.name),
      ),
    )
  }
  // Dry skin shows which way its hair grows; under a towel or lather nothing can be felt any more.
  steps.splice(1, 0, ...feelSteps(input, lanes))
  const life = bladeLifeStrokes(input.figures, service, input.client)
  const all = lanes.reduce((s, l) => s + l.strokes, 0)
  const half =
    SERVICES[service].changesByFeel && schools.headBlade === 'by-feel' ? all / 2 : Infinity
  const blades = new Map<BladeId, number>()
  const onBlade = new Map<BladeId, number>()
  const parts = new Map<string, number>()
  for (const l of lanes)
    parts.set(`${l.zoneId}:${l.pass}`, (parts.get(`${l.zoneId}:${l.pass}`) ?? 0) + 1)
  let pass = 1
  let fresh = 0
  let renewed = 0
  let strokes = 0
  let halfway = false
  let before: Lane | undefined
  lanes.forEach((lane, i) => {
    if (lane.pass > pass) {
      const between = betweenPasses(input.figures, service, lane.pass)
      if (between) {
        steps.push(between)
        fresh = 0
        before = undefined
      }
      pass = lane.pass
    } else if (
      SERVICES[service].lather &&
      fresh + lane.seconds > input.figures(ROUTINE_CONSTANTS.latherLastsMin) * 60 &&
      i > 0
    ) {
      steps.push(renewLather(input.figures, ++renewed))
      fresh = 0
    }
    let freshBlade = false
    const used = onBlade.get(lane.bladeId) ?? 0
    if (!blades.has(lane.bladeId)) blades.set(lane.bladeId, 1)
    else if (used + lane.strokes > life || (!halfway && strokes >= half)) {
      freshBlade = true
      blades.set(lane.bladeId, blades.get(lane.bladeId)! + 1)
      onBlade.set(lane.bladeId, 0)
    }
    if (strokes >= half) halfway = true
    const change =
      input.figures(C.laneStartSeconds) +
      (before
        ? changeSeconds(input.figures, before, lane)
        : input.figures(C.stanceSeconds) + input.figures(C.headTurnSeconds)) +
      (freshBlade ? input.figures(C.toolSeconds) : 0)
    const seconds = lane.seconds + change
    steps.push(
      strokeStep(lane, parts.get(`${lane.zoneId}:${lane.pass}`)!, seconds / 60, freshBlade),
    )
    fresh += seconds
    strokes += lane.strokes
    // A lane longer than a blade's life wears out more than one.
    const after = (onBlade.get(lane.bladeId) ?? 0) + lane.strokes
    const extra = Math.max(0, Math.ceil(after / life) - 1)
    blades.set(lane.bladeId, blades.get(lane.bladeId)! + extra)
    onBlade.set(lane.bladeId, after - extra * life)
    before = lane
  })
  steps.push(...closingSteps(input.figures, service, screening.noFragrance))
  return { steps, blades, totalMinutes: steps.reduce((s, step) => s + step.minutes, 0) }
}

const nameOf = (input: WalkInput, lane: Lane) => input.ground.records.get(lane.zoneId)!.name

/** One step for each zone in which a lane goes by a guess, in the order in which they are worked. */
function feelSteps(input: WalkInput, lanes: readonly Lane[]): PlanStep[] {
  const seen = new Map<ZoneId, Lane>()
  for (const lane of lanes) {
    const had = seen.get(lane.zoneId)
    if (lane.grain === 'guess' && (!had || lane.areaCm2 > had.areaCm2)) seen.set(lane.zoneId, lane)
  }
  return [...seen.values()].map((lane) => ({
    ...feelStep(input.figures, lane, nameOf(input, lane)),
    short: `Feel first: ${laneTitle(lane, 1, true)}`,
  }))
}

/** Strays to tweeze in the zones that are worked. */
export function straysOf({ notes }: WalkInput, zones: readonly ZonePlan[]) {
  return notes.strays.filter((s) => zones.some((z) => z.zoneId === s.zoneId))
}

/** "Upper neck, part b, client's left" where a zone has several lanes; short: "Upper neck, part b, left". */
export function laneTitle(
  { zoneId, letter }: Pick<Lane, 'zoneId' | 'letter'>,
  parts: number,
  short = false,
): string {
  const side = zoneSide(zoneId)
  return [
    zoneBase(zoneId),
    ...(parts > 1 ? [`part ${letter}`] : []),
    ...(side ? [short ? side : `client's ${side}`] : []),
  ].join(', ')
}

/** The step at the chair of a lane. */
export function strokeStep(
  lane: Lane,
  parts: number,
  minutes: number,
  freshBlade: boolean,
): PlanStep {
  const short = lane.strokeLengthMm <= 10
  return {
    id: lane.id,
    kind: 'stroke',
    title: laneTitle(lane, parts),
    short: laneTitle(lane, parts, true),
    text: `${capital(RELATION_WORDS[lane.relation])}, toward ${clockWords(lane.strokeBearing)}${lane.grain === 'guess' ? ', by a guess: go by what you felt' : ''}. ${short ? 'Short strokes' : 'Strokes'} of about ${lane.strokeLengthMm < 10 ? `${lane.strokeLengthMm} mm` : `${(lane.strokeLengthMm / 10).toFixed(lane.strokeLengthMm % 10 === 0 ? 0 : 1)} cm`}. No pressure.`,
    minutes,
    jobId: lane.jobId,
    zoneId: lane.zoneId,
    pass: lane.pass,
    laneId: lane.id,
    relation: lane.relation,
    strokeBearing: lane.strokeBearing,
    blade: freshBlade ? `${lane.blade}, a fresh one` : lane.blade,
    strokes: lane.strokes,
    areaCm2: lane.areaCm2,
    leftMm: lane.leftMm,
    ...(freshBlade && { freshBlade: true as const }),
  }
}
