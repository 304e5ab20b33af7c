/** Headers that every page has; styles and the one script within a page carry the page's own nonce. */
import { randomBytes } from 'node:crypto'
import type { RequestHandler, Response } from 'express'
import helmet from 'helmet'

/** Stands in a page for its nonce until it is sent. */
export const NONCE = '%NONCE%'

const nonceOf = (response: Response): string => (response.locals as { nonce: string }).nonce

/** Sends a page with its nonce in it. */
export function sendPage(response: Response, html: string): void {
  response.type('html').send(html.replaceAll(NONCE, nonceOf(response)))
}

const giveNonce: RequestHandler = (_request, response, next) => {
  response.locals['nonce'] = randomBytes(16).toString('base64')
  next()
}

const own = (_request: unknown, response: unknown) => `'nonce-${nonceOf(response as Response)}'`

/** Content policy and the rest, for whatever is served. */
export const HEADERS = (): RequestHandler[] => [
  giveNonce,
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", own],
        workerSrc: ["'self'", 'blob:'],
        styleSrc: ["'self'", own],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'self'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // The studio's own machine serves plain HTTP.
    strictTransportSecurity: false,
    // Nothing of an address goes to other sites; our own forms still say where they come from.
    referrerPolicy: { policy: 'same-origin' },
    crossOriginEmbedderPolicy: false,
  }) as RequestHandler,
]
