/** Read: drag on the head from root to tip; the zone takes the direction. Every stroke is kept with its place. */
import { useHotkeys } from '@mantine/hooks'
import { useMemo, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { DomainError } from '../../../core/errors.ts'
import { toDegrees, toRadians } from '../../../core/grain/circular.ts'
import { bearingDeg, clockWords } from '../../../core/grain/clock.ts'
import {
  mirrorReading,
  READING_METHODS,
  readingFromBearing,
  readingFromStroke,
  turnReading,
  type Reading,
  type ReadingMethod,
  type StrokePoint,
  type ZoneGrain,
} from '../../../core/grain/readings.ts'
import { ZONE_FACTS, zoneName } from '../../../core/head/zoneFacts.ts'
import { mirrorZone, zoneStem, type ZoneId } from '../../../core/head/zones.ts'
import { useEditReadings, type ReadingEdit } from '../../api/queries.ts'
import { useHead } from '../../head/loadHead.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useUndo } from '../../state/undo.ts'
import { useView, viewOf } from '../../state/view.ts'
import { dateWords, newId } from '../../state/words.ts'
import {
  isFrozen,
  useFaintZones,
  useGrain,
  useServiceZones,
  type StationProps,
} from '../useStation.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { Dial } from './Dial.tsx'

const METHOD_WORDS: Record<ReadingMethod, string> = {
  felt: 'felt',
  looked: 'looked',
  pad: 'pad',
  card: 'card',
}

/** Everything that changes the map goes through here, so that it can be undone. */
function useMapEditing({ visit }: StationProps, method: ReadingMethod) {
  const send = useEditReadings(visit.id)
  const undo = useUndo()
  const head = useHead()
  const grain = useGrain(visit)
  const [problem, setProblem] = useState<string>()
  const frozen = isFrozen(visit)
  const make = (edit: ReadingEdit) => {
    if (frozen) {
      setProblem('The service has begun: the map of this visit stays as it was.')
      return
    }
    setProblem(undefined)
    undo.remember(visit.id, edit)
    send.edit(edit)
  }
  const fresh = () => ({ id: newId(), method, atMs: Date.now() })
  const own = (zone: ZoneId) => send.readings().filter((r) => r.zoneId === zone)
  const centre = (zone: ZoneId) => head.data?.zoneById.get(zone)?.centre
  return {
    problem: problem ?? send.error?.message,
    frozen,
    canUndo: undo.visitId === visit.id && undo.done.length > 0,
    canRedo: undo.visitId === visit.id && undo.undone.length > 0,
    stroke: (points: readonly StrokePoint[]) => {
      try {
        const reading = readingFromStroke(points, fresh())
        make({ remove: [], add: [reading] })
        useView.getState().choose(reading.zoneId)
      } catch (error) {
        if (!(error instanceof DomainError)) throw error
        setProblem(error.message)
      }
    },
    turn: (zone: ZoneId, degrees: number) => {
      const readings = own(zone)
      const at = centre(zone)
      if (readings.length > 0) {
        make({
          remove: readings,
          add: readings.map((r) => ({ ...turnReading(r, toRadians(degrees)), id: newId() })),
        })
      } else if (at) {
        const bearing = grain[zone]!.growthDirection + toRadians(degrees)
        make({ remove: [], add: [readingFromBearing(zone, at, bearing, fresh())] })
      }
    },
    takeGuess: (zone: ZoneId) => {
      const at = centre(zone)
      if (at) {
        make({
          remove: [],
          add: [readingFromBearing(zone, at, grain[zone]!.growthDirection, fresh())],
        })
      }
    },
    mirror: (zone: ZoneId) => {
      const twin = mirrorZone(zone)
      const readings = own(zone)
      if (twin === zone || readings.length === 0) return
      make({
        remove: own(twin),
        add: readings.map((r) => mirrorReading(r, newId(), Date.now())),
      })
      useView.getState().choose(twin)
    },
    forget: (readings: readonly Reading[]) => {
      if (readings.length > 0) make({ remove: readings, add: [] })
    },
    undo: () => {
      const edit = undo.takeBack(visit.id)
      if (edit) send.edit(edit)
    },
    redo: () => {
      const edit = undo.again(visit.id)
      if (edit) send.edit(edit)
    },
  }
}

export function ReadStation(props: StationProps) {
  const { page, visit } = props
  const [method, setMethod] = useState<ReadingMethod>('felt')
  const map = useMapEditing(props, method)
  const grain = useGrain(visit)
  const faint = useFaintZones(visit)
  const zones = useServiceZones(visit)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const turnTo = useView((s) => s.turnTo)
  const head = useHead()
  const list = useChosenInView(chosen)

  const layers = useMemo(
    () => ({ grain, faint, ...(!map.frozen && { onStroke: map.stroke }) }),
    // The stroke handler reads what is current when it is called.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [grain, faint, map.frozen, method, visit.id],
  )
  useHeadLayers(layers)

  const zone = chosen ?? undefined
  useHotkeys([
    ['[', () => zone && map.turn(zone, -15)],
    [']', () => zone && map.turn(zone, 15)],
    ['shift+[', () => zone && map.turn(zone, -1)],
    ['shift+]', () => zone && map.turn(zone, 1)],
    ['shift+{', () => zone && map.turn(zone, -1)],
    ['shift+}', () => zone && map.turn(zone, 1)],
    ['M', () => zone && map.mirror(zone)],
    ['Z', map.undo],
    ['shift+Z', map.redo],
  ])
  const show = (id: ZoneId) => {
    choose(id)
    const record = head.data?.zoneById.get(id)
    if (record) {
      const v = viewOf(record.centre.normal)
      turnTo(v.yawDeg, v.pitchDeg)
    }
  }
  const next = visit.state === 'open' && (
    <Link className="strong deep" to={`/clients/${page.client.id}/plan`}>
      Plan
    </Link>
  )
  const unread = zones.filter((z) => grain[z]?.source !== 'read')
  return (
    <>
      {zone && grain[zone] ? (
        <ZoneDetail
          zone={zone}
          grain={grain[zone]}
          readings={visit.readings.filter((r) => r.zoneId === zone)}
          map={map}
          next={next}
        />
      ) : (
        <section className="zone-detail">
          <div className="result-head">
            <h1>Read the grain</h1>
            {next}
          </div>
          <p className="lead">
            {unread.length === zones.length
              ? 'Nothing read yet: what you see is a starting guess, drawn faintly. Drag on the head from root to tip.'
              : unread.length > 0
                ? `${unread.length} ${unread.length === 1 ? 'zone is' : 'zones are'} still a guess, drawn faintly. Drag on the head from root to tip, or choose a zone below.`
                : 'Every zone of this service is read. Drag again where you doubt.'}
          </p>
        </section>
      )}
      {map.problem && (
        <p role="alert" className="problem">
          {map.problem}
        </p>
      )}
      <div className="read-tools">
        <div className="switch" role="group" aria-label="How it is found">
          {READING_METHODS.map((m) => (
            <button key={m} aria-pressed={method === m} onClick={() => setMethod(m)}>
              {METHOD_WORDS[m]}
            </button>
          ))}
        </div>
        <div className="switch" role="group" aria-label="Undo">
          <button onClick={map.undo} disabled={!map.canUndo}>
            Undo <kbd>Z</kbd>
          </button>
          <button onClick={map.redo} disabled={!map.canRedo}>
            Redo
          </button>
        </div>
      </div>
      <div className="scroll" ref={list}>
        <table className="list tight pick">
          <thead>
            <tr>
              <th scope="col">Zone</th>
              <th scope="col">Grows to</th>
              <th scope="col" className="num">
                Agree, R
              </th>
              <th scope="col" className="num">
                Readings
              </th>
            </tr>
          </thead>
          <tbody>
            {zones.map((id) => (
              <ZoneRow key={id} grain={grain[id]!} chosen={id === zone} onChoose={() => show(id)} />
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}

function ZoneRow({
  grain,
  chosen,
  onChoose,
}: {
  grain: ZoneGrain
  chosen: boolean
  onChoose: () => void
}) {
  const read = grain.source === 'read'
  return (
    <tr className={`${chosen ? 'chosen' : ''} ${read ? '' : 'guess'}`} onClick={onChoose}>
      <td>
        <button className="row-button" aria-pressed={chosen}>
          {zoneName(grain.zoneId)}
        </button>
      </td>
      <td>{grain.contradictory ? 'readings cancel out' : clockWords(grain.growthDirection)}</td>
      <td className="num">
        {grain.summary ? grain.summary.meanResultantLength.toFixed(2) : read ? '' : 'guess'}
        {grain.readInParts && ' !'}
      </td>
      <td className="num">{grain.count || ''}</td>
    </tr>
  )
}

function ZoneDetail({
  zone,
  grain,
  readings,
  map,
  next,
}: {
  zone: ZoneId
  grain: ZoneGrain
  readings: readonly Reading[]
  map: ReturnType<typeof useMapEditing>
  /** The way on. */
  next: ReactNode
}) {
  const read = grain.source === 'read'
  const spread = grain.summary?.standardDeviation
  const methods = [...new Set(readings.map((r) => r.method))].join(', ')
  const last = Math.max(...readings.map((r) => r.atMs), 0)
  const twin = mirrorZone(zone)
  return (
    <section className="zone-detail" aria-live="polite">
      <div className="result-head">
        <h1>{zoneName(zone)}</h1>
        {next}
      </div>
      <p className="soft">
        {readings.length > 0
          ? `${readings.length} ${readings.length === 1 ? 'reading' : 'readings'}, ${methods} · last read ${dateWords(last)}`
          : 'Not read yet'}
      </p>
      <div className="dial-row">
        <Dial
          bearing={grain.growthDirection}
          guess={!read}
          {...(spread !== undefined && { spread })}
        />
        <div>
          <p className="big">
            {grain.contradictory
              ? 'no one direction'
              : `${read ? 'grows' : 'may grow'} to ${clockWords(grain.growthDirection)}`}
          </p>
          <p className="soft">
            {grain.contradictory
              ? 'The readings cancel each other out: feel again, in parts.'
              : read
                ? `${bearingDeg(grain.growthDirection)}°, agreement R ${grain.summary!.meanResultantLength.toFixed(2)}${readings.length > 1 ? `, readings within about ${Math.round(toDegrees(spread!))}°` : ', one reading'}`
                : `${bearingDeg(grain.growthDirection)}°, a starting guess (H). Draw over it, or take it if you looked.`}
          </p>
        </div>
      </div>
      {grain.readInParts && !grain.contradictory && (
        <p className="notice">
          Read this zone in parts: its readings agree little (R under 0.85, H).
        </p>
      )}
      <p className="soft watch">{ZONE_FACTS[zoneStem(zone)].watch}</p>
      <div className="zone-tools">
        <button onClick={() => map.turn(zone, -15)} disabled={map.frozen}>
          Turn back <kbd>[</kbd>
        </button>
        <button onClick={() => map.turn(zone, 15)} disabled={map.frozen}>
          Turn on <kbd>]</kbd>
        </button>
        {twin !== zone && (
          <button onClick={() => map.mirror(zone)} disabled={map.frozen || !read}>
            Mirror <kbd>M</kbd>
          </button>
        )}
        {read ? (
          <button onClick={() => map.forget(readings)} disabled={map.frozen}>
            Forget
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
