/** Two visits beside each other: what differs zone by zone. */
import type { Figures } from '../house/index.ts'
import { toDegrees, grainMap, type Reading, strokeAngle } from '../grain/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { type AtChair, bumpsByZone, worstByZone, type SkinAnswer } from '../looks/index.ts'

export const LAYERS = {
  redness: 'Redness',
  bumps: 'Bumps',
  grain: 'Grain',
  load: 'Load',
} as const
export type Layer = keyof typeof LAYERS

/** A visit as comparing needs it. */
export interface ComparedVisit {
  readonly endedAtMs: number | null
  readonly loads: Readonly<Record<string, number>> | null
  readonly answers: readonly SkinAnswer[]
  readonly atChair: AtChair
  readonly readings: readonly Reading[]
}

export interface Two<V extends ComparedVisit = ComparedVisit> {
  readonly then: V
  readonly now: V
}

export const worst = (figures: Figures, v: ComparedVisit) =>
  worstByZone(figures, {
    endedAtMs: v.endedAtMs ?? 0,
    loads: v.loads ?? {},
    answers: v.answers,
    redAtChair: v.atChair.redness,
  })
export const bumps = (figures: Figures, v: ComparedVisit) =>
  bumpsByZone(figures, { endedAtMs: v.endedAtMs ?? 0, answers: v.answers })

/** Difference by zone, now less then, in the unit of the layer; undefined where either is not known; `nowMs` stands in for the end of a visit that still runs. */
export function differences(
  figures: Figures,
  { then, now }: Two,
  layer: Layer,
  zones: readonly ZoneId[],
  nowMs: number,
): Map<ZoneId, number> | undefined {
  const out = new Map<ZoneId, number>()
  if (layer === 'grain') {
    const [a, b] = [then, now].map((v) => grainMap(figures, v.readings, v.endedAtMs ?? nowMs))
    for (const z of zones) {
      if (a![z]?.source !== 'read' || b![z]?.source !== 'read') continue
      out.set(z, toDegrees(strokeAngle(a![z].growthDirection, b![z].growthDirection)))
    }
    return out
  }
  const pick = (v: ComparedVisit): ReadonlyMap<string, number> | undefined =>
    layer === 'redness'
      ? worst(figures, v)
      : layer === 'bumps'
        ? bumps(figures, v)
        : v.loads
          ? new Map(Object.entries(v.loads))
          : undefined
  const [a, b] = [pick(then), pick(now)]
  if (!a || !b) return undefined
  for (const z of zones) {
    // Not worked at either visit: nothing to compare.
    if (!(z in (then.loads ?? {})) && !(z in (now.loads ?? {}))) continue
    out.set(z, (b.get(z) ?? 0) - (a.get(z) ?? 0))
  }
  return out
}

/** How much of the colour a difference takes. */
export const FULL_COLOUR_AT: Record<Layer, number> = { redness: 3, bumps: 5, grain: 60, load: 2 }

/** A difference in words. */
export function differenceWords(d: number, layer: Layer): string {
  if (layer === 'grain') return `${Math.round(d)}°`
  const size = layer === 'load' ? Math.abs(d).toFixed(1) : String(Math.abs(Math.round(d)))
  return `${d > 0 ? '+' : '−'}${size}`
}
