import { constant } from '../house/index.ts'
import { LIP_BETWEEN } from './between.ts'
import { cleanse, fuzzSurface } from './routine.ts'
import { whole, type Service } from './service.ts'
import { fuzzRows } from './strokes.ts'

/** Fuzz off the face with a guarded edge. */
export const facialRazor = {
  id: 'facial-razor',
  name: 'Guarded facial razor',
  family: 'fuzz',
  ground: 'head',
  posture: 'reclined',
  slotMin: constant(15, 'min', 'Slot for a guarded facial razor (3–15)', 'C'),
  zones: whole(
    'forehead',
    'forehead-centre',
    'glabella',
    'cheek-upper',
    'cheek-lower',
    'upper-lip',
    'mouth-corner',
    'chin',
    'jaw',
  ),
  prepare: (wish) => [cleanse(wish), fuzzSurface(wish)],
  lather: false,
  secondLook: 'Look in side light. Nothing is gone over twice.',
  cools: 'compress',
  towels: 1,
  blades: ['guarded', 'brow-razor'],
  sequences: fuzzRows,
  order: 'school',
  views: ['front', 'left', 'right', 'underChin'],
  hair: { words: 'Fuzz', shownMm: 2, lineMm: 12 },
  asking: {},
  patchTest: true,
  underMakeUp: true,
  between: LIP_BETWEEN,
} as const satisfies Service
