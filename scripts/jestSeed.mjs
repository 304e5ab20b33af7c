/**
 * Property tests draw the same cases each time, so that a change is judged by what it changes. `PROPERTY_SEED=random`, or a
 * number, draws others: worth doing after a change of the models.
 */
import fc from 'fast-check'

const wished = process.env.PROPERTY_SEED
if (wished !== 'random') fc.configureGlobal({ seed: Number(wished ?? 20_261_127) })

// What jsdom has not, and packages ask for while they are loaded.
if (typeof TextEncoder === 'undefined') {
  const util = await import('node:util')
  Object.assign(globalThis, { TextEncoder: util.TextEncoder, TextDecoder: util.TextDecoder })
}
