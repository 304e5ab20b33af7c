/** The people of Lantern Quay: invented names, invented lives. */
import type { SkinAndHair } from '../core/client.ts'
import type { EventKind } from '../core/ahead/index.ts'
import type { Schools } from '../core/house/index.ts'
import type { Job, Style, ServiceId } from '../core/services/index.ts'
import type { HomeTool } from '../core/history/index.ts'
import type { ZoneId, ZoneStem } from '../core/zones/index.ts'

/** What the studio does not know of a client: the truth behind the readings. */
export interface HiddenTruth {
  /** Redness grade per unit load. */
  readonly gradePerLoad: number
  /** Bumps per unit load. */
  readonly bumpsPerLoad: number
  /** Growth against the usual, as a factor. */
  readonly growthFactor: number
  /** Growth directions that differ from the usual, hours on the clock for the client's left. */
  readonly hours?: Partial<Record<ZoneStem, number>>
  /** Shape of the spread of redness between zones: low where some redden and others never do; 4.5 as expected. */
  readonly zonesAlike?: number
  /** From so many days ago on the skin reddens so many times as much. */
  readonly reddens?: { readonly daysAgo: number; readonly times: number }
  /** How questions are answered: days late, or anyhow. */
  readonly answers?: 'late' | 'careless'
  /** Turn of the whorl at the crown. */
  readonly whorl?: 'clockwise' | 'anticlockwise'
}

/** What was done otherwise until so many days ago. */
export interface RoutineChange {
  readonly daysAgo: number
  /** What began then, as noted. */
  readonly words: string
  readonly schools: Partial<Schools>
  readonly style: Style
  /** Whether the client was then known to be prone to bumps. */
  readonly bumpProne: boolean
  /** Bumps before, against after. */
  readonly bumpFactor: number
}

/** A job that is done at every so manieth visit, counted back from the last. */
export interface Rhythm {
  readonly job: Omit<Job, 'id'>
  readonly every: number
  /** The last visit that it was done at: 0 for the last one. */
  readonly last: number
  /** Part of today's visit. */
  readonly today: boolean
}

export interface Person {
  readonly name: string
  readonly called?: string
  readonly pronouns?: string
  readonly occupation: string
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly truth: HiddenTruth
  /** Days between visits; undefined for somebody who has never been. */
  readonly everyDays?: number
  /** Days since the last visit: whole, so that the story is the same at any hour of the day. */
  readonly lastDaysAgo?: number
  /** Hour of today's slot. */
  readonly slotHour?: number
  /** Events ahead that their skin must be in order for. */
  readonly events?: readonly {
    readonly kind: EventKind
    readonly title: string
    readonly inDays: number
    readonly hour: number
  }[]
  /** Worker: 0 is the barber, 1 the esthetician. */
  readonly worker: 0 | 1
  /** Work at rhythms of its own, instead of the whole service at every visit; the first is what they come for. */
  readonly rhythms?: readonly Rhythm[]
  /** What they take off themselves, so many days ago each. */
  readonly home?: {
    readonly daysAgo: readonly number[]
    readonly zones: readonly ZoneId[]
    readonly tool: HomeTool
    readonly dull: boolean
  }
  /** A change of routine: how it was done before, and what that did. */
  readonly change?: RoutineChange
  readonly story?:
    | 'too-often'
    | 'postponed'
    | 'patch-test'
    | 'first-visit'
    | 'mole'
    | 'answer-owed'
    /** Answered on the link page, yesterday evening, that it is bad. */
    | 'severe'
    /** Was in the chair yesterday, and nobody ended the service. */
    | 'left-open'
    /** Parts of the map were never read. */
    | 'half-read'
    /** A trial strip, then a first session; today the second. */
    | 'newcomer'
    /** The cheek line was lowered over the last four visits. */
    | 'line-moved'
}

const skin = (
  reactivity: SkinAndHair['reactivity'],
  faceHair: SkinAndHair['faceHair'],
  coarseness: SkinAndHair['coarseness'],
  curl: SkinAndHair['curl'] = 'straight',
  bumpProne = false,
): SkinAndHair => ({ reactivity, faceHair, coarseness, curl, bumpProne })

