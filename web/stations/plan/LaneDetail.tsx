/** One lane: which way, with what, where hands and feet are, why; and what a hand may change of it. */
import { RELATION_WORDS } from '../../../core/grain/index.ts'
import { MARK_WORDS } from '../../../core/house/index.ts'
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
import { hoursWords } from '../../state/words.ts'

const WAYS: readonly (readonly [StrokeWay | '', string])[] = [
  ['', 'as planned'],
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
    <section className="lane-detail" aria-live="polite">
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
        <div className="lane-edit">
          <label>
            Direction
            <select
              value={edit?.way ?? ''}
              onChange={(e) => change({ way: (e.currentTarget.value || undefined) as StrokeWay })}
            >
              {WAYS.map(([id, words]) => (
                <option key={id} value={id}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <label>
            Blade
            <select
              value={edit?.bladeId ?? ''}
              onChange={(e) => change({ bladeId: (e.currentTarget.value || undefined) as BladeId })}
            >
              <option value="">as planned</option>
              {BLADE_IDS.filter((id) => kit.includes(id)).map((id) => {
                const refused = bladeRefusal({ service: plan.service, level, kit }, id)
                return (
                  <option key={id} value={id} disabled={refused !== undefined}>
                    {refused ?? BLADES[id].name}
                  </option>
                )
              })}
            </select>
          </label>
          <button className="strong small" onClick={() => change({ skip: true })}>
            Skip it
          </button>
          {edit && (
            <button className="link" onClick={() => onEdit(undefined)}>
              As planned
            </button>
          )}
        </div>
      )}
      {avoidWords(lanes).map((a) => (
        <p key={a} className="notice coral">
          {a}
        </p>
      ))}
      <p className="soft">
        {zones.map((zone) => (
          <span key={zone.zoneId} className="zone-line">
            {zoneName(zone.zoneId)}: load {zone.totalLoad.toFixed(1)}, redness ≥ 2:{' '}
            {oddsWords(zone.rednessOdds)}
            {zone.bumpOdds !== undefined && `, many bumps: ${oddsWords(zone.bumpOdds)}`}, smooth
            about {hoursWords(zone.smoothHours)}.{' '}
          </span>
        ))}
        {watchWords(lanes)}
      </p>
      <Whys reasons={told([...lane.reasons, ...zones.flatMap((z) => z.reasons)])}>
        {(zones[0]?.refused ?? []).map((p) => (
          <li key={(p.words ?? p.relation) + p.reason} className="refused">
            <b>{p.words ?? RELATION_WORDS[p.relation]}</b> is not planned: {p.reason} It would buy
            about {hoursWords(Math.max(0, p.gainHours))} (H).
          </li>
        ))}
      </Whys>
    </section>
  )
}

/** Each reason once. */
const told = (reasons: readonly Reason[]) =>
  reasons.filter((r, i) => reasons.findIndex((o) => o.text === r.text) === i)

/** Reasons with their marks. */
export function Whys({
  reasons,
  children,
}: {
  reasons: readonly Reason[]
  children?: React.ReactNode
}) {
  return (
    <ul className="whys">
      {children}
      {reasons.map((r) => (
        <li key={r.text}>
          {r.text} <abbr title={MARK_WORDS[r.mark]}>({r.mark})</abbr>
        </li>
      ))}
    </ul>
  )
}
