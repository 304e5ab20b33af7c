/** How Debian's Chromium is started here: headless, and without calls home. */
const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]
const executablePath = process.env['CHROMIUM'] ?? '/usr/bin/chromium'

/** With WebGL in software: the head is drawn. */
export const CHROMIUM = {
  executablePath,
  args: [...ARGS, '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
}

/** Without WebGL: the flat views take the head's place, which takes half the time. */
export const CHROMIUM_FLAT = { executablePath, args: [...ARGS, '--disable-software-rasterizer'] }
