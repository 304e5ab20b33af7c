/** What is to be done now: a step, a pause, the blades, the first look. */
import css from './Chair.module.css'
import { useFigures } from '../../state/figures.ts'
import {
  COMB_STEP,
  type Press,
  isHotTowel,
  type Draft,
  towelNow,
  TOWEL_CONSTANTS,
} from '../../../core/chair/index.ts'
import type { PlanStep } from '../../../core/plan/index.ts'
import type { VisitFinding } from '../../../core/visit/index.ts'
import type { ChairProps } from './ChairHead.tsx'
import { CheckView } from './CheckView.tsx'
import { CombView } from './CombView.tsx'
import { FeelView } from './FeelView.tsx'
import { LookView } from './LookView.tsx'
import { Ready } from './Ready.tsx'
import { StepView } from './StepView.tsx'
import { TowelView } from './TowelView.tsx'
import { useUnits } from '../../state/shape.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { useChairNow } from './useChair.ts'
import type { Proposal } from './useReplan.ts'

export function Now({
  press,
  step,
  wall,
  tell,
  hand,
  missed,
  findings,
  ...props
}: ChairProps & {
  press: Press
  step: PlanStep | undefined
  wall: boolean
  tell: (draft: Draft) => Promise<boolean>
  hand: 'left' | 'right'
  missed: Proposal
  findings: readonly VisitFinding[]
}) {
  const { plan, state } = props.chair.live
  if (state.status === 'waiting') {
    return <Ready {...props} plan={plan} findings={findings} wall={wall} />
  }
  if (state.status === 'paused') {
    return (
      <>
        <p className={css.count} data-testid="chair-count">
          step {Math.min(state.index + 1, plan.steps.length)} of {plan.steps.length}
        </p>
        <h1>{state.pausedFor === undefined ? 'Paused' : 'Look first'}</h1>
        {state.pausedFor !== undefined && (
          <p role="alert" className={css.line} data-testid="chair-line">
            {state.pausedFor.words} Look there before the next stroke. L leaves a place out, X
            stops; else go on.
          </p>
        )}
        <p className={state.pausedFor === undefined ? css.line : css.count}>
          The clock of the service rests. Lather and towel do not.
        </p>
      </>
    )
  }
  if (state.status === 'finished') {
    return (
      <>
        <h1>Finished</h1>
        <p className={css.line} data-testid="chair-line">
          {props.chair.waiting > 0
            ? 'It is kept on this screen and goes to the server when that is back; then the care sheet follows.'
            : 'The care sheet is ready.'}
        </p>
      </>
    )
  }
  if (!step) {
    const looking = press.draft?.kind === 'looked'
    return (
      <>
        <p className={css.count} data-testid="chair-count">
          all {plan.steps.length} steps
        </p>
        <h1>
          {looking ? 'First look' : press.draft?.kind === 'finished' ? 'All done' : 'Blades away'}
        </h1>
        <p className={css.line} data-testid="chair-line">
          {press.line ?? 'Finish the service; then hand over the care sheet.'}
        </p>
        {looking && !wall && <LookView {...props} />}
      </>
    )
  }
  return (
    <>
      <StepView {...{ step, plan, hand, press, state }} index={state.index} />
      {isHotTowel(step) && !wall && <TowelView {...props} step={step} tell={tell} />}
      {step.id === 'close:cold' && <ColdTowel {...props} />}
      {step.kind === 'feel' && !wall && <FeelView chair={props.chair} />}
      {step.id === COMB_STEP && !wall && <CombView {...props} tell={tell} />}
      {step.kind === 'check' && !wall && <CheckView {...props} tell={tell} missed={missed} />}
    </>
  )
}

/** The towel kept back: how cold it has become. */
function ColdTowel({ chair }: ChairProps) {
  const figures = useFigures()
  const { warm } = useUnits()
  const now = useChairNow(chair.link)
  const kept = chair.live.state.towels['kept']
  if (!kept) return null
  const { tempC } = towelNow(figures, kept, now)
  return (
    <p className={css.notice}>
      The towel kept back is at about <Estimate of="towel">{warm(tempC)}</Estimate>
      {tempC > figures(TOWEL_CONSTANTS.coldC) ? ': rinse it cold first.' : ': cold enough.'}
    </p>
  )
}
