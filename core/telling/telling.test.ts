import {
  directionOf,
  distance,
  dot,
  Landmarks,
  makeSurface,
  shortestPath,
  tangentPart,
  unit,
  viewAxes,
  viewOf,
  VIEW_IDS,
  VIEWS,
  type Vec3,
} from '../head/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { BODY_ZONES } from '../body/index.ts'
import { mirrorZone, type ZoneId } from '../zones/index.ts'
import { landmarkAhead, pictureAngle, pictureHour, tellWay } from './index.ts'

const LANDMARKS = new Landmarks(HEAD)
const SURFACE = makeSurface(HEAD.solve)
const SKIN = ZONES.filter((z) => z.skin)
const BEARINGS = Array.from({ length: 24 }, (_, i) => (i * Math.PI) / 12)
const DEGREE = 180 / Math.PI
const record = (id: ZoneId) => ZONES.find((z) => z.id === id)!
const told = (id: ZoneId, direction: Vec3) => {
  const { point, normal } = record(id).centre
  return tellWay(LANDMARKS, id, point, normal, direction).text
}

describe('a direction in words', () => {
  // Common practice: how the trade says where a stroke goes.
  it.each([
    ['cheek-lower-left', [0, -1, 0], /^down, toward the (collarbone|larynx|jaw angle)/],
    ['cheek-lower-left', [0, -0.7, -0.7], /^down and back, toward/],
    ['cheek-upper-right', [0, 0, -1], /^back, toward the (front of the ear|ear lobe)/],
    ['chin', [0, 1, 0], /^up, toward the lips/],
    ['upper-lip-left', [1, 0, 0], /^out/],
    ['upper-lip-right', [1, 0, 0], /^in/],
    ['neck-upper-centre', [0, -1, 0], /^down, toward the (larynx|collar notch)/],
    ['forehead-centre', [0, 1, 0], /^up, toward the hairline/],
    ['scalp-mid', [0, 0, 1], /^toward the face, in line with the hairline/],
    ['scalp-mid', [0, 0, -1], /^toward the nape, in line with the (crown|back of the head)/],
    ['scalp-crown', [1, 0, 0], /^toward the client’s left ear/],
    ['nape-centre', [0, 1, 0], /^up, toward the (nape hollow|back of the head)/],
    ['under-chin-centre', [0, 0, 1], /^forward, toward the chin point/],
    ['jaw-right', [0, 0, 1], /^forward, toward the (chin point|mouth corner|nose wing)/],
  ] as const)('on %s %j is told %s', (zone, direction, words) => {
    expect(told(zone, direction as unknown as Vec3)).toMatch(words)
  })

  it('is the mirror image on the other side', () => {
    const swap = (s: string) =>
      s.replace(/\b(left|right)\b/g, (side) => (side === 'left' ? 'right' : 'left'))
    for (const { id, centre } of SKIN) {
      if (mirrorZone(id) === id) continue
      for (const b of BEARINGS.filter((_, i) => i % 3 === 1)) {
        const d = directionOf(id, centre.point, centre.normal, b)
        const twin = record(mirrorZone(id)).centre
        const mirrored: Vec3 = [-d[0], d[1], d[2]]
        expect(tellWay(LANDMARKS, mirrorZone(id), twin.point, twin.normal, mirrored).words).toBe(
          swap(tellWay(LANDMARKS, id, centre.point, centre.normal, d).words),
        )
      }
    }
  })

  it('goes up and down limbs, toward what lies there', () => {
    const calf = BODY_ZONES.find((z) => z.id === 'calf-left')!
    const tell = (d: Vec3) =>
      tellWay(undefined, 'calf-left', calf.centre.point, calf.centre.normal, d).text
    expect(tell([0, -1, 0])).toBe('down, toward the heel')
    expect(tell([0, 1, 0])).toBe('up, toward the hollow of the knee')
    expect(tell([1, 0, 0])).toBe('outward')
  })
})

