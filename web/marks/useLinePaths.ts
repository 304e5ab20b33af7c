/** Lines over the skin: their paths, worked out beside the page and kept as long as their taps stay as they are. */
import { keepPreviousData, useQueries } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { VisitPage } from '../../contract/types.ts'
import type { SurfacePoint } from '../../core/head/index.ts'
import { type KeepLine, keptLines } from '../../core/lines/index.ts'
import { useHead } from '../head/loadHead.ts'
import type { HeadLine } from '../head/shared.ts'

/** The path of each line that has one; while a line is dragged its last path stays. */
export function useLinePaths(
  lines: readonly KeepLine[],
): ReadonlyMap<string, readonly SurfacePoint[]> {
  const head = useHead()
  const drawn = lines.filter((l) => l.taps.length > 1)
  const results = useQueries({
    queries: drawn.map((line) => ({
      queryKey: ['line', ...line.taps.map((t) => t.point.map((x) => x.toFixed(2)).join(' '))],
      queryFn: () => head.data!.worker.line(line.taps),
      enabled: head.data !== undefined,
      staleTime: Infinity,
      placeholderData: keepPreviousData,
      structuralSharing: false,
      retry: false,
    })),
  })
  const state = results.map((r, i) => `${drawn[i]!.id}${r.dataUpdatedAt}${r.isPlaceholderData}`)
  return useMemo(
    () => new Map(results.flatMap((r, i) => (r.data ? [[drawn[i]!.id, r.data] as const] : []))),
    // The results are new at every render; their state tells whether anything changed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [state.join(' ')],
  )
}

/** A visit's keep-lines as the head draws them. */
export function useKeptLines(visit: VisitPage): HeadLine[] {
  const { lines: all } = visit.notes
  const lines = useMemo(() => keptLines(all), [all])
  const paths = useLinePaths(lines)
  return useMemo(
    () =>
      lines.flatMap((l) => {
        const path = paths.get(l.id)
        return path ? [{ id: l.id, path, look: 'keep' as const, keep: l.keep }] : []
      }),
    [lines, paths],
  )
}
