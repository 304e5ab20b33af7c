/** Marks on the skin: points and painted patches, with margin and the day they were seen; asked about again at each visit. */
import { useFigures } from '../state/figures.ts'
import type { Figures } from '../../core/house/index.ts'
import type { StrokePoint } from '../../core/grain/index.ts'
import { zoneName, isSkin, type ZoneId } from '../../core/zones/index.ts'
import {
  markAreas,
  markMargin,
  SCREENING_CONSTANTS,
  MARK_KINDS,
  MARK_WORDS,
  type MarkKind,
  type SkinMark,
  type Asked,
} from '../../core/screening/index.ts'
import { dateWords } from '../../core/time/index.ts'
import { useMemo, useState } from 'react'
import { useHead, type Hit } from '../head/loadHead.ts'
import type { HeadSpot } from '../head/shared.ts'
import { newId, todayIso } from '../state/words.ts'

/** What is chosen to be marked next. */
export interface Brush {
  readonly kind: MarkKind
  readonly radius: number
  readonly margin: number
  readonly paint: boolean
}

export const firstBrush = (figures: Figures): Brush => ({
  kind: 'mole',
  radius: 4,
  margin: figures(SCREENING_CONSTANTS.spotMarginMm),
  paint: false,
})

/** Marks as the head draws them. */
export function markSpots(figures: Figures, spots: readonly SkinMark[]): HeadSpot[] {
  return spots.map((s) => ({
    id: s.id,
    point: s.point,
    normal: s.normal,
    radiusMm: s.radiusMm,
    trail: s.trail,
    marginMm: markMargin(figures, s),
    name: s.stillThere === 'ask' ? `${MARK_WORDS[s.kind]}?` : MARK_WORDS[s.kind],
  }))
}

type Change = (change: (asked: Asked) => Partial<Asked>) => void

/** How marks are put on the head: by tap, or painted. */
export function useMarking(brush: Brush, change: Change, frozen: boolean) {
  return useMemo(() => {
    if (frozen) return {}
    const add = (
      at: { zoneId: ZoneId; point: SkinMark['point']; normal: SkinMark['normal'] },
      more = {},
    ) =>
      change((now) => ({
        spots: [
          ...now.spots,
          {
            id: newId(),
            kind: brush.kind,
            zoneId: at.zoneId,
            point: at.point,
            normal: at.normal,
            radiusMm: brush.radius,
            marginMm: brush.margin,
            seenOn: todayIso(),
            ...more,
          },
        ],
      }))
    return {
      onTap: (hit: Hit) => {
        if (isSkin(hit.zoneId)) add(hit)
      },
      ...(brush.paint && {
        onStroke: (points: readonly StrokePoint[]) => {
          const trail = thinned(
            points.filter((p) => isSkin(p.zoneId)),
            brush.radius / 2,
          )
          if (trail.length > 0) add(trail[0]!, { trail })
        },
      }),
    }
  }, [brush, change, frozen])
}

/** Places of a stroke no nearer to each other than a brush needs. */
function thinned(points: readonly StrokePoint[], gapMm: number): StrokePoint[] {
  const out: StrokePoint[] = []
  for (const p of points) {
    const last = out[out.length - 1]?.point
    if (
      last &&
      Math.hypot(p.point[0] - last[0], p.point[1] - last[1], p.point[2] - last[2]) < gapMm
    )
      continue
    out.push(p)
  }
  return out.slice(0, 400)
}

