/** What is told of a chosen line: the side that is kept, the other side, the last visit. */
import type { Vec3, SurfacePoint } from '../../../core/head/index.ts'
import {
  compareLines,
  mirrorPath,
  type LineDifference,
  lineName,
  lineSide,
  type KeepLine,
} from '../../../core/lines/index.ts'
import { dateWords } from '../../../core/time/index.ts'

/** "above" and "below" where the line runs level, else "in front" and "behind". */
export function sideWords(
  path: readonly SurfacePoint[] | undefined,
  side: 'left' | 'right',
): string {
  if (!path || path.length < 2) return `its ${side}`
  const a = path[0]!.point
  const b = path[path.length - 1]!.point
  const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
  const n = path[path.length >> 1]!.normal
  const left: Vec3 = [
    n[1] * d[2] - n[2] * d[1],
    n[2] * d[0] - n[0] * d[2],
    n[0] * d[1] - n[1] * d[0],
  ]
  const s = side === 'left' ? 1 : -1
  const size = Math.hypot(...left) || 1
  if (Math.abs(left[1]) > 0.5 * size) return s * left[1] > 0 ? 'above' : 'below'
  if (Math.abs(left[2]) > Math.abs(left[0])) return s * left[2] > 0 ? 'in front' : 'behind'
  // Off to a side: toward the middle of the face or away from it.
  return s * left[0] * (path[path.length >> 1]!.point[0] || 1) > 0 ? 'outside' : 'inside'
}

export function LineFacts({
  line,
  lines,
  paths,
  before,
  pathsBefore,
  beforeAtMs,
  whereWords,
  children,
}: {
  line: KeepLine
  lines: readonly KeepLine[]
  paths: ReadonlyMap<string, readonly SurfacePoint[]>
  before: readonly KeepLine[]
  pathsBefore: ReadonlyMap<string, readonly SurfacePoint[]>
  beforeAtMs: number | undefined
  whereWords: (p: Vec3) => string
  children: React.ReactNode
}) {
  const path = paths.get(line.id)
  const side = lineSide(line)
  const twin = lines.find(
    (l) => l.id !== line.id && l.kind === line.kind && side !== 'middle' && lineSide(l) !== side,
  )
  const twinPath = twin && paths.get(twin.id)
  const old = before.find((l) => l.kind === line.kind && lineSide(l) === side)
  const oldPath = old && pathsBefore.get(old.id)
  return (
    <section className="line-facts" aria-label={lineName(line)} aria-live="polite">
      {children}
      {path && (
        <dl className="differences">
          <dt>{side === 'left' ? 'Left against right' : 'Right against left'}</dt>
          <dd>
            {twinPath
              ? differenceWords(compareLines(path, mirrorPath(twinPath)), whereWords, 'the other')
              : side === 'middle'
                ? 'it crosses the middle'
                : 'no such line on the other side yet'}
          </dd>
          <dt>Drift{beforeAtMs !== undefined && ` since ${dateWords(beforeAtMs)}`}</dt>
          <dd>
            {oldPath
              ? differenceWords(compareLines(path, oldPath), whereWords, 'last time')
              : 'no such line at the last visit'}
          </dd>
        </dl>
      )}
    </section>
  )
}

const mm = (x: number) => `${x.toFixed(1)} mm`

function differenceWords(d: LineDifference, where: (p: Vec3) => string, than: string): string {
  if (d.greatestMm < 0.05) return `the same as ${than}`
  const height =
    Math.abs(d.heightMm) < 0.05
      ? 'as high'
      : `${mm(Math.abs(d.heightMm))} ${d.heightMm > 0 ? 'higher' : 'lower'}`
  const angle =
    Math.abs(d.angleDeg) < 0.5
      ? 'same slope'
      : `${Math.abs(d.angleDeg).toFixed(0)}° ${d.angleDeg > 0 ? 'steeper' : 'flatter'} toward the back`
  return `${mm(d.meanMm)} on average, ${mm(d.greatestMm)} at most (${where(d.where)}); ${height}, ${angle}`
}
