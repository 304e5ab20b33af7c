/** A worker thread knows no TypeScript of itself. */
import { register } from 'tsx/esm/api'

register()
await import('./studioWorker.mts')
