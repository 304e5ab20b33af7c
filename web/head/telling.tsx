/** Directions as they are told beside the head: words and landmark, then, small, the hour in the picture that is shown. */
import { useCallback } from 'react'
import { BODY_ZONES } from '../../core/body/index.ts'
import {
  directionOf,
  plus,
  type SurfacePoint,
  type Vec3,
  type ViewAxes,
} from '../../core/head/index.ts'
import { pictureAngle, pictureHour, tellWay, type ToldWay } from '../../core/telling/index.ts'
import { isBody, type ZoneId } from '../../core/zones/index.ts'
import { useShownAxes } from '../state/view.ts'
import { useHead, type LoadedHead } from './loadHead.ts'

/** The sheet of the body has its top at the top of the page. */
const SHEET: ViewAxes = { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] }
/** Half the length of a way that nobody drew, mm. */
const HALF_MM = 12

/** A direction at a place, as it is told and as it is drawn. */
export interface Way {
  readonly zoneId: ZoneId
  readonly told: ToldWay
  /** From its start to its tip. */
  readonly points: readonly Vec3[]
}

/** Tells directions at places of the skin. */
export function useTelling(): (zoneId: ZoneId, at: SurfacePoint, direction: Vec3) => Way {
  const landmarks = useHead().data?.landmarks
  return useCallback(
    (zoneId, { point, normal }, direction) => ({
      zoneId,
      told: tellWay(landmarks, zoneId, point, normal, direction),
      points: [plus(point, direction, -HALF_MM), plus(point, direction, HALF_MM)],
    }),
    [landmarks],
  )
}

const zoneOf = (id: ZoneId, head: LoadedHead['zoneById'] | undefined) =>
  isBody(id) ? BODY_ZONES.find((z) => z.id === id) : head?.get(id)

/** Tells bearings of a zone's frame at its middle, or at a place in it. */
export function useZoneTelling(): (
  zoneId: ZoneId,
  bearing: number,
  at?: SurfacePoint,
) => Way | undefined {
  const tell = useTelling()
  const zones = useHead().data?.zoneById
  return useCallback(
    (zoneId, bearing, given) => {
      const at = given ?? zoneOf(zoneId, zones)?.centre
      return at && tell(zoneId, at, directionOf(zoneId, at.point, at.normal, bearing))
    },
    [tell, zones],
  )
}

const axesFor = (zoneId: ZoneId, shown: ViewAxes) => (isBody(zoneId) ? SHEET : shown)

/** The angle of a way in the picture that is shown, radians clockwise from its top. */
export function usePictureAngle(
  way: Pick<Way, 'zoneId' | 'points'> | undefined,
): number | undefined {
  const shown = useShownAxes()
  return way && pictureAngle(axesFor(way.zoneId, shown), way.points)
}

/** "4 o'clock in the picture"; nothing where the way runs toward the eye. */
export function PictureHour({ way }: { way: Pick<Way, 'zoneId' | 'points'> | undefined }) {
  const shown = useShownAxes()
  const hour = way && pictureHour(axesFor(way.zoneId, shown), way.points)
  if (hour === undefined) return null
  return <span>{hour} o’clock in the picture</span>
}
