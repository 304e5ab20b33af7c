/** The three kinds of plan side by side, in figures. */
import { planFigures, type PlanFigures } from '../../../core/plan/index.ts'
import { type Style, STYLES } from '../../../core/services/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { hoursWords } from '../../state/words.ts'
import type { Planned } from '../../workers/plans.ts'

const NAMES: Readonly<Record<Style, string>> = {
  gentlest: 'Gentlest',
  balanced: 'Balanced',
  closest: 'Closest',
}

const ROWS: readonly (readonly [string, (f: PlanFigures) => string])[] = [
  ['Minutes (H)', (f) => `${f.minutes}`],
  ['Load, mean over the skin (H)', (f) => f.load.toFixed(1)],
  ['Redness ≥ 2, worst zone (H)', (f) => oddsWords(f.worst.rednessOdds)],
  ['Smooth for about (H)', (f) => hoursWords(f.smoothHours)],
  ['Blades', (f) => `${f.blades}`],
  ['Costs (H)', (f) => `€ ${f.cost.toFixed(2)}`],
]

/** The three to choose from, each with what matters most. */
export function PlanPick({
  three,
  chosen,
  onPick,
}: {
  three: Record<Style, Planned>
  chosen: Style
  onPick: (style: Style) => void
}) {
  return (
    <>
      <div className="plan-pick" role="group" aria-label="Kind of plan">
        {STYLES.map((s, i) => {
          const { plan, why } = three[s]
          const f = plan && planFigures(plan)
          return (
            <button
              key={s}
              aria-pressed={chosen === s}
              disabled={!f}
              onClick={() => onPick(s)}
              title={why}
            >
              <b>
                {NAMES[s]} <kbd>{i + 7}</kbd>
              </b>
              <small>
                {f
                  ? `${f.minutes} min · ${oddsWords(f.worst.rednessOdds)} · ${hoursWords(f.smoothHours)}`
                  : 'not possible'}
              </small>
            </button>
          )
        })}
      </div>
      <p className="plan-pick-key">
        Time (H) · redness 2 or more, worst zone (H) · stays smooth (H)
      </p>
    </>
  )
}

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
  const figures = STYLES.map((s) => {
    const { plan } = three[s]
    return plan && planFigures(plan)
  })
  const zones = [
    ...new Map(
      STYLES.flatMap((s) => three[s].plan?.zones ?? []).map((z) => [z.zoneId, z.name]),
    ).entries(),
  ]
  const cell = (i: number, text: string) => (
    <td key={STYLES[i]} className={chosen === STYLES[i] ? 'num chosen' : 'num'}>
      {text}
    </td>
  )
  return (
    <table className="three-plans">
      {edited && <caption>Your changes by hand are not in these figures.</caption>}
      <thead>
        <tr>
          <th scope="col">
            <span className="hidden">What</span>
          </th>
          {STYLES.map((s) => (
            <th key={s} scope="col" className="num">
              {NAMES[s]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {ROWS.map(([name, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            {figures.map((f, i) => cell(i, f ? of(f) : '–'))}
          </tr>
        ))}
        <tr className="pass-head">
          <td colSpan={4}>Load and odds of redness ≥ 2, zone by zone</td>
        </tr>
        {zones.map(([id, name]) => (
          <tr key={id}>
            <th scope="row">{name}</th>
            {STYLES.map((s, i) => {
              const z = three[s].plan?.zones.find((x) => x.zoneId === id)
              return cell(i, z ? `${z.totalLoad.toFixed(1)} · ${oddsWords(z.rednessOdds)}` : '–')
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
