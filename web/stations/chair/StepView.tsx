/** One step in words and two small drawings. */
import { RELATION_WORDS } from '../../../core/grain/relation.ts'
import type { Plan, PlanStep } from '../../../core/plan/types.ts'
import { AngleFigure, StanceFigure } from './Figures.tsx'

export function StepView({
  step,
  plan,
  index,
  hand,
}: {
  step: PlanStep
  plan: Plan
  index: number
  hand: 'left' | 'right'
}) {
  const side = step.zoneId?.endsWith('-left')
    ? ' · client’s left'
    : step.zoneId?.endsWith('-right')
      ? ' · client’s right'
      : ''
  const [first, ...rest] = step.text.split('. ')
  const relation = step.relation ? RELATION_WORDS[step.relation] : ''
  return (
    <>
      <p className="chair-count">
        step {index + 1} of {plan.steps.length}
        {side}
      </p>
      <h1>{step.title.replace(/, client's (left|right)$/, ', $1')}</h1>
      <p className="chair-line">
        {step.relation ? (
          <>
            <b className={`relation-${step.relation}`}>
              {relation.charAt(0).toUpperCase() + relation.slice(1)}
            </b>
            {step.text.slice(relation.length)}
          </>
        ) : (
          <>
            {first}
            {rest.length > 0 ? `. ${rest.join('. ')}` : ''}
          </>
        )}
      </p>
      {step.stance && step.headTurn && (
        <div className="chair-figures">
          <figure>
            <StanceFigure stance={step.stance} turn={step.headTurn} hand={hand} />
            <figcaption>
              {step.stance.text} {step.headTurn}
            </figcaption>
          </figure>
          <figure>
            <AngleFigure degrees={step.bladeAngleDeg ?? 30} />
            <figcaption>Blade to skin; {step.blade}</figcaption>
          </figure>
          <p className="chair-hand">
            <b>Free hand</b> <span className="soft">(dotted arrow)</span> {step.freeHand}
          </p>
        </div>
      )}
      {step.avoid && step.avoid.length > 0 ? (
        <p className="notice coral">{step.avoid.join('. ')}.</p>
      ) : (
        step.watch && <p className="notice">{step.watch}</p>
      )}
    </>
  )
}
