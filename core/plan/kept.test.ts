/** Hair that is kept: what a service leaves alone unless it is asked for, and that it says so. */
import { DomainError } from '../errors.ts'
import { BEARD_LINES, BROW_LINES, HIGH_MOUSTACHE, usual } from '../testing/lines.ts'
import { planInput, type PlanCase } from '../testing/plan.ts'
import { zoneStem } from '../zones/index.ts'
import { makePlan } from './makePlan.ts'

const lineUp = (c: PlanCase) => makePlan(planInput({ service: 'beard-line', ...c }))

describe('a line-up', () => {
  it('works only zones that its lines border; temples, sideburns and lips stay, and that is said', () => {
    const p = lineUp({ keepLines: BEARD_LINES })
    const stems = new Set(p.zones.map((z) => zoneStem(z.zoneId)))
    for (const kept of ['temple', 'sideburn', 'upper-lip', 'mouth-corner', 'under-lip'] as const)
      expect(stems.has(kept)).toBe(false)
    expect(stems.has('cheek-lower')).toBe(true)
    expect(stems.has('neck-upper')).toBe(true)
    const said = p.leftOut.filter((l) => l.reason.startsWith('Stays: no line of its own'))
    expect(new Set(said.map((l) => zoneStem(l.zoneId)))).toContain('sideburn')
  })

  it('works them once their own line is drawn', () => {
    const sideburn = usual('sideburn', 'left')
    const p = lineUp({ keepLines: [...BEARD_LINES, sideburn] })
    expect(p.zones.some((z) => zoneStem(z.zoneId) === 'cheek-upper')).toBe(true)
    expect(p.leftOut.some((l) => l.reason.startsWith('Stays') && l.zoneId === 'temple-left')).toBe(
      false,
    )
    const lips = lineUp({
      keepLines: [...BEARD_LINES, ...HIGH_MOUSTACHE],
    })
    expect(lips.zones.some((z) => z.zoneId === 'upper-lip-left')).toBe(true)
  })
})

describe('a brow tidy', () => {
  const brows = (keepLines: typeof BROW_LINES) =>
    makePlan(planInput({ service: 'brow-tidy', skin: { faceHair: 'fuzz' }, keepLines }))

  it('is not planned before all four edges are drawn, and says which are missing', () => {
    for (const drawn of [[], BROW_LINES.slice(0, 3)]) {
      let said = ''
      try {
        brows(drawn)
      } catch (error) {
        expect(error).toBeInstanceOf(DomainError)
        expect((error as DomainError).code).toBe('no-lines')
        said = (error as Error).message
      }
      expect(said).toContain(
        drawn.length === 0
          ? 'the upper and the lower edge of both'
          : 'draw brow’s lower edge (client’s right) at Read',
      )
    }
  })

  it('keeps the brows themselves, works beside them, and lays out tweezers and scissors', () => {
    const p = brows(BROW_LINES)
    expect(p.zones.some((z) => zoneStem(z.zoneId) === 'brow')).toBe(false)
    expect(p.zones.map((z) => z.zoneId)).toContain('glabella')
    expect(p.leftOut.filter((l) => zoneStem(l.zoneId) === 'brow')).toHaveLength(2)
    expect(p.kit.map((k) => k.name)).toEqual(expect.arrayContaining(['tweezers', 'scissors']))
  })
})

describe('a face shave', () => {
  it('keeps the sideburns and says so; its usual lines never take a jaw or a lip away', () => {
    const p = makePlan(planInput())
    expect(p.zones.some((z) => zoneStem(z.zoneId) === 'sideburn')).toBe(false)
    expect(p.leftOut.filter((l) => zoneStem(l.zoneId) === 'sideburn')).toHaveLength(2)
    const lines = (['left', 'right'] as const).map((side) => usual('sideburn', side))
    const kept = makePlan(planInput({ keepLines: lines }))
    const worked = (q: typeof p) => q.zones.map((z) => z.zoneId).sort()
    expect(worked(kept)).toEqual(worked(p))
    for (const z of kept.zones) {
      const before = p.zones.find((o) => o.zoneId === z.zoneId)!
      expect(z.areaCm2).toBeGreaterThan(0.97 * before.areaCm2)
    }
  })
})
