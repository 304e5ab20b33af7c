/** What a production install leaves out is not needed: the built server runs with the packages of `npm ci --omit=dev` alone. */
import { spawn } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { ROOT } from './config.ts'

const dir = mkdtempSync(join(tmpdir(), 'slow-tide-production-'))
afterAll(() => rmSync(dir, { recursive: true, force: true }))

/** Lays out a folder as that install would: the lock file says which packages are for development only. */
function install(): string[] {
  const lock = JSON.parse(readFileSync(join(ROOT, 'package-lock.json'), 'utf8')) as {
    packages: Record<string, { dev?: true; devOptional?: true }>
  }
  const kept = Object.entries(lock.packages)
    .filter(([path, p]) => path.startsWith('node_modules/') && !p.dev && !p.devOptional)
    // What lies within another package comes with it.
    .flatMap(([path]) => (path.lastIndexOf('node_modules/') === 0 ? [path] : []))
  for (const path of kept) {
    mkdirSync(dirname(join(dir, path)), { recursive: true })
    symlinkSync(join(ROOT, path), join(dir, path))
  }
  for (const part of ['dist', 'package.json'])
    cpSync(join(ROOT, part), join(dir, part), { recursive: true })
  symlinkSync(join(ROOT, 'generated'), join(dir, 'generated'))
  return kept
}

it('serves pages, plans, calendars and reports without any development package', async () => {
  const kept = install()
  expect(kept).toContain('node_modules/express')
  for (const name of ['jest', 'typescript', 'vite'])
    expect(kept).not.toContain(`node_modules/${name}`)
  const server = spawn(process.execPath, ['dist/server/main.js', '--demo'], {
    cwd: dir,
    env: {
      ...process.env,
      ...{ NODE_ENV: 'production', NODE_OPTIONS: '', PORT: '0' },
      ...{ SLOW_TIDE_DATA: process.env['SLOW_TIDE_SEEDED'] ? seeded() : join(dir, 'data') },
    },
  })
  let said = ''
  for (const stream of [server.stdout, server.stderr])
    stream.on('data', (c: Buffer) => (said += c.toString()))
  const ended = new Promise((resolve) => server.once('exit', resolve))
  try {
    while (!/http:\/\/[\d.]+:\d+/.test(said) && server.exitCode === null)
      await new Promise((r) => setTimeout(r, 50))
    const base = /http:\/\/[\d.]+:\d+/.exec(said)?.[0]
    expect([base === undefined ? said : '', server.exitCode]).toEqual(['', null])
    const get = (path: string) => fetch(base + path)
    const { rows: clients } = (await (await get('/api/clients')).json()) as {
      rows: { id: string; name: string }[]
    }
    const toby = clients.find((c) => c.name === 'Tobias Arkwell')!.id
    const paths = [
      '/',
      '/api/today',
      '/api/studio',
      `/api/clients/${toby}`,
      `/api/clients/${toby}/report.pdf`,
    ]
    const calendar = `/api/clients/${toby}/visits.ics?through=2027-06-01`
    for (const path of [...paths, calendar]) {
      const answer = await get(path)
      expect([path, answer.status]).toEqual([path, 200])
      expect((await answer.arrayBuffer()).byteLength).toBeGreaterThan(200)
    }
  } finally {
    server.kill('SIGTERM')
    await ended
  }
})

/** A copy of the demo that was made for the tests. */
function seeded(): string {
  cpSync(process.env['SLOW_TIDE_SEEDED']!, join(dir, 'data'), { recursive: true })
  return join(dir, 'data')
}
