/**
 * The jobs of a sitting as one row of steps: asked once, prepared once, closed once. Dry before wet, strays before fuzz, fuzz
 * before lather; the razor on a line before or after a shave by school. Common practice; times are house estimates.
 */
import { capital, lowerFirst } from '../words.ts'
import { constant, DEFAULT_SCHOOLS, type Figures } from '../house/index.ts'
import {
  byRoot,
  cleanse,
  HAND_METHODS,
  type HandMethod,
  methodFacts,
  type Posture,
  type Service,
  SERVICES,
} from '../services/index.ts'
import type { BladeId } from '../kit/index.ts'
import { closing, COLD_TOWEL } from './routine.ts'
import { stepMinutes, type HandWork, type Lane, type PlanStep, type ZonePlan } from './types.ts'
import { slipsOf, walkParts, type WalkedParts, type WalkInput } from './walk.ts'

export const SITTING_CONSTANTS = {
  placeMin: constant(0.3, 'min', 'The client is placed anew between two jobs', 'H'),
  wipeMin: constant(0.5, 'min', 'Wipe off one job’s lather or film before the next', 'H'),
} as const

/** What of a sitting one service does, with its lanes in order. */
export interface Part {
  readonly input: WalkInput
  readonly zones: readonly ZonePlan[]
  readonly lanes: readonly Lane[]
}

/** The whole sitting walked through. */
export interface Sat {
  readonly steps: readonly PlanStep[]
  /** Blades of each part, in the order in which they were given. */
  readonly blades: readonly ReadonlyMap<BladeId, number>[]
  readonly totalMinutes: number
}

/** Dry hair is shortened, strays come out, wax wants dry skin: all before anything wet. */
const HAND_ORDER: readonly HandMethod[] = ['trimmer', 'tweezers', 'thread', 'wax']

/** How wet a service is, and so when its turn comes: fuzz on dry skin, fuzz on a film, then the razors. */
function turnOf({ input, zones }: Pick<Part, 'input' | 'zones'>): number {
  const { service, schools } = input
  const { family, alongLines }: Service = SERVICES[service]
  if (family === 'fuzz') return slipsOf(input, zones).every((s) => s.slip === 'dry') ? 0 : 1
  if (!alongLines) return 3
  return schools.lineInSitting === 'line-first' ? 2 : 4
}

/** The parts in the order in which they are done: their places in the list given. */
export const inTurn = (parts: readonly Pick<Part, 'input' | 'zones'>[]): number[] =>
  parts.map((_, i) => i).sort((a, b) => turnOf(parts[a]!) - turnOf(parts[b]!) || a - b)

/** What is done by hand, in the order in which it is done. */
export const handInTurn = (hand: readonly HandWork[]): HandWork[] =>
  [...hand].sort((a, b) => HAND_ORDER.indexOf(a.method) - HAND_ORDER.indexOf(b.method))

/** The step of what is done by hand. */
export const handStep = (work: HandWork): PlanStep => ({
  id: `hand:${work.jobId}`,
  kind: 'hand',
  title: work.name,
  text: `${HAND_METHODS[work.method].text}${methodFacts(work.method).root ? ' Not over a mark that is left out.' : ''}`,
  minutes: work.minutes,
  jobId: work.jobId,
  ...(work.zones[0] && { zoneId: work.zones[0], zoneIds: work.zones }),
})

const isCleanse = (s: PlanStep) => s.id === 'prepare:cleanse'
const isDry = (s: PlanStep) => s.kind === 'feel' || s.id === 'prepare:tweeze'

/** True where more than single hairs come out by the root. */
const tears = (hand: readonly HandWork[]): boolean =>
  hand.some((h) => byRoot(h.method) && h.method !== 'tweezers')

/** A sitting of which nothing is done with a blade. */
export function walkHand(figures: Figures, hand: readonly HandWork[], noFragrance: boolean): Sat {
  const plain = noFragrance ? '; nothing scented' : ''
  const steps: PlanStep[] = [
    { ...cleanse({ figures, schools: DEFAULT_SCHOOLS, plain }), kind: 'prepare' },
    ...handInTurn(hand).map(handStep),
    ...closing(
      figures,
      {
        secondLook: 'In side light: single hairs that were left come out with tweezers.',
        cools: tears(hand) ? 'compress' : 'nothing',
      },
      noFragrance,
    ),
  ]
  return { steps, blades: [], totalMinutes: stepMinutes(steps) }
}

