/** Outlines over the skin: their way round and the skin inside, worked out beside the page and kept while their taps stay. */
import { keepPreviousData, useQueries } from '@tanstack/react-query'
import { useMemo } from 'react'
import type { VisitPage } from '../../contract/types.ts'
import type { SurfacePoint } from '../../core/head/index.ts'
import { isClosed, type Outline } from '../../core/lines/index.ts'
import { useHead } from '../head/loadHead.ts'
import { useKeptLines } from './useLinePaths.ts'
import type { HeadLine } from '../head/shared.ts'

/** What is known of an outline that has closed. */
export interface OutlineShape {
  readonly path: readonly SurfacePoint[]
  readonly cm2: number
}

/** Shapes by id; of one that encloses nothing why it does not. */
export interface OutlineShapes {
  readonly shapes: ReadonlyMap<string, OutlineShape>
  readonly problems: ReadonlyMap<string, string>
}

export function useOutlineShapes(outlines: readonly Outline[]): OutlineShapes {
  const head = useHead()
  const closed = outlines.filter(isClosed)
  const results = useQueries({
    queries: closed.map((o) => ({
      queryKey: ['outline', ...o.taps.map((t) => t.point.map((x) => x.toFixed(2)).join(' '))],
      queryFn: () => head.data!.worker.outline([...o.taps]),
      enabled: head.data !== undefined,
      staleTime: Infinity,
      placeholderData: keepPreviousData,
      structuralSharing: false,
      retry: false,
    })),
  })
  const state = results.map(
    (r, i) => `${closed[i]!.id}${r.dataUpdatedAt}${r.errorUpdatedAt}${r.isPlaceholderData}`,
  )
  return useMemo(
    () => ({
      shapes: new Map(results.flatMap((r, i) => (r.data ? [[closed[i]!.id, r.data]] : []))),
      problems: new Map(
        results.flatMap((r, i) => (r.error ? [[closed[i]!.id, r.error.message]] : [])),
      ),
    }),
    // The results are new at every render; their state tells whether anything changed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [state.join(' ')],
  )
}

const NONE: readonly Outline[] = []

/** What was drawn at Read, as the head shows it: keep-lines, and outlines. */
export function useDrawn(visit: VisitPage): HeadLine[] {
  const kept = useKeptLines(visit)
  const outlines = visit.notes.outlines ?? NONE
  const { shapes } = useOutlineShapes(outlines)
  return useMemo(
    () => [
      ...kept,
      ...outlines.flatMap((o) => {
        const shape = shapes.get(o.id)
        return shape ? [{ id: o.id, path: shape.path, look: 'outline' as const }] : []
      }),
    ],
    [kept, outlines, shapes],
  )
}
