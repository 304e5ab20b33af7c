/** The plan that is kept, or the one core makes from what is known now. */
import { useQuery } from '@tanstack/react-query'
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
  /** True while it is being worked out. */
  readonly pending?: boolean
  readonly kept: boolean
  /** True when a plan made now would differ from the one kept. */
  readonly outdated: boolean
}

export function usePlan({ page, visit, house }: StationProps): PlanView {
  const head = useHead()
  const grain = useGrain(visit)
  const screening = useScreening(visit, house)
  const { lines } = visit.notes
  const kept = useQuery({
    queryKey: ['kept', lines],
    queryFn: () => (lines.length === 0 ? {} : head.data!.worker.kept(lines)),
    enabled: head.data !== undefined,
    staleTime: Infinity,
  })
  const fresh = useMemo((): { plan?: Plan; why?: string; pending?: boolean } => {
    if (kept.isError) {
      // A plan without them would work what is to be kept.
      return { why: `What the keep-lines keep could not be worked out: ${kept.error.message}` }
    }
    if (!head.data || kept.data === undefined) {
      return { pending: true, why: 'The head and the keep-lines are being worked out …' }
    }
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
        notes: { ...visit.notes, keptShares: kept.data },
      })
      return { plan }
    } catch (error) {
      if (error instanceof DomainError) return { why: error.message }
      throw error
    }
  }, [
    head.data,
    kept.data,
    kept.isError,
    kept.error,
    grain,
    screening,
    page,
    visit.service,
    visit.workerId,
    visit.notes,
    house,
  ])
  const saved = visit.plan ?? undefined
  if (saved) {
    const outdated =
      visit.state === 'open' &&
      fresh.plan !== undefined &&
      JSON.stringify(steps(fresh.plan)) !== JSON.stringify(steps(saved))
    return { plan: saved, kept: true, outdated }
  }
  return { ...fresh, kept: false, outdated: false }
}

/** What of a plan the worker would notice. */
const steps = (plan: Plan) => plan.steps.map((s) => [s.id, s.text, s.blade, s.avoid])
