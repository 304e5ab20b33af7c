/** What a client waits for today, as plain flags: what alarms, what stands in the way, what is owed, what is too soon. */
import type { Figures } from '../house/index.ts'
import { leftOpenSince } from '../chair/index.ts'
import { dateAt, dayWords } from '../time/index.ts'
import { aftermathOf, owedAnswer } from '../looks/index.ts'
import { patchReadable } from './asking.ts'
import { gate } from './gate.ts'
import { kindOfWork } from '../services/index.ts'
import { lastToOpen, lookFirst } from './skin.ts'
import type { Known, VisitFinding } from './types.ts'

/** A plain flag on the tide table. */
export interface TodayFlag {
  kind: 'alarm' | 'coral' | 'brass' | 'kelp'
  text: string
  /** The visit at whose Return it is answered; the chair, where a service is ended. */
  to?: { readonly station: 'return' | 'chair'; readonly visitId: string }
  /** The client is rung up: the telephone number stands beside it. */
  ring?: true
}

/** What the flags depend on. */
export interface FlagInput {
  /** Everything that is known of the visit that is open, or would be opened. */
  readonly known: Known
  /** The visit that is open or running. */
  readonly open?: {
    readonly id: string
    readonly state: string
    readonly slotAtMs: number | null
    /** Last event of a service under way. */
    readonly lastAtMs?: number | undefined
  }
}

/** The flags of a client, and how many answers and patch tests among them wait. */
export function todayFlags(
  figures: Figures,
  { known, open }: FlagInput,
): {
  flags: TodayFlag[]
  owed: number
  patch: number
} {
  const { nowMs, past } = known
  const window = lastToOpen(known)?.window
  const on = (ms: number) => dateAt(ms, known.offset)
  const today = on(nowMs)
  const flags: TodayFlag[] = alarms(known, today, on)
  let owed = 0
  let patch = 0
  const findings = gate(known).findings.filter((f) => !f.decided)
  if (open?.state === 'running') {
    const since = leftOpenSince(
      figures,
      { status: 'running', lastAtMs: open.lastAtMs ?? nowMs },
      nowMs,
    )
    flags.push({
      kind: 'coral',
      text:
        since === undefined
          ? 'In the chair now'
          : `Left open since ${dayWords(on(since), today)}: end it`,
      to: { station: 'chair', visitId: open.id },
    })
  } else if (open && patchReadable(figures, known)) {
    patch = 1
    flags.push({ kind: 'brass', text: 'Patch test to read today' })
  } else if (open) {
    // What alarms is not said twice.
    const alarmed = flags.length > 0
    const held = gravest(findings.filter((f) => !alarmed || f.about !== 'aftermath'))
    if (held) flags.push({ kind: 'coral', text: heldFlag(held, today) })
  }
  const [last] = past
  if (!last) {
    flags.push({ kind: 'kelp', text: 'First visit: no map yet' })
    return { flags, owed, patch }
  }
  const answer = owedAnswer(figures, last.endedAtMs, last.answers, nowMs)
  if (answer) {
    owed = 1
    const to = { station: 'return', visitId: last.visitId } as const
    flags.push({ kind: 'brass', text: answer, to, ring: true })
  }
  const unsettled = findings.find((f) => f.about === 'unsettled')
  if (unsettled?.until) {
    flags.push({
      kind: 'coral',
      text: `${unsettled.title}: wait until ${dayWords(unsettled.until, today)}`,
    })
  } else if (
    window &&
    open?.state === 'open' &&
    open.slotAtMs !== null &&
    on(open.slotAtMs) < on(window.fromMs) &&
    today < on(window.fromMs)
  ) {
    flags.push({
      kind: 'coral',
      text: lookFirst(window, known.offset, today)
        ? `Look first: skin likely clear from ${dayWords(on(window.skinMs), today)} (H)`
        : `Too soon: wait until ${dayWords(on(window.fromMs), today)}`,
    })
  }
  return { flags, owed, patch }
}

/** What holds a service back before anybody comes to it. */
const HOLDING: ReadonlySet<VisitFinding['about']> = new Set([
  'rule',
  'aftermath',
  'course',
] as const)

/** What asking or the last visit holds the service back with: what has no day first, then the latest day. */
function gravest(findings: readonly VisitFinding[]): VisitFinding | undefined {
  const held = findings.filter((f) => HOLDING.has(f.about) && f.holds === 'plan')
  const rank = (f: VisitFinding) => (f.severity === 'stop' ? '~~' : (f.until ?? '~'))
  return [...held].sort((a, b) => rank(b).localeCompare(rank(a)))[0]
}

/** What holds a visit on that day back whatever is asked and read before it, in words; undefined where nothing does. */
export function heldBack(known: Known): string | undefined {
  const findings = gate(known).findings.filter((f) => !f.decided)
  const held = gravest(findings) ?? findings.find((f) => f.about === 'unsettled')
  return held && heldFlag(held, dateAt(known.nowMs, known.offset))
}

function heldFlag(f: VisitFinding, today: string): string {
  if (f.severity === 'stop') return `Stop and refer: ${lower(f.title)}`
  const until = f.until === undefined ? '' : ` until ${dayWords(f.until, today)}`
  return `Postpone${until}: ${lower(f.title)}`
}

/** A severe answer that a client gave and that nobody has looked into yet. */
function alarms(
  { past, decisions, figures }: Known,
  today: string,
  on: (ms: number) => string,
): TodayFlag[] {
  return past.flatMap((p): TodayFlag[] => {
    const found = aftermathOf(figures, p)
    if (!found || found.source === 'seen') return []
    // Whoever has served it since has had it before the eyes.
    const same = (o: typeof p) =>
      o.jobs.some((a) => p.jobs.some((b) => kindOfWork(a) === kindOfWork(b)))
    if (past.some((o) => same(o) && o.endedAtMs > found.toldAtMs)) return []
    const looked = decisions.some(
      (d) =>
        d.finding === alarmId(p.visitId) && d.takenBackAtMs === null && d.atMs > found.toldAtMs,
    )
    return looked
      ? []
      : [
          {
            kind: 'alarm',
            text: `${dayWords(on(found.toldAtMs), today)}: ${found.signs.join(', ')}`,
            to: { station: 'return', visitId: p.visitId },
            ring: true,
          },
        ]
  })
}

/** What "somebody has looked into it" is written down under. */
export const alarmId = (visitId: string): string => `alarm:${visitId}`

const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)
