/** A server that answers as a test says, by the names of the routes; and what it was asked. */
import { ADDRESSES } from '../../contract/addresses.ts'
import type { RouteName } from '../../contract/routes.ts'

export interface AskedOf {
  readonly route: RouteName
  readonly params: Readonly<Record<string, string>>
  readonly query: Readonly<Record<string, string>>
  readonly body: never
}

/** Refuses in words, as the server does. */
export class Refusal extends Error {
  readonly status: number
  readonly code: string
  constructor(status: number, code: string, detail: string) {
    super(detail)
    this.status = status
    this.code = code
  }
}

type Answers = Partial<Record<RouteName, (asked: AskedOf) => unknown>>

const patterns = (Object.keys(ADDRESSES) as RouteName[]).map((route) => {
  const { method, path } = ADDRESSES[route]
  const names = [...path.matchAll(/:(\w+)/g)].map((m) => m[1]!)
  return { route, method, names, at: new RegExp(`^${path.replace(/:\w+/g, '([^/]+)')}$`) }
})

/**
 * Stands in for the server.
 * @returns what was asked so far, in order; a route that no answer is given for is told as a fault
 */
export function serve(answers: Answers): AskedOf[] {
  const asked: AskedOf[] = []
  const fetched: typeof fetch = async (input, init) => {
    const url = new URL(input as string, 'http://house')
    const method = init?.method ?? 'GET'
    const found = patterns.find((p) => p.method === method && p.at.test(url.pathname))
    if (!found) throw new Error(`No such route: ${method} ${url.pathname}`)
    const values = found.at.exec(url.pathname)!.slice(1)
    const one: AskedOf = {
      route: found.route,
      params: Object.fromEntries(found.names.map((n, i) => [n, decodeURIComponent(values[i]!)])),
      query: Object.fromEntries(url.searchParams),
      body: (typeof init?.body === 'string' ? JSON.parse(init.body) : undefined) as never,
    }
    asked.push(one)
    init?.signal?.throwIfAborted()
    const answer = answers[found.route]
    if (!answer) throw new Error(`Nobody said what ${found.route} answers.`)
    const told = (status: number, body: unknown) =>
      ({
        ok: status < 400,
        status,
        headers: new Headers(),
        json: () => Promise.resolve(body),
        blob: () => Promise.resolve(new Blob(['paper'])),
      }) as Response
    try {
      return told(200, await answer(one))
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      const { status, code, message: detail } = error
      // The house itself gives the number of the write back.
      const write = new Headers(init?.headers).get('X-Write') ?? undefined
      return told(status, { status, code, title: code, detail, write })
    }
  }
  globalThis.fetch = fetched
  return asked
}
