/** What stands between a plan and the first stroke: the map, the plan itself, the hand, the chair. */
import { zoneName, type ZoneId } from '../zones/index.ts'
import { BLADES } from '../kit/index.ts'
import type { Screening } from '../screening/index.ts'
import { strokedZones } from '../services/index.ts'
import { isClosed, keptLines, OUTLINE_WORDS } from '../lines/index.ts'
import { oddsWords } from '../stats/index.ts'
import type { Known, VisitFinding } from './types.ts'
import { zoneWords } from './skin.ts'

/** Zones whose grain is only a guess: by the lanes of the plan where there is one, else by the readings. */
export function guessedZones({ plan, jobs, readZones }: Known): ZoneId[] {
  if (plan && plan.lanes.some((l) => l.grain !== undefined)) {
    return [...new Set(plan.lanes.filter((l) => l.grain === 'guess').map((l) => l.zoneId))]
  }
  const worked = plan ? plan.zones.map((z) => z.zoneId) : strokedZones(jobs)
  return worked.filter((z) => !readZones.includes(z))
}

/** Zones that nobody has read, or only in part. */
export function unreadFinding(known: Known): VisitFinding[] {
  const guessed = guessedZones(known)
  if (guessed.length === 0) return []
  const all = known.plan?.zones.length ?? strokedZones(known.jobs).length
  const part = guessed.some((z) => known.readZones.includes(z))
  const how = part ? 'not read, or only in part' : 'not read'
  return [
    {
      about: 'map',
      id: 'unread',
      severity: 'take-care',
      title:
        guessed.length === all && !part
          ? 'No zone has been read'
          : guessed.length === 1
            ? `${zoneName(guessed[0]!)} is ${how}`
            : `${guessed.length} of ${all} zones are ${how}`,
      text: `There the grain is a guess: ${guessed.length === all ? 'each is' : `${zoneWords(guessed)} ${guessed.length === 1 ? 'is' : 'are'}`} felt first, at the chair or now at Read.`,
      mark: 'C',
      holds: 'nothing',
      lift: ['read-grain'],
      by: 'worker',
      zones: guessed,
    },
  ]
}

/** No plan, one that knows less than is known now, or one above the house's limit. */
export function planFindings(known: Known, screening: Screening): VisitFinding[] {
  const { plan, planMadeAtMs, readAtMs } = known
  const finding = (
    part: Pick<VisitFinding, 'id' | 'severity' | 'title' | 'text' | 'holds'> & { mark?: 'H' | 'C' },
  ): VisitFinding => ({ about: 'plan', mark: 'C', lift: ['plan'], by: 'worker', ...part })
  if (!plan) {
    return [
      finding({
        id: 'no-plan',
        severity: 'postpone',
        title: 'No plan is kept yet',
        text: 'The chair follows a kept plan: look it over and keep it.',
        holds: 'start',
      }),
    ]
  }
  const out: VisitFinding[] = []
  const news = knowsMore(screening, plan.screening)
  const drawn = drawnSince(known, plan)
  if (news.length > 0) {
    out.push(
      finding({
        id: 'plan-behind',
        severity: 'postpone',
        title: 'The plan does not know all that was asked',
        text: `Since it was kept: ${news.join('; ')}. Plan again.`,
        holds: 'start',
      }),
    )
  } else if (drawn.length > 0) {
    out.push(
      finding({
        id: 'drawn-newer',
        severity: 'postpone',
        title: 'What was drawn is newer than the plan',
        text: `Since it was kept: ${drawn.join('; ')}. Plan again.`,
        holds: 'start',
      }),
    )
  } else if (planMadeAtMs !== null && readAtMs !== undefined && readAtMs > planMadeAtMs) {
    out.push(
      finding({
        id: 'map-newer',
        severity: 'take-care',
        title: 'The map is newer than the plan',
        text: 'Zones were read after it was kept. Plan again to follow them.',
        holds: 'nothing',
      }),
    )
  }
  const over = plan.overLimit ?? []
  if (over.length > 0) {
    const worst = over.reduce((a, b) => (b.odds > a.odds ? b : a))
    out.push(
      finding({
        id: 'over-limit',
        severity: 'take-care',
        title:
          over.length === 1
            ? `${worst.name} stands above the limit of redness`
            : `${over.length} zones stand above the limit of redness`,
        text: `${over.length === 1 ? 'It' : `${worst.name}, the most,`} reddens to 2 or more in about ${oddsWords(worst.odds)}; the house’s limit is ${oddsWords(worst.limit)}.`,
        mark: 'H',
        holds: 'nothing',
      }),
    )
  }
  return out
}

