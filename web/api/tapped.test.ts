import { QueryClient } from '@tanstack/react-query'
import type { VisitPage } from '../../contract/types.ts'
import { keepTapped, rowOf, showTapped, type TappedPart } from './tapped.ts'

const page = (over: Partial<VisitPage> = {}): VisitPage =>
  ({
    id: 'v',
    asked: 'asked as stored',
    readings: ['stored'],
    notes: 'notes as stored',
    products: ['stored'],
    routine: 'stored',
    ...over,
  }) as unknown as VisitPage
const shown = page({ notes: 'notes as tapped', products: ['tapped'], routine: 'old' } as never)

/** Nothing is cleared by a timer, which would outlive the test. */
const emptyCache = () => new QueryClient({ defaultOptions: { queries: { gcTime: Infinity } } })

/** A cache that shows a visit, with changes under way that never end. */
function cacheWith(...underWay: TappedPart[]): QueryClient {
  const cache = emptyCache()
  cache.setQueryData(['visit', 'v'], shown)
  for (const part of underWay) {
    void cache
      .getMutationCache()
      .build(cache, {
        mutationFn: () => new Promise(() => undefined),
        meta: { row: rowOf(part, 'v') },
        gcTime: Infinity,
      })
      .execute(undefined)
  }
  return cache
}

describe('an answer of the server', () => {
  it('is shown as it is when nothing is on its way', () => {
    expect(keepTapped(cacheWith(), page())).toEqual(page())
    expect(keepTapped(emptyCache(), page())).toEqual(page())
  })

  it('does not undo what was tapped of another part meanwhile', () => {
    // The map was changed, then a zone kept: the answer to the map does not know of the zone yet.
    const found = keepTapped(cacheWith('readings', 'notes'), page(), 'readings')
    expect(found).toMatchObject({
      notes: 'notes as tapped',
      readings: ['stored'],
      routine: 'stored',
      products: ['stored'],
    })
  })

  it('is the last word on its own part, unless a later tap of it waits', () => {
    expect(keepTapped(cacheWith('notes'), page(), 'notes').notes).toBe('notes as stored')
    expect(keepTapped(cacheWith('notes', 'notes'), page(), 'notes').notes).toBe('notes as tapped')
  })

  it('keeps a plan with the time at which it was kept', () => {
    const cache = cacheWith('plan')
    cache.setQueryData(['visit', 'v'], page({ plan: 'kept here', planMadeAtMs: 7 } as never))
    expect(keepTapped(cache, page({ plan: null, planMadeAtMs: null }))).toMatchObject({
      plan: 'kept here',
      planMadeAtMs: 7,
    })
  })

  it('of another visit is not touched by what waits here', () => {
    const other = page({ id: 'w' })
    expect(keepTapped(cacheWith('notes'), other)).toEqual(other)
  })
})

it('what is tapped stays when the server answers what it was asked before', async () => {
  const cache = cacheWith()
  let answer!: (p: VisitPage) => void
  const asked = cache
    .fetchQuery({
      queryKey: ['visit', 'v'],
      queryFn: () => new Promise<VisitPage>((resolve) => (answer = resolve)),
    })
    .catch(() => undefined)
  // Another visit that is asked for meanwhile is left to come.
  const other = cache.fetchQuery({ queryKey: ['visit', 'w'], queryFn: () => page({ id: 'w' }) })
  showTapped(cache, page({ notes: 'notes as tapped' as never }))
  answer(page())
  await asked
  await other
  expect(cache.getQueryData<VisitPage>(['visit', 'v'])!.notes).toBe('notes as tapped')
  expect(cache.getQueryData<VisitPage>(['visit', 'w'])!.id).toBe('w')
})
