import { constantOf } from '../register/index.ts'
import { ESTIMATES, type EstimateText } from './index.ts'

describe('what stands behind the figures', () => {
  it.each(Object.entries<EstimateText>(ESTIMATES))(
    '%s leans on constants that there are, and says what and how in a sentence each',
    (_, e) => {
      for (const id of e.constants) expect(constantOf(id).text).not.toBe('')
      expect(e.what).toMatch(/[.]$/)
      expect(e.formula).toMatch(/[.]$/)
      // What is published names where.
      if (e.mark === 'P') expect(e.source).toBeTruthy()
    },
  )
})
