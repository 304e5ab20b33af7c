/** What is told of a chosen line: the side that is kept, the other side, the last visit. */
import type { Vec3, SurfacePoint } from '../../../core/head/index.ts'
import {
  compareLines,
  mirrorPath,
  differenceWords,
  lineName,
  lineSide,
  type KeepLine,
} from '../../../core/lines/index.ts'
import css from '../../ui/Facts.module.css'
import { dateWords } from '../../../core/time/index.ts'

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
    (l) =>
      l.id !== line.id &&
      !l.candidate &&
      l.kind === line.kind &&
      side !== 'middle' &&
      lineSide(l) !== side,
  )
  const twinPath = twin && paths.get(twin.id)
  const old = before.find((l) => l.kind === line.kind && lineSide(l) === side)
  const oldPath = old && pathsBefore.get(old.id)
  return (
    <section aria-label={lineName(line)} aria-live="polite">
      {children}
      {path && (
        <dl className={css.facts}>
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
