/** Steps out of lanes: titles, times, lather that dries, blades that wear (recomputed by hand). */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { laneOf } from '../testing/lane.ts'
import { ZONES } from '../testing/head.ts'
import type { ZoneId } from '../zones/index.ts'
import { groupsOf } from './order.ts'
import { groupTitle, laneTitle, partsIn, straysOf, strokeStep, walkThrough } from './walk.ts'
import { timetable } from './timetable.ts'
import { kitFor } from './kit.ts'
import type { Lane, Plan, ZonePlan } from './types.ts'

const records = new Map(ZONES.map((z) => [z.id, z]))
const walk = (
  lanes: readonly Lane[],
  over: Partial<Parameters<typeof walkThrough>[0]> = {},
  zones: readonly ZoneId[] = [],
) =>
  walkThrough(
    {
      figures: DEFAULTS,
      service: 'face-shave',
      schools: DEFAULT_SCHOOLS,
      screening: { noFragrance: false },
      client: { ...SKIN, coarseness: 'medium' },
      ground: { records },
      notes: { strays: [] },
      ...over,
    },
    lanes,
    zones.map((zoneId) => ({ zoneId }) as ZonePlan),
  )
const ids = (walked: ReturnType<typeof walk>) => walked.steps.map((s) => s.id)
const strokes = (walked: ReturnType<typeof walk>) => walked.steps.filter((s) => s.kind === 'stroke')

