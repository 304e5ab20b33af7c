/** Edits of a map: reversible, exact in what goes and comes, and mirrored twice the same (facts of the trade: both sides of a face are read alike). */
import fc from 'fast-check'
import { DomainError } from '../errors.ts'
import { ZONES } from '../testing/head.ts'
import { isSkin, mirrorZone, zoneSide, ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { toRadians, wrapHalf } from './circular.ts'
import {
  editedReadings,
  inverseEdit,
  mirrorOfSide,
  mirrorOfZone,
  movedReading,
  turnReadings,
  type MapEdit,
} from './editMap.ts'
import { readingBearing, readingFromBearing, type Reading } from './readings.ts'

const centre = (zone: ZoneId) => ZONES.find((z) => z.id === zone)!.centre
const read = (id: string, zone: ZoneId, deg: number, atMs = 0): Reading =>
  readingFromBearing(zone, centre(zone), toRadians(deg), { id, method: 'felt', atMs })
const making = (atMs = 5000) => {
  let n = 0
  return { newId: () => `new${++n}`, atMs }
}
const MAP = [
  read('a', 'cheek-lower-left', 170),
  read('b', 'cheek-lower-left', 190),
  read('c', 'cheek-lower-right', 120),
  read('d', 'chin', 180),
  read('e', 'jaw-left', 200),
]
const ids = (list: readonly Reading[]) => list.map((r) => r.id).sort()

describe('an edit', () => {
  it('takes out what goes and puts in what comes; its inverse brings all back', () => {
    const edit: MapEdit = { remove: [MAP[0]!], add: [read('x', 'chin', 90)] }
    const after = editedReadings(MAP, edit)
    expect(ids(after)).toEqual(['b', 'c', 'd', 'e', 'x'])
    expect(ids(editedReadings(after, inverseEdit(edit)))).toEqual(ids(MAP))
    expect(inverseEdit(inverseEdit(edit))).toEqual(edit)
  })

  it('of what is gone already changes nothing else', () => {
    const edit: MapEdit = { remove: [read('none', 'chin', 0)], add: [] }
    expect(editedReadings(MAP, edit)).toEqual(MAP)
  })

  it('whatever was done step by step comes back step by step', () => {
    const zone = fc.constantFrom<ZoneId>(
      'cheek-lower-left',
      'cheek-lower-right',
      'jaw-left',
      'chin',
    )
    const act = fc.oneof(
      fc.record({
        act: fc.constant('turn' as const),
        zone,
        deg: fc.integer({ min: -180, max: 180 }),
      }),
      fc.record({ act: fc.constant('mirror' as const), zone }),
      fc.record({ act: fc.constant('side' as const), from: fc.constantFrom('left', 'right') }),
    )
    fc.assert(
      fc.property(fc.array(act, { maxLength: 8 }), (acts) => {
        const made = making()
        let map: Reading[] = MAP
        const done: MapEdit[] = []
        const before: string[][] = []
        for (const a of acts) {
          const edit =
            a.act === 'turn'
              ? turnReadings(
                  map.filter((r) => r.zoneId === a.zone),
                  toRadians(a.deg),
                  made,
                )
              : a.act === 'mirror'
                ? mirrorOfZone(map, a.zone, made)
                : mirrorOfSide(map, a.from, made)
          if (!edit) continue
          before.push(ids(map))
          map = editedReadings(map, edit)
          done.push(edit)
          expect(new Set(ids(map)).size).toBe(map.length)
        }
        while (done.length > 0) {
          map = editedReadings(map, inverseEdit(done.pop()!))
          expect(ids(map)).toEqual(before.pop())
        }
      }),
      { numRuns: 60 },
    )
  })
})

describe('turning and moving', () => {
  it('turns every reading of a zone by the same, each anew and as of now', () => {
    const own = MAP.slice(0, 2)
    const edit = turnReadings(own, toRadians(15), making(7000))
    expect(edit.remove).toEqual(own)
    expect(edit.add.map((r) => [r.id, r.atMs, r.zoneId])).toEqual([
      ['new1', 7000, 'cheek-lower-left'],
      ['new2', 7000, 'cheek-lower-left'],
    ])
    edit.add.forEach((r, i) =>
      expect(wrapHalf(readingBearing(r) - readingBearing(own[i]!) - toRadians(15))).toBeCloseTo(
        0,
        6,
      ),
    )
  })

  it('moves a reading with the zone it comes to, and refuses what is no skin', () => {
    const to = { zoneId: 'jaw-left' as const, ...centre('jaw-left') }
    const edit = movedReading(MAP[0]!, to, making())
    expect(edit.remove).toEqual([MAP[0]])
    expect(edit.add[0]).toMatchObject({
      id: 'new1',
      zoneId: 'jaw-left',
      point: to.point,
      atMs: 5000,
    })
    const bald = ZONE_IDS.find((z) => !isSkin(z))!
    expect(() => movedReading(MAP[0]!, { ...to, zoneId: bald }, making())).toThrow(DomainError)
  })
})

describe('mirroring', () => {
  it('of a zone replaces its twin by readings that grow the other way round', () => {
    const edit = mirrorOfZone(MAP, 'cheek-lower-left', making())!
    expect(ids(edit.remove)).toEqual(['c'])
    expect(edit.add.map((r) => r.zoneId)).toEqual(['cheek-lower-right', 'cheek-lower-right'])
    edit.add.forEach((r, i) => {
      expect(r.point[0]).toBeCloseTo(-MAP[i]!.point[0], 9)
      expect(wrapHalf(readingBearing(r) + readingBearing(MAP[i]!))).toBeCloseTo(0, 6)
    })
  })

  it('has nothing to do for a zone of the middle, or one that is not read', () => {
    expect(mirrorOfZone(MAP, 'chin', making())).toBeUndefined()
    expect(mirrorOfZone(MAP, 'upper-lip-left', making())).toBeUndefined()
  })

  it('of a side keeps that side and the middle, and leaves alone what has no twin there', () => {
    const edit = mirrorOfSide(MAP, 'left', making())!
    expect(ids(edit.remove)).toEqual(['c'])
    expect(edit.add.map((r) => r.zoneId).sort()).toEqual([
      'cheek-lower-right',
      'cheek-lower-right',
      'jaw-right',
    ])
    const after = editedReadings(MAP, edit)
    expect(ids(after)).toEqual(expect.arrayContaining(['a', 'b', 'd', 'e']))
    // The other way: the jaw of the left has no twin that is read, and stays.
    const back = mirrorOfSide(MAP, 'right', making())!
    expect(ids(back.remove)).toEqual(['a', 'b'])
    expect(mirrorOfSide([MAP[3]!], 'left', making())).toBeUndefined()
  })

  it('sides are told by the zone itself, on the body too', () => {
    const body = { ...MAP[0]!, id: 'z', zoneId: 'chest-left' as ZoneId }
    expect(zoneSide(body.zoneId)).toBe('left')
    expect(mirrorOfSide([body], 'left', making())!.add[0]!.zoneId).toBe(mirrorZone(body.zoneId))
  })
})
