/** Steps that services share, and their times. Common practice; times are house estimates. */
import { constant, warmthWords, type Figures, type Schools } from '../house/index.ts'
import { capital, listWords } from '../words.ts'
import { areaOf, zoneInWords, zoneStem } from '../zones/index.ts'
import type { Film, RoutineStep, RoutineWish } from './service.ts'

export const ROUTINE_CONSTANTS = {
  cleanseMin: constant(2, 'min', 'Cleanse and look', 'H'),
  towelMin: constant(4, 'min', 'Hot towel', 'H'),
  secondTowelMin: constant(2, 'min', 'Second hot towel on a head, a little warmer', 'H'),
  latherMin: constant(2, 'min', 'Oil and lather', 'H'),
  latherLastsMin: constant(6, 'min', 'Lather lasts', 'H'),
  reLatherMin: constant(1, 'min', 'Re-lather for another pass', 'H'),
  reLatherPartSeconds: constant(20, 's', 'Re-lather halfway on what is not yet done', 'H'),
  tweezeMin: constant(0.5, 'min', 'Tweeze one stray', 'H'),
  feelMin: constant(0.2, 'min', 'Feel which way the hair of an unread zone grows', 'H'),
  clipperOverMm: constant(
    6,
    'mm',
    'Longer hair is clipped first: it clogs a blade and is pulled',
    'H',
  ),
  clipMin: constant(1.5, 'min', 'Clippers, to take them up and brush off', 'H'),
  clipPer100Min: constant(1, 'min', 'Clippers over 100 cm²', 'H'),
  dryMin: constant(2, 'min', 'De-oil and dry', 'H'),
  combMin: constant(1.5, 'min', 'Comb down, look at both sides from the front', 'H'),
  primeMin: constant(1, 'min', 'Pre-shave oil and clear gel along the lines', 'H'),
  exfoliateMin: constant(2, 'min', 'Rinse warm and loosen tips', 'H'),
  scrubMin: constant(2, 'min', 'Scrub or acid just before the blade', 'H'),
  thirdTowelMin: constant(1.5, 'min', 'Third towel on the face or head, cooler', 'H'),
  checkMin: constant(2, 'min', 'Feel for missed patches', 'H'),
  coldTowelMin: constant(2, 'min', 'Cold towel', 'H'),
  sootheMin: constant(2, 'min', 'Balm or soothing gel', 'H'),
  towelAtMostC: constant(
    45,
    '°C',
    'A towel is laid at or below this, after asking the client',
    'H',
  ),
} as const

export const TOWEL_COUNTS = {
  headTowels: constant(3, 'towels', 'Towels for a head, one of them kept back', 'C'),
  faceTowels: constant(2, 'towels', 'Towels for a face, one of them kept back', 'H'),
} as const

const R = ROUTINE_CONSTANTS

/** What loosens the skin before a shave, by the house's school; nothing on sensitive skin. */
export function looseningSteps({ figures, plain, schools, sensitive }: RoutineWish): RoutineStep[] {
  if (schools.exfoliateBefore !== 'scrub' || sensitive) return []
  return [
    {
      id: 'prepare:scrub',
      title: 'Scrub or mild acid',
      text: `Just before the blade, softly, rinsed off${plain}. Not over what is red or marked.`,
      minutes: figures(R.scrubMin),
    },
  ]
}

const loosens = ({ schools, sensitive }: RoutineWish) =>
  schools.exfoliateBefore === 'lightly' && !sensitive
    ? ' Loosen tips lightly with a soft cloth.'
    : ''

/** Hands, gloves, a fresh blade, clean skin; before a shave tips are loosened with it. */
export const cleanseForShave = (wish: RoutineWish): RoutineStep => {
  const step = cleanse(wish)
  return { ...step, text: `${step.text}${loosens(wish)}` }
}

/** Hands, gloves, a fresh blade, clean skin. */
export const cleanse = ({ figures, plain }: RoutineWish): RoutineStep => ({
  id: 'prepare:cleanse',
  title: 'Hands, gloves, cleanse',
  text: `Fresh blade laid out. Cleanse and look once more in side light${plain}.`,
  minutes: figures(R.cleanseMin),
})

const cooled = (figures: Figures) =>
  `Cool it first, at most ${warmthWords(figures(R.towelAtMostC), 'C')} (${warmthWords(figures(R.towelAtMostC), 'F')}), and ask the client before it is laid.`

/** The first hot towel. */
export const hotTowel = ({ figures }: RoutineWish, title: string): RoutineStep => ({
  id: 'prepare:towel',
  title,
  text: `${cooled(figures)} Keep one back for the end.`,
  minutes: figures(R.towelMin),
  lays: 'towel',
})

/** A second one, a little warmer. */
export const secondTowel = ({ figures }: RoutineWish): RoutineStep => ({
  id: 'prepare:towel-2',
  title: 'Second hot towel',
  text: `A little warmer. ${cooled(figures)}`,
  minutes: figures(R.secondTowelMin),
  lays: 'towel',
})

/** Oil and lather. */
export const lather = ({ figures, plain }: RoutineWish): RoutineStep => ({
  id: 'prepare:lather',
  title: 'Oil and lather',
  text: `Work it in against the growth${plain}.`,
  minutes: figures(R.latherMin),
  lays: 'lather',
})

