/** What follows a past service, drawn from hidden truths: redness that fades, bumps in their places, hair that comes back. */
import { DEFAULTS } from '../core/house/index.ts'
import {
  type HiddenSkin,
  drawBumps,
  drawDay,
  drawFaded,
  drawGrades,
  drawGrowth,
  drawLook,
  drawSkin,
} from '../core/simulate/index.ts'
import { hairIn, type SkinAndHair } from '../core/client.ts'
import { tangentPart, unit, type Vec3 } from '../core/head/index.ts'
import { zoneStem, type ZoneId } from '../core/zones/index.ts'
import {
  severeSigns,
  type Feeling,
  type HairReading,
  type SkinAnswer,
  type SkinSpot,
  type ZoneAnswer,
  type Moment,
} from '../core/looks/index.ts'
import {
  daysToLength,
  GROWTH_CONSTANTS,
  hairLengthMm,
  priorGrowth,
  thresholdMm,
} from '../core/regrowth/index.ts'
import { VISIT_CONSTANTS } from '../core/skin/index.ts'
import { zonesOfJobs } from '../core/services/index.ts'
import { drawNormal, drawPoisson } from '../core/stats/index.ts'
import { DAY_MS, HOUR_MS } from '../core/time/index.ts'
import { zoneById } from './map.ts'
import type { Person } from './people.ts'
import { jobsOf } from './plans.ts'

/** Share of follow-up questions that nobody answers. */
const NOT_ANSWERED = 0.22
/** Spots are tapped on visits of so many days back; before that they were only counted. */
const SPOTS_KEPT_DAYS = 150
/** A severe answer to a visit of so many days back would still stand. */
const ALARM_DAYS = 40
/** Share of bumps that come in a place where there was one before. */
const SAME_PLACE = 0.45

const onNeck = (z: string) => z.startsWith('neck') || z.startsWith('under-chin')

/** The hidden truth of a person, drawn once. */
export interface Truth {
  readonly skin: HiddenSkin
  /** mm a day, by zone. */
  readonly growth: Readonly<Record<string, number>>
  /** Grades a day. */
  readonly fadesPerDay: number
  /** By how much the length at which hair is felt, and seen, lies over the usual, mm. */
  readonly thresholdMm: { readonly felt: number; readonly seen: number }
  /** Spread of the length at which one notices, mm. */
  readonly noticesMm: number
  /** Places where bumps come again and again. */
  readonly badPlaces: { zoneId: string; point: Vec3; normal: Vec3; last?: string }[]
}

export function drawTruth(person: Person, random: () => number): Truth {
  const zones = zonesOfJobs(jobsOf(person))
  const { gradePerLoad: grade, bumpsPerLoad: bumps, growthFactor, zonesAlike } = person.truth
  const own = { grade, bumps }
  const skin = drawSkin(DEFAULTS, random, zones, own, own, zonesAlike)
  // Bumps keep to the neck (common practice).
  const bumpsPerLoad = Object.fromEntries(
    Object.entries(skin.bumpsPerLoad).map(([z, k]) => [z, k * (onNeck(z) ? 1.6 : 0.5)]),
  )
  const growth = Object.fromEntries(
    zones.map((z) => {
      const prior = priorGrowth(DEFAULTS, z, hairIn(z, person.skin.faceHair))
      // One person's zones are more alike than those of different people.
      const theirs = { ...prior, mean: prior.mean * growthFactor, sd: prior.sd * 0.4 }
      return [z, drawGrowth(random, theirs)]
    }),
  )
  return {
    skin: { ...skin, bumpsPerLoad },
    growth,
    fadesPerDay: 0.8 * Math.exp(0.3 * drawNormal(random)),
    thresholdMm: {
      felt: DEFAULTS(GROWTH_CONSTANTS.thresholdSdMm) * drawNormal(random),
      seen: DEFAULTS(GROWTH_CONSTANTS.thresholdSdMm) * drawNormal(random),
    },
    noticesMm:
      DEFAULTS(GROWTH_CONSTANTS.measuredSdMm) *
      Math.exp(DEFAULTS(GROWTH_CONSTANTS.careSpread) * drawNormal(random)),
    badPlaces: [],
  }
}

