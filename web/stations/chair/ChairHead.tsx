/** The head at the chair: the lane being worked, its stroke, the pull of the free hand, what to leave out. */
import { useEffect, useMemo } from 'react'
import { directionOf } from '../../../core/head/frames.ts'
import { ZONE_IDS } from '../../../core/head/zones.ts'
import type { Plan, PlanStep } from '../../../core/plan/types.ts'
import { useHead } from '../../head/loadHead.ts'
import { HeadStage } from '../../head/HeadStage.tsx'
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
  const record = step?.zoneId ? head.data?.zoneById.get(step.zoneId) : undefined
  useEffect(() => {
    choose(null)
    if (record) {
      const v = viewOf(record.centre.normal)
      turnTo(v.yawDeg, v.pitchDeg, 1.2)
    } else {
      turnTo(0, 0, 1)
    }
  }, [record, turnTo, choose])
  const flow = useMemo(() => {
    const own = new Set(plan.zones.map((z) => z.zoneId as string))
    return { readings, faint: new Set(ZONE_IDS.filter((id) => !own.has(id))) }
  }, [readings, plan])
  const layers = useMemo(() => {
    const spots = markSpots(visit.asked.spots).map((s) => ({ ...s, name: `${s.name}: leave out` }))
    if (!step || !record || step.strokeBearing === undefined) return { spots, lines }
    const { point, normal } = record.centre
    const lengthMm = Math.min(34, Math.max(12, Math.sqrt(record.areaCm2) * 5))
    const stroke = directionOf(record.id, point, normal, step.strokeBearing)
    const pull = directionOf(record.id, point, normal, step.pullBearing!)
    const arrows: HeadArrow[] = [
      {
        id: 'stroke',
        zoneId: record.id,
        point,
        normal,
        direction: stroke,
        kind: step.relation!,
        lengthMm,
      },
      {
        id: 'pull',
        zoneId: record.id,
        // The free hand lies behind the stroke, beyond its start.
        point: [
          point[0] + pull[0] * (lengthMm * 0.5 + 12),
          point[1] + pull[1] * (lengthMm * 0.5 + 12),
          point[2] + pull[2] * (lengthMm * 0.5 + 12),
        ],
        normal,
        direction: pull,
        kind: 'pull',
        lengthMm: 15,
      },
    ]
    return {
      flow,
      arrows,
      spots,
      lines,
      tints: [{ zoneId: record.id, colour: '#7fc6c6', opacity: 0.42 }],
    }
  }, [step, record, visit.asked.spots, flow, lines])
  return <HeadStage {...layers} />
}
