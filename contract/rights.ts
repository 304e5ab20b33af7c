/**
 * Who may do what: the one table of rights, by route. The server refuses by it; the web shows nothing that would be refused.
 * Beside each right stands what the trail writes of its use.
 */
import type { ADDRESSES } from './addresses.ts'

export const RANKS = ['owner', 'worker', 'learner', 'front-desk'] as const
export type Rank = (typeof RANKS)[number]

/** `wall`: a paired screen that only shows. `nobody`: whoever asks, before anybody has signed in. */
export type Asker = Rank | 'wall' | 'nobody'

export const RANK_WORDS: Readonly<Record<Rank, string>> = {
  owner: 'Owner: everything',
  worker: 'Worker: clients, services, exports',
  learner: 'Learner: clients and services; lifts nothing, erases and exports nothing',
  'front-desk': 'Front desk: names, telephones, times; no health answers, no pictures',
}

/** What the trail calls a use; `look` within ten minutes of the same look is one. */
export type Use =
  'look' | 'keep' | 'change' | 'add' | 'export' | 'print' | 'erase' | 'service' | 'people'

export interface Right {
  readonly may: readonly Asker[]
  /** Left out where nothing of a client is seen or changed. */
  readonly use?: Use
}

const ALL = ['owner', 'worker', 'learner', 'front-desk'] as const
const HANDS_ON = ['owner', 'worker', 'learner'] as const
const TRUSTED = ['owner', 'worker'] as const
const OWNER = ['owner'] as const
const ANYONE = [...ALL, 'wall', 'nobody'] as const
const SHOWN = [...HANDS_ON, 'wall'] as const

