import { constant, PRICE, schoolWords } from '../house/index.ts'
import { LINE_BETWEEN } from './between.ts'
import { cleanse, ROUTINE_CONSTANTS as R } from './routine.ts'
import { schoolSays, whole, type Service } from './service.ts'

/** The borders of a kept beard: a band along the drawn lines, trimmer and razor. */
export const beardLine = {
  id: 'beard-line',
  name: 'Beard line-up',
  short: 'line-up',
  family: 'razor',
  ground: 'head',
  posture: 'upright',
  station: 'chair',
  slotMin: constant(20, 'min', 'Slot for a beard line-up', 'H'),
  price: constant(22, PRICE, 'Price of: beard line-up', 'H'),
  zones: whole(
    'cheek-upper',
    'cheek-lower',
    'sideburn',
    'temple',
    'upper-lip',
    'mouth-corner',
    'under-lip',
    'jaw',
    'under-chin',
    'under-chin-centre',
    'neck-upper',
    'neck-upper-centre',
    'neck-lower',
    'neck-lower-centre',
  ),
  alongLines: {
    cheek: ['cheek-upper', 'cheek-lower', 'jaw'],
    neck: [
      'under-chin',
      'under-chin-centre',
      'neck-upper',
      'neck-upper-centre',
      'neck-lower',
      'neck-lower-centre',
    ],
    sideburn: ['sideburn', 'temple', 'cheek-upper'],
    moustache: ['upper-lip', 'mouth-corner', 'under-lip'],
  },
  prepare: (wish) => [
    cleanse(wish),
    {
      id: 'prepare:comb',
      title: 'Comb and compare',
      text: 'Beard combed down. From the front: which side has more to do? It is lined first; the other is matched to it.',
      minutes: wish.figures(R.combMin),
    },
    {
      id: 'prepare:prime',
      title: 'Prime the lines',
      text: `Oil, then clear gel, so that the line stays in sight${wish.plain}.`,
      minutes: wish.figures(R.primeMin),
    },
  ],
  lather: false,
  secondLook: 'From the front and from both sides: the lines alike, nothing ragged.',
  cools: 'compress',
  towels: 1,
  blades: ['shavette', 'safety'],
  first: { id: 'trimmer', when: (schools) => schools.lineTool === 'trimmer-first' },
  sets: () => [{ ids: ['shavette'], why: '' }],
  sequences: (wish, say) => {
    if (!wish.toolBefore) {
      say('The razor on the line goes with the grain.')
      return [['with']]
    }
    say(schoolSays(schoolWords('lineTool', wish.schools.lineTool)))
    say('The trimmer may go against the grain; the razor on the line goes with it.')
    return [[wish.careful || wish.bumpProne ? 'with' : 'against', 'with']]
  },
  withOnly: true,
  order: 'heavier-side',
  views: ['front', 'left', 'right', 'underChin'],
  hair: { words: 'Beard', shownMm: 3, lineMm: 12 },
  asking: {
    acids: { severity: 'take-care', text: 'Only the lines are shaved: light strokes.' },
  },
  underMakeUp: true,
  between: LINE_BETWEEN,
} as const satisfies Service
