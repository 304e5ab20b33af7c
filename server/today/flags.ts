/** What a client waits for, from what the overview tells of them. */
import type { Figures } from '../../core/house/index.ts'
import { NOTHING_ASKED } from '../../core/screening/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import { knownOf, pastOf, todayFlags } from '../../core/visit/index.ts'
import type { House } from '../../contract/types.ts'
import { kindOfWork } from '../../core/services/index.ts'
import { usualJob } from '../clients/upkeep.ts'
import type { Overview } from './overview.ts'

/** All that is known at a moment of the visit that is open, or of the one that would be opened. */
export function knownFrom(figures: Figures, o: Overview, house: House, nowMs: number) {
  const { open, client, past, decisions, upkeeps } = o
  const jobs = open?.jobs ?? [o.next ? { ...o.next.job, id: 'next' } : usualJob(client.service)]
  const windows = jobs.flatMap((job) => {
    const same = upkeeps.find((u) => kindOfWork(u.job) === kindOfWork(job))
    return same?.window ? [{ jobId: job.id, window: same.window }] : []
  })
  const visit = {
    jobs,
    workerId: open?.workerId ?? house.workerId,
    asked: open?.asked ?? NOTHING_ASKED,
    notes: { outlines: open?.outlines ?? [] },
    // What the map and the plan say is told at the stations.
    readings: [],
    plan: null,
    planMadeAtMs: null,
  }
  const facts = {
    ...{ past: past.map(pastOf), windows, decisions, busy: [], bornOn: client.bornOn },
    ...open?.newcomer,
  }
  return knownOf(figures, visit, house, client.schools, facts, nowMs, offsetHere)
}

/** The flags of a client. */
export const flagsOf = (figures: Figures, o: Overview, house: House, nowMs: number) =>
  todayFlags(figures, {
    known: knownFrom(figures, o, house, nowMs),
    ...(o.open && { open: o.open }),
  })
