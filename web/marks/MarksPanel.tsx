/** Marks on the skin: points and painted patches, with margin and the day they were seen; asked about again at each visit. */
import { Button, Group, Text, Title } from '@mantine/core'
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
import { DateField } from '../ui/DateField.tsx'
import { named, PickOne } from '../ui/PickOne.tsx'
import { RowButton } from '../ui/RowButton.tsx'
import { Row, Rows } from '../ui/Rows.tsx'
import { Slide } from '../ui/Slide.tsx'
import { Words } from '../ui/Words.tsx'

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
  const without = (mark: SkinMark) => put(spots.filter((x) => x.id !== mark.id))
  const waiting = spots.filter((s) => s.stillThere === 'ask')
  return (
    <>
      {waiting.length > 0 && (
        <section aria-label="Still there?">
          <Title order={3} c="coral">
            Still there?
          </Title>
          <Rows>
            {waiting.map((s) => (
              <Row
                key={s.id}
                acts={
                  <>
                    <Button
                      size="sm"
                      disabled={frozen}
                      onClick={() => edit(s.id, { stillThere: 'yes' })}
                    >
                      Still there
                    </Button>
                    <Button size="sm" disabled={frozen} onClick={() => without(s)}>
                      Gone
                    </Button>
                  </>
                }
              >
                {markWords(figures, s)}
                {s.seenOn && <small> seen {s.seenOn}</small>}
              </Row>
            ))}
          </Rows>
          <Text size="sm" c="dimmed">
            Until answered they count as there.
          </Text>
        </section>
      )}
      <Words
        label="Kind of mark"
        wraps
        data={MARK_KINDS.map((k) => ({ value: k, label: MARK_WORDS[k] }))}
        value={brush.kind}
        disabled={frozen}
        onChange={(kind) => setBrush({ ...brush, kind })}
      />
      <Words
        label="How to mark"
        data={[
          ['point', 'Tap a point'],
          ['patch', 'Paint a patch'],
        ]}
        value={brush.paint ? 'patch' : 'point'}
        disabled={frozen}
        onChange={(how) => setBrush({ ...brush, paint: how === 'patch' })}
      />
      <Group gap="lg">
        <Slide
          name={brush.paint ? 'Brush' : 'Radius'}
          unit="mm"
          least={1}
          most={30}
          value={brush.radius}
          disabled={frozen}
          onChange={(radius) => setBrush({ ...brush, radius })}
        />
        <Slide
          name="Margin"
          unit="mm"
          least={0}
          most={20}
          value={brush.margin}
          disabled={frozen}
          onChange={(margin) => setBrush({ ...brush, margin })}
        />
        <PickOne
          label="Or in the middle of"
          placeholder="a zone"
          searchable
          w={190}
          disabled={frozen}
          data={named(zones, zoneName)}
          value={undefined}
          onChange={(zoneId) => {
            const centre = head.data?.zoneById.get(zoneId)?.centre
            if (!centre) return
            put([
              ...spots,
              {
                ...{ id: newId(), kind: brush.kind, zoneId, ...centre },
                ...{ radiusMm: brush.radius, marginMm: brush.margin, seenOn: todayIso() },
              },
            ])
          }}
        />
      </Group>
      {spots.length === 0 ? (
        <Text size="sm" c="dimmed">
          No marks yet. Choose what it is, then {brush.paint ? 'paint it' : 'tap it'} on the head.
        </Text>
      ) : (
        <Rows label="Marks">
          {spots.map((s) => (
            <Row
              key={s.id}
              acts={
                <Button variant="bare" size="sm" disabled={frozen} onClick={() => without(s)}>
                  Take away
                </Button>
              }
            >
              <RowButton
                aria-expanded={open === s.id}
                onClick={() => setOpen(open === s.id ? undefined : s.id)}
              >
                {markWords(figures, s)}
              </RowButton>
              {open === s.id && (
                <Group gap="lg" align="flex-end">
                  <Slide
                    name="Margin"
                    unit="mm"
                    least={0}
                    most={20}
                    value={markMargin(figures, s)}
                    disabled={frozen}
                    onChange={(marginMm) => edit(s.id, { marginMm })}
                  />
                  <DateField
                    label="Seen on"
                    value={s.seenOn}
                    maxDate={todayIso()}
                    clearable
                    disabled={frozen}
                    onChange={(seenOn) => edit(s.id, { seenOn })}
                  />
                </Group>
              )}
            </Row>
          ))}
        </Rows>
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
