import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { HOUR_MS } from '../time/index.ts'
import { carePlan } from './clearances.ts'
import { messagesFor } from './messages.ts'
import { allergies, clashes, USUAL_PRODUCTS } from './products.ts'

const asked = (kinds?: string[]) => ({
  answers: { allergy: { yes: true, ...(kinds && { kinds }) } },
})
const named = (...ids: string[]) => USUAL_PRODUCTS.filter((p) => ids.includes(p.id))

describe('products against a client', () => {
  it('finds what the client is allergic to, and nothing else', () => {
    const found = clashes(
      named('holder-steel', 'gloves-latex', 'balm-herbal'),
      asked(['nickel']),
      false,
    )
    expect(found.map((c) => [c.productId, c.fact, c.because])).toEqual([
      ['holder-steel', 'nickel', 'allergy'],
    ])
  })

  it('takes an allergy without its kind for all of them', () => {
    expect(allergies(asked())).toEqual(['nickel', 'latex', 'fragrance', 'plant-extracts'])
    expect(allergies({ answers: { allergy: { yes: false } } })).toEqual([])
    expect(clashes(named('gloves-latex', 'balm-plain'), asked(), false)).toHaveLength(1)
  })

  it('keeps scent off skin that bears none, and alcohol off fresh skin', () => {
    const calm = { answers: {} }
    expect(clashes(named('soap-scented'), calm, false)).toEqual([])
    expect(clashes(named('soap-scented'), calm, true)[0]).toMatchObject({ because: 'skin' })
    expect(clashes(named('splash'), calm, false)[0]).toMatchObject({ fact: 'alcohol' })
  })
})

describe('clearances hang on what happened', () => {
  const END = Date.UTC(2026, 5, 1, 12)
  const hours = (plan: ReturnType<typeof carePlan>, id: string) =>
    (plan.clearances.find((c) => c.id === id)!.untilMs - END) / HOUR_MS
  const plan = (facts = {}, skin = {}) =>
    carePlan(DEFAULTS, 'face-shave', { ...SKIN, ...skin }, DEFAULT_SCHOOLS, false, END, facts)

  it('on an acid, on a nick, on reactive skin', () => {
    const peel = [{ id: 'p', name: 'Peel', use: 'after' as const, holds: ['acid' as const] }]
    expect(hours(plan(), 'sun')).toBe(48)
    expect(hours(plan({ products: peel }), 'sun')).toBe(168)
    expect(hours(plan({ products: peel }), 'acids')).toBe(72)
    // To take home is not to have been put on.
    expect(hours(plan({ products: [{ ...peel[0]!, use: 'home' as const }] }), 'sun')).toBe(48)
    expect(
      hours(plan({ atChair: { redness: {}, leftOut: {}, nicks: { chin: 1 } } }), 'swimming'),
    ).toBe(48)
    expect(hours(plan({}, { reactivity: 'reactive' }), 'exercise')).toBe(36)
  })

  it('nightly acid ends when hair shows, a week at the latest, a night at the least', () => {
    const until = (hairShowsMs?: number) =>
      hours(
        plan(hairShowsMs === undefined ? {} : { hairShowsMs }, { bumpProne: true }),
        'exfoliate',
      )
    expect(until(END + 72 * HOUR_MS)).toBe(72)
    expect(until(END + 10 * HOUR_MS)).toBe(48)
    expect(until()).toBe(168)
  })

  it('says what is normal and when to write, apart from what to keep off', () => {
    const kinds = new Map(plan().clearances.map((c) => [c.id, c.kind]))
    expect(kinds.get('redness-normal')).toBe('normal')
    expect(kinds.get('burn-watch')).toBe('watch')
    expect(
      carePlan(DEFAULTS, 'body-shave', SKIN, DEFAULT_SCHOOLS, false, END).clearances.map(
        (c) => c.id,
      ),
    ).not.toContain('make-up')
  })

  it('becomes messages in order of time, the sheet first', () => {
    const care = plan()
    const list = messagesFor({
      care,
      what: 'Hot-towel face shave',
      name: 'Toby',
      house: 'Lantern Quay',
      nextFromMs: END + 60 * HOUR_MS,
      when: (ms) => new Date(ms).toISOString(),
      offset: () => 0,
    })
    // What falls into the night comes at nine.
    expect(list.map((m) => (m.dueAtMs - END) / HOUR_MS)).toEqual([0, 24, 48, 69, 168])
    expect(list[0]!.text).toContain('Keep off')
    expect(
      messagesFor({
        care,
        what: 'Hot-towel face shave',
        name: '',
        house: 'x',
        when: String,
        offset: () => 0,
      }),
    ).toHaveLength(4)
  })
})