export const RIGHTS = {
  health: { may: ANYONE },
  session: { may: ANYONE },
  signIn: { may: ANYONE },
  signOut: { may: ANYONE },
  lockScreen: { may: ANYONE },
  makeOwner: { may: ANYONE },
  pairScreen: { may: ANYONE },
  signOutEverywhere: { may: ALL, use: 'people' },
  changeSecret: { may: ALL, use: 'people' },
  people: { may: OWNER },
  addWorker: { may: OWNER, use: 'people' },
  changeWorker: { may: OWNER, use: 'people' },
  screens: { may: OWNER },
  newPairing: { may: OWNER, use: 'people' },
  changeScreen: { may: OWNER, use: 'people' },
  trail: { may: OWNER },
  wall: { may: SHOWN },
  today: { may: ALL },
  house: { may: [...ALL, 'wall'] },
  changeHouse: { may: ALL, use: 'change' },
  clients: { may: ALL },
  knownClients: { may: OWNER },
  addClient: { may: ALL, use: 'add' },
  client: { may: [...ALL, 'wall'], use: 'look' },
  changeClient: { may: ALL, use: 'change' },
  eraseClient: { may: TRUSTED, use: 'erase' },
  takeOutClient: { may: TRUSTED, use: 'export' },
  record: { may: TRUSTED, use: 'print' },
  addVisit: { may: ALL, use: 'add' },
  visit: { may: SHOWN, use: 'look' },
  changeVisit: { may: HANDS_ON, use: 'change' },
  saveAsked: { may: HANDS_ON, use: 'change' },
  editReadings: { may: HANDS_ON, use: 'change' },
  saveNotes: { may: HANDS_ON, use: 'change' },
  savePlan: { may: HANDS_ON, use: 'change' },
  addEvent: { may: HANDS_ON, use: 'service' },
  follow: { may: SHOWN, use: 'look' },
  followAll: { may: SHOWN },
  probe: { may: HANDS_ON },
  saveProducts: { may: HANDS_ON, use: 'change' },
  addPhoto: { may: HANDS_ON, use: 'add' },
  photo: { may: HANDS_ON, use: 'look' },
  removePhoto: { may: TRUSTED, use: 'erase' },
  messages: { may: ALL },
  changeMessage: { may: ALL, use: 'change' },
  kitEvents: { may: HANDS_ON },
  care: { may: HANDS_ON, use: 'look' },
  careSheet: { may: HANDS_ON, use: 'print' },
  careCalendar: { may: HANDS_ON, use: 'export' },
  saveSkinAnswer: { may: HANDS_ON, use: 'change' },
  removeSkinAnswer: { may: TRUSTED, use: 'erase' },
  addHairReading: { may: HANDS_ON, use: 'change' },
  addHomeWork: { may: HANDS_ON, use: 'change' },
  removeHomeWork: { may: HANDS_ON, use: 'erase' },
  removeHairReading: { may: HANDS_ON, use: 'erase' },
  addLink: { may: HANDS_ON, use: 'export' },
  takeBackLinks: { may: HANDS_ON, use: 'change' },
  /** A word that lifts a finding is a trained person's. */
  decide: { may: TRUSTED, use: 'change' },
  takeBackDecision: { may: TRUSTED, use: 'change' },
  settle: { may: HANDS_ON, use: 'change' },
  tide: { may: ALL, use: 'look' },
  history: { may: HANDS_ON, use: 'look' },
  methods: { may: HANDS_ON, use: 'look' },
  studio: { may: TRUSTED },
  week: { may: ALL },
  appointmentLength: { may: ALL },
  addAppointment: { may: ALL, use: 'add' },
  changeAppointment: { may: ALL, use: 'change' },
  removeAppointment: { may: ALL, use: 'erase' },
  propose: { may: ALL },
  weekLoad: { may: ALL },
  weekCsv: { may: TRUSTED, use: 'export' },
  hours: { may: ALL, use: 'look' },
  saveHours: { may: ALL, use: 'change' },
  addWaiting: { may: ALL, use: 'add' },
  removeWaiting: { may: ALL, use: 'erase' },
  freeSlot: { may: ALL },
  addOffer: { may: ALL, use: 'export' },
  removeOffer: { may: ALL, use: 'change' },
  tellLate: { may: ALL, use: 'export' },
  newFeed: { may: TRUSTED, use: 'export' },
  takeBackFeed: { may: TRUSTED, use: 'change' },
  bringInBusy: { may: TRUSTED, use: 'add' },
  removeBusy: { may: TRUSTED, use: 'erase' },
  addAway: { may: TRUSTED },
  removeAway: { may: TRUSTED },
  readingsCsv: { may: TRUSTED, use: 'export' },
  report: { may: TRUSTED, use: 'print' },
  seriesCalendar: { may: ALL, use: 'export' },
  imports: { may: TRUSTED },
  addImport: { may: OWNER, use: 'add' },
  undoImport: { may: OWNER, use: 'erase' },
  safety: { may: OWNER },
  changeSafety: { may: OWNER, use: 'people' },
  backUp: { may: OWNER, use: 'people' },
  prove: { may: OWNER, use: 'people' },
  stopSafety: { may: OWNER },
} as const satisfies Record<keyof typeof ADDRESSES, Right>

/** Parts of the house that others than the owner may change. */
export const HOUSE_RIGHTS: Readonly<Record<string, readonly Rank[]>> = {
  workerId: ALL,
  probe: HANDS_ON,
  products: TRUSTED,
}

export const mayDo = (asker: Asker, name: keyof typeof RIGHTS): boolean =>
  (RIGHTS[name].may as readonly Asker[]).includes(asker)

export const mayChangeHouse = (rank: Asker, part: string): boolean =>
  rank === 'owner' || ((HOUSE_RIGHTS[part] ?? []) as readonly Asker[]).includes(rank)

/** While a screen is locked, only the service that is under way on it goes on. */
export const LOCKED_MAY: readonly (keyof typeof RIGHTS)[] = [
  'visit',
  'client',
  'house',
  'follow',
  'followAll',
  'addEvent',
  'probe',
]
