/** What the studio has learned over all clients: worked out by the server, asked for again while it is still at it. */
import { useQuery } from '@tanstack/react-query'
import { call } from '../api/call.ts'

const ASK_AGAIN_MS = 700

/** @param on whether to ask */
export const useStudio = (on = true) =>
  useQuery({
    queryKey: ['studio'],
    queryFn: () => call('studio'),
    // It stands for as long as nobody comes back to the page.
    gcTime: 0,
    enabled: on,
    refetchInterval: ({ state }) => (state.data && !state.data.learned ? ASK_AGAIN_MS : false),
  })
