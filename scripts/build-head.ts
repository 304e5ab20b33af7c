/** Builds the head and keeps it under generated/, or under the folder named: meshes as bytes, zone records and flat views as JSON. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { buildHead, marchLandmarks, packHead, flatView, VIEW_IDS } from '../core/head/index.ts'

const started = performance.now()
const built = buildHead()
const head = { ...built, landmarks: marchLandmarks(built.solve) }
const dir = process.argv[2] ?? 'generated'
mkdirSync(dir, { recursive: true })
writeFileSync(join(dir, 'head.bin'), packHead(head))
writeFileSync(join(dir, 'zones.json'), JSON.stringify(head.zones))
writeFileSync(
  join(dir, 'flat-views.json'),
  JSON.stringify(VIEW_IDS.map((id) => flatView(head.display, id))),
)
console.log(`Head built in ${((performance.now() - started) / 1000).toFixed(1)} s.`)
