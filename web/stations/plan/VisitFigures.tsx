/** The whole visit in three figures: the odds, what was seen of the last eight, and how long it stays smooth. */
import { planFigures, type Plan } from '../../../core/plan/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { hoursWords } from '../../state/words.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { Figure, Figures } from '../../ui/Figures.tsx'
import css from './Plan.module.css'

export function VisitFigures({ plan }: { plan: Plan }) {
  const { odds } = plan
  const record = odds?.record
  return (
    <Figures label="The whole visit">
      {odds && (
        <Figure name="any zone reddens">
          <Estimate of="plan-any">{oddsWords(odds.any)}</Estimate>
        </Figure>
      )}
      {record && record.visits > 0 && (
        <Figure
          wide
          name={`reddened, of ${record.visits === 1 ? 'the one before' : `the last ${record.visits}`}`}
        >
          <span className={css.record}>
            {record.reddened}
            {record.each && (
              <span aria-hidden>
                {record.each.map((red, i) => (
                  <i key={i} data-red={red || undefined} />
                ))}
              </span>
            )}
          </span>
        </Figure>
      )}
      {plan.zones.length > 0 && (
        <Figure name="smooth for about">
          <Estimate of="plan-smooth">{hoursWords(planFigures(plan).smoothHours)}</Estimate>
        </Figure>
      )}
    </Figures>
  )
}
