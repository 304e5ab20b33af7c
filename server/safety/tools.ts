/** The caretaker's work as processes of their own: packing and locking take the processor, and no chair waits for that. */
import { fork } from 'node:child_process'
import { listBackups, makeBackup, proveBackup, type Progress } from './backup.ts'
import { backupFolders } from './folder.ts'
import type { Tools } from './caretaker.ts'

/** @param main the built server's own file */
export function toolsBeside(main: string, dataDir: string): Tools {
  const run = (args: readonly string[], said: (p: Progress) => void, stop: AbortSignal) =>
    new Promise<void>((done, failed) => {
      const child = fork(main, args, {
        env: { ...process.env, SLOW_TIDE_DATA: dataDir },
        stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
        signal: stop,
      })
      let problem = ''
      child.stderr!.on('data', (d: Buffer) => (problem += d.toString()))
      child.on('message', (p) => said(p as Progress))
      child.on('error', failed)
      child.on('close', (code) =>
        code === 0 ? done() : failed(new Error(problem.trim() || 'It was stopped.')),
      )
    })
  return {
    backup: (why, said, stop) => run(['backup', `--why=${why}`], said, stop),
    prove: (file, said, stop) => run(['prove', file], said, stop),
  }
}

/** The same in this process: for a server that was not built. */
export const toolsHere = (dataDir: string): Tools => ({
  backup: async (why, onProgress, signal) => {
    await makeBackup({ dataDir, why, onProgress, signal })
  },
  prove: async (file, said) => {
    const backup = listBackups(backupFolders(dataDir)[0]!).find((b) => b.file === file)
    if (backup) await proveBackup(dataDir, backup, said)
  },
})
