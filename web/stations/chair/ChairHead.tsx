/** The head at the chair: the lane being worked, its stroke, the pull of the free hand, what to leave out. */
import { useEffect, useMemo } from 'react'
import { ALL_ZONE_IDS } from '../../../core/head/zones.ts'
import { isBodyService } from '../../../core/services.ts'
import type { Plan, PlanStep } from '../../../core/plan/types.ts'
import { useHead } from '../../head/loadHead.ts'
import { BodyStage } from '../../head/BodyStage.tsx'
import { HeadStage } from '../../head/HeadStage.tsx'
import { laneEdges, laneWash } from '../../head/lanePaint.ts'
import type { HeadArrow } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useKeptLines } from '../../marks/useLinePaths.ts'
import { useView, viewOf } from '../../state/view.ts'
import { useFieldReadings, type StationProps } from '../useStation.ts'

export type ChairProps = StationProps & { plan: Plan }

export function ChairHead({ visit, plan, step }: ChairProps & { step: PlanStep | undefined }) {
  const head = useHead()
  const readings = useFieldReadings(visit)
  const lines = useKeptLines(visit)
  const turnTo = useView((s) => s.turnTo)
  const choose = useView((s) => s.choose)
  const body = isBodyService(plan.service)
  const lane = plan.lanes.find((l) => l.id === step?.laneId)
  const normal = lane?.normal
  useEffect(() => {
    choose(null)
    if (normal) {
      const v = viewOf(normal)
      turnTo(v.yawDeg, v.pitchDeg, 1.2)
    } else {
      turnTo(0, 0, 1)
    }
  }, [normal, turnTo, choose])
  const flow = useMemo(() => {
    const own = new Set(plan.zones.map((z) => z.zoneId as string))
    return { readings, faint: new Set(ALL_ZONE_IDS.filter((id) => !own.has(id))) }
  }, [readings, plan])
  const loaded = body ? undefined : head.data
  const edges = useMemo(() => (loaded ? laneEdges(loaded, plan) : undefined), [loaded, plan])
  const wash = useMemo(() => {
    if (!loaded || !lane) return undefined
    return laneWash(loaded, plan, new Map([[`${lane.zoneId}:${lane.letter}`, LANE_COLOUR]]))
  }, [loaded, plan, lane])
  const layers = useMemo(() => {
    const spots = markSpots(visit.asked.spots).map((s) => ({ ...s, name: `${s.name}: leave out` }))
    if (!lane) return { spots, lines }
    const { point } = lane
    const lengthMm = Math.min(body ? 120 : 34, Math.max(12, lane.lengthMm * 0.5))
    const at = (k: 0 | 1 | 2) => point[k] - lane.stroke[k] * (lengthMm * 0.5 + (body ? 40 : 12))
    const arrows: HeadArrow[] = [
      {
        id: 'stroke',
        zoneId: lane.zoneId,
        point,
        normal: lane.normal,
        direction: lane.stroke,
        kind: lane.relation,
        lengthMm,
      },
      {
        id: 'pull',
        zoneId: lane.zoneId,
        // The free hand lies behind the stroke, beyond its start.
        point: [at(0), at(1), at(2)],
        normal: lane.normal,
        direction: [-lane.stroke[0], -lane.stroke[1], -lane.stroke[2]],
        kind: 'pull',
        lengthMm: body ? 50 : 15,
      },
    ]
    return {
      flow,
      arrows,
      spots,
      lines,
      laneEdges: edges,
      wash,
      tints: body ? [{ zoneId: lane.zoneId, colour: '#7fc6c6', opacity: 0.42 }] : [],
    }
  }, [lane, visit.asked.spots, flow, lines, edges, wash, body])
  return body ? <BodyStage {...layers} /> : <HeadStage {...layers} />
}

const LANE_COLOUR = [0.5, 0.78, 0.78, 0.5] as const
