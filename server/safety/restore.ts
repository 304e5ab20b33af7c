/** Taking a backup: unpacked beside the folder, held to its manifest, and only then put in its place. The old one stays. */
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { stepsDone, refuseNewer } from '../db/migrate.ts'
import { READ_ONLY, withPlain } from '../db/plain.ts'
import { unpack } from './archive.ts'
import { eraseAgain, erasedIn, readErased } from './erased.ts'
import { backupFolders, DATA_FILE, finishSwap, lockFolder, readCard, swapIn } from './folder.ts'

export interface Restored {
  readonly clients: number
  readonly visits: number
  readonly madeAtMs: number
  /** Where what was there before lies now; undefined where nothing was. */
  readonly aside: string | undefined
  /** People who were erased since and are erased again. */
  readonly erasedAgain: number
}

/**
 * @throws Trouble when the backup is not whole or the folder is in use; nothing is changed then
 */
export async function restore(
  dataDir: string,
  archive: string,
  passphrase?: string,
  nowMs = Date.now(),
): Promise<Restored> {
  finishSwap(dataDir)
  const card = readCard(dataDir)
  const lock = existsSync(dataDir) ? await lockFolder(dataDir) : undefined
  const fresh = mkdtempSync(`${dataDir}-restoring-`)
  try {
    const manifest = await unpack(archive, fresh, passphrase ?? card?.passphrase)
    await withPlain(join(fresh, DATA_FILE), READ_ONLY, async (open) =>
      refuseNewer(await stepsDone(open.all), `The backup ${archive}`),
    )
    rmSync(join(fresh, 'manifest.json'))
    rmSync(join(fresh, 'unlocked.tar.gz'), { force: true })
    const folders = new Set([...backupFolders(dataDir), dirname(archive)])
    const erasedAgain = await eraseAgain(fresh, [
      await erasedIn(dataDir),
      ...[...folders].map(readErased),
    ])
    if (card)
      writeFileSync(join(fresh, 'studio.json'), JSON.stringify(card, null, 2), { mode: 0o600 })
    await lock?.release()
    const aside = swapIn(dataDir, fresh, nowMs)
    const { clients = 0, visits = 0 } = manifest.counts
    return {
      clients: clients - erasedAgain,
      visits,
      madeAtMs: manifest.madeAtMs,
      aside: existsSync(aside) ? aside : undefined,
      erasedAgain,
    }
  } catch (error) {
    await lock?.release()
    rmSync(fresh, { recursive: true, force: true })
    throw error
  }
}
