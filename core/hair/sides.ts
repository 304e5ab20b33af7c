/** Left against right: where the hair is told thinner on one side, and whether that is the side slept on. */
import { mirrorZone, type ZoneId, zoneSide } from '../zones/index.ts'
import { DENSITIES, type HairLayer } from './layer.ts'

/** How the sides differ. */
export interface SideDensity {
  /** Pairs of zones of which both were told. */
  readonly pairs: number
  /** Steps of density that the left has more, on average; negative where the right has. */
  readonly leftMore: number
}

/** Undefined while no pair was told. */
export function sideDensity(hair: HairLayer): SideDensity | undefined {
  const step = (zone: ZoneId) => {
    const told = hair[zone]?.density
    return told === undefined ? undefined : DENSITIES.indexOf(told)
  }
  const each = (Object.keys(hair) as ZoneId[]).flatMap((zone) => {
    if (zoneSide(zone) !== 'left') return []
    const [left, right] = [step(zone), step(mirrorZone(zone))]
    return left === undefined || right === undefined ? [] : [left - right]
  })
  if (each.length === 0) return undefined
  return { pairs: each.length, leftMore: each.reduce((s, x) => s + x, 0) / each.length }
}

/** The same in a sentence; what goes together need not be the cause. */
export function sideWords(
  { pairs, leftMore }: SideDensity,
  sleepsOn: 'left' | 'right' | 'either' | undefined,
): string {
  const told = `${pairs} ${pairs === 1 ? 'pair' : 'pairs'} of zones told`
  if (Math.abs(leftMore) < 0.25) return `Left and right are as dense (${told}).`
  const thinner = leftMore > 0 ? 'right' : 'left'
  const slept =
    sleepsOn === undefined || sleepsOn === 'either'
      ? ''
      : sleepsOn === thinner
        ? ', which is the side slept on: hair may lie pressed or wear there'
        : ', which is not the side slept on'
  return `The client’s ${thinner} is thinner${slept} (${told}).`
}