/** Share of grades that somebody careless puts down one too high or too low. */
const CARELESS = 0.2

export interface GivenService {
  readonly person: Person
  readonly truth: Truth
  readonly visitId: string
  readonly clientId: string
  readonly nowMs: number
  readonly endedAtMs: number
  readonly loads: Readonly<Record<string, number>>
  readonly leftMm: Readonly<Record<string, number>>
  readonly skin: SkinAndHair
  readonly bumpFactor: number
  /** Nobody answers any more. */
  readonly silentLately: boolean
  /** The last visit of somebody who comes today: seen clear again since. */
  readonly settled: boolean
  /** Ids of nicks of the service. */
  readonly nicks: readonly string[]
}

/** Looks after a service. Some questions stay unanswered, some grades are off by one. */
export function skinAnswers(
  s: GivenService,
  random: () => number,
  newId: () => string,
): SkinAnswer[] {
  const { truth, endedAtMs } = s
  const ageDays = (s.nowMs - endedAtMs) / DAY_MS
  const { reddens, answers: manner } = s.person.truth
  const changed = reddens && ageDays < reddens.daysAgo ? reddens.times : 1
  const day = drawDay(random, DEFAULTS(VISIT_CONSTANTS.visitSpread))
  const worst = drawGrades(random, truth.skin, s.loads, day * changed)
  const bumps = drawBumps(random, truth.skin, s.loads, s.bumpFactor)
  // How much of the time in which an answer still counts for its moment somebody lets pass.
  const late = ((share) => (manner === 'late' ? share : 0))(random())
  const hours = { day1: 24.5 + 15 * late, day2: 48.5 + 60 * late, day7: 168.5 + 60 * late }
  const faded = (grades: Readonly<Record<string, number>>, days: number) =>
    Object.fromEntries(
      Object.entries(grades).map(([z, g]) => [z, drawFaded(random, g, days, truth.fadesPerDay)]),
    )
  const day1 = faded(worst, (hours.day1 - 24.5) / 24)
  const day2 = faded(day1, (hours.day2 - hours.day1) / 24)
  const day7 = faded(day2, (hours.day7 - hours.day2) / 24)
  const most = Math.max(0, ...Object.values(worst))
  const spots = ageDays < SPOTS_KEPT_DAYS ? placeBumps(s, bumps, random, newId) : []
  const look = (
    moment: Moment,
    hours: number,
    grades: Readonly<Record<string, number>>,
    counted: boolean,
  ): SkinAnswer => {
    const zones = Object.keys(s.loads).map((zoneId): ZoneAnswer => {
      const own = counted ? spots.filter((p) => p.zoneId === zoneId) : []
      const pustules = own.filter((p) => p.kind === 'pustule').length
      return {
        zoneId,
        redness: drawLook(
          random,
          grades[zoneId] ?? 0,
          manner === 'careless' && moment !== 'now' ? CARELESS : undefined,
        ),
        bumps: counted ? (bumps[zoneId] ?? 0) - pustules : 0,
        ...(pustules > 0 && { pustules }),
      }
    })
    return {
      moment,
      atMs: Math.round(endedAtMs + hours * HOUR_MS),
      zones: zones.filter((z) => z.redness > 0 || z.bumps > 0 || (z.pustules ?? 0) > 0),
      spots: counted ? spots : [],
      feeling: feeling(most, hours, s.nicks, random),
      source:
        moment === 'now'
          ? 'seen'
          : (['client', 'client', 'phone'] as const)[Math.floor(3 * random())]!,
    }
  }
  const atOnce = Object.fromEntries(Object.entries(worst).map(([z, g]) => [z, Math.round(g * 0.6)]))
  // All is drawn, and what has not come yet is left out: what is told does not hang on the hour.
  const silent = s.silentLately && ageDays < 10
  const drawn = [
    { from: 0, look: look('now', 0.05, atOnce, false), answered: true },
    { from: 1.2, look: look('24h', hours.day1, day1, false), answered: random() > NOT_ANSWERED },
    { from: 2.2, look: look('48h', hours.day2, day2, true), answered: random() > NOT_ANSWERED },
    {
      from: 7.2,
      look: look('7d', hours.day7, day7, true),
      answered: random() > NOT_ANSWERED && !silent,
    },
  ].map((d, i) => ({ ...d, from: d.from + ([0, 15, 60, 60][i]! * late) / 24 }))
  const recent = ageDays < ALARM_DAYS && s.person.story !== 'severe'
  const out = drawn
    .filter((d) => d.answered && (d.from === 0 || ageDays > d.from))
    .map((d) => (recent ? calmer(d.look) : d.look))
  if (s.settled && ageDays > 1.2) {
    const last = out.at(-1)!
    const clear = { zones: [], spots: [], feeling: { stinging: 0, itch: 0, dryness: 0 } }
    if (last.moment === 'now') out.push({ ...look('24h', 24.5, {}, false), ...clear })
    else out[out.length - 1] = { ...last, ...clear }
  }
  if (s.person.story === 'severe' && ageDays < 7) return [out[0]!, severeAnswer(s)]
  // The one who comes too often was asked yesterday, was still red, and has not been asked since.
  if (s.person.story === 'too-often' && ageDays < 3) {
    const red = (zoneId: string, redness: number) => ({ zoneId, redness, bumps: 0 })
    return [
      out[0]!,
      {
        moment: '24h',
        atMs: Math.round(endedAtMs + 24.5 * HOUR_MS),
        zones: [red('neck-upper-left', 2), red('neck-upper-right', 2), red('chin', 1)],
        spots: [],
        feeling: { stinging: 4, itch: 2, dryness: 1 },
        source: 'phone',
      },
    ]
  }
  return out
}

