/** Signs on a map: what turns or meets, where two readings disagree, where a reading would tell most. */
import type { Vec3 } from '../head/index.ts'
import type { FlowSummary } from './headMap.ts'
import type { Reading } from './readings.ts'

export interface MapSign {
  readonly id: string
  readonly point: Vec3
  readonly normal: Vec3
  readonly kind: 'clockwise' | 'anticlockwise' | 'star' | 'meeting' | 'disagree' | 'next'
}

/**
 * @param readings by id; a disagreement of one that has gone meanwhile is not shown
 * @param next where a reading would tell most, while that is wanted
 */
export function mapSigns(
  { whorls, disagreements }: Pick<FlowSummary, 'whorls' | 'disagreements'>,
  readings: ReadonlyMap<string, Pick<Reading, 'point' | 'normal'>>,
  next?: { readonly point: Vec3; readonly normal: Vec3 },
): MapSign[] {
  return [
    ...whorls.map(({ point, normal, kind, turn }, i): MapSign => ({
      ...{ id: `whorl:${i}`, point, normal },
      kind: kind === 'meeting' ? 'meeting' : turn,
    })),
    ...disagreements.flatMap((d, i): MapSign[] => {
      const [a, b] = [readings.get(d.a), readings.get(d.b)]
      if (!a || !b) return []
      const between = (k: 0 | 1 | 2) => (a.point[k] + b.point[k]) / 2
      const point: Vec3 = [between(0), between(1), between(2)]
      return [{ id: `disagree:${i}`, point, normal: a.normal, kind: 'disagree' }]
    }),
    ...(next
      ? [{ id: 'next', point: next.point, normal: next.normal, kind: 'next' as const }]
      : []),
  ]
}
