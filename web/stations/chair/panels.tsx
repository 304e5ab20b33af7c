/** The questions of the chair: why a step is skipped, what else, a nick, redness, a place found. */
import { useEffect, useState } from 'react'
import type { Cause, Replanned } from '../../../core/chair/replan.ts'
import { NICK_CARE, type Draft, type NickCare } from '../../../core/chair/service.ts'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { percentWords } from '../../state/words.ts'
import type { ChairProps } from './ChairHead.tsx'
import { Panel } from './Panel.tsx'
import { useTaps } from './taps.ts'
import { useReplan } from './useReplan.ts'

type Tell = (draft: Draft) => Promise<boolean>
export interface PanelProps extends ChairProps {
  readonly tell: Tell
  readonly onClose: () => void
}

const SKIP_REASONS = [
  'client asks',
  'skin is red',
  'area to leave out',
  'no hair there',
  'out of time',
] as const

/** Why a step is skipped, or with it the rest of its zone. */
export function SkipPanel({ chair, tell, onClose, ...props }: PanelProps) {
  const { plan, state } = chair.live
  const step = plan.steps[state.index]
  const zoneId = step?.zoneId
  const more = plan.steps.slice(state.index + 1).filter((s) => zoneId && s.zoneId === zoneId).length
  const whole = useReplan(
    { ...props },
    chair.live,
    zoneId && more > 0 ? { kind: 'skip-zone', zoneId } : undefined,
  )
  if (!step) return null
  const skip = async (reason: string) => {
    onClose()
    await tell({ kind: 'skipped', stepId: step.id, reason })
  }
  return (
    <Panel
      name="Why is it skipped?"
      title="Why?"
      onClose={onClose}
      closeWords="do not skip"
      choices={[
        ...SKIP_REASONS.map((reason) => ({ words: reason, pick: () => skip(reason) })),
        ...(whole.replanned
          ? [
              {
                words: `skip all of it: ${zoneName(zoneId!)}`,
                more: `${more + 1} lanes`,
                pick: async () => {
                  onClose()
                  await tell(amended(whole.replanned!))
                },
              },
            ]
          : []),
      ]}
    />
  )
}

const amended = (r: Replanned): Draft => ({ kind: 'amended', detail: { amendment: r.amendment } })

export type More = 'redness' | 'leave-out' | 'stop'

/** What is needed now and then. */
export function MorePanel({
  chair,
  tell,
  onClose,
  onMore,
}: PanelProps & { onMore: (what: More) => void }) {
  const { state, plan } = chair.live
  const step = plan.steps[state.index]
  const here = step ? { stepId: step.id } : {}
  const and = async (draft: Draft) => {
    onClose()
    await tell(draft)
  }
  const paused = state.status === 'paused'
  return (
    <Panel
      name="More"
      title="More"
      onClose={onClose}
      choices={[
        {
          words: 'Back',
          more: 'Page up',
          pick: () => and({ kind: 'back' }),
          disabled: paused || state.index === 0,
        },
        {
          words: 'Re-lather',
          more: 'R',
          pick: () => and({ kind: 're-lathered', ...here }),
          disabled: paused || !step,
        },
        {
          words: paused ? 'Go on' : 'Pause',
          more: 'P',
          pick: () => and({ kind: paused ? 'resumed' : 'paused' }),
        },
        {
          words: 'Needs pressure',
          more: 'E: the blade is done',
          pick: () => and({ kind: 'pressure', ...here }),
          disabled: paused || !step,
        },
        { words: 'Skin reddens or rises', more: 'W', pick: () => onMore('redness') },
        {
          words: 'Found: leave a place out',
          more: 'L',
          pick: () => onMore('leave-out'),
          disabled: paused,
        },
        { words: 'Client asks to stop', more: 'X', pick: () => onMore('stop'), disabled: paused },
        {
          words: 'Implements soaking',
          more: 'starts the contact time',
          pick: () => and({ kind: 'soaked' }),
          disabled: paused,
        },
      ]}
    />
  )
}

const SIZES = [1, 2, 4, 8] as const
const CARE_WORDS: Readonly<Record<NickCare, string>> = {
  pressure: 'light pressure',
  styptic: 'styptic',
  cold: 'cold',
  plaster: 'plaster',
}

