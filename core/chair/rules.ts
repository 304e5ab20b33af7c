/** What may happen next at the chair, and what the pedal means now. */
import type { Figures } from '../house/index.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import { BLADES } from '../kit/index.ts'
import { stepZones, type PlanStep } from '../plan/index.ts'
import { toFeel } from './feel.ts'
import { filmNow, latherNow } from './lather.ts'
import { redAtChair } from './outcome.ts'
import { KINDS } from './kinds.ts'
import { bladeOf, isHotTowel } from './kinds/flow.ts'
import { bladeInHand, forbid } from './kinds/kind.ts'
import { advance, meeting } from './service.ts'
import type { ChairEvent, Draft } from './events.ts'
import type { ChairPlan, ChairState, Live } from './state.ts'
import { towelPlan } from './towel.ts'

/**
 * Counts an event that has just happened, if the rules of the chair allow it.
 * @throws DomainError beside those of `advance`: `paused`, and what the kind's own rule says
 */
export function admit<P extends ChairPlan>(
  figures: Figures,
  live: Live<P>,
  event: ChairEvent,
): Live<P> {
  const kind = KINDS[event.kind]
  if (live.state.status === 'paused' && !kind.inAPause?.(event)) {
    throw forbid('paused', 'The service is paused. Go on first.')
  }
  kind.admit?.(figures, meeting(live, event))
  return advance(live, event)
}

/** What one press of the pedal does now. */
export interface Press {
  /** On the large button. */
  readonly words: string
  /** Absent while one has to wait. */
  readonly draft?: Draft | undefined
  /** What to do, in place of the step's own words. */
  readonly line?: string | undefined
  readonly waitMs?: number | undefined
}

/** Share of a blade's life below which it is not changed only because the plan says so. */
const STILL_FRESH = 0.25

/** Ends a pause, with the news that was looked at. */
export const resume = ({ pausedFor }: ChairState): Draft => ({
  kind: 'resumed',
  ...(pausedFor && { detail: { of: pausedFor.id } }),
})

/**
 * The next thing that a press of the pedal does: it leads through the service by itself, blades and towels included.
 * @param bladeLife strokes of a blade's life on this client's hair
 */
export function nextPress(
  figures: Figures,
  live: Live<ChairPlan>,
  nowMs: number,
  bladeLife: number,
): Press {
  const { plan, state } = live
  const step = plan.steps[state.index]
  if (state.status === 'waiting') return { words: 'Start', draft: { kind: 'started' } }
  if (state.status === 'paused') {
    return {
      words: state.pausedFor === undefined ? 'Go on' : 'Looked: go on',
      line: state.pausedFor?.words,
      draft: resume(state),
    }
  }
  if (!step) return closing(live)
  const done: Press = { words: 'Done, next', draft: { kind: 'done', stepId: step.id } }
  if (isHotTowel(step)) return towelPress(figures, live, step, nowMs)
  const ahead = step.kind === 'prepare' ? towelAhead(live) : undefined
  if (ahead) return ahead
  if (step.kind === 'feel') {
    return {
      words: 'Felt: it grows so',
      draft: { kind: 'felt', stepId: step.id, detail: toFeel(plan, step.zoneId) },
    }
  }
  const bladeId = bladeOf(live, step)
  if (bladeId === undefined) return done
  const held = bladeInHand(live, step)
  if (!held) {
    return {
      words: 'Fresh blade opened',
      line: `Open a fresh blade before the client’s eyes: ${BLADES[bladeId].name}. One blade, one person.`,
      draft: { kind: 'blade-opened', stepId: step.id, detail: { bladeId } },
    }
  }
  const { worn, strokes } = held.blade
  const planned = step.freshBlade === true && strokes > STILL_FRESH * bladeLife
  if (worn || planned || strokes >= bladeLife) {
    return {
      words: 'Blade changed',
      line:
        worn === 'tug'
          ? 'It tugged: the blade is done. The old one into the sharps box, a fresh one in.'
          : worn === 'pressure'
            ? 'It needed pressure: the blade is done. Never press; change it now.'
            : 'The blade has done its share. The old one into the sharps box, a fresh one in.',
      draft: { kind: 'blade-changed', stepId: step.id, detail: { why: worn ?? 'planned' } },
    }
  }
  const here = stepZones(step)
  // The driest first: where one zone of a press has dried the whole press waits.
  const driest = latherNow(figures, live, nowMs).find((l) => here.includes(l.zoneId))
  if (driest && driest.leftMs <= 0) {
    const film = filmNow(live, driest.zoneId)
    if (film)
      return {
        words: 'Wet again',
        line: `The ${film.name} here has dried. Fresh on what is not yet done, before the blade: a dry film drags.`,
        draft: { kind: 're-lathered', stepId: step.id },
      }
    return {
      words: 'Lathered again',
      line: 'The lather here has dried. Fresh lather on what is not yet done, before the blade.',
      draft: { kind: 're-lathered', stepId: step.id },
    }
  }
  return done
}

