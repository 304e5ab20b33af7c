/** Asking the server, typed by the contract's route table. */
import { ADDRESSES } from '../../contract/addresses.ts'
import type { AnswerOf, ParamsOf, QueryOf, RouteName, ToldBody } from '../../contract/routes.ts'
import type { Problem } from '../../contract/types.ts'

/** A problem the server told, or that it could not be reached. */
export class CallProblem extends Error {
  readonly code: string
  readonly status: number

  constructor(problem: Pick<Problem, 'code' | 'status' | 'detail'>) {
    super(problem.detail)
    this.code = problem.code
    this.status = problem.status
  }
}

/** What a route is asked with; parts that it does not take are left out. */
type Call<N extends RouteName> = Part<'params', ParamsOf<N>> &
  Part<'body', ToldBody<N>> & { readonly query?: Partial<QueryOf<N>> }
type Part<K extends string, T> = T extends undefined
  ? Partial<Record<K, undefined>>
  : object extends T
    ? Partial<Record<K, T>>
    : Record<K, T>

/** A route that takes nothing need not be given anything. */
type Asked<N extends RouteName> = object extends Call<N> ? [asked?: Call<N>] : [asked: Call<N>]

type Words = Record<string, string | number | boolean>

/** The address of a route with its parameters and its query filled in. */
export function address(name: RouteName, params: Words = {}, query?: Words): string {
  const path = ADDRESSES[name].path.replace(/:(\w+)/g, (_, key: string) =>
    encodeURIComponent(String(params[key])),
  )
  return query
    ? `${path}?${new URLSearchParams(
        Object.entries(query).map(([key, value]) => [key, String(value)]),
      ).toString()}`
    : path
}

export async function call<N extends RouteName>(
  name: N,
  ...[asked = {} as Call<N>]: Asked<N>
): Promise<AnswerOf<N>> {
  const { params, query, body } = asked as Partial<Record<'params' | 'query', Words>> & {
    body?: unknown
  }
  let response: Response
  try {
    response = await fetch(address(name, params, query), {
      method: ADDRESSES[name].method,
      ...(body !== undefined && {
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      }),
    })
  } catch {
    throw new CallProblem({
      status: 0,
      code: 'unreachable',
      detail:
        'Slow Tide’s server does not answer. What you entered is still here; it is saved when the server is back.',
    })
  }
  if (!response.ok) {
    const problem = (await response.json().catch(() => null)) as Problem | null
    throw new CallProblem(
      problem ?? {
        status: response.status,
        code: 'unexpected',
        detail: 'The server gave no readable answer. Try again.',
      },
    )
  }
  return (await response.json()) as AnswerOf<N>
}
