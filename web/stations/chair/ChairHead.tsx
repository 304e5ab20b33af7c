/** The head at the chair: the lane being worked, its stroke, the pull of the free hand, what to leave out, what has dried. */
import { isBody } from '../../../core/zones/index.ts'
import { ON_SKIN } from '../../../core/palette.ts'
import { freeHandNow, latherNow } from '../../../core/chair/index.ts'
import { ALL_ZONE_IDS } from '../../../core/zones/index.ts'
import { isBodySitting, zonesOfJobs } from '../../../core/services/index.ts'
import type { Vec3 } from '../../../core/head/index.ts'
import {
  laneEdges,
  lanesWith,
  laneWash,
  type Lane,
  type PlanStep,
  stepZones,
  zonesOfPlan,
} from '../../../core/plan/index.ts'
import type { StrokePoint } from '../../../core/grain/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useEffect, useMemo } from 'react'
import { useHead, type Hit } from '../../head/loadHead.ts'
import { BodyStage } from '../../head/BodyStage.tsx'
import { HeadStage } from '../../head/HeadStage.tsx'
import { pullArrow, strokeArrow } from '../../head/laneArrows.ts'
import type { HeadArrow, HeadSpot } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useDrawn } from '../../marks/useOutlines.ts'
import { viewAxes, viewOf, VIEW_CENTRE } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import { useFieldReadings, type StationProps } from '../useStation.ts'
import { drawFelt, feltAt, useFelt } from './felt.ts'
import { useTaps } from './taps.ts'
import { useChairNow, type Chair } from './useChair.ts'

export type ChairProps = StationProps & { chair: Chair }

const LANE_COLOUR = [0.5, 0.78, 0.78, 0.5] as const
const TOUCHED_MM = 6
/** How much nearer a lane is looked at, and how far from the middle, mm, it would leave the picture with its arrows. */
const NEARER = 1.2
const NEAR_MM = 90

/** Nearer, as long as what is looked at stays in the picture. */
function nearness(point: Vec3, { yawDeg, pitchDeg }: { yawDeg: number; pitchDeg: number }): number {
  const { right, up } = viewAxes(yawDeg, pitchDeg)
  const off = [0, 1, 2].map((k) => point[k]! - VIEW_CENTRE[k]!)
  const along = (axis: Vec3) => Math.abs(axis.reduce((s, a, k) => s + a * off[k]!, 0))
  return Math.max(along(right), along(up)) > NEAR_MM ? 1 : NEARER
}