/** The next hot towel comes out of the warmer while something else is done: it cools meanwhile. */
function towelAhead({ plan, state }: Live<ChairPlan>): Press | undefined {
  const rest = plan.steps.slice(state.index + 1)
  const at = rest.findIndex(isHotTowel)
  const next = rest[at]
  const preparing = rest.slice(0, at).every((s) => s.kind === 'prepare' || s.kind === 'feel')
  if (!next || !preparing || state.towels[next.id]) return undefined
  return {
    words: 'Towel is out',
    line: `Take a towel out of the warmer now, folded: it cools while you go on. ${next.title}.`,
    draft: { kind: 'towel-out', stepId: next.id },
  }
}

function towelPress(figures: Figures, live: Live<ChairPlan>, step: PlanStep, nowMs: number): Press {
  const { state } = live
  const towel = state.towels[step.id]
  const say = (kind: Draft['kind'], words: string, line?: string): Press => ({
    words,
    draft: { kind, stepId: step.id },
    ...(line && { line }),
  })
  if (!towel) return say('towel-out', 'Towel is out', 'Take a towel out of the warmer, folded.')
  if (towel.laidAtMs === undefined) {
    if (towel.wristAtMs !== undefined) return say('towel-laid', 'Laid', 'Lay it now, nose free.')
    const { waitMs, wristMs } = towelPlan(figures, towel, nowMs)
    if (waitMs > 0 && wristMs > 0) {
      return {
        words: 'Too hot yet',
        waitMs: Math.min(waitMs, wristMs),
        line: 'Read it with the probe, or wait: then your wrist decides. It is not laid before.',
      }
    }
    if (waitMs > 0) {
      return say(
        'towel-wrist',
        'Felt on my wrist, and asked',
        'Hold it to the inside of your wrist; lay it only if it is pleasant there and the client says so.',
      )
    }
    return towel.askedAtMs === undefined
      ? say(
          'towel-asked',
          'Asked: it is right',
          'Try it on your wrist, hold it to the client’s cheek, and ask.',
        )
      : say('towel-laid', 'Laid', 'Lay it now, nose free.')
  }
  const ahead = towelAhead(live)
  if (ahead) return ahead
  return say('done', 'Taken off, next', 'It warms. Take it off when it no longer does.')
}

function closing({ state }: Live<ChairPlan>): Press {
  const out = state.blades.filter((b) => b.end === undefined && b.bladeId !== undefined).length
  if (out > 0) {
    return {
      words: 'In the sharps box',
      line: `${out === 1 ? 'The blade goes' : `${out} blades go`} into the sharps box now.`,
      draft: { kind: 'blades-binned' },
    }
  }
  const red = Object.entries(redAtChair(state)) as [ZoneId, number][]
  if (!state.looked && red.length > 0) {
    return {
      words: 'Keep this reading',
      line: `${red.map(([zone]) => zoneName(zone)).join(', ')} reddened: look there first, in good light, and grade it as it is now.`,
      draft: {
        kind: 'looked',
        detail: { zones: red.map(([zoneId, redness]) => ({ zoneId, redness })) },
      },
    }
  }
  if (!state.looked) {
    return {
      words: 'All clear',
      line: 'Look at the skin in good light. Tap zones that are red on the head; nothing tapped is all clear.',
      draft: { kind: 'looked', detail: { zones: [] } },
    }
  }
  return { words: 'Finish', draft: { kind: 'finished' } }
}
