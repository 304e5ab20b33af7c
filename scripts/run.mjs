#!/usr/bin/env node
/**
 * One script for every command, without dependencies of its own, so that it runs straight after a clone: it installs
 * what is missing, builds what is stale, and then does what was asked.
 */
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..')
process.chdir(root)
const [command = 'demo', ...rest] = process.argv.slice(2)
const bin = (name) => join(root, 'node_modules', '.bin', name)
const stampFile = join(root, 'node_modules', '.slow-tide-stamp')
const cacheDir = join(root, '.cache')

function fail(sentence) {
  console.error(sentence)
  process.exit(1)
}

/** Runs a program to its end; stops everything when it fails. */
function run(program, args, { env = {}, allowFailure = false } = {}) {
  const done = spawnSync(program, args, { stdio: 'inherit', env: { ...process.env, ...env } })
  if (done.error) fail(`${program} could not be started: ${done.error.message}`)
  if (done.status !== 0 && !allowFailure) process.exit(done.status ?? 1)
  return done.status === 0
}

/**
 * Runs a program beside others. What it says comes out whole at its end, so that two do not speak at once.
 * @returns true when it succeeded
 */
function beside(program, args, { env = {} } = {}) {
  return new Promise((resolve) => {
    const child = spawn(program, args, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (d) => said.push(d))
    child.on('error', (error) => said.push(`${program} could not be started: ${error.message}\n`))
    child.on('close', (code) => {
      process.stdout.write(said.map(String).join(''))
      resolve(code === 0)
    })
  })
}

function hashOf(files) {
  const hash = createHash('sha256')
  for (const file of files) hash.update(file).update(readFileSync(file))
  return hash.digest('hex')
}

function filesUnder(dir, accept) {
  if (!existsSync(dir)) return []
  return readdirSync(dir, { withFileTypes: true })
    .flatMap((entry) => {
      const path = join(dir, entry.name)
      return entry.isDirectory() ? filesUnder(path, accept) : accept(path) ? [path] : []
    })
    .sort()
}

const isSource = (path) =>
  /\.(ts|tsx|css|html|json)$/.test(path) && !/\.(test|spec)\.tsx?$/.test(path)

/** What the packages were installed for; another lock file, Node version or platform needs them anew. */
const stamp = () =>
  `${hashOf(['package-lock.json'])} ${process.versions.modules} ${process.platform}-${process.arch}`

/**
 * Fetches the packages when they are missing or of another stamp.
 * @returns what is left to do before they can be run: to compile sqlite3; undefined when nothing is
 */
async function fetchPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19)) {
    fail(`Slow Tide needs Node.js 20.19 or newer; this is ${process.versions.node}.`)
  }
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp()) return undefined
  console.log('Installing packages (once; sqlite3 is compiled, which takes a few minutes) …')
  const fetched = await beside('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund'])
  if (!fetched) process.exit(1)
  return compilePackages
}

async function compilePackages() {
  // The compile needs Node's headers; use the ones beside this Node when nothing else is set.
  const headers = resolve(dirname(process.execPath), '..')
  const given = existsSync(join(headers, 'include', 'node', 'node.h'))
  const env = given && !process.env.npm_config_nodedir ? { npm_config_nodedir: headers } : {}
  if (!(await beside('npm', ['rebuild'], { env }))) process.exit(1)
  const loads = () =>
    spawnSync(process.execPath, ['-e', "require('sqlite3')"], { cwd: root }).status === 0
  if (!loads()) {
    console.log('sqlite3 did not load; building it again …')
    run('npm', ['rebuild', 'sqlite3', '--build-from-source'], { env })
    if (!loads()) fail('sqlite3 was built but does not load.')
  }
  writeFileSync(stampFile, stamp())
}

/** Chromium for the browser tests: Debian's package; the one without a window starts and draws in three quarters of the time. */
function findChromium() {
  const known = [
    process.env.CHROMIUM,
    '/usr/bin/chromium-headless-shell',
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome',
  ]
  return known.find((path) => path && existsSync(path))
}

/** Installs Chromium where there is none; beside the packages, which wait for the compiler. */
async function ensureChromium() {
  const found = findChromium()
  if (found) return found
  if (process.getuid?.() !== 0) {
    fail('The browser tests need Chromium. Type: sudo apt-get install chromium')
  }
  console.log('Installing Chromium from Debian’s packages …')
  const apt = (...args) => beside('apt-get', args, { env: { DEBIAN_FRONTEND: 'noninteractive' } })
  const install = (name) =>
    apt('install', '-y', '-qq', '--no-install-recommends', name, 'fonts-dejavu-core')
  const installed =
    (await apt('update', '-qq')) &&
    ((await install('chromium-headless-shell')) || (await install('chromium')))
  if (!installed) fail('Chromium could not be installed from Debian’s packages; see above.')
  return (
    findChromium() ??
    fail('Chromium was installed but is not where it should be. Set CHROMIUM to its path.')
  )
}

