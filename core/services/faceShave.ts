import { constant, schoolWords } from '../house/index.ts'
import { cleanse, hotTowel, lather, TOWEL_COUNTS } from './routine.ts'
import { part, schoolSays, whole, type Service, type StrokeWish, type Wanted } from './service.ts'

/** A wet shave of the beard, by the house's school. */
export const faceShave = {
  id: 'face-shave',
  name: 'Hot-towel face shave',
  family: 'razor',
  ground: 'head',
  slotMin: constant(45, 'min', 'Slot for a hot-towel face shave (30–45)', 'H'),
  zones: {
    'cheek-upper': part(0.35, 'bottom'),
    ...whole('cheek-lower', 'jaw', 'chin', 'under-lip', 'upper-lip', 'mouth-corner'),
    ...whole('under-chin', 'under-chin-centre'),
    'neck-upper': part(0.7, 'front'),
    ...whole('neck-upper-centre'),
    'neck-lower': part(0.2, 'top'),
    'neck-lower-centre': part(0.4, 'top'),
  },
  prepare: (wish) => [cleanse(wish), hotTowel(wish, 'Hot towel'), lather(wish)],
  lather: true,
  secondLook: 'Feel with a finger and a drop of oil. Take missed patches with the grain.',
  cools: 'towel',
  towels: TOWEL_COUNTS.faceTowels,
  blades: ['shavette', 'safety'],
  keepTo: ({ style }) =>
    style === 'gentlest'
      ? { ids: ['safety'], why: 'The gentlest plan takes the razor whose head holds the angle.' }
      : { ids: ['shavette'], why: '' },
  clippersSchool: true,
  strokes: beardStrokes,
  order: 'school',
  views: ['front', 'left', 'right', 'underChin'],
  hair: { words: 'Beard, mm', shownMm: 3, lineMm: 12 },
  asking: {},
  underMakeUp: true,
} as const satisfies Service

function beardStrokes(wish: StrokeWish, say: (text: string) => void): Wanted[] {
  const { schools, style } = wish
  if (wish.bumpProne) {
    say(`Bump-prone: ${schoolWords('bumpProneShave', schools.bumpProneShave).toLowerCase()}.`)
    if (wish.curlTight) say('Tightly curled hair turns back into the skin: never against it.')
    return ['with']
  }
  if (style === 'gentlest') {
    say('The gentlest plan goes once, with the grain.')
    return ['with']
  }
  if (style === 'closest') {
    say('The closest plan adds passes so long as this skin bears them.')
    return ['with', 'across', 'against']
  }
  say(schoolSays(schoolWords('beardPasses', schools.beardPasses)))
  switch (schools.beardPasses) {
    case 'one-across':
      return wish.careful ? ['with'] : ['across']
    case 'with-only':
      return ['with']
    case 'with-against':
      return ['with', 'against']
    case 'with-across':
      return ['with', 'across']
  }
}
