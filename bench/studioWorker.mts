/** Learning over the studio inside a worker thread, told from as it goes. */
import { DEFAULTS } from '../core/house/constants.ts'
import { parentPort } from 'node:worker_threads'
import { learnOverStudio } from '../core/history/studioLearn.ts'
import { studioClients } from './return.mts'

const clients = studioClients()
let told = 0
const began = performance.now()
learnOverStudio(DEFAULTS, clients, 400 * 86_400_000, () => {
  told++
  parentPort!.postMessage({ progress: told })
})
parentPort!.postMessage({ ms: performance.now() - began, told })
