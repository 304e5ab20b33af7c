/**
 * Which way of taking hair off suits a place: blade, tweezers, thread, wax, epilator, trimmer, or a laser elsewhere. Slow
 * Tide runs blades and tweezers; the rest is advice. Common practice unless marked.
 */
import { type SkinAndHair, hairIn } from '../client.ts'
import { plannedHair, type HairLayer, type Stray } from '../hair/index.ts'
import { isBody, zoneStem, type ZoneId } from '../zones/index.ts'
import { constant, type Mark, type Figures } from '../house/index.ts'
import { daysToLength, GROWTH_CONSTANTS, type Growth } from '../regrowth/index.ts'
import type { Asked } from './asked.ts'
import { addDays, daysBetween, dayWords, type IsoDate } from '../time/index.ts'

export const ADVICE_CONSTANTS = {
  fewStrays: constant(12, 'hairs', 'Up to so many single hairs are tweezed or threaded', 'H'),
  waxSettlesDays: constant(2, 'days', 'Waxed skin settles for so long before an event', 'H'),
  bladeSettlesDays: constant(1, 'days', 'Shaved skin settles for so long before an event', 'H'),
  epilateMm: constant(2, 'mm', 'An epilator grips hair from this length on', 'H'),
  waxWeeks: constant(5, 'weeks', 'Wax lasts four to six weeks', 'C'),
} as const

/** What is advised of: what a job can be done by, and what is done elsewhere or at home. */
export const ADVISED = [
  'blade',
  'tweezers',
  'thread',
  'wax',
  'epilator',
  'trimmer',
  'laser',
] as const
export type Advised = (typeof ADVISED)[number]

export const ADVISED_WORDS: Readonly<Record<Advised, string>> = {
  blade: 'Blade',
  tweezers: 'Tweezers',
  thread: 'Thread',
  wax: 'Wax',
  epilator: 'Epilator',
  trimmer: 'Trimmer',
  laser: 'Laser (refer)',
}

/** What is said of a method in a place. */
export interface MethodAdvice {
  readonly method: Advised
  readonly says: 'suits' | 'possible' | 'later' | 'not'
  /** Days until it is possible, for `later`. */
  readonly from?: IsoDate
  readonly why: string
  readonly mark: Mark
}

export interface AdviceQuestion {
  readonly zoneId: ZoneId
  readonly client: SkinAndHair
  readonly hair: HairLayer
  readonly strays: readonly Stray[]
  readonly answers: Asked['answers']
  readonly growth: Growth
  /** Length now, mm. */
  readonly lengthMm: number
  readonly today: IsoDate
  /** Day that the skin is to be in order for. */
  readonly event?: IsoDate | undefined
}

/** The question that clients ask at every visit, with its answer and source. */
export const THICKNESS = {
  question: 'Does shaving make hair grow back thicker?',
  answer:
    'No. A blade cuts at the surface; thickness, colour and rate of growth come from the root and stay as they are. The blunt end, and everything growing at once, only make it look so.',
  mark: 'P' as Mark,
  source: 'Lynfield & Macwilliams 1970 (from memory)',
} as const

const yes = (q: AdviceQuestion, id: string) => q.answers[id]?.yes === true

/** Why terminal hair of face and scalp is not torn out (common practice). */
export const NOT_WAXED = 'A beard is not waxed.'

/** "Will it come back sooner than after waxing?", by this client’s own growth. */
export const SOONER = {
  question: 'Will it come back sooner than after waxing?',
  mark: 'H' as Mark,
  /** @param days middle days until hair is felt again after a blade and after wax, each with its range */
  answer: (blade: string, wax: string) =>
    `Yes: a blade leaves the root and what is under the skin, wax takes both. Here hair is felt again after ${blade} with a blade, after ${wax} with wax. It does not grow any faster for it.`,
} as const

/** True where wax comes into question at all. */
export const isWaxed = (zoneId: ZoneId, fuzz: boolean): boolean => fuzz || isBody(zoneId)

/** What goes together where one method alone does not do: common practice. */
export function adviseTogether(figures: Figures, q: AdviceQuestion): string | undefined {
  if (plannedHair(q.zoneId, q.client, q.hair) !== 'vellus') return undefined
  const single = q.strays.filter((s) => s.zoneId === q.zoneId).length
  const hormonal = q.answers['hormonal-growth']?.yes === true
  if (single === 0 && !hormonal) return undefined
  const many = hormonal || single > figures(ADVICE_CONSTANTS.fewStrays)
  return many
    ? 'Together: the coarse hairs by their root, or thinned for good with laser elsewhere; a blade for the fuzz between. Hormones bring new ones: they come back.'
    : 'Together: the coarse hairs with tweezers first, then a blade for the fuzz.'
}

/** What each method comes to in a place, the best first. */
export function adviseMethods(figures: Figures, q: AdviceQuestion): MethodAdvice[] {
  const rank = { suits: 0, possible: 1, later: 2, not: 3 }
  return ADVISED.map((m) => advise(figures, q, m)).sort((a, b) => rank[a.says] - rank[b.says])
}

