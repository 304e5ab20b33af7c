/** What takes long enough that a service at the chair would feel it: done on a thread, or here where there is none. */
import type { BusyIn } from '../../core/formats/index.ts'
import type { StudioLearned } from '../../core/history/index.ts'
import type { Reads } from '../db/reader.ts'
import { readBroughtIn, type BroughtIn } from '../imports/broughtIn.ts'
import type { TrailRow } from '../people/trail.ts'
import { learned, makeSums, type MadeSums } from '../studio/learned.ts'
import type { Proposed, ProposeAsked } from '../week/propose.ts'

/** What each task is given; it must be possible to send it to a thread. */
export interface Asked {
  /** A client's report as PDF. */
  readonly report: { readonly clientId: string }
  /** Everything kept of a client as PDF. */
  readonly record: { readonly clientId: string; readonly uses: readonly TrailRow[] }
  readonly sums: { readonly clientIds: readonly string[]; readonly nowMs: number }
  readonly learn: object
  /** A picture, read and written anew. */
  readonly picture: { readonly dataDir: string; readonly id: string; readonly bytes: Uint8Array }
  /** Many clients at once, as they came over the wire. */
  readonly broughtIn: { readonly text: string }
  /** Hours for those whose good days these are. */
  readonly propose: ProposeAsked
  /** A calendar to read busy times from. */
  readonly busy: { readonly text: string; readonly nowMs: number }
}

export interface Made {
  readonly report: Uint8Array
  readonly record: Uint8Array
  readonly sums: MadeSums[]
  readonly learn: StudioLearned
  readonly picture: { readonly width: number; readonly height: number }
  readonly broughtIn: BroughtIn
  readonly propose: Proposed
  readonly busy: BusyIn
}

export type TaskName = keyof Asked

export const TASKS: { [N in TaskName]: (db: Reads, asked: Asked[N]) => Promise<Made[N]> } = {
  // Charts and their library are fetched by the first report, not by every start.
  report: async (db, { clientId }) =>
    (await import('../clients/report.ts')).clientReport(db, clientId),
  record: async (db, { clientId, uses }) =>
    (await import('../clients/recordPaper.ts')).clientRecord(db, uses, clientId),
  sums: (db, { clientIds, nowMs }) => makeSums(db, clientIds, nowMs),
  learn: (db) => learned(db),
  picture: async (_db, { dataDir, id, bytes }) =>
    (await import('../photos/store.ts')).keepPhoto(dataDir, id, bytes),
  propose: async (db, asked) => (await import('../week/propose.ts')).propose(db, asked),
  busy: async (_db, { text, nowMs }) => (await import('../week/busy.ts')).readBusy(text, nowMs),
  broughtIn: (_db, { text }) => new Promise((read) => read(readBroughtIn(text))),
}
