/** What comes over the wire against the contract. */
import { ValidationError, type Schema } from 'yup'
import { hostile } from '../../contract/keys.ts'
import { HttpProblem } from './problem.ts'

/** @throws HttpProblem `not-json` */
export function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw new HttpProblem(400, 'not-json', 'The request is not readable JSON. Nothing was changed.')
  }
}

/**
 * @param what is begun the sentence with
 * @throws HttpProblem `invalid` when the value is not what the schema takes
 */
export function checked(
  schema: Schema | undefined,
  value: unknown,
  status: number,
  what: string,
): unknown {
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
