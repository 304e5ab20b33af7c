/** The plan on the head: borders of lanes, an arrow each, the chosen one washed over. */
import { useMemo } from 'react'
import {
  groupsOf,
  laneEdges,
  lanesWith,
  laneWash,
  type Lane,
  type LaneDifference,
  type Plan,
} from '../../../core/plan/index.ts'
import { ON_SKIN } from '../../../core/palette.ts'
import { isBodySitting } from '../../../core/services/index.ts'
import { useHead } from '../../head/loadHead.ts'
import type { HeadArrow } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useDrawn } from '../../marks/useOutlines.ts'
import { useFigures } from '../../state/figures.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useFlowLayer, type StationProps } from '../useStation.ts'

/** Brass and coral, as red, green, blue and opacity. */
const DIFFERENCE_COLOURS = {
  'closest-more': [0.66, 0.48, 0.13, 0.42],
  'gentlest-less': [0.75, 0.31, 0.21, 0.4],
} as const

const CHOSEN_COLOUR = [0.25, 0.6, 0.62, 0.4] as const

/** Shows a plan on the head: the arrows of one pass, or of all where none is named. */
export function usePlanLayers(
  { visit }: StationProps,
  plan: Plan,
  pass: number | undefined,
  lane: Lane | undefined,
  diff: readonly LaneDifference[] | undefined,
) {
  const figures = useFigures()
  const head = useHead()
  const flow = useFlowLayer(visit)
  const lines = useDrawn(visit)
  const onHead = !isBodySitting(plan.jobs)
  const loaded = onHead ? head.data : undefined
  const edges = useMemo(
    () => (loaded ? laneEdges(loaded.packed.display, plan.zones) : undefined),
    [loaded, plan],
  )
  const wash = useMemo(() => {
    if (!loaded) return undefined
    const chosen = (lane ? lanesWith(plan, lane) : []).map((l) => ({ ...l, colour: CHOSEN_COLOUR }))
    const differing = diff?.map((d) => ({ ...d, colour: DIFFERENCE_COLOURS[d.difference] }))
    return laneWash(loaded.packed.display, plan.zones, differing ?? chosen)
  }, [loaded, plan, lane, diff])
  const layers = useMemo(() => {
    const leads = groupsOf(plan.lanes).map((g) => g.lead)
    const paths = new Map((plan.presses ?? []).map((p) => [p.id, p.path]))
    const arrows = leads
      .filter((l) => pass === undefined || l.pass === pass)
      .map((l): HeadArrow => ({
        id: l.id,
        zoneId: l.zoneId,
        point: l.point,
        normal: l.normal,
        direction: l.stroke,
        path: paths.get(l.stepId ?? l.id),
        kind: l.relation,
        lengthMm: Math.min(onHead ? 26 : 90, Math.max(8, l.lengthMm * 0.45)),
      }))
    // A direction that is only guessed says so where it is drawn, too.
    const labels = plan.lanes
      .filter((l) => (pass === undefined || l.pass === pass) && l.grain === 'guess')
      .map((l) => ({ id: l.id, point: l.point, text: '?' }))
    return {
      flow,
      arrows,
      labels,
      spots: markSpots(figures, visit.asked.spots),
      lines,
      laneEdges: edges,
      wash,
      tints: plan.leftOut
        .filter((z) => !plan.zones.some((p) => p.zoneId === z.zoneId))
        .map((z) => ({ zoneId: z.zoneId, colour: ON_SKIN.coral, opacity: 0.3 })),
    }
  }, [figures, plan, pass, flow, lines, visit.asked.spots, edges, wash, onHead])
  useHeadLayers(layers)
}