export function MarksPanel({
  spots,
  frozen,
  brush,
  setBrush,
  zones,
  change,
}: {
  spots: readonly SkinMark[]
  frozen: boolean
  brush: Brush
  setBrush: (b: Brush) => void
  zones: readonly ZoneId[]
  change: Change
}) {
  const figures = useFigures()
  const head = useHead()
  const [open, setOpen] = useState<string>()
  const put = (spots: readonly SkinMark[]) => change(() => ({ spots }))
  const edit = (id: string, by: Partial<SkinMark>) =>
    put(spots.map((s) => (s.id === id ? { ...s, ...by } : s)))
  const waiting = spots.filter((s) => s.stillThere === 'ask')
  return (
    <>
      {waiting.length > 0 && (
        <section className="still-there" aria-label="Still there?">
          <h2>Still there?</h2>
          <ul className="plain-list">
            {waiting.map((s) => (
              <li key={s.id}>
                <span>
                  {markWords(figures, s)}
                  {s.seenOn && <small> seen {s.seenOn}</small>}
                </span>
                <span className="pair">
                  <button disabled={frozen} onClick={() => edit(s.id, { stillThere: 'yes' })}>
                    Still there
                  </button>
                  <button disabled={frozen} onClick={() => put(spots.filter((x) => x.id !== s.id))}>
                    Gone
                  </button>
                </span>
              </li>
            ))}
          </ul>
          <p className="soft">Until answered they count as there.</p>
        </section>
      )}
      <div className="switch wrap" role="group" aria-label="Kind of mark">
        {MARK_KINDS.map((k) => (
          <button
            key={k}
            aria-pressed={brush.kind === k}
            disabled={frozen}
            onClick={() => setBrush({ ...brush, kind: k })}
          >
            {MARK_WORDS[k]}
          </button>
        ))}
      </div>
      <div className="mark-brush">
        <div className="switch" role="group" aria-label="How to mark">
          <button
            aria-pressed={!brush.paint}
            disabled={frozen}
            onClick={() => setBrush({ ...brush, paint: false })}
          >
            Tap a point
          </button>
          <button
            aria-pressed={brush.paint}
            disabled={frozen}
            onClick={() => setBrush({ ...brush, paint: true })}
          >
            Paint a patch
          </button>
        </div>
        <Slider
          name={brush.paint ? 'Brush' : 'Radius'}
          least={1}
          most={30}
          value={brush.radius}
          disabled={frozen}
          onChange={(radius) => setBrush({ ...brush, radius })}
        />
        <Slider
          name="Margin"
          least={0}
          most={20}
          value={brush.margin}
          disabled={frozen}
          onChange={(margin) => setBrush({ ...brush, margin })}
        />
      </div>
      <label className="choice">
        <span>Or here</span>
        <select
          value=""
          disabled={frozen}
          onChange={(e) => {
            const zoneId = e.currentTarget.value as ZoneId
            const centre = head.data?.zoneById.get(zoneId)?.centre
            if (!centre) return
            put([
              ...spots,
              {
                id: newId(),
                kind: brush.kind,
                zoneId,
                ...centre,
                radiusMm: brush.radius,
                marginMm: brush.margin,
                seenOn: todayIso(),
              },
            ])
          }}
        >
          <option value="" disabled>
            in the middle of a zone
          </option>
          {zones.map((z) => (
            <option key={z} value={z}>
              {zoneName(z)}
            </option>
          ))}
        </select>
      </label>
      {spots.length === 0 ? (
        <p className="soft">
          No marks yet. Choose what it is, then {brush.paint ? 'paint it' : 'tap it'} on the head.
        </p>
      ) : (
        <ul className="plain-list marks-list">
          {spots.map((s) => (
            <li key={s.id}>
              <button
                className="link row-words"
                aria-expanded={open === s.id}
                onClick={() => setOpen(open === s.id ? undefined : s.id)}
              >
                {markWords(figures, s)}
              </button>
              <button
                className="link"
                disabled={frozen}
                onClick={() => put(spots.filter((x) => x.id !== s.id))}
              >
                Take away
              </button>
              {open === s.id && (
                <div className="mark-more">
                  <Slider
                    name="Margin"
                    least={0}
                    most={20}
                    value={markMargin(figures, s)}
                    disabled={frozen}
                    onChange={(marginMm) => edit(s.id, { marginMm })}
                  />
                  <label>
                    Seen on{' '}
                    <input
                      type="date"
                      value={s.seenOn ?? ''}
                      max={todayIso()}
                      disabled={frozen}
                      onChange={(e) => edit(s.id, { seenOn: e.currentTarget.value || undefined })}
                    />
                  </label>
                </div>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

function markWords(figures: Figures, s: SkinMark): string {
  const area = Object.values(markAreas(figures, s)).reduce((sum, a) => sum + a, 0)
  const size = s.trail ? `patch, ${area.toFixed(1)} cm² with margin` : `${s.radiusMm} mm`
  const seen = s.seenOn ? `, seen ${dateWords(Date.parse(`${s.seenOn}T12:00`))}` : ''
  return `${MARK_WORDS[s.kind]}, ${zoneName(s.zoneId)}, ${size}${seen}`
}

function Slider({
  name,
  least,
  most,
  value,
  disabled,
  onChange,
}: {
  name: string
  least: number
  most: number
  value: number
  disabled: boolean
  onChange: (value: number) => void
}) {
  return (
    <label className="choice">
      <span>{name}, mm</span>
      <input
        type="range"
        min={least}
        max={most}
        value={value}
        disabled={disabled}
        onChange={(e) => onChange(Number(e.currentTarget.value))}
      />
      <b className="figure">{value}</b>
    </label>
  )
}
