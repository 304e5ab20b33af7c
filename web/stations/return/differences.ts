/** Two visits beside each other, and what differs zone by zone. */
import type { VisitPage } from '../../../contract/types.ts'
import { toDegrees } from '../../../core/grain/circular.ts'
import { grainMap } from '../../../core/grain/readings.ts'
import { strokeAngle } from '../../../core/grain/relation.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { bumpsByZone, worstByZone } from '../../../core/history/answers.ts'

export const LAYERS = {
  redness: 'Redness',
  bumps: 'Bumps',
  grain: 'Grain',
  load: 'Load',
} as const
export type Layer = keyof typeof LAYERS

export interface Two {
  readonly then: VisitPage
  readonly now: VisitPage
}

export const worst = (v: VisitPage) =>
  worstByZone({ endedAtMs: v.endedAtMs ?? 0, loads: v.loads ?? {}, answers: v.answers })
export const bumps = (v: VisitPage) =>
  bumpsByZone({ endedAtMs: v.endedAtMs ?? 0, answers: v.answers })

/** Difference by zone, now less then, in the unit of the layer; undefined where either is not known. */
export function differences(
  { then, now }: Two,
  layer: Layer,
  zones: readonly ZoneId[],
): Map<ZoneId, number> | undefined {
  const out = new Map<ZoneId, number>()
  if (layer === 'grain') {
    const [a, b] = [then, now].map((v) => grainMap(v.readings, v.endedAtMs ?? Date.now()))
    for (const z of zones) {
      if (a![z]?.source !== 'read' || b![z]?.source !== 'read') continue
      out.set(z, toDegrees(strokeAngle(a![z].growthDirection, b![z].growthDirection)))
    }
    return out
  }
  const pick = (v: VisitPage): ReadonlyMap<string, number> | undefined =>
    layer === 'redness'
      ? worst(v)
      : layer === 'bumps'
        ? bumps(v)
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
export const FULL: Record<Layer, number> = { redness: 3, bumps: 5, grain: 60, load: 2 }

/** A difference in words. */
export function told(d: number, layer: Layer): string {
  if (layer === 'grain') return `${Math.round(d)}°`
  const size = layer === 'load' ? Math.abs(d).toFixed(1) : String(Math.abs(Math.round(d)))
  return `${d > 0 ? '+' : '−'}${size}`
}
