/** The tide line of a client: from some visits back to the next window; or a stretch of earlier visits. */
import { readFigures } from '../house/service.ts'
import type { Figures } from '../../core/house/index.ts'
import {
  cutsAtHome,
  type HomeWork,
  homeWords,
  learnGrowth,
  meanGrowth,
  meanLeft,
  notCutAtHome,
} from '../../core/history/index.ts'
import { type Growth, growthAfter, tideCurve } from '../../core/regrowth/index.ts'
import {
  isPlanned,
  jobName,
  jobZones,
  kindOfWork,
  SERVICES,
  type Work,
} from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { upkeepLast, type UpkeepOutlook } from '../../core/ahead/index.ts'
import type { Client, Tide, VisitSummary } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { jobsLeft, readHair, shortJob, toLeft } from '../visits/record.ts'
import { readClient } from './read.ts'
import { readHome } from './readHome.ts'
import { soonestUpkeep, usualJob } from './upkeep.ts'

/** Visits on a stretch of the line: more would run into each other. */
const SHOWN = 8

/** How far back and ahead the line looks: far enough for eight visits, at most a year back. */
function spanNow(visits: readonly VisitSummary[], nowMs: number, toMs: number | undefined) {
  const ended = visits.filter((v) => v.endedAtMs !== null).map((v) => v.endedAtMs!)
  const eighth =
    ended.sort((a, b) => b - a)[SHOWN - 1] ?? ended[ended.length - 1] ?? nowMs - 30 * DAY_MS
  const back = Math.min(Math.max(nowMs - eighth, 14 * DAY_MS), 365 * DAY_MS)
  const ahead = Math.max((toMs ?? nowMs) - nowMs + back * 0.06, back * 0.24)
  return { fromMs: nowMs - back * 1.04, untilMs: nowMs + ahead }
}

/** What the line measures, and how high it is drawn at most: fuzz stays short whatever it is taken off for. */
function measured(work: Work, growth: Growth): Pick<Tide, 'hairWords' | 'topMm'> {
  const { words, lineMm } = SERVICES[work.service].hair
  return { hairWords: growth.curve === 'fuzz' ? 'Fuzz' : words, topMm: lineMm }
}

/** When such work was done, rising; a trial strip leaves the rest standing, and counts only while there was nothing else. */
function endsOf(visits: readonly VisitSummary[], kind: string): number[] {
  const ends = (trial: boolean) =>
    visits
      .filter(
        (v) =>
          v.state === 'finished' &&
          v.jobs.some((j) => kindOfWork(j) === kind && (j.trial === true) === trial),
      )
      .map((v) => v.endedAtMs!)
      .sort((a, b) => a - b)
  const whole = ends(false)
  return whole.length > 0 ? whole : ends(true)
}

/** The line up to now and on to the next window: that of the work that is due first, and those of the others. */
export function tideNow(
  figures: Figures,
  f: {
    readonly client: Client
    /** Newest first. */
    readonly visits: readonly VisitSummary[]
    readonly upkeeps: readonly UpkeepOutlook[]
    readonly home: readonly HomeWork[]
    /** What is expected of the hair while there was no visit. */
    readonly growth: Readonly<Record<string, Growth>>
    readonly nowMs: number
  },
): Tide {
  const { visits, upkeeps, nowMs } = f
  const first = soonestUpkeep(upkeeps)
  const latest = Math.max(...upkeeps.map((u) => u.window?.toMs ?? nowMs), nowMs)
  const span = spanNow(visits, nowMs, upkeeps.length > 0 ? latest : undefined)
  const lineOf = (u: UpkeepOutlook) => {
    const last = upkeepLast(u)
    const growth = growthAfter(figures, meanGrowth(u.growth)!, last.method)
    const kind = kindOfWork(last)
    const home = cutsAtHome(figures, u.zones, f.home)
    return {
      id: kind,
      name: isPlanned(last.method)
        ? SERVICES[last.service].name
        : jobName({ ...last, zones: u.zones }),
      curve: tideCurve(
        figures,
        endsOf(visits, kind),
        meanLeft(last.leftMm),
        growth,
        span.fromMs,
        nowMs,
        span.untilMs,
        home,
      ),
      home: shownHome(home, span),
      ...measured(last, growth),
      window: u.window,
    }
  }
  const shown = visits.filter((v) => (v.endedAtMs ?? v.slotAtMs ?? nowMs) >= span.fromMs)
  const usual = usualJob(f.client.service)
  const main = first
    ? lineOf(first)
    : {
        ...{ id: kindOfWork(usual), name: jobName(usual) },
        ...{ curve: { past: [], ahead: [] }, home: [], window: null },
        ...measured(usual, meanGrowth(f.growth)!),
      }
  return {
    ...main,
    others: upkeeps.filter((u) => u !== first).map(lineOf),
    visits: shown,
    nowMs,
    earlier: shown.length < visits.length,
    ...span,
  }
}

