/** One step in words and two small drawings. */
import css from './Chair.module.css'
import { Highlight } from '@mantine/core'
import {
  avoidWords,
  poseFor,
  serviceIn,
  stepLanes,
  watchWords,
  type Plan,
  type PlanStep,
} from '../../../core/plan/index.ts'
import { zoneSide } from '../../../core/zones/index.ts'
import { freeHandNow, yourSide, type ChairState, type Press } from '../../../core/chair/index.ts'
import { RELATION_WORDS, type Relation } from '../../../core/grain/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { capital } from '../../../core/words.ts'
import { strokeWay } from '../../head/laneArrows.ts'
import { PictureHour } from '../../head/telling.tsx'
import { AngleFigure, StanceFigure } from './Figures.tsx'

const RELATION_COLOURS: Readonly<Record<Relation, string>> = {
  with: 'var(--tide)',
  across: 'var(--brass)',
  against: 'var(--coral)',
}

/** Longer ones are set smaller, so that what follows them stays in sight. */
const LONG_TITLE = 24
const LONG_LINE = 90

/** "Upper neck, part c, right": whose side it is stands beside it. */
export const shortTitle = (step: PlanStep) => step.short ?? step.title

export function StepView({
  step,
  plan,
  index,
  hand,
  press,
  state,
}: {
  step: PlanStep
  plan: Plan
  index: number
  hand: 'left' | 'right'
  press: Press
  state: ChairState
}) {
  // Plans of the first version say it all in the step.
  const work = plan.lanes.find((l) => l.id === step.laneId) ?? step
  const ids = stepLanes(step)
  const lanes = plan.lanes.filter((l) => ids.includes(l.id))
  const avoid = lanes.length > 0 ? avoidWords(lanes) : (work.avoid ?? [])
  const lane = lanes.find((l) => l.id === step.laneId)
  const freeHand = lane ? freeHandNow(plan, lane, state).text : work.freeHand
  const watch = lanes.length > 0 ? watchWords(lanes) : work.watch
  const own = step.zoneId && zoneSide(step.zoneId)
  const side = own ? ` · client’s ${own}` : ''
  const yours = side && work.stance ? `, ${yourSide(step.zoneId!, work.stance.hour)}` : ''
  return (
    <>
      <p className={css.count} data-testid="chair-count">
        step {index + 1} of {plan.steps.length}
        {side}
        {yours}
      </p>
      <h1 data-long={shortTitle(step).length > LONG_TITLE || undefined}>{shortTitle(step)}</h1>
      <p
        className={css.line}
        data-testid="chair-line"
        data-first={press.line !== undefined || undefined}
        data-long={(press.line ?? step.text).length > LONG_LINE || undefined}
      >
        {press.line ??
          (step.relation ? (
            <Highlight
              component="span"
              inherit
              highlight={capital(RELATION_WORDS[step.relation])}
              highlightStyles={{
                background: 'none',
                fontWeight: 700,
                color: RELATION_COLOURS[step.relation],
              }}
            >
              {step.text}
            </Highlight>
          ) : (
            step.text
          ))}{' '}
        {!press.line && lane && <PictureHour way={strokeWay(plan, lane)} />}
      </p>
      {/* What to leave alone comes before how: it is never below the edge of the screen. */}
      {avoid.length > 0 && (
        <p className={css.notice} data-grave>
          {avoid.join('. ')}.
        </p>
      )}
      {work.stance && work.headTurn && (
        <div className={css.figures}>
          <figure>
            <StanceFigure
              turnDeg={step.zoneId ? poseFor(step.zoneId).turnDeg : 0}
              stance={work.stance}
              turn={work.headTurn}
              posture={SERVICES[step.zoneId ? serviceIn(plan, step.zoneId) : plan.service].posture}
              hand={work.stance.hand ?? hand}
            />
            <figcaption>
              {work.stance.text} {work.headTurn} {work.action}
            </figcaption>
          </figure>
          <figure>
            <AngleFigure degrees={work.bladeAngleDeg ?? 30} />
            <figcaption>Blade to skin; {step.blade}</figcaption>
          </figure>
          <p className={css.hand}>
            <b>Free hand</b> (dotted arrow) {freeHand}
          </p>
        </div>
      )}
      {avoid.length === 0 && watch && <p className={css.notice}>{watch}</p>}
    </>
  )
}
