import { serviceZones, SERVICE_IDS } from '../services/index.ts'
import { BODY, BODY_AREAS, BODY_STEMS, bodyZone } from './body.ts'
import { onZone, theZone, ZONE_FACTS, zoneBase, zoneInWords, zoneName } from './facts.ts'
import {
  ALL_ZONE_IDS,
  BODY_IDS,
  bodyStem,
  isBody,
  isSkin,
  mirrorZone,
  ZONE_IDS,
  zoneSide,
  zoneStem,
} from './zones.ts'

describe('the zones', () => {
  it('have one id each, and facts for every one of them', () => {
    expect(new Set(ALL_ZONE_IDS).size).toBe(ALL_ZONE_IDS.length)
    for (const id of ALL_ZONE_IDS) {
      const facts = ZONE_FACTS[zoneStem(id)]
      expect([id, facts.name.length > 0]).toEqual([id, true])
      if (isSkin(id)) expect([id, facts.stretch === ''].join()).toBe(`${id},false`)
      else expect(facts.hair).toBe('none')
    }
    expect(Object.keys(ZONE_FACTS)).toHaveLength(new Set(ALL_ZONE_IDS.map(zoneStem)).size)
  })

  it('lie on one side or in the middle, and are mirrored there and back', () => {
    for (const id of ALL_ZONE_IDS) {
      const side = zoneSide(id)
      expect(id).toBe(side ? `${zoneStem(id)}-${side}` : zoneStem(id))
      const twin = mirrorZone(id)
      expect(mirrorZone(twin)).toBe(id)
      expect(zoneStem(twin)).toBe(zoneStem(id))
      expect(ALL_ZONE_IDS).toContain(twin)
      expect(twin === id).toBe(side === undefined)
    }
    expect(ALL_ZONE_IDS.filter((id) => zoneSide(id) === 'left')).toHaveLength(
      ALL_ZONE_IDS.filter((id) => zoneSide(id) === 'right').length,
    )
  })

  it('belong to the head or to the body, never to both', () => {
    expect([...ZONE_IDS, ...BODY_IDS]).toEqual([...ALL_ZONE_IDS])
    for (const id of ZONE_IDS) expect([isBody(id), bodyStem(id)]).toEqual([false, undefined])
    for (const id of BODY_IDS) expect([isBody(id), bodyStem(id)]).toEqual([true, zoneStem(id)])
    expect(BODY_IDS.every((id) => zoneSide(id) !== undefined)).toBe(true)
  })

  it('are told whose side they are on, once, and fit into a sentence', () => {
    expect(zoneName('jaw-left')).toBe("Jaw, client's left")
    expect(zoneName('chin')).toBe('Chin')
    expect(zoneBase('jaw-left')).toBe('Jaw')
    expect(zoneInWords('jaw-right')).toBe("jaw (client's right)")
    expect(zoneInWords('neck-upper-centre')).toBe('upper neck (middle)')
    // The side is not lost where a name has two parts.
    expect(zoneInWords('thigh-front-left')).toBe("thigh (front, client's left)")
    expect(zoneInWords('chin')).toBe('chin')
    expect([theZone('chin'), onZone('chin')]).toEqual(['the chin', 'on the chin'])
    const under = "under the chin (client's left)"
    expect([theZone('under-chin-left'), onZone('under-chin-left')]).toEqual([
      `the skin ${under}`,
      under,
    ])
    const words = ALL_ZONE_IDS.filter(isSkin).map(zoneInWords)
    expect(new Set(words).size).toBe(words.length)
    for (const said of words) expect(said).not.toMatch(/^[^(]*,/)
  })

  it('carry no hair where there is no skin', () => {
    const bare = ALL_ZONE_IDS.filter((id) => !isSkin(id)).map(zoneStem)
    expect([...new Set(bare)].sort()).toEqual(['base', 'ear', 'eye', 'lips'])
  })
})

describe('the places of the body', () => {
  it('keep their order: it numbers the mesh of plans that were kept', () => {
    expect(BODY_STEMS.slice(0, 8)).toEqual([
      ...['upper-arm', 'forearm', 'underarm', 'thigh-front'],
      ...['knee', 'shin', 'thigh-back', 'calf'],
    ])
  })

  it.each(BODY_STEMS)('%s has an outline, an area, a pose and a guess', (stem) => {
    const zone = bodyZone(stem)
    const { lengthMm, topMm, bottomMm, roundMm, x } = zone.outline
    for (const mm of [lengthMm, topMm, bottomMm]) {
      expect(mm).toBeGreaterThan(50)
      expect(mm).toBeLessThan(500)
    }
    // Each half lies on its own side of the sheet.
    expect(x - Math.max(topMm, bottomMm) / 2).toBeGreaterThanOrEqual(0)
    expect(roundMm).not.toBe(0)
    expect(BODY_AREAS).toHaveProperty(zone.area)
    expect(zone.turn).toMatch(/\.$/)
    expect(zone.guessHour).toBeGreaterThan(0)
    expect(zone.guessHour).toBeLessThanOrEqual(12)
    expect(zone.hair).not.toBe('none')
    expect(zone.watch).not.toBe('')
  })

  it('are all worked by some service, and chosen in groups that lie on one side of the body', () => {
    const worked = new Set(SERVICE_IDS.flatMap((id) => serviceZones(id)))
    for (const id of BODY_IDS) expect([id, worked.has(id)]).toEqual([id, true])
    const areas = new Map<string, Set<string>>()
    for (const stem of BODY_STEMS) {
      const { group, area } = BODY[stem]
      areas.set(group, (areas.get(group) ?? new Set()).add(area))
    }
    for (const [group, own] of areas) expect([group, own.size]).toEqual([group, 1])
  })
})
