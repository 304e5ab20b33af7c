/** The head as flat line drawing: for screens without WebGL. Only the named views can be shown. */
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { type FlatView, type ViewAxes, type ViewId, FLAT_HALF } from '../../core/head/index.ts'
import { ringsPath } from '../../core/formats/index.ts'
import { isSkin, ZONE_IDS } from '../../core/zones/index.ts'
import type { Streamlets } from '../../core/grain/index.ts'
import { useView } from '../state/view.ts'
import type { LoadedHead } from './loadHead.ts'
import { faces, toPixels, type HeadColours, type ZoneTint } from './shared.ts'

interface Props {
  readonly head: LoadedHead
  readonly marks: Streamlets | undefined
  readonly tone: 'hair' | 'stroke' | 'rub'
  readonly tints: readonly ZoneTint[]
  readonly colours: HeadColours
  readonly shows: ViewId
  readonly axes: ViewAxes
  readonly size: { width: number; height: number }
  readonly scale: number
}

export function useFlatViews(enabled = true) {
  return useQuery({
    queryKey: ['flat-views'],
    queryFn: async () =>
      (await import('../../generated/flat-views.json')).default as unknown as readonly FlatView[],
    staleTime: Infinity,
    enabled,
  })
}

export function FlatHead({ head, marks, tone, tints, colours, shows, axes, size, scale }: Props) {
  const chosen = useView((s) => s.chosen)
  const hovered = useView((s) => s.hovered)
  const views = useFlatViews()
  const view = views.data?.find((v) => v.id === shows)
  const hair = useMemo(() => {
    if (!marks) return []
    const out: { d: string; zone: number; ink: number }[] = []
    marks.ink.forEach((ink, m) => {
      const at = (o: number) =>
        [
          marks.spines[9 * m + o]!,
          marks.spines[9 * m + o + 1]!,
          marks.spines[9 * m + o + 2]!,
        ] as const
      if (!faces(axes, at(6), 0.18) || !head.inSight(axes, at(0))) return
      const a = toPixels(axes, size, scale, at(0))
      const b = toPixels(axes, size, scale, at(3))
      const w = 1.5
      const length = Math.hypot(b.x - a.x, b.y - a.y) || 1
      const nx = (-(b.y - a.y) / length) * w
      const ny = ((b.x - a.x) / length) * w
      out.push({
        d: `M${(a.x + nx).toFixed(1)} ${(a.y + ny).toFixed(1)}L${b.x.toFixed(1)} ${b.y.toFixed(1)}L${(a.x - nx).toFixed(1)} ${(a.y - ny).toFixed(1)}Z`,
        zone: marks.zones[m]!,
        ink,
      })
    })
    return out
  }, [marks, axes, size, scale, head])
  if (!view) return null
  const left = size.width / 2 - FLAT_HALF.width * scale
  const top = size.height / 2 - FLAT_HALF.height * scale
  return (
    <svg
      className="head-flat"
      data-view={shows}
      width={size.width}
      height={size.height}
      aria-hidden
    >
      <g transform={`translate(${left} ${top}) scale(${scale})`}>
        <path
          d={ringsPath(view.silhouette)}
          fill={colours.plaster}
          stroke={colours.border}
          strokeWidth={1.2 / scale}
        />
        {view.zones.map((z) => {
          const tint = tints.find((t) => t.zoneId === ZONE_IDS[z.zone])
          return (
            <path
              key={z.zone}
              d={ringsPath(z.rings)}
              fill={tint ? tint.colour : isSkin(ZONE_IDS[z.zone]!) ? 'transparent' : colours.shade}
              fillOpacity={tint ? tint.opacity : 0.25}
              stroke={colours.border}
              strokeOpacity={ZONE_IDS[z.zone] === chosen || ZONE_IDS[z.zone] === hovered ? 1 : 0.4}
              strokeWidth={(ZONE_IDS[z.zone] === chosen ? 2 : 1) / scale}
            />
          )
        })}
      </g>
      {hair.map((h, i) => (
        <path
          key={i}
          d={h.d}
          fill={ZONE_IDS[h.zone] === chosen ? colours.chosen : colours[tone]}
          fillOpacity={h.ink}
        />
      ))}
    </svg>
  )
}
