/** One zone of the map: its row in the list, and all that is known of it when it is chosen. */
import {
  withinWords,
  toRadians,
  type Reading,
  type ZoneGrain,
  type ZoneFlow,
  type MapUse,
  usedBearing,
} from '../../../core/grain/index.ts'
import {
  ZONE_FACTS,
  zoneName,
  mirrorZone,
  zoneStem,
  type ZoneId,
} from '../../../core/zones/index.ts'
import { capital } from '../../../core/words.ts'
import { dateWords } from '../../../core/time/index.ts'
import { PictureHour, usePictureAngle, useTelling, useZoneTelling } from '../../head/telling.tsx'
import { Dial } from './Dial.tsx'
import type { MapEditing } from './useMap.ts'
import { mapUse } from './words.ts'
import { READING_METHOD_WORDS } from './words.ts'

export function ZoneRow({
  grain,
  flow,
  use,
  chosen,
  onChoose,
}: {
  grain: ZoneGrain
  flow: ZoneFlow | undefined
  use: MapUse
  chosen: boolean
  onChoose: () => void
}) {
  const read = grain.source === 'read'
  const near = !read && flow?.within !== undefined && flow.growthDirection !== undefined
  const bearing = read ? grain.growthDirection : near ? flow.growthDirection : undefined
  const parts = flow?.readInParts || grain.readInParts
  const tell = useZoneTelling()
  return (
    <tr className={`${chosen ? 'chosen' : ''} ${read ? '' : 'guess'}`} onClick={onChoose}>
      <td>
        <button className="row-button" aria-pressed={chosen}>
          {zoneName(grain.zoneId)}
        </button>
      </td>
      <td>
        {grain.contradictory
          ? 'readings cancel out'
          : bearing === undefined
            ? '–'
            : `${near ? '≈ ' : ''}${tell(grain.zoneId, usedBearing(bearing, use))?.told.words ?? ''}`}
      </td>
      <td className="num">
        {flow?.within !== undefined && flow.meanResultantLength.toFixed(2)}
        {parts && <span title="Read this zone in parts"> in parts</span>}
      </td>
      <td className="num">{grain.count || ''}</td>
      <td>{flow?.within !== undefined ? `${flow.within}°` : read ? 'in part' : 'not read'}</td>
    </tr>
  )
}

/** How surely a zone is known of which there are readings, and what that rests on. */
function readWords(grain: ZoneGrain, flow: ZoneFlow | undefined, readings: number): string {
  const rests =
    readings === 1
      ? 'One reading'
      : `Readings agree with R ${grain.summary!.meanResultantLength.toFixed(2)}`
  if (!flow) return `${rests}.`
  if (flow.within === undefined) return `Read in part: less than half of it is known. ${rests}.`
  const even = flow.meanResultantLength.toFixed(2)
  return `${capital(withinWords(flow.within))}. ${rests}, the field is even with R ${even}.`
}

export function ZoneDetail({
  zone,
  grain,
  flow,
  readings,
  picked,
  onPick,
  use,
  map,
  onTurn,
  onTest,
}: {
  zone: ZoneId
  grain: ZoneGrain
  flow: ZoneFlow | undefined
  readings: readonly Reading[]
  picked: string | undefined
  onPick: (id: string) => void
  use: MapUse
  map: MapEditing
  onTurn: (degrees: number) => void
  onTest: () => void
}) {
  const read = grain.source === 'read'
  const near = !read && flow?.within !== undefined && flow.growthDirection !== undefined
  const growth = near ? flow.growthDirection : grain.growthDirection
  const bearing = usedBearing(growth, use)
  const verb = mapUse(use).verb
  const twin = mirrorZone(zone)
  const tell = useTelling()
  const way = useZoneTelling()(zone, bearing)
  const angle = usePictureAngle(way)
  const parts = (flow?.readInParts || grain.readInParts) && !grain.contradictory
  return (
    <section className="zone-detail" aria-live="polite">
      <h1>{zoneName(zone)}</h1>
      <div className="dial-row">
        <Dial
          size={76}
          angle={angle}
          guess={!read}
          spread={
            flow?.within !== undefined ? toRadians(flow.within) : grain.summary?.standardDeviation
          }
        />
        <div>
          <p className="big">
            {grain.contradictory
              ? 'no one direction'
              : `${read ? verb : near ? `≈ ${verb}` : use === 'growth' ? 'may grow' : `perhaps ${verb}`} ${way?.told.text ?? ''}`}
          </p>
          {!grain.contradictory && <PictureHour way={way} />}
          <p className="soft">
            {grain.contradictory
              ? 'The readings cancel each other out: feel again, in parts.'
              : read
                ? readWords(grain, flow, readings.length)
                : near
                  ? `${capital(withinWords(flow.within))}: from readings beside it. Read it to be sure.`
                  : 'A starting guess (H). Draw over it, or take it if you looked.'}
          </p>
          {parts && <p className="notice">Read this zone in parts: hair turns here (H).</p>}
        </div>
      </div>
      {readings.length > 0 ? (
        <ul className="readings" aria-label="Readings of this zone">
          {readings.map((r) => {
            const words = tell(r.zoneId, r, r.tangent).told.words
            return (
              <li key={r.id} className={r.id === picked ? 'chosen' : ''}>
                <button aria-pressed={r.id === picked} onClick={() => onPick(r.id)}>
                  {READING_METHOD_WORDS[r.method]} · {words} · {dateWords(r.atMs)}
                  {r.answers && ` · ${r.answers.length} answers`}
                </button>
                {r.id === picked && !map.frozen && (
                  <button
                    className="link"
                    onClick={() => map.forget([r])}
                    aria-label={`Forget this reading: ${READING_METHOD_WORDS[r.method]}, ${words}`}
                  >
                    Forget
                  </button>
                )}
              </li>
            )
          })}
        </ul>
      ) : (
        <p className="soft watch">{ZONE_FACTS[zoneStem(zone)].watch}</p>
      )}
      <div className="zone-tools">
        <button aria-label="Turn back" onClick={() => onTurn(-15)} disabled={map.frozen}>
          <kbd>[</kbd> back
        </button>
        <button aria-label="Turn on" onClick={() => onTurn(15)} disabled={map.frozen}>
          on <kbd>]</kbd>
        </button>
        <button onClick={onTest} disabled={map.frozen}>
          Test <kbd>T</kbd>
        </button>
        {twin !== zone && (
          <button onClick={() => map.mirror(zone)} disabled={map.frozen || readings.length === 0}>
            Mirror <kbd>M</kbd>
          </button>
        )}
        {readings.length > 0 ? (
          <button onClick={() => map.forget(readings)} disabled={map.frozen}>
            Forget all
          </button>
        ) : (
          <button onClick={() => map.takeGuess(zone)} disabled={map.frozen}>
            Take the guess
          </button>
        )}
      </div>
    </section>
  )
}