/** A nick is noted at once; here it is told where, how large, what was done. */
export function NickPanel({ chair, tell, onClose }: PanelProps) {
  const nick = chair.live.state.nicks[chair.live.state.nicks.length - 1]
  const { begin, places } = useTaps()
  const [sizeMm, setSize] = useState<number>(2)
  const [did, setDid] = useState<readonly NickCare[]>(['pressure', 'styptic'])
  const [contact, setContact] = useState(false)
  useEffect(() => {
    begin('one', 3)
    return () => useTaps.getState().begin('none')
  }, [begin])
  if (!nick) return null
  const at = places[0]
  const save = async () => {
    onClose()
    const where = at && { zoneId: at.zoneId, point: at.point, normal: at.normal }
    await tell({
      kind: 'nick-told',
      detail: { of: nick.id, sizeMm, did, contact, ...where },
    })
  }
  return (
    <Panel
      name="The nick"
      title={at ? `Nick: ${zoneName(at.zoneId)}` : 'Nick noted. Tap where it is on the head.'}
      onClose={onClose}
      closeWords="no more to say"
      choices={[{ words: 'Keep it so', strong: true, pick: save }]}
    >
      <div className="panel-row" role="group" aria-label="How large">
        {SIZES.map((s) => (
          <button key={s} aria-pressed={sizeMm === s} onClick={() => setSize(s)}>
            {s} mm
          </button>
        ))}
      </div>
      <div className="panel-row" role="group" aria-label="What was done">
        {NICK_CARE.map((c) => (
          <button
            key={c}
            aria-pressed={did.includes(c)}
            onClick={() => setDid(did.includes(c) ? did.filter((x) => x !== c) : [...did, c])}
          >
            {CARE_WORDS[c]}
          </button>
        ))}
      </div>
      <div className="panel-row">
        <button aria-pressed={contact} onClick={() => setContact(!contact)}>
          blood touched me or a tool that stays
        </button>
      </div>
      {contact && (
        <p className="panel-note">
          Wash it off now, fresh gloves. The tool is out of use until it is disinfected for its
          whole contact time. Broken skin or eyes: follow your local rule for contact with blood
          today.
        </p>
      )}
    </Panel>
  )
}

const GRADES = ['almost clear', 'mild', 'moderate', 'severe'] as const

/** Redness or a welt: noted, then the rest is planned anew by the worker's word. */
export function RednessPanel(props: PanelProps) {
  const { chair, tell, onClose } = props
  const { plan, state } = chair.live
  const step = plan.steps[state.index]
  const { begin, places } = useTaps()
  const [welt, setWelt] = useState(false)
  const [noted, setNoted] = useState<ZoneId>()
  useEffect(() => {
    begin('one', 8)
    return () => useTaps.getState().begin('none')
  }, [begin])
  const zoneId = places[0]?.zoneId ?? step?.zoneId ?? lastZone(chair)
  const known = zoneId !== undefined && plan.zones.some((z) => z.zoneId === zoneId)
  if (noted) return <After {...props} zoneId={noted} />
  const note = async (grade: number) => {
    const fits = await tell({
      kind: 'redness',
      ...(step && { stepId: step.id }),
      detail: { zoneId, grade, welt },
    })
    if (fits && state.index < plan.steps.length) setNoted(zoneId)
    else onClose()
  }
  return (
    <Panel
      name="Skin reddens"
      title={
        known ? (
          <>
            {zoneName(zoneId)}: how red? <small>Another place: tap it.</small>
          </>
        ) : (
          'Where? Tap the place on the head.'
        )
      }
      onClose={onClose}
      choices={GRADES.map((words, i) => ({
        words: `${i + 1} ${words}`,
        disabled: !known,
        pick: () => note(i + 1),
      }))}
    >
      <div className="panel-row">
        <button aria-pressed={welt} onClick={() => setWelt(!welt)}>
          the skin has risen: a welt
        </button>
      </div>
      <p className="panel-note">
        On brown and black skin look for a darker or violet tone beside the zone, and feel for
        warmth.
      </p>
    </Panel>
  )
}

/** The zone of the last stroke done. */
function lastZone({ live: { plan, state } }: ChairProps['chair']): ZoneId | undefined {
  return plan.steps
    .slice(0, state.index)
    .reverse()
    .find((s) => s.zoneId)?.zoneId
}

