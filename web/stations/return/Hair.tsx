/** When hair was felt, seen or measured again. */
import { useState } from 'react'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { useAddHair, useRemoveHair } from '../../api/queries.ts'
import { dateWords, newId, todayIso } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'

const KIND_WORDS = { felt: 'felt', seen: 'seen', measured: 'measured' } as const

export function Hair({ visit }: StationProps) {
  const add = useAddHair(visit.id)
  const remove = useRemoveHair(visit.id)
  const zones = useServiceZones(visit)
  const [kind, setKind] = useState<'felt' | 'seen' | 'measured'>('felt')
  const [date, setDate] = useState(todayIso())
  const [zone, setZone] = useState('')
  const [length, setLength] = useState('1.0')
  return (
    <div className="stack">
      <p className="soft">
        When hair was felt or seen again teaches how fast it grows, zone by zone.
      </p>
      <div className="choice">
        <span>It was</span>
        <div className="switch" role="group" aria-label="What was noticed">
          {(['felt', 'seen', 'measured'] as const).map((k) => (
            <button key={k} aria-pressed={kind === k} onClick={() => setKind(k)}>
              {KIND_WORDS[k]}
            </button>
          ))}
        </div>
      </div>
      <label className="choice">
        <span>On</span>
        <input
          type="date"
          value={date}
          max={todayIso()}
          onChange={(e) => setDate(e.currentTarget.value)}
        />
      </label>
      <label className="choice">
        <span>Where</span>
        <select value={zone} onChange={(e) => setZone(e.currentTarget.value)}>
          <option value="">everywhere</option>
          {zones.map((z) => (
            <option key={z} value={z}>
              {zoneName(z)}
            </option>
          ))}
        </select>
      </label>
      {kind === 'measured' && (
        <label className="choice">
          <span>Length, mm</span>
          <input
            type="number"
            min="0.1"
            max="60"
            step="0.1"
            value={length}
            onChange={(e) => setLength(e.currentTarget.value)}
          />
        </label>
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
            ...(kind === 'measured' && { lengthMm: Number(length) }),
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
      <ul className="plain-list">
        {visit.hair.map((h) => (
          <li key={h.id}>
            <span>
              {KIND_WORDS[h.kind]} on {dateWords(h.atMs)}, day {h.days.toFixed(1)},{' '}
              {h.zoneId ? zoneName(h.zoneId as ZoneId) : 'everywhere'}
              {h.lengthMm !== null ? `, ${h.lengthMm} mm` : ''}
            </span>
            <button className="link" onClick={() => remove.mutate(h.id)}>
              Take away
            </button>
          </li>
        ))}
      </ul>
    </div>
  )
}
