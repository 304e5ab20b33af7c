/** Parts of a visit that show at once what was tapped. Each is sent in a row of its own, and an answer to one must not undo another. */
import type { QueryClient } from '@tanstack/react-query'
import type { VisitPage } from '../../contract/types.ts'

export type TappedPart = 'asked' | 'readings' | 'notes' | 'products'
const PARTS: readonly TappedPart[] = ['asked', 'readings', 'notes', 'products']

/** Name of the row in which changes of a part are sent, one after the other. */
export const rowOf = (part: TappedPart, visitId: string) => `${part}-${visitId}`

/**
 * A visit as the server answered it, but with those parts as they are shown of which something is still on its way.
 * @param own the part whose own change this answers
 */
export function keepTapped(cache: QueryClient, page: VisitPage, own?: TappedPart): VisitPage {
  const shown = cache.getQueryData<VisitPage>(['visit', page.id])
  if (!shown) return page
  const kept: Partial<Record<TappedPart, unknown>> = {}
  for (const part of PARTS) {
    const waiting = cache.isMutating({
      predicate: (m) => m.options.meta?.['row'] === rowOf(part, page.id),
    })
    // The one that is being answered still counts among those of its row.
    if (waiting > (part === own ? 1 : 0)) kept[part] = shown[part]
  }
  return { ...page, ...kept } as VisitPage
}

/** Shows a visit with what was just tapped. What the server was asked before that must not come after it. */
export function showTapped(cache: QueryClient, page: VisitPage): void {
  void cache.cancelQueries({ queryKey: ['visit', page.id], exact: true }, { revert: false })
  cache.setQueryData(['visit', page.id], page)
}