describe('a walk through lanes', () => {
  it('begins with what is prepared, ends with what closes, and counts a start and each change', () => {
    const a = laneOf({ id: 'a', seconds: 30 })
    const b = laneOf({ id: 'b', seconds: 20, headTurn: 'Turned.', zoneId: 'jaw-left' })
    const c = laneOf({
      ...{ id: 'c', seconds: 25, headTurn: 'Turned.', zoneId: 'chin' },
      ...{ stance: { hour: 12, text: '' }, point: [50, -100, 60] as const },
    })
    const walked = walk([a, b, c])
    const [one, two, three] = strokes(walked).map((s) => 60 * s.minutes)
    // Taking a stance and turning the head, and the start of a lane.
    expect(one).toBeCloseTo(30 + 2 + 6 + 4, 9)
    expect(two).toBeCloseTo(20 + 2 + 4, 9)
    expect(three).toBeCloseTo(25 + 2 + 6 + 0.5, 9)
    const at = ids(walked)
    expect(at[0]).toBe('prepare:cleanse')
    expect(at.slice(-3)).toEqual(['check', 'close:cold', 'close:soothe'])
    expect(walked.totalMinutes).toBeCloseTo(
      walked.steps.reduce((s, x) => s + x.minutes, 0),
      9,
    )
    expect([...walked.blades]).toEqual([['shavette', 1]])
  })

  it('renews lather before a lane on which it would dry, and begins anew with each pass', () => {
    const lane = (id: string, seconds: number, pass = 1) => laneOf({ id, seconds, pass })
    // Six minutes: 12 s to begin, then 2 s a lane.
    const just = walk([lane('a', 200), lane('b', 148)])
    expect(ids(just).filter((id) => id.startsWith('lather:'))).toEqual([])
    const over = walk([lane('a', 200), lane('b', 149)])
    expect(ids(over).filter((id) => /^lather:|^[ab]$/.test(id))).toEqual([
      ...['a', 'lather:renew-1', 'b'],
    ])
    const passes = walk([lane('a', 300), lane('b', 300, 2), lane('c', 100, 2), lane('d', 300, 3)])
    expect(ids(passes).filter((id) => /^lather:|^[a-d]$/.test(id))).toEqual([
      ...['a', 'lather:2', 'b', 'lather:renew-1', 'c', 'lather:3', 'd'],
    ])
    // After a lather a stance is taken anew.
    expect(60 * strokes(passes)[1]!.minutes).toBeCloseTo(300 + 2 + 10, 9)
    // The first lane alone takes as long as it takes.
    expect(ids(walk([lane('a', 900)]))).not.toContain('lather:renew-1')
    expect(walk([lane('a', 900), lane('b', 10)]).steps.find((s) => s.renews)).toMatchObject({
      kind: 'lather',
      lays: 'lather',
    })
  })

  it('takes a fresh blade before the lane that the old one would not see through', () => {
    // Medium hair: halfway between 350 and 700 strokes.
    const lane = (id: string, n: number) => laneOf({ id, strokes: n })
    const whole = walk([lane('a', 300), lane('b', 225)])
    expect(whole.blades.get('shavette')).toBe(1)
    const over = walk([lane('a', 300), lane('b', 226), lane('c', 200)])
    expect(over.blades.get('shavette')).toBe(2)
    expect(strokes(over).map((s) => s.freshBlade ?? false)).toEqual([false, true, false])
    expect(strokes(over)[1]!.blade).toBe('open blade, a fresh one')
    expect(60 * strokes(over)[1]!.minutes).toBeCloseTo(30 + 2 + 12, 9)
    // A lane longer than two lives wears out three, and leaves the rest of the last.
    const long = walk([lane('a', 1100), lane('b', 475), lane('c', 1)])
    expect(long.blades.get('shavette')).toBe(4)
    expect(strokes(long).map((s) => s.freshBlade ?? false)).toEqual([false, false, true])
    const coarse = walk([lane('a', 300), lane('b', 51)], {
      client: { ...SKIN, coarseness: 'coarse' },
    })
    expect(coarse.blades.get('shavette')).toBe(2)
    const two = walk([lane('a', 300), { ...lane('b', 300), bladeId: 'safety' }])
    expect(Object.fromEntries(two.blades)).toEqual({ shavette: 1, safety: 1 })
  })

  it('changes the blade of a head at half, where the house goes by feel', () => {
    const lanes = ['a', 'b', 'c', 'd'].map((id) =>
      laneOf({ id, zoneId: 'scalp-crown', strokes: 100 }),
    )
    const of = (headBlade: 'by-feel' | undefined) =>
      strokes(
        walk(lanes, {
          service: 'head-shave',
          schools: { ...DEFAULT_SCHOOLS, ...(headBlade && { headBlade }) },
        }),
      ).map((s) => s.freshBlade ?? false)
    expect(of('by-feel')).toEqual([false, false, true, false])
  })

  it('feels each guessed zone once, the largest lane of it speaking, and tweezes strays before', () => {
    const guess = { grain: 'guess' as const }
    const walked = walk(
      [
        laneOf({ id: 'a', ...guess, areaCm2: 3, growsToward: 'small' }),
        laneOf({ id: 'b', ...guess, areaCm2: 9, growsToward: 'large', letter: 'b' }),
        laneOf({ id: 'c', zoneId: 'chin' }),
        laneOf({ id: 'd', ...guess, zoneId: 'jaw-left' }),
      ],
      {
        notes: {
          strays: [
            { zoneId: 'chin', point: [0, 0, 0], normal: [0, 0, 1], id: 's' },
            { zoneId: 'occiput', point: [0, 0, 0], normal: [0, 0, 1], id: 't' },
          ] as never,
        },
      },
      ['chin', 'jaw-left'],
    )
    expect(ids(walked).slice(0, 4)).toEqual([
      ...['prepare:cleanse', 'feel:cheek-lower-left', 'feel:jaw-left', 'prepare:tweeze'],
    ])
    expect(walked.steps[1]!.text).toContain('large')
    expect(walked.steps[1]!.short).toBe('Feel first: Lower cheek, left')
    expect(walked.steps[3]).toMatchObject({ minutes: 0.5 })
    expect(walked.steps[3]!.text).toContain('1 stray: Chin.')
    expect(straysOf({ notes: { strays: [] } } as never, [{ zoneId: 'chin' } as ZonePlan])).toEqual(
      [],
    )
  })
})

