#!/usr/bin/env node
/**
 * Mutation of the computation: `npm run mutate [-- folder or file …] [--share 0.1] [--seed 5]`. Each folder is done on its own,
 * with the tests that lie beside it; a share takes that part of its lines by chance, since a whole folder takes hours. Tests that
 * make whole plans take long: they are asked of what the others did not notice. Prints a line of JSON each, and keeps what
 * survived in `.cache/mutation`.
 */
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const FOLDERS = ['core/stats', 'core/skin', 'core/regrowth', 'core/grain', 'core/plan']
const options = { share: 1, seed: 1 }
const named = []
const args = process.argv.slice(2)
for (let i = 0; i < args.length; i++) {
  const option = /^--(share|seed)$/.exec(args[i])?.[1]
  if (option) options[option] = Number(args[++i])
  else named.push(args[i])
}

/** Mulberry32, as `core/stats/random.ts`. */
function chance(seed) {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), a | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const filesOf = (name) =>
  name.endsWith('.ts')
    ? [name]
    : readdirSync(name)
        .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && f !== 'index.ts')
        .map((f) => join(name, f))

/** Whole files, or some of their lines. */
function patternsOf(name, random) {
  if (options.share >= 1) return filesOf(name)
  return filesOf(name).flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((line, i) =>
        random() < options.share &&
        /[^\s})\],;]/.test(line) &&
        !/^\s*(\/?\*|\/\/|import|export \{)/.test(line)
          ? [`${file}:${i + 1}-${i + 1}`]
          : [],
      ),
  )
}

/** Tests beside the code that make whole plans. */
const slowTests = (folder) =>
  readdirSync(folder).filter(
    (f) =>
      f.endsWith('.test.ts') && readFileSync(join(folder, f), 'utf8').includes('testing/plan.ts'),
  )

/** Breaks what it is told to, asks the tests beside it but those left out, and returns every fault with its fate. */
function asked(mutate, beside, left) {
  const done = spawnSync(join('node_modules', '.bin', 'stryker'), ['run', 'stryker.config.mjs'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      MUTATE: JSON.stringify(mutate),
      BESIDE: beside,
      LEFT: JSON.stringify(left),
    },
  })
  if (done.status !== 0) process.exit(done.status ?? 1)
  const { files } = JSON.parse(readFileSync('.cache/mutation/report.json', 'utf8'))
  return Object.entries(files).flatMap(([file, f]) =>
    f.mutants.map((m) => ({ file, ...m, source: f.source.split('\n')[m.location.start.line - 1] })),
  )
}

const isCaught = (m) => m.status === 'Killed' || m.status === 'Timeout'
const hasLived = (m) => m.status === 'Survived' || m.status === 'NoCoverage'
/** The same fault in another run. */
const keyOf = (m) => JSON.stringify([m.file, m.location, m.mutatorName, m.replacement])
/** A fault's place as Stryker takes it. */
const placeOf = ({ file, location: { start, end } }) =>
  `${file}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`

mkdirSync('.cache/mutation', { recursive: true })
for (const name of named.length > 0 ? named : FOLDERS) {
  const mutate = patternsOf(name, chance(options.seed))
  if (mutate.length === 0) continue
  const beside = name.endsWith('.ts') ? name.replace(/\/[^/]*$/, '') : name
  const slow = slowTests(beside)
  let all = asked(mutate, beside, slow)
  const open = all.filter(hasLived)
  if (slow.length > 0 && open.length > 0) {
    const again = asked([...new Set(open.map(placeOf))], beside, [])
    const fate = new Map(again.map((m) => [keyOf(m), m]))
    all = all.map((m) => (hasLived(m) ? (fate.get(keyOf(m)) ?? m) : m))
  }
  const caught = all.filter(isCaught).length
  const lived = all.filter(hasLived)
  const key = name.replaceAll('/', '-')
  writeFileSync(
    `.cache/mutation/${key}.txt`,
    lived
      .map(
        (m) =>
          `${m.file}:${m.location.start.line} ${m.status} ${m.mutatorName} → ${m.replacement}\n    ${m.source.trim()}`,
      )
      .join('\n') + '\n',
  )
  console.log(
    JSON.stringify({
      name,
      mutants: caught + lived.length,
      caught,
      score: Math.round((1000 * caught) / Math.max(1, caught + lived.length)) / 10,
      share: options.share,
      seed: options.seed,
    }),
  )
}
