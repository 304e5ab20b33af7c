/** Learning over the whole studio, off the main thread. */
import { expose } from 'comlink'
import { figuresOf } from '../../core/register/index.ts'
import type { ChangedFigures } from '../../core/house/index.ts'
import { learnOverStudio, type StudioClient } from '../../core/history/index.ts'

/** Progress is told at most so often. */
const TELL_EVERY_MS = 60

const studioWorker = {
  learn(
    clients: readonly StudioClient[],
    nowMs: number,
    changed: ChangedFigures,
    progress: (share: number) => void,
  ) {
    let told = 0
    return learnOverStudio(figuresOf(changed), clients, nowMs, (share) => {
      const now = performance.now()
      if (now - told < TELL_EVERY_MS && share < 1) return
      told = now
      progress(share)
    })
  },
}

export type StudioWorker = typeof studioWorker
expose(studioWorker)