export function ChairHead({ visit, chair, step }: ChairProps & { step: PlanStep | undefined }) {
  const figures = useFigures()
  const head = useHead()
  const readings = useFieldReadings(visit)
  const lines = useDrawn(visit)
  const turnTo = useView((s) => s.turnTo)
  const choose = useView((s) => s.choose)
  const { mode, places, tap } = useTaps()
  const { plan, state } = chair.live
  const body = isBodySitting(plan.jobs)
  // Before the start the first lane is in view.
  const lookAt = state.pausedFor?.zones
  const shown =
    state.status === 'waiting'
      ? plan.steps.find((s) => s.kind === 'stroke')
      : // What must be looked at first takes the place of the step.
        lookAt
        ? undefined
        : step
  const lane = plan.lanes.find((l) => l.id === shown?.laneId)
  const feltChanged = useFelt((f) => f.now)
  // What is felt changes with the store as well as with the step.
  const felt = useMemo(() => feltAt(chair.live), [chair.live, feltChanged]) // eslint-disable-line react-hooks/exhaustive-deps
  // What is done by hand has no strokes: its skin is in view.
  const handAt = shown?.kind === 'hand' ? shown.zoneId : undefined
  const handNormal = handAt && head.data?.zoneById.get(handAt)?.centre.normal
  // Between strokes the head shows what is worked: a scalp from above, a face from the front.
  const middle = useMemo(() => middleOf(plan.lanes), [plan.lanes])
  const normal =
    plan.lanes.find((l) => lookAt?.includes(l.zoneId))?.normal ??
    lane?.normal ??
    felt?.normal ??
    handNormal ??
    (step?.kind === 'check' || !step ? middle : undefined)
  useEffect(() => {
    choose(null)
    if (normal) {
      const v = viewOf(normal)
      turnTo(v.yawDeg, v.pitchDeg, (lane ?? felt) ? nearness((lane ?? felt)!.point, v) : 1)
    } else {
      turnTo(0, 0, 1)
    }
    // A finger that turns the arrow does not turn the head.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [normal, lane, turnTo, choose])
  // The next station finds the head as it is usually seen.
  useEffect(() => () => useView.getState().show('front'), [])
  const { zones } = plan
  const flow = useMemo(() => {
    const own = new Set<string>(zonesOfPlan(plan))
    return { readings, faint: new Set(ALL_ZONE_IDS.filter((id) => !own.has(id))) }
  }, [readings, plan])
  const loaded = body ? undefined : head.data
  const edges = useMemo(
    () => (loaded ? laneEdges(loaded.packed.display, zones) : undefined),
    [loaded, zones],
  )
  const wash = useMemo(() => {
    if (!loaded || !lane) return undefined
    return laneWash(
      loaded.packed.display,
      zones,
      lanesWith(plan, lane).map((l) => ({ ...l, colour: LANE_COLOUR })),
    )
  }, [loaded, zones, lane, plan])
  const dry = useDryZones(chair)
  const spots = useMemo((): HeadSpot[] => {
    const marks = markSpots(figures, visit.asked.spots).map((s) => ({
      ...s,
      name: `${s.name}: leave out`,
    }))
    const nicks = state.nicks.flatMap((n) =>
      n.point && n.normal
        ? [{ id: n.id, point: n.point, normal: n.normal, radiusMm: 3, name: 'nick' }]
        : [],
    )
    const tapped = places.map((p, i) => ({
      id: `tap${i}`,
      point: p.point,
      normal: p.normal,
      radiusMm: mode === 'zones' ? TOUCHED_MM : p.radiusMm,
      name: TAP_WORDS[mode],
      light: mode !== 'one',
    }))
    return [...marks, ...nicks, ...tapped]
  }, [figures, visit.asked.spots, state.nicks, places, mode])
  const onTap = useMemo(
    () =>
      mode === 'none'
        ? undefined
        : ({ zoneId, point, normal: n }: Hit) => tap({ zoneId, point, normal: n }),
    [mode, tap],
  )
  const layers = useMemo(() => {
    const common = { spots, lines, ...(onTap && { onTap }) }
    const tints = [
      ...dry.map((zoneId) => ({ zoneId, colour: ON_SKIN.brass, opacity: 0.3 })),
      ...(lookAt ?? []).map((zoneId) => ({ zoneId, colour: ON_SKIN.coral, opacity: 0.45 })),
    ]
    if (felt && step?.kind === 'feel') {
      const arrow: HeadArrow = {
        id: 'felt',
        zoneId: felt.zoneId,
        point: felt.point,
        normal: felt.normal,
        direction: felt.tangent,
        kind: 'with',
        lengthMm: body ? 90 : 30,
      }
      return {
        ...common,
        flow,
        arrows: [arrow],
        labels: feltChanged?.stepId === step.id ? [] : guess(felt.point),
        tints: [{ zoneId: felt.zoneId, colour: ON_SKIN.brass, opacity: 0.3 }],
        onStroke: (stroke: readonly StrokePoint[]) => drawFelt(chair.live, stroke),
      }
    }
    if (step?.kind === 'hand') {
      const own = stepZones(step).map((zoneId) => ({
        ...{ zoneId, colour: ON_SKIN.water, opacity: 0.42 },
      }))
      return { ...common, flow, tints: [...own, ...tints] }
    }
    if (step?.films) {
      const wet = zones.flatMap(({ zoneId }) =>
        step.films![zoneId] ? [{ zoneId, colour: ON_SKIN.water, opacity: 0.42 }] : [],
      )
      return { ...common, flow, tints: [...wet, ...tints] }
    }
    if (!lane) {
      // For the second look everything that was worked is in view.
      return { ...common, ...(step?.kind === 'check' && { flow, laneEdges: edges }), tints }
    }
    const { hold } = freeHandNow(plan, lane, state)
    const arrows = [strokeArrow(plan, lane), ...(hold ? [pullArrow(hold)] : [])]
    return {
      ...common,
      flow,
      arrows,
      labels: lanesWith(plan, lane).flatMap((l) =>
        l.grain === 'guess' && !state.felt[l.zoneId] ? guess(l.point, l.id) : [],
      ),
      laneEdges: edges,
      wash,
      tints: body
        ? [
            ...lanesWith(plan, lane).map(({ zoneId }) => ({
              ...{ zoneId, colour: ON_SKIN.water, opacity: 0.42 },
            })),
            ...tints,
          ]
        : tints,
    }
  }, [
    plan,
    zones,
    lane,
    felt,
    feltChanged,
    chair.live,
    state,
    lookAt,
    step,
    spots,
    flow,
    lines,
    edges,
    wash,
    body,
    onTap,
    dry,
  ])
  return body ? (
    <BodyStage zones={zonesOfJobs(plan.jobs).filter(isBody)} {...layers} />
  ) : (
    <HeadStage {...layers} />
  )
}

/** Mean direction that the worked skin faces; undefined before anything is planned. */
function middleOf(lanes: readonly Lane[]): Vec3 | undefined {
  const sum = [0, 1, 2].map((k) => lanes.reduce((s, l) => s + l.areaCm2 * l.normal[k]!, 0))
  const size = Math.hypot(...sum)
  return size > 0 ? [sum[0]! / size, sum[1]! / size, sum[2]! / size] : undefined
}

const TAP_WORDS = { none: '', one: 'here', patches: 'missed', zones: 'red' } as const

/** Zones whose lather has dried, the same list as long as they stay the same. */
function useDryZones(chair: Chair) {
  const figures = useFigures()
  const now = useChairNow(chair.link)
  const key = latherNow(figures, chair.live, now)
    .filter((l) => l.leftMs <= 0)
    .map((l) => l.zoneId)
    .sort()
    .join(' ')
  return useMemo(
    () => (key === '' ? [] : (key.split(' ') as (typeof ALL_ZONE_IDS)[number][])),
    [key],
  )
}

/** What stands at an arrow that nobody has read or felt yet. */
const guess = (point: Vec3, id = 'guess') => [{ id, point, text: '?' }]
