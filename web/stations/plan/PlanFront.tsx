/**
 * The plans to choose from, on one axis: how long it stays smooth. The curve above is what it costs in redness; the post
 * below it is slid along all plans that nothing beats.
 */
import { Button, Kbd, Slider, Text, UnstyledButton } from '@mantine/core'
import { useElementSize } from '@mantine/hooks'
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
} from '../../../core/plan/index.ts'
import type { Style } from '../../../core/services/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { ariaKeys, signOf, type ShortcutId } from '../../keys/shortcuts.ts'
import { hoursWords } from '../../state/words.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import type { Planned } from '../../workers/plans.ts'
import css from './Plan.module.css'
import { anyOf, NAMES } from './ThreePlans.tsx'

/** The keys of the kinds, wherever of the plan one is. */
export const KEYS: Readonly<Record<Style, ShortcutId>> = {
  gentlest: 'plan-gentlest',
  balanced: 'plan-balanced',
  closest: 'plan-closest',
}

export function PlanFront({
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
    <div className={css.front}>
      {plan.front && <Along plan={plan} choice={choice} onSlide={onSlide} />}
      <div className={css.kinds} role="group" aria-label="Kind of plan">
        {offered.map((s) => {
          const { plan: own, why } = three[s]
          const f = own && planFigures(own)
          return (
            <UnstyledButton
              key={s}
              className={css.kind}
              aria-pressed={pressed === s}
              aria-keyshortcuts={ariaKeys(KEYS[s])}
              disabled={!f}
              title={why}
              onClick={() => onPick(s)}
            >
              {offered.length === 1 ? 'One plan' : NAMES[s]}{' '}
              <Kbd aria-hidden>{signOf(KEYS[s])}</Kbd>
              <small>
                {f ? `${f.minutes} min, ${hoursWords(f.smoothHours)} smooth` : 'not possible'}
              </small>
            </UnstyledButton>
          )
        })}
      </div>
      {plan.front?.why && <Text size="sm">{plan.front.why}</Text>}
    </div>
  )
}

/** Fewer plans than this are picked by their names. */
const LEAST_TO_SLIDE = 4
/** Of the curve, px. */
const HIGH = 58
const PAD = 12

/** The curve of the front and the post under it, on one axis of hours. */
function Along({
  plan,
  choice,
  onSlide,
}: {
  plan: Plan
  choice: PlanChoice
  onSlide: (hours: number | undefined) => void
}) {
  const { ref, width } = useElementSize<HTMLDivElement>()
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
  const here = moved ?? at
  const shown = moved === undefined || moved === at ? own : line[moved]!
  const [first, last] = [line[0]!, line[line.length - 1]!]
  const x = (hours: number) => ((hours - first.hours) / (last.hours - first.hours)) * width
  const top = Math.max(...line.map((p) => p.odds))
  const least = Math.min(...line.map((p) => p.odds))
  const y = (odds: number) =>
    HIGH - PAD - ((odds - least) / Math.max(top - least, 0.01)) * (HIGH - 2 * PAD - 8)
  const place = (hours: number) => placeOn(line, hours)
  return (
    <div className={css.along} ref={ref}>
      <svg width={width} height={HIGH} className={css.curve} role="img" aria-label={words(shown)}>
        <polyline points={line.map((p) => `${x(p.hours)},${y(p.odds)}`).join(' ')} />
        {line.map((p, i) => (
          <circle
            key={i}
            cx={x(p.hours)}
            cy={y(p.odds)}
            r={i === here ? 7 : 4}
            data-here={i === here || undefined}
          />
        ))}
        <line
          x1={x(line[here]!.hours)}
          x2={x(line[here]!.hours)}
          y1={y(line[here]!.odds)}
          y2={HIGH}
        />
        <text x={0} y={y(first.odds) - 10}>
          {oddsWords(first.odds)}
        </text>
        <text x={width} y={y(last.odds) - 8} textAnchor="end">
          {oddsWords(last.odds)}
        </text>
      </svg>
      <Slider
        className={css.slider}
        min={first.hours}
        max={last.hours}
        value={line[here]!.hours}
        marks={line.map((p) => ({ value: p.hours }))}
        restrictToMarks
        thumbLabel="Gentler or closer"
        thumbValueText={() => words(shown)}
        onChange={(h) => setMoved(place(h))}
        onChangeEnd={(h) => onSlide(line[place(h)]!.hours)}
      />
      <Text size="sm" c="dimmed">
        <Estimate of="plan-smooth">{words(shown)}</Estimate>
        {choice.hours !== undefined && (
          <Button variant="bare" size="compact-sm" onClick={() => onSlide(undefined)}>
            Back to a named plan
          </Button>
        )}
      </Text>
    </div>
  )
}
