/** How hair comes back, zone by zone: learned from what was felt, seen and measured; forecast with its range. */
import { ON_SKIN } from '../../../core/palette.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { LENGTH_METHODS, type LengthMethod } from '../../../core/looks/index.ts'
import {
  GROWTH_CONSTANTS,
  type DayRange,
  compareSides,
  slowZones,
  zoneOutlook,
  type ZoneOutlook,
} from '../../../core/regrowth/index.ts'
import { isWaxed, NOT_WAXED } from '../../../core/screening/index.ts'
import { Z_90 } from '../../../core/stats/index.ts'
import { DAY_MS, dateWords } from '../../../core/time/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState } from 'react'
import { useAddHair, useRemoveHair } from '../../api/visitWrites.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView } from '../../state/view.ts'
import { newId, todayIso } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { HairCurve, spread } from './HairCurve.tsx'

const METHOD_WORDS: Record<LengthMethod, string> = {
  photo: 'on a picture with a scale',
  ruler: 'with a ruler',
  eye: 'by eye',
}

export function Hair(props: StationProps) {
  const figures = useFigures()
  const { page, visit } = props
  const zones = useServiceZones(visit)
  const chosen = useView((s) => s.chosen)
  const all = useMemo(
    () =>
      zones
        .flatMap((z): ZoneOutlook[] => {
          const growth = page.model.growth[z]
          const left = visit.leftMm?.[z]
          return growth && left !== undefined ? [zoneOutlook(figures, z, growth, left)] : []
        })
        .sort((a, b) => a.seen.even - b.seen.even),
    [figures, zones, page.model.growth, visit.leftMm],
  )
  useHeadLayers(
    useMemo(() => {
      const most = Math.max(0.01, ...all.map((z) => z.growth.mean))
      return {
        tints: all.map((z) => ({
          zoneId: z.zoneId,
          colour: ON_SKIN.tide,
          opacity: 0.1 + 0.55 * (z.growth.mean / most),
        })),
      }
    }, [all]),
  )
  const shown = all.find((z) => z.zoneId === chosen) ?? all[0]
  return (
    <>
      <h1>How hair comes back</h1>
      <AddReading {...props} zones={zones} />
      {shown && visit.endedAtMs !== null && <HairCurve zone={shown} endedAtMs={visit.endedAtMs} />}
      <ZoneTable zones={all} endedAtMs={visit.endedAtMs ?? 0} shown={shown?.zoneId} />
      <Notes {...props} />
    </>
  )
}

function AddReading({ visit, zones }: StationProps & { zones: readonly ZoneId[] }) {
  const add = useAddHair(visit.id)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const [kind, setKind] = useState<'felt' | 'seen' | 'measured'>('felt')
  const [date, setDate] = useState(todayIso())
  const [length, setLength] = useState('1.0')
  const [method, setMethod] = useState<LengthMethod>('photo')
  const zone = chosen && zones.includes(chosen) ? chosen : ''
  return (
    <div className="hair-ask">
      <div className="switch" role="group" aria-label="What was noticed">
        {(['felt', 'seen', 'measured'] as const).map((k) => (
          <button key={k} aria-pressed={kind === k} onClick={() => setKind(k)}>
            {k}
          </button>
        ))}
      </div>
      <input
        type="date"
        className="text-input"
        aria-label="On"
        value={date}
        max={todayIso()}
        onChange={(e) => setDate(e.currentTarget.value)}
      />
      <select
        className="text-input"
        aria-label="Where"
        value={zone}
        onChange={(e) => choose((e.currentTarget.value as ZoneId) || null)}
      >
        <option value="">everywhere</option>
        {zones.map((z) => (
          <option key={z} value={z}>
            {zoneName(z)}
          </option>
        ))}
      </select>
      {kind === 'measured' && (
        <>
          <label>
            <input
              type="number"
              className="text-input"
              aria-label="Length, mm"
              min="0.1"
              max="60"
              step="0.1"
              value={length}
              onChange={(e) => setLength(e.currentTarget.value)}
            />{' '}
            mm
          </label>
          <select
            className="text-input"
            aria-label="How it was measured"
            value={method}
            onChange={(e) => setMethod(e.currentTarget.value as LengthMethod)}
          >
            {LENGTH_METHODS.map((m) => (
              <option key={m} value={m}>
                {METHOD_WORDS[m]}
              </option>
            ))}
          </select>
        </>
      )}
      <button
        className="strong"
        disabled={add.isPending}
        onClick={() =>
          add.mutate({
            id: newId(),
            kind,
            date,
            zoneId: zone || null,
            ...(kind === 'measured' && { lengthMm: Number(length), method }),
          })
        }
      >
        Write it down
      </button>
      {add.isError && (
        <p role="alert" className="problem">
          {add.error.message}
        </p>
      )}
    </div>
  )
}