/** What was drawn since a plan was made: a trial strip, an area, a place that rests, a line to keep. */
function drawnSince({ planMadeAtMs, notes }: Known, plan: NonNullable<Known['plan']>): string[] {
  const { outlines = [], lines = [] } = notes ?? {}
  const trial = outlines.some((o) => o.kind === 'trial' && isClosed(o))
  const newer = ({ drawnAtMs }: { readonly drawnAtMs: number }) => drawnAtMs > (planMadeAtMs ?? 0)
  return [
    ...(trial === (plan.trial === true)
      ? []
      : [trial ? 'a trial strip, the only place to work' : 'the trial strip is gone']),
    ...outlines
      .filter((o) => newer(o) && (o.kind !== 'trial' || plan.trial))
      .map((o) => OUTLINE_WORDS[o.kind]),
    ...(keptLines(lines).some(newer) ? ['a line to keep'] : []),
  ]
}

/** What is known now and was not when a plan was made, in words. */
function knowsMore(now: Screening, then: Screening): string[] {
  const zones = now.leaveOutZones.filter((z) => !then.leaveOutZones.includes(z))
  const same = (a: Screening['leaveOutSpots'][number], b: typeof a) =>
    a.id === b.id && a.radiusMm <= b.radiusMm && (a.marginMm ?? 0) <= (b.marginMm ?? Infinity)
  const spots = now.leaveOutSpots.filter((s) => !then.leaveOutSpots.some((t) => same(s, t)))
  return [
    ...(now.withGrainOnly && !then.withGrainOnly ? ['with the grain only'] : []),
    ...(now.onePass && !then.onePass ? ['one pass only'] : []),
    ...(now.noFragrance && !then.noFragrance ? ['nothing scented'] : []),
    ...(zones.length > 0 ? [`leave out ${zoneWords(zones)}`] : []),
    ...(spots.length > 0
      ? [
          spots.length === 1
            ? 'one more mark to leave out'
            : `${spots.length} more marks to leave out`,
        ]
      : []),
  ]
}

/** Bare blades in hands that are still learning; a worker who already has somebody in the chair. */
export function handFindings({ plan, worker, busy }: Known): VisitFinding[] {
  const bare = new Set(
    worker?.level === 'learning'
      ? (plan?.lanes ?? []).filter((l) => BLADES[l.bladeId].practised).map((l) => l.blade)
      : [],
  )
  return [
    ...(bare.size > 0
      ? [
          {
            about: 'hand' as const,
            id: 'bare-blade',
            severity: 'stop' as const,
            title: 'A bare blade is only for practised hands',
            text: `The plan lays out ${[...bare].join(', ')}. Plan again for who works, or choose who works at Ask.`,
            mark: 'C' as const,
            holds: 'start' as const,
            lift: ['plan'] as const,
            by: 'worker' as const,
          },
        ]
      : []),
    ...busyFinding(busy),
  ]
}

/** One finding however many they are: what else stands in the way must stay in view beside it. */
function busyFinding(busy: Known['busy']): VisitFinding[] {
  const [latest, ...others] = [...busy].sort((a, b) => b.lastAtMs - a.lastAtMs)
  if (!latest) return []
  return [
    {
      about: 'busy',
      id: `busy:${busy.map((b) => b.visitId).join()}`,
      severity: 'stop',
      title:
        others.length === 0
          ? `${latest.name} is still in the chair`
          : `${latest.name} and ${others.length} more are still in the chair`,
      text: 'One worker has one client in the chair: end that service first, or say that both go on.',
      mark: 'C',
      holds: 'start',
      lift: ['end-other', 'beside'],
      by: 'worker',
      visitId: latest.visitId,
    },
  ]
}
