/** What is asked for in a terminal: a backup, taking one back, and reading what is left of a damaged file. */
import { randomInt } from 'node:crypto'
import { resolve } from 'node:path'
import { whenWords } from '../../core/time/index.ts'
import { readConfig } from '../config.ts'
import { openDatabase } from '../db/connection.ts'
import { listBackups, makeBackup, proveBackup } from './backup.ts'
import { hashSecret } from '../people/people.ts'
import { Trail } from '../people/trail.ts'
import { rebuild } from '../standing/standing.ts'
import { workHere } from '../work/work.ts'
import { checkDataFile } from './archive.ts'
import { backupFolders, dataFile, lockFolder } from './folder.ts'
import { rescue } from './rescue.ts'
import { restore } from './restore.ts'

const folderOf = (args: readonly string[]) =>
  readConfig(process.env, args.includes('--demo')).dataDir
const given = (args: readonly string[]) => args.find((a) => !a.startsWith('--'))
const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`

/** `backup [FOLDER]`. */
export async function backupCommand(args: readonly string[]): Promise<void> {
  const dataDir = folderOf(args)
  const folder = given(args)
  let last = ''
  const backup = await makeBackup({
    dataDir,
    why: args.includes('--why=nightly') ? 'nightly' : 'asked',
    ...(folder !== undefined && { folder: resolve(folder) }),
    onProgress: ({ part, done }) => {
      if (part !== last) console.log(`${part} …`)
      last = part
      process.send?.({ part, done })
    },
  })
  const { clients = 0, visits = 0 } = backup.counts
  console.log(
    `${backup.file} (${megabytes(backup.bytes)}): ${clients} clients, ${visits} visits, read back and whole.`,
  )
}

/** `prove [FILE]`: the newest without a file. */
export async function proveCommand(args: readonly string[]): Promise<void> {
  const dataDir = folderOf(args)
  const file = given(args)
  const all = listBackups(backupFolders(dataDir)[0]!)
  const backup = file === undefined ? all[0] : all.find((b) => b.file === resolve(file))
  if (!backup) throw new Error('There is no such backup.')
  const { proven } = await proveBackup(dataDir, backup, (p) => process.send?.(p))
  console.log(
    proven!.problem
      ? `${backup.file} did not restore: ${proven!.problem}`
      : `${backup.file} was restored for trial: every file and every table is as it says.`,
  )
}

/** `restore [FILE]`: without a file it lists what there is. */
export async function restoreCommand(args: readonly string[]): Promise<void> {
  const dataDir = folderOf(args)
  const file = given(args)
  if (file === undefined) {
    const all = backupFolders(dataDir).flatMap(listBackups)
    if (all.length === 0) {
      console.log(`There is no backup in ${backupFolders(dataDir).join(' or ')}.`)
      return
    }
    for (const b of all) {
      const proven = b.proven && !b.proven.problem ? ', restored for trial' : ''
      console.log(
        `${b.file}  ${whenWords(b.madeAtMs)}, ${b.counts['clients'] ?? 0} clients, ${b.counts['visits'] ?? 0} visits${proven}`,
      )
    }
    console.log('Type "npm run restore -- FILE" to take one.')
    return
  }
  const done = await restore(dataDir, resolve(file), process.env['SLOW_TIDE_PASSPHRASE'])
  console.log(
    `Restored as of ${whenWords(done.madeAtMs)}: ${done.clients} clients, ${done.visits} visits.` +
      (done.erasedAgain > 0 ? ` ${done.erasedAgain} who were erased since are erased again.` : '') +
      (done.aside ? ` What was there before is at ${done.aside}.` : ''),
  )
}

/** `rescue`. */
export async function rescueCommand(args: readonly string[]): Promise<void> {
  const dataDir = folderOf(args)
  const done = await rescue(dataDir, async (into) => (await openDatabase(into)).close())
  const rows = Object.entries(done.tables).filter(([, t]) => t.read + t.lost > 0)
  for (const [name, { read, lost }] of rows)
    console.log(`${name}: ${read} read${lost > 0 ? `, ${lost} lost` : ''}`)
  if (done.orphans > 0) console.log(`${done.orphans} left out because what they hang on was lost.`)
  console.log(
    `What can be read is in ${done.into}; the old folder is as it was. To look at it: SLOW_TIDE_DATA="${done.into}" npm start`,
  )
}

/** `verify`: the data file, and the trail line by line. */
export async function verifyCommand(args: readonly string[]): Promise<void> {
  const db = await openDatabase(folderOf(args))
  try {
    await checkDataFile(dataFile(folderOf(args)))
    const [row] = await db.select<{ n: number }>('SELECT COUNT(*) AS n FROM trail')
    const broken = await new Trail(db).verify()
    if (broken !== undefined) {
      throw new Error(
        `The trail does not hold together from line ${broken} on: somebody changed the file beside Slow Tide. Compare it with a backup of before.`,
      )
    }
    console.log(`The data file is whole, and the trail’s ${row!.n} lines follow from each other.`)
  } finally {
    await db.close()
  }
}

/** `rebuild`: what is kept of each client beside their visits is made anew from the visits. */
export async function rebuildCommand(args: readonly string[]): Promise<void> {
  const dataDir = folderOf(args)
  const lock = await lockFolder(dataDir)
  const db = await openDatabase(dataDir)
  try {
    const clients = await rebuild(db, workHere(db))
    console.log(
      `Made anew from their visits: what stands of every client, and the sums of ${clients}.`,
    )
  } finally {
    await db.close()
    await lock.release()
  }
}

/** `new-secret NAME`: for whoever has forgotten theirs, at the machine itself. */
export async function newSecretCommand(args: readonly string[]): Promise<void> {
  const dataDir = folderOf(args)
  const name = args
    .filter((a) => !a.startsWith('--'))
    .join(' ')
    .trim()
  const lock = await lockFolder(dataDir)
  const db = await openDatabase(dataDir)
  try {
    const all = await db.select<{ id: string; name: string }>(
      'SELECT id, name FROM workers WHERE goneAtMs IS NULL',
    )
    const found = all.filter((w) => w.name.toLowerCase().includes(name.toLowerCase()))
    if (name === '' || found.length !== 1) {
      throw new Error(
        `Say whose: npm run new-secret -- NAME. Here work ${all.map((w) => w.name).join(', ')}.`,
      )
    }
    const secret = String(randomInt(1_000_000)).padStart(6, '0')
    const kept = await hashSecret(secret)
    await db.write(() => db.models.Worker.update({ secret: kept }, { where: { id: found[0]!.id } }))
    console.log(
      `${found[0]!.name} signs in with ${secret} now. Change it after signing in: House, People.`,
    )
  } finally {
    await db.close()
    await lock.release()
  }
}
