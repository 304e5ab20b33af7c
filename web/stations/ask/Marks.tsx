/** Spots to leave out: tapped on the head, or placed from a list. */
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { SPOT_KINDS, SPOT_WORDS, type SpotKind } from '../../../core/screening/rules.ts'
import { type Spot } from '../../../core/screening/screen.ts'

export function Marks(props: {
  spots: readonly Spot[]
  frozen: boolean
  kind: SpotKind
  setKind: (k: SpotKind) => void
  radius: number
  setRadius: (r: number) => void
  zones: readonly ZoneId[]
  onPlace: (zone: ZoneId) => void
  onChange: (spots: readonly Spot[]) => void
}) {
  const { spots, frozen, kind, setKind, radius, setRadius, zones, onPlace, onChange } = props
  return (
    <>
      <p className="soft">Choose what it is and its size, then tap it on the head.</p>
      <div className="switch wrap" role="group" aria-label="Kind of mark">
        {SPOT_KINDS.map((k) => (
          <button key={k} aria-pressed={kind === k} disabled={frozen} onClick={() => setKind(k)}>
            {SPOT_WORDS[k]}
          </button>
        ))}
      </div>
      <label className="choice">
        <span>Radius, mm</span>
        <input
          type="range"
          min={1}
          max={30}
          value={radius}
          disabled={frozen}
          onChange={(e) => setRadius(Number(e.currentTarget.value))}
        />
        <b className="figure">{radius}</b>
      </label>
      <label className="choice">
        <span>Or here</span>
        <select
          value=""
          disabled={frozen}
          onChange={(e) => onPlace(e.currentTarget.value as ZoneId)}
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
        <p className="soft">No marks yet.</p>
      ) : (
        <ul className="plain-list">
          {spots.map((s) => (
            <li key={s.id}>
              <span>
                {SPOT_WORDS[s.kind]}, {zoneName(s.zoneId)}, {s.radiusMm} mm
              </span>
              <button
                className="link"
                disabled={frozen}
                onClick={() => onChange(spots.filter((x) => x.id !== s.id))}
              >
                Take away
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
