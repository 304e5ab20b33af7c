/**
 * From grain, skin, hair, screening and schools to a plan with its reasons. One zone is one lane for now; the order
 * follows the house's school.
 */
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import { clockWords } from '../grain/clock.ts'
import type { GrainMap } from '../grain/readings.ts'
import { RELATION_WORDS } from '../grain/relation.ts'
import { plannedHair, type SurfaceNotes } from '../hair/layer.ts'
import type { ZoneRecord } from '../head/head.ts'
import { ZONE_FACTS } from '../head/zoneFacts.ts'
import { zoneStem, type ZoneId } from '../head/zones.ts'
import { constant } from '../house/constants.ts'
import { LINE_CONSTANTS } from '../lines/keepLine.ts'
import { schoolWords, type Schools } from '../house/schools.ts'
import type { Growth } from '../regrowth/growth.ts'
import { markAreas, markMargin, markZones } from '../screening/marks.ts'
import { SPOT_WORDS } from '../screening/rules.ts'
import type { Screening, Spot } from '../screening/screen.ts'
import { SERVICES, serviceZones, workedShare, type ServiceId } from '../services.ts'
import type { Sensitivity } from '../skin/sensitivity.ts'
import { BLADE_CONSTANTS, SERVICE_BLADES, type Blade } from './blades.ts'
import { usableWidthMm } from './bladeFit.ts'
import { freeHand, headTurn, stanceFor, type Hand } from './hands.ts'
import { orderZones } from './order.ts'
import { planPasses } from './passes.ts'
import { closingSteps, latherStep, preparationSteps, tweezeStep } from './routine.ts'
import type { LeftOut, Plan, PlanStep, Reason, ZonePlan } from './types.ts'

export const PLAN_CONSTANTS = {
  strokesPerSecond: constant(
    0.35,
    '1/s',
    'Strokes with feeling, wiping and re-stretching between',
    'H',
  ),
  usedWidth: constant(
    0.6,
    '',
    'Share of the usable width that a stroke clears, the rest overlaps',
    'H',
  ),
  strokeFaceMm: constant(20, 'mm', 'Stroke length on the face and neck', 'H'),
  strokeScalpMm: constant(30, 'mm', 'Stroke length on the scalp', 'H'),
  strokeSmallMm: constant(10, 'mm', 'Stroke length on lip, chin, nose and brow', 'H'),
  laneStartSeconds: constant(2, 's', 'Start of each lane', 'H'),
  stanceSeconds: constant(6, 's', 'Change of stance', 'H'),
  headTurnSeconds: constant(4, 's', 'Turn of the client’s head', 'H'),
} as const

/** Everything a plan depends on. */
export interface PlanInput {
  readonly service: ServiceId
  readonly zones: readonly ZoneRecord[]
  readonly grain: GrainMap
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly hand: Hand
  readonly sensitivity: (zoneId: ZoneId) => Sensitivity
  readonly growth: (zoneId: ZoneId) => Growth
  /** What Read noted besides the grain. */
  readonly notes?: PlanNotes
}

/** Notes of a visit as a plan needs them: lines as the share of each zone that they keep. */
export interface PlanNotes extends Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays'> {
  readonly keptShares: Partial<Record<ZoneId, number>>
}

const SMALL = new Set([
  'upper-lip',
  'mouth-corner',
  'under-lip',
  'chin',
  'nose-bridge',
  'nose-side',
  'glabella',
])

function strokeLengthMm(zoneId: ZoneId): number {
  const stem = zoneStem(zoneId)
  if (SMALL.has(stem)) return PLAN_CONSTANTS.strokeSmallMm.value
  return stem.startsWith('scalp') || stem === 'occiput'
    ? PLAN_CONSTANTS.strokeScalpMm.value
    : PLAN_CONSTANTS.strokeFaceMm.value
}

