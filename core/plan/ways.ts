/**
 * The way of each stroke: with the growth, against it, across, or as a school fixes it; and beside an edge turned along it, so
 * far as who must be shaved with the grain allows. Common practice.
 */
import { bumpProneIn } from '../client.ts'
import type { Figures } from '../house/index.ts'
import { RELATION_CONSTANTS, toRadians, wrapHalf, wrapTurn } from '../grain/index.ts'
import type { Vec3 } from '../head/index.ts'
import { SERVICES, type Wanted } from '../services/index.ts'
import { zoneStem } from '../zones/index.ts'
import { alongEdge } from './edges.ts'
import { acrossWays } from './hands.ts'
import { chartBearing, laneDirection, type LaneShape } from './lanes.ts'
import { laneRelation } from './passes.ts'
import type { ZoneQuestion } from './question.ts'
import type { ZoneSkin } from './skin.ts'

/** The strokes of a zone on its chart. */
export interface Ways {
  /** The stroke that a wanted way comes to: straight, or turned along the edge beside the lane. */
  readonly strokeOf: (lane: LaneShape, wanted: Wanted) => number
  readonly straightOf: (lane: LaneShape, wanted: Wanted) => number
  /** A stroke that would run at the edge beside a lane, turned along it; undefined where it may go as it is. */
  readonly offEdge: (lane: LaneShape, chart: number) => number | undefined
  /** Why a way across was taken, by lane. */
  readonly whyAcross: (lane: LaneShape) => string | undefined
}

export function waysOf(q: ZoneQuestion, skin: ZoneSkin): Ways {
  const across = new Map<LaneShape, { chart: number; why: string }>()
  // Under the eye a stroke runs outward, whatever grows: away from the lashes and the nose.
  const onlyOutward = zoneStem(skin.zone.id) === 'under-eye'
  const withOnly =
    q.screening.withGrainOnly ||
    bumpProneIn(q.client, skin.zone.id) ||
    SERVICES[q.service].withOnly === true
  const offEdge = (lane: LaneShape, chart: number): number | undefined => {
    if (onlyOutward) return undefined
    const wanted = laneRelation(q.figures, lane, chart)
    const stays = wanted === 'with' && withOnly
    const turned = besideEdge(skin, lane, chart, stays, q.hand === 'left')
    if (turned === undefined) return undefined
    const along = chartBearing(skin, lane, turned)
    if (stays) return withGrain(q.figures, lane.growth, along)
    // Along the edge there are two ways: against the grain only where that is wanted.
    return wanted !== 'against' && laneRelation(q.figures, lane, along) === 'against'
      ? wrapTurn(along + Math.PI)
      : along
  }
  const straightOf = (lane: LaneShape, wanted: Wanted): number => {
    if (onlyOutward) return chartBearing(skin, lane, outwardWay(lane.point))
    if (wanted === 'with') return lane.growth
    if (wanted === 'against') return wrapTurn(lane.growth + Math.PI)
    if (wanted === 'fixed') return chartBearing(skin, lane, fixedWay(lane.point))
    let found = across.get(lane)
    if (!found) {
      found = q.acrossOf(skin, lane)
      across.set(lane, found)
    }
    return found.chart
  }
  return {
    straightOf,
    offEdge,
    strokeOf: (lane, wanted) => {
      const chart = straightOf(lane, wanted)
      return offEdge(lane, chart) ?? chart
    },
    whyAcross: (lane) => across.get(lane)?.why,
  }
}

/** A stroke turned back to the growth until it goes with the grain, where it does not. */
function withGrain(figures: Figures, growth: number, chart: number): number {
  const most = toRadians(figures(RELATION_CONSTANTS.withUpToDeg)) - 1e-6
  const off = wrapHalf(chart - growth)
  return Math.abs(off) <= most ? chart : wrapTurn(growth + Math.sign(off) * most)
}

/** A stroke beside an edge that would run at it, turned along it. */
function besideEdge(
  skin: ZoneSkin,
  lane: LaneShape,
  chart: number,
  slant: boolean,
  second: boolean,
): Vec3 | undefined {
  return (
    lane.beside &&
    alongEdge(
      laneDirection(skin, lane, chart),
      laneDirection(skin, lane, lane.growth),
      lane.normal,
      lane.beside,
      slant,
      second,
    )
  )
}

/** Outward and a little down, from the client's side. */
export const outwardWay = (point: readonly number[]): [number, number, number] => [
  Math.sign(point[0]!) || 1,
  -0.3,
  0,
]

/** Down and toward the middle of the face, from the client's side. */
export const fixedWay = (point: readonly number[]): [number, number, number] => [
  point[0] === 0 ? 0 : -Math.sign(point[0]!) * 0.6,
  -0.8,
  0,
]

/** The way across of a lane: that of its press, so that a press is stroked one way. */
export function acrossIn(
  q: Pick<ZoneQuestion, 'hazards' | 'hand'>,
  parts: readonly { readonly skin: ZoneSkin; readonly lane: LaneShape }[],
): (skin: ZoneSkin, lane: LaneShape) => { chart: number; why: string } {
  const chosen = new Map<string, { turn: 1 | -1; why: string }>()
  const turned = (lane: LaneShape, turn: number) => wrapTurn(lane.growth + (turn * Math.PI) / 2)
  return (skin, lane) => {
    const key = lane.press ? lane.press.id : `${lane.zoneId}${lane.letter}`
    let way = chosen.get(key)
    if (!way) {
      const own = lane.press ? parts.filter((p) => p.lane.press === lane.press) : []
      const list = own.length > 0 ? own : [{ skin, lane }]
      const found = acrossWays(
        list.map((p) => ({
          zoneId: p.lane.zoneId,
          areaCm2: p.lane.areaCm2,
          point: p.lane.point,
          ways: [
            laneDirection(p.skin, p.lane, turned(p.lane, 1)),
            laneDirection(p.skin, p.lane, turned(p.lane, -1)),
          ],
        })),
        q.hazards,
        q.hand === 'left',
      )
      way = { turn: found.way === 0 ? 1 : -1, why: found.why }
      chosen.set(key, way)
    }
    return { chart: turned(lane, way.turn), why: way.why }
  }
}
