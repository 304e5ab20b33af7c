/** The list of clients, a page at a time and only those that are seen. */
import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query'
import type { QueryOf } from '../../contract/routes.ts'
import type { ClientRow, ClientRows } from '../../contract/types.ts'
import { call } from './call.ts'

export type ClientsAsked = Omit<QueryOf<'clients'>, 'from'>
/** As many as the server gives at once. */
const PAGE = 100
/** Pages fetched beyond what is seen, so that scrolling finds them there. */
const BESIDE = 2

const page = (asked: ClientsAsked, n: number) => ({
  queryKey: ['clients', asked.find, asked.sort, asked.which, n],
  queryFn: () => call('clients', { query: { ...asked, from: n * PAGE } }),
})

/** The first page: for a list that shows a few. */
export const useClients = (asked: ClientsAsked) =>
  useQuery({ ...page(asked, 0), placeholderData: keepPreviousData })

/**
 * Rows by their place in the whole list.
 * @param from first row that is seen
 * @param to last row that is seen
 * @returns the row at a place; undefined while it is fetched
 */
export function useClientRows(
  asked: ClientsAsked,
  total: number,
  from: number,
  to: number,
): (at: number) => ClientRow | undefined {
  const last = Math.max(0, Math.ceil(total / PAGE) - 1)
  const first = Math.max(0, Math.floor(from / PAGE) - BESIDE)
  const pages = Array.from(
    { length: Math.min(last, Math.floor(to / PAGE) + BESIDE) - first + 1 },
    (_, i) => first + i,
  )
  const byPage = useQueries({
    queries: pages.map((n) => page(asked, n)),
    combine: (found) =>
      new Map<number, ClientRows | undefined>(found.map((q, i) => [pages[i]!, q.data])),
  })
  return (at) => byPage.get(Math.floor(at / PAGE))?.rows[at % PAGE]
}
