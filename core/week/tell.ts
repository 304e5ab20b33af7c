/** What clients are told of their hours. Titles say nothing of what is done: a phone shows them to whoever looks. */
import type { MessageDraft, MessageKind } from '../care/index.ts'

export interface HourTold {
  readonly house: string
  /** As the client likes to be called. */
  readonly name: string
  /** "Thu 3 Dec, 10:00". */
  readonly when: string
  readonly worker: string
  /** Where the client answers. */
  readonly link?: string | undefined
  /** The hour that it was. */
  readonly was?: string | undefined
}

const hello = ({ name }: HourTold) => (name ? `Hello ${name},` : 'Hello,')
const draft = (
  t: HourTold,
  kind: MessageKind,
  subject: string,
  text: string,
): Omit<MessageDraft, 'dueAtMs'> => ({
  kind,
  subject: `${t.house}: ${subject}`,
  text: `${hello(t)}\n\n${text}\n\n${t.house}`,
})
const answerHere = (t: HourTold, words: string) => (t.link ? `\n${words} here: ${t.link}` : '')

export const HOUR_DRAFTS = {
  reminder: (t: HourTold) =>
    draft(
      t,
      'reminder',
      'your hour',
      `you are expected on ${t.when} with ${t.worker}.${answerHere(t, 'Say that you come, ask for another hour, or cancel')}`,
    ),
  late: (t: HourTold) =>
    draft(
      t,
      'late',
      'running a little late',
      `we are running a little late today: ${t.worker} can begin about ${t.when} instead of ${t.was}. Sorry for the wait.${answerHere(t, 'If that does not suit you, take another hour')}`,
    ),
  moved: (t: HourTold) =>
    draft(
      t,
      'moved',
      'another hour',
      `your hour of ${t.was} is moved to ${t.when} with ${t.worker}.${answerHere(t, 'Say whether that suits you, or take another')}`,
    ),
  offer: (t: HourTold) =>
    draft(
      t,
      'offer',
      'an hour came free',
      `an hour came free: ${t.when} with ${t.worker}. Whoever takes it first has it.${answerHere(t, 'Take it')}`,
    ),
  gone: (t: HourTold) =>
    draft(
      t,
      'gone',
      'that hour is gone',
      `the hour on ${t.when} has been taken by somebody else. You stay on our list.`,
    ),
} as const

export type HourKind = keyof typeof HOUR_DRAFTS
