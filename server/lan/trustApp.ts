/**
 * A page by plain HTTP that another device can open before it trusts the house: the root certificate as a file, and how each
 * system takes it. It holds nothing else and takes nothing.
 */
import escapeHtml from 'escape-html'
import express, { type Express } from 'express'
import { HEADERS, NONCE, sendPage } from '../http/headers.ts'
import type { Certificates } from './certificates.ts'

const SYSTEMS: readonly (readonly [string, readonly string[]])[] = [
  [
    'iPhone and iPad',
    [
      'Tap the file above and allow the profile to be loaded.',
      'Settings, General, VPN and device management: install the profile.',
      'Settings, General, About, Certificate trust settings: switch it on.',
    ],
  ],
  [
    'Android',
    [
      'Load the file above.',
      'Settings, Security, Encryption and credentials, Install a certificate, CA certificate: choose the file.',
    ],
  ],
  [
    'Windows',
    [
      'Open the file above: Install certificate, Local machine.',
      'Place it in “Trusted root certification authorities”.',
    ],
  ],
  [
    'macOS',
    ['Open the file above: it goes into the keychain.', 'Open it there, Trust: Always trust.'],
  ],
  [
    'Linux',
    [
      'Chromium: Settings, Privacy and security, Manage certificates, Authorities: import the file.',
      'Firefox: Settings, Certificates, Authorities: import the file.',
    ],
  ],
]

export function createTrustApp(
  house: string,
  url: string,
  { root, fingerprint }: Certificates,
): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(HEADERS())
  app.get('/root.crt', (_request, response) => {
    response
      .type('application/x-x509-ca-cert')
      .setHeader('Content-Disposition', 'attachment; filename="slow-tide-root.crt"')
    response.send(root)
  })
  app.get('/', (_request, response) => {
    response.setHeader('Cache-Control', 'no-store')
    sendPage(
      response,
      `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>Trust this house</title><style nonce="${NONCE}">body{font:17px/1.5 system-ui,sans-serif;max-width:36em;margin:2em auto;padding:0 1em;background:#f4efe4;color:#173038}code{overflow-wrap:anywhere}a{color:#0c4657}</style>
<h1>${escapeHtml(house)}</h1>
<p>This device does not know the house yet. Once it trusts the house’s own certificate, what goes between them can be read by nobody else.</p>
<p><a href="/root.crt"><b>The certificate, as a file</b></a></p>
<p>Compare its fingerprint (SHA-256) with the one at House, Screens, on the house’s own machine. If one sign differs, do not install it:</p><p><code>${escapeHtml(fingerprint)}</code></p>
${SYSTEMS.map(([name, steps]) => `<h2>${name}</h2><ol>${steps.map((s) => `<li>${s}</li>`).join('')}</ol>`).join('')}
<p>Then open <a href="${escapeHtml(url)}">${escapeHtml(url)}</a>. To take it back, remove the certificate where it was installed.</p></html>`,
    )
  })
  app.use(
    (_request, response) =>
      void response.status(404).type('text').send('There is nothing else here.'),
  )
  return app
}