/** Runs `make` when the hash of its sources differs from the one kept; true when what stands is fresh. */
function whenStale(name, files, results, make) {
  mkdirSync(cacheDir, { recursive: true })
  const kept = join(cacheDir, `${name}.hash`)
  const now = hashOf(files)
  if (results.every((r) => existsSync(r)) && existsSync(kept) && readFileSync(kept, 'utf8') === now)
    return true
  const made = make()
  if (made) writeFileSync(kept, now)
  return made
}

function buildHead() {
  const sources = [
    ...['core/head', 'core/zones'].flatMap((dir) => filesUnder(dir, isSource)),
    'core/stats/random.ts',
    'scripts/build-head.ts',
  ]
  const results = ['generated/head.bin', 'generated/zones.json', 'generated/flat-views.json']
  whenStale('head', sources, results, () => run(bin('tsx'), ['scripts/build-head.ts']))
}

function build(options) {
  buildHead()
  const sources = [
    ...['core', 'contract', 'server', 'web', 'demo'].flatMap((dir) => filesUnder(dir, isSource)),
    'package.json',
    'package-lock.json',
    'vite.config.ts',
    'generated/zones.json',
  ]
  return whenStale('build', sources, ['dist/web/index.html', 'dist/server/main.js'], () => {
    console.log('Building …')
    const vite = (...args) => run(bin('vite'), ['build', ...args, '--logLevel', 'warn'], options)
    return vite() && vite('--ssr')
  })
}

/** Starts the built server in the foreground and passes signals on. */
function serve(args) {
  const child = spawn(process.execPath, ['dist/server/main.js', ...args], {
    stdio: 'inherit',
    env: { ...process.env, NODE_ENV: 'production' },
  })
  // Ctrl-C in a terminal reaches the child by itself too; it stops once either way.
  process.on('SIGINT', () => child.kill('SIGINT'))
  process.on('SIGTERM', () => child.kill('SIGTERM'))
  child.on('exit', (code) => process.exit(code ?? 0))
}

/** Runs one of the built server's own commands on the data folder. */
function tool(name) {
  build()
  run(process.execPath, ['dist/server/main.js', name, ...rest], { env: { NODE_ENV: 'production' } })
}

const jest = (args, options) =>
  run(
    process.execPath,
    [
      '--experimental-vm-modules',
      '--disable-warning=ExperimentalWarning',
      'node_modules/jest/bin/jest.js',
      ...args,
    ],
    options,
  )

const ESLINT = [
  bin('eslint'),
  ['.', '--cache', '--cache-location', '.cache/eslint', '--max-warnings', '0'],
]
const MANNERS = [
  [
    bin('depcruise'),
    [
      ...['--config', '.dependency-cruiser.cjs', '--output-type', 'err'],
      ...['core', 'contract', 'server', 'web', 'demo'],
    ],
  ],
  [bin('prettier'), ['--check', '--log-level', 'warn', '.']],
]
const TYPES = [bin('tsc'), ['-p', '.']]

const lint = () => [ESLINT, ...MANNERS].forEach(([program, args]) => run(program, args))

/** Fills a data folder with the demo, so that browser tests need not wait for it. */
function seedDemo(dir) {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, ['dist/server/main.js', '--demo'], {
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...process.env, NODE_ENV: 'production', PORT: '0', SLOW_TIDE_DATA: dir },
    })
    let serves = false
    child.stdout.on('data', (said) => {
      if (!String(said).includes('http://')) return
      serves = true
      child.kill('SIGTERM')
    })
    child.on('error', () => resolve(false))
    child.on('exit', () => resolve(serves))
  })
}

/** What a runner's report counts; a runner that wrote none, or failed for another reason, is one failure. */
function countFrom(file, succeeded) {
  const report = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : {}
  const { passed, failed } = report.stats
    ? { passed: report.stats.expected, failed: report.stats.unexpected + report.stats.flaky }
    : {
        passed: report.numPassedTests ?? 0,
        failed: (report.numFailedTests ?? 0) + (report.numRuntimeErrorTestSuites ?? 0),
      }
  return { passed, failed: succeeded ? failed : Math.max(1, failed) }
}

