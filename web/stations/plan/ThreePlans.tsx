/** The kinds of plan side by side, in figures. */
import { Slider } from '@mantine/core'
import { useEffect, useState } from 'react'
import {
  frontLine,
  kindOf,
  offeredKinds,
  placeOn,
  planFigures,
  type FrontPoint,
  type Plan,
  type PlanChoice,
  type PlanFigures,
} from '../../../core/plan/index.ts'
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
  ['Any zone at redness ≥ 2 (H)', (f) => (f.any === undefined ? '–' : oddsWords(f.any))],
  ['Redness ≥ 2, worst zone (H)', (f) => oddsWords(f.worst.rednessOdds)],
  ['Many bumps, worst zone (H)', (f) => (f.bumps === undefined ? '–' : oddsWords(f.bumps))],
  ['Smooth for about (H)', (f) => hoursWords(f.smoothHours)],
  ['Blades', (f) => `${f.blades}`],
  ['Costs (H)', (f) => `€ ${f.cost.toFixed(2)}`],
]

const anyOf = (three: Record<Style, Planned>) => STYLES.flatMap((s) => three[s].plan ?? [])[0]

/** The plans to choose from, each with what matters most; between them one may slide along all that nothing beats. */
export function PlanPick({
  three,
  plan,
  choice,
  onPick,
  onSlide,
}: {
  three: Record<Style, Planned>
  plan: Plan
  choice: PlanChoice
  onPick: (style: Style) => void
  onSlide: (hours: number | undefined) => void
}) {
  const offered = offeredKinds(anyOf(three))
  const pressed = kindOf(plan)
  return (
    <>
      <div className="plan-pick" role="group" aria-label="Kind of plan">
        {offered.map((s) => {
          const { plan: own, why } = three[s]
          const f = own && planFigures(own)
          return (
            <button
              key={s}
              aria-pressed={pressed === s}
              disabled={!f}
              onClick={() => onPick(s)}
              title={why}
            >
              <b>
                {offered.length === 1 ? 'One plan' : NAMES[s]} <kbd>{STYLES.indexOf(s) + 7}</kbd>
              </b>
              <small>
                {f
                  ? `${f.minutes} min · ${oddsWords(f.any ?? f.worst.rednessOdds)} · ${hoursWords(f.smoothHours)}`
                  : 'not possible'}
              </small>
            </button>
          )
        })}
      </div>
      <p className="plan-pick-key">
        Time · chance that any zone reddens to 2 or more · stays smooth (H)
        {plan.front?.why && <span className="plan-one"> {plan.front.why}</span>}
      </p>
      {plan.front && <Along plan={plan} choice={choice} onSlide={onSlide} />}
    </>
  )
}

/** Fewer plans than this are picked by their names. */
const LEAST_TO_SLIDE = 4

/** A slider along the front, gentlest to closest. */
function Along({
  plan,
  choice,
  onSlide,
}: {
  plan: Plan
  choice: PlanChoice
  onSlide: (hours: number | undefined) => void
}) {
  const front = plan.front!
  const line = frontLine(front.points)
  const at = placeOn(line, front.points[front.at]!.hours)
  const [moved, setMoved] = useState<number>()
  useEffect(() => setMoved(undefined), [plan])
  if (line.length < LEAST_TO_SLIDE) return null
  const words = ({ odds, hours, minutes }: FrontPoint) =>
    `${hoursWords(hours)} smooth, any zone red ${oddsWords(odds)}, about ${Math.round(minutes)} min`
  // What is planned is told as the plan has it; what is only slid over, as the front reckons.
  const own = { ...line[at]!, odds: plan.odds?.any ?? line[at]!.odds, minutes: plan.totalMinutes }
  const shown = moved === undefined || moved === at ? own : line[moved]!
  return (
    <div className="plan-along">
      <Slider
        aria-label="Gentler or closer"
        min={0}
        max={line.length - 1}
        value={moved ?? at}
        label={null}
        thumbProps={{ 'aria-valuetext': words(shown) }}
        onChange={setMoved}
        onChangeEnd={(i) => onSlide(line[i]!.hours)}
      />
      <p className="soft">
        Gentler to closer: {words(shown)}
        {choice.hours !== undefined && (
          <>
            {' '}
            <button className="link" onClick={() => onSlide(undefined)}>
              Back to a named plan
            </button>
          </>
        )}
      </p>
    </div>
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
    <td key={offered[i]} className={chosen === offered[i] ? 'num chosen' : 'num'}>
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
          {offered.map((s) => (
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
          <td colSpan={offered.length + 1}>Load and odds of redness ≥ 2, zone by zone</td>
        </tr>
        {zones.map(([id, name]) => (
          <tr key={id}>
            <th scope="row">{name}</th>
            {offered.map((s, i) => {
              const z = three[s].plan?.zones.find((x) => x.zoneId === id)
              return cell(i, z ? `${z.totalLoad.toFixed(1)} · ${oddsWords(z.rednessOdds)}` : '–')
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