/** After redness: gentler, gentler without the zone, stop, or go on; each with what it comes to. */
function After({ zoneId, chair, tell, onClose, ...props }: PanelProps & { zoneId: ZoneId }) {
  const of = (cause: Cause) => ({ cause, words: WORDS[cause.kind] })
  const leave = useReplan(props, chair.live, { kind: 'gentler', zoneId, leaveZone: true })
  const mild = useReplan(props, chair.live, { kind: 'gentler', zoneId, leaveZone: false })
  const stop = useReplan(props, chair.live, STOP)
  const pick = (r: Replanned | undefined) => async () => {
    onClose()
    if (r) await tell(amended(r))
  }
  const figures = (r: Replanned | undefined) =>
    r &&
    `${r.now} of ${r.before} lanes, ${Math.round(r.minutesNow)} min; redness 2+ ${percentWords(r.oddsNow)} (H)`
  const any = leave.replanned ?? mild.replanned ?? stop.replanned
  return (
    <Panel
      name="The rest"
      title={
        any
          ? `As planned: redness 2 or more by tomorrow ${percentWords(any.oddsBefore)} (H) on the worst zone. Your word?`
          : leave.pending
            ? 'The rest is worked out anew …'
            : 'What is left cannot be made gentler.'
      }
      onClose={onClose}
      closeWords="go on as planned"
      choices={[
        {
          words: `Leave ${zoneName(zoneId).toLowerCase()}, the rest gentler`,
          more: figures(leave.replanned) ?? leave.why,
          strong: true,
          disabled: !leave.replanned,
          pick: pick(leave.replanned),
        },
        {
          words: 'All of it gentler',
          more: figures(mild.replanned) ?? mild.why,
          disabled: !mild.replanned,
          pick: pick(mild.replanned),
        },
        {
          words: of(STOP).words,
          more: figures(stop.replanned),
          disabled: !stop.replanned,
          pick: pick(stop.replanned),
        },
      ]}
    />
  )
}

const STOP: Cause = { kind: 'stop' }
const WORDS: Readonly<Record<Cause['kind'], string>> = {
  stop: 'Stop: no more strokes',
  gentler: 'Gentler',
  'skip-zone': 'Skip the zone',
  'leave-out': 'Leave the place out',
  missed: 'Take what was missed',
}

/** The client asks to stop. */
export function StopPanel({ chair, tell, onClose, ...props }: PanelProps) {
  const stop = useReplan(props, chair.live, STOP)
  const close = async () => {
    onClose()
    if (stop.replanned) await tell(amended(stop.replanned))
  }
  return (
    <Panel
      name="Stop"
      title="The client asks to stop. What is done stays done; cool, soothe and care follow."
      onClose={onClose}
      closeWords="go on"
      choices={[
        {
          words: WORDS.stop,
          more: stop.replanned
            ? `${stop.replanned.before} lanes are left undone`
            : (stop.why ?? 'a moment …'),
          strong: true,
          disabled: !stop.replanned,
          pick: close,
        },
      ]}
    />
  )
}

const RADII = [4, 8, 15, 25] as const

/** A place found under the lather: the lanes round it are cut anew. */
export function LeaveOutPanel({ chair, tell, onClose, ...props }: PanelProps) {
  const { begin, places, radiusMm, setRadius } = useTaps()
  useEffect(() => {
    begin('one', 8)
    return () => useTaps.getState().begin('none')
  }, [begin])
  const place = places[0]
  const plan = useReplan(props, chair.live, place && { kind: 'leave-out', place })
  const keep = async () => {
    onClose()
    if (plan.replanned) await tell(amended(plan.replanned))
  }
  return (
    <Panel
      name="Leave a place out"
      title={
        place
          ? `${zoneName(place.zoneId)}: leave ${radiusMm} mm round it`
          : 'Tap the place on the head.'
      }
      onClose={onClose}
      choices={[
        {
          words: WORDS['leave-out'],
          more: plan.replanned
            ? `${plan.replanned.amendment.lanes.length} lanes are cut round it, ${plan.replanned.before - plan.replanned.now} fall away`
            : plan.why,
          strong: true,
          disabled: !plan.replanned,
          pick: keep,
        },
      ]}
    >
      <div className="panel-row" role="group" aria-label="How far round it">
        {RADII.map((r) => (
          <button key={r} aria-pressed={radiusMm === r} onClick={() => setRadius(r)}>
            {r} mm
          </button>
        ))}
      </div>
    </Panel>
  )
}
