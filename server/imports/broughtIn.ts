/** Many clients at once, as they came over the wire: read, checked, and cut into parts to be written. */
import { ROUTES, type BodyOf } from '../../contract/routes.ts'
import { checked, parsed } from '../http/check.ts'
import { HttpProblem } from '../http/problem.ts'
import { foldName } from '../standing/foldName.ts'

/** Clients written at once. */
const AT_ONCE = 60

export interface BroughtIn {
  readonly id: string
  readonly source: string
  readonly count: number
  /** All ids, as a JSON list. */
  readonly ids: string
  /** The clients, as JSON lists. */
  readonly parts: readonly string[]
}

/** @throws HttpProblem `not-json`, `invalid`, `twice` */
export function readBroughtIn(text: string): BroughtIn {
  const { id, source, clients } = checked(
    ROUTES.addImport.body,
    parsed(text),
    422,
    'What was sent',
  ) as BodyOf<'addImport'>
  const ids = clients.map((c) => c.id)
  if (new Set(ids).size !== ids.length) {
    throw new HttpProblem(422, 'twice', 'Two of them have the same id. Nobody was brought in.')
  }
  const parts: string[] = []
  for (let i = 0; i < clients.length; i += AT_ONCE)
    parts.push(
      JSON.stringify(
        clients.slice(i, i + AT_ONCE).map((c) => ({ ...c, nameKey: foldName(c.name) })),
      ),
    )
  return { id, source, count: ids.length, ids: JSON.stringify(ids), parts }
}