function ZoneTable({
  zones,
  endedAtMs,
  shown,
}: {
  zones: readonly ZoneOutlook[]
  endedAtMs: number
  shown: ZoneId | undefined
}) {
  const choose = useView((s) => s.choose)
  const list = useChosenInView(shown)
  const day = (r: DayRange | undefined) =>
    r === undefined ? (
      <td className="soft">–</td>
    ) : (
      <td title={`80 %: days ${spread(r)}`}>
        {Number.isFinite(r.even) ? dateWords(endedAtMs + r.even * DAY_MS) : 'never'}
      </td>
    )
  if (zones.length === 0) {
    return <p className="soft">How hair comes back is told after the service.</p>
  }
  return (
    <div className="scroll" ref={list}>
      <table className="list tight pick days">
        <thead>
          <tr>
            <th scope="col">Zone</th>
            <th scope="col">mm a day</th>
            <th scope="col">felt</th>
            <th scope="col">seen</th>
            <th scope="col">to read</th>
            <th scope="col">to wax</th>
          </tr>
        </thead>
        <tbody>
          {zones.map((z) => (
            <tr key={z.zoneId} className={z.zoneId === shown ? 'chosen' : ''}>
              <td>
                <button className="link" onClick={() => choose(z.zoneId)}>
                  {zoneName(z.zoneId)}
                </button>
              </td>
              <td className="num">
                {z.growth.mean.toFixed(2)}{' '}
                <span className="soft">± {(Z_90 * z.growth.sd).toFixed(2)}</span>
              </td>
              {day(z.felt)}
              {day(z.seen)}
              {day(z.read)}
              {isWaxed(z.zoneId, z.growth.curve === 'fuzz') ? (
                day(z.wax)
              ) : (
                <td className="soft" title={NOT_WAXED}>
                  not waxed
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** Readings of this visit, sides compared, slow zones. */
function Notes({ page, visit }: StationProps) {
  const figures = useFigures()
  const remove = useRemoveHair(visit.id)
  const { growth, learnedZones } = page.model
  const sides = useMemo(
    () => compareSides(figures, growth, (z) => learnedZones.includes(z)).slice(0, 2),
    [figures, growth, learnedZones],
  )
  const slow = useMemo(() => slowZones(figures, growth).slice(0, 3), [figures, growth])
  return (
    <div className="hair-notes">
      {visit.hair.length > 0 && (
        <ul className="plain-list">
          {visit.hair.map((h) => (
            <li key={h.id}>
              <span>
                {h.kind} on {dateWords(h.atMs)}, day {h.days.toFixed(1)},{' '}
                {h.zoneId ? zoneName(h.zoneId as ZoneId) : 'everywhere'}
                {h.lengthMm !== null
                  ? `, ${h.lengthMm} mm ${METHOD_WORDS[h.method ?? 'photo']}`
                  : ''}
              </span>
              <button className="link" onClick={() => remove.mutate(h.id)}>
                Take away
              </button>
            </li>
          ))}
        </ul>
      )}
      {sides.map((s) => (
        <p key={s.left} className="soft">
          {s.words}
        </p>
      ))}
      {slow.map((z) => (
        <p key={z.zoneId} className="soft">
          {zoneName(z.zoneId as ZoneId)} grows slowly: {Math.round(100 * z.share)} % of the others.
        </p>
      ))}
      <p className="soft">
        Read: stubble of {figures(GROWTH_CONSTANTS.readMm)} mm (H). Wax: a quarter inch,{' '}
        {figures(GROWTH_CONSTANTS.waxMm)} mm (C); fuzz never grows so long. Growth starts from
        published means (P) and is learned (H); ± holds 80 %.
      </p>
    </div>
  )
}
