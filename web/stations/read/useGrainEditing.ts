/** Reading the grain: what is chosen on the map, the way it is drawn, and every act on it. */
import { useEffect, useMemo, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import type { MapUse } from '../../../core/grain/index.ts'
import { viewAxes, type Vec3, viewOf } from '../../../core/head/index.ts'
import { isSkin, type ZoneId } from '../../../core/zones/index.ts'
import { useHead } from '../../head/loadHead.ts'
import type { HeadRing } from '../../head/shared.ts'
import { useKeys } from '../../keys/useKeys.ts'
import { useView } from '../../state/view.ts'
import { useFieldReadings, useGrain, useStrokedZones } from '../useStation.ts'
import type { FeelPlace } from './FeelPanel.tsx'
import { useFieldSummary, useMapEditing, useWhereNext, type Drawing } from './useMap.ts'

/** A chosen reading moves this far with an arrow key. */
const NUDGE_MM = 2
/** A zone read this well is expected to hold at a place within it. */
const KAPPA_PER_TRUST = 3

export type GrainEditing = ReturnType<typeof useGrainEditing>

export function useGrainEditing(visit: VisitPage) {
  const [drawing, setDrawing] = useState<Drawing>({ method: 'felt', comb: false })
  const [use, setUse] = useState<MapUse>('growth')
  const [guesses, setGuesses] = useState(false)
  const [feel, setFeel] = useState<FeelPlace>()
  const [ring, setRing] = useState<HeadRing>()
  const [picked, setPicked] = useState<string>()
  const map = useMapEditing(visit, drawing)
  const grain = useGrain(visit)
  const zones = useStrokedZones(visit)
  const readings = useFieldReadings(visit)
  const summary = useFieldSummary(readings)
  const next = useWhereNext(
    readings,
    zones,
    readings.length > 0 && !map.frozen && feel === undefined,
  )
  const head = useHead()
  const zone = useView((s) => s.chosen) ?? undefined
  const choose = useView((s) => s.choose)
  const turnTo = useView((s) => s.turnTo)
  useEffect(() => void head.data?.worker.warm(), [head.data])
  useEffect(() => setPicked(undefined), [visit.id])
  const flowOf = useMemo(
    () => new Map(summary?.zones.map((z) => [z.zoneId, z] as const)),
    [summary],
  )
  const byId = useMemo(() => new Map(visit.readings.map((r) => [r.id, r])), [visit.readings])

  /** Turns the head so that a place is seen. */
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
  const beginTest = ({ zoneId, point, normal }: Pick<FeelPlace, 'zoneId' | 'point' | 'normal'>) => {
    if (map.frozen) {
      map.say('The service has begun: the map of this visit stays as it was.')
      return
    }
    if (!isSkin(zoneId)) return
    const near = flowOf.get(zoneId)
    setFeel({
      ...{ zoneId, point, normal },
      ...(near?.within !== undefined &&
        near.growthDirection !== undefined && {
          expected: { direction: near.growthDirection, kappa: KAPPA_PER_TRUST * near.trust },
        }),
    })
    choose(zoneId)
    face(normal)
  }
  const testHere = () => {
    if (!zone && next) return beginTest(next)
    // While nothing is read no place tells more than another.
    const here = zone ?? zones[0]
    const centre = here && head.data?.zoneById.get(here)?.centre
    if (here && centre) beginTest({ zoneId: here, ...centre })
  }
  const turn = (degrees: number) => {
    const reading = map.reading(picked)
    if (reading) setPicked(map.turnOne(reading, degrees))
    else if (zone) map.turn(zone, degrees)
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
  const toNext = () => {
    if (!next || feel) return
    choose(next.zoneId)
    face(next.normal)
  }
  return {
    ...{ visit, map, grain, zones, zone, summary, next, flowOf, byId },
    ...{ drawing, setDrawing, use, setUse, guesses, setGuesses, feel, setFeel, ring, setRing },
    ...{
      picked,
      setPicked,
      choose,
      face,
      show,
      beginTest,
      testHere,
      turn,
      nudge,
      pickNext,
      toNext,
    },
  }
}

/** The keys of reading the grain that have no word beside the head. */
export function useGrainKeys(editing: GrainEditing): void {
  const { map, feel, picked, turn, nudge, pickNext } = editing
  const reading = feel ? undefined : map.reading(picked)
  useKeys({
    'turn-back-fine': () => turn(-1),
    'turn-on-fine': () => turn(1),
    'reading-before': () => pickNext(-1),
    'reading-after': () => pickNext(1),
    forget: reading && (() => map.forget([reading])),
    'move-left': reading && (() => nudge(-1, 0)),
    'move-right': reading && (() => nudge(1, 0)),
    'move-up': reading && (() => nudge(0, 1)),
    'move-down': reading && (() => nudge(0, -1)),
  })
}
