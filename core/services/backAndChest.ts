import { constant, PRICE } from '../house/index.ts'
import { cleanse, gel, warmRinse, ROUTINE_CONSTANTS as R } from './routine.ts'
import { whole, type Service } from './service.ts'
import { bodyRows, bodySets } from './strokes.ts'

/** A wet shave of the trunk: what the client cannot see themselves is felt and looked over before the gel hides it. */
export const backAndChest = {
  id: 'back-and-chest',
  name: 'Back and chest shave',
  short: 'back',
  family: 'razor',
  ground: 'body',
  posture: 'lying',
  station: 'bed',
  slotMin: constant(50, 'min', 'Slot for a back and chest shave (40–60)', 'H'),
  price: constant(75, PRICE, 'Price of: back and chest shave', 'H'),
  zones: whole('shoulder', 'chest', 'belly', 'back-upper', 'back-lower'),
  prepare: (wish) => [
    cleanse(wish),
    {
      id: 'prepare:spots',
      title: 'Feel and look for moles',
      text: 'Flat hand and side light over back, shoulders and chest: nobody sees their own back. Mark each mole and scab; one that has changed stops the work there.',
      minutes: wish.figures(R.cleanseMin),
    },
    warmRinse(wish),
    gel(wish),
  ],
  lather: true,
  secondLook:
    'By hand: a flat palm down the back and over the shoulders, against the grain. A mirror held up shows nothing of it. Take missed patches with the grain.',
  cools: 'compress',
  towels: 2,
  blades: ['safety', 'cartridge'],
  sets: bodySets,
  sequences: (wish, say) => bodyRows(wish, say, 'across'),
  order: 'fewest-changes',
  views: [],
  hair: { words: 'Back and chest hair', shownMm: 3, lineMm: 12 },
  asking: {
    'widespread-acne': { text: 'Inflamed follicles: mark each; they are left out.' },
    flare: { text: 'Mark the patches; with the grain only, nothing scented.' },
    injections: {
      severity: 'note',
      text: 'In the face it does not matter to back and chest.',
      moot: true,
    },
    'hormonal-growth': { text: 'Fine to shave; ask about bumps.' },
    worn: { text: 'Chains, piercings and plasters off; a monitor or pump is worked round.' },
    'first-ever': {
      severity: 'take-care',
      text: 'Feel the whole back by hand for moles and scabs before the gel goes on.',
    },
  },
  underMakeUp: false,
} as const satisfies Service
