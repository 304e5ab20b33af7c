import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { serve } from './server.ts'

/** One demo studio for all browser tests; each test brings its own clients where it changes something. */
export default async function setup(): Promise<() => Promise<void>> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-e2e-'))
  // Made beforehand by `npm test`; otherwise the server fills its folder itself.
  const seeded = process.env['SLOW_TIDE_SEEDED']
  if (seeded) cpSync(seeded, dir, { recursive: true })
  const served = await serve({ demo: true, dir })
  process.env['SLOW_TIDE_BASE'] = served.base
  return async () => {
    await served.kill()
    rmSync(dir, { recursive: true, force: true })
  }
}
