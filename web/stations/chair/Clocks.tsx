/** What runs: towel, lather, blade, disinfectant, the whole service against its slot. */
import { Progress } from '@mantine/core'
import css from './Chair.module.css'
import { stepMinutes } from '../../../core/plan/index.ts'
import { useFigures } from '../../state/figures.ts'
import {
  filmNow,
  latherNow,
  leftOpenSince,
  soakLeftMs,
  isHotTowel,
  bladeInHand,
  elapsedMs,
  towelPlan,
} from '../../../core/chair/index.ts'
import { bladeLifeStrokes } from '../../../core/plan/index.ts'
import { timeWords } from '../../../core/time/index.ts'
import { useUnits } from '../../state/shape.ts'
import { clockText } from '../../state/words.ts'
import type { ChairProps } from './ChairHead.tsx'
import { useChairNow } from './useChair.ts'

/** Before the start: the slot, the plan, the hour. */
function ReadyClocks({ visit, chair }: ChairProps) {
  const now = useChairNow(chair.link)
  const { plan } = chair.live
  const { slotAtMs } = visit
  return (
    <div className={css.clocks} data-testid="clocks">
      {slotAtMs !== null && (
        <div>
          <small>slot</small>
          <b>
            {timeWords(slotAtMs)} to {timeWords(slotAtMs + plan.slotMinutes * 60_000)}
          </b>
        </div>
      )}
      <div data-late={plan.totalMinutes > plan.slotMinutes + 0.5 || undefined}>
        <small>plan</small>
        <b>{Math.round(plan.totalMinutes)} min</b>
      </div>
      <div>
        <small>now</small>
        <b>{timeWords(now)}</b>
      </div>
    </div>
  )
}

export function Clocks(props: ChairProps) {
  if (props.chair.live.state.status === 'waiting') return <ReadyClocks {...props} />
  return <Running {...props} />
}

function Running({ page, chair }: ChairProps) {
  const figures = useFigures()
  const now = useChairNow(chair.link)
  const { live } = chair
  const { plan, state } = live
  // A towel that cools while something else is done is kept in sight.
  const warm = plan.steps.slice(state.index).find(isHotTowel)
  const towel = warm && state.towels[warm.id]
  const lather = latherNow(figures, live, now)
  const driest = lather[0]
  const film = (driest && filmNow(live, driest.zoneId)?.name) ?? 'lather'
  const dry = lather.filter((l) => l.leftMs <= 0).length
  const soak = soakLeftMs(figures, state, now)
  // Nobody worked on through the night.
  const open = leftOpenSince(figures, state, now) !== undefined
  const spent = open ? state.spentMs : elapsedMs(state, now)
  const over = spent > plan.slotMinutes * 60_000
  return (
    <div className={css.clocks} data-testid="clocks">
      {towel && (
        <TowelClock {...towelPlan(figures, towel, now)} laid={towel.laidAtMs !== undefined} />
      )}
      {driest && (
        <div data-late={driest.leftMs < 60_000 || undefined}>
          <small>{dry > 0 ? `${film} dry on ${dry} of ${lather.length}` : film}</small>
          <b>
            {driest.leftMs <= 0
              ? film === 'lather'
                ? 're-lather'
                : 'wet it again'
              : `${clockText(driest.leftMs)} left`}
          </b>
        </div>
      )}
      {soak !== undefined && soak > -120_000 && (
        <div>
          <small>disinfectant</small>
          <b>{soak > 0 ? `${clockText(soak)} to go` : 'may come out'}</b>
        </div>
      )}
      <BladeClock page={page} chair={chair} />
      <div data-late={over || undefined}>
        <small>
          {open
            ? 'left open'
            : state.status === 'paused'
              ? 'paused'
              : `slot ${plan.slotMinutes} min`}
        </small>
        <b>
          {clockText(spent)} of {Math.round(stepMinutes(plan.steps))}:00
        </b>
      </div>
    </div>
  )
}

function TowelClock({
  now,
  waitMs,
  wristMs,
  warmthMs,
  laid,
}: ReturnType<typeof towelPlan> & { laid: boolean }) {
  const { warm } = useUnits()
  const late = laid && warmthMs <= 0
  return (
    <div data-late={late || undefined}>
      <small>
        towel {now.by === 'estimate' ? 'about ' : ''}
        {warm(now.tempC)}
      </small>
      <b>
        {laid
          ? warmthMs > 0
            ? `${clockText(warmthMs)} warm`
            : 'take it off'
          : waitMs === 0
            ? 'may be laid'
            : wristMs > 0
              ? `wait ${clockText(Math.min(waitMs, wristMs))}`
              : 'feel it'}
      </b>
    </div>
  )
}

/** Strokes made with the blade in hand, as a bar against its life. */
function BladeClock({ page, chair }: Pick<ChairProps, 'page' | 'chair'>) {
  const figures = useFigures()
  const { plan, state } = chair.live
  const held = bladeInHand(chair.live, plan.steps[state.index])
  if (!held) return null
  const life = bladeLifeStrokes(figures, plan.service, page.client.skin)
  const used = Math.min(1, held.blade.strokes / life)
  const worn = held.blade.worn !== undefined
  return (
    <div data-late={worn || used > 0.8 || undefined}>
      <small>{`blade ${held.index + 1}`}</small>
      <b>{worn ? 'change it now' : `${held.blade.strokes} of ~${life}`}</b>
      <Progress
        value={100 * (worn ? 1 : used)}
        color={worn || used > 0.8 ? 'brass.7' : 'tide.6'}
        aria-label={`${Math.round(100 * used)} % of its life used`}
      />
    </div>
  )
}
