/** The kinds of plan side by side, in figures. */
import { useUnits, type UnitWords } from '../../state/shape.ts'
import { Table } from '@mantine/core'
import { offeredKinds, planFigures, type PlanFigures } from '../../../core/plan/index.ts'
import { type Style, STYLES } from '../../../core/services/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { hoursWords } from '../../state/words.ts'
import type { EstimateId } from '../../../core/estimates/index.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import type { Planned } from '../../workers/plans.ts'

export const NAMES: Readonly<Record<Style, string>> = {
  gentlest: 'Gentlest',
  balanced: 'Balanced',
  closest: 'Closest',
}

const ROWS: readonly (readonly [
  string,
  EstimateId | undefined,
  (f: PlanFigures, units: UnitWords) => string,
])[] = [
  ['Minutes', 'plan-minutes', (f) => `${f.minutes}`],
  ['Load, mean over the skin', 'plan-load', (f) => f.load.toFixed(1)],
  ['Any zone at redness ≥ 2', 'plan-any', (f) => (f.any === undefined ? '–' : oddsWords(f.any))],
  ['Redness ≥ 2, worst zone', 'plan-zone', (f) => (f.worst ? oddsWords(f.worst.rednessOdds) : '–')],
  [
    'Many bumps, worst zone',
    'plan-bumps',
    (f) => (f.bumps === undefined ? '–' : oddsWords(f.bumps)),
  ],
  ['Smooth for about', 'plan-smooth', (f) => hoursWords(f.smoothHours)],
  ['Blades', undefined, (f) => `${f.blades}`],
  ['Costs', 'plan-cost', (f, { money }) => money(f.cost)],
]

export const anyOf = (three: Record<Style, Planned>) =>
  STYLES.flatMap((s) => three[s].plan ?? [])[0]

/** The three side by side: the whole, then the load and the odds of every zone. */
export function ThreePlans({
  three,
  chosen,
  edited,
}: {
  three: Record<Style, Planned>
  chosen: Style
  edited: boolean
}) {
  const units = useUnits()
  const offered = offeredKinds(anyOf(three))
  const figures = offered.map((s) => {
    const { plan } = three[s]
    return plan && planFigures(plan)
  })
  const zones = [
    ...new Map(
      offered.flatMap((s) => three[s].plan?.zones ?? []).map((z) => [z.zoneId, z.name]),
    ).entries(),
  ]
  const cell = (i: number, text: string) => (
    <Table.Td data-num key={offered[i]} fw={chosen === offered[i] ? 650 : 400}>
      {text}
    </Table.Td>
  )
  return (
    <Table aria-label="The plans side by side">
      {edited && <Table.Caption>Your changes by hand are not in these figures.</Table.Caption>}
      <Table.Thead>
        <Table.Tr>
          <Table.Th scope="col">
            <span className="hidden">What</span>
          </Table.Th>
          {offered.map((s) => (
            <Table.Th data-num key={s} scope="col">
              {NAMES[s]}
            </Table.Th>
          ))}
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {ROWS.map(([name, estimate, of]) => (
          <Table.Tr key={name}>
            <Table.Th scope="row">
              {estimate ? <Estimate of={estimate}>{name}</Estimate> : name}
            </Table.Th>
            {figures.map((f, i) => cell(i, f ? of(f, units) : '–'))}
          </Table.Tr>
        ))}
        <Table.Tr ff="heading">
          <Table.Td colSpan={offered.length + 1}>
            Load and odds of redness ≥ 2, zone by zone
          </Table.Td>
        </Table.Tr>
        {zones.map(([id, name]) => (
          <Table.Tr key={id}>
            <Table.Th scope="row">{name}</Table.Th>
            {offered.map((s, i) => {
              const z = three[s].plan?.zones.find((x) => x.zoneId === id)
              return cell(i, z ? `${z.totalLoad.toFixed(1)} · ${oddsWords(z.rednessOdds)}` : '–')
            })}
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}
