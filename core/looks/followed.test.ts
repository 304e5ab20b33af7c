/** Dark marks and blackheads: counted where somebody looked for them, followed like bumps, and no bumps. */
import { trendWatch, type VisitFacts } from '../history/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { SkinAnswer, SkinSpot } from './answers.ts'
import { NOTHING_SEEN, withSpot } from './editLook.ts'
import { bumpsByZone, followedByZone } from './summary.ts'

const spot = (id: string, kind: SkinSpot['kind'], zoneId = 'chin'): SkinSpot => ({
  ...{ id, kind, zoneId, point: [0, 0, 0], normal: [0, 0, 1] },
})
const look = (
  days: number,
  spots: readonly SkinSpot[],
  over: Partial<SkinAnswer> = {},
): SkinAnswer => ({
  ...{ moment: '7d', atMs: days * DAY_MS, zones: [], spots, ...over },
})
const after = (answers: readonly SkinAnswer[]) => ({ endedAtMs: 0, answers })

describe('what is followed besides bumps', () => {
  it('is the most of any look, however late, zone by zone', () => {
    const seen = after([
      look(2, [spot('a', 'dark'), spot('b', 'blackhead')]),
      look(30, [spot('a', 'dark'), spot('c', 'dark'), spot('d', 'dark', 'jaw-left')]),
    ])
    expect([...followedByZone(seen, 'dark')!]).toEqual([
      ['chin', 2],
      ['jaw-left', 1],
    ])
    expect([...followedByZone(seen, 'blackhead')!]).toEqual([['chin', 1]])
  })

  it('nobody who answers from home has looked for them, nor whoever looked right after', () => {
    expect(followedByZone(after([look(2, [], { source: 'client' })]), 'dark')).toBeUndefined()
    expect(followedByZone(after([look(0.1, [])]), 'dark')).toBeUndefined()
    expect(followedByZone(after([look(2, [])]), 'dark')!.size).toBe(0)
  })

  it('is no bump', () => {
    const { zones } = { ...NOTHING_SEEN, ...withSpot(NOTHING_SEEN, spot('a', 'blackhead')) }
    expect(zones).toEqual([])
    expect(bumpsByZone(DEFAULTS, after([look(7, [spot('a', 'dark')])]))!.size).toBe(0)
  })

  it('is watched like bumps, against its own beginning', () => {
    const visit = (i: number, dark: number): VisitFacts => ({
      ...{ visitId: `${i}`, service: 'face-shave', workerId: 'w', endedAtMs: i, loads: {} },
      ...{
        worst: {},
        bumps: {},
        choices: null,
        products: [],
        routine: '',
        answered: [],
        due: null,
      },
      dark: { chin: dark },
    })
    const calm = Array.from({ length: 16 }, (_, i) => visit(i, 6 + (i % 3)))
    expect(trendWatch(DEFAULTS, calm, 'dark')!.points.some((p) => p.out)).toBe(false)
    const worse = [...calm.slice(0, 8), ...calm.slice(8).map((v) => ({ ...v, dark: { chin: 30 } }))]
    const trend = trendWatch(DEFAULTS, worse, 'dark')!
    expect(trend.points.at(-1)!.out).toBe(true)
    expect(trend.words).toMatch(/^Dark marks have risen/)
    expect(trendWatch(DEFAULTS, calm, 'blackhead')).toBeUndefined()
  })
})