function advise(figures: Figures, q: AdviceQuestion, method: Advised): MethodAdvice {
  const say = (
    says: MethodAdvice['says'],
    why: string,
    mark: Mark = 'C',
    from?: IsoDate,
  ): MethodAdvice => ({ method, says, why, mark, ...(from !== undefined && { from }) })
  const kind = plannedHair(q.zoneId, q.client, q.hair)
  const fuzz = kind === 'vellus'
  const own = q.hair[q.zoneId]
  const single = q.strays.filter((s) => s.zoneId === q.zoneId).length
  const few = single > 0 && single <= figures(ADVICE_CONSTANTS.fewStrays) && fuzz
  const retinoids = yes(q, 'retinoid-cream') || yes(q, 'isotretinoin')
  const thin = yes(q, 'blood-thinners') || yes(q, 'slow-healing')
  const stem = zoneStem(q.zoneId)
  const face = hairIn(q.zoneId, 'beard') !== 'limb' && kind !== 'underarm' && kind !== 'limb'
  switch (method) {
    case 'blade':
      if (stem === 'brow')
        return say(
          'possible',
          'Only round the brow, with a small blade; the brow itself is tweezed.',
        )
      if (few)
        return say(
          'possible',
          `Fuzz, yes; the ${single} dark ${single === 1 ? 'hair' : 'hairs'} first with tweezers: they dull the blade and hurt.`,
        )
      return say(
        'suits',
        q.client.bumpProne && !fuzz
          ? 'Single edge, with the grain, leaving a little: this skin is prone to bumps.'
          : 'Cuts at the surface, does not hurt, at any length.',
      )
    case 'tweezers':
      if (few || stem === 'brow' || stem === 'glabella')
        return say('suits', 'Single hairs, one by one, in the direction of growth.')
      return say(
        'not',
        fuzz ? 'Far too many fine hairs.' : 'Far too many hairs; they would grow back in.',
      )
    case 'thread':
      if (!face) return say('not', 'For the face only.')
      if (retinoids) return say('not', 'Thread lifts skin that a retinoid has thinned.')
      return fuzz
        ? say('possible', 'Takes fuzz and strays by the root on lip, brow and chin.')
        : say('not', 'Terminal beard hair is too many and too strong.')
    case 'wax': {
      if (retinoids) return say('not', 'Skin thinned by a retinoid comes off with wax.')
      if (thin) return say('not', 'Bleeding or slow healing: no wax.')
      if (q.client.bumpProne)
        return say('not', 'Prone to bumps: hair torn below the surface grows in.')
      if (!isWaxed(q.zoneId, fuzz)) return say('not', NOT_WAXED)
      return whenLong(
        figures,
        q,
        say,
        figures(GROWTH_CONSTANTS.waxMm),
        `Wax needs a quarter inch (6.35 mm); it lasts four to six weeks. ${waxKind(kind, q)}`,
        figures(ADVICE_CONSTANTS.waxSettlesDays),
      )
    }
    case 'epilator': {
      if (face && !fuzz) return say('not', 'Not on a beard: hair breaks and grows in.')
      if (q.client.bumpProne) return say('not', 'Prone to bumps: what breaks grows in.')
      if (thin) return say('not', 'Bleeding or slow healing: nothing by the root.')
      return whenLong(
        figures,
        q,
        say,
        figures(ADVICE_CONSTANTS.epilateMm),
        'By the root, held at 90°; slower, coarse hair wants a head with well over 20 tweezers.',
        figures(ADVICE_CONSTANTS.waxSettlesDays),
      )
    }
    case 'trimmer':
      return fuzz
        ? say('not', 'A trimmer does not reach fuzz.')
        : say(
            q.client.bumpProne ? 'suits' : 'possible',
            'Leaves a little, never too short to come out again: the calmest on a bump-prone place.',
          )
    case 'laser': {
      if (stem === 'brow' || stem === 'under-eye') return say('not', 'Never near the eye.')
      if (fuzz && !yes(q, 'hormonal-growth'))
        return say('not', 'Fuzz has too little colour for it, and may be made to grow.')
      if (own?.grey === 'most') return say('not', 'Grey hair has no colour for it to find.')
      return say(
        'possible',
        `For lasting thinning of ${fuzz ? 'the coarse' : 'dark'} hair${fuzz ? ', not of the fuzz between' : ''}; elsewhere, by somebody licensed for it. Ask about skin tone and medicines there.`,
      )
    }
  }
}

/** Strips or warm wax (common practice). */
const waxKind = (kind: string, q: AdviceQuestion): string =>
  kind === 'underarm' || (kind !== 'vellus' && q.client.coarseness === 'coarse')
    ? 'Warm wax: the hair is coarse.'
    : 'Strips: the hair is fine.'

/** Now, or the day on which hair will be long enough; not when that comes too late before an event. */
function whenLong(
  figures: Figures,
  q: AdviceQuestion,
  say: (says: MethodAdvice['says'], why: string, mark?: Mark, from?: IsoDate) => MethodAdvice,
  lengthMm: number,
  text: string,
  settlesDays: number,
): MethodAdvice {
  const lastDay = q.event === undefined ? undefined : addDays(q.event, -settlesDays)
  if (q.lengthMm >= lengthMm) {
    return lastDay !== undefined && lastDay < q.today
      ? say('not', `${text} Too near to the day: skin needs ${settlesDays} days.`)
      : say('possible', text)
  }
  const days = daysToLength(figures, q.growth.curve, q.lengthMm, q.growth.mean, lengthMm)
  if (!Number.isFinite(days) || days > 400) {
    return say('not', `Hair here does not grow to ${lengthMm} mm.`, 'H')
  }
  const from = addDays(q.today, Math.ceil(days))
  if (lastDay !== undefined && from > lastDay) {
    return say('not', `Long enough only on ${dayWords(from, q.today)}, too late for the day.`, 'H')
  }
  return say('later', `${text} Long enough in about ${daysBetween(q.today, from)} days.`, 'H', from)
}
