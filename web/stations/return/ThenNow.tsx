/** Two visits side by side: map, plan, what was done, how the skin took it, pictures; what differs on the head. */
import { useMemo, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { flatParts, type FlatParts } from '../../../core/formats/mapSvg.ts'
import { placeSpots, rednessTint, tintedZones, SPOT_SHAPES } from '../../../core/formats/skinMap.ts'
import { grainMap } from '../../../core/grain/readings.ts'
import { strokeAngle } from '../../../core/grain/relation.ts'
import { toDegrees } from '../../../core/grain/circular.ts'
import { directionOf } from '../../../core/head/frames.ts'
import { nearestView, type FlatView, type ViewId } from '../../../core/head/projection.ts'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import { isSkin, type ZoneId } from '../../../core/head/zones.ts'
import { bumpsByZone, worstByZone } from '../../../core/history/answers.ts'
import { isBodyService } from '../../../core/services.ts'
import { address } from '../../api/call.ts'
import { useVisit } from '../../api/queries.ts'
import { useFlatViews } from '../../head/FlatHead.tsx'
import { useHead, type LoadedHead } from '../../head/loadHead.ts'
import type { HeadLabel, ZoneTint } from '../../head/shared.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView } from '../../state/view.ts'
import { dateWords } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'

const LAYERS = {
  redness: 'Redness',
  bumps: 'Bumps',
  grain: 'Grain',
  load: 'Load',
} as const
type Layer = keyof typeof LAYERS

const WORSE = '#BF4E36'
const BETTER = '#2B7A82'

export function ThenNow(props: StationProps) {
  const { page, visit } = props
  const others = page.visits.filter((v) => v.id !== visit.id && v.endedAtMs !== null)
  const before = others.find((v) => (v.endedAtMs ?? 0) < (visit.endedAtMs ?? Infinity)) ?? others[0]
  const [otherId, setOtherId] = useState<string>()
  const other = useVisit(otherId ?? before?.id)
  const [layer, setLayer] = useState<Layer>('redness')
  const view = useShownView()
  if (others.length === 0) {
    return (
      <>
        <h1>Then and now</h1>
        <p className="soft">There is no other finished visit to look at beside this one.</p>
      </>
    )
  }
  return (
    <>
      <div className="row-between">
        <h1>Then and now</h1>
        <select
          className="text-input"
          aria-label="Beside which visit"
          value={otherId ?? before?.id ?? ''}
          onChange={(e) => setOtherId(e.currentTarget.value)}
        >
          {others.map((v) => (
            <option key={v.id} value={v.id}>
              {dateWords(v.endedAtMs!)}
              {v.worstRedness === null ? '' : `, redness ${v.worstRedness}`}
              {v.routine ? `, ${v.routine}` : ''}
            </option>
          ))}
        </select>
      </div>
      {other.isError && (
        <p role="alert" className="problem">
          {other.error.message}
        </p>
      )}
      {other.isPending && <p role="status">Looking back …</p>}
      {other.data && (
        <div className="tab-body" tabIndex={0} role="region" aria-label="Two visits">
          <Difference then={other.data} now={visit} layer={layer} onLayer={setLayer} />
          {!isBodyService(visit.service) && <Pictures then={other.data} now={visit} view={view} />}
          <Facts then={other.data} now={visit} />
          <p className="soft">
            The tide line below chooses the visit on the right, the list above the one on the left;
            keys 1 to 6 turn all three heads.
          </p>
        </div>
      )}
    </>
  )
}

/** The pictures turn with the head: its named view, or the nearest. */
function useShownView(): ViewId {
  return useView((s) => s.named ?? nearestView(s.yawDeg, s.pitchDeg))
}

interface Two {
  readonly then: VisitPage
  readonly now: VisitPage
}

const worst = (v: VisitPage) =>
  worstByZone({ endedAtMs: v.endedAtMs ?? 0, loads: v.loads ?? {}, answers: v.answers })
const bumps = (v: VisitPage) => bumpsByZone({ endedAtMs: v.endedAtMs ?? 0, answers: v.answers })

/** Difference by zone, now less then, in the unit of the layer; undefined where either is not known. */
function differences(
  { then, now }: Two,
  layer: Layer,
  zones: readonly ZoneId[],
): Map<ZoneId, number> | undefined {
  const out = new Map<ZoneId, number>()
  if (layer === 'grain') {
    const [a, b] = [then, now].map((v) => grainMap(v.readings, v.endedAtMs ?? Date.now()))
    for (const z of zones) {
      if (a![z]?.source !== 'read' || b![z]?.source !== 'read') continue
      out.set(z, toDegrees(strokeAngle(a![z].growthDirection, b![z].growthDirection)))
    }
    return out
  }
  const pick = (v: VisitPage): ReadonlyMap<string, number> | undefined =>
    layer === 'redness'
      ? worst(v)
      : layer === 'bumps'
        ? bumps(v)
        : v.loads
          ? new Map(Object.entries(v.loads))
          : undefined
  const [a, b] = [pick(then), pick(now)]
  if (!a || !b) return undefined
  for (const z of zones) {
    // Not worked at either visit: nothing to compare.
    if (!(z in (then.loads ?? {})) && !(z in (now.loads ?? {}))) continue
    out.set(z, (b.get(z) ?? 0) - (a.get(z) ?? 0))
  }
  return out
}

/** How much of the colour a difference takes. */
const FULL: Record<Layer, number> = { redness: 3, bumps: 5, grain: 60, load: 2 }

function Difference({
  then,
  now,
  layer,
  onLayer,
}: Two & { layer: Layer; onLayer: (l: Layer) => void }) {
  const zones = useServiceZones(now)
  const head = useHead()
  const found = useMemo(() => differences({ then, now }, layer, zones), [then, now, layer, zones])
  useHeadLayers(
    useMemo(() => {
      const tints: ZoneTint[] = []
      const labels: HeadLabel[] = []
      for (const [zoneId, d] of found ?? []) {
        const share = Math.min(1, Math.abs(d) / FULL[layer])
        if (share < 0.08) {
          tints.push({ zoneId, colour: '#7fc6c6', opacity: 0.12 })
          continue
        }
        // A turned grain is neither better nor worse.
        const colour = layer === 'grain' ? '#A87B22' : d > 0 ? WORSE : BETTER
        tints.push({ zoneId, colour, opacity: 0.2 + 0.6 * share })
        const record = head.data?.zoneById.get(zoneId)
        if (record) labels.push({ id: zoneId, point: record.centre.point, text: told(d, layer) })
      }
      return { tints, labels }
    }, [found, layer, head.data]),
  )
  const changed = [...(found ?? [])]
    .filter(([, d]) => Math.abs(d) / FULL[layer] >= 0.08)
    .sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]))
  return (
    <>
      <div className="row-between">
        <div className="switch" role="group" aria-label="What differs on the head">
          {(Object.keys(LAYERS) as Layer[]).map((l) => (
            <button key={l} aria-pressed={layer === l} onClick={() => onLayer(l)}>
              {LAYERS[l]}
            </button>
          ))}
        </div>
        <span className="diff-key">
          {layer === 'grain' ? (
            <>
              <i style={{ background: '#A87B22' }} /> turned
            </>
          ) : (
            <>
              <i style={{ background: BETTER }} /> less now <i style={{ background: WORSE }} /> more
              now
            </>
          )}
        </span>
      </div>
      <p className="soft">
        {found === undefined
          ? 'One of the two was not answered: not answered is not clear, so nothing is compared.'
          : changed.length === 0
            ? 'Nothing differs.'
            : changed
                .slice(0, 4)
                .map(([z, d]) => `${zoneName(z)} ${told(d, layer)}`)
                .join('; ') + (changed.length > 4 ? `; and ${changed.length - 4} more.` : '.')}
      </p>
    </>
  )
}

