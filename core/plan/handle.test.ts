/** Where the handle points and what it meets, in figures. */
import { DEFAULTS } from '../house/index.ts'
import type { Vec3 } from '../head/index.ts'
import { BLADES } from '../kit/index.ts'
import { SERVICES } from '../services/index.ts'
import { findStance, handleWay, meets, reachFrom, type Room } from './handle.ts'

const close = (a: Vec3, b: Vec3) => a.forEach((x, k) => expect(x).toBeCloseTo(b[k]!, 6))
const room = (within: (p: Vec3, r: number) => number | undefined = () => undefined): Room => ({
  locator: { below: () => undefined, within } as never,
  nearest: () => undefined,
  zoneOf: () => 'nose-bridge',
})

describe('the worker’s elbow', () => {
  it('comes from the hour at which they stand, a little below', () => {
    close(reachFrom(DEFAULTS, 12, 0), [0, -60, -520])
    close(reachFrom(DEFAULTS, 3, 0), [520, -60, 0])
    close(reachFrom(DEFAULTS, 6, 0), [0, -60, 520])
    close(reachFrom(DEFAULTS, 9, 0), [-520, -60, 0])
    // The head turned a quarter to its left: who stands at its right now stands behind it.
    close(reachFrom(DEFAULTS, 9, 90), [0, -60, -520])
  })
})

describe('the way of the handle', () => {
  const way = (blade: Parameters<typeof handleWay>[1], hour: number, back = false) =>
    handleWay(DEFAULTS, blade, [0, 0, 80], [0, 0, 1], [0, -1, 0], hour, 0, back)
  const rad = (deg: number) => (deg * Math.PI) / 180

  it('of a folding razor runs along its edge toward the worker, lifted by 24°', () => {
    const [c, s] = [Math.cos(rad(24)), Math.sin(rad(24))]
    close(way(BLADES.shavette, 3), [c, 0, s])
    close(way(BLADES.shavette, 9), [-c, 0, s])
    // The other hand holds it the other way.
    close(way(BLADES.shavette, 9, true), [c, 0, s])
  })

  it('of a razor with a head runs ahead of the stroke, lifted by 38°, wherever one stands', () => {
    for (const hour of [3, 9, 12])
      close(way(BLADES.safety, hour), [0, -Math.cos(rad(38)), Math.sin(rad(38))])
  })
})

describe('what a handle meets', () => {
  it('is the skin within 5 mm of it, from 18 mm on, every 7 mm, to its end', () => {
    const asked: number[] = []
    const none = room((p, r) => {
      expect(r).toBe(5)
      asked.push(p[0])
      return undefined
    })
    expect(meets(DEFAULTS, none, BLADES.shavette, [0, 200, 0], [1, 0, 0])).toBeUndefined()
    expect(asked[0]).toBe(18)
    expect(asked[1]).toBe(25)
    expect(asked.at(-1)).toBe(18 + 7 * 16)
    const far = room((p) => (p[0] >= 60 ? 1 : undefined))
    expect(meets(DEFAULTS, far, BLADES.shavette, [0, 200, 0], [1, 0, 0])).toEqual({
      ...{ what: 'nose bridge', atMm: 60 },
    })
  })

  it('is the shoulders and the chest of who sits up', () => {
    const down = (from: Vec3, way: Vec3) => meets(DEFAULTS, room(), BLADES.shavette, from, way)
    // The bar of the shoulders: 58 mm about a line 262 mm under the middle of the head.
    expect(down([0, -150, -34], [0, -1, 0])).toEqual({ what: 'shoulder', atMm: 53 })
    expect(down([140, -150, -34], [0, -1, 0])).toEqual({ what: 'shoulder', atMm: 53 })
    // Beyond its end it is round.
    expect(down([230, -150, -34], [0, -1, 0])).toBeUndefined()
    expect(down([0, -180, 80], [0, -1, 0])?.what).toBe('chest')
    expect(down([0, -180, 180], [0, -1, 0])).toBeUndefined()
  })

  it('is what it runs under from the start', () => {
    const under: Room = { ...room(), locator: { below: () => 7, within: () => undefined } as never }
    expect(meets(DEFAULTS, under, BLADES.shavette, [0, 200, 0], [1, 0, 0])).toEqual({
      ...{ what: 'nose bridge', atMm: 18 },
    })
  })
})

describe('a stance', () => {
  const part = {
    point: [45, -50, 60] as Vec3,
    normal: [0, 0, 1] as Vec3,
    stroke: [0, -1, 0] as Vec3,
  }
  const find = (
    r: Room | undefined,
    blade: Parameters<typeof findStance>[2] = BLADES.shavette,
    toward = false,
  ) =>
    findStance(
      DEFAULTS,
      r,
      blade,
      'cheek-lower-left',
      [part],
      'right',
      SERVICES['face-shave'],
      0,
      toward,
    )

  it('is the usual one where nothing is in the way, or nothing is known', () => {
    expect(find(undefined).stance).toEqual({ hour: 9, text: 'Stand on the client’s right (9).' })
    expect(find(room()).stance).toEqual({ hour: 9, text: 'Stand on the client’s right (9).' })
    expect(find(room()).reason.text).toContain('The handle has room there.')
  })

  it.each([
    ['to the client’s left', [1, 0, 0], 3],
    ['forward', [0, 0, 1], 6],
    ['to the client’s right', [-1, 0, 0], 9],
  ] as const)('comes toward the worker where the stroke is to: %s', (_, way, hour) => {
    const { stance, reason } = findStance(
      ...([DEFAULTS, room(), BLADES.shavette, 'cheek-lower-left'] as const),
      [{ ...part, stroke: way }],
      ...(['right', { ...SERVICES['face-shave'], posture: 'upright' }, 0, true] as const),
    )
    expect(stance.hour).toBe(hour)
    expect(reason.text).toContain('The stroke comes toward you, and the handle has room there.')
  })

  it('with no room anywhere grips short, by how far the handle is free', () => {
    const full = find(
      room((p) => (Math.hypot(p[0] - 45, p[1] + 50, p[2] - 60) > 55 ? 1 : undefined)),
    )
    expect(full.stance.text).toContain('Short grip.')
    expect(full.reason.text).toContain('about 6 cm from the edge')
    expect(full.reason.text).toContain('near the nose bridge')
    expect(find(room(() => 1)).reason.text).toContain('about 2 cm from the edge')
    // A razor with a head points the same way wherever one stands: only the grip is left.
    expect(
      find(
        room(() => 1),
        BLADES.safety,
      ).stance.hour,
    ).toBe(9)
  })
})
