/** The built web files: hashed ones for a year, the page itself always fresh and with a nonce of its own. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import express, { type Express } from 'express'
import squeezed from 'express-static-gzip'
import { pageWithAhead } from './ahead.ts'
import { sendPage } from './headers.ts'

export function serveWeb(app: Express, webDir: string): void {
  const page = readFileSync(join(webDir, 'index.html'), 'utf8')
  const pageFor = pageWithAhead(webDir, page)
  app.use(
    '/assets',
    squeezed(join(webDir, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: { immutable: true, maxAge: '365d', fallthrough: false },
    }),
  )
  // What tells of a new version is always asked for anew.
  app.use(['/sw.js', '/manifest.webmanifest'], (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-cache')
    next()
  })
  app.get('/index.html', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache')
    sendPage(response, page)
  })
  app.use(express.static(webDir, { index: false, maxAge: '1h', cacheControl: false }))
  app.get('/{*path}', (request, response) => {
    response.setHeader('Cache-Control', 'no-cache')
    sendPage(response, pageFor(request.path))
  })
}