/** A look without what would raise an alarm today: that is one person's story alone. */
function calmer(look: SkinAnswer): SkinAnswer {
  if (severeSigns(DEFAULTS, look).length === 0) return look
  const bumpy = look.zones.filter((z) => z.bumps > 0).slice(0, 5)
  return {
    ...look,
    zones: look.zones.map(({ zoneId, redness, bumps }) => ({
      zoneId,
      redness: Math.min(3, redness),
      bumps: bumpy.some((z) => z.zoneId === zoneId) ? Math.min(2, bumps) : 0,
    })),
    spots: [],
    feeling: { ...look.feeling, stinging: Math.min(5, look.feeling?.stinging ?? 0) },
  }
}

/** What the client told on the link page yesterday evening. */
function severeAnswer(s: GivenService): SkinAnswer {
  const bad = Object.keys(s.loads).filter((z) => z.startsWith('neck-upper') || z === 'chin')
  const atMs = new Date(s.nowMs - DAY_MS).setHours(20, 40, 0, 0)
  return {
    moment: '48h',
    atMs,
    zones: bad.map((zoneId, i) => ({
      zoneId,
      redness: 4,
      bumps: 0,
      pustules: i === 0 ? 11 : 8,
    })),
    spots: [],
    feeling: {
      stinging: 8,
      itch: 6,
      dryness: 2,
      words: 'It burns under the collar since Thursday.',
    },
    source: 'client',
  }
}

function feeling(
  most: number,
  hours: number,
  nicks: readonly string[],
  random: () => number,
): Feeling {
  const fade = hours < 30 ? 1 : hours < 60 ? 0.6 : 0.15
  return {
    stinging: Math.min(10, drawPoisson(random, 1.1 * most * fade)),
    itch: Math.min(10, drawPoisson(random, 0.8 * most * fade)),
    dryness: Math.min(3, drawPoisson(random, 0.35)),
    ...(nicks.length > 0 && {
      nicks: Object.fromEntries(nicks.map((id) => [id, hours < 30 ? 'scab' : 'closed'] as const)),
    }),
  }
}