/** Work at home within a stretch. */
const shownHome = (
  cuts: ReturnType<typeof cutsAtHome>,
  { fromMs, untilMs }: Pick<Tide, 'fromMs' | 'untilMs'>,
): Tide['home'] =>
  cuts
    .filter((c) => c.atMs >= fromMs && c.atMs <= untilMs)
    .map(({ atMs, share, work }) => ({ atMs, share, words: homeWords(work) }))

/**
 * A stretch of earlier visits, so many stretches back; the line ends where the later one begins.
 * @param kind the work whose hair is drawn; that of the usual service when left out
 */
export async function earlierTide(
  db: Database,
  id: string,
  back: number,
  kind?: string,
): Promise<Tide> {
  const client = await readClient(db, id)
  const [rows, hair, home, figures] = await Promise.all([
    db.select<Omit<VisitSummary, 'jobs'> & { jobs: Parameters<typeof toLeft>[0] }>(
      `SELECT id, service, ${jobsLeft('visits')} AS jobs, state, slotAtMs, startedAtMs, endedAtMs, routine, worstRedness, bumps
       FROM visits WHERE clientId = ? AND state = 'finished' ORDER BY endedAtMs DESC LIMIT ?`,
      [id, SHOWN * (back + 1) + 1],
    ),
    readHair(db, id),
    readHome(db, id),
    readFigures(db),
  ])
  const left = rows.map((r) => toLeft(r.jobs))
  const all = rows.map(({ jobs: _jobs, ...v }, i): VisitSummary => ({
    ...v,
    jobs: left[i]!.map(shortJob),
  }))
  const wanted = kind ?? kindOfWork(usualJob(client.service))
  const last = left.flat().find((j) => kindOfWork(j) === wanted)
  const job = last ?? usualJob(client.service)
  const visits = all.slice(SHOWN * back, SHOWN * (back + 1))
  const nowMs = Date.now()
  const growth = growthAfter(
    figures,
    meanGrowth(learnGrowth(figures, client.skin, jobZones(job), notCutAtHome(hair, home)))!,
    job.method,
  )
  const newest = visits[0]?.endedAtMs ?? nowMs
  const oldest = visits.at(-1)?.endedAtMs ?? nowMs
  const pad = Math.max(DAY_MS, (newest - oldest) * 0.06)
  const span = { fromMs: oldest - pad, untilMs: Math.min(nowMs, newest + 2 * pad) }
  const cuts = cutsAtHome(figures, jobZones(job), home)
  const { past } = tideCurve(
    figures,
    endsOf(all, wanted),
    meanLeft(last?.leftMm ?? null),
    growth,
    span.fromMs,
    span.untilMs,
    span.untilMs,
    cuts,
  )
  return {
    ...{ id: wanted, name: jobName(job), home: shownHome(cuts, span), others: [] },
    curve: { past, ahead: [] },
    ...measured(job, growth),
    visits,
    window: null,
    nowMs,
    earlier: rows.length > SHOWN * (back + 1),
    ...span,
  }
}