/** The widest blade that the place can take; a small place takes the smallest. */
function chooseBlade(
  service: ServiceId,
  zone: ZoneRecord,
): { blade: Blade; widthMm: number; reason: Reason } {
  const blades = SERVICE_BLADES[service]
  const radius = zone.curvature.tightMm
  const fits = blades.find((b) => usableWidthMm(b.edgeMm, radius, zone.bed) >= b.edgeMm - 1e-9)
  const blade = SMALL.has(zoneStem(zone.id))
    ? blades[blades.length - 1]!
    : (fits ?? blades[blades.length - 1]!)
  const widthMm = Math.round(usableWidthMm(blade.edgeMm, radius, zone.bed))
  const round =
    radius > 0 && radius < 5000
      ? `its tightest round is about ${Math.round(radius)} mm`
      : 'it is nearly flat'
  return {
    blade,
    widthMm,
    reason: {
      text:
        widthMm >= blade.edgeMm - 0.5
          ? `The ${blade.edgeMm} mm edge of the ${blade.name} lies on fully: ${round}.`
          : `Of the ${blade.edgeMm} mm edge about ${widthMm} mm touch: ${round}. Narrow sections.`,
      mark: 'H',
    },
  }
}

/** Seconds of work for one pass. */
export function passSeconds(areaCm2: number, widthMm: number, strokeMm: number): number {
  const perStroke = widthMm * PLAN_CONSTANTS.usedWidth.value * strokeMm
  return (areaCm2 * 100) / perStroke / PLAN_CONSTANTS.strokesPerSecond.value
}

/** Strokes for one pass. */
export function passStrokes(areaCm2: number, widthMm: number, strokeMm: number): number {
  return Math.max(
    1,
    Math.round((areaCm2 * 100) / (widthMm * PLAN_CONSTANTS.usedWidth.value * strokeMm)),
  )
}

/**
 * Makes a plan.
 * @throws DomainError `not-cleared` when asking has not cleared the service, `nothing-left` when every zone is left out
 */
export function makePlan(input: PlanInput): Plan {
  const { service, screening, schools, client } = input
  const { family, slotMin } = SERVICES[service]
  if (screening.verdict === 'postpone' || screening.verdict === 'refer') {
    throw new DomainError(
      'not-cleared',
      'Asking has not cleared this service, so there is no plan to make. See Ask.',
    )
  }
  if (
    family === 'razor' &&
    service === 'face-shave' &&
    client.bumpProne &&
    schools.bumpProneShave === 'clippers'
  ) {
    throw new DomainError(
      'clippers-only',
      'The house’s school for a bump-prone beard is clippers only until clear: no razor is planned. Change the school in House if this client differs.',
    )
  }
  const byId = new Map(input.zones.map((z) => [z.id, z]))
  const hazards = input.zones
    .filter((z) => !z.skin && z.id !== 'base')
    .map((z) => ({ name: hazardName(z.id), at: z.centre.point }))
  const leftOut: LeftOut[] = []
  const zones: ZonePlan[] = []
  for (const id of serviceZones(service)) {
    const zone = byId.get(id)!
    if (screening.leaveOutZones.includes(id)) {
      leftOut.push({ zoneId: id, name: zone.name, reason: 'Marked at Ask: the whole zone stays.' })
      continue
    }
    const stays = staysWhole(input.notes, id)
    if (stays !== undefined) {
      leftOut.push({ zoneId: id, name: zone.name, reason: stays })
      continue
    }
    zones.push(planZone(input, zone, hazards))
  }
  if (zones.length === 0) {
    throw new DomainError(
      'nothing-left',
      'Every zone of this service is left out, so there is nothing to plan.',
    )
  }

  const ordered = orderZones(zones, schools, family, service)
  const steps: PlanStep[] = preparationSteps(service, schools, screening.noFragrance)
  const strays = (input.notes?.strays ?? []).filter((s) => zones.some((z) => z.zoneId === s.zoneId))
  if (strays.length > 0) steps.splice(1, 0, tweezeStep(strays.map((s) => byId.get(s.zoneId)!.name)))
  const most = Math.max(...zones.map((z) => z.passes.length))
  for (let pass = 1; pass <= most; pass++) {
    if (pass > 1) steps.push(latherStep(pass))
    let stance = -1
    let turn = ''
    for (const zone of ordered) {
      const planned = zone.passes[pass - 1]
      if (!planned) continue
      const step = strokeStep(input, zone, planned)
      let seconds =
        passSeconds(zone.areaCm2, zone.usableWidthMm, zone.strokeLengthMm) +
        PLAN_CONSTANTS.laneStartSeconds.value
      if (step.stance!.hour !== stance) seconds += PLAN_CONSTANTS.stanceSeconds.value
      if (step.headTurn !== turn) seconds += PLAN_CONSTANTS.headTurnSeconds.value
      stance = step.stance!.hour
      turn = step.headTurn!
      steps.push({ ...step, minutes: seconds / 60 })
    }
  }
  steps.push(...closingSteps(service, screening.noFragrance))
  const totalMinutes = steps.reduce((s, step) => s + step.minutes, 0)
  const guesses = zones.filter((z) => z.grainSource === 'guess').length
  const reasons: Reason[] = [
    {
      text:
        family === 'razor'
          ? `Order: ${schoolWords('faceOrder', schools.faceOrder).toLowerCase()}.`
          : `Order: ${schoolWords('faceOrder', schools.faceOrder === 'most-work-first' ? 'flat-first' : schools.faceOrder).toLowerCase()}.`,
      mark: 'C',
    },
    { text: 'No pressure: the blade glides. If it needs pressure it is done.', mark: 'C' },
  ]
  if (guesses > 0) {
    reasons.push({
      text: `${guesses} of ${zones.length} zones were not read: their direction is a starting guess. Feel before you cut.`,
      mark: 'H',
    })
  }
  if (totalMinutes > slotMin) {
    reasons.push({
      text: `This is ${Math.ceil(totalMinutes - slotMin)} min over the slot of ${slotMin} min.`,
      mark: 'H',
    })
  }
  return {
    version: 1,
    service,
    schools,
    steps,
    zones: ordered,
    leftOut,
    totalMinutes,
    slotMinutes: slotMin,
    reasons,
    screening,
    noFragrance: screening.noFragrance,
  }
}

