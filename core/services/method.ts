/**
 * What hair is taken off with. Blades are planned stroke by stroke; what is done by hand is recorded and timed, and its load and
 * its rest count like a stroke's. Common practice unless marked.
 */
import { constant, PRICE, type Constant, type Figures } from '../house/index.ts'
import type { RuleEffect } from './effect.ts'

export const METHODS = ['blade', 'guarded', 'trimmer', 'tweezers', 'wax', 'thread'] as const
export type Method = (typeof METHODS)[number]
/** Methods without a plan of strokes. */
export type HandMethod = Exclude<Method, 'blade' | 'guarded'>

export const METHOD_CONSTANTS = {
  trimmerMin: constant(0.8, 'min', 'Trimmer, a zone', 'H'),
  tweezersMin: constant(2.5, 'min', 'Tweezers, a zone', 'H'),
  waxMin: constant(1.5, 'min', 'Wax, a zone', 'H'),
  threadMin: constant(2, 'min', 'Thread, a zone', 'H'),
  trimmerLoad: constant(0.4, '', 'Load of a trimmer over a zone', 'H'),
  tweezersLoad: constant(0.3, '', 'Load of tweezers in a zone', 'H'),
  waxLoad: constant(2, '', 'Load of wax on a zone', 'H'),
  threadLoad: constant(1.4, '', 'Load of thread over a zone', 'H'),
  trimmerLeftMm: constant(0.8, 'mm', 'A trimmer leaves so much standing', 'H'),
  waxLasts: constant(35, 'days', 'Wax lasts four to six weeks until hair is felt again', 'C'),
  threadLasts: constant(28, 'days', 'Thread lasts until hair is felt again', 'H'),
  tweezersLasts: constant(28, 'days', 'Tweezed hair stays away until it is felt again', 'H'),
  rootSpread: constant(
    0.16,
    '',
    'How much that differs between people and places (spread of its logarithm; 4 to 6 weeks hold 80 %)',
    'H',
  ),
  rootRetinoidDays: constant(7, 'days', 'Stop retinoid cream before wax or thread', 'H'),
  rootAcidsDays: constant(3, 'days', 'Stop acids and scrubs before wax or thread', 'H'),
  waxCost: constant(1.2, PRICE, 'Wax and strips for one job', 'H'),
  threadCost: constant(0.1, PRICE, 'Thread for one job', 'H'),
} as const

const C = METHOD_CONSTANTS

interface MethodFacts {
  /** As a job is named: "by wax". */
  readonly name: string
  /** What lies ready for it and is used up, where anything is. */
  readonly uses?: { readonly name: string; readonly cost: Constant }
  /** Hair comes out by its root. */
  readonly root: boolean
  /** Where the rules of asking are other than those of a blade, by rule. */
  readonly asking?: Readonly<Record<string, Partial<RuleEffect>>>
}

interface HandFacts extends MethodFacts {
  readonly minutes: Constant
  readonly load: Constant
  /** Hair left standing, mm; none where it comes out by its root. */
  readonly left?: Constant
  /** Until hair is felt again, days. */
  readonly lasts?: Constant
  /** What the hand does, in a sentence. */
  readonly text: string
}

/** Whatever comes out by the root takes skin along where it is thin, and bleeds where blood is. */
const BY_ROOT = {
  isotretinoin: {
    severity: 'postpone',
    text: 'Skin tears off with the hair: nothing by the root in this half year.',
    mark: 'C',
    withGrainOnly: false,
  },
  'retinoid-cream': {
    severity: 'postpone',
    wait: C.rootRetinoidDays,
    text: 'Skin that a retinoid has thinned comes off with the hair.',
    mark: 'H',
  },
  acids: {
    severity: 'postpone',
    wait: C.rootAcidsDays,
    text: 'Skin loosened by acids comes off with the hair.',
    mark: 'H',
  },
  'widespread-acne': { severity: 'postpone', text: 'Not by the root over spots.', mark: 'C' },
  flare: { severity: 'postpone', text: 'Not by the root while it flares.', mark: 'C' },
  'first-ever': {
    severity: 'take-care',
    text: 'A small place first; look at it after a few minutes before the rest.',
  },
} as const satisfies Readonly<Record<string, Partial<RuleEffect>>>

/** What touches hardly any skin is hardly kept from it. */
const LIGHT = {
  isotretinoin: { severity: 'take-care', text: 'Skin tears easily: gently.' },
  'retinoid-cream': { severity: 'take-care', text: 'Skin is thinner than it looks: gently.' },
  acids: { severity: 'note', text: 'No matter for this.' },
  'widespread-acne': { severity: 'take-care', text: 'Mark each active spot; round them.' },
  flare: { severity: 'take-care', text: 'Mark the patches; round them.' },
  'first-ever': { severity: 'note', text: 'Say what it will feel like.' },
} as const satisfies Readonly<Record<string, Partial<RuleEffect>>>

/** What is done by hand, by method. */
export const HAND_METHODS: Readonly<Record<HandMethod, HandFacts>> = {
  trimmer: {
    name: 'trimmer',
    root: false,
    minutes: C.trimmerMin,
    load: C.trimmerLoad,
    left: C.trimmerLeftMm,
    asking: LIGHT,
    text: 'On dry hair, before anything wet. Flat on the skin; it may go against the growth.',
  },
  tweezers: {
    name: 'tweezers',
    root: true,
    minutes: C.tweezersMin,
    load: C.tweezersLoad,
    lasts: C.tweezersLasts,
    asking: LIGHT,
    text: 'Skin held taut, one hair at a time, out in the direction of its growth.',
  },
  wax: {
    name: 'wax',
    root: true,
    minutes: C.waxMin,
    load: C.waxLoad,
    lasts: C.waxLasts,
    uses: { name: 'wax and strips', cost: C.waxCost },
    asking: {
      ...BY_ROOT,
      allergy: { text: 'Ask for resin and fragrance; lay out another wax or leave it.' },
    },
    text: 'Dry, oil-free skin. On with the growth; off against it, low and parallel to the skin. Try the warmth on your wrist and ask.',
  },
  thread: {
    name: 'thread',
    root: true,
    minutes: C.threadMin,
    load: C.threadLoad,
    lasts: C.threadLasts,
    uses: { name: 'thread', cost: C.threadCost },
    asking: BY_ROOT,
    text: 'Dry skin, held taut by the client. Against the growth, little at a time.',
  },
}

const BLADES: Readonly<Record<'blade' | 'guarded', MethodFacts>> = {
  blade: { name: 'blade', root: false },
  guarded: { name: 'guarded blade', root: false },
}

/** True where strokes are planned for it. */
export const isPlanned = (method: Method): method is 'blade' | 'guarded' =>
  method === 'blade' || method === 'guarded'

/** What is known of a method. */
export const methodFacts = (method: Method): MethodFacts =>
  isPlanned(method) ? BLADES[method] : HAND_METHODS[method]

/** True where hair comes out by its root, so that it rests before it grows again. */
export const byRoot = (method: Method): boolean => methodFacts(method).root

/** Until hair is felt again after a method by the root, days; undefined after a cut. */
export const lastsDays = (figures: Figures, method: Method): number | undefined => {
  const lasts = isPlanned(method) ? undefined : HAND_METHODS[method].lasts
  return lasts && figures(lasts)
}
