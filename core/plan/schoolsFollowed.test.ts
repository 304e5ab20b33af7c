/** What a plan and the care that goes home follow of the house's schools: towels, balm, loosening, acid, brush, make-up. */
import { carePlan } from '../care/index.ts'
import type { HairLayer } from '../hair/index.ts'
import { DEFAULT_SCHOOLS, DEFAULTS, type Schools } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { BEARD_LINES } from '../testing/lines.ts'
import { planInput } from '../testing/plan.ts'
import { makePlan } from './makePlan.ts'

const planned = (schools: Partial<Schools>, reactivity: 'average' | 'reactive' = 'average') =>
  makePlan(planInput({ schools, skin: { reactivity } }))
const ids = (schools: Partial<Schools>, reactivity?: 'average' | 'reactive') =>
  planned(schools, reactivity).steps.map((s) => s.id)

describe('the routine of a shave', () => {
  it('cools, then soothes; the other way round by the other school', () => {
    expect(ids({}).slice(-2)).toEqual(['close:cold', 'close:soothe'])
    expect(ids({ balmOrder: 'balm-cold' }).slice(-2)).toEqual(['close:soothe', 'close:cold'])
  })

  it('a third towel is a step and lies ready', () => {
    const [two, three] = [planned({}), planned({ towels: 'three' })]
    expect(three.steps.map((s) => s.id).slice(-3)).toEqual([
      'close:third',
      'close:cold',
      'close:soothe',
    ])
    const towels = (p: typeof two) => p.kit.find((k) => k.name === 'towels')!.count
    expect(towels(three)).toBe(towels(two) + 1)
    expect(three.totalMinutes).toBeGreaterThan(two.totalMinutes)
  })

  it('a scrub comes just before the blade where the school says so, never on sensitive skin', () => {
    const before = ids({ exfoliateBefore: 'scrub' }).filter((id) => id.startsWith('prepare:'))
    expect(before.slice(0, 3)).toEqual(['prepare:cleanse', 'prepare:scrub', 'prepare:towel'])
    expect(ids({ exfoliateBefore: 'scrub' }, 'reactive')).not.toContain('prepare:scrub')
    const words = (schools: Partial<Schools>, r?: 'reactive') => planned(schools, r).steps[0]!.text
    expect(words({})).toMatch(/soft cloth/)
    expect(words({}, 'reactive')).not.toMatch(/soft cloth/)
    expect(words({ exfoliateBefore: 'never' })).not.toMatch(/soft cloth/)
  })
})

describe('the care that goes home', () => {
  const care = (schools: Partial<Schools>, skin: object = {}, facts = {}, fuzz = false) =>
    carePlan(
      DEFAULTS,
      fuzz ? 'dermaplane' : 'face-shave',
      { ...SKIN, bumpProne: true, ...skin },
      { ...DEFAULT_SCHOOLS, ...schools },
      false,
      0,
      facts,
    )
  const of = (c: ReturnType<typeof care>, id: string) => c.clearances.find((x) => x.id === id)
  const HOUR = 3_600_000

  it('acid from the same evening begins after eight hours, and is not forbidden then', () => {
    const c = care({ exfoliate: 'acid-evening' })
    expect(of(c, 'exfoliate')!.fromMs).toBe(8 * HOUR)
    expect(of(c, 'acids')!.untilMs).toBe(8 * HOUR)
    expect(of(care({}), 'exfoliate')!.fromMs).toBe(24 * HOUR)
    expect(of(care({}), 'acids')!.untilMs).toBe(24 * HOUR)
    expect(of(care({}, { reactivity: 'reactive' }), 'exfoliate')!.text).toMatch(/milder one/)
  })

  it('the brush twice a day, make-up at once', () => {
    expect(of(care({ exfoliate: 'brush-twice' }), 'exfoliate')!.title).toMatch(/twice a day/)
    expect(of(care({}, {}, {}, true), 'make-up')).toBeDefined()
    expect(of(care({ makeUpAfter: '0' }, {}, {}, true), 'make-up')).toBeUndefined()
  })

  it('what is common in the first sessions is told to those in them alone', () => {
    for (const [newcomer, told] of [
      [true, true],
      [false, false],
    ] as const) {
      const c = care({}, {}, { newcomer })
      const words = `${c.normal} ${of(c, 'bumps-normal')!.text}`
      expect(/first sessions/.test(words)).toBe(told)
    }
  })
})

