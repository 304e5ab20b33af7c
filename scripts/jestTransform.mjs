/**
 * @swc/jest, with the built-ins that hot loops use bound once a file. Jest runs tests in a vm context, where each look at a global
 * such as `Math` goes through an interceptor, a hundred times slower than outside; in ES modules `sandboxInjectedGlobals`
 * does not help. Nothing that a test may replace (Date, timers) is bound.
 */
import { createTransformer as swc } from '@swc/jest'

const BUILT_IN = [
  ...['Math', 'Number', 'Infinity', 'NaN', 'Array', 'Object', 'Map', 'Set', 'JSON'],
  ...['Float32Array', 'Float64Array', 'Uint8Array', 'Uint16Array', 'Uint32Array', 'Int32Array'],
]
// On the first line, so that the numbers of the lines stay.
const HEAD = `const {${BUILT_IN.join(',')}}=globalThis;`

export default {
  createTransformer(options) {
    const plain = swc(options)
    return {
      ...plain,
      process: (source, ...rest) => plain.process(HEAD + source, ...rest),
      processAsync: (source, ...rest) => plain.processAsync(HEAD + source, ...rest),
      getCacheKey: (source, ...rest) => plain.getCacheKey(HEAD + source, ...rest),
    }
  },
}
