import { rmSync } from 'node:fs'
import { serve } from './server.ts'

/** One demo studio for all browser tests; each test brings its own clients where it changes something. */
export default async function setup(): Promise<() => Promise<void>> {
  const served = await serve({ demo: true })
  process.env['SLOW_TIDE_BASE'] = served.base
  return async () => {
    await served.kill()
    rmSync(served.dir, { recursive: true, force: true })
  }
}