describe('the landmark', () => {
  it('lies within 45° of the arrow along the skin, wherever one is named; almost everywhere one is', () => {
    const ways = new Map<string, Vec3>()
    const far: unknown[] = []
    let named = 0
    for (const { id, centre } of SKIN) {
      for (const b of BEARINGS) {
        const direction = directionOf(id, centre.point, centre.normal, b)
        const ahead = landmarkAhead(LANDMARKS, id, centre.point, centre.normal, direction)
        if (!ahead) continue
        named++
        const { landmark } = ahead
        const key = `${id} ${landmark.name} ${landmark.side}`
        if (!ways.has(key)) {
          // The exact shortest way, by another method.
          const path = shortestPath(SURFACE, centre.point, landmark.point)
          const next =
            path.find((p) => distance(p.point, centre.point) > 3) ?? path[path.length - 1]!
          const d = next.point.map((x, k) => x - centre.point[k]!) as unknown as Vec3
          ways.set(key, unit(tangentPart(d, unit(centre.normal))))
        }
        const way = ways.get(key)!
        // From the middle to the middle two ways are equally short, one on either side.
        const middle = Math.abs(centre.point[0]) < 0.1 && !landmark.side
        const both: readonly Vec3[] = middle ? [way, [-way[0], way[1], way[2]]] : [way]
        const off = Math.acos(Math.min(1, Math.max(...both.map((w) => dot(w, direction))))) * DEGREE
        if (off >= 45) far.push({ key, bearing: Math.round(b * DEGREE), off })
      }
    }
    expect(far).toEqual([])
    expect(named).toBeGreaterThan(0.88 * SKIN.length * BEARINGS.length)
  })
})

describe('the clock of the picture', () => {
  const arrow = (point: Vec3, d: Vec3, lengthMm = 30): Vec3[] =>
    [-0.5, 0.5].map((t) => point.map((x, k) => x + t * lengthMm * d[k]!) as unknown as Vec3)

  it('has twelve at the top: what runs up the page is at 12, to the right at 3', () => {
    const front = viewAxes(0, 0)
    expect(pictureHour(front, arrow([0, 0, 90], [0, 1, 0]))).toBe(12)
    expect(pictureHour(front, arrow([0, 0, 90], [1, 0, 0]))).toBe(3)
    expect(pictureHour(front, arrow([0, 0, 90], [0, -1, 0]))).toBe(6)
    // Seen from behind the client's left is on the left.
    expect(pictureHour(viewAxes(180, 0), arrow([0, 0, -90], [1, 0, 0]))).toBe(9)
    // Straight at the eye there is no hour.
    expect(pictureHour(front, arrow([0, 0, 90], [0, 0, 1]))).toBeUndefined()
  })

  it('differs from the drawn arrow by less than 15° for every zone, 24 bearings, in the view that is chosen and every named one', () => {
    for (const { id, centre } of SKIN) {
      const own = viewOf(centre.normal)
      const views = [viewAxes(own.yawDeg, own.pitchDeg)]
      for (const v of VIEW_IDS) views.push(viewAxes(VIEWS[v].yawDeg, VIEWS[v].pitchDeg))
      for (const [i, axes] of views.entries()) {
        for (const b of BEARINGS) {
          const points = arrow(centre.point, directionOf(id, centre.point, centre.normal, b + 0.01))
          const hour = pictureHour(axes, points)
          // Where the application turns the head itself the arrow always lies across the eye.
          if (i === 0) expect({ id, b, hour }).not.toMatchObject({ hour: undefined })
          if (hour === undefined) continue
          // Drawn: the page's pixels run down.
          const [from, to] = points.map((p) => ({
            x: dot(p, axes.right),
            y: -dot(p, axes.up),
          })) as [{ x: number; y: number }, { x: number; y: number }]
          const drawn = Math.atan2(to.x - from.x, from.y - to.y) * DEGREE
          const off = Math.abs(((drawn - hour * 30 + 540) % 360) - 180)
          expect(off).toBeLessThan(15.001)
          expect(pictureAngle(axes, points)! * DEGREE).toBeCloseTo((drawn + 360) % 360, 6)
        }
      }
    }
  })
})
