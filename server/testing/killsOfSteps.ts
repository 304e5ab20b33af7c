/** Kills while the shape of the data changes: after each the folder opens, and nothing is lost. */
import { cpSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { checkDataFile, countsOf } from '../safety/archive.ts'
import { listBackups } from '../safety/backup.ts'
import { dataFile, usualBackups } from '../safety/folder.ts'
import { oldFolder } from './oldFolder.ts'
import { runBuilt } from './process.ts'

export interface StepKills {
  readonly kills: number
  /** Kills that came while there were steps left to do. */
  readonly within: number
  /** Folders that did not open afterwards, or that had lost something. */
  readonly lost: number
  /** Backups made of a state that had one already. */
  readonly copiesTooMany: number
}

/** Tables that hold what people entered. */
const TOLD = ['clients', 'visits', 'chair_events', 'skin_answers', 'readings'] as const

/**
 * @param kills how many; up to six times as many until two came within the steps
 * @param random where within the time that the steps take each kill comes
 */
export async function killsOfSteps(
  kills: number,
  visits: number,
  random: () => number,
): Promise<StepKills> {
  const root = mkdtempSync(join(tmpdir(), 'slow-tide-steps-'))
  const before = join(root, 'before')
  await oldFolder(before, visits)
  const told = await countsOf(dataFile(before))
  let [within, lost, copiesTooMany, done] = [0, 0, 0, 0]
  try {
    // How long it takes undisturbed.
    const trial = join(root, 'trial')
    cpSync(before, trial, { recursive: true })
    const began = performance.now()
    const calm = runBuilt(trial)
    await calm.serves
    let wholeMs = performance.now() - began
    await calm.kill()
    // On a machine whose pace changes the first kills may all come too late: some must come within.
    const goOn = () => done < kills || (within < 2 && done < 6 * kills)
    while (goOn()) {
      const dir = join(root, `k${done}`)
      mkdirSync(dir)
      const data = join(dir, 'data')
      cpSync(before, data, { recursive: true })
      // The same folder is killed again and again until it serves.
      for (let served = false; !served && goOn(); done++) {
        const from = performance.now()
        const run = runBuilt(data)
        const killed = new Promise((r) => setTimeout(r, 150 + random() * wholeMs))
        served = await Promise.race([run.serves.then(() => true), killed.then(() => false)])
        if (served) wholeMs = Math.min(wholeMs, performance.now() - from)
        await run.kill('SIGKILL')
        if (!served) {
          const { steps } = await checkDataFile(dataFile(data))
          if (!steps.some((s) => s.startsWith('0008'))) within++
        }
      }
      const last = runBuilt(data)
      const opened = await last.serves.then(
        () => true,
        () => false,
      )
      await last.kill()
      const now = await countsOf(dataFile(data)).catch((): Record<string, number> => ({}))
      if (!opened || TOLD.some((t) => now[t] !== told[t])) lost++
      const made = listBackups(usualBackups(data)).map((b) => b.of)
      copiesTooMany += made.length - new Set(made).size
      rmSync(dir, { recursive: true })
    }
    return { kills: done, within, lost, copiesTooMany }
  } finally {
    rmSync(root, { recursive: true, force: true })
  }
}
