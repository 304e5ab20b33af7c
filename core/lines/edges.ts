/** Lines that a service needs on both sides of the head before it is planned. */
import type { SurfacePoint } from '../head/index.ts'
import type { LineKind } from './keepLine.ts'

/** A line counts for a side when it comes farther off the middle than this, mm. */
const OFF_MIDDLE_MM = 4

/** A line that is not yet drawn. */
export interface MissingEdge {
  readonly kind: LineKind
  readonly side: 'left' | 'right'
}

/**
 * Which of the kinds are not drawn on a side.
 * @param drawn lines with any places of theirs: taps or the whole way
 */
export function missingEdges(
  kinds: readonly string[],
  drawn: readonly {
    readonly kind: LineKind
    readonly at: readonly Pick<SurfacePoint, 'point'>[]
  }[],
): MissingEdge[] {
  return (['left', 'right'] as const).flatMap((side) => {
    const sign = side === 'left' ? 1 : -1
    const own = drawn.filter((l) => l.at.some(({ point }) => sign * point[0] > OFF_MIDDLE_MM))
    return kinds
      .filter((kind) => !own.some((l) => l.kind === kind))
      .map((kind) => ({ kind: kind as LineKind, side }))
  })
}
