/** What the trail says of each use, for people. */
import type { Use } from './rights.ts'

const USES: Readonly<Record<Use, string>> = {
  look: 'looked at',
  keep: 'kept for the day on a screen',
  change: 'changed',
  add: 'added',
  export: 'took out',
  print: 'printed',
  erase: 'erased',
  service: 'worked at the chair',
  people: 'people and safety of the house',
}

/** Things that routes are about; the rest is told by its use alone. */
const THINGS: Readonly<Record<string, string>> = {
  client: 'the client’s page',
  changeClient: 'the client’s details',
  addClient: 'the client',
  eraseClient: 'the client, with all that was kept',
  takeOutClient: 'everything, as a file (JSON)',
  record: 'everything, on paper (PDF)',
  report: 'the report (PDF)',
  visit: 'a visit',
  addVisit: 'a visit',
  addAppointment: 'an appointment',
  changeAppointment: 'an appointment',
  removeAppointment: 'an appointment made by mistake',
  changeVisit: 'a visit’s time or worker',
  follow: 'a service under way',
  saveAsked: 'what was asked, marks or consent',
  editReadings: 'the map of the grain',
  saveNotes: 'lines and hair',
  savePlan: 'the plan',
  saveProducts: 'products used',
  photo: 'a picture',
  addPhoto: 'a picture',
  removePhoto: 'a picture',
  care: 'aftercare',
  careSheet: 'the aftercare sheet',
  careCalendar: 'the aftercare calendar',
  changeMessage: 'a message',
  saveSkinAnswer: 'how the skin took it',
  removeSkinAnswer: 'an answer about the skin',
  addHairReading: 'a reading of regrowth',
  addHomeWork: 'work at home',
  removeHomeWork: 'work at home',
  removeHairReading: 'a reading of regrowth',
  addLink: 'a link page for the client',
  takeBackLinks: 'link pages',
  settle: 'which of two entries stands',
  decide: 'a word that lifts a finding',
  takeBackDecision: 'a word that lifted a finding',
  history: 'the history',
  methods: 'what each method came to',
  tide: 'the tide line',
  readingsCsv: 'answers, as a table (CSV)',
  seriesCalendar: 'visits, as a calendar',
  addImport: 'clients from a file',
  undoImport: 'clients of an import',
  changeHouse: 'the house',
  signIn: 'signed in',
  signInRefused: 'was refused at signing in',
  signOut: 'signed out',
  signOutEverywhere: 'signed out everywhere',
  changeSecret: 'changed their own figures',
  addWorker: 'added a worker',
  changeWorker: 'changed a worker’s rights or figures',
  newPairing: 'let a screen in',
  changeScreen: 'took a screen’s leave back',
  changeSafety: 'changed where backups lie',
  backUp: 'asked for a backup',
  prove: 'restored a backup for trial',
}

/** "looked at the client’s page". */
export function trailWords(use: string, what: string): string {
  const verb = USES[use as Use] ?? use
  const thing = THINGS[what]
  if (use === 'people') return thing ?? verb
  return thing && use !== 'service' ? `${verb} ${thing}` : verb
}
