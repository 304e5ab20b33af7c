/** The built head, for tests. */
import { readFileSync } from 'node:fs'
import { type ZoneRecord, unpackHead } from '../head/index.ts'

const bytes = readFileSync('generated/head.bin')

export const HEAD = unpackHead(
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length),
)
export const ZONES = JSON.parse(
  readFileSync('generated/zones.json', 'utf8'),
) as readonly ZoneRecord[]