/** Why a zone is not worked at all, from what was noted at Read. */
function staysWhole(notes: PlanNotes | undefined, id: ZoneId): string | undefined {
  if (!notes) return undefined
  if (notes.keptZones.includes(id)) return 'Kept: marked at Read.'
  if ((notes.keptShares[id] ?? 0) >= LINE_CONSTANTS.wholeZoneShare.value) {
    return 'Kept: it lies behind a keep-line.'
  }
  return notes.hair[id]?.density === 'none' ? 'No hair grows here.' : undefined
}

function hazardName(id: ZoneId): string {
  return zoneStem(id) === 'lips' ? 'lips' : zoneStem(id)
}

function planZone(
  input: PlanInput,
  zone: ZoneRecord,
  hazards: readonly { name: string; at: readonly [number, number, number] }[],
): ZonePlan {
  const { service, client, screening, schools } = input
  const { family } = SERVICES[service]
  const grain = input.grain[zone.id]
  const kind = plannedHair(zone.id, client, input.notes?.hair ?? {})
  const growth = input.growth(zone.id)
  const chosen = chooseBlade(service, zone)
  const { passes, refused, reasons } = planPasses({
    zone,
    service,
    family,
    growthDirection: grain?.growthDirection ?? 0,
    hair: kind === 'vellus' ? 'fuzz' : 'terminal',
    tool: chosen.blade.tool,
    growthMmPerDay: growth.mean,
    sensitivity: input.sensitivity(zone.id),
    bumpProne: client.bumpProne,
    curlTight: (input.notes?.hair[zone.id]?.curl ?? client.curl) === 'tight',
    schools,
    screening,
    hazards,
  })
  const spots = screening.leaveOutSpots.filter((s) => markZones(s).includes(zone.id))
  const kept = input.notes?.keptShares[zone.id] ?? 0
  const last = passes[passes.length - 1]!
  const all: Reason[] = [...reasons, chosen.reason]
  if (grain?.source !== 'read') {
    all.push({ text: 'Not read: the direction is a starting guess.', mark: 'H' })
  } else if (grain.readInParts) {
    all.push({
      text: `The readings here agree little (R ${grain.summary!.meanResultantLength.toFixed(2)}): feel each part.`,
      mark: 'H',
    })
  }
  return {
    zoneId: zone.id,
    name: zone.name,
    growthDirection: grain?.growthDirection ?? 0,
    grainSource: grain?.source ?? 'guess',
    blade: chosen.blade.name,
    bladeAngleDeg: chosen.blade.angleDeg,
    usableWidthMm: chosen.widthMm,
    strokeLengthMm: strokeLengthMm(zone.id),
    areaCm2: Math.max(
      0.3,
      zone.areaCm2 * workedShare(service, zone.id) * (1 - kept) - spotsAreaCm2(spots, zone.id),
    ),
    passes,
    refused,
    totalLoad: passes.reduce((s, p) => s + p.load, 0),
    smoothHours: last.smoothHours,
    rednessOdds: last.rednessOdds,
    avoid: [
      ...spots.map((s) =>
        s.trail
          ? `${SPOT_WORDS[s.kind]}: leave the patch and ${markMargin(s)} mm round it`
          : `${SPOT_WORDS[s.kind]}: leave ${s.radiusMm + markMargin(s)} mm round it`,
      ),
      ...(kept > 0 ? [`keep-line: ${Math.round(100 * kept)} % of this zone stays`] : []),
    ],
    reasons: all,
  }
}

