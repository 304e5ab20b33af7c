/** The plan that is kept, or the one core makes from what is known now. */
import { useMemo } from 'react'
import { DomainError } from '../../../core/errors.ts'
import { makePlan } from '../../../core/plan/makePlan.ts'
import type { Plan } from '../../../core/plan/types.ts'
import { useHead } from '../../head/loadHead.ts'
import { useGrain, useScreening, type StationProps } from '../useStation.ts'

export interface PlanView {
  readonly plan?: Plan
  /** Why there is none. */
  readonly why?: string
  readonly kept: boolean
  /** True when a plan made now would differ from the one kept. */
  readonly outdated: boolean
}

export function usePlan({ page, visit, house }: StationProps): PlanView {
  const head = useHead()
  const grain = useGrain(visit)
  const screening = useScreening(visit, house)
  const fresh = useMemo((): { plan?: Plan; why?: string } => {
    if (!head.data) return { why: 'The head is being set up …' }
    try {
      const plan = makePlan({
        service: visit.service,
        zones: head.data.zones,
        grain,
        client: page.client.skin,
        screening,
        schools: house.schools,
        hand: house.workers.find((w) => w.id === visit.workerId)?.hand ?? 'right',
        sensitivity: (zone) => page.model.sensitivity[zone]!,
        growth: (zone) => page.model.growth[zone]!,
      })
      return { plan }
    } catch (error) {
      if (error instanceof DomainError) return { why: error.message }
      throw error
    }
  }, [head.data, grain, screening, page, visit.service, visit.workerId, house])
  const kept = visit.plan ?? undefined
  if (kept) {
    const outdated =
      visit.state === 'open' &&
      fresh.plan !== undefined &&
      JSON.stringify(steps(fresh.plan)) !== JSON.stringify(steps(kept))
    return { plan: kept, kept: true, outdated }
  }
  return { ...fresh, kept: false, outdated: false }
}

/** What of a plan the worker would notice. */
const steps = (plan: Plan) => plan.steps.map((s) => [s.id, s.text, s.blade, s.avoid])
