/** The skin of two visits as flat pictures: growth, redness, spots. */
import css from './Return.module.css'
import { SimpleGrid, Skeleton } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { useMemo } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import {
  growthArrows,
  flatParts,
  placeSpots,
  rednessTint,
  SPOT_SHAPES,
  tintedZones,
} from '../../../core/formats/index.ts'
import type { FlatView, ViewId } from '../../../core/head/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { worst, type Two } from '../../../core/history/index.ts'
import { useFlatViews } from '../../head/FlatHead.tsx'
import { useHead, type LoadedHead } from '../../head/loadHead.ts'

export function SkinPictures({ then, now, view }: Two<VisitPage> & { view: ViewId }) {
  const views = useFlatViews()
  const head = useHead()
  const shown = views.data?.find((v) => v.id === view)
  if (!shown || !head.data) return <Skeleton h={226} />
  return (
    <SimpleGrid cols={2} className={css.thenNow} data-testid="then-now">
      {[then, now].map((v) => (
        <figure key={v.id}>
          <SkinPicture visit={v} view={shown} head={head.data} />
          <figcaption>{v.endedAtMs ? dateWords(v.endedAtMs) : 'this visit'}</figcaption>
        </figure>
      ))}
    </SimpleGrid>
  )
}

/** One flat view of a visit: growth, redness, spots. */
function SkinPicture({
  visit,
  view,
  head,
}: {
  visit: VisitPage
  view: FlatView
  head: LoadedHead
}) {
  const figures = useFigures()
  const drawn = useMemo(() => {
    const red = visit.endedAtMs === null ? undefined : worst(figures, visit)
    const arrows = growthArrows(
      figures,
      visit.readings,
      visit.endedAtMs ?? Date.now(),
      head.zoneById.values(),
    )
    const parts = flatParts(view, { arrows, signs: [], lines: [] }, () => true)
    return {
      parts,
      zones: tintedZones(view, (z) =>
        red && z in (visit.loads ?? {}) ? rednessTint(red.get(z) ?? 0) : undefined,
      ),
      spots: placeSpots(
        view,
        visit.answers.flatMap((a) => a.spots ?? []),
      ),
    }
  }, [figures, visit, view, head])
  const { parts } = drawn
  return (
    <svg
      viewBox={`18 8 ${parts.widthMm - 36} ${parts.heightMm - 16}`}
      className="flat-picture skin-picture"
      aria-hidden
    >
      <path d={parts.silhouette} className="flat-outline" />
      {drawn.zones.map((z) => (
        <path key={z.zoneId} d={z.d} fill={z.colour} fillOpacity={z.opacity} />
      ))}
      <path d={parts.parts} className="flat-parts" />
      <path d={parts.borders} className="flat-borders" />
      {parts.arrows.map((a, i) => (
        <g key={i} className="flat-arrow">
          <path d={a.d} />
          <path d={a.head} className="tip" />
        </g>
      ))}
      {drawn.spots.map((s) => (
        <g
          key={s.id}
          className={`skin-mark ${SPOT_SHAPES[s.kind].filled ? 'filled' : ''}`}
          transform={`translate(${s.x.toFixed(1)} ${s.y.toFixed(1)})`}
        >
          <path d={SPOT_SHAPES[s.kind].d} />
        </g>
      ))}
    </svg>
  )
}