function spotsAreaCm2(spots: readonly Spot[], zoneId: ZoneId): number {
  return spots.reduce((s, p) => s + (markAreas(p)[zoneId] ?? 0), 0)
}

function strokeStep(
  input: PlanInput,
  zone: ZonePlan,
  planned: ZonePlan['passes'][number],
): PlanStep {
  const facts = ZONE_FACTS[zoneStem(zone.zoneId)]
  const hand = freeHand(zone.zoneId, planned.strokeBearing, input.client.bumpProne, input.schools)
  const short = zone.strokeLengthMm <= PLAN_CONSTANTS.strokeSmallMm.value
  const fuzz = SERVICES[input.service].family === 'fuzz'
  const towardWorker = fuzz && input.schools.fuzzDirection === 'toward-worker'
  const stance = stanceFor(zone.zoneId, input.hand, SERVICES[input.service].family)
  return {
    id: `${zone.zoneId}:${planned.pass}`,
    kind: 'stroke',
    title: zone.name,
    text: `${capital(RELATION_WORDS[planned.relation])}, toward ${clockWords(planned.strokeBearing)}. ${short ? 'Short strokes' : 'Strokes'} of about ${zone.strokeLengthMm / 10} cm. No pressure.`,
    minutes: 0,
    zoneId: zone.zoneId,
    pass: planned.pass,
    relation: planned.relation,
    strokeBearing: planned.strokeBearing,
    growthDirection: zone.growthDirection,
    bladeAngleDeg: zone.bladeAngleDeg,
    blade: zone.blade,
    freeHand: hand.text,
    pullBearing: hand.pullBearing,
    stance: towardWorker
      ? { hour: stance.hour, text: `Stand where the stroke comes toward you. ${stance.text}` }
      : stance,
    headTurn: headTurn(zone.zoneId),
    strokes: passStrokes(zone.areaCm2, zone.usableWidthMm, zone.strokeLengthMm),
    watch: facts.watch,
    avoid: zone.avoid,
  }
}

/** Expected strokes of a blade's life for a client's hair. */
export function bladeLifeStrokes(service: ServiceId, client: SkinAndHair): number {
  if (SERVICES[service].family === 'fuzz') return BLADE_CONSTANTS.lifeFuzz.value
  return client.coarseness === 'coarse'
    ? BLADE_CONSTANTS.lifeCoarse.value
    : client.coarseness === 'fine'
      ? BLADE_CONSTANTS.lifeFine.value
      : Math.round((BLADE_CONSTANTS.lifeCoarse.value + BLADE_CONSTANTS.lifeFine.value) / 2)
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