/** The studio's name and workers. */
export const STUDIO = {
  name: 'Lantern Quay',
  settings: {
    address: '3 Chandlers’ Steps, by the old fish market',
    phone: '0555 01 00',
    currency: 'EUR',
    dates: 'dmy',
    firstDay: 1,
    clock: 24,
    length: 'mm',
    warmth: 'C',
  },
  workers: [
    { name: 'Ines Marchetti-Roe', role: 'barber', hand: 'right', rank: 'owner' },
    { name: 'Joren Aldous', role: 'esthetician', hand: 'left', rank: 'worker' },
  ],
} as const

/** How long each worker's strokes truly take, over the house's figure. */
export const TRUE_PACES = [1.1, 0.92] as const

/** How far the directions that each worker reads lie from the true ones, ° (standard deviation). */
export const TRUE_READERS_DEG = [8, 21] as const

export const PEOPLE: readonly Person[] = [
  {
    name: 'Tobias Arkwell',
    called: 'Toby',
    pronouns: 'he/him',
    occupation: 'salvage diver, mask must seal',
    service: 'face-shave',
    skin: skin('average', 'beard', 'coarse', 'wavy', true),
    truth: {
      gradePerLoad: 0.34,
      bumpsPerLoad: 0.22,
      growthFactor: 1.08,
      hours: { 'neck-lower': 1, 'neck-lower-centre': 12, 'neck-upper': 7, 'under-chin': 8 },
    },
    everyDays: 5,
    lastDaysAgo: 3,
    slotHour: 10.5,
    worker: 0,
    events: [{ kind: 'dive', title: 'the north mole wreck', inDays: 16, hour: 8 }],
    // Before, the house went with, then against, as on any beard.
    change: {
      daysAgo: 96,
      words: 'single edge, with the grain only',
      schools: { beardPasses: 'with-against' },
      style: 'closest',
      bumpProne: false,
      bumpFactor: 2,
    },
  },
  {
    name: 'Wren Halloran',
    pronouns: 'they/them',
    occupation: 'oboist',
    service: 'dermaplane',
    skin: skin('average', 'fuzz', 'fine'),
    truth: { gradePerLoad: 0.3, bumpsPerLoad: 0.02, growthFactor: 1 },
    slotHour: 11.5,
    worker: 1,
    story: 'patch-test',
  },
  {
    name: 'Idris Vaughan-Lyle',
    occupation: 'glassblower',
    service: 'face-shave',
    skin: skin('reactive', 'beard', 'medium', 'wavy'),
    truth: { gradePerLoad: 0.75, bumpsPerLoad: 0.12, growthFactor: 0.95, zonesAlike: 1 },
    everyDays: 2,
    lastDaysAgo: 2,
    slotHour: 16,
    worker: 0,
    story: 'too-often',
  },
  {
    name: 'Petra Sunde',
    pronouns: 'she/her',
    occupation: 'swim coach',
    service: 'head-shave',
    skin: skin('tough', 'fuzz', 'medium'),
    truth: { gradePerLoad: 0.12, bumpsPerLoad: 0.02, growthFactor: 1.05, whorl: 'clockwise' },
    everyDays: 4,
    lastDaysAgo: 3,
    slotHour: 14,
    worker: 0,
  },
  {
    name: 'Marlow Quist',
    occupation: 'rescue volunteer, mask must seal',
    service: 'face-shave',
    skin: skin('average', 'beard', 'medium'),
    truth: { gradePerLoad: 0.26, bumpsPerLoad: 0.06, growthFactor: 0.98, answers: 'late' },
    everyDays: 6,
    lastDaysAgo: 8,
    events: [{ kind: 'mask-seal', title: 'the yearly mask check', inDays: 11, hour: 14 }],
    worker: 0,
    story: 'answer-owed',
  },
  {
    name: 'Odile Fenn',
    pronouns: 'she/her',
    occupation: 'bookbinder',
    service: 'facial-razor',
    skin: skin('tough', 'fuzz', 'fine'),
    truth: { gradePerLoad: 0.14, bumpsPerLoad: 0.01, growthFactor: 1.1 },
    everyDays: 30,
    lastDaysAgo: 19,
    worker: 1,
  },
  {
    name: 'Casimir Rooke',
    occupation: 'harbour pilot',
    service: 'face-shave',
    skin: skin('average', 'beard', 'coarse'),
    truth: { gradePerLoad: 0.3, bumpsPerLoad: 0.1, growthFactor: 1 },
    worker: 0,
    story: 'first-visit',
  },
  {
    name: 'Liv Ostrander',
    pronouns: 'she/her',
    occupation: 'pastry cook',
    service: 'dermaplane',
    skin: skin('average', 'fuzz', 'fine'),
    truth: { gradePerLoad: 0.33, bumpsPerLoad: 0.02, growthFactor: 1.2 },
    everyDays: 29,
    lastDaysAgo: 30,
    slotHour: 15,
    worker: 1,
    story: 'postponed',
  },
  {
    name: 'Bram Tolliver',
    occupation: 'organ tuner',
    service: 'head-shave',
    skin: skin('average', 'beard', 'coarse', 'wavy'),
    truth: {
      gradePerLoad: 0.24,
      bumpsPerLoad: 0.05,
      growthFactor: 1.02,
      // He began to shave between visits, and tells nobody.
      reddens: { daysAgo: 70, times: 2.5 },
      whorl: 'anticlockwise',
      hours: { nape: 11, 'nape-centre': 12 },
    },
    everyDays: 5,
    lastDaysAgo: 2,
    worker: 0,
  },
  {
    name: 'Sefa Lindqvist',
    occupation: 'lightkeeper',
    service: 'dermaplane',
    skin: skin('reactive', 'fuzz', 'fine'),
    truth: { gradePerLoad: 0.52, bumpsPerLoad: 0.03, growthFactor: 0.9 },
    everyDays: 33,
    lastDaysAgo: 12,
    worker: 1,
    story: 'half-read',
  },
  {
    name: 'Noor Castellane',
    pronouns: 'she/her',
    occupation: 'ferry captain',
    service: 'facial-razor',
    skin: skin('average', 'fuzz', 'medium'),
    truth: { gradePerLoad: 0.25, bumpsPerLoad: 0.02, growthFactor: 1.3, answers: 'careless' },
    everyDays: 28,
    lastDaysAgo: 27,
    worker: 1,
  },
  {
    name: 'Emeka Strand',
    pronouns: 'he/him',
    occupation: 'choir tenor',
    service: 'face-shave',
    skin: skin('average', 'beard', 'coarse', 'tight', true),
    truth: { gradePerLoad: 0.28, bumpsPerLoad: 0.35, growthFactor: 1.1 },
    everyDays: 7,
    lastDaysAgo: 5,
    change: {
      daysAgo: 120,
      words: 'leave-on acid nightly',
      schools: { exfoliate: 'none' },
      style: 'balanced',
      bumpProne: true,
      bumpFactor: 1.5,
    },
    slotHour: 17,
    worker: 0,
    story: 'severe',
  },
  {
    name: 'Ansel Mirrow',
    occupation: 'sailmaker',
    service: 'face-shave',
    skin: skin('tough', 'beard', 'coarse'),
    truth: { gradePerLoad: 0.14, bumpsPerLoad: 0.04, growthFactor: 1.15 },
    everyDays: 4,
    lastDaysAgo: 1,
    worker: 0,
    story: 'mole',
  },
  {
    name: 'Maximiliane Theodora Okonkwo-Brandvold',
    called: 'Max',
    pronouns: 'she/her',
    occupation: 'net mender and understudy of the harbour theatre',
    service: 'dermaplane',
    skin: skin('average', 'fuzz', 'fine'),
    truth: { gradePerLoad: 0.29, bumpsPerLoad: 0.02, growthFactor: 1 },
    everyDays: 31,
    lastDaysAgo: 21,
    events: [{ kind: 'photo', title: 'opening night', inDays: 40, hour: 19 }],
    worker: 1,
  },
  {
    name: 'Corin Abelard',
    pronouns: 'he/him',
    occupation: 'ship’s surveyor',
    service: 'beard-line',
    skin: skin('average', 'beard', 'coarse', 'wavy'),
    truth: { gradePerLoad: 0.24, bumpsPerLoad: 0.06, growthFactor: 1.05 },
    everyDays: 12,
    lastDaysAgo: 12,
    slotHour: 9.5,
    worker: 0,
    story: 'line-moved',
  },
  {
    name: 'Juno Vale',
    pronouns: 'she/her',
    occupation: 'open-water swimmer',
    service: 'body-shave',
    skin: skin('average', 'fuzz', 'medium'),
    truth: { gradePerLoad: 0.2, bumpsPerLoad: 0.08, growthFactor: 1 },
    everyDays: 16,
    lastDaysAgo: 15,
    slotHour: 13,
    worker: 1,
  },
  {
    name: 'Theo Marrin',
    occupation: 'costume maker',
    service: 'brow-tidy',
    skin: skin('average', 'fuzz', 'fine'),
    truth: { gradePerLoad: 0.22, bumpsPerLoad: 0.01, growthFactor: 1.1 },
    everyDays: 24,
    lastDaysAgo: 20,
    worker: 1,
    story: 'left-open',
  },
  {
    name: 'Anselm Korrick',
    pronouns: 'he/him',
    occupation: 'lifeboat swimmer, wetsuit chafes',
    service: 'back-and-chest',
    skin: skin('average', 'beard', 'coarse'),
    truth: { gradePerLoad: 0.2, bumpsPerLoad: 0.07, growthFactor: 1 },
    everyDays: 21,
    lastDaysAgo: 9,
    worker: 0,
  },
  {
    name: 'Rhea Calder-Noss',
    pronouns: 'she/her',
    occupation: 'singer on the night boat',
    service: 'facial-razor',
    skin: skin('average', 'fuzz', 'medium'),
    truth: { gradePerLoad: 0.22, bumpsPerLoad: 0.02, growthFactor: 1.05 },
    everyDays: 9.5,
    lastDaysAgo: 9,
    slotHour: 12.25,
    worker: 1,
    // Cheeks and brow by a guarded blade each month, strays about the brows every nine days, the lip by wax.
    rhythms: [
      {
        job: {
          service: 'facial-razor',
          method: 'guarded',
          zones: [
            ...(['forehead-left', 'forehead-right', 'forehead-centre'] as const),
            ...(['cheek-upper-left', 'cheek-upper-right'] as const),
            ...(['cheek-lower-left', 'cheek-lower-right'] as const),
            ...(['chin', 'jaw-left', 'jaw-right'] as const),
          ],
        },
        ...{ every: 3, last: 2, today: true },
      },
      {
        job: { service: 'brow-tidy', method: 'tweezers', zones: ['glabella'], everyDays: 9 },
        ...{ every: 1, last: 0, today: true },
      },
      {
        job: {
          service: 'facial-razor',
          method: 'wax',
          zones: ['upper-lip-left', 'upper-lip-right'],
        },
        ...{ every: 4, last: 2, today: false },
      },
    ],
  },
  {
    name: 'Dov Ettinger',
    pronouns: 'he/him',
    occupation: 'tug mate',
    service: 'face-shave',
    skin: skin('average', 'beard', 'medium', 'wavy'),
    truth: { gradePerLoad: 0.25, bumpsPerLoad: 0.1, growthFactor: 1.02 },
    everyDays: 13,
    lastDaysAgo: 11,
    worker: 0,
    // Shaves his neck himself every third day, with one cartridge for weeks.
    home: {
      daysAgo: [8, 5, 2],
      zones: [
        ...(['neck-upper-left', 'neck-upper-right', 'neck-upper-centre'] as const),
        ...(['neck-lower-left', 'neck-lower-right', 'neck-lower-centre'] as const),
      ],
      tool: 'cartridge',
      dull: true,
    },
  },
  {
    name: 'Odile Brannock',
    pronouns: 'she/her',
    occupation: 'potter, dust on the skin all day',
    service: 'dermaplane',
    skin: skin('average', 'fuzz', 'fine', 'straight', true),
    truth: { gradePerLoad: 0.2, bumpsPerLoad: 0.16, growthFactor: 1 },
    everyDays: 10,
    lastDaysAgo: 28,
    slotHour: 14,
    worker: 1,
    story: 'newcomer',
  },
]
