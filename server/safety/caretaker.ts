/**
 * Looks after a folder by itself: a backup every night (or at the first chance after it), the newest restored for trial
 * every week, files that are to go, and what is still owed after erasing. What fails is kept and shown until it succeeds.
 */
import { existsSync, readdirSync, statSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import type { SafetyChange } from '../../contract/safety.ts'
import type { Safety } from '../../contract/types.ts'
import { dateOf, DAY_MS, HOUR_MS, offsetHere } from '../../core/time/index.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem } from '../http/problem.ts'
import { sweep } from '../photos/sweep.ts'
import { type Backup, listBackups, type Progress, pruneBackups } from './backup.ts'
import { backupFolders, readCard, writeCard } from './folder.ts'
import { scrubIfOwed } from './traces.ts'

/** Local hour from which a night's backup is due. */
const NIGHT_HOUR = 3
export const PROVEN_EVERY_MS = 7 * DAY_MS
const SHOWN = 30

/** Work that is done beside the server, so that no chair waits for it. */
export interface Tools {
  readonly backup: (
    why: 'nightly' | 'asked',
    said: (p: Progress) => void,
    stop: AbortSignal,
  ) => Promise<void>
  readonly prove: (file: string, said: (p: Progress) => void, stop: AbortSignal) => Promise<void>
}

type Work = NonNullable<Safety['working']>

/** The moment of the last night's hour before `nowMs`. */
export function lastNight(nowMs: number): number {
  const offset = offsetHere(nowMs)
  const date = dateOf(nowMs, offset)
  const at = Date.parse(`${date}T0${NIGHT_HOUR}:00:00Z`) - offset
  return at <= nowMs ? at : at - DAY_MS
}

export class Caretaker {
  private readonly db: Database
  private readonly dataDir: string
  private readonly tools: Tools
  private working: Work | null = null
  private stopper: AbortController | undefined
  private failure: Safety['failure'] = null
  private timer: NodeJS.Timeout | undefined

  constructor(db: Database, dataDir: string, tools: Tools) {
    this.db = db
    this.dataDir = dataDir
    this.tools = tools
  }

  /** Begins to look every ten minutes. */
  begin(): void {
    this.timer = setInterval(() => void this.look(Date.now()), 10 * 60_000)
    this.timer.unref()
  }

  close(): void {
    clearInterval(this.timer)
    this.stopper?.abort()
  }

  private backups(): Backup[] {
    return listBackups(backupFolders(this.dataDir)[0]!)
  }

  /** Does what is due by now. */
  async look(nowMs: number): Promise<void> {
    await sweep(this.db, this.dataDir, nowMs)
    if ((await this.db.select("SELECT 1 FROM visits WHERE state = 'running' LIMIT 1")).length === 0)
      await scrubIfOwed(this.db)
    if (this.working) return
    const dated = this.backups().filter((b) => b.why === 'nightly' || b.why === 'asked')
    if (!dated.some((b) => b.madeAtMs >= lastNight(nowMs))) {
      await this.backup('nightly')
      for (const folder of backupFolders(this.dataDir))
        if (existsSync(folder)) pruneBackups(folder, nowMs)
    }
    const proven = Math.max(0, ...this.backups().map((b) => b.proven?.atMs ?? 0))
    if (nowMs - proven > PROVEN_EVERY_MS) await this.prove()
  }

  async backup(why: 'nightly' | 'asked'): Promise<void> {
    await this.work('backup', (said, stop) => this.tools.backup(why, said, stop))
  }

  /** Restores the newest backup for trial. */
  async prove(): Promise<void> {
    const [newest] = this.backups()
    if (!newest) return
    await this.work('prove', async (said, stop) => {
      await this.tools.prove(newest.file, said, stop)
      const problem = this.backups().find((b) => b.file === newest.file)?.proven?.problem
      if (problem)
        throw new Error(`The backup ${basename(newest.file)} did not restore: ${problem}`)
    })
  }

  /** @throws HttpProblem 409 `at-work` */
  refuseBusy(): void {
    if (!this.working) return
    throw new HttpProblem(
      409,
      'at-work',
      'A backup is being made or tried just now. Wait until it has ended.',
    )
  }

  stop(): void {
    this.stopper?.abort()
  }

  private async work(
    what: Work['what'],
    work: (said: (p: Progress) => void, stop: AbortSignal) => Promise<void>,
  ): Promise<void> {
    this.refuseBusy()
    this.working = { what, part: 'Beginning', done: 0 }
    const stopper = (this.stopper = new AbortController())
    try {
      await work((p) => (this.working = { what, ...p }), stopper.signal)
      if (this.failure?.what === what) this.failure = null
    } catch (error) {
      const told = error instanceof Error ? error.message : String(error)
      if (!stopper.signal.aborted) this.failure = { what, atMs: Date.now(), problem: told }
    } finally {
      this.working = null
    }
  }

  /** What stands, as House shows it. */
  state(nowMs: number): Safety {
    const [folder, second] = backupFolders(this.dataDir)
    const card = readCard(this.dataDir)
    const backups = this.backups()
    const proven = backups.filter((b) => b.proven)
    const newestProven = proven.sort((a, b) => b.proven!.atMs - a.proven!.atMs)[0]
    return {
      demo: card?.demo ?? false,
      dataDir: this.dataDir,
      folder: folder!,
      second: second ?? null,
      otherDisks: otherDisks(this.dataDir),
      sameDisk:
        sameDisk(this.dataDir, folder!) && (second === undefined || sameDisk(this.dataDir, second)),
      locked: Boolean(card?.passphrase),
      working: this.working,
      failure: this.failure,
      lastAtMs: backups[0]?.madeAtMs ?? null,
      provenAtMs: newestProven?.proven?.problem ? null : (newestProven?.proven?.atMs ?? null),
      nextAtMs: lastNight(nowMs) + DAY_MS,
      backups: backups.slice(0, SHOWN).map((b) => ({
        name: basename(b.file),
        madeAtMs: b.madeAtMs,
        why: b.why,
        bytes: b.bytes,
        clients: b.counts['clients'] ?? 0,
        visits: b.counts['visits'] ?? 0,
        provenAtMs: b.proven?.atMs ?? null,
        problem: b.proven?.problem ?? null,
        onSecond: second !== undefined && existsSync(join(second, basename(b.file))),
      })),
    }
  }

  /** What Today says of it; null while all is well. */
  problem(nowMs: number): string | null {
    if (this.failure) return this.failure.problem
    const last = this.backups()[0]?.madeAtMs
    // A machine that is off at night makes it up within minutes: two days without one is a fault.
    if (last !== undefined && nowMs - last > 2 * DAY_MS + HOUR_MS)
      return `The last backup is ${Math.floor((nowMs - last) / DAY_MS)} days old.`
    return null
  }

  /** @throws HttpProblem 422 when a folder cannot be used */
  change({ folder, second, passphrase }: SafetyChange): void {
    const card = readCard(this.dataDir)
    const backups = { ...card?.backups }
    for (const [key, given] of [
      ['folder', folder],
      ['second', second],
    ] as const) {
      if (given === undefined) continue
      if (given === null || given === '') {
        delete backups[key]
        continue
      }
      const at = resolve(given)
      if (at !== given || at.startsWith(`${this.dataDir}/`) || at === this.dataDir) {
        throw new HttpProblem(
          422,
          'bad-folder',
          'Give a whole path outside the data folder, such as /media/disk/slow-tide. Nothing was changed.',
        )
      }
      if (!existsSync(dirname(at)) || (existsSync(at) && !statSync(at).isDirectory())) {
        throw new HttpProblem(
          422,
          'bad-folder',
          `There is no place for backups at ${at}: the folder above it is not there. Nothing was changed.`,
        )
      }
      backups[key] = at
    }
    writeCard(this.dataDir, {
      backups,
      ...(passphrase !== undefined && { passphrase: passphrase ?? '' }),
    })
  }
}

const deviceOf = (path: string): number | undefined => {
  for (let at = path; ; at = dirname(at)) {
    if (existsSync(at)) return statSync(at).dev
    if (dirname(at) === at) return undefined
  }
}
const sameDisk = (a: string, b: string) => deviceOf(a) === deviceOf(b)

/** Places where systems lay other disks. */
const MOUNTS = ['/media', '/run/media', '/mnt', '/Volumes']

/** Folders on other disks that a backup could go to as well. */
function otherDisks(dataDir: string): string[] {
  const found: string[] = []
  const look = (dir: string, deep: number) => {
    let names: string[]
    try {
      names = readdirSync(dir)
    } catch {
      return
    }
    for (const name of names.slice(0, 20)) {
      const at = join(dir, name)
      try {
        if (!statSync(at).isDirectory()) continue
      } catch {
        continue
      }
      if (!sameDisk(at, dataDir) && !sameDisk(at, dir)) found.push(at)
      else if (deep > 0) look(at, deep - 1)
    }
  }
  for (const dir of MOUNTS) look(dir, 1)
  return found.slice(0, 8)
}
