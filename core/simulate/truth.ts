/**
 * A client whose truth is known: skin, bumps and growth drawn from the very spreads that the models believe in, and what would be
 * seen of it, with noise, silence and mistakes. The demo is made with it, and learning is tested against it.
 */
import type { Figures } from '../house/index.ts'
import {
  BUMP_CONSTANTS,
  expectedMean,
  SKIN_CONSTANTS,
  VISIT_CONSTANTS,
  type Reactivity,
} from '../skin/index.ts'
import { drawGamma, drawNormal, drawPoisson } from '../stats/index.ts'
import { rateAt, type Growth } from '../regrowth/index.ts'

/** What nobody sees of a client. */
export interface HiddenSkin {
  /** Grade per unit load, by zone. */
  readonly gradePerLoad: Readonly<Record<string, number>>
  /** Bumps per unit load, by zone. */
  readonly bumpsPerLoad: Readonly<Record<string, number>>
}

/**
 * Draws a client's skin.
 * @param mean means over such clients; the client's own level is drawn around it unless given
 * @param zonesAlike shape of the spread of redness between zones: low where they are unlike
 */
export function drawSkin(
  figures: Figures,
  random: () => number,
  zones: readonly string[],
  mean: { readonly grade: number; readonly bumps: number },
  own = { grade: 0, bumps: 0 },
  zonesAlike = figures(SKIN_CONSTANTS.betweenZones),
): HiddenSkin {
  const spread = (shape: number) => drawGamma(random, shape) / shape
  const grade = own.grade || mean.grade * spread(figures(SKIN_CONSTANTS.betweenClients))
  const bumps = own.bumps || mean.bumps * spread(figures(BUMP_CONSTANTS.betweenClients))
  const each = (level: number, shape: number) =>
    Object.fromEntries(zones.map((z) => [z, level * spread(shape)]))
  return {
    gradePerLoad: each(grade, zonesAlike),
    bumpsPerLoad: each(bumps, figures(BUMP_CONSTANTS.betweenZones)),
  }
}

/**
 * Worst redness of each zone after a service, 0 to 4.
 * @param day the day's own level
 */
export function drawGrades(
  random: () => number,
  skin: HiddenSkin,
  loads: Readonly<Record<string, number>>,
  day: number,
): Record<string, number> {
  return Object.fromEntries(
    Object.entries(loads).map(([z, load]) => [
      z,
      Math.min(4, drawPoisson(random, (skin.gradePerLoad[z] ?? 0) * load * day)),
    ]),
  )
}

/** A day's own level, which all zones share: log-normal with mean 1. */
export const drawDay = (random: () => number, spread: number): number =>
  Math.exp(spread * drawNormal(random) - (spread * spread) / 2)

/** Bumps of each zone after a service. */
export function drawBumps(
  random: () => number,
  skin: HiddenSkin,
  loads: Readonly<Record<string, number>>,
  factor = 1,
): Record<string, number> {
  return Object.fromEntries(
    Object.entries(loads).map(([z, load]) => [
      z,
      drawPoisson(random, (skin.bumpsPerLoad[z] ?? 0) * load * factor),
    ]),
  )
}

/** Redness of a zone so long after it was at its worst: one grade after another fades, each after an exponential time. */
export function drawFaded(
  random: () => number,
  grade: number,
  days: number,
  perDay: number,
): number {
  return Math.max(0, grade - drawPoisson(random, days * perDay))
}

/** A look is off by one grade so often. */
export const MISTAKES = 0.02

/** What a look at a zone is written down as: now and then a grade too high or too low. */
export function drawLook(random: () => number, grade: number, mistakes = MISTAKES): number {
  if (random() >= mistakes) return grade
  return Math.max(0, Math.min(4, grade + (random() < 0.5 ? -1 : 1)))
}

/** A client's true growth of a zone, mm a day. */
export const drawGrowth = (random: () => number, prior: Growth): number =>
  rateAt(prior, drawNormal(random))

/** A whole history of answered services of one kind of skin, with its truth. */
export function drawHistory(
  figures: Figures,
  random: () => number,
  zones: readonly string[],
  reactivity: Reactivity,
  visits: number,
  load: () => number,
  mean = expectedMean(figures, reactivity),
): { truth: HiddenSkin; visits: { zoneId: string; load: number; grade: number }[][] } {
  const truth = drawSkin(figures, random, zones, { grade: mean, bumps: 0.1 })
  return {
    truth,
    visits: Array.from({ length: visits }, () => {
      const loads = Object.fromEntries(zones.map((z) => [z, load()]))
      const day = drawDay(random, figures(VISIT_CONSTANTS.visitSpread))
      const grades = drawGrades(random, truth, loads, day)
      return zones.map((zoneId) => ({ zoneId, load: loads[zoneId]!, grade: grades[zoneId]! }))
    }),
  }
}