describe('long hair on arrival', () => {
  const of = (lengthMm: number, service: 'face-shave' | 'dermaplane' = 'face-shave') =>
    makePlan(planInput({ service, notes: { lengthMm } }))

  it('goes down with clippers first, planned with its minutes', () => {
    const clip = (p: ReturnType<typeof of>) => p.steps.find((s) => s.id === 'prepare:clip')
    expect(clip(of(6))).toBeUndefined()
    const long = of(25)
    expect(clip(long)?.text).toMatch(/25 mm long/)
    expect(clip(long)!.minutes).toBeGreaterThan(2)
    expect(long.totalMinutes).toBeGreaterThan(of(3).totalMinutes)
    expect(long.steps.findIndex((s) => s.id === 'prepare:clip')).toBeLessThan(
      long.steps.findIndex((s) => s.id === 'prepare:towel'),
    )
    // Fuzz is never clipped.
    expect(clip(of(25, 'dermaplane'))).toBeUndefined()
  })
})

describe('the skin as it is', () => {
  const plan = (skin: object, hair: object = {}) => makePlan(planInput({ skin, notes: { hair } }))

  it('prone to bumps by zone: a bump-prone neck goes with the grain, the cheeks by the school', () => {
    const neck = plan({ bumpProne: true, bumpAreas: ['neck'] })
    const most = (p: typeof neck, zone: string) =>
      p.zones.find((z) => z.zoneId === zone)!.passes.map((x) => x.relation)
    expect(most(neck, 'neck-upper-left')).toEqual(['with'])
    const legs = plan({ bumpProne: true, bumpAreas: ['body'] })
    const none = plan({ bumpProne: false })
    const passes = (p: typeof neck) =>
      p.zones.map((z) => [z.zoneId, z.passes.map((x) => x.relation)])
    expect(passes(legs)).toEqual(passes(none))
  })

  it('lax skin: shorter strokes, a wider stretch, more time', () => {
    const [lax, firm] = [plan({ lax: true }), plan({})]
    const longest = (p: typeof lax) => Math.max(...p.lanes.map((l) => l.strokeLengthMm))
    expect(longest(lax)).toBeLessThan(0.75 * longest(firm))
    expect(lax.lanes[0]!.freeHand).toMatch(/two fingers wide apart/)
    expect(lax.totalMinutes).toBeGreaterThan(firm.totalMinutes)
    // Dry skin in between.
    const dry = plan({ type: 'dry' })
    expect(longest(dry)).toBeLessThan(0.9 * longest(firm))
    expect(longest(dry)).toBeGreaterThan(longest(lax))
    expect(dry.lanes[0]!.freeHand).toMatch(/Dry skin: stretched/)
  })

  it('pale and grey places are listed to be felt again', () => {
    const check = (p: ReturnType<typeof plan>) => p.steps.find((s) => s.kind === 'check')!.text
    expect(check(plan({}))).not.toMatch(/feel again/i)
    expect(check(plan({}, { chin: { grey: 'most' } }))).toMatch(/feel again on the chin/)
    expect(check(plan({ contrast: 'low' }))).toMatch(/feel everywhere again/)
  })
})

describe('what lies under the blade', () => {
  const of = (fuzzSlip: Schools['fuzzSlip']) =>
    makePlan(planInput({ service: 'dermaplane', schools: { fuzzSlip } }))
  const renewals = (p: ReturnType<typeof of>) => p.steps.filter((s) => s.renews)

  it('dry skin needs nothing; each film is wetted again when it dries, the sooner the shorter it lasts', () => {
    expect(renewals(of('dry'))).toEqual([])
    const [damp, gel, lotion, oil] = (['damp', 'film', 'lotion', 'oil'] as const).map((s) =>
      renewals(of(s)),
    )
    expect(damp!.length).toBeGreaterThan(gel!.length)
    expect(gel!.length).toBeGreaterThanOrEqual(lotion!.length)
    expect(lotion!.length).toBeGreaterThanOrEqual(oil!.length)
    expect(gel![0]).toMatchObject({ title: 'Gel again', film: { name: 'gel', lastsMin: 5 } })
    // No stroke lies later than the film lasts.
    for (const slip of ['film', 'lotion', 'damp'] as const) {
      const plan = of(slip)
      let since = 0
      for (const s of plan.steps) {
        if (s.lays === 'lather') since = 0
        else if (s.kind === 'stroke') {
          since += s.minutes
          const lasts = plan.steps.find((x) => x.film)!.film!.lastsMin
          // One lane may be longer than the film; two are not, but for taking up the next.
          if (since > lasts + 0.5) expect(since - s.minutes).toBeLessThan(1e-6)
        }
      }
    }
  })

  it('strokes wait until it has soaked in, and what fuzz left comes off before anybody looks', () => {
    const surface = (p: ReturnType<typeof of>) => p.steps.find((s) => s.id === 'prepare:surface')!
    expect(surface(of('lotion')).minutes).toBeGreaterThan(surface(of('dry')).minutes)
    for (const [slip, title] of [
      ['dry', 'Brush off'],
      ['lotion', 'Rinse off'],
    ] as const) {
      const ids = of(slip).steps
      const off = ids.findIndex((s) => s.id === 'close:off')
      expect(ids[off]!.title).toBe(title)
      expect(off).toBeLessThan(ids.findIndex((s) => s.kind === 'check'))
    }
    expect(makePlan(planInput({})).steps.some((s) => s.id === 'close:off')).toBe(false)
  })
})

