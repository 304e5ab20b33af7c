/** How fast a service replays, and how fast its rest is planned anew. */
import { DEFAULTS } from '../core/house/index.ts'
import {
  play,
  replan,
  type Cause,
  replay,
  replayLive,
  type ChairEvent,
} from '../core/chair/index.ts'
import { makePlan, PlanMemory } from '../core/plan/index.ts'
import { planInput } from '../core/testing/plan.ts'
import { ZONES } from '../core/testing/head.ts'
import { randomUUID } from 'node:crypto'

type Figure = (name: string, value: number, unit: string) => void
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!

export function chairFigures(figure: Figure): void {
  const input = planInput({ skin: { reactivity: 'tough' } })
  const plan = makePlan(input)
  const by = { startMs: 0, bladeLife: 400, screen: 's', newId: randomUUID }
  const script = play(DEFAULTS, plan, by)
  // To and fro over the first strokes, until there are ten thousand events.
  const start = script.slice(0, 12)
  const events: ChairEvent[] = [...start]
  const step = script[11]!.stepId!
  while (events.length < 10_000) {
    const seq = events.length + 1
    const kind = events.length % 2 === 0 ? 'back' : 'done'
    events.push({ ...script[11]!, id: `e${seq}`, seq, n: seq, kind, stepId: step })
  }
  const replays: number[] = []
  for (let i = 0; i < 7; i++) {
    const began = performance.now()
    replay(plan, events)
    replays.push(performance.now() - began)
  }
  figure('chair.replay_10k.ms', median(replays), 'ms')

  const half = replayLive(plan, script.slice(0, 30))
  const at = ZONES.find((z) => z.id === 'cheek-lower-left')!.samples[0]!
  const causes: Cause[] = [
    { kind: 'gentler', leaveZone: false },
    { kind: 'leave-out', place: { zoneId: 'cheek-lower-left', ...at, radiusMm: 8 } },
    { kind: 'missed', places: [{ zoneId: 'cheek-lower-left', ...at, radiusMm: 8 }] },
  ]
  const times: number[] = []
  for (let i = 0; i < 9; i++) {
    // As on the tablet after a reload: nothing of the skin is remembered.
    const fresh = { ...input, memory: new PlanMemory() }
    const began = performance.now()
    replan(fresh, half, causes[i % causes.length]!)
    times.push(performance.now() - began)
  }
  figure('replan.ms', Math.max(...times), 'ms, the slowest of nine')
}
