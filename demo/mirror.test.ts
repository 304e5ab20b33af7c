/** The demo's people one by one: a left hand on the mirrored client gets the mirror plan. */
import { makePlan } from '../core/plan/index.ts'
import { mirrorInput, mirroredShape, planShape } from '../core/testing/mirror.ts'
import { isBodyService } from '../core/services/index.ts'
import { PEOPLE } from './people.ts'
import { ownInput } from './plans.ts'

const ON_HEAD = PEOPLE.filter((p) => !isBodyService(p.service))

describe('the mirror', () => {
  it.each(ON_HEAD.map((p) => [p.name, p.service, p] as const))(
    'of %s, %s, is planned in the mirror',
    (_, __, person) => {
      const input = ownInput(person)
      expect(mirroredShape(makePlan(mirrorInput(input)))).toEqual(planShape(makePlan(input)))
    },
  )
})
