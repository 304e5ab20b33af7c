/** A finished visit as it is kept, as the gate of the next one looks at it. */
import type { SkinAnswer, PastVisit, AtChair } from '../looks/index.ts'

/** What is kept of a finished visit, as far as the gate looks at it. */
export interface KeptPast {
  readonly visitId: string
  readonly service: PastVisit['service']
  readonly endedAtMs: number
  readonly loads: Readonly<Record<string, number>> | null
  readonly atChair: AtChair | null
  readonly answers: readonly SkinAnswer[]
}

export function pastOf(p: KeptPast): PastVisit {
  const atChair = p.atChair
  const loads = Object.keys(p.loads ?? {})
  return {
    visitId: p.visitId,
    service: p.service,
    endedAtMs: p.endedAtMs,
    zones: [
      ...new Set([
        ...loads,
        ...Object.keys(atChair?.redness ?? {}),
        ...Object.keys(atChair?.leftOut ?? {}),
      ]),
    ],
    worked: loads.filter((z) => atChair?.leftOut[z] === undefined),
    answers: p.answers,
    redAtChair: atChair?.redness ?? {},
  }
}
