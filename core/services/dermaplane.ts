import { constant, PRICE } from '../house/index.ts'
import { LIP_BETWEEN } from './between.ts'
import { cleanse, fuzzSurface } from './routine.ts'
import { byWish, part, whole, type Service } from './service.ts'
import { fuzzRows } from './strokes.ts'

/** Fuzz and dead skin off the face with a bare surgical blade. */
export const dermaplane = {
  id: 'dermaplane',
  name: 'Dermaplaning of the face',
  short: 'dermaplane',
  family: 'fuzz',
  ground: 'head',
  posture: 'reclined',
  station: 'bed',
  slotMin: constant(40, 'min', 'Slot for dermaplaning (20–40)', 'H'),
  price: constant(65, PRICE, 'Price of: dermaplaning of the face', 'H'),
  zones: {
    ...whole('forehead', 'forehead-centre'),
    temple: part(0.7, 'front'),
    ...whole('glabella', 'cheek-upper', 'cheek-lower', 'nose-bridge', 'nose-side'),
    ...whole('upper-lip', 'mouth-corner', 'under-lip', 'chin', 'jaw'),
    // The tip of the nose, and a neck that fades out where its hair shows less and less: by wish.
    'nose-tip': byWish(whole('nose-tip')['nose-tip']),
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
  blades: ['surgical-14', 'surgical-10', 'guarded', 'brow-razor'],
  sets: ({ client }) =>
    client.reactivity === 'reactive'
      ? [
          {
            ids: ['guarded', 'brow-razor'],
            why: 'Reactive skin: a guarded edge instead of a bare one.',
          },
        ]
      : [
          { ids: ['surgical-14', 'surgical-10'], why: '' },
          {
            ids: ['guarded', 'brow-razor'],
            why: 'A guarded edge: kinder, and not quite so close.',
          },
        ],
  sequences: fuzzRows,
  order: 'school',
  views: ['front', 'left', 'right', 'underChin'],
  hair: { words: 'Fuzz', shownMm: 2, lineMm: 12 },
  asking: {},
  patchTest: true,
  underMakeUp: true,
  between: LIP_BETWEEN,
} as const satisfies Service
