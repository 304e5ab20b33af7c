/**
 * Who may knock. A page under another name that resolves to this machine, or one that the browser has open beside ours,
 * asks as if it were here: names, origins and kinds of content are held to what our own pages send.
 */
import { isIP } from 'node:net'
import type { RequestHandler } from 'express'
import type { Socket } from 'node:net'
import { HttpProblem } from './problem.ts'

/** Names of this machine for itself. */
export const LOOPBACK = /^(localhost|[a-z0-9-]+\.localhost|127\.0\.0\.1|\[::1\])$/

/** The name in a Host header or an origin, without its port. */
export const nameOf = (host: string): string =>
  /^(\[[^\]]*\]|[^:]*)(:\d+)?$/.exec(host.toLowerCase())?.[1] ?? ''

export interface DoorRules {
  /** Names and addresses beside the loopback's under which this house is reached. */
  readonly hosts: readonly string[]
  /** True where a bare address is as good as a name: no other page can make a browser take one for its own. */
  readonly addresses?: boolean
}

/** @throws HttpProblem 421 for a name that is not ours */
export function ownHosts({ hosts, addresses = false }: DoorRules): RequestHandler {
  const known = new Set(hosts.map((h) => nameOf(h)))
  return (request, _response, next) => {
    const name = nameOf(request.headers.host ?? '')
    if (
      name !== '' &&
      (LOOPBACK.test(name) ||
        known.has(name) ||
        (addresses && isIP(name.replace(/[[\]]/g, '')) > 0))
    )
      return next()
    throw new HttpProblem(
      421,
      'not-this-house',
      'This house is not reached under that name. Open it under its own address, or add the name to SLOW_TIDE_HOSTS.',
    )
  }
}

/** Where a request comes from, as the browser itself says: pages cannot set these. */
function isOurs(headers: Record<string, string | string[] | undefined>): boolean {
  const site = headers['sec-fetch-site']
  if (site !== undefined) return site === 'same-origin' || site === 'none'
  const { origin, host } = headers
  if (typeof origin !== 'string') return true
  try {
    return new URL(origin).host === host
  } catch {
    // "null": a sandboxed frame, a file, a page that hides where it is.
    return false
  }
}

/** Writes, data and pictures are for our own pages only. @throws HttpProblem 403 */
export const ownPages: RequestHandler = (request, response, next) => {
  response.setHeader('Cache-Control', 'no-store')
  const origin = request.headers.origin
  const writes = !['GET', 'HEAD'].includes(request.method)
  const fits =
    isOurs(request.headers) &&
    (origin === undefined || isOurs({ origin, host: request.headers.host }))
  // A browser that says "none" was sent by a person's own hand, which writes nothing.
  if (fits && !(writes && request.headers['sec-fetch-site'] === 'none')) return next()
  throw new HttpProblem(
    403,
    'not-from-here',
    'That was asked from another page. Nothing was changed; only the pages of this house are answered.',
  )
}

/** Kinds of content that each address takes: a form on another page can send others without asking. */
export const ownKinds =
  (kindFor: (path: string) => string): RequestHandler =>
  (request, _response, next) => {
    const { headers } = request
    const has =
      headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0
    const kind = (headers['content-type'] ?? '').split(';')[0]!.trim().toLowerCase()
    if (!has || ['GET', 'HEAD'].includes(request.method) || kind === kindFor(request.path))
      return next()
    throw new HttpProblem(
      415,
      'wrong-kind',
      `That address takes ${kindFor(request.path)} only. Nothing was changed.`,
    )
  }

/** How this house is reached, from the connection itself: what a request says of it is not believed. */
export function ownAddress(
  scheme: 'http' | 'https',
  name: string | undefined,
  socket: Socket,
): string {
  const local = socket.localAddress?.replace(/^::ffff:/, '') ?? '127.0.0.1'
  const host = name ?? (isIP(local) === 6 ? `[${local}]` : local)
  return `${scheme}://${host}:${socket.localPort}`
}
