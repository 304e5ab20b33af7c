import { constant, PRICE, schoolWords } from '../house/index.ts'
import { cleanseForShave, hotTowel, looseningSteps, lather, TOWEL_COUNTS } from './routine.ts'
import { part, schoolSays, whole, type Service, type StrokeWish, type Wanted } from './service.ts'

/** A wet shave of the beard, by the house's school. */
export const faceShave = {
  id: 'face-shave',
  name: 'Hot-towel face shave',
  short: 'face',
  family: 'razor',
  ground: 'head',
  posture: 'reclined',
  station: 'chair',
  slotMin: constant(45, 'min', 'Slot for a hot-towel face shave (30–45)', 'H'),
  price: constant(38, PRICE, 'Price of: hot-towel face shave', 'H'),
  zones: {
    'cheek-upper': part(0.35, 'bottom'),
    ...whole('cheek-lower', 'jaw', 'chin', 'under-lip', 'upper-lip', 'mouth-corner'),
    ...whole('under-chin', 'under-chin-centre'),
    'neck-upper': part(0.7, 'front'),
    ...whole('neck-upper-centre'),
    'neck-lower': part(0.2, 'top'),
    'neck-lower-centre': part(0.4, 'top'),
  },
  keeps: {
    stems: ['sideburn'],
    why: 'Kept: the sideburn stays unless it is asked for; shaved temples look odd.',
  },
  prepare: (wish) => [
    cleanseForShave(wish),
    ...looseningSteps(wish),
    hotTowel(wish, 'Hot towel'),
    lather(wish),
  ],
  lather: true,
  secondLook: 'Feel with a finger and a drop of oil. Take missed patches with the grain.',
  cools: 'towel',
  towels: TOWEL_COUNTS.faceTowels,
  blades: ['shavette', 'safety'],
  sets: () => [
    { ids: ['shavette'], why: '' },
    {
      ids: ['safety'],
      why: 'The razor whose head holds the angle: kinder, and not quite so close.',
    },
  ],
  clippersSchool: true,
  sequences: beardRows,
  order: 'school',
  views: ['front', 'left', 'right', 'underChin'],
  hair: { words: 'Beard', shownMm: 3, lineMm: 12 },
  asking: {},
  underMakeUp: true,
} as const satisfies Service

function beardRows(wish: StrokeWish, say: (text: string) => void): Wanted[][] {
  const { schools } = wish
  if (wish.bumpProne) {
    say(`Bump-prone: ${schoolWords('bumpProneShave', schools.bumpProneShave).toLowerCase()}.`)
    if (wish.curlTight) say('Tightly curled hair turns back into the skin: never against it.')
    return [['with']]
  }
  say(schoolSays(schoolWords('beardPasses', schools.beardPasses)))
  switch (schools.beardPasses) {
    case 'one-across':
      return [['with'], ['across']]
    case 'with-only':
      return [['with']]
    case 'with-against':
      return [['with'], ['with', 'against']]
    case 'with-across':
      return [['with'], ['with', 'across'], ['with', 'across', 'against']]
    case 'free':
      return [
        ['with'],
        ['across'],
        ['with', 'across'],
        ['with', 'against'],
        ['with', 'across', 'against'],
      ]
  }
}
