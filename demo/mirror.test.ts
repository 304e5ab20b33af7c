/** The demo's people one by one: a left hand on the mirrored client gets the mirror plan. */
import { mirrorDifferences } from '../core/testing/mirror.ts'
import { PEOPLE } from './people.ts'
import { ownInput } from './plans.ts'

describe('the mirror', () => {
  it.each(PEOPLE.map((p) => [p.name, p.service, p] as const))(
    'of %s, %s, is planned in the mirror',
    (_, __, person) => {
      expect(mirrorDifferences(ownInput(person))).toEqual([])
    },
  )
})
