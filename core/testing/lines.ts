/** The usual lines on the built head, for tests. */
import { makeSurface, type Surface } from '../head/index.ts'
import { placeOn, usualLine, type KeepLine, type LineKind, type Place } from '../lines/index.ts'
import { HEAD } from './head.ts'

let surface: Surface | undefined
/** The surface of the display mesh, made once. */
export const surfaceOf = (): Surface => (surface ??= makeSurface(HEAD.display))
export const place: Place = (near) => placeOn(surfaceOf())(near)

/** A usual line, named by its kind and side. */
export const usual = (kind: LineKind, side: 'left' | 'right'): KeepLine => ({
  ...usualLine(kind, side, place),
  id: `${kind}-${side}`,
  drawnAtMs: 0,
})

/** The lines of a kept beard on both sides. */
export const BEARD_LINES: readonly KeepLine[] = (['cheek', 'neck'] as const).flatMap((kind) =>
  (['left', 'right'] as const).map((side) => usual(kind, side)),
)

/** The edges of a moustache that ends 4 mm higher than the usual one, which leaves no skin of the lip to be worked. */
export const HIGH_MOUSTACHE: readonly KeepLine[] = (['left', 'right'] as const).map((side) => ({
  ...usualLine('moustache', side, ([x, y, z]) => place([x, y + 4, z])),
  ...{ id: `moustache-${side}`, drawnAtMs: 0 },
}))

/** Both edges of both brows. */
export const BROW_LINES: readonly KeepLine[] = (['brow', 'brow-under'] as const).flatMap((kind) =>
  (['left', 'right'] as const).map((side) => usual(kind, side)),
)
