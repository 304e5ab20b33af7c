/** Strokes that services share. Common practice. */
import { schoolWords } from '../house/index.ts'
import { schoolSays, type Say, type StrokeWish, type Wanted } from './service.ts'

/** Fuzz: once, the way of the school; "fixed" is down and toward the middle whatever the growth. */
export function fuzzStrokes({ schools, careful }: StrokeWish, say: Say): Wanted[] {
  say('Fuzz is gone over once, never twice.')
  say(schoolSays(schoolWords('fuzzDirection', schools.fuzzDirection)))
  return [schools.fuzzDirection !== 'down-to-centre' || careful ? 'with' : 'fixed']
}

/** A large, plain surface: with the grain, and once more where the skin allows. */
export function bodyStrokes(wish: StrokeWish, say: Say, second: 'across' | 'against'): Wanted[] {
  if (wish.tool === 'cartridge') {
    say('A multi-blade cartridge goes across only, in short strokes.')
    return ['across']
  }
  if (wish.bumpProne || wish.style === 'gentlest' || wish.careful) {
    say('A single edge with the grain only: bumps and ingrown hairs are fewest so.')
    return ['with']
  }
  say(`A single edge goes with the grain first, then ${second}.`)
  return ['with', second]
}
