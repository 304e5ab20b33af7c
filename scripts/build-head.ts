/** Builds the head once and keeps it under generated/: meshes as bytes, zone records and flat views as JSON. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { buildHead } from '../core/head/head.ts'
import { packHead } from '../core/head/pack.ts'
import { flatView, VIEW_IDS } from '../core/head/projection.ts'

const started = performance.now()
const head = buildHead()
mkdirSync('generated', { recursive: true })
writeFileSync('generated/head.bin', packHead(head))
writeFileSync('generated/zones.json', JSON.stringify(head.zones))
writeFileSync(
  'generated/flat-views.json',
  JSON.stringify(VIEW_IDS.map((id) => flatView(head.display, id))),
)
console.log(`Head built in ${((performance.now() - started) / 1000).toFixed(1)} s.`)
