/** Asking the server, typed by the contract's route table. */
import { ADDRESSES } from '../../contract/addresses.ts'
import type { AnswerOf, ParamsOf, QueryOf, RouteName, ToldBody } from '../../contract/routes.ts'
import type { Problem } from '../../contract/types.ts'
import { KEPT_AT } from '../offline/kept.ts'
import { answered } from '../state/away.ts'

/** A problem the server told, or that it could not be reached. */
export class CallProblem extends Error {
  readonly code: string
  readonly status: number
  /** The number of the write that was refused, as the house itself gives it back. */
  readonly write: string | undefined

  constructor(problem: Pick<Problem, 'code' | 'status' | 'detail' | 'write'>) {
    super(problem.detail)
    this.code = problem.code
    this.status = problem.status
    this.write = problem.write
  }
}

/** Whether the house could not be reached, or has failed by itself: the same may be tried once more. */
export const mayTryAgain = (error: unknown): boolean =>
  !(error instanceof CallProblem) || error.status === 0 || error.status >= 500

/** Whoever asked gave it up. */
export class GivenUp extends Error {}

/** Refused for now: signed in, let in or let through later, the same write is taken. */
const LATER = new Set([
  'sign-in',
  'locked',
  'not-paired',
  'wait',
  'not-from-here',
  'not-this-house',
])

/**
 * Whether the house itself has refused a write for good. Anything else (silence, a fault, another program on the port, a
 * page in between) is no answer: the write stays and is sent again.
 */
export const isRefused = (error: unknown, write: string): error is CallProblem =>
  error instanceof CallProblem &&
  error.write === write &&
  error.status >= 400 &&
  error.status < 500 &&
  !LATER.has(error.code)

/** What a route is asked with; parts that it does not take are left out. */
type Call<N extends RouteName> = Part<'params', ParamsOf<N>> &
  Part<'body', ToldBody<N>> & {
    readonly query?: Partial<QueryOf<N>>
    /** The number of a write, given back with a refusal. */
    readonly write?: string
    /** Gives it up. */
    readonly signal?: AbortSignal
  }
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
  const { params, query, body, write, signal } = asked as Partial<
    Record<'params' | 'query', Words>
  > & { body?: unknown; write?: string; signal?: AbortSignal }
  let response: Response
  try {
    response = await fetch(address(name, params, query), {
      method: ADDRESSES[name].method,
      headers: {
        // A form says itself what it is.
        ...(body !== undefined &&
          !(body instanceof FormData) && { 'Content-Type': 'application/json' }),
        ...(write !== undefined && { 'X-Write': write }),
      },
      ...(signal && { signal }),
      ...(body !== undefined && { body: body instanceof FormData ? body : JSON.stringify(body) }),
    })
  } catch {
    if (signal?.aborted) throw new GivenUp()
    throw new CallProblem({
      status: 0,
      code: 'unreachable',
      detail:
        'Slow Tide’s server does not answer. What you entered is still here; it is saved when the server is back.',
    })
  }
  if (ADDRESSES[name].method === 'GET') answered(response.headers.get(KEPT_AT))
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