/** Warmth and a soft cloth before a body shave. */
export const warmRinse = ({ figures, plain }: RoutineWish): RoutineStep => ({
  id: 'prepare:rinse',
  title: 'Warm rinse',
  text: `A few minutes of warmth soften hair. Loosen tips with a soft cloth${plain}.`,
  minutes: figures(R.exfoliateMin),
})

/** Gel or lather on a large, plain surface. */
export const gel = (wish: RoutineWish): RoutineStep => ({
  ...lather(wish),
  title: 'Gel or lather',
  text: `No air gaps${wish.plain}.`,
})

const SLIP = {
  dry: ['De-oil and dry', 'Skin dry and free of oil; dust nothing on.'],
  film: ['Thin film of gel', 'No air gaps. Let it soak in before the first stroke.'],
  lotion: ['Thin film of lotion', 'No air gaps. Let it soak in before the first stroke.'],
  oil: ['Oil or jelly', 'A thin coat, soaked in: the blade may slip.'],
  damp: ['Damp skin', 'Damp, not wet.'],
} as const

export const FILM_CONSTANTS = {
  gelMin: constant(5, 'min', 'A film of gel stays wet', 'H'),
  lotionMin: constant(7, 'min', 'A film of lotion stays wet', 'H'),
  oilMin: constant(20, 'min', 'Oil or jelly stays', 'H'),
  dampMin: constant(2, 'min', 'Damp skin stays damp', 'H'),
  gelSoakMin: constant(0.5, 'min', 'Gel soaks in before the first stroke', 'H'),
  lotionSoakMin: constant(1, 'min', 'Lotion soaks in', 'H'),
  oilSoakMin: constant(1, 'min', 'Oil soaks in', 'H'),
  rewetSeconds: constant(15, 's', 'Wet again what is not yet done', 'H'),
  brushMin: constant(0.5, 'min', 'Brush or rinse off what fuzz left', 'H'),
} as const
const F = FILM_CONSTANTS

const FILMS = {
  film: { name: 'gel', lasts: F.gelMin, soak: F.gelSoakMin },
  lotion: { name: 'lotion', lasts: F.lotionMin, soak: F.lotionSoakMin },
  oil: { name: 'oil', lasts: F.oilMin, soak: F.oilSoakMin },
  damp: { name: 'damp skin', lasts: F.dampMin, soak: undefined },
} as const

/** What lies under the blade when fuzz is taken off; nothing on dry skin. */
export function fuzzFilm(
  figures: Figures,
  { fuzzSlip }: Pick<Schools, 'fuzzSlip'>,
): Film | undefined {
  if (fuzzSlip === 'dry') return undefined
  const { name, lasts } = FILMS[fuzzSlip]
  return { name, lastsMin: figures(lasts) }
}

/** Minutes that a film soaks in before the first stroke. */
const soaks = (figures: Figures, slip: Schools['fuzzSlip']): number => {
  const soak = slip === 'dry' ? undefined : FILMS[slip].soak
  return soak ? figures(soak) : 0
}

/** More zones than this are told by their areas. */
const NAMED = 4

/** The surface where zones differ in it: what lies where, the longest soak, and a clock of its own for each. */
function mixedSurface(figures: Figures, slips: NonNullable<RoutineWish['slips']>): RoutineStep {
  const kinds = [...new Set(slips.map((s) => s.slip))]
  const films = Object.fromEntries(
    slips.map((s) => [s.zoneId, fuzzFilm(figures, { fuzzSlip: s.slip }) ?? null]),
  )
  const wet = Object.values(films).filter((f) => f !== null)
  const shortest = wet.reduce<Film | undefined>(
    (a, b) => (a && a.lastsMin <= b.lastsMin ? a : b),
    undefined,
  )
  const where = kinds.flatMap((kind) => {
    if (kind === 'dry') return []
    const own = slips.filter((s) => s.slip === kind).map((s) => s.zoneId)
    const names =
      own.length > NAMED ? own.map((z) => areaOf(zoneStem(z)).name) : own.map(zoneInWords)
    return [`${FILMS[kind].name} on ${listWords([...new Set(names)])}`]
  })
  if (kinds.includes('dry')) where.push('the rest dry')
  return {
    ...{ id: 'prepare:surface', title: 'Dry, and film by zone' },
    text: `${capital(where.join('; '))}. Let it soak in before the first stroke.`,
    minutes: figures(R.dryMin) + Math.max(...kinds.map((k) => soaks(figures, k))),
    ...(shortest && { lays: 'lather' as const, film: shortest, films }),
  }
}

/** The surface that fuzz is taken off, by zone or the house's school; strokes wait until a film has soaked in. */
export const fuzzSurface = ({ figures, schools, slips = [] }: RoutineWish): RoutineStep => {
  if (new Set(slips.map((s) => s.slip)).size > 1) return mixedSurface(figures, slips)
  const fuzzSlip = slips[0]?.slip ?? schools.fuzzSlip
  const [title, text] = SLIP[fuzzSlip]
  const film = fuzzFilm(figures, { fuzzSlip })
  return {
    ...{ id: 'prepare:surface', title, text },
    minutes: figures(R.dryMin) + soaks(figures, fuzzSlip),
    ...(film && { lays: 'lather' as const, film }),
  }
}
