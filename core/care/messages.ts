/** What would be sent to a client after a service, and when. Nothing is sent: a house reads, changes or takes it back. */
import { humaneMs, type Offset } from '../time/index.ts'
import { careText } from './careWords.ts'
import type { CarePlan } from './clearances.ts'

/**
 * What a message is for: the care sheet, a question how the skin is, a word before the next visit; and of hours in the book: a
 * reminder, that the day runs late, that an hour is moved, that one came free, that it is gone.
 */
export const MESSAGE_KINDS = [
  'care', 'question', 'next', 'reminder', 'late', 'moved', 'offer', 'gone',
] as const // prettier-ignore
export type MessageKind = (typeof MESSAGE_KINDS)[number]

export interface MessageDraft {
  readonly kind: MessageKind
  readonly subject: string
  readonly text: string
  readonly dueAtMs: number
}

export interface MessageFacts {
  readonly care: CarePlan
  /** What was done: "Hot-towel face shave". */
  readonly what: string
  readonly name: string
  readonly house: string
  /** Titles say nothing of what was done. */
  readonly neutral?: boolean | undefined
  /** When to remind of the next visit; left out when no window is known. */
  readonly nextFromMs?: number | undefined
  /** What is due then, where that is not all of it. */
  readonly nextWhat?: string | undefined
  readonly when: (ms: number) => string
  /** Minutes east of UTC at a moment: what is not asked for at once comes at humane hours. */
  readonly offset: Offset
}

/** The aftercare at once, a question when each answer is due, a word before the next visit's window. */
export function messagesFor(m: MessageFacts): MessageDraft[] {
  const service = m.what
  const hello = m.name ? `Hello ${m.name},` : 'Hello,'
  const out: MessageDraft[] = [
    {
      kind: 'care',
      subject: m.neutral ? m.house : `After your ${service.toLowerCase()}`,
      text: `${hello}\n\n${careText(m.care, '', service, m.when)}\n\n${m.house}`,
      dueAtMs: m.care.endedAtMs,
    },
  ]
  const lookFirst = m.care.today.length > 0 ? `${m.care.today.join(' ')}\n` : ''
  for (const c of m.care.clearances) {
    if (!c.asks) continue
    out.push({
      kind: 'question',
      subject: m.neutral ? `${m.house}: a question` : 'How is your skin?',
      text: `${hello}\n\n${lookFirst}${c.text}\nTell us zone by zone: 0 clear, 1 almost clear, 2 mild, 3 moderate, 4 severe. “All clear” is an answer too.\n\n${m.care.notNormal}\n\n${m.house}`,
      dueAtMs: humaneMs(c.fromMs, m.offset),
    })
  }
  if (m.nextFromMs !== undefined && m.nextFromMs > m.care.endedAtMs) {
    out.push({
      kind: 'next',
      subject: m.neutral ? `${m.house}: a reminder` : 'Good days for the next visit are near',
      text: `${hello}\n\nyour skin will soon be ready for the next ${(m.nextWhat ?? service).toLowerCase()}. Say which day suits you.\n\n${m.house}`,
      dueAtMs: humaneMs(m.nextFromMs, m.offset),
    })
  }
  return out.sort((a, b) => a.dueAtMs - b.dueAtMs)
}
