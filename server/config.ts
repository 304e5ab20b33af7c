/** What the environment says, read once. */
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

export interface Config {
  readonly host: string
  readonly port: number
  /** With `--lan`: where other machines reach it, locked; and where they learn to trust it. */
  readonly lanPort: number
  readonly trustPort: number
  readonly dataDir: string
  readonly version: string
  /** Built web files; undefined while developing. */
  readonly webDir: string | undefined
  readonly logLevel: string
  /** A second port that serves the link pages and nothing else; undefined for none. */
  readonly answerPort?: number | undefined
  /** Where that port listens. */
  readonly answerHost: string
  /** Names and addresses beside the loopback's under which the house is reached. */
  readonly hosts: readonly string[]
  /** Whose word on the client's address is taken: a number of proxies, or their addresses. Nobody's when left out. */
  readonly trustProxy?: number | readonly string[] | undefined
  /** How other machines reach this one; undefined where they do not. */
  readonly lan?: (() => { url: string; trustUrl: string; fingerprint: string } | null) | undefined
  /** Where clients reach the link pages; where the house's own screens reach it when left out. */
  readonly publicUrl?: string | undefined
}

/** The folder that holds package.json, from wherever this file runs. */
export const ROOT = (() => {
  let dir = dirname(fileURLToPath(import.meta.url))
  while (!existsSync(join(dir, 'package.json'))) {
    const up = dirname(dir)
    if (up === dir) throw new Error('package.json was not found above the server.')
    dir = up
  }
  return dir
})()

export const VERSION = (
  JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { version: string }
).version

function portOf(env: NodeJS.ProcessEnv, name: string): number | undefined {
  const given = env[name]
  if (given === undefined || given === '') return undefined
  const port = Number(given)
  if (!Number.isInteger(port) || port < 0 || port > 65_535) {
    throw new Error(`${name} must be a number from 0 to 65535; it is "${given}".`)
  }
  return port
}

const list = (given: string | undefined) =>
  (given ?? '')
    .split(',')
    .map((s) => s.trim())
    .filter(Boolean)

function hostOf(url: string): string {
  try {
    return new URL(url).host
  } catch {
    throw new Error(
      `PUBLIC_URL must be a whole address such as https://example.org; it is "${url}".`,
    )
  }
}

function proxies(given: string | undefined): Config['trustProxy'] {
  const all = list(given)
  if (all.length === 0) return undefined
  return /^\d+$/.test(all[0]!) ? Number(all[0]) : all
}

/** Hosts that only this machine reaches. */
const OWN = new Set(['127.0.0.1', 'localhost', '::1'])

/**
 * Reads the configuration. The demo has a data folder of its own. Throws with a sentence when a value cannot be used.
 * @param beyond whether other machines are let in
 */
export function readConfig(env: NodeJS.ProcessEnv, demo = false, beyond = false): Config {
  const port = portOf(env, 'PORT') ?? 4170
  const host = env['HOST'] || '127.0.0.1'
  const answerHost = env['ANSWER_HOST'] || '127.0.0.1'
  if (!beyond && ![host, answerHost].every((h) => OWN.has(h))) {
    throw new Error(
      `Slow Tide listens for this machine only unless it is started with --lan, where everything is locked (HTTPS) and screens are let in one by one. HOST is "${host}", ANSWER_HOST "${answerHost}". Nothing was started.`,
    )
  }
  const answerPort = portOf(env, 'ANSWER_PORT')
  const web = resolve(ROOT, env['SLOW_TIDE_WEB'] || join('dist', 'web'))
  const publicUrl = env['PUBLIC_URL']?.replace(/\/+$/, '') || undefined
  return {
    host,
    lanPort: portOf(env, 'LAN_PORT') ?? (port === 0 ? 0 : port + 1),
    trustPort: portOf(env, 'TRUST_PORT') ?? (port === 0 ? 0 : port + 2),
    port,
    dataDir: resolve(ROOT, env['SLOW_TIDE_DATA'] || (demo ? 'data-demo' : 'data')),
    version: VERSION,
    webDir: existsSync(join(web, 'index.html')) ? web : undefined,
    logLevel: env['LOG_LEVEL'] || 'warn',
    answerPort,
    answerHost,
    publicUrl,
    hosts: [
      ...list(env['SLOW_TIDE_HOSTS']),
      ...(publicUrl === undefined ? [] : [hostOf(publicUrl)]),
    ],
    trustProxy: proxies(env['TRUST_PROXY']),
  }
}
