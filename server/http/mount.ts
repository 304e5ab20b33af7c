/** Puts a route of the contract onto Express: checks what comes in, answers what the handler gives. */
import type { Express, Request, Response } from 'express'
import onHeaders from 'on-headers'
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
import { basisSchema, isJoined, type Basis } from '../../contract/joined.ts'
import { LOCKED_MAY, mayDo, RIGHTS, type Right } from '../../contract/rights.ts'
import type { Database } from '../db/connection.ts'
import type { Trail } from '../people/trail.ts'
import { underWay, type Deed, type Who } from '../people/who.ts'
import { checked } from './check.ts'
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
  const right: Right = RIGHTS[name]
  app[verb](path, async (request: Request, response: Response) => {
    const who = response.locals['who'] as Who
    await refuseOthers(app, name, who, request)
    const { basis, body: given } = basisOf(name, request)
    // The one place where what was checked takes the type of its schema.
    const incoming = {
      params: checked(params, request.params, 400, 'The address'),
      query: checked(query, request.query, 400, 'The address'),
      body: laterChecked(request) ? undefined : checked(body, given, 422, 'What was sent'),
      response,
    } as Incoming<N>
    const deed = await deedOf(app, right, name, who, request)
    const lasts = right.use === 'look' || right.use === 'service'
    const own = { deed: lasts ? undefined : deed, who, basis }
    // What only reads, goes on from tap to tap, or wrote nothing of its own is written down soon; before any of it is out.
    onHeaders(response, () => {
      if (response.statusCode < 400 && deed && (lasts || own.deed)) trailOf(app).note(deed)
    })
    const answer = await underWay.run(own, () => handler(incoming))
    if (response.headersSent) return
    if (told && app.enabled('check answers')) checkAnswer(name, told, answer ?? null)
    response.json(answer ?? null)
  })
}

/** What an entry was made on stands beside it. */
function basisOf(name: RouteName, request: Request): { basis?: Basis; body: unknown } {
  const body = request.body as unknown
  if (!isJoined(name) || typeof body !== 'object' || body === null || !('basis' in body))
    return { body }
  const { basis, ...rest } = body
  const at = checked(basisSchema, basis, 422, 'What it was made on') as Basis
  return { basis: at, body: rest }
}

/** A body that came as text is large: it is read and checked on a thread, by who handles it. */
const laterChecked = (request: Request) => typeof request.body === 'string'

const dbOf = (app: Express) => app.get('database') as Database
const trailOf = (app: Express) => app.get('trail') as Trail

/** @throws HttpProblem 401 `sign-in`, `locked`, `not-paired`; 403 `no-right` */
async function refuseOthers(
  app: Express,
  name: RouteName,
  who: Who,
  request: Request,
): Promise<void> {
  const open = mayDo('nobody', name)
  if (open) return
  if (!who.letIn) {
    throw new HttpProblem(401, 'not-paired', 'This screen was not paired with the house yet.')
  }
  if (who.asker === 'nobody') {
    throw new HttpProblem(
      401,
      'sign-in',
      'Sign in first. What you entered is kept on this screen until then.',
    )
  }
  if (
    who.locked &&
    !(LOCKED_MAY.includes(name) && (await underItsHands(app, name, who, request)))
  ) {
    throw new HttpProblem(401, 'locked', 'This screen is locked. Type your figures to go on.')
  }
  if (mayDo(who.asker, name)) return
  throw new HttpProblem(
    403,
    'no-right',
    who.asker === 'wall'
      ? 'This screen only shows.'
      : `${who.worker} may not do that here. Ask the owner. Nothing was changed.`,
  )
}

/** Whether a locked screen asks for the service that is under way on it. */
async function underItsHands(
  app: Express,
  name: RouteName,
  who: Who,
  request: Request,
): Promise<boolean> {
  const { id } = request.params
  if (id === undefined) return true
  const column = name === 'client' ? 'clientId' : 'id'
  const rows = await dbOf(app).select(
    `SELECT 1 FROM visits WHERE ${column} = ? AND workerId = ? AND state = 'running' LIMIT 1`,
    [String(id), who.workerId ?? ''],
  )
  return rows.length > 0
}

/** Where the client of an address is found, by what its id is of. */
const CLIENT_OF: readonly (readonly [string, string])[] = [
  ['/api/clients/', 'SELECT id AS clientId FROM clients WHERE id = ?'],
  ['/api/visits/', 'SELECT clientId FROM visits WHERE id = ?'],
  [
    '/api/photos/',
    'SELECT v.clientId FROM photos p JOIN visits v ON v.id = p.visitId WHERE p.id = ?',
  ],
  [
    '/api/messages/',
    'SELECT v.clientId FROM messages m JOIN visits v ON v.id = m.visitId WHERE m.id = ?',
  ],
  [
    '/api/decisions/',
    'SELECT v.clientId FROM decisions d JOIN visits v ON v.id = d.visitId WHERE d.id = ?',
  ],
  ['/api/differences/', 'SELECT clientId FROM differences WHERE id = ?'],
  ['/api/hair/', 'SELECT clientId FROM hair_readings WHERE id = ?'],
  ['/api/appointments/', 'SELECT clientId FROM appointments WHERE id = ?'],
  ['/api/home/', 'SELECT clientId FROM home_work WHERE id = ?'],
]

/** What the trail will say of a request; undefined where nothing of a client or of the house's people is touched. */
async function deedOf(
  app: Express,
  { use }: Right,
  name: RouteName,
  who: Who,
  request: Request,
): Promise<Deed | undefined> {
  if (use === undefined) return undefined
  const { id } = request.params
  const [, sql] = CLIENT_OF.find(([path]) => ROUTES[name].path.startsWith(path)) ?? []
  const [row] =
    sql && id !== undefined ? await dbOf(app).select<{ clientId: string }>(sql, [String(id)]) : []
  const made = name === 'addClient' ? (request.body as { id: string }).id : null
  // A screen that fetches the day's clients ahead: nobody has looked at them yet.
  const ahead = use === 'look' && request.get('X-Ahead') !== undefined
  const clientId = row?.clientId ?? made
  // One line a client, whichever of their pages it was.
  return ahead ? { who, use: 'keep', what: 'client', clientId } : { who, use, what: name, clientId }
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