describe('titles', () => {
  const parts = (lanes: readonly Lane[]) => partsIn(groupsOf(lanes))

  it('name the zone, its part where there are several, and whose side it is', () => {
    const one = laneOf({ id: 'a' })
    expect(laneTitle(one, 1)).toBe("Lower cheek, client's left")
    expect(laneTitle(one, 2)).toBe("Lower cheek, part a, client's left")
    expect(laneTitle(one, 2, true)).toBe('Lower cheek, part a, left')
    expect(laneTitle({ zoneId: 'chin', letter: 'a' }, 1)).toBe('Chin')
  })

  it('leave out the part that is nearly the whole of a zone', () => {
    const lanes = [
      laneOf({ id: 'a', areaCm2: 7.5 }),
      laneOf({ id: 'b', areaCm2: 2.5, letter: 'b' }),
      laneOf({ id: 'c', areaCm2: 5, zoneId: 'chin' }),
      laneOf({ id: 'd', areaCm2: 5, zoneId: 'chin', letter: 'b' }),
      laneOf({ id: 'e', areaCm2: 5, pass: 2, letter: 'b' }),
    ]
    expect(lanes.map(parts(lanes))).toEqual([1, 2, 2, 2, 1])
    const less = [{ ...lanes[0]!, areaCm2: 7.4 }, lanes[1]!]
    expect(parts(less)(less[0]!)).toBe(2)
  })

  it('of a press name the zones it takes, the side once, small parts not at all', () => {
    const title = (lanes: readonly Lane[], short = false) => {
      const [group] = groupsOf(lanes.map((l) => ({ ...l, stepId: 's' })))
      return groupTitle(group!, parts(lanes.map((l) => ({ ...l, stepId: 's' }))), short)
    }
    const cheek = laneOf({ id: 'a', areaCm2: 10 })
    const jaw = laneOf({ id: 'b', areaCm2: 6, zoneId: 'jaw-left' })
    expect(title([cheek, jaw])).toBe("Lower cheek and jaw, client's left")
    expect(title([jaw, cheek], true)).toBe('Lower cheek and jaw, left')
    expect(title([cheek, { ...jaw, areaCm2: 1.7 }])).toBe("Lower cheek, client's left")
    expect(title([cheek, { ...jaw, areaCm2: 1.8 }])).toBe("Lower cheek and jaw, client's left")
    expect(title([cheek, { ...jaw, zoneId: 'jaw-right' }])).toBe('Lower cheek and jaw')
    // Two parts of one zone in one go are the zone.
    expect(title([cheek, { ...cheek, id: 'c', letter: 'b', areaCm2: 9 }])).toBe(
      "Lower cheek, client's left",
    )
  })
})

describe('the step of a press', () => {
  const step = (lanes: readonly Lane[], fresh = false, toward?: string) => {
    const [group] = groupsOf(lanes.map((l) => ({ ...l, stepId: 's' })))
    return strokeStep(group!, () => 1, 1.5, fresh, toward)
  }
  const a = laneOf({ id: 'a', areaCm2: 9, leftMm: 0.1, strokes: 20 })
  const b = laneOf({ id: 'b', areaCm2: 3, leftMm: 0.3, strokes: 7, zoneId: 'jaw-left' })

  it('adds up its lanes and names them', () => {
    const s = step([b, a])
    expect(s).toMatchObject({
      ...{ laneId: 'a', laneIds: ['a', 'b'], zoneIds: ['cheek-lower-left', 'jaw-left'] },
      ...{ strokes: 27, areaCm2: 12, minutes: 1.5, pass: 1, blade: 'open blade' },
    })
    expect(s.leftMm).toBeCloseTo(0.15, 9)
    expect(step([a])).not.toHaveProperty('laneIds')
    expect(step([a])).not.toHaveProperty('freshBlade')
    expect(step([a], true).freshBlade).toBe(true)
  })

  it('says the way, how long strokes are, what is a guess and what is felt first', () => {
    expect(step([a]).text).toBe(
      'With the grain, down, toward the jaw. Strokes of about 2 cm. No pressure.',
    )
    expect(step([a], false, 'round the chin').text).toContain('With the grain, round the chin.')
    const length = (mm: number) => step([{ ...a, strokeLengthMm: mm }]).text
    expect(length(9)).toContain('Short strokes of about 9 mm.')
    expect(length(10)).toContain('Short strokes of about 1 cm.')
    expect(length(11)).toContain('Strokes of about 1.1 cm.')
    expect(step([a, { ...b, grain: 'guess' }]).text).toContain('by a guess: go by what you felt.')
    expect(step([a, { ...b, grain: 'unsure' }]).text).toContain('Feel first: more than a tenth')
    expect(
      step([
        { ...a, grain: 'guess' },
        { ...b, grain: 'unsure' },
      ]).text,
    ).not.toContain('Feel first')
  })
})

