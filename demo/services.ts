/** Services of the demo: their events, the blades they used, and how both are kept. */
import { DEFAULTS } from '../core/house/index.ts'
import {
  kitEvents,
  type KitEvent,
  play,
  advance,
  bladeInHand,
  begin,
  type ChairEvent,
  type Draft,
} from '../core/chair/index.ts'
import type { SkinAndHair } from '../core/client.ts'
import { bladeLifeStrokes, type Plan } from '../core/plan/index.ts'

/**
 * The events of a service that went by the plan, with a nick or a new blade now and then.
 * @param pace how long the worker's strokes take, over the figure of the house
 */
export function serviceEvents(
  plan: Plan,
  client: SkinAndHair,
  atMs: number,
  random: () => number,
  newId: () => string,
  pace = 1,
): ChairEvent[] {
  return play(DEFAULTS, plan, {
    startMs: atMs,
    bladeLife: bladeLifeStrokes(DEFAULTS, plan.service, client),
    screen: SCREEN,
    newId,
    lasts: ({ kind, minutes }) =>
      minutes * 60_000 * (0.9 + 0.25 * random()) * (kind === 'stroke' ? pace : 1),
    besides: (live) => {
      const step = live.plan.steps[live.state.index]!
      if (step.kind !== 'stroke') return []
      const out: Draft[] = []
      if (random() < (step.zoneId === 'chin' ? 0.02 : 0.002)) {
        const detail = { sizeMm: 2, did: ['pressure', 'styptic'] as const, contact: false }
        out.push({ kind: 'nick', stepId: step.id, detail })
      }
      // A trimmer does not tug.
      if (random() < 0.006 && bladeInHand(live, step)) {
        out.push({ kind: 'tug', stepId: step.id })
        out.push({ kind: 'blade-changed', stepId: step.id, detail: { why: 'tug' } })
      }
      if (random() < 0.004) {
        out.push({ kind: 'skipped', stepId: step.id, reason: 'client asked to leave it' })
      }
      return out
    },
  })
}

/** Where each worker misses more often, by part of a zone's id: each has a hand, and a side that is out of sight. */
const MISSED = [/neck-under|jaw-left|crown/, /cheek-upper|neck-lower|nape/] as const
const OFTEN = 0.28
const SELDOM = 0.03

/** The events with what the second look found and left: it draws from chances of its own, so that the rest stays as it was. */
export function withMisses(
  events: readonly ChairEvent[],
  plan: Plan,
  worker: 0 | 1,
  random: () => number,
  newId: () => string,
): ChairEvent[] {
  const at = events.findIndex((e) => e.kind === 'done' && e.stepId === 'check')
  if (at < 0) return [...events]
  const done = new Set(events.flatMap((e) => (e.kind === 'done' ? [e.stepId] : [])))
  const zones = new Map(
    plan.lanes.flatMap((l) => (done.has(l.stepId ?? l.id) ? [[l.zoneId, l.point] as const] : [])),
  )
  const patches = [...zones].flatMap(([zoneId, point]) =>
    random() < (MISSED[worker].test(zoneId) ? OFTEN : SELDOM) ? [{ zoneId, point }] : [],
  )
  if (patches.length === 0) return [...events]
  const { atMs, screen } = events[at]!
  const kind = 'patches-left' as const
  const told = {
    id: newId(),
    screen,
    n: 0,
    seq: 0,
    kind,
    atMs,
    stepId: 'check',
    detail: { patches },
  }
  return [...events.slice(0, at), told, ...events.slice(at)].map((e, i) =>
    i < at
      ? e
      : {
          ...e,
          n: i === at ? events[at]!.n : e.n + 1,
          seq: i === at ? events[at]!.seq : e.seq + 1,
        },
  )
}

/** The tablet at the chair. */
const SCREEN = '5c4ee000-0000-4000-8000-000000000001'

/** Blades opened, changed and binned at a service. */
export function kitOf(
  visitId: string,
  plan: Plan,
  events: readonly ChairEvent[],
  newId: () => string,
): KitEvent[] {
  let live = begin(plan)
  return events.flatMap((event) => {
    const rows = kitEvents(visitId, live, event, newId)
    live = advance(live, event)
    return rows
  })
}

/** An event as it is kept. */
export const eventRow = (e: ChairEvent, visitId: string, plan: Plan) => ({
  ...e,
  visitId,
  jobId: plan.steps.find((s) => s.id === e.stepId)?.jobId ?? null,
  stepId: e.stepId ?? null,
  reason: e.reason ?? null,
  detail: e.detail ?? null,
})
