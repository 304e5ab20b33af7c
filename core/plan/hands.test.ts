import { DEFAULTS } from '../house/index.ts'
import { cross, dot, unit, type Vec3 } from '../head/index.ts'
import { headRoom } from './ground.ts'
import { isSkin, mirrorZone, ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { BLADES } from '../kit/index.ts'
import { SERVICES } from '../services/index.ts'
import { findStance, handleWay, meets, type Room } from './handle.ts'
import {
  acrossWays,
  clientAction,
  poseFor,
  stanceFor,
  stances,
  usualPull,
  type Hazard,
} from './hands.ts'
import fc from 'fast-check'

const SKIN = ZONE_IDS.filter(isSkin)
const SHAVE = SERVICES['face-shave']
const FUZZ = SERVICES.dermaplane
const HEAD_SHAVE = SERVICES['head-shave']
const SEATS = [SHAVE, FUZZ, HEAD_SHAVE]
const record = (id: ZoneId) => ZONES.find((z) => z.id === id)!
const HAZARDS: Hazard[] = ZONES.filter((z) => !z.skin && z.id !== 'base').map((z) => ({
  name: z.id,
  at: z.centre.point,
}))
/** Without the hour, which turns round in a mirror. */
const bare = (text: string) => text.replace(/ \(\d+\)/, '')
const swap = (text: string) =>
  bare(text).replace(/\b(left|right)\b/g, (side) => (side === 'left' ? 'right' : 'left'))

describe('where to stand', () => {
  it('is the mirror image for the other hand on the other side, wherever and whatever the service', () => {
    for (const zone of SKIN) {
      for (const seat of SEATS) {
        const right = stances(zone, 'right', seat)
        const left = stances(mirrorZone(zone), 'left', seat)
        expect(right.map((h) => (12 - h) % 12)).toEqual(left.map((h) => h % 12))
        expect(swap(stanceFor(zone, 'right', seat).text)).toBe(
          bare(stanceFor(mirrorZone(zone), 'left', seat).text),
        )
      }
    }
  })

  it('begins on the side of the hand or on the midline, never reaching over the client', () => {
    for (const zone of SKIN) {
      for (const seat of SEATS) {
        expect([12, 9, 8]).toContain(stanceFor(zone, 'right', seat).hour)
        expect([12, 3, 4]).toContain(stanceFor(zone, 'left', seat).hour)
      }
    }
  })

  it('a right-handed worker stands on the client’s right for both cheeks, a left-handed one on the left (common practice)', () => {
    for (const cheek of ['cheek-lower-left', 'cheek-lower-right'] as const) {
      expect(stanceFor(cheek, 'right', SHAVE).text).toContain('right')
      expect(stanceFor(cheek, 'left', SHAVE).text).toContain('left')
    }
    expect(stanceFor('forehead-left', 'right', FUZZ).text).toBe('Stand at the client’s head (12).')
    expect(stanceFor('nose-bridge', 'right', FUZZ).text).toBe(
      'Stand beside the chest, on the client’s right (8).',
    )
  })

  it('is behind the client for the back of the head and the nape', () => {
    for (const zone of ['occiput', 'nape-centre', 'nape-left', 'scalp-crown'] as const) {
      expect(stanceFor(zone, 'right', HEAD_SHAVE).hour).toBe(12)
      expect(stanceFor(zone, 'left', HEAD_SHAVE).text).toBe('Stand behind the client (12).')
    }
  })
})

describe('the turn of the head and what the client does', () => {
  it('brings the zone up: away from its side, mirrored for its twin', () => {
    for (const zone of SKIN) {
      expect(swap(poseFor(zone).text)).toBe(poseFor(mirrorZone(zone)).text)
      expect(clientAction(zone)).toBe(clientAction(mirrorZone(zone)))
      const behind = poseFor(zone).text === 'Chin to the chest.'
      if (zone.endsWith('-left') && !behind) expect(poseFor(zone).text).toContain('client’s right')
      if (mirrorZone(zone) === zone && !behind) expect(poseFor(zone).text).toMatch(/^Head straight/)
    }
    expect(poseFor('neck-lower-left').text).toContain('head back')
    expect(poseFor('under-chin-centre').text).toBe('Head straight, head back.')
    expect(poseFor('calf-left').text).toContain('face down')
  })

  it('puffs, draws, rolls and opens where the trade says (common practice)', () => {
    expect(clientAction('cheek-lower-left')).toContain('puffs')
    expect(clientAction('upper-lip-left')).toContain('lip over the teeth')
    expect(clientAction('under-lip')).toContain('rolls')
    expect(clientAction('mouth-corner-left')).toContain('opens')
  })
})

describe('across', () => {
  const zoneAndWay = fc.record({
    zone: fc.constantFrom(...ZONES.filter((z) => z.skin)),
    turn: fc.double({ min: 0, max: 6.28, noNaN: true }),
  })
  const waysOf = (zone: (typeof ZONES)[number], turn: number): [Vec3, Vec3] => {
    const n = unit(zone.centre.normal)
    const a = unit(cross(Math.abs(n[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0], n))
    const b = cross(n, a)
    const d = a.map((c, k) => Math.cos(turn) * c + Math.sin(turn) * b[k]!) as unknown as Vec3
    return [d, [-d[0], -d[1], -d[2]]]
  }

  it('does not hang on which of the two ways is named first', () => {
    fc.assert(
      fc.property(zoneAndWay, ({ zone, turn }) => {
        const [a, b] = waysOf(zone, turn)
        const first = acrossWays(
          [{ zoneId: zone.id, areaCm2: 1, point: zone.centre.point, ways: [a, b] }],
          HAZARDS,
        )
        const second = acrossWays(
          [{ zoneId: zone.id, areaCm2: 1, point: zone.centre.point, ways: [b, a] }],
          HAZARDS,
        )
        const gap = Math.abs(dot(a, usualPull(zone.id) ?? [0, 0, 0]))
        if (gap > 1e-3) expect([a, b][first.way]).toEqual([b, a][second.way])
        expect(first.why.length).toBeGreaterThan(5)
      }),
    )
  })

  it('runs away from a lip, an eye or kept hair close by', () => {
    const lip = record('upper-lip-left')
    const lips = { name: 'lips', at: record('lips').centre.point }
    const n = unit(lip.centre.normal)
    const up = unit([0 - n[1] * n[0], 1 - n[1] * n[1], 0 - n[1] * n[2]] as Vec3)
    const { way, why } = acrossWays(
      [
        {
          zoneId: lip.id,
          areaCm2: 1,
          point: lip.centre.point,
          ways: [up, [-up[0], -up[1], -up[2]]],
        },
      ],
      [lips],
    )
    expect(way).toBe(0)
    expect(why).toContain('away from the lips')
    const kept = {
      name: 'kept hair',
      at: [lip.centre.point[0], lip.centre.point[1] + 9, lip.centre.point[2]] as Vec3,
    }
    expect(
      acrossWays(
        [
          {
            zoneId: lip.id,
            areaCm2: 1,
            point: lip.centre.point,
            ways: [up, [-up[0], -up[1], -up[2]]],
          },
        ],
        [kept],
      ).way,
    ).toBe(1)
  })

  it('far from every hazard lets the free hand pull the usual way', () => {
    const cheek = record('cheek-lower-left')
    const back = usualPull(cheek.id)!
    const far = [{ name: 'ear', at: [0, 0, 900] as Vec3 }]
    const ways: [Vec3, Vec3] = [back, [-back[0], -back[1], -back[2]]]
    // The hand pulls back toward the ear, so the stroke runs forward.
    expect(
      acrossWays([{ zoneId: cheek.id, areaCm2: 1, point: cheek.centre.point, ways: ways }], far)
        .way,
    ).toBe(1)
  })
})

describe('the handle', () => {
  const room = headRoom(HEAD.display)

  it('meets a wall that stands in its way, at the distance where the wall stands', () => {
    const wall: Room = {
      locator: {
        below: () => undefined,
        within: (p: Vec3, r: number) => (p[0] > 60 - r ? 1 : undefined),
      } as never,
      nearest: () => undefined,
      zoneOf: () => 'brow-left',
    }
    const met = meets(DEFAULTS, wall, BLADES.shavette, [0, 0, 0], [1, 0, 0])!
    expect(met.what).toBe('brow')
    expect(met.atMm).toBeGreaterThan(50)
    expect(met.atMm).toBeLessThan(64)
    expect(meets(DEFAULTS, wall, BLADES.shavette, [0, 0, 0], [-1, 0, 0])).toBeUndefined()
  })

  it('has room straight out from every zone of the face, and none straight in', () => {
    for (const zone of ZONES.filter((z) => /^(cheek|forehead|chin|jaw)/.test(z.id))) {
      const n = unit(zone.centre.normal)
      const start: Vec3 = [0, 1, 2].map((k) => zone.centre.point[k]! + 2 * n[k]!) as unknown as Vec3
      expect(meets(DEFAULTS, room, BLADES.shavette, start, n)).toBeUndefined()
      expect(meets(DEFAULTS, room, BLADES.shavette, start, [-n[0], -n[1], -n[2]])).toBeDefined()
    }
  })

  it('that would meet something is held from another place or in the other hand, and that is the reason given', () => {
    // A handle along the edge toward the client's right side is barred; toward the left it is free.
    const barred: Room = {
      locator: {
        below: () => undefined,
        within: (p: Vec3) => (p[0] < 20 ? 1 : undefined),
      } as never,
      nearest: () => undefined,
      zoneOf: () => 'nose-bridge',
    }
    const lane = {
      point: [45, -50, 60] as Vec3,
      normal: [0, 0, 1] as Vec3,
      stroke: [0, -1, 0] as Vec3,
    }
    const straight = 0
    const { stance, reason } = findStance(
      DEFAULTS,
      barred,
      BLADES.shavette,
      'cheek-lower-left',
      [lane],
      'right',
      SHAVE,
      straight,
    )
    expect(stance.hour === 3 || stance.hand === 'left').toBe(true)
    expect(reason.text).toContain('would meet the nose bridge')
    const free: Room = {
      locator: { below: () => undefined, within: () => undefined } as never,
      nearest: () => undefined,
      zoneOf: () => 'chin',
    }
    expect(
      findStance(
        DEFAULTS,
        free,
        BLADES.shavette,
        'cheek-lower-left',
        [lane],
        'right',
        SHAVE,
        straight,
      ).stance,
    ).toEqual({ hour: 9, text: 'Stand on the client’s right (9).' })
    // Barred at one of its parts, a press is held as if it were barred at all of them.
    const there = { ...lane, point: [-60, -50, 40] as Vec3 }
    const half: Room = {
      ...barred,
      locator: {
        below: () => undefined,
        within: (p: Vec3) => (p[0] < -100 ? 1 : undefined),
      } as never,
    }
    const at = (parts: (typeof lane)[]) =>
      findStance(
        DEFAULTS,
        half,
        BLADES.shavette,
        'cheek-lower-left',
        parts,
        'right',
        SHAVE,
        straight,
      ).stance
    expect(at([lane]).hour).toBe(9)
    expect(at([lane, there])).not.toEqual(at([lane]))
    const shut: Room = {
      locator: { below: () => undefined, within: () => 1 } as never,
      nearest: () => undefined,
      zoneOf: () => 'chin',
    }
    expect(
      findStance(DEFAULTS, shut, BLADES.shavette, 'chin', [lane], 'right', SHAVE, straight).reason
        .text,
    ).toContain('take it short')
  })

  it('points to the worker along the edge, and ahead in the stroke for a razor with a head', () => {
    const n: Vec3 = [0, 0, 1]
    const stroke: Vec3 = [0, -1, 0]
    const folding = (hour: number) =>
      handleWay(DEFAULTS, BLADES.shavette, [0, -50, 90], n, stroke, hour, 0, false)
    // 9 o'clock is the client's right, which is −x.
    expect(folding(9)[0]).toBeLessThan(-0.5)
    expect(folding(3)[0]).toBeGreaterThan(0.5)
    const headed = handleWay(DEFAULTS, BLADES.safety, [0, -50, 90], n, stroke, 9, 0, false)
    expect(headed[1]).toBeLessThan(-0.5)
    expect(headed[2]).toBeGreaterThan(0.3)
  })
})
