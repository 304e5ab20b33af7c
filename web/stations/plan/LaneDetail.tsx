/** One lane: which way, with what, where hands and feet are, why; and what a hand may change of it. */
import { Alert, Button, Group, Text } from '@mantine/core'
import { RELATION_WORDS } from '../../../core/grain/index.ts'
import { BLADES, BLADE_IDS, type BladeId, type Level } from '../../../core/kit/index.ts'
import {
  bladeRefusal,
  type Lane,
  type LaneEdit,
  type Plan,
  type Reason,
  type StrokeWay,
  avoidWords,
  lanesWith,
  watchWords,
} from '../../../core/plan/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { strokeWay } from '../../head/laneArrows.ts'
import { PictureHour } from '../../head/telling.tsx'
import { Whys } from '../../ui/Whys.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { PickOne } from '../../ui/PickOne.tsx'
import css from './Plan.module.css'
import { hoursWords } from '../../state/words.ts'

const WAYS: readonly (readonly [StrokeWay | 'planned', string])[] = [
  ['planned', 'as planned'],
  ['with', 'with the grain'],
  ['across-clockwise', 'across, turned clockwise'],
  ['across-anticlockwise', 'across, turned anticlockwise'],
  ['against', 'against the grain'],
]

export function LaneDetail({
  lane,
  plan,
  kit,
  level,
  edit,
  onEdit,
}: {
  lane: Lane
  plan: Plan
  kit: readonly BladeId[]
  level: Level
  edit: LaneEdit | undefined
  /** Left out where nothing can be changed any more. */
  onEdit?: ((edit: LaneEdit | undefined) => void) | undefined
}) {
  const change = (part: LaneEdit) => {
    const next = Object.fromEntries(
      Object.entries({ ...edit, ...part }).filter(([, v]) => v !== undefined && v !== false),
    ) as LaneEdit
    onEdit?.(Object.keys(next).length > 0 ? next : undefined)
  }
  const lanes = lanesWith(plan, lane)
  const zones = plan.zones.filter((z) => lanes.some((l) => l.zoneId === z.zoneId))
  const toward = plan.presses?.find((p) => p.id === lane.stepId)?.toward ?? lane.toward
  const sum = (of: (l: Lane) => number) => lanes.reduce((s, l) => s + of(l), 0)
  return (
    <section className={css.detail} aria-live="polite" data-testid="lane-detail">
      <p>
        <b>{RELATION_WORDS[lane.relation]}</b>
        {toward && `, ${toward}`} <PictureHour way={strokeWay(plan, lane)} />;{' '}
        {lane.grain === 'guess'
          ? `nobody has read the hair here: that it grows ${lane.growsToward ?? 'so'} is a guess, and it is felt first`
          : `hair grows ${lane.growsToward ?? ''}, nine tenths of it within ${lane.withinDeg}°${lane.grain === 'unsure' ? ': feel first' : ''}`}{' '}
        · {lane.blade},{' '}
        {lane.bladeAngleDeg === 0 ? 'flat on the skin' : `${lane.bladeAngleDeg}° to the skin`},{' '}
        {lane.usableWidthMm} mm of edge · {sum((l) => l.strokes)} strokes of about{' '}
        {lane.strokeLengthMm} mm, {Math.round(sum((l) => l.seconds))} s of them; the rest of its
        time goes to getting there · no pressure
      </p>
      <p>
        {lane.stance.text} {lane.headTurn} {lane.action} <b>Free hand:</b> {lane.freeHand}
      </p>
      {onEdit && (
        <Group gap="sm" align="flex-end">
          <PickOne
            label="Direction"
            w={190}
            data={WAYS.map(([value, label]) => ({ value, label }))}
            value={edit?.way ?? 'planned'}
            onChange={(way) => change({ way: way === 'planned' ? undefined : way })}
          />
          <PickOne
            label="Blade"
            w={190}
            data={[
              { value: 'planned' as const, label: 'as planned' },
              ...BLADE_IDS.filter((id) => kit.includes(id)).map((value) => {
                const refused = bladeRefusal({ service: plan.service, level, kit }, value)
                return {
                  value,
                  label: refused ?? BLADES[value].name,
                  disabled: refused !== undefined,
                }
              }),
            ]}
            value={edit?.bladeId ?? 'planned'}
            onChange={(id) => change({ bladeId: id === 'planned' ? undefined : id })}
          />
          <Button size="sm" onClick={() => change({ skip: true })}>
            Skip it
          </Button>
          {edit && (
            <Button variant="bare" size="sm" onClick={() => onEdit(undefined)}>
              As planned
            </Button>
          )}
        </Group>
      )}
      {avoidWords(lanes).map((a) => (
        <Alert key={a} c="var(--coral)">
          {a}
        </Alert>
      ))}
      <Text size="sm" c="dimmed">
        {zones.map((zone) => (
          <span key={zone.zoneId}>
            {zoneName(zone.zoneId)}: load {zone.totalLoad.toFixed(1)}, redness ≥ 2:{' '}
            {oddsWords(zone.rednessOdds)}
            {zone.bumpOdds !== undefined && `, many bumps: ${oddsWords(zone.bumpOdds)}`}, smooth
            about {hoursWords(zone.smoothHours)}.{' '}
          </span>
        ))}
        {watchWords(lanes)}
      </Text>
      <Whys reasons={told([...lane.reasons, ...zones.flatMap((z) => z.reasons)])}>
        {(zones[0]?.refused ?? []).map((p) => (
          <li key={(p.words ?? p.relation) + p.reason} className={css.refused}>
            <b>{p.words ?? RELATION_WORDS[p.relation]}</b> is not planned: {p.reason} It would buy
            about <Estimate of="plan-buys">{hoursWords(Math.max(0, p.gainHours))}</Estimate>.
          </li>
        ))}
      </Whys>
    </section>
  )
}

/** Each reason once. */
const told = (reasons: readonly Reason[]) =>
  reasons.filter((r, i) => reasons.findIndex((o) => o.text === r.text) === i)