/** Everything, to the end, even when an early part fails; the last line counts. Two cores are kept busy throughout. */
async function test(chromium, compile) {
  const began = Date.now()
  buildHead()
  mkdirSync('test-results', { recursive: true })
  const unit = 'test-results/jest.json'
  const browser = 'test-results/playwright.json'
  const demo = join(root, 'test-results', 'demo')
  for (const path of [unit, browser, demo]) rmSync(path, { force: true, recursive: true })
  const counts = []
  const minutes = () => ((Date.now() - began) / 60_000).toFixed(1)
  const check = (name, succeeded) => {
    console.log(`${name}: ${succeeded ? 'passed' : 'FAILED'} (${minutes()} min)`)
    counts.push({ passed: succeeded ? 1 : 0, failed: succeeded ? 0 : 1 })
    return succeeded
  }
  const suite = (name, file, part) => {
    console.log(`${name} …`)
    const count = countFrom(file, part())
    console.log(`${name}: ${count.passed} passed, ${count.failed} failed (${minutes()} min)`)
    counts.push(count)
  }
  console.log('Types, lint, build …')
  let seeded = {}
  await Promise.all([
    beside(...ESLINT).then((ok) => check('Lint: rules', ok)),
    (async () => {
      await compile?.()
      // What is built is used by tests of both kinds.
      const built = check('Build', build({ allowFailure: true }))
      if (built && check('Demo data', await seedDemo(demo))) seeded = { SLOW_TIDE_SEEDED: demo }
      check('Types', await beside(...TYPES))
      for (const [program, args] of MANNERS)
        check(`Lint: ${program.slice(program.lastIndexOf('/') + 1)}`, await beside(program, args))
    })(),
  ])
  const goOn = { allowFailure: true }
  suite('Unit and server tests', unit, () =>
    jest(['--json', `--outputFile=${unit}`], { env: seeded, ...goOn }),
  )
  suite('Browser tests', browser, () =>
    run(bin('playwright'), ['test'], {
      env: {
        CHROMIUM: chromium,
        PLAYWRIGHT_JSON_OUTPUT_NAME: browser,
        ...seeded,
      },
      ...goOn,
    }),
  )
  const passed = counts.reduce((s, c) => s + c.passed, 0)
  const failed = counts.reduce((s, c) => s + c.failed, 0)
  console.log(`${passed} passed, ${failed} failed`)
  process.exit(failed > 0 || passed === 0 ? 1 : 0)
}

const COMMANDS = {
  demo() {
    build()
    serve(['--demo', ...rest])
  },
  start() {
    build()
    serve(rest)
  },
  backup: () => tool('backup'),
  restore: () => tool('restore'),
  rescue: () => tool('rescue'),
  verify: () => tool('verify'),
  rebuild: () => tool('rebuild'),
  'new-secret': () => tool('new-secret'),
  build: () => build(),
  test,
  check() {
    build()
    run(...TYPES)
    lint()
    jest(rest)
  },
  lint,
  bench(chromium) {
    build()
    run(bin('tsx'), ['bench/bench.mts', ...rest], { env: { CHROMIUM: chromium } })
  },
  soak() {
    build()
    run(bin('tsx'), ['bench/soakRun.mts', ...rest])
  },
  fuzz() {
    build()
    run(bin('tsx'), ['scripts/fuzz.mts', ...rest])
  },
  calibrate() {
    buildHead()
    run(bin('tsx'), ['bench/calibrate.mts', ...rest])
  },
  mutate() {
    buildHead()
    run(process.execPath, ['scripts/mutate.mjs', ...rest])
  },
  replay() {
    buildHead()
    run(bin('tsx'), ['scripts/replay.mts', ...rest])
  },
  shots(chromium) {
    build()
    run(bin('tsx'), ['scripts/shots.mts', ...rest], { env: { CHROMIUM: chromium } })
  },
}
const NEED_CHROMIUM = new Set(['test', 'bench', 'shots'])

if (!Object.hasOwn(COMMANDS, command)) {
  fail(`There is no command "${command}". There are: ${Object.keys(COMMANDS).join(', ')}.`)
}
if (!statSync('package-lock.json', { throwIfNoEntry: false }))
  fail('package-lock.json is missing; take a fresh clone.')
const [chromium, compile] = await Promise.all([
  NEED_CHROMIUM.has(command) ? ensureChromium() : undefined,
  fetchPackages(),
])
// The whole test lints meanwhile.
if (command !== 'test') await compile?.()
await COMMANDS[command](chromium, compile)
