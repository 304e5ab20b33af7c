/** The built web files: hashed ones for a year, the page itself always fresh. */
import { join } from 'node:path'
import express, { type Express } from 'express'

export function serveWeb(app: Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(join(webDir, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }),
  )
  app.use(express.static(webDir, { index: false, maxAge: '1h' }))
  app.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache')
    response.sendFile(join(webDir, 'index.html'))
  })
}