function told(d: number, layer: Layer): string {
  if (layer === 'grain') return `${Math.round(d)}°`
  const size = layer === 'load' ? Math.abs(d).toFixed(1) : String(Math.abs(Math.round(d)))
  return `${d > 0 ? '+' : '−'}${size}`
}

function Pictures({ then, now, view }: Two & { view: ViewId }) {
  const views = useFlatViews()
  const head = useHead()
  const shown = views.data?.find((v) => v.id === view)
  if (!shown || !head.data) return <p role="status">Drawing …</p>
  return (
    <div className="then-now">
      {[then, now].map((v) => (
        <figure key={v.id}>
          <SkinPicture visit={v} view={shown} head={head.data} />
          <figcaption>{v.endedAtMs ? dateWords(v.endedAtMs) : 'this visit'}</figcaption>
        </figure>
      ))}
    </div>
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
  const drawn = useMemo(() => {
    const grain = grainMap(visit.readings, visit.endedAtMs ?? Date.now())
    const red = visit.endedAtMs === null ? undefined : worst(visit)
    const arrows = [...head.zoneById.values()].flatMap((zone) => {
      const g = grain[zone.id]
      if (!g || g.source !== 'read' || !isSkin(zone.id)) return []
      const { point, normal } = zone.centre
      const lengthMm = Math.min(24, Math.max(8, Math.sqrt(zone.areaCm2) * 5))
      const direction = directionOf(zone.id, point, normal, g.growthDirection)
      return [{ zoneId: zone.id, point, normal, direction, lengthMm }]
    })
    const parts: FlatParts = flatParts(view, { arrows, signs: [], lines: [] }, () => true)
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
  }, [visit, view, head])
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

function Facts({ then, now }: Two) {
  const rows: readonly (readonly [string, (v: VisitPage) => React.ReactNode])[] = [
    ['Map', (v) => `${v.readings.length} readings`],
    ['Plan', planWords],
    ['Lanes', laneWords],
    ['Blades', (v) => bladeWords(v)],
    [
      'Redness',
      (v) => {
        const w = v.endedAtMs === null ? undefined : worst(v)
        return w ? `worst ${Math.max(0, ...w.values())}` : 'not answered'
      },
    ],
    [
      'Bumps',
      (v) => {
        const b = v.endedAtMs === null ? undefined : bumps(v)
        return b ? String([...b.values()].reduce((s, n) => s + n, 0)) : 'not counted'
      },
    ],
    [
      'Felt',
      (v) => {
        const stings = v.answers.flatMap((a) => a.feeling?.stinging ?? [])
        return stings.length > 0 ? `stung up to ${Math.max(...stings)} of 10` : '–'
      },
    ],
    ['Nicks', (v) => String(v.chair.nicks.length)],
    ['Pictures', (v) => <Thumbs visit={v} />],
  ]
  return (
    <table className="list tight facts-two">
      <thead>
        <tr>
          <th scope="col">
            <span className="hidden">What</span>
          </th>
          {[then, now].map((v) => (
            <th key={v.id} scope="col">
              {v.endedAtMs ? dateWords(v.endedAtMs) : 'this visit'}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{of(then)}</td>
            <td>{of(now)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function planWords({ plan }: VisitPage): string {
  if (!plan) return 'none'
  const passes = Math.max(0, ...plan.zones.map((z) => z.passes.length))
  return `${Math.round(plan.totalMinutes)} min, ${passes === 1 ? 'one pass' : `up to ${passes} passes`}, ${plan.style}`
}

function laneWords({ plan, chair }: VisitPage): string {
  if (!plan || plan.lanes.length === 0) return '–'
  const done = plan.lanes.filter((l) => chair.outcomes[l.id] === 'done').length
  const skipped = plan.lanes.filter((l) => chair.outcomes[l.id] === 'skipped').length
  return `${done} of ${plan.lanes.length} done${skipped > 0 ? `, ${skipped} left out` : ''}`
}

function bladeWords({ plan, chair }: VisitPage): string {
  const names = [...new Set(plan?.lanes.map((l) => l.blade) ?? [])]
  return `${chair.blades.length} used${names.length > 0 ? `: ${names.join(', ')}` : ''}`
}

function Thumbs({ visit }: { visit: VisitPage }) {
  if (visit.photos.length === 0) return <>none</>
  return (
    <span className="thumbs">
      {visit.photos.map((p) => (
        <a key={p.id} href={address('photo', { id: p.id })} target="_blank" rel="noreferrer">
          <img
            src={`${address('photo', { id: p.id })}?size=thumbnail`}
            alt={`Skin, ${dateWords(p.atMs)}`}
          />
        </a>
      ))}
    </span>
  )
}