describe('what lies under the blade, zone by zone', () => {
  const made = (hair: HairLayer) => makePlan(planInput({ service: 'dermaplane', notes: { hair } }))
  const mixed = made({
    'cheek-lower-left': { slip: 'gel' },
    'cheek-lower-right': { slip: 'gel' },
    chin: { slip: 'oil' },
  })
  const plain = made({})
  const zone = (p: typeof mixed, id: string) => p.zones.find((z) => z.zoneId === id)!

  it('is told with its soaking, and each zone has the film and the clock of its own', () => {
    const surface = mixed.steps.find((s) => s.id === 'prepare:surface')!
    expect(surface.text).toMatch(
      /gel on lower cheek \(client's left\) and lower cheek \(client's right\); oil on chin; the rest dry/i,
    )
    expect(surface.minutes).toBeGreaterThan(
      plain.steps.find((s) => s.id === 'prepare:surface')!.minutes,
    )
    expect(surface.films!['cheek-lower-left']).toMatchObject({ name: 'gel', lastsMin: 5 })
    expect(surface.films!.chin).toMatchObject({ name: 'oil', lastsMin: 20 })
    expect(surface.films!['jaw-left']).toBeNull()
  })

  it('a film lessens the load where it lies, and there alone; it is rinsed off', () => {
    for (const id of ['cheek-lower-left', 'chin'])
      expect(zone(mixed, id).totalLoad).toBeLessThan(zone(plain, id).totalLoad)
    expect(zone(mixed, 'jaw-left').totalLoad).toBeCloseTo(zone(plain, 'jaw-left').totalLoad, 6)
    expect([zone(mixed, 'chin').slip, zone(mixed, 'jaw-left').slip]).toEqual(['full', undefined])
    expect(mixed.steps.find((s) => s.id === 'close:off')!.title).toBe('Rinse off')
  })

  it('of a shave lather lies under the blade, whatever was noted for fuzz', () => {
    const shave = (hair: HairLayer) => makePlan(planInput({ notes: { hair } }))
    expect(shave({ chin: { slip: 'dry' } }).totalMinutes).toBe(shave({}).totalMinutes)
  })
})

describe('blades as they are', () => {
  it('a fresh one is told to go lightest at first, once for each', () => {
    const plan = makePlan(planInput({}))
    const told = plan.steps.filter((s) => /first strokes lightest/.test(s.text))
    const fresh = plan.steps.filter((s) => s.freshBlade).length
    expect(told.length).toBe(1 + fresh)
    expect(told[0]!.id).toBe(plan.steps.find((s) => s.kind === 'stroke')!.id)
  })

  it('a trimmer set back loads less and leaves more, by as much as it is set back', () => {
    const line = (setBackMm?: number) =>
      makePlan(
        planInput({
          ...{ service: 'beard-line' as const, keepLines: BEARD_LINES },
          ...(setBackMm !== undefined && { skin: { setBackMm } }),
        }),
      ).zones[0]!.passes[0]!
    const [none, back] = [line(), line(1)]
    expect(back.leftMm - none.leftMm).toBeCloseTo(1, 6)
    expect(back.load / none.load).toBeCloseTo(Math.exp(-1 / 1.2), 6)
  })
})

describe('the side with more work', () => {
  const line = (heavier?: 'left' | 'right' | 'alike') =>
    makePlan(
      planInput({
        ...{ service: 'beard-line' as const, keepLines: BEARD_LINES },
        ...(heavier && { notes: { heavier } }),
      }),
    )
  const firstSide = (p: ReturnType<typeof line>) =>
    p.lanes.find((l) => /-(left|right)$/.test(l.zoneId))!.zoneId.replace(/.*-/, '')

  it('as it was seen combed down goes first, whatever the areas say', () => {
    for (const side of ['left', 'right'] as const) {
      const plan = line(side)
      expect(firstSide(plan)).toBe(side)
      expect(plan.reasons.some((r) => r.text.includes(`(client’s ${side}, as it was seen)`))).toBe(
        true,
      )
    }
    expect(firstSide(line('alike'))).toBe(firstSide(line()))
  })
})
