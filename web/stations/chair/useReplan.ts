/** The rest of the service worked out anew beside the page. */
import { useFigures } from '../../state/figures.ts'
import { useQuery } from '@tanstack/react-query'
import type { Cause, Replanned, Live } from '../../../core/chair/index.ts'
import { toFieldReading } from '../../../core/grain/index.ts'
import type { ZoneId } from '../../../core/zones/index.ts'
import { FIRST_CHOICE } from '../../../core/plan/index.ts'
import type { Replanning } from '../../workers/plans.ts'
import { useHead } from '../../head/loadHead.ts'
import { usePlanAsk } from '../usePlanAsk.ts'
import type { StationProps } from '../useStation.ts'

export interface Proposal {
  readonly replanned?: Replanned | undefined
  readonly why?: string | undefined
  readonly pending: boolean
}

/** Lays a zone anew by what was felt in it; what was felt and is not yet in the map counts too. */
export function useLayAnew(
  props: StationProps,
): (live: Live, zoneId: ZoneId) => Promise<Replanning> {
  const figures = useFigures()
  const head = useHead()
  const ask = usePlanAsk(props, props.visit.plan?.choice ?? FIRST_CHOICE)
  return async (live, zoneId) => {
    if (!head.data) return { why: 'The head is not there yet: try again in a moment.' }
    const known = new Set(ask.readings.map((r) => r.id))
    const felt = Object.entries(live.state.felt)
      .filter(([, f]) => !known.has(f.id))
      .map(([zone, f]) =>
        toFieldReading(figures, { ...f, zoneId: zone as ZoneId, method: 'felt' }, f.atMs),
      )
    const readings = [...ask.readings, ...felt]
    return head.data.planner().replan({ ...ask, readings }, live, { kind: 'felt', zoneId })
  }
}

/** What a cause would make of the rest; nothing while there is no cause. */
export function useReplan(props: StationProps, live: Live, cause: Cause | undefined): Proposal {
  const head = useHead()
  const ask = usePlanAsk(props, live.plan.choice)
  const answer = useQuery({
    queryKey: ['replan', props.visit.id, live.state.seq, cause],
    queryFn: () => head.data!.planner().replan(ask, live, cause!),
    enabled: cause !== undefined && head.data !== undefined,
    staleTime: Infinity,
    gcTime: 30_000,
    // It is worked out on this machine, server or not.
    networkMode: 'always',
  })
  return {
    replanned: answer.data?.replanned,
    why: answer.error?.message ?? answer.data?.why,
    pending: cause !== undefined && answer.isPending,
  }
}
