/** The grain: drag on the head from root to tip; the field takes it up everywhere near. */
import { useFigures } from '../../state/figures.ts'
import { useHotkeys } from '@mantine/hooks'
import { useEffect, useMemo, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import {
  toRadians,
  READING_METHODS,
  turnReading,
  type ReadingMethod,
} from '../../../core/grain/index.ts'
import { type Vec3, viewAxes } from '../../../core/head/index.ts'
import { isSkin, type ZoneId } from '../../../core/zones/index.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import type { HeadHandle, HeadRing, HeadSign } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useHeadLayers } from '../../state/layers.ts'
import { useView, viewOf } from '../../state/view.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { useFieldReadings, useFlowLayer, useGrain, useServiceZones } from '../useStation.ts'
import { FeelPanel, type FeelPlace } from './FeelPanel.tsx'
import { useFieldSummary, useLatest, useMapEditing, useWhereNext, type Drawing } from './useMap.ts'
import { MAP_USES, mapUse, type MapUse } from './words.ts'
import { READING_METHOD_WORDS } from './words.ts'
import { Overview, Turning } from './Overview.tsx'
import { ZoneDetail, ZoneRow } from './ZoneDetail.tsx'

/** A chosen reading moves this far with an arrow key. */
const NUDGE_MM = 2
/** A zone read this well is expected to hold at a place within it. */
const KAPPA_PER_TRUST = 3

export function GrainTab({ visit }: { visit: VisitPage }) {
  const figures = useFigures()
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
    const reading = map.reading(id)
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
      spots: markSpots(figures, visit.asked.spots),
      handles: feel
        ? []
        : handles.map((h) => (dragged?.id === h.id ? { ...h, ...dragged.hit, id: h.id } : h)),
      onTap,
      onPickHandle: setPicked,
      ...(ring && { ring }),
      ...(!map.frozen && !feel && { onStroke, whileDrawing, onHandle }),
    }),
    [
      figures,
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
    const reading = map.reading(picked)
    if (reading) {
      setPicked(map.replace(reading, (r) => turnReading(r, toRadians(degrees))))
    } else if (zone) map.turn(zone, degrees)
  }
  const nudge = (right: number, up: number) => {
    const reading = map.reading(picked)
    if (!reading || !head.data || feel) return
    const { yawDeg, pitchDeg } = useView.getState()
    const axes = viewAxes(yawDeg, pitchDeg)
    const to = reading.point.map(
      (x, k) => x + NUDGE_MM * (right * axes.right[k]! + up * axes.up[k]!),
    ) as unknown as Vec3
    setPicked(map.move(reading, head.data.nearest(to)))
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
    [
      'Delete',
      () => {
        const reading = map.reading(picked)
        if (reading) map.forget([reading])
      },
    ],
    ...(map.reading(picked) && !feel
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
              {READING_METHOD_WORDS[m]}
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
