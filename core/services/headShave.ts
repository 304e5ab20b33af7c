import { constant, PRICE } from '../house/index.ts'
import {
  cleanseForShave,
  hotTowel,
  looseningSteps,
  lather,
  secondTowel,
  TOWEL_COUNTS,
} from './routine.ts'
import { part, whole, type Service } from './service.ts'

/** A wet shave of the scalp: one pass across, with one razor, from the top to the nape. */
export const headShave = {
  id: 'head-shave',
  name: 'Hot-towel head shave',
  short: 'head',
  family: 'razor',
  ground: 'head',
  posture: 'upright',
  station: 'chair',
  slotMin: constant(30, 'min', 'Slot for a hot-towel head shave, at most', 'C'),
  price: constant(42, PRICE, 'Price of: hot-towel head shave', 'H'),
  zones: {
    ...whole('scalp-front', 'scalp-mid', 'scalp-crown', 'scalp-side', 'scalp-behind-ear'),
    ...whole('occiput'),
    nape: part(0.6, 'top'),
    'nape-centre': part(0.6, 'top'),
  },
  prepare: (wish) => [
    cleanseForShave(wish),
    ...looseningSteps(wish),
    hotTowel(wish, 'First hot towel'),
    secondTowel(wish),
    lather(wish),
  ],
  lather: true,
  secondLook: 'Feel with a finger and a drop of oil. Take missed patches with the grain.',
  cools: 'towel',
  towels: TOWEL_COUNTS.headTowels,
  blades: ['shavette', 'safety', 'single-edge'],
  // One razor for the whole head: a wider one for a hollow is not worth laying this one down.
  sets: () => [
    { ids: ['shavette'], why: '' },
    {
      ids: ['safety'],
      why: 'The razor whose head holds the angle: kinder, and not quite so close.',
    },
  ],
  changesByFeel: true,
  sequences: (wish, say) => {
    if (wish.careful || wish.bumpProne) {
      say('With the grain: the gentlest stroke for this skin.')
      return [['with']]
    }
    say('A head shave takes one pass: across, or with the grain where the skin wants it gentler.')
    if (wish.thin) {
      say('Thin hair on skin that takes it: it may be gone over once more, against the grain.')
      return [['with'], ['across'], ['across', 'against']]
    }
    return [['with'], ['across']]
  },
  // The top first, the nape last, where the lather keeps longest.
  order: [
    ['scalp-front', 'scalp-mid'],
    ['scalp-side', 'scalp-behind-ear', 'scalp-crown', 'occiput'],
    ['nape', 'nape-centre'],
  ],
  views: ['crown', 'left', 'right', 'nape'],
  hair: { words: 'Scalp hair', shownMm: 3, lineMm: 12 },
  asking: {
    injections: {
      severity: 'take-care',
      text: 'Forehead and temples: no pressing, no stretching there.',
    },
    worn: { text: 'Hearing aids and earrings out.' },
    'first-ever': {
      severity: 'take-care',
      text: 'Feel the whole scalp by hand for moles, scabs and scars before the lather goes on.',
    },
  },
  underMakeUp: false,
} as const satisfies Service
