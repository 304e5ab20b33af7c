/**
 * The rules of asking, as data: what is found, what it means for fuzz services and for razor services, and where the
 * rule comes from. Local code, the product label and a clinician's advice always win.
 */
import { constant, type Figures } from '../house/index.ts'
import {
  methodFacts,
  type RuleEffect,
  type Severity,
  SERVICES,
  type ServiceId,
  type ServiceFamily,
  type Work,
} from '../services/index.ts'

export const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  note: 'note',
  'take-care': 'take care',
  'leave-out': 'leave out',
  postpone: 'postpone',
  stop: 'stop',
}

export const SCREENING_CONSTANTS = {
  ofAge: constant(
    18,
    'years',
    'From this age on no guardian signs; your local code may say otherwise',
    'C',
  ),
  sunburnDays: constant(7, 'days', 'Wait after sunburn, at least', 'H'),
  isotretinoinDays: constant(
    183,
    'days',
    'Cautious wait after oral isotretinoin (six months)',
    'P',
    'Spring et al. 2017 found no need for superficial work (from memory)',
  ),
  retinoidCreamDays: constant(5, 'days', 'Stop retinoid cream before fuzz work (3–7)', 'H'),
  acidsFuzzDays: constant(3, 'days', 'Stop leave-on acids and scrubs before fuzz work (2–3)', 'H'),
  acidsRazorDays: constant(1, 'days', 'Stop leave-on acids before a razor shave', 'H'),
  peelDays: constant(14, 'days', 'Wait after a peel, laser or microneedling (2–4 weeks)', 'H'),
  injectionsDays: constant(14, 'days', 'Wait after filler or toxin injections', 'H'),
  waxFuzzDays: constant(7, 'days', 'Wait after waxing before fuzz work', 'H'),
  waxRazorDays: constant(3, 'days', 'Wait after waxing before a razor shave', 'H'),
  patchTestHours: constant(24, 'h', 'A patch test is read from this long after (24–48 h)', 'C'),
  patchTestLatestHours: constant(48, 'h', 'and at latest', 'C'),
  trialStopGrade: constant(
    3,
    'grade',
    'Redness of a trial strip a day later or more from which nothing further is worked',
    'H',
  ),
  spotMarginMm: constant(5, 'mm', 'Margin round a spot that is left out', 'H'),
} as const

const S = SCREENING_CONSTANTS

/** One thing that is asked. */
export interface ScreeningRule {
  readonly id: string
  /** The question in a few words, for a tap. */
  readonly short: string
  readonly question: string
  /** What date is asked for, where one matters. */
  readonly dateQuestion?: string
  /** Asked where on the skin. */
  readonly zoneQuestion?: string
  /** Asked which. */
  readonly kinds?: readonly string[]
  readonly effects: Readonly<Record<ServiceFamily, RuleEffect>>
}

/** A house's own say on a rule in a service. */
export interface RuleEdit {
  readonly severity?: Severity | undefined
  readonly waitDays?: number | undefined
}
/** Edits by rule and service. */
export type HouseRules = Readonly<Record<string, Partial<Record<ServiceId, RuleEdit>>>>

/** What a rule is asked for: a service, and by what it is done. */
type Asks = Pick<Work, 'service' | 'method'>

function effectIn(rule: ScreeningRule, { service, method }: Asks): RuleEffect {
  const own = { ...rule.effects[SERVICES[service].family], ...SERVICES[service].asking[rule.id] }
  const other = methodFacts(method).asking?.[rule.id]
  // What a method forbids is not made moot by the service that it serves.
  return other ? { ...own, moot: undefined, ...other } : own
}

/** What a rule does in a service: by its family, by what differs there and for its method, by the house. */
export function ruleEffect(
  figures: Figures,
  rule: ScreeningRule,
  work: Asks,
  house: HouseRules = {},
): RuleEffect & { readonly waitDays?: number } {
  const { service } = work
  const { wait, ...effect } = effectIn(rule, work)
  const edit = house[rule.id]?.[service]
  const severity = edit?.severity ?? effect.severity
  const waitDays = edit?.waitDays ?? (wait && figures(wait))
  return { ...effect, ...(wait && { wait }), severity, ...(waitDays !== undefined && { waitDays }) }
}

/** Whether a yes would change anything in one of the jobs: else it is not asked. A house's own say makes it matter. */
export const concerns = (
  rule: ScreeningRule,
  jobs: readonly Asks[],
  house: HouseRules = {},
): boolean =>
  jobs.some((job) => house[rule.id]?.[job.service] !== undefined || !effectIn(rule, job).moot)

