import { constant, PRICE } from '../house/index.ts'
import { cleanse, ROUTINE_CONSTANTS as R } from './routine.ts'
import { part, whole, type Service } from './service.ts'
import { fuzzRows } from './strokes.ts'

/** Strays round the brows. */
export const browTidy = {
  id: 'brow-tidy',
  name: 'Brow tidy',
  short: 'brows',
  family: 'fuzz',
  ground: 'head',
  posture: 'reclined',
  station: 'chair',
  slotMin: constant(10, 'min', 'Slot for tidying round the brows', 'H'),
  price: constant(15, PRICE, 'Price of: brow tidy', 'H'),
  zones: {
    ...whole('glabella', 'brow'),
    forehead: part(0.18, 'bottom'),
  },
  edges: ['brow', 'brow-under'],
  tools: ['tweezers', 'scissors'],
  prepare: (wish) => [
    cleanse(wish),
    {
      id: 'prepare:brush',
      title: 'Brush and trim',
      text: 'Brush the brow up; scissors for what stands over. Eyes closed, a finger over what stays.',
      minutes: wish.figures(R.combMin),
    },
  ],
  lather: false,
  secondLook: 'From the front: both brows alike. Less is more.',
  cools: 'nothing',
  towels: 0,
  blades: ['brow-razor'],
  sequences: fuzzRows,
  order: 'school',
  views: ['front', 'left', 'right'],
  hair: { words: 'Hair round the brows', shownMm: 2, lineMm: 6 },
  asking: {
    'widespread-acne': {
      severity: 'take-care',
      text: 'Mark each active spot; its zone is left out.',
    },
    flare: { severity: 'take-care', text: 'Mark the patches to leave out.' },
    acids: { severity: 'take-care', text: 'Only round the brows: light strokes.' },
    'hormonal-growth': { text: 'No matter for the brows.', moot: true },
    strays: { text: 'Part of the work: tweezed first.' },
    worn: {
      severity: 'take-care',
      text: 'Lash extensions shielded, lenses out, eyes closed.',
    },
    'first-ever': { severity: 'note', text: 'Little first; more the next time.' },
  },
  underMakeUp: true,
} as const satisfies Service
