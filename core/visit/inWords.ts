/** A visit in a few words a row: what it came to, for the end of a service and for two visits beside each other. */
import type { ChairState } from '../chair/index.ts'
import { bumps, worst, type ComparedVisit } from '../history/index.ts'
import type { Figures } from '../house/index.ts'
import { groupsOf, type Plan } from '../plan/index.ts'
import { RULES, type Asked } from '../screening/index.ts'
import { sum } from '../stats/index.ts'
import { lowerFirst } from '../words.ts'
import { zoneName } from '../zones/index.ts'

/** What is told, in words; and what stands beside it, smaller. */
export interface Told {
  readonly name: string
  readonly words: string
  readonly beside?: string
}

/** A finished service against its plan. */
export function serviceInWords(plan: Plan, state: ChairState): Told[] {
  const skipped = outcomes(state, 'skipped')
  const red = state.looked?.filter((z) => z.redness > 0) ?? []
  const look = state.looked ? 'clear' : 'not read'
  return [
    {
      name: 'Time',
      words: `${Math.round(state.spentMs / 60_000)} min`,
      beside: `planned ${Math.round(plan.totalMinutes)} min`,
    },
    { name: 'Blades', words: `${state.blades.length}`, beside: `planned ${plan.bladeCount}` },
    { name: 'Nicks', words: `${state.nicks.length}` },
    { name: 'Skipped', words: `${skipped.length}` },
    {
      name: 'First look',
      words: red.length > 0 ? `grade ${Math.max(...red.map((z) => z.redness))}` : look,
      ...(red.length > 0 && { beside: red.map((z) => zoneName(z.zoneId)).join(', ') }),
    },
  ]
}

/** A visit as it is set beside another: map, plan and service, then how the skin took it. */
export interface VisitInWords extends ComparedVisit {
  readonly plan: Plan | null
  readonly chair: ChairState
}

export function visitInWords(figures: Figures, visit: VisitInWords): Told[] {
  const { plan, chair, readings, endedAtMs, answers } = visit
  const redness = endedAtMs === null ? undefined : worst(figures, visit)
  const counted = endedAtMs === null ? undefined : bumps(figures, visit)
  const stings = answers.flatMap((a) => a.feeling?.stinging ?? [])
  return [
    { name: 'Map', words: `${readings.length} readings` },
    { name: 'Plan', words: plan ? planWords(plan) : 'none' },
    { name: 'Lanes', words: plan && plan.lanes.length > 0 ? laneWords(plan, chair) : '–' },
    { name: 'Blades', words: bladeWords(plan, chair) },
    {
      name: 'Redness',
      words: redness ? `worst ${Math.max(0, ...redness.values())}` : 'not answered',
    },
    { name: 'Bumps', words: counted ? `${sum(counted.values())}` : 'not counted' },
    { name: 'Felt', words: stings.length > 0 ? `stung up to ${Math.max(...stings)} of 10` : '–' },
    { name: 'Nicks', words: `${chair.nicks.length}` },
  ]
}

/** Steps that came out so. */
const outcomes = ({ outcomes: of }: ChairState, as: 'done' | 'skipped'): string[] =>
  Object.keys(of).filter((id) => of[id] === as)

function planWords({ zones, totalMinutes, style }: Plan): string {
  const passes = Math.max(0, ...zones.map((z) => z.passes.length))
  return `${Math.round(totalMinutes)} min, ${passes === 1 ? 'one pass' : `up to ${passes} passes`}, ${style}`
}

function laneWords({ lanes }: Plan, chair: ChairState): string {
  const groups = groupsOf(lanes)
  const [done, skipped] = (['done', 'skipped'] as const).map((as) => {
    const ids = new Set(outcomes(chair, as))
    return groups.filter((g) => ids.has(g.id)).length
  })
  return `${done} of ${groups.length} done${skipped! > 0 ? `, ${skipped} left out` : ''}`
}

function bladeWords(plan: Plan | null, chair: ChairState): string {
  const names = [...new Set(plan?.lanes.map((l) => l.blade) ?? [])]
  return `${chair.blades.length} used${names.length > 0 ? `: ${names.join(', ')}` : ''}`
}

/** What asking found, for a record: no answer is not a no. */
export function askedInWords(asked: Asked | undefined): string {
  if (!asked) return 'What was asked is told here once a visit is finished.'
  const answers = RULES.flatMap((rule) => {
    const answer = asked.answers[rule.id]
    return answer ? [{ rule, answer }] : []
  })
  if (answers.length === 0) return 'Nothing was asked at the last visit: that is not "no".'
  const found = answers
    .filter(({ answer }) => answer.yes)
    .map(({ rule, answer }) => `${lowerFirst(rule.short)}${answer.date ? ` (${answer.date})` : ''}`)
  return found.length > 0
    ? `Asked at the last visit: ${found.join('; ')}.`
    : 'Nothing was found by asking at the last visit.'
}
