/** The grain: drag on the head from root to tip; the field takes it up everywhere near. */
import { useHotkeys } from '@mantine/hooks'
import { useEffect, useMemo, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { bearingDeg, clockWords } from '../../../core/grain/clock.ts'
import { withinWords } from '../../../core/grain/confidence.ts'
import { toRadians } from '../../../core/grain/circular.ts'
import {
  READING_METHODS,
  readingBearing,
  turnReading,
  type Reading,
  type ReadingMethod,
  type ZoneGrain,
} from '../../../core/grain/readings.ts'
import { whorlWords } from '../../../core/grain/whorls.ts'
import type { ZoneFlow } from '../../../core/grain/zoneFlow.ts'
import type { Vec3 } from '../../../core/head/frames.ts'
import { viewAxes } from '../../../core/head/projection.ts'
import { ZONE_FACTS, zoneName } from '../../../core/head/zoneFacts.ts'
import { isSkin, mirrorZone, zoneStem, type ZoneId } from '../../../core/head/zones.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import type { HeadHandle, HeadRing, HeadSign } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useHeadLayers } from '../../state/layers.ts'
import { useView, viewOf } from '../../state/view.ts'
import { dateWords } from '../../state/words.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { useFieldReadings, useFlowLayer, useGrain, useServiceZones } from '../useStation.ts'
import { Dial } from './Dial.tsx'
import { FeelPanel, type FeelPlace } from './FeelPanel.tsx'
import {
  useFieldSummary,
  useLatest,
  useMapEditing,
  useWhereNext,
  type Drawing,
  type MapEditing,
} from './useMap.ts'
import { MAP_USES, METHOD_WORDS, usedBearing, mapUse, type MapUse } from './words.ts'

/** A chosen reading moves this far with an arrow key. */
const NUDGE_MM = 2
/** A zone read this well is expected to hold at a place within it. */
const KAPPA_PER_TRUST = 3

export function GrainTab({ visit }: { visit: VisitPage }) {
  const [drawing, setDrawing] = useState<Drawing>({ method: 'felt', comb: false })
  const [use, setUse] = useState<MapUse>('growth')
  const [guesses, setGuesses] = useState(false)
  const [feel, setFeel] = useState<FeelPlace>()
  const [ring, setRing] = useState<HeadRing>()
  const [picked, setPicked] = useState<string>()
  const map = useMapEditing(visit, drawing)
  const grain = useGrain(visit)
  const flow = useFlowLayer(visit)
  const zones = useServiceZones(visit)
  const readings = useFieldReadings(visit)
  const summary = useFieldSummary(readings)
  const next = useWhereNext(
    readings,
    zones,
    readings.length > 0 && !map.frozen && feel === undefined,
  )
  const head = useHead()
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const turnTo = useView((s) => s.turnTo)
  const list = useChosenInView(chosen)
  useEffect(() => void head.data?.worker.warm(), [head.data])
  const zone = chosen ?? undefined
  const flowOf = useMemo(
    () => new Map(summary?.zones.map((z) => [z.zoneId, z] as const)),
    [summary],
  )
  const byId = useMemo(() => new Map(visit.readings.map((r) => [r.id, r])), [visit.readings])
  const chosenReading = picked === undefined ? undefined : byId.get(picked)

  const face = (normal: Vec3) => {
    const v = viewOf(normal)
    turnTo(v.yawDeg, v.pitchDeg)
  }
  const show = (id: ZoneId) => {
    choose(id)
    setPicked(undefined)
    const record = head.data?.zoneById.get(id)
    if (record) face(record.centre.normal)
  }
  const beginTest = (place: Pick<FeelPlace, 'zoneId' | 'point' | 'normal'>) => {
    if (map.frozen) {
      map.say('The service has begun: the map of this visit stays as it was.')
      return
    }
    if (!isSkin(place.zoneId)) return
    const near = flowOf.get(place.zoneId)
    const { zoneId, point, normal } = place
    setFeel({
      zoneId,
      point,
      normal,
      ...(near?.within !== undefined &&
        near.growthDirection !== undefined && {
          expected: { direction: near.growthDirection, kappa: KAPPA_PER_TRUST * near.trust },
        }),
    })
    choose(zoneId)
    face(normal)
  }
  const testHere = () => {
    const centre = zone && head.data?.zoneById.get(zone)?.centre
    if (zone && centre) beginTest({ zoneId: zone, ...centre })
    else if (next) beginTest(next)
  }

  const signs = useMemo<HeadSign[]>(() => {
    const out: HeadSign[] = []
    summary?.whorls.forEach((w, i) =>
      out.push({
        id: `whorl:${i}`,
        point: w.point,
        normal: w.normal,
        kind: w.kind === 'meeting' ? 'meeting' : w.turn,
      }),
    )
    summary?.disagreements.forEach((d, i) => {
      const [a, b] = [byId.get(d.a), byId.get(d.b)]
      if (!a || !b) return
      out.push({
        id: `disagree:${i}`,
        point: [0, 1, 2].map((k) => (a.point[k]! + b.point[k]!) / 2) as unknown as Vec3,
        normal: a.normal,
        kind: 'disagree',
      })
    })
    if (next && !feel)
      out.push({ id: 'next', point: next.point, normal: next.normal, kind: 'next' })
    return out
  }, [summary, byId, next, feel])
  const handles = useMemo<HeadHandle[]>(
    () =>
      map.frozen
        ? []
        : visit.readings
            .filter((r) => r.zoneId === zone || r.id === picked)
            .map((r) => ({
              id: r.id,
              point: r.point,
              normal: r.normal,
              direction: r.tangent,
              chosen: r.id === picked,
              grips: r.id === picked,
            })),
    [visit.readings, zone, picked, map.frozen],
  )
  const onStroke = useLatest(map.stroke)
  const whileDrawing = useLatest(map.whileDrawing)
  const onTap = useLatest((hit: Hit) => {
    setPicked(undefined)
    if (feel) beginTest(hit)
  })
  const [dragged, setDragged] = useState<{ id: string; hit: Hit }>()
  const onHandle = useLatest((id: string, hit: Hit, done: boolean) => {
    const reading = byId.get(id)
    if (!reading) return
    if (!done) {
      setDragged({ id, hit })
      return
    }
    setDragged(undefined)
    setPicked(map.move(reading, hit))
    if (isSkin(hit.zoneId)) choose(hit.zoneId)
  })
  const shown = useMemo(
    () => ({
      ...flow,
      tone: mapUse(use).tone,
      reversed: use === 'exfoliate',
      guesses,
    }),
    [flow, use, guesses],
  )
  const layers = useMemo(
    () => ({
      flow: shown,
      signs,
      spots: markSpots(visit.asked.spots),
      handles: feel
        ? []
        : handles.map((h) => (dragged?.id === h.id ? { ...h, ...dragged.hit, id: h.id } : h)),
      onTap,
      onPickHandle: setPicked,
      ...(ring && { ring }),
      ...(!map.frozen && !feel && { onStroke, whileDrawing, onHandle }),
    }),
    [
      shown,
      signs,
      visit.asked.spots,
      handles,
      dragged,
      ring,
      feel,
      map.frozen,
      onStroke,
      whileDrawing,
      onTap,
      onHandle,
    ],
  )
  useHeadLayers(layers)

  const turn = (degrees: number) => {
    if (chosenReading) {
      setPicked(map.replace(chosenReading, (r) => turnReading(r, toRadians(degrees))))
    } else if (zone) map.turn(zone, degrees)
  }
  const nudge = (right: number, up: number) => {
    if (!chosenReading || !head.data || feel) return
    const { yawDeg, pitchDeg } = useView.getState()
    const axes = viewAxes(yawDeg, pitchDeg)
    const to = chosenReading.point.map(
      (x, k) => x + NUDGE_MM * (right * axes.right[k]! + up * axes.up[k]!),
    ) as unknown as Vec3
    setPicked(map.move(chosenReading, head.data.nearest(to)))
  }
  const pickNext = (by: number) => {
    const own = visit.readings.filter((r) => r.zoneId === zone)
    if (own.length === 0) return
    const at = own.findIndex((r) => r.id === picked)
    setPicked(own[(at + by + own.length) % own.length]!.id)
  }
  useHotkeys([
    ['[', () => turn(-15)],
    [']', () => turn(15)],
    ['shift+[', () => turn(-1)],
    ['shift+]', () => turn(1)],
    ['shift+{', () => turn(-1)],
    ['shift+}', () => turn(1)],
    ['M', () => zone && map.mirror(zone)],
    ['Z', map.undo],
    ['shift+Z', map.redo],
    ['C', () => setDrawing((d) => ({ ...d, comb: !d.comb }))],
    ['G', () => setGuesses((g) => !g)],
    ['T', () => !feel && testHere()],
    [
      'N',
      () => {
        if (next && !feel) {
          choose(next.zoneId)
          face(next.normal)
        }
      },
    ],
    ['.', () => pickNext(1)],
    [',', () => pickNext(-1)],
    ['Delete', () => chosenReading && map.forget([chosenReading])],
    ...(chosenReading && !feel
      ? ([
          ['ArrowLeft', () => nudge(-1, 0)],
          ['ArrowRight', () => nudge(1, 0)],
          ['ArrowUp', () => nudge(0, 1)],
          ['ArrowDown', () => nudge(0, -1)],
        ] as [string, () => void][])
      : []),
  ])
  useEffect(() => setPicked(undefined), [visit.id])

  if (feel) {
    return (
      <FeelPanel
        key={feel.point.join()}
        place={feel}
        onRing={setRing}
        onFound={(reading) => map.make({ remove: [], add: [reading] })}
        onClose={() => setFeel(undefined)}
      />
    )
  }
  return (
    <>
      {zone && grain[zone] ? (
        <ZoneDetail
          zone={zone}
          grain={grain[zone]}
          flow={flowOf.get(zone)}
          readings={visit.readings.filter((r) => r.zoneId === zone)}
          picked={picked}
          onPick={(id) => setPicked(id === picked ? undefined : id)}
          use={use}
          map={map}
          onTurn={turn}
          onTest={testHere}
        />
      ) : (
        <Overview
          visit={visit}
          zones={zones}
          flowOf={flowOf}
          next={next && { zoneId: next.zoneId, gain: next.gain }}
          onNext={() => next && beginTest(next)}
          onShowNext={() => next && show(next.zoneId)}
          frozen={map.frozen}
        />
      )}
      {map.problem && (
        <p role="alert" className="problem">
          {map.problem}
        </p>
      )}
      <Turning
        summary={summary}
        zone={zone}
        byId={byId}
        onShow={(normal, id) => {
          choose(id)
          face(normal)
        }}
        onPick={(r) => {
          choose(r.zoneId)
          setPicked(r.id)
          face(r.normal)
        }}
      />
      <div className="read-tools">
        <div className="switch" role="group" aria-label="How it is found">
          {READING_METHODS.map((m: ReadingMethod) => (
            <button
              key={m}
              aria-pressed={drawing.method === m}
              onClick={() => setDrawing((d) => ({ ...d, method: m }))}
            >
              {METHOD_WORDS[m]}
            </button>
          ))}
        </div>
        <div className="switch" role="group" aria-label="Ways of reading">
          <button
            aria-pressed={drawing.comb}
            onClick={() => setDrawing((d) => ({ ...d, comb: !d.comb }))}
            title="One long stroke over several zones leaves a series of readings"
          >
            Comb <kbd>C</kbd>
          </button>
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
      <div className="read-tools">
        <div className="switch" role="group" aria-label="Show the map as">
          {MAP_USES.map((u) => (
            <button key={u.id} aria-pressed={use === u.id} onClick={() => setUse(u.id)}>
              {u.name}
            </button>
          ))}
        </div>
        <div className="switch" role="group" aria-label="Starting guesses">
          <button aria-pressed={guesses} onClick={() => setGuesses((g) => !g)}>
            Guesses <kbd>G</kbd>
          </button>
        </div>
      </div>
      <div className="scroll" ref={list}>
        <table className="list tight pick">
          <thead>
            <tr>
              <th scope="col">Zone</th>
              <th scope="col">{mapUse(use).column}</th>
              <th scope="col" className="num">
                Even, R
              </th>
              <th scope="col" className="num">
                Read
              </th>
              <th scope="col">Within</th>
            </tr>
          </thead>
          <tbody>
            {zones.map((id) => (
              <ZoneRow
                key={id}
                grain={grain[id]!}
                flow={flowOf.get(id)}
                use={use}
                chosen={id === zone}
                onChoose={() => show(id)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}

/** What to do before a zone is chosen. */
function Overview({
  visit,
  zones,
  flowOf,
  next,
  onNext,
  onShowNext,
  frozen,
}: {
  visit: VisitPage
  zones: readonly ZoneId[]
  flowOf: ReadonlyMap<ZoneId, ZoneFlow>
  next: { zoneId: ZoneId; gain: number } | undefined
  onNext: () => void
  onShowNext: () => void
  frozen: boolean
}) {
  const known = zones.filter((z) => flowOf.get(z)?.within !== undefined).length
  const count = visit.readings.length
  return (
    <section className="zone-detail">
      <h1>Read the grain</h1>
      <p className="lead">
        {count === 0
          ? 'Nothing is read yet, so the head is plain. Drag on it from root to tip, as you feel the hair.'
          : `${known} of ${zones.length} zones of this service are read or lie near a reading. ${count} ${count === 1 ? 'reading' : 'readings'}${count < LEAST_READINGS ? `; a whole head wants about ${LEAST_READINGS}` : ''}.`}
      </p>
      {next && !frozen && (
        <p className="where-next">
          <span>
            Where next: <b>{zoneName(next.zoneId)}</b>. A reading there would tell most.
          </span>
          <span className="pair">
            <button onClick={onShowNext}>
              Show it <kbd>N</kbd>
            </button>
            <button onClick={onNext}>Test it</button>
          </span>
        </p>
      )}
    </section>
  )
}

/** Readings that a whole head wants: with fewer the field between them is loose. */
const LEAST_READINGS = 32

/** Whorls, meeting points, and readings that disagree. */
function Turning({
  summary,
  zone,
  byId,
  onShow,
  onPick,
}: {
  summary: ReturnType<typeof useFieldSummary>
  /** With a zone chosen only what turns there is told. */
  zone: ZoneId | undefined
  byId: ReadonlyMap<string, Reading>
  onShow: (normal: Vec3, zone: ZoneId) => void
  onPick: (reading: Reading) => void
}) {
  if (!summary) return null
  const whorls = summary.whorls.filter((w) => zone === undefined || w.zoneId === zone)
  if (whorls.length === 0 && summary.disagreements.length === 0) return null
  return (
    <ul className="turning" aria-label="What turns">
      {summary.disagreements.slice(0, 3).map((d) => {
        const [a, b] = [byId.get(d.a), byId.get(d.b)]
        if (!a || !b) return null
        return (
          <li key={d.a + d.b} className="disagrees">
            <span>
              Readings disagree here, {zoneName(a.zoneId)}: {Math.round(d.degrees)}° apart. Check
            </span>
            {[a, b].map((r) => (
              <button key={r.id} className="link" onClick={() => onPick(r)}>
                {METHOD_WORDS[r.method]}, {clockWords(readingBearing(r))}
              </button>
            ))}
          </li>
        )
      })}
      {whorls.map((w, i) => (
        <li key={i}>
          <button className="link" onClick={() => onShow(w.normal, w.zoneId)}>
            {zoneName(w.zoneId)}: {whorlWords(w)}
          </button>
        </li>
      ))}
    </ul>
  )
}

function ZoneRow({
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
            : `${near ? '≈ ' : ''}${clockWords(usedBearing(bearing, use))}`}
      </td>
      <td className="num">
        {flow?.within !== undefined && flow.meanResultantLength.toFixed(2)}
        {parts && <span title="Read this zone in parts"> in parts</span>}
      </td>
      <td className="num">{grain.count || ''}</td>
      <td>{flow?.within !== undefined ? `${flow.within}°` : read ? '' : 'not read'}</td>
    </tr>
  )
}

function ZoneDetail({
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
  const parts = (flow?.readInParts || grain.readInParts) && !grain.contradictory
  return (
    <section className="zone-detail" aria-live="polite">
      <h1>{zoneName(zone)}</h1>
      <div className="dial-row">
        <Dial
          size={88}
          bearing={bearing}
          guess={!read}
          spread={
            flow?.within !== undefined ? toRadians(flow.within) : grain.summary?.standardDeviation
          }
        />
        <div>
          <p className="big">
            {grain.contradictory
              ? 'no one direction'
              : `${read ? verb : near ? `≈ ${verb}` : use === 'growth' ? 'may grow to' : `perhaps ${verb}`} ${clockWords(bearing)}`}
          </p>
          <p className="soft">
            {grain.contradictory
              ? 'The readings cancel each other out: feel again, in parts.'
              : read
                ? `${bearingDeg(bearing)}°, ${withinWords(flow?.within)}. ${readings.length === 1 ? 'One reading' : `Readings agree with R ${grain.summary!.meanResultantLength.toFixed(2)}`}${flow ? `, the field is even with R ${flow.meanResultantLength.toFixed(2)}` : ''}.`
                : near
                  ? `${bearingDeg(bearing)}°, ${withinWords(flow.within)}: from readings beside it. Read it to be sure.`
                  : `${bearingDeg(bearing)}°, a starting guess (H). Draw over it, or take it if you looked.`}
          </p>
          {parts && (
            <p className="notice">Read this zone in parts: hair turns in it (R under 0.85, H).</p>
          )}
        </div>
      </div>
      {readings.length > 0 ? (
        <ul className="readings" aria-label="Readings of this zone">
          {readings.map((r) => (
            <li key={r.id} className={r.id === picked ? 'chosen' : ''}>
              <button aria-pressed={r.id === picked} onClick={() => onPick(r.id)}>
                {METHOD_WORDS[r.method]} · {clockWords(readingBearing(r))} · {dateWords(r.atMs)}
                {r.answers && ` · ${r.answers.length} answers`}
              </button>
              {r.id === picked && !map.frozen && (
                <button
                  className="link"
                  onClick={() => map.forget([r])}
                  aria-label={`Forget this reading: ${METHOD_WORDS[r.method]}, ${clockWords(readingBearing(r))}`}
                >
                  Forget
                </button>
              )}
            </li>
          ))}
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
