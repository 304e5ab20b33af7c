/**
 * Tests that go through very many cases: run by `npm test`, left out where code is broken on purpose hundreds of times
 * (`npm run mutate`); what one of them alone would notice counts there as not noticed.
 */
export const many = process.env['MUTATE'] === undefined ? it : it.skip
