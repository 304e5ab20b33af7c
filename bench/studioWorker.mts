/** Learning over the studio inside a worker thread, told from as it goes. */
import { DEFAULTS } from '../core/house/index.ts'
import { learnOverStudio } from '../core/history/index.ts'
import { parentPort } from 'node:worker_threads'
import { studioClients } from './return.mts'

const clients = studioClients()
let told = 0
const began = performance.now()
learnOverStudio(DEFAULTS, clients, 400 * 86_400_000, () => {
  told++
  parentPort!.postMessage({ progress: told })
})
parentPort!.postMessage({ ms: performance.now() - began, told })