/** Walks through a sitting. One part alone is walked as it is. */
export function walkSitting(parts: readonly Part[], hand: readonly HandWork[]): Sat {
  const walked = parts.map((p) => walkParts(p.input, p.lanes, p.zones))
  const blades = walked.map((w) => w.blades)
  const told = (steps: PlanStep[]): Sat => ({ steps, blades, totalMinutes: stepMinutes(steps) })
  const [only] = walked
  if (walked.length === 1 && hand.length === 0)
    return told([...only!.before, ...only!.strokes, ...only!.after])
  const order = inTurn(parts)
  const turns = order.map((i) => ({
    ...walked[i]!,
    input: parts[i]!.input,
    nth: i,
    laid: turnOf(parts[i]!) > 0,
  }))
  const before = turns.flatMap((t) => t.before)
  const cleanse = before.find(isCleanse)
  const steps: PlanStep[] = [
    ...(cleanse ? [cleanse] : []),
    ...before.filter((s) => s.kind === 'feel'),
    ...tweezed(before, hand),
    ...handInTurn(hand).map(handStep),
  ]
  const done = new Set<string>()
  let wet = false
  turns.forEach(({ before: own, strokes, input, nth, laid }, turn) => {
    const film = SERVICES[input.service].lather
    const suffix = nth === 0 ? '' : `:s${nth + 1}`
    if (wet && !film) steps.push(wipe(input, suffix))
    const { posture } = SERVICES[input.service]
    const before = turns[turn - 1] && SERVICES[turns[turn - 1]!.input.service].posture
    if (before !== undefined && before !== posture) steps.push(placed(input, posture, suffix))
    for (const s of own) {
      if (isCleanse(s) || isDry(s)) continue
      if (!done.has(s.id)) steps.push(s)
      else if (s.lays === 'lather') steps.push({ ...s, id: `${s.id}${suffix || ':s1'}` })
      done.add(s.id)
    }
    steps.push(...strokes.map((s) => (s.kind === 'lather' ? { ...s, id: `${s.id}${suffix}` } : s)))
    wet = film || laid || turn > 0
  })
  return told([...steps, ...closed(turns, hand)])
}

/** Strays of all parts are tweezed at once; where tweezers are a job of their own they are part of it. */
function tweezed(before: readonly PlanStep[], hand: readonly HandWork[]): PlanStep[] {
  const own = before.filter((s) => s.id === 'prepare:tweeze')
  const [first, ...more] = own
  if (!first || hand.some((h) => h.method === 'tweezers')) return []
  if (more.length === 0) return [first]
  return [{ ...first, text: own.map((s) => s.text).join(' '), minutes: stepMinutes(own) }]
}

const wipe = ({ figures }: WalkInput, suffix: string): PlanStep => ({
  id: `prepare:wipe${suffix}`,
  kind: 'prepare',
  title: 'Wipe off, dry',
  text: 'A damp cloth, then a dry one: what comes next wants to see its skin.',
  minutes: figures(SITTING_CONSTANTS.wipeMin),
  wipes: true,
})

const PLACED: Readonly<Record<Posture, string>> = {
  reclined: 'Lay the client back',
  upright: 'Sit the client up',
  lying: 'The client lies down',
}

const placed = ({ figures }: WalkInput, posture: Posture, suffix: string): PlanStep => ({
  id: `prepare:placed${suffix || ':s1'}`,
  kind: 'prepare',
  title: PLACED[posture],
  text: 'Blade put down first. Head and neck are held.',
  minutes: figures(SITTING_CONSTANTS.placeMin),
})

/** One second look for all, the coolest close that any of them has. */
function closed(
  turns: readonly (WalkedParts & { readonly input: WalkInput })[],
  hand: readonly HandWork[],
): PlanStep[] {
  const after = turns.map((t) => t.after)
  const [{ input }] = turns as [(typeof turns)[number]]
  // What tears skin is cooled, whatever else was done.
  if (tears(hand))
    after.push(
      closing(
        input.figures,
        { secondLook: '', cools: 'compress' },
        input.screening.noFragrance,
      ).filter((s) => s.id === 'close:cold'),
    )
  const checks = after.flatMap((steps) => steps.filter((s) => s.kind === 'check'))
  const cold = after
    .flatMap((steps) => steps.filter((s) => s.id === 'close:cold'))
    .sort((a, b) => b.minutes - a.minutes || coldness(b) - coldness(a))[0]
  const soothe = after.flat().find((s) => s.id === 'close:soothe')
  const off = after.flat().find((s) => s.id === 'close:off')
  const third = after.flat().find((s) => s.id === 'close:third')
  const [check] = checks
  if (!check || !soothe) return []
  const texts = turns.map((t) => {
    const own = t.after.find((s) => s.kind === 'check')!
    return turns.length === 1
      ? own.text
      : `${SERVICES[t.input.service].name}: ${lowerFirst(own.text)}`
  })
  return [
    ...(off ? [off] : []),
    {
      ...check,
      text: capital(texts.join(' ')),
      minutes: Math.max(...checks.map((s) => s.minutes)),
    },
    ...(third ? [third] : []),
    ...(cold && input.schools.balmOrder === 'balm-cold' && cold.title === COLD_TOWEL
      ? [soothe, cold]
      : [...(cold ? [cold] : []), soothe]),
  ]
}

/** A towel cools more than a compress. */
const coldness = (s: PlanStep) => (s.title === COLD_TOWEL ? 1 : 0)
