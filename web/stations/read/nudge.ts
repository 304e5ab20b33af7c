/** How far, and which way over the head, a chosen point moves with an arrow key: as the head is looked at. */
import { viewAxes, type Vec3 } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'

const NUDGE_MM = 1

/** @param right steps to the right of the screen */
export function nudgeBy(right: number, up: number): Vec3 {
  const { yawDeg, pitchDeg } = useView.getState()
  const axes = viewAxes(yawDeg, pitchDeg)
  return [0, 1, 2].map(
    (k) => NUDGE_MM * (right * axes.right[k]! + up * axes.up[k]!),
  ) as unknown as Vec3
}