describe('a timetable', () => {
  const plan = (steps: readonly Partial<Plan['steps'][number]>[], lanes: readonly Lane[] = []) =>
    ({
      lanes,
      steps: steps.map((s, i) => ({
        ...{ id: `${i}`, kind: 'prepare', title: `t${i}`, text: '', minutes: 1 },
        ...s,
      })),
    }) as Pick<Plan, 'steps' | 'lanes'>

  it('keeps lather fresh for six minutes, dry from then to the last stroke', () => {
    const lane = laneOf({ id: 'a', action: 'Puffs.' })
    const t = timetable(
      DEFAULTS,
      plan(
        [
          { lays: 'towel' },
          { kind: 'lather', lays: 'lather' },
          { kind: 'stroke', laneId: 'a', minutes: 5 },
          { kind: 'stroke', laneId: 'a', minutes: 3 },
          { kind: 'close', lays: 'towel', minutes: 2 },
        ],
        [lane],
      ),
    )
    expect(t.totalMin).toBe(12)
    expect(t.lather.map(({ fromMin, toMin, kind }) => [fromMin, toMin, kind])).toEqual([
      [2, 8, 'wet'],
      [8, 10, 'dry'],
    ])
    expect(t.towel.map(({ fromMin, toMin, kind }) => [fromMin, toMin, kind])).toEqual([
      [0, 1, 'hot'],
      [10, 12, 'cold'],
    ])
    expect(t.client.map(({ fromMin, toMin, text }) => [fromMin, toMin, text])).toEqual([
      [0, 1, 'Lies back under the towel.'],
      [1, 2, 'Sits easy.'],
      [2, 10, 'Head straight. Puffs.'],
      [10, 12, 'Lies back under the towel.'],
    ])
    expect(t.worker.map((b) => [b.fromMin, b.toMin, b.stepId])).toEqual([
      [0, 1, '0'],
      [1, 2, '1'],
      [2, 7, '2'],
      [7, 10, '3'],
      [10, 12, '4'],
    ])
  })

  it('ends one lather where the next begins', () => {
    const t = timetable(
      DEFAULTS,
      plan([
        { lays: 'lather' },
        { kind: 'stroke', minutes: 4 },
        { lays: 'lather', kind: 'lather' },
        { kind: 'stroke', minutes: 2 },
      ]),
    )
    expect(t.lather.map(({ fromMin, toMin }) => [fromMin, toMin])).toEqual([
      [1, 5],
      [6, 8],
    ])
    expect(timetable(DEFAULTS, plan([])).totalMin).toBe(0)
  })
})

describe('what lies ready', () => {
  it('is counted, with its cost, paper by the strokes', () => {
    const kit = (strokes: number, strays = 0) =>
      kitFor(
        DEFAULTS,
        'face-shave',
        [laneOf({ id: 'a', strokes }), laneOf({ id: 'b', strokes: 1 })],
        new Map([
          ['shavette', 2],
          ['safety', 1],
        ]),
        strays,
      )
    const one = (name: string, items = kit(90)) => items.find((i) => i.name.startsWith(name))
    expect(one('shavette')).toEqual({
      ...{ name: 'shavette, half blade', count: 2, unit: 'blades', cost: 0.3 },
    })
    expect(one('safety')).toMatchObject({ count: 1, unit: 'blade', cost: 0.25 })
    expect(one('towels')).toMatchObject({ count: 2, unit: 'towels', cost: 0.7 })
    expect(one('gloves')).toMatchObject({ count: 1, cost: 0.12 })
    expect(one('paper')).toMatchObject({ count: 3, cost: 0.06 })
    expect(one('paper', kit(89))).toMatchObject({ count: 2 })
    expect(one('oil')).toMatchObject({ count: 1, cost: 0.4 })
    expect(one('tweezers')).toBeUndefined()
    expect(one('tweezers', kit(90, 1))).toMatchObject({ count: 1, cost: 0 })
    // Dry fuzz needs no bowl.
    expect(
      kitFor(DEFAULTS, 'dermaplane', [], new Map(), 0).find((i) => i.name.startsWith('oil')),
    ).toBeUndefined()
  })
})
