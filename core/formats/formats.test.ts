/**
 * Files out and in. Outside checks: JSON Schema by ajv, CSV by its own grammar (RFC 4180) through papaparse, SVG by
 * fast-xml-parser, glTF by the Khronos validator.
 */
import { readFileSync } from 'node:fs'
import { Ajv2020 } from 'ajv/dist/2020.js'
import fc from 'fast-check'
import { XMLValidator } from 'fast-xml-parser'
import { validateBytes } from 'gltf-validator'
import {
  toRadians,
  ALL_METHODS,
  readingBearing,
  readingFromBearing,
  type Reading,
} from '../grain/index.ts'
import { type Vec3, surfacePoint, Locator, type FlatView } from '../head/index.ts'
import { isSkin, ZONE_IDS } from '../zones/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import {
  headId,
  MOST_BYTES,
  MOST_READINGS,
  readGrowthMap,
  withoutKnown,
  writeGrowthMap,
  type PlaceOnHead,
} from './growthMap.ts'
import { headGltf } from './headGltf.ts'
import { flatParts, mapSvg } from './mapSvg.ts'
import { readReadingsCsv, writeReadingsCsv } from './readingsCsv.ts'

const NOW = Date.UTC(2026, 4, 20, 12)
const locator = new Locator(HEAD.display)
const place: PlaceOnHead = (point) => {
  try {
    const { triangle, weights } = locator.nearest(point)
    return {
      zoneId: ZONE_IDS[HEAD.display.zones[triangle]!]!,
      ...surfacePoint(HEAD.display, triangle, weights[0], weights[1]),
    }
  } catch {
    return undefined
  }
}
const ID = headId(HEAD)
const SKIN = ZONES.filter((z) => isSkin(z.id))
const aReading = fc
  .record({
    zone: fc.constantFrom(...SKIN),
    sample: fc.nat(9),
    deg: fc.integer({ min: 0, max: 359 }),
    method: fc.constantFrom(...ALL_METHODS),
    ago: fc.integer({ min: 0, max: 40_000_000 }),
    id: fc.uuid(),
    answers: fc.array(
      fc.record({ strokeDeg: fc.integer({ min: 0, max: 360 }), catches: fc.boolean() }),
      { maxLength: 4 },
    ),
  })
  .map(({ zone, sample, deg, method, ago, id, answers }): Reading => {
    const at = zone.samples[sample % zone.samples.length]!
    const r = readingFromBearing(zone.id, at, toRadians(deg), {
      id,
      method,
      atMs: NOW - ago * 1000,
    })
    return method === 'test' ? { ...r, answers } : r
  })
const readings = fc.array(aReading, { maxLength: 12 })
const one = readingFromBearing('chin', SKIN.find((z) => z.id === 'chin')!.centre, 3, {
  id: 'one',
  method: 'felt',
  atMs: NOW - 1000,
})
const file = (list: readonly Reading[] = [one]) =>
  JSON.parse(JSON.stringify(writeGrowthMap(ID, list, [], [], NOW))) as Record<string, unknown> & {
    readings: Record<string, unknown>[]
  }
const read = (value: unknown) =>
  readGrowthMap(typeof value === 'string' ? value : JSON.stringify(value), ID, place, NOW)

