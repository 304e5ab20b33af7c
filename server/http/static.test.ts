import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import pino from 'pino'
import request from 'supertest'
import { createApp } from '../app.ts'
import { openStudio, type Studio } from '../testing/studio.ts'

const web = mkdtempSync(join(tmpdir(), 'slow-tide-web-'))
let studio: Studio
let app: ReturnType<typeof createApp>
beforeAll(async () => {
  mkdirSync(join(web, 'assets'))
  writeFileSync(
    join(web, 'index.html'),
    '<!doctype html><head><title>Slow Tide</title><script src="/assets/begun.js"></script><style nonce="%NONCE%"></style></head>',
  )
  mkdirSync(join(web, '.vite'))
  const chunk = (file: string, imports: string[] = [], css: string[] = []) => ({
    file,
    imports,
    css,
  })
  writeFileSync(
    join(web, '.vite', 'manifest.json'),
    JSON.stringify({
      'stations/ClientFrame.tsx': chunk('assets/frame.js', ['_part.js'], ['assets/frame.css']),
      'stations/read/ReadStation.tsx': chunk('assets/read.js', ['_part.js', '_begun.js']),
      '_part.js': chunk('assets/part.js', ['stations/ClientFrame.tsx']),
      '_begun.js': chunk('assets/begun.js'),
      '../generated/head.bin': chunk('assets/head.bin'),
    }),
  )
  writeFileSync(join(web, 'assets', 'app-abc123.js'), `console.log("${'tide '.repeat(2000)}")`)
  const script = readFileSync(join(web, 'assets', 'app-abc123.js'))
  writeFileSync(join(web, 'assets', 'app-abc123.js.br'), brotliCompressSync(script))
  studio = await openStudio()
  const config = {
    host: '',
    port: 0,
    dataDir: studio.dir,
    version: 'test',
    webDir: web,
    answerHost: '127.0.0.1',
    hosts: [],
    lanPort: 0,
    trustPort: 0,
    logLevel: 'silent',
  }
  app = createApp(studio.db, config, pino({ level: 'silent' }))
})
afterAll(async () => {
  await studio.close()
  rmSync(web, { recursive: true, force: true })
})

describe('the web files', () => {
  it('with a hash are kept for a year, and sent compressed', async () => {
    const r = await request(app)
      .get('/assets/app-abc123.js')
      .set('Accept-Encoding', 'gzip')
      .expect(200)
    expect(r.headers['cache-control']).toBe('public, max-age=31536000, immutable')
    expect(r.headers['content-encoding']).toBe('gzip')
  })

  it('that were squeezed when they were made are sent so', async () => {
    const r = await request(app)
      .get('/assets/app-abc123.js')
      .set('Accept-Encoding', 'gzip, br')
      .expect(200)
    expect(r.headers['content-encoding']).toBe('br')
    expect(r.headers['content-type']).toContain('javascript')
    expect(r.headers['cache-control']).toBe('public, max-age=31536000, immutable')
    expect(r.text).toContain('tide tide')
  })

  it('that are gone are not answered with a page', async () => {
    await request(app).get('/assets/app-old.js').expect(404)
  })

  it('answer every other address with the page, always fresh', async () => {
    for (const path of ['/', '/clients', '/clients/x/read', '/no/such/place']) {
      const r = await request(app).get(path).expect(200)
      expect(r.text).toContain('<title>Slow Tide</title>')
      expect(r.headers['cache-control']).toBe('no-cache')
    }
  })

  it('carry a nonce of their own each time, and no style or script but theirs is let in', async () => {
    const policies = await Promise.all(
      ['/', '/index.html', '/house'].map(async (path) => {
        const { text, headers } = await request(app).get(path).expect(200)
        const nonce = /nonce="([^"]+)"/.exec(text)![1]!
        const policy = headers['content-security-policy'] as string
        expect(policy).toContain(`style-src 'self' 'nonce-${nonce}'`)
        expect(policy).not.toContain('unsafe')
        return nonce
      }),
    )
    expect(new Set(policies).size).toBe(3)
  })

  it('that a client’s page will ask for are named in it, each once, and on no other page', async () => {
    const { text } = await request(app).get(`/clients/${randomUUID()}/read`).expect(200)
    const links = [...text.matchAll(/<link rel="(\w+)" href="([^"]+)"/g)].map(([, r, h]) => [r, h])
    // What the page begins with is not named again.
    expect(links).toEqual([
      ['modulepreload', '/assets/frame.js'],
      ['modulepreload', '/assets/part.js'],
      ['modulepreload', '/assets/read.js'],
      ['preload', '/assets/frame.css'],
      ['preload', '/assets/head.bin'],
    ])
    expect(text).not.toContain('%NONCE%')
    // Nothing but tags: a letter in the head would begin the body.
    const [, head] = /<head>([\s\S]*)<\/head>/.exec(text)!
    expect(head!.replace(/<(title|style|script)[\s\S]*?<\/\1>|<link[^>]*>/g, '').trim()).toBe('')
    for (const path of ['/', '/clients', '/clients/x/read', `/clients/${randomUUID()}/nowhere`])
      expect((await request(app).get(path)).text).not.toContain('<link')
  })

  it('do not stand in for the API', async () => {
    const r = await request(app).get('/api/nothing').expect(404)
    expect(r.headers['content-type']).toContain('application/problem+json')
  })
})
