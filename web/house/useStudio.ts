/** What the studio has learned over all clients: fetched, then worked out in a worker that can be stopped. */
import { proxy, releaseProxy, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { StudioHistory } from '../../contract/types.ts'
import type { StudioLearned } from '../../core/history/index.ts'
import { call } from '../api/call.ts'
import { changedFigures } from '../state/figures.ts'
import type { StudioWorker } from '../workers/studio.worker.ts'

export type StudioState =
  | { readonly state: 'working'; readonly share: number }
  | { readonly state: 'stopped' }
  | { readonly state: 'failed'; readonly why: string }
  | { readonly state: 'done'; readonly learned: StudioLearned; readonly history: StudioHistory }

export function useStudio() {
  const [state, setState] = useState<StudioState>({ state: 'working', share: 0 })
  const [round, setRound] = useState(0)
  const stop = useRef<() => void>(() => undefined)
  useEffect(() => {
    const thread = new Worker(new URL('../workers/studio.worker.ts', import.meta.url), {
      type: 'module',
    })
    const worker = wrap<StudioWorker>(thread)
    let over = false
    const end = () => {
      over = true
      worker[releaseProxy]()
      thread.terminate()
    }
    stop.current = () => {
      end()
      setState({ state: 'stopped' })
    }
    setState({ state: 'working', share: 0 })
    const work = async () => {
      const history = await call('studio')
      if (over) return
      const learned = await worker.learn(
        history.clients,
        history.nowMs,
        changedFigures(),
        proxy((share: number) => {
          if (!over) setState({ state: 'working', share })
        }),
      )
      if (!over) setState({ state: 'done', learned, history })
    }
    work().catch((error: unknown) => {
      if (!over) {
        setState({ state: 'failed', why: error instanceof Error ? error.message : 'It failed.' })
      }
    })
    return end
  }, [round])
  return { state, stop: () => stop.current(), again: () => setRound((r) => r + 1) }
}
