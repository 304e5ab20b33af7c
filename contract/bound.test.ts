/** Drift between a core type and its schema is an error of the compiler: these lines compile only while it is one. */
import * as y from 'yup'
import { bound } from './bound.ts'

interface Buoy {
  readonly id: string
  readonly lit?: boolean | undefined
  readonly at: readonly [number, number, number]
  readonly marks: readonly { readonly name: string }[]
}

const number = () => y.number().required()
const fields = {
  id: y.string().required(),
  lit: y.boolean().optional(),
  at: y.tuple([number(), number(), number()]).required(),
  marks: y.array(y.object({ name: y.string().required() }).required()).required(),
}
const { lit: _lit, ...withoutLit } = fields

describe('a schema bound to a type of core', () => {
  it('is the schema itself', () => {
    const schema = y.object(fields)
    expect(bound<Buoy>()(schema)).toBe(schema)
    expect(schema.isValidSync({ id: 'a', at: [1, 2, 3], marks: [{ name: 'x' }] })).toBe(true)
  })

  it('does not compile with a field too few, too many, of another kind, or that may be left out', () => {
    const drifted = () => {
      // @ts-expect-error what may be left out is not taken at all
      bound<Buoy>()(y.object(withoutLit))
      // @ts-expect-error a field that core does not know
      bound<Buoy>()(y.object({ ...fields, colour: y.string().optional() }))
      // @ts-expect-error a number where core has a string
      bound<Buoy>()(y.object({ ...fields, id: y.number().required() }))
      // @ts-expect-error core needs what the wire may leave out
      bound<Buoy>()(y.object({ ...fields, id: y.string().optional() }))
      // @ts-expect-error the wire needs what core may leave out
      bound<Buoy>()(y.object({ ...fields, lit: y.boolean().required() }))
      // @ts-expect-error drift further in
      bound<Buoy>()(y.object({ ...fields, marks: y.array(y.object({}).required()).required() }))
    }
    expect(drifted).toBeInstanceOf(Function)
  })
})