describe('a growth map', () => {
  it('comes back as it was written', () => {
    fc.assert(
      fc.property(readings, (list) => {
        const { taken, left } = read(file(list))
        expect(left).toEqual([])
        expect(taken).toEqual(list.map(({ id: _, ...rest }) => rest))
      }),
      { numRuns: 25 },
    )
  })

  it('keeps to its schema', () => {
    const schema = JSON.parse(readFileSync('docs/formats/growth-map.schema.json', 'utf8')) as object
    const valid = new Ajv2020().compile(schema)
    const zones = [
      {
        zoneId: 'chin' as const,
        growthDirection: 3.1,
        meanResultantLength: 0.98765,
        trust: 0.5,
        within: 15 as const,
        readInParts: false,
      },
    ]
    const whorls = [
      {
        kind: 'whorl' as const,
        turn: 'clockwise' as const,
        zoneId: 'scalp-crown' as const,
        point: [0, 100, -60] as Vec3,
        normal: [0, 1, 0] as Vec3,
        trust: 0.6,
      },
    ]
    fc.assert(
      fc.property(readings, (list) => {
        const made: unknown = JSON.parse(
          JSON.stringify(writeGrowthMap(ID, list, zones, whorls, NOW)),
        )
        expect(valid(made)).toBe(true)
      }),
      { numRuns: 15 },
    )
    expect(valid({ ...file(), version: 2 })).toBe(false)
    expect(valid({ ...file(), extra: 1 })).toBe(false)
  })

  it.each([
    ['cut short', JSON.stringify(file()).slice(0, -40), 'ends too early'],
    ['empty', '', 'ends too early'],
    ['something else', '{"a":1}', 'is no growth map'],
    ['a list', '[1,2]', 'is no growth map'],
    [
      'of a later version',
      { ...file(), version: 7 },
      'is of version 7; this Slow Tide reads version 1',
    ],
    ['of another head', { ...file(), head: { id: 'head-9-00000000' } }, 'made on another head'],
    ['without a head', { ...file(), head: null }, 'made on another head'],
    ['without readings', { ...file(), readings: 'none' }, 'no list of readings'],
    [
      'with too many readings',
      { ...file(), readings: Array.from({ length: MOST_READINGS + 1 }, () => file().readings[0]) },
      `at most ${MOST_READINGS} are taken`,
    ],
    ['huge', `{"format":"${'x'.repeat(MOST_BYTES)}"}`, 'MB are opened'],
    [
      'with NaN',
      JSON.stringify(file()).replace(/"point":\[[^\]]*\]/, '"point":[NaN,0,0]'),
      'is not JSON',
    ],
    [
      'with no number',
      { ...file(), readings: [{ ...file().readings[0], point: [null, 0, 0] }] },
      'Reading 1: its point is not three numbers',
    ],
    [
      'with infinity',
      JSON.stringify(file()).replace(/"direction":\[[^\]]*\]/, '"direction":[1e999,0,0]'),
      'its direction is not three numbers',
    ],
    [
      'with an unknown way',
      { ...file(), readings: [{ ...file().readings[0], method: 'magic' }] },
      '"magic" is no way of reading',
    ],
    [
      'with an unknown zone',
      { ...file(), readings: [{ ...file().readings[0], zone: 'elbow' }] },
      '"elbow" is no zone',
    ],
    [
      'without a date',
      { ...file(), readings: [{ ...file().readings[0], at: 'soon' }] },
      'has no date',
    ],
    [
      'with answers that are none',
      { ...file(), readings: [{ ...file().readings[0], answers: [{ strokeDeg: 'x' }] }] },
      'not a stroke and a yes or no',
    ],
    [
      'with a reading that is a word',
      { ...file(), readings: ['chin'] },
      'Reading 1 is not a reading',
    ],
  ])('%s is refused whole, in a sentence', (_, value, words) => {
    expect(() => read(value)).toThrow(words)
    expect(() => read(value)).toThrow('Nothing was changed.')
  })

  it.each(['__proto__', 'constructor', 'valueOf', 'hasOwnProperty'])(
    'with the field %s is refused',
    (key) => {
      const text = JSON.stringify(file()).replace('"zone":', `"${key}":{"polluted":true},"zone":`)
      expect(() => read(text)).toThrow(`"${key}"`)
      expect(({} as Record<string, unknown>)['polluted']).toBeUndefined()
    },
  )

  it('never does anything but read or refuse, whatever is thrown at it', () => {
    fc.assert(
      fc.property(fc.oneof(fc.json(), fc.string()), (text) => {
        expect(() => read(text)).toThrow('Nothing was changed.')
      }),
      { numRuns: 200 },
    )
  })

  it('says what it left and why', () => {
    const far = { ...file().readings[0], point: [300, 0, 0] }
    const out = { ...file().readings[0], direction: one.normal }
    const later = { ...file().readings[0], at: new Date(NOW + 9e8).toISOString() }
    const lips = { ...file().readings[0], zone: 'lips' }
    const report = read({ ...file(), readings: [file().readings[0], far, out, later, lips] })
    expect(report.taken).toHaveLength(1)
    expect(report.left.map((l) => l.why)).toEqual([
      'its point does not lie on the head',
      'its direction points out of the skin',
      'its date lies ahead',
      'it does not lie on skin',
    ])
  })

  it('does not take twice what the map holds already', () => {
    const report = read(file([one, { ...one, atMs: one.atMs - 86_400_000 }]))
    const fresh = withoutKnown(report, [one])
    expect(fresh.taken).toHaveLength(1)
    expect(fresh.left[0]!.why).toBe('the map already holds it')
  })

  it('names its head by its surface', () => {
    expect(ID).toMatch(/^head-\d+-[0-9a-f]{8}$/)
    const other = {
      ...HEAD,
      solve: { ...HEAD.solve, positions: HEAD.solve.positions.map((x) => x + 1) },
    }
    expect(headId(other)).not.toBe(ID)
  })
})

