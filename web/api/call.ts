/** Asking the server, typed by the contract's route table. */
import { ROUTES, type AnswerOf, type RouteName } from '../../contract/routes.ts'
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

interface Call {
  readonly params?: Record<string, string>
  readonly query?: Record<string, string>
  readonly body?: unknown
}

/** The address of a route with its parameters and its query filled in. */
export function address(
  name: RouteName,
  params: Record<string, string> = {},
  query?: Record<string, string>,
): string {
  const path = ROUTES[name].path.replace(/:(\w+)/g, (_, key: string) =>
    encodeURIComponent(params[key]!),
  )
  return query ? `${path}?${new URLSearchParams(query).toString()}` : path
}

export async function call<N extends RouteName>(
  name: N,
  { params, query, body }: Call = {},
): Promise<AnswerOf<N>> {
  const search = query ? `?${new URLSearchParams(query).toString()}` : ''
  let response: Response
  try {
    response = await fetch(address(name, params) + search, {
      method: ROUTES[name].method,
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
