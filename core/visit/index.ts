/** The visit as a whole: the one gate, and what ending it leaves. Every station, the server and the demo ask here. */
export * from './types.ts'
export { aftermathOf, AFTERMATH_CONSTANTS, severeSigns, type Aftermath } from './aftermath.ts'
export { patchReadable } from './asking.ts'
export { finishService, type Finished } from './finish.ts'
export { checkDecision, gate, heldWords, holding, LEAST_REASON } from './gate.ts'
export { guessedZones } from './readiness.ts'
export { zoneWords } from './skin.ts'
export { knownOf, NO_FACTS, type GatedHouse, type GatedVisit, type GateFacts } from './known.ts'
