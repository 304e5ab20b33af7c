import { constant, PRICE } from '../house/index.ts'
import { cleanse, gel, warmRinse } from './routine.ts'
import { whole, type Service } from './service.ts'
import { bodyRows, bodySets } from './strokes.ts'

/** A wet shave of arms, underarms and legs. */
export const bodyShave = {
  id: 'body-shave',
  name: 'Body shave',
  short: 'body',
  family: 'razor',
  ground: 'body',
  posture: 'lying',
  station: 'bed',
  slotMin: constant(40, 'min', 'Slot for a body shave (20–40)', 'H'),
  price: constant(60, PRICE, 'Price of: body shave', 'H'),
  zones: whole(
    'underarm',
    'upper-arm',
    'forearm',
    'thigh-front',
    'knee',
    'shin',
    'thigh-back',
    'calf',
  ),
  prepare: (wish) => [cleanse(wish), warmRinse(wish), gel(wish)],
  lather: true,
  secondLook: 'Rinse, feel up the limb. Take missed patches with the grain.',
  cools: 'compress',
  towels: 1,
  blades: ['safety', 'cartridge'],
  sets: bodySets,
  sequences: (wish, say) => bodyRows(wish, say, 'against'),
  order: 'fewest-changes',
  views: [],
  hair: { words: 'Leg and arm hair', shownMm: 3, lineMm: 12 },
  asking: {
    'widespread-acne': { text: 'Inflamed follicles: mark each; they are left out.' },
    flare: {
      text: 'Mark the patches; with the grain only, nothing scented. Underarm flares wait.',
    },
    injections: {
      severity: 'note',
      text: 'In the face it does not matter to arms and legs.',
      moot: true,
    },
    'hormonal-growth': { text: 'Fine to shave; ask about bumps.' },
    worn: { text: 'Watches, rings and plasters off.' },
    'first-ever': { text: 'Start on a small part and look after a day.' },
  },
  underMakeUp: false,
} as const satisfies Service
