/**
 * The house's own certificate authority: made here once, trusted by each screen once, never used for anything else. From it
 * comes the certificate of this machine, made anew when its names change or its time is near.
 */
import { X509Certificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'
import { join } from 'node:path'
import { generate } from 'selfsigned'
import { DAY_MS } from '../../core/time/index.ts'

const ROOT_DAYS = 3650
/** Systems refuse longer ones, also of authorities that a person added (825 days; common practice). */
const LEAF_DAYS = 390
const NEW_BEFORE_DAYS = 30

export interface Certificates {
  readonly key: string
  readonly cert: string
  readonly root: string
  /** SHA-256 of the root, as systems show it. */
  readonly fingerprint: string
  /** Names and addresses of this machine in its house's net. */
  readonly names: readonly string[]
}

/** How this machine is called by others in its net; addresses that it has, without those of itself for itself. */
export function ownNames(more: readonly string[] = []): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).filter((a) => !a.internal && !a.address.startsWith('fe80')).map((a) => a.address),
  )
  const name = hostname().toLowerCase()
  const plain = /^[a-z0-9-]+$/.test(name) ? [name, `${name}.local`] : []
  return [...new Set([...addresses, ...plain, ...more.map((m) => m.replace(/:\d+$/, ''))])]
}

const EC = { keyType: 'ec', curve: 'P-256', algorithm: 'sha256' } as const

export async function certificates(
  dataDir: string,
  house: string,
  names: readonly string[],
  nowMs = Date.now(),
): Promise<Certificates> {
  const folder = join(dataDir, 'certificates')
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const file = (name: string) => join(folder, name)
  const keep = (name: string, text: string) => writeFileSync(file(name), text, { mode: 0o600 })
  if (!existsSync(file('root.crt'))) {
    const made = await generate([{ name: 'commonName', value: `${house}, Slow Tide` }], {
      ...EC,
      notBeforeDate: new Date(nowMs - DAY_MS),
      notAfterDate: new Date(nowMs + ROOT_DAYS * DAY_MS),
      extensions: [
        { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
        { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
      ],
    })
    keep('root.key', made.private)
    keep('root.crt', made.cert)
  }
  const root = readFileSync(file('root.crt'), 'utf8')
  const all = ['localhost', '127.0.0.1', '::1', ...names]
  if (!fits(file('leaf.crt'), root, all, nowMs)) {
    const made = await generate([{ name: 'commonName', value: 'Slow Tide' }], {
      ...EC,
      ca: { key: readFileSync(file('root.key'), 'utf8'), cert: root },
      notBeforeDate: new Date(nowMs - DAY_MS),
      notAfterDate: new Date(nowMs + LEAF_DAYS * DAY_MS),
      extensions: [
        { name: 'basicConstraints', cA: false, critical: true },
        { name: 'keyUsage', digitalSignature: true, critical: true },
        { name: 'extKeyUsage', serverAuth: true },
        {
          name: 'subjectAltName',
          altNames: all.map((n) =>
            isIP(n) ? { type: 7 as const, ip: n } : { type: 2 as const, value: n },
          ),
        },
      ],
    })
    keep('leaf.key', made.private)
    keep('leaf.crt', made.cert)
  }
  return {
    key: readFileSync(file('leaf.key'), 'utf8'),
    cert: readFileSync(file('leaf.crt'), 'utf8'),
    root,
    fingerprint: new X509Certificate(root).fingerprint256,
    names,
  }
}

/** Whether the certificate at hand still names all of this machine and has time left. */
function fits(file: string, root: string, names: readonly string[], nowMs: number): boolean {
  if (!existsSync(file)) return false
  const leaf = new X509Certificate(readFileSync(file))
  const ends = Date.parse(leaf.validTo)
  return (
    ends - nowMs > NEW_BEFORE_DAYS * DAY_MS &&
    leaf.verify(new X509Certificate(root).publicKey) &&
    names.every((n) => (isIP(n) ? leaf.checkIP(n) : leaf.checkHost(n)) !== undefined)
  )
}
