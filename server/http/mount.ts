/** Puts a route of the contract onto Express: checks what comes in, answers what the handler gives. */
import type { Express, Request, Response } from 'express'
import { ValidationError, type Schema } from 'yup'
import {
  ROUTES,
  type AnswerOf,
  type BodyOf,
  type ParamsOf,
  type QueryOf,
  type RouteName,
  type Route,
} from '../../contract/routes.ts'
import { hostile } from '../../contract/keys.ts'
import { HttpProblem } from './problem.ts'

/** What a handler receives, already checked. */
export interface Incoming<N extends RouteName> {
  readonly params: ParamsOf<N>
  readonly query: QueryOf<N>
  readonly body: BodyOf<N>
  readonly response: Response
}

/** Mounts a handler. Its answer is sent as JSON unless it has already been sent. */
export function mount<N extends RouteName>(
  app: Express,
  name: N,
  handler: (incoming: Incoming<N>) => Promise<AnswerOf<N> | void>,
): void {
  const { method, path, params, query, body, answer: told }: Route = ROUTES[name]
  const verb = method.toLowerCase() as 'get' | 'post' | 'put' | 'patch' | 'delete'
  app[verb](path, async (request: Request, response: Response) => {
    // The one place where what was checked takes the type of its schema.
    const incoming = {
      params: check(params, request.params, 400, 'The address'),
      query: check(query, request.query, 400, 'The address'),
      body: check(body, request.body, 422, 'What was sent'),
      response,
    } as Incoming<N>
    const answer = await handler(incoming)
    if (response.headersSent) return
    if (told && app.enabled('check answers')) checkAnswer(name, told, answer ?? null)
    response.json(answer ?? null)
  })
}

/** Where answers are checked (in tests), one that is not what the contract says is a fault of the server. */
function checkAnswer(name: string, schema: Schema, answer: unknown): void {
  try {
    schema.validateSync(JSON.parse(JSON.stringify(answer)), { abortEarly: false, strict: true })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    throw new Error(`What "${name}" answers is not in its contract: ${error.errors.join('; ')}`, {
      cause: error,
    })
  }
}

function check(schema: Schema | undefined, value: unknown, status: number, what: string): unknown {
  if (!schema) return undefined
  const bad = hostile(value)
  if (bad) {
    throw new HttpProblem(
      status,
      'invalid',
      `${what} cannot be taken: ${bad.path ? `"${bad.path.slice(0, 60)}" ` : 'it '}${bad.message}. Nothing was changed.`,
      [bad],
    )
  }
  try {
    return schema.validateSync(value ?? {}, { abortEarly: false, stripUnknown: false })
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const errors = error.inner.length > 0 ? error.inner : [error]
    throw new HttpProblem(
      status,
      'invalid',
      `${what} cannot be taken as it is: ${errors
        .slice(0, 3)
        .map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`)
        .join('; ')}. Nothing was changed.`,
      errors.slice(0, 20).map((e) => ({ path: e.path ?? '', message: e.message })),
    )
  }
}