const both = (effect: RuleEffect): ScreeningRule['effects'] => ({ razor: effect, fuzz: effect })

export const RULES: readonly ScreeningRule[] = [
  {
    id: 'infection',
    short: 'Cold sore, open wound',
    question: 'Cold sore, impetigo, shingles, open wound or another catching skin infection?',
    effects: both({
      severity: 'stop',
      text: 'Do not work today. Suggest a pharmacist or doctor, and meet again when it has healed.',
      mark: 'C',
    }),
  },
  {
    id: 'changing-mole',
    short: 'Changing mole',
    question: 'A mole that has changed in size, shape or colour, or bleeds?',
    effects: both({
      severity: 'stop',
      text: 'Have a doctor look at it first.',
      mark: 'C',
    }),
  },
  {
    id: 'widespread-acne',
    short: 'Widespread acne',
    question: 'Acne or pustules over much of the area?',
    effects: {
      fuzz: {
        severity: 'postpone',
        text: 'Wait until it has calmed: a blade spreads it.',
        mark: 'C',
      },
      razor: {
        severity: 'take-care',
        text: 'Mark each active spot on the head; they are left out.',
        mark: 'C',
      },
    },
  },
  {
    id: 'sunburn',
    short: 'Sunburn',
    question: 'Sunburn?',
    dateQuestion: 'Burnt on',
    zoneQuestion: 'Where',
    effects: both({
      severity: 'postpone',
      wait: S.sunburnDays,
      overZone: true,
      text: 'Wait until it has healed, at least a week.',
      mark: 'C',
    }),
  },
  {
    id: 'flare',
    short: 'Eczema, rosacea flare',
    question: 'Eczema, psoriasis or rosacea that is flaring?',
    effects: {
      fuzz: { severity: 'postpone', text: 'Wait until the flare is over.', mark: 'C' },
      razor: {
        severity: 'take-care',
        text: 'Mark the patches to leave out; elsewhere with the grain only, nothing scented.',
        mark: 'C',
        withGrainOnly: true,
        noFragrance: true,
      },
    },
  },
  {
    id: 'isotretinoin',
    short: 'Isotretinoin',
    question: 'Isotretinoin by mouth, now or in the last half year?',
    dateQuestion: 'Last dose',
    effects: {
      fuzz: {
        severity: 'postpone',
        wait: S.isotretinoinDays,
        text: 'The cautious school waits six months after the last dose.',
        mark: 'P',
      },
      razor: {
        severity: 'take-care',
        text: 'Skin tears easily: with the grain only, and ask how it heals.',
        mark: 'C',
        withGrainOnly: true,
      },
    },
  },
  {
    id: 'retinoid-cream',
    short: 'Retinoid cream',
    question: 'Retinoid cream?',
    dateQuestion: 'Last used',
    effects: {
      fuzz: {
        severity: 'postpone',
        wait: S.retinoidCreamDays,
        text: 'Stop it for a few days first: the top layer is thin.',
        mark: 'H',
      },
      razor: {
        severity: 'take-care',
        text: 'Skin is thinner than it looks: few strokes.',
        mark: 'C',
      },
    },
  },
  {
    id: 'acids',
    short: 'Acids, scrubs',
    question: 'Leave-on acids, benzoyl peroxide or scrubs?',
    dateQuestion: 'Last used',
    effects: {
      fuzz: {
        severity: 'postpone',
        wait: S.acidsFuzzDays,
        text: 'Stop them for a few days first.',
        mark: 'H',
      },
      razor: {
        severity: 'postpone',
        wait: S.acidsRazorDays,
        text: 'Leave a day between.',
        mark: 'H',
      },
    },
  },
  {
    id: 'peel',
    short: 'Peel, laser, needling',
    question: 'Chemical peel, laser or microneedling?',
    dateQuestion: 'Done on',
    zoneQuestion: 'Where',
    effects: both({
      severity: 'postpone',
      wait: S.peelDays,
      overZone: true,
      text: 'Let the skin rebuild first.',
      mark: 'C',
    }),
  },
  {
    id: 'injections',
    short: 'Filler or toxin',
    question: 'Filler or toxin injections?',
    dateQuestion: 'Done on',
    zoneQuestion: 'Where',
    effects: both({
      severity: 'postpone',
      wait: S.injectionsDays,
      overZone: true,
      text: 'Do not press or stretch there yet.',
      mark: 'C',
    }),
  },
  {
    id: 'waxing',
    short: 'Waxed here',
    question: 'Waxed in the area?',
    dateQuestion: 'Done on',
    zoneQuestion: 'Where',
    effects: {
      fuzz: {
        severity: 'postpone',
        wait: S.waxFuzzDays,
        overZone: true,
        text: 'Waxing takes skin too.',
        mark: 'H',
      },
      razor: {
        severity: 'postpone',
        wait: S.waxRazorDays,
        overZone: true,
        text: 'Waxing takes skin too.',
        mark: 'H',
      },
    },
  },
  {
    id: 'blood-thinners',
    short: 'Blood thinners',
    question: 'Blood thinners or a bleeding disorder?',
    effects: both({
      severity: 'take-care',
      text: 'One gentle pass, styptic laid out.',
      mark: 'C',
      onePass: true,
      gate: 'clinician',
    }),
  },
  {
    id: 'keloids',
    short: 'Keloids',
    question: 'Scars that grow thick (keloids)?',
    effects: {
      fuzz: {
        severity: 'take-care',
        text: 'One gentle pass.',
        mark: 'C',
        onePass: true,
        gate: 'clinician',
      },
      razor: {
        severity: 'take-care',
        text: 'With the grain, guarded, and ask how small cuts heal.',
        mark: 'C',
        withGrainOnly: true,
      },
    },
  },
  {
    id: 'slow-healing',
    short: 'Slow healing',
    question: 'Diabetes, slow healing or a weakened immune system?',
    effects: both({
      severity: 'take-care',
      text: 'Few strokes, no second pass.',
      mark: 'C',
      onePass: true,
      gate: 'clinician',
    }),
  },
  {
    id: 'allergy',
    short: 'Allergy',
    question: 'Allergic to nickel, latex, fragrance or plant extracts?',
    kinds: ['nickel', 'latex', 'fragrance', 'plant extracts'],
    effects: both({
      severity: 'take-care',
      text: 'Lay out other gloves, blade holder or balm.',
      mark: 'C',
      noFragrance: true,
    }),
  },
  {
    id: 'hormonal-growth',
    short: 'Hormonal growth',
    question: 'Thick hormonal growth on the face?',
    effects: {
      fuzz: {
        severity: 'note',
        text: 'Explain the upkeep. A doctor’s advice may help.',
        mark: 'C',
      },
      razor: { severity: 'note', text: 'Fine to shave.', mark: 'C', moot: true },
    },
  },
  {
    id: 'strays',
    short: 'Dark strays',
    question: 'Dark, coarse hairs among the fuzz?',
    effects: {
      fuzz: {
        severity: 'note',
        text: 'Tweeze or thread them first: they dull the blade and hurt.',
        mark: 'C',
      },
      razor: { severity: 'note', text: 'No matter for a shave.', mark: 'C', moot: true },
    },
  },
  {
    id: 'worn',
    short: 'Jewellery, lenses',
    question: 'Jewellery, contact lenses or lash extensions?',
    effects: both({
      severity: 'note',
      text: 'Jewellery off, lenses out, lashes shielded.',
      mark: 'C',
    }),
  },
  {
    id: 'under-age',
    short: 'Under age',
    question: 'Under age?',
    effects: both({
      severity: 'take-care',
      text: 'A guardian has agreed; go by what the local code says.',
      mark: 'C',
      gate: 'guardian',
    }),
  },
  {
    id: 'first-ever',
    short: 'First ever',
    question: 'First treatment of this kind ever?',
    effects: {
      fuzz: {
        severity: 'postpone',
        text: 'Patch test on a small spot first; read it after 24–48 h.',
        mark: 'C',
      },
      razor: { severity: 'note', text: 'Feel for moles before the lather goes on.', mark: 'C' },
    },
  },
]

/** What can be marked on the head. */
export const MARK_KINDS = [
  'mole',
  'scab',
  'raised-lesion',
  'skin-tag',
  'active-spot',
  'eczema-patch',
  'healing-spot',
  'scar',
  'tattoo',
  'piercing',
] as const
export type MarkKind = (typeof MARK_KINDS)[number]

export const MARK_WORDS: Readonly<Record<MarkKind, string>> = {
  mole: 'mole',
  scab: 'scab',
  'raised-lesion': 'raised lesion',
  'skin-tag': 'skin tag',
  'active-spot': 'active spot',
  'eczema-patch': 'eczema patch',
  'healing-spot': 'healing spot',
  scar: 'scar',
  tattoo: 'tattoo',
  piercing: 'piercing',
}

/** For fuzz services these leave out their whole zone, not only themselves. */
export const ZONE_WIDE_SPOTS: readonly MarkKind[] = ['active-spot', 'eczema-patch']
