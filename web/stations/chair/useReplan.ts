/** The rest of the service worked out anew beside the page. */
import { useQuery } from '@tanstack/react-query'
import type { Cause, Replanned } from '../../../core/chair/replan.ts'
import type { Live } from '../../../core/chair/service.ts'
import { useHead } from '../../head/loadHead.ts'
import { usePlanAsk } from '../usePlanAsk.ts'
import type { StationProps } from '../useStation.ts'

export interface Proposal {
  readonly replanned?: Replanned | undefined
  readonly why?: string | undefined
  readonly pending: boolean
}

/** What a cause would make of the rest; nothing while there is no cause. */
export function useReplan(props: StationProps, live: Live, cause: Cause | undefined): Proposal {
  const head = useHead()
  const ask = usePlanAsk(props, live.plan.choice)
  const answer = useQuery({
    queryKey: ['replan', props.visit.id, live.state.seq, cause],
    queryFn: () => head.data!.worker.replan(ask, live, cause!),
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
