/** Problem details (RFC 9457): what was wrong, in a sentence, and what to do. */
import type { ErrorRequestHandler, RequestHandler } from 'express'
import { DomainError } from '../../core/errors.ts'
import type { Problem } from '../../contract/types.ts'
import { troubleCode } from '../safety/trouble.ts'

const TITLES: Readonly<Record<number, string>> = {
  400: 'The request could not be read',
  401: 'Nobody is signed in',
  403: 'Not allowed',
  404: 'Not found',
  405: 'Not possible here',
  409: 'That no longer fits',
  413: 'Too much at once',
  415: 'Another kind of content',
  421: 'Another house',
  422: 'Something is missing or out of range',
  500: 'Something went wrong here',
  507: 'There is no room',
}

/** What Express and its parsers refuse by themselves. */
const REFUSED: Readonly<Record<number, readonly [string, string] | undefined>> = {
  400: ['not-json', 'The request is not readable JSON. Nothing was changed.'],
  403: ['not-allowed', 'That is not given out.'],
  404: ['not-found', 'That file is not here. Reload the page.'],
  412: ['not-found', 'That file is not here as it was asked for. Reload the page.'],
  413: ['too-large', 'That is more than can be taken at once. Nothing was changed.'],
  415: [
    'wrong-kind',
    'That kind of content, or its letters, cannot be read. Send UTF-8. Nothing was changed.',
  ],
  416: ['not-found', 'That part of the file is not there.'],
}

/** What the disk under the data does not let through. */
const DISK: Readonly<Record<string, readonly [number, string] | undefined>> = {
  'disk-full': [
    507,
    'The disk is full. Nothing of it was kept; what was saved before is. Make room on the disk of the data folder, then save again.',
  ],
  'not-writable': [
    507,
    'The data folder cannot be written any more. Nothing of it was kept; what was saved before is. Look at its disk, then save again.',
  ],
  damaged: [
    500,
    'The data file is damaged. Nothing was changed. Stop Slow Tide, and type "npm run restore" to take a backup.',
  ],
}

/** An error that answers with a given status. */
export class HttpProblem extends Error {
  readonly status: number
  readonly code: string
  readonly errors: Problem['errors']

  constructor(status: number, code: string, detail: string, errors?: Problem['errors']) {
    super(detail)
    this.status = status
    this.code = code
    this.errors = errors
  }
}

export const notFound = (what: string) =>
  new HttpProblem(404, 'not-found', `${what} is not here. It may have been erased.`)

/** Domain errors that mean "it no longer fits" rather than "it is wrong". */
const CONFLICTS = new Set(['gap', 'not-possible', 'not-cleared', 'nothing-left', 'clippers-only'])

/** What is answered to an error. */
export function toProblem(error: unknown): Problem {
  if (error instanceof HttpProblem) {
    return problem(error.status, error.code, error.message, error.errors)
  }
  if (error instanceof DomainError) {
    return problem(CONFLICTS.has(error.code) ? 409 : 422, error.code, error.message)
  }
  const told = REFUSED[(error as { status?: number }).status ?? 0]
  if (told) return problem((error as { status: number }).status, told[0], told[1])
  const trouble = DISK[troubleCode(error) ?? '']
  if (trouble) return problem(trouble[0], troubleCode(error)!, trouble[1])
  return problem(
    500,
    'unexpected',
    'Something went wrong here. What was saved before is kept. Try again; if it happens again, restart Slow Tide.',
  )
}

function problem(
  status: number,
  code: string,
  detail: string,
  errors?: Problem['errors'],
): Problem {
  return {
    type: `urn:slow-tide:${code}`,
    title: TITLES[status] ?? 'Error',
    status,
    detail,
    code,
    ...(errors && { errors }),
  }
}

/** Last handler: turns whatever was thrown into problem details. */
export const answerProblem: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) return next(error)
  const body = toProblem(error)
  if (body.status >= 500) request.log?.error({ err: error as unknown }, 'unexpected')
  // Tells that it was this house that refused, and what: no other server on the port knows the number.
  const write = request.get('X-Write') ?? ''
  const told = /^[0-9a-f-]{36}$/i.test(write) ? { ...body, write } : body
  response.status(body.status).type('application/problem+json').send(JSON.stringify(told))
}

/** For addresses under /api that no route answers. */
export const unknownRoute: RequestHandler = (request) => {
  throw new HttpProblem(404, 'no-such-route', `There is no ${request.method} ${request.path} here.`)
}
