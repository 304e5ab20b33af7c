/** Parts of a visit that show at once what was tapped. Each is sent in a row of its own, and an answer to one must not undo another. */
import type { QueryClient } from '@tanstack/react-query'
import type { VisitPage } from '../../contract/types.ts'

/** Of each part what it is of the visit as it is shown. */
const FIELDS = {
  asked: ['asked'],
  readings: ['readings'],
  notes: ['notes'],
  plan: ['plan', 'planMadeAtMs'],
  products: ['products'],
  answers: ['answers'],
} as const satisfies Record<string, readonly (keyof VisitPage)[]>
export type TappedPart = keyof typeof FIELDS

/** Name of the row in which changes of a part are sent, one after the other. */
export const rowOf = (part: TappedPart, visitId: string) => `${part}-${visitId}`

/**
 * A visit as the server answered it, but with those parts as they are shown of which something is still on its way.
 * @param own the part whose own change this answers
 */
export function keepTapped(cache: QueryClient, page: VisitPage, own?: TappedPart): VisitPage {
  const shown = cache.getQueryData<VisitPage>(['visit', page.id])
  if (!shown) return page
  const kept: Record<string, unknown> = {}
  for (const [part, fields] of Object.entries(FIELDS)) {
    const waiting = cache.isMutating({
      predicate: (m) => m.options.meta?.['row'] === rowOf(part as TappedPart, page.id),
    })
    // The one that is being answered still counts among those of its row.
    if (waiting > (part === own ? 1 : 0)) for (const f of fields) kept[f] = shown[f]
  }
  return { ...page, ...kept }
}

/** Shows a visit with what was just tapped. What the server was asked before that must not come after it. */
export function showTapped(cache: QueryClient, page: VisitPage): void {
  void cache.cancelQueries({ queryKey: ['visit', page.id], exact: true }, { revert: false })
  cache.setQueryData(['visit', page.id], page)
}
