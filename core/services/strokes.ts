/** Rows of strokes and sets of blades that services share. Common practice. */
import { schoolWords } from '../house/index.ts'
import {
  schoolSays,
  type BladeSet,
  type BladeWish,
  type Say,
  type StrokeWish,
  type Wanted,
} from './service.ts'

/** Fuzz: once, the way of the school; "fixed" is down and toward the middle whatever the growth. */
export function fuzzRows({ schools, careful }: StrokeWish, say: Say): Wanted[][] {
  say('Fuzz is gone over once, never twice.')
  say(schoolSays(schoolWords('fuzzDirection', schools.fuzzDirection)))
  return [[schools.fuzzDirection !== 'down-to-centre' || careful ? 'with' : 'fixed']]
}

/** A large, plain surface: with the grain, and once more where the skin allows. */
export function bodyRows(wish: StrokeWish, say: Say, second: 'across' | 'against'): Wanted[][] {
  if (wish.tool === 'cartridge') {
    say('A multi-blade cartridge goes across only, in short strokes.')
    return [['across']]
  }
  if (wish.bumpProne || wish.careful) {
    say('A single edge with the grain only: bumps and ingrown hairs are fewest so.')
    return [['with']]
  }
  say(`A single edge goes with the grain first, then ${second} where the skin bears it.`)
  return second === 'across'
    ? [['with'], ['with', 'across']]
    : [['with'], ['with', 'across'], ['with', 'against']]
}

/** A single edge; a cartridge too where bumps are no worry. */
export const bodySets = ({ client }: BladeWish): BladeSet[] =>
  client.bumpProne
    ? [{ ids: ['safety'], why: 'Bump-prone: a single edge, not a multi-blade cartridge.' }]
    : [
        { ids: ['safety'], why: '' },
        { ids: ['cartridge'], why: 'A multi-blade cartridge: one pass, across.' },
      ]
