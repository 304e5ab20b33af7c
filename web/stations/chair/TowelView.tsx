/** A hot towel: how warm it is, when it may be laid, what can be done meanwhile. */
import css from './Chair.module.css'
import { Button, Group, NumberInput, Text, UnstyledButton } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import {
  meanwhile,
  PROBE_CONSTANTS,
  type Task,
  type Draft,
  TOWEL_CONSTANTS,
  towelPlan,
} from '../../../core/chair/index.ts'
import { warmthC, warmthIn } from '../../../core/house/index.ts'
import { ROUTINE_CONSTANTS } from '../../../core/services/index.ts'
import type { PlanStep } from '../../../core/plan/index.ts'
import { call } from '../../api/call.ts'
import { useUnits } from '../../state/shape.ts'
import { clockText } from '../../state/words.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { Problem } from '../../ui/Panel.tsx'
import type { ChairProps } from './ChairHead.tsx'
import { useChairNow } from './useChair.ts'

export function TowelView({
  chair,
  house,
  step,
  tell,
}: ChairProps & { step: PlanStep; tell: (draft: Draft) => Promise<boolean> }) {
  const figures = useFigures()
  const units = useUnits()
  const now = useChairNow(chair.link)
  const { state } = chair.live
  const towel = state.towels[step.id]
  const [typed, setTyped] = useState<number | string>('')
  const read = useMutation({
    mutationFn: () =>
      call('probe', {
        body: {
          into: 'towel',
          outAtMs: towel!.outAtMs,
          ...(towel!.laidAtMs !== undefined && { laidAtMs: towel!.laidAtMs }),
        },
      }),
    onSuccess: ({ rawC, tempC, withinC }) =>
      tell({ kind: 'towel-read', stepId: step.id, detail: { rawC, tempC, withinC } }),
  })
  if (!towel) return null
  const plan = towelPlan(figures, towel, now)
  const byHand = async () => {
    const tempC = warmthC(Number(typed), units.warmth)
    if (typed === '' || !(tempC > 0 && tempC < 100)) return
    if (await tell({ kind: 'towel-read', stepId: step.id, detail: { tempC, withinC: 1 } }))
      setTyped('')
  }
  return (
    <div className={css.towel}>
      <Gauge tempC={plan.now.tempC} marginC={plan.now.marginC} />
      <div>
        <p className={css.hand}>
          <b>
            <Estimate of="towel">{units.warm(plan.now.tempC)}</Estimate>
          </b>{' '}
          {plan.now.by === 'probe'
            ? `by the probe, within ${units.warmStep(plan.now.marginC)}`
            : 'reckoned, nobody has read it'}
          .{' '}
          {towel.laidAtMs === undefined
            ? plan.waitMs > 0
              ? towel.wristAtMs === undefined
                ? `Surely cool enough in ${clockText(plan.waitMs)}${plan.wristMs > 0 ? `; your wrist may decide in ${clockText(plan.wristMs)}` : '; your wrist may decide now'}.`
                : 'Felt on the wrist, and asked: lay it.'
              : `It warms for ${clockText(plan.warmthMs)} once laid.`
            : plan.warmthMs > 0
              ? `Off at ${units.warm(figures(TOWEL_CONSTANTS.offC))}, in ${clockText(plan.warmthMs)}.`
              : 'It no longer warms: take it off.'}
        </p>
        <Group gap="sm" my="xs">
          <Button onClick={() => read.mutate()} disabled={read.isPending}>
            Read the probe
          </Button>
          <NumberInput
            aria-label={`Temperature read by hand, ${units.warmthSign}`}
            w={96}
            min={Math.ceil(warmthIn(1, units.warmth))}
            max={Math.floor(warmthIn(99, units.warmth))}
            placeholder={units.warmthSign}
            value={typed}
            onChange={setTyped}
            onKeyDown={(e) => {
              e.stopPropagation()
              if (e.key === 'Enter') void byHand()
            }}
          />
          {typed !== '' && <Button onClick={() => void byHand()}>Keep</Button>}
        </Group>
        {house.probe === null && (
          <Text size="sm" c="dimmed">
            The probe was never calibrated: it may be{' '}
            {units.warmStep(figures(PROBE_CONSTANTS.uncalibratedC))} off (House, Probe).
          </Text>
        )}
        <Problem>
          {read.isError && 'The probe gave no reading. Type what a thermometer shows, or wait.'}
        </Problem>
      </div>
      {(towel.laidAtMs !== undefined || plan.waitMs > 0) && (
        <Meanwhile
          tasks={meanwhile(
            figures,
            state,
            towel.laidAtMs === undefined ? plan.waitMs : plan.warmthMs,
          )}
          onDone={(t) =>
            tell(
              t.id === 'cold'
                ? { kind: 'towel-kept' }
                : t.id === 'soak'
                  ? { kind: 'soaked' }
                  : { kind: 'prepared', detail: { task: t.id } },
            )
          }
        />
      )}
    </div>
  )
}

/** What fits into the time that is left. */
function Meanwhile({
  tasks,
  onDone,
}: {
  tasks: readonly (Task & { fits: boolean })[]
  onDone: (task: Task) => Promise<boolean>
}) {
  if (tasks.length === 0) return <p className={css.hand}>All is ready meanwhile.</p>
  return (
    <div className={css.tasks} role="group" aria-label="Meanwhile">
      {tasks.map((t) => (
        <UnstyledButton
          key={t.id}
          className={css.pick}
          mod={{ small: true }}
          c={t.fits ? 'var(--ink)' : 'dimmed'}
          onClick={() => void onDone(t)}
        >
          {t.text} <small>{t.fits ? `${t.minutes} min` : 'later'}</small>
        </UnstyledButton>
      ))}
    </div>
  )
}

const LOW = 20
const HIGH = 65
const TALL = 150

/** A column of warmth: where it may be laid, where it comes off, where it harms. */
function Gauge({ tempC, marginC }: { tempC: number; marginC: number }) {
  const figures = useFigures()
  const y = (t: number) => TALL - ((Math.min(HIGH, Math.max(LOW, t)) - LOW) / (HIGH - LOW)) * TALL
  const { warm } = useUnits()
  const lay = figures(ROUTINE_CONSTANTS.towelAtMostC)
  const off = figures(TOWEL_CONSTANTS.offC)
  return (
    <svg
      className={css.gauge}
      viewBox={`0 -8 118 ${TALL + 16}`}
      width="118"
      height={TALL + 16}
      role="img"
      aria-label={`Towel ${warm(tempC)}`}
    >
      <rect x="8" y={y(lay)} width="20" height={y(off) - y(lay)} className={css.good} />
      <path d={`M8 0V${TALL}M28 0V${TALL}`} className={css.wall} />
      {[
        [lay, 'lay'],
        [off, 'off'],
      ].map(([t, word]) => (
        <g key={word}>
          <path d={`M8 ${y(t as number)}h26`} className={css.wall} />
          <text x="38" y={y(t as number) + 5}>
            {word} {warm(t as number)}
          </text>
        </g>
      ))}
      <rect
        x="12"
        y={y(tempC + marginC)}
        width="12"
        height={Math.max(4, y(tempC - marginC) - y(tempC + marginC))}
        className={css.now}
        data-hot={tempC + marginC > lay || undefined}
      />
    </svg>
  )
}