describe('readings as a table', () => {
  const middle = (zone: string) => ZONES.find((z) => z.id === zone)?.centre
  const table = (text: string) => readReadingsCsv(text, place, middle, NOW)

  it('come back as they were written', () => {
    fc.assert(
      fc.property(readings, (list) => {
        const { taken, left } = table(writeReadingsCsv(list))
        expect(left).toEqual([])
        expect(taken).toHaveLength(list.length)
        taken.forEach((t, i) => {
          const r = list[i]!
          expect([t.zoneId, t.method, t.atMs]).toEqual([r.zoneId, r.method, r.atMs])
          t.point.forEach((x, k) => expect(x).toBeCloseTo(r.point[k]!, 2))
          const cos = t.tangent.reduce((s, x, k) => s + x * r.tangent[k]!, 0)
          expect(cos).toBeGreaterThan(0.9)
        })
      }),
      { numRuns: 25 },
    )
  })

  it('may give only a zone and its hour', () => {
    const { taken } = table('zone,clock_deg,method,at\r\nchin,150,felt,2026-05-01T10:00:00Z\r\n')
    expect(taken).toHaveLength(1)
    expect(readingBearing({ ...taken[0]!, id: 'x' })).toBeCloseTo(toRadians(150), 3)
  })

  it.each([
    ['without its columns', 'zone,method\nchin,felt', 'no column "at"'],
    ['with a strange column', 'zone,method,at,__proto__\nchin,felt,2026-05-01,1', '"__proto__"'],
    ['cut short', 'zone,clock_deg,method,at\nchin,150', 'Row 2'],
    [
      'with a word for a number',
      'zone,clock_deg,method,at\nchin,north,felt,2026-05-01',
      'Row 2: "north" under clock_deg is not a number',
    ],
    ['with NaN', 'zone,clock_deg,method,at\nchin,NaN,felt,2026-05-01', 'is not a number'],
    [
      'with an unknown zone',
      'zone,clock_deg,method,at\nelbow,10,felt,2026-05-01',
      '"elbow" is no zone',
    ],
    ['with nothing', '', 'no column'],
    ['huge', `zone,method,at\n${'x'.repeat(MOST_BYTES)}`, 'MB are opened'],
    [
      'too long',
      `zone,clock_deg,method,at\n${'chin,10,felt,2026-05-01\n'.repeat(MOST_READINGS + 1)}`,
      'at most',
    ],
  ])('%s are refused whole, in a sentence', (_, text, words) => {
    expect(() => table(text)).toThrow(words)
    expect(() => table(text)).toThrow('Nothing was changed.')
  })
})

describe('a picture of the map', () => {
  const views = JSON.parse(readFileSync('generated/flat-views.json', 'utf8')) as FlatView[]
  const chin = ZONES.find((z) => z.id === 'chin')!
  const drawing = {
    arrows: [
      { zoneId: chin.id, ...chin.centre, direction: [0, -1, 0] as Vec3, lengthMm: 14 },
      { zoneId: chin.id, ...chin.centre, direction: [1, 0, 0] as Vec3, lengthMm: 14, unsure: true },
    ],
    signs: [{ ...chin.centre, turn: 'clockwise' as const }],
    lines: [
      [
        chin.centre,
        { ...chin.centre, point: [8, chin.centre.point[1], chin.centre.point[2]] as Vec3 },
      ],
    ],
  }

  it('is well-formed SVG with an arrow that points down the page where hair grows down', () => {
    const front = flatParts(
      views.find((v) => v.id === 'front')!,
      drawing,
      () => true,
    )
    expect(front.arrows).toHaveLength(2)
    const [x0, y0, x1, y1] = /M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)/
      .exec(front.arrows[0]!.d)!
      .slice(1)
      .map(Number)
    expect(y1!).toBeGreaterThan(y0! + 5)
    expect(x1!).toBeCloseTo(x0!, 0)
    const svg = mapSvg([{ name: 'Front & <side>', parts: front }], 'A "map"')
    expect(XMLValidator.validate(svg)).toBe(true)
    expect(svg).toContain('stroke-dasharray')
    expect(svg).not.toContain('NaN')
  })

  it('draws nothing that looks away or is hidden', () => {
    const nape = flatParts(
      views.find((v) => v.id === 'nape')!,
      drawing,
      () => true,
    )
    expect([nape.arrows.length, nape.signs.length, nape.lines]).toEqual([0, 0, ''])
    const hidden = flatParts(
      views.find((v) => v.id === 'front')!,
      drawing,
      () => false,
    )
    expect(hidden.arrows).toEqual([])
  })
})

describe('the head with its field', () => {
  it('is glTF without errors, with the field on its vertices', async () => {
    const n = HEAD.display.positions.length / 3
    const vectors = new Float32Array(3 * n).fill(0)
    for (let v = 0; v < n; v++) vectors[3 * v + 1] = -1
    const trust = new Float32Array(n).fill(0.5)
    trust[0] = 0
    const bytes = await headGltf(HEAD.display, vectors, trust, ZONE_IDS)
    const report = await validateBytes(bytes)
    expect(report.issues.messages.filter((m) => m.severity === 0)).toEqual([])
    expect(report.info.totalVertexCount).toBe(n)
    const json = new TextDecoder().decode(
      bytes.subarray(20, 20 + new DataView(bytes.buffer, bytes.byteOffset).getUint32(12, true)),
    )
    for (const name of ['_GRAIN', '_TRUST', '_ZONE', 'POSITION', 'NORMAL'])
      expect(json).toContain(name)
  })
})
