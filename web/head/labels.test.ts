import fc from 'fast-check'
import type { PlacedLabel } from './labels.ts'
import { spreadLabels } from './labels.ts'

const label = (id: string, x: number, y: number, text = '+1.5'): PlacedLabel => ({ id, x, y, text })

describe('labels over the head', () => {
  it('stay where they are when nothing covers them', () => {
    const far = [label('chin', 100, 300), label('lip', 100, 280), label('cheek', 40, 300)]
    expect(spreadLabels(far)).toEqual(expect.arrayContaining(far))
  })

  it('move down by no more than it takes', () => {
    expect(spreadLabels([label('chin', 100, 306), label('under the lip', 102, 298)])).toEqual([
      label('under the lip', 102, 298),
      label('chin', 100, 316),
    ])
  })

  it('never cover each other, and none is lost', () => {
    const any = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 200 }),
        y: fc.integer({ min: 0, max: 120 }),
        text: fc.constantFrom('–1', '+0.5', '+12°'),
      }),
      { maxLength: 25 },
    )
    fc.assert(
      fc.property(any, (list) => {
        const given = list.map((l, i) => ({ ...l, id: String(i) }))
        const placed = spreadLabels(given)
        expect(placed.map((p) => p.id).sort()).toEqual(given.map((g) => g.id).sort())
        for (const p of placed) {
          expect(p.y).toBeGreaterThanOrEqual(given.find((g) => g.id === p.id)!.y)
          for (const q of placed) {
            const wide = ((p.text.length + q.text.length) * 9) / 2
            const clear = p === q || Math.abs(p.x - q.x) >= wide || Math.abs(p.y - q.y) >= 18 - 1e-9
            expect(clear).toBe(true)
          }
        }
      }),
    )
  })
})
