/** The built web files: hashed ones for a year, the page itself always fresh. */
import { join } from 'node:path'
import express, { type Express } from 'express'

export function serveWeb(app: Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(join(webDir, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }),
  )
  // What tells of a new version is always asked for anew.
  app.use(['/sw.js', '/manifest.webmanifest'], (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-cache')
    next()
  })
  app.use(express.static(webDir, { index: false, maxAge: '1h', cacheControl: false }))
  app.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache')
    response.sendFile(join(webDir, 'index.html'))
  })
}
