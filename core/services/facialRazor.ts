import { constant, PRICE } from '../house/index.ts'
import { LIP_BETWEEN } from './between.ts'
import { cleanse, fuzzSurface } from './routine.ts'
import { byWish, part, whole, type Service } from './service.ts'
import { fuzzRows } from './strokes.ts'

/** Fuzz off the face with a guarded edge. */
export const facialRazor = {
  id: 'facial-razor',
  name: 'Guarded facial razor',
  short: 'facial',
  family: 'fuzz',
  ground: 'head',
  posture: 'reclined',
  station: 'bed',
  slotMin: constant(15, 'min', 'Slot for a guarded facial razor (3–15)', 'C'),
  price: constant(25, PRICE, 'Price of: guarded facial razor', 'H'),
  zones: {
    ...whole('forehead', 'forehead-centre', 'glabella', 'cheek-upper', 'cheek-lower'),
    ...whole('upper-lip', 'mouth-corner', 'chin', 'jaw'),
    // The nose, the skin under the eye (guarded, outward only), the temple, and a neck that fades out: by wish.
    temple: byWish(part(0.7, 'front')),
    'nose-bridge': byWish(whole('nose-bridge')['nose-bridge']),
    'nose-side': byWish(whole('nose-side')['nose-side']),
    'nose-tip': byWish(whole('nose-tip')['nose-tip']),
    'under-eye': byWish(part(0.6, 'bottom')),
    'under-chin': byWish(whole('under-chin')['under-chin']),
    'under-chin-centre': byWish(whole('under-chin-centre')['under-chin-centre']),
    'neck-upper': byWish(part(0.5, 'top')),
    'neck-upper-centre': byWish(part(0.5, 'top')),
  },
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
