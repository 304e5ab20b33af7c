/** The sign that is drawn beside a figure is that of the estimate it opens, on every page. */
import { readdirSync, readFileSync } from 'node:fs'
import { ESTIMATES, type EstimateId } from '../../core/estimates/index.ts'

const uses = readdirSync('web', { recursive: true, encoding: 'utf8' })
  .filter((f) => f.endsWith('.tsx') && !f.endsWith('.test.tsx'))
  .flatMap((file) =>
    [
      ...readFileSync(`web/${file}`, 'utf8').matchAll(/<Estimate\b[^>]*?\bof="([a-z-]+)"[^>]*>/g),
    ].map(([tag, of]) => ({
      file,
      of: of as EstimateId,
      mark: /mark="([HPC])"/.exec(tag)?.[1] ?? 'H',
      tag,
    })),
  )

it('is the one that is told when it is opened', () => {
  expect(uses.length).toBeGreaterThan(20)
  for (const { file, of, mark, tag } of uses) {
    // A mark that is worked out is that of what was found there, not of the figure.
    if (/mark=\{/.test(tag)) continue
    expect({ file, of, mark }).toEqual({ file, of, mark: ESTIMATES[of].mark })
  }
})