/** Gives each bump a place: often one where there was one before. */
function placeBumps(
  s: GivenService,
  bumps: Readonly<Record<string, number>>,
  random: () => number,
  newId: () => string,
): SkinSpot[] {
  const { badPlaces } = s.truth
  return Object.entries(bumps).flatMap(([zoneId, n]) =>
    Array.from({ length: n }, (): SkinSpot => {
      const known = badPlaces.filter((p) => p.zoneId === zoneId)
      const id = newId()
      const kind = (['bump', 'ingrown'] as const)[Math.floor(2 * random())]!
      const place = known[Math.floor(known.length * random())]
      if (place && random() < SAME_PLACE) {
        const again = place.last
        place.last = id
        const { point, normal } = place
        return { id, kind, zoneId, point, normal, ...(again !== undefined && { again }) }
      }
      const { samples } = zoneById.get(zoneId as ZoneId)!
      const at = samples[Math.floor(random() * samples.length)]!
      const aside = unit(tangentPart([random() - 0.5, random() - 0.5, random() - 0.5], at.normal))
      const step = 5 * random()
      const point = at.point.map((c, k) => c + step * aside[k]!) as unknown as Vec3
      badPlaces.push({ zoneId, point, normal: at.normal, last: id })
      return { id, kind, zoneId, point, normal: at.normal }
    }),
  )
}

/** At what lengths hair can be noticed at all; fuzz never grows to two millimetres. */
const noticing = (curve: 'terminal' | 'fuzz', leftMm: number) => ({
  least: leftMm + 0.02,
  most: curve === 'terminal' ? Infinity : 1.95,
})

/** When hair was felt and seen, and now and then how long it was, on one or two zones. */
export function hairReadings(
  s: GivenService,
  random: () => number,
  newId: () => string,
): (HairReading & { clientId: string; leftMm: number })[] {
  if (random() > 0.22) return []
  const zones = Object.keys(s.leftMm) as ZoneId[]
  // Of what came out by its root nobody tells.
  if (zones.length === 0) return []
  const stems = ['upper-lip', 'chin', 'cheek-lower', 'neck-lower']
  const usual = zones.filter((z) => stems.includes(zoneStem(z)))
  const from = usual.length > 0 && random() < 0.7 ? usual : zones
  const zoneId = from[Math.floor(random() * from.length)]!
  const { curve } = priorGrowth(DEFAULTS, zoneId, hairIn(zoneId, s.skin.faceHair))
  const leftMm = s.leftMm[zoneId]!
  const rate = s.truth.growth[zoneId]!
  const reading = (
    kind: HairReading['kind'],
    days: number,
    lengthMm: number | null,
  ): (HairReading & { clientId: string; leftMm: number })[] => {
    const atMs = Math.round(s.endedAtMs + days * DAY_MS)
    if (days <= 0 || atMs > s.nowMs) return []
    const method = kind === 'measured' ? ('photo' as const) : null
    return [
      {
        id: newId(),
        clientId: s.clientId,
        visitId: s.visitId,
        kind,
        days,
        zoneId,
        lengthMm,
        method,
        leftMm,
        atMs,
      },
    ]
  }
  const { thresholdMm: over, noticesMm } = s.truth
  const careless = s.person.truth.answers === 'careless'
  const shown = (['felt', 'seen'] as const).flatMap((kind) => {
    const { least, most } = noticing(curve, leftMm)
    const length =
      thresholdMm(DEFAULTS, curve, kind) +
      over[kind] +
      noticesMm * (careless ? 2 : 1) * drawNormal(random)
    const at = daysToLength(DEFAULTS, curve, leftMm, rate, Math.min(most, Math.max(least, length)))
    // Told by the day: noon of the one on which it was noticed.
    const noon = new Date(s.endedAtMs + at * DAY_MS).setHours(12, 0, 0, 0)
    return reading(kind, Math.max(0.1, (noon - s.endedAtMs) / DAY_MS), null)
  })
  if (random() > 0.5) return shown
  const days = (curve === 'fuzz' ? 20 : 3) * (0.7 + 0.6 * random())
  const length = hairLengthMm(DEFAULTS, curve, leftMm, rate, days) + 0.15 * drawNormal(random)
  // Once in a while somebody careless puts down tenths of a millimetre for millimetres.
  const slip = careless && random() < 0.1 ? 10 : 1
  return [
    ...shown,
    ...reading('measured', days, Math.max(0.05, Math.round(100 * slip * length) / 100)),
  ]
}
