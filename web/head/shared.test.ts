import fc from 'fast-check'
import { viewAxes, type Vec3 } from '../../core/head/index.ts'
import { faces, toPixels, viewScale } from './shared.ts'

const SIZE = { width: 600, height: 700 }
const degrees = fc.integer({ min: -180, max: 180 })
const tilt = fc.integer({ min: -88, max: 88 })
const part = fc.double({ min: -120, max: 120, noNaN: true })

describe('the head on the screen', () => {
  it('fits whole, however the window is shaped, and grows with the zoom', () => {
    expect(viewScale({ width: 2000, height: 352 }, 1)).toBeCloseTo(1, 9)
    expect(viewScale({ width: 250, height: 2000 }, 1)).toBeCloseTo(1, 9)
    expect(viewScale(SIZE, 3)).toBeCloseTo(3 * viewScale(SIZE, 1), 9)
  })

  it('has up upward and the client’s left on the right hand, seen from in front', () => {
    const at = (p: Vec3) => toPixels(viewAxes(0, 0), SIZE, 2, p)
    const origin = at([0, 0, 0])
    expect(origin.x).toBeCloseTo(SIZE.width / 2, 9)
    expect(at([10, 0, 0])).toEqual({ x: origin.x + 20, y: origin.y })
    expect(at([0, 10, 0])).toEqual({ x: origin.x, y: origin.y - 20 })
  })

  it('keeps distances across the line of sight, and shows none along it, whichever way it is turned', () => {
    fc.assert(
      fc.property(degrees, tilt, part, part, part, (yaw, pitch, a, b, deep) => {
        const axes = viewAxes(yaw, pitch)
        const p = axes.right.map((c, k) => a * c + b * axes.up[k]! + deep * axes.toward[k]!)
        const from = toPixels(axes, SIZE, 1.5, [0, 0, 0])
        const to = toPixels(axes, SIZE, 1.5, p as unknown as Vec3)
        expect(to.x - from.x).toBeCloseTo(1.5 * a, 4)
        expect(from.y - to.y).toBeCloseTo(1.5 * b, 4)
      }),
    )
  })

  it('shows what faces the viewer, never both sides of a thing', () => {
    fc.assert(
      fc.property(degrees, tilt, degrees, tilt, (yaw, pitch, yaw2, pitch2) => {
        const axes = viewAxes(yaw, pitch)
        const normal = viewAxes(yaw2, pitch2).toward
        const back = normal.map((c) => -c) as unknown as Vec3
        expect(faces(axes, normal) && faces(axes, back)).toBe(false)
        expect(faces(axes, axes.toward)).toBe(true)
      }),
    )
  })

  it('leaves out what is seen edge on', () => {
    const front = viewAxes(0, 0)
    expect(faces(front, [1, 0, 0])).toBe(false)
    expect(faces(front, [0.995, 0, 0.1])).toBe(false)
    expect(faces(front, [0.99, 0, 0.14])).toBe(true)
  })
})
