/** Where practitioners disagree: the schools. Each is the house's choice; the default comes first. Common practice. */

export interface SchoolQuestion {
  readonly question: string
  /** Choices by id, the default first. */
  readonly choices: readonly { readonly id: string; readonly text: string }[]
}

const q = <const C extends readonly { id: string; text: string }[]>(
  question: string,
  choices: C,
) => ({
  question,
  choices,
})

export const SCHOOLS = {
  beardPasses: q('Passes on a beard', [
    { id: 'with-across', text: 'With, then across if the skin allows' },
    { id: 'one-across', text: 'One pass across' },
    { id: 'with-against', text: 'With, then against' },
    { id: 'with-only', text: 'With only (bump-prone)' },
    { id: 'free', text: 'Whatever suits the skin, zone by zone' },
  ]),
  fuzzDirection: q('Stroke direction when dermaplaning', [
    { id: 'with-growth', text: 'With the growth' },
    { id: 'down-to-centre', text: 'Down and toward the centre of the face' },
    { id: 'toward-worker', text: 'Toward the worker, standing where that is down the growth' },
  ]),
  fuzzSlip: q('Wet or dry for fuzz', [
    { id: 'dry', text: 'Dry, de-oiled skin (professional)' },
    { id: 'film', text: 'A film of gel' },
    { id: 'lotion', text: 'A film of lotion' },
    { id: 'oil', text: 'Oil or jelly (a blade may slip)' },
    { id: 'damp', text: 'Damp' },
  ]),
  faceOrder: q('Order on the face', [
    { id: 'flat-first', text: 'Flat and easy first, chin and lip last, longest soaked' },
    { id: 'top-down', text: 'Top to bottom' },
    { id: 'most-work-first', text: 'The side that needs most work first (beards)' },
  ]),
  neckStretch: q('Stretch on bump-prone necks', [
    { id: 'light', text: 'Lightly, so that tips are not cut below the surface' },
    { id: 'taut', text: 'Taut everywhere' },
  ]),
  exfoliate: q('Exfoliate the bump-prone', [
    { id: 'acid', text: 'Leave-on acid nightly from the day after until hair shows' },
    { id: 'acid-evening', text: 'The same, from the evening of the shave' },
    { id: 'brush', text: 'Brush or scrub against the grain daily' },
    { id: 'brush-twice', text: 'Brush against the grain twice a day' },
    { id: 'none', text: 'None' },
  ]),
  exfoliateBefore: q('Exfoliate in the same sitting, shave', [
    {
      id: 'lightly',
      text: 'Lightly before the blade, but never within a day of one on sensitive skin',
    },
    { id: 'scrub', text: 'A scrub or acid just before the blade' },
    { id: 'day-before', text: 'A day or two before, at home' },
    { id: 'never', text: 'Never' },
  ]),
  balmOrder: q('Balm and the cold towel', [
    { id: 'cold-balm', text: 'Cold towel, then balm' },
    { id: 'balm-cold', text: 'Balm, then cold towel' },
  ]),
  towels: q('Hot towels', [
    { id: 'usual', text: 'Two, one of them kept back to cool' },
    { id: 'three', text: 'A third, cooler, after the last stroke' },
  ]),
  multiBlade: q('A multi-blade cartridge against the grain', [
    { id: 'never', text: 'Never' },
    { id: 'own-record', text: 'Only where the client’s own record bears it out' },
  ]),
  acidsAfter: q('Acids after dermaplaning', [
    { id: '48', text: 'None for 48 h' },
    { id: '24', text: 'None for 24 h' },
    { id: '0', text: 'Mild at once' },
  ]),
  makeUpAfter: q('Make-up after', [
    { id: '24', text: 'Next day (24 h)' },
    { id: '48', text: '48 h' },
    { id: '4', text: 'A few hours' },
    { id: '0', text: 'At once' },
  ]),
  fuzzInterval: q('How often, fuzz', [
    { id: '4', text: '4 weeks' },
    { id: '2', text: '2 weeks' },
    { id: '6', text: '6 weeks' },
    { id: '8', text: '8 weeks' },
  ]),
  bumpProneShave: q('Shaving a beard prone to bumps', [
    { id: 'leave-a-little', text: 'Leave about a millimetre, single edge, with the grain' },
    { id: 'every-day', text: 'Every day, so that tips never re-enter' },
    { id: 'clippers', text: 'Clippers only until clear' },
  ]),
  isotretinoin: q('Isotretinoin by mouth before fuzz work', [
    { id: '6', text: 'Wait 6 months after the last dose (cautious)' },
    { id: '0', text: 'No wait for superficial work (Spring et al. 2017, from memory)' },
  ]),
  lineTool: q('A trimmed beard’s line', [
    { id: 'trimmer-first', text: 'Trimmer first, razor on the line' },
    { id: 'razor-only', text: 'Razor only' },
  ]),
  lineInSitting: q('A line-up and a shave in one sitting', [
    { id: 'line-last', text: 'The shave first, the razor on the line last' },
    { id: 'line-first', text: 'The line first, while the hair still shows it' },
  ]),
  homeRazor: q('How often a razor at home is used', [
    { id: 'few', text: 'Three or four times; rust or a tug ends it' },
    { id: 'once', text: 'Once' },
    { id: 'many', text: 'Eight to ten times; rust or a tug ends it' },
  ]),
  patchTest: q('Patch test before the first', [
    { id: 'fuzz', text: 'Dermaplaning or facial razor, not a razor shave' },
    { id: 'all', text: 'Of any service with a blade' },
    { id: 'none', text: 'None; go by what was asked' },
  ]),
  firstTry: q('How a first is tried', [
    { id: 'spot', text: 'A patch test on a small spot, read after 24–48 h' },
    {
      id: 'strip',
      text: 'A trial strip with the blade, followed until hair is felt, about a week (cautious)',
    },
  ]),
  titles: q('Messages and calendar entries are titled', [
    { id: 'plain', text: 'By what was done' },
    { id: 'neutral', text: 'Neutrally: nobody who reads a title sees what it is about' },
  ]),
  consent: q('Signed consent', [
    { id: 'first', text: 'Once, and again when the text changes' },
    { id: 'each', text: 'At every visit' },
    { id: 'none', text: 'By word of mouth' },
  ]),
  headBlade: q('Blade change on a head', [
    { id: 'by-feel', text: 'By feel, at latest at half' },
    { id: 'one', text: 'One per service' },
  ]),
} as const satisfies Record<string, SchoolQuestion>

export type SchoolId = keyof typeof SCHOOLS
export type SchoolChoice<S extends SchoolId> = (typeof SCHOOLS)[S]['choices'][number]['id']

/** One choice per question. */
export type Schools = { readonly [S in SchoolId]: SchoolChoice<S> }

export const SCHOOL_IDS = Object.keys(SCHOOLS) as SchoolId[]
export const isSchoolId = (id: string): id is SchoolId => Object.hasOwn(SCHOOLS, id)

/** Every question answered with its default. */
export const DEFAULT_SCHOOLS = Object.fromEntries(
  SCHOOL_IDS.map((id) => [id, SCHOOLS[id].choices[0].id]),
) as Schools

/** The words of a choice. */
export function schoolWords<S extends SchoolId>(id: S, choice: SchoolChoice<S>): string {
  return SCHOOLS[id].choices.find((c) => c.id === choice)!.text
}
