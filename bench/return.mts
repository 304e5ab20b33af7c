/** Learning, importing and reporting: how long, and how right on simulated clients. */
import { DEFAULTS } from '../core/house/index.ts'
import { draftClients, guessMapping, readClientsFile } from '../core/formats/index.ts'
import { checkForecast } from '../core/history/calibration.ts'
import { learnClient, learnOverStudio, type StudioClient } from '../core/history/index.ts'
import { learnZones, sensitivityRange, expectedMean, type Reactivity } from '../core/skin/index.ts'
import { drawFaded } from '../core/simulate/index.ts'
import { drawHistory } from '../core/simulate/truth.ts'
import { drawPoisson, mulberry32 } from '../core/stats/index.ts'
import { serviceZones } from '../core/services/index.ts'
import { DAY_MS, HOUR_MS } from '../core/time/index.ts'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { seedDemo } from '../demo/seed.ts'
import { PEOPLE } from '../demo/people.ts'
import { clientReport } from '../server/clients/report.ts'
import { openDatabase } from '../server/db/connection.ts'
import { readBroughtIn } from '../server/imports/broughtIn.ts'
import { addImport } from '../server/imports/service.ts'
import { SKIN } from '../core/testing/client.ts'

type Figure = (name: string, value: number, unit: string) => void

const ZONES = serviceZones('face-shave')
const KINDS: readonly Reactivity[] = ['tough', 'average', 'reactive']
const median = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!
const took = (work: () => unknown): number => {
  const began = performance.now()
  work()
  return performance.now() - began
}

/** A client with 60 answered services and readings of hair, all zones. */
export function learnFigures(figure: Figure): void {
  const random = mulberry32(2)
  const past = Array.from({ length: 60 }, (_, i) => {
    const endedAtMs = i * 5 * DAY_MS
    const look = (hours: number) => ({
      atMs: endedAtMs + hours * HOUR_MS,
      zones: ZONES.filter(() => random() < 0.4).map((zoneId) => ({
        zoneId,
        redness: drawFaded(random, 3, hours / 24, 0.8),
        bumps: drawPoisson(random, 0.3),
      })),
    })
    return {
      endedAtMs,
      loads: Object.fromEntries(ZONES.map((z) => [z, 1 + random()])),
      answers: [look(24), look(48), look(168)],
    }
  })
  const hair = Array.from({ length: 120 }, (_, i) => ({
    id: `${i}`,
    visitId: '',
    kind: 'felt' as const,
    days: 1 + random(),
    zoneId: ZONES[i % ZONES.length]!,
    lengthMm: null,
    leftMm: 0.15,
    atMs: 0,
  }))
  const skin = { ...SKIN, bumpProne: true }
  const runs = Array.from({ length: 15 }, () =>
    took(() => learnClient(DEFAULTS, skin, serviceZones('face-shave'), past, hair)),
  )
  figure('learn.client.ms', median(runs), 'ms')
}

/** 200 clients with 40 visits each, as the server gives them. */
export function studioClients(): StudioClient[] {
  const random = mulberry32(3)
  return Array.from({ length: 200 }, (_, c) => {
    const reactivity = KINDS[c % 3]!
    const { visits } = drawHistory(DEFAULTS, random, ZONES, reactivity, 40, () => 1 + random())
    return {
      clientId: `c${c}`,
      reactivity,
      visits: visits.map((outcomes, i) => {
        const across = random() < 0.5
        return {
          visitId: `${c}-${i}`,
          service: 'face-shave' as const,
          workerId: c % 2 ? 'a' : 'b',
          endedAtMs: i * 6 * DAY_MS * (0.9 + 0.2 * random()),
          loads: Object.fromEntries(outcomes.map((o) => [o.zoneId, o.load])),
          worst: Object.fromEntries(
            outcomes.filter((o) => o.grade > 0).map((o) => [o.zoneId, o.grade]),
          ),
          bumps: Object.fromEntries(
            outcomes.filter(() => random() < 0.1).map((o) => [o.zoneId, 1]),
          ),
          choices: {
            zones: Object.fromEntries(
              outcomes.map((o, z) => [
                o.zoneId,
                {
                  relation: across ? ('across' as const) : ('with' as const),
                  passes: across ? 2 : 1,
                  tool: 'single-edge' as const,
                  // Zones follow in much the same order at every visit, so each meets a blade as worn as last time.
                  wear: Math.max(0, Math.min(1, z / outcomes.length + 0.15 * (random() - 0.5))),
                  lanes: 4,
                  nicks: 0,
                },
              ]),
            ),
            slip: 'full' as const,
            blade: 'shavette',
            exfoliate: 'acid',
          },
          products: [],
          routine: '',
          answered: ['24h', '48h'],
          due: { fromMs: 0, toMs: 1 },
        }
      }),
    }
  })
}

/** Learning over the studio, all in one go. */
export function studioFigures(figure: Figure): void {
  const clients = studioClients()
  figure(
    'learn.studio.ms',
    took(() => learnOverStudio(DEFAULTS, clients, 400 * DAY_MS)),
    'ms',
  )
}

/** How often 80 % ranges hold the hidden truth, and how much better the forecast is than the same as last time. */
export function forecastFigures(figure: Figure): void {
  const random = mulberry32(23)
  let [held, all] = [0, 0]
  const histories = Array.from({ length: 500 }, (_, i) => {
    const reactivity = KINDS[i % 3]!
    const drawn = drawHistory(DEFAULTS, random, ZONES, reactivity, 8, () => 1 + 2 * random())
    const found = learnZones(DEFAULTS, ZONES, reactivity, drawn.visits)
    for (const zone of ZONES) {
      const { low, high } = sensitivityRange(found[zone]!)
      const truth = drawn.truth.gradePerLoad[zone]!
      all++
      if (truth >= low && truth <= high) held++
    }
    return { reactivity, visits: drawn.visits }
  })
  figure('forecast.coverage80.ratio', held / all, '')
  const c = checkForecast(DEFAULTS, histories, (r) => expectedMean(DEFAULTS, r))
  figure('forecast.brier_vs_last.ratio', c.brier / c.brierLast, '')
  figure('forecast.brier_vs_prior.ratio', c.brier / c.brierPrior, '')
}

/** Reading, looking through and writing 10 000 lines; a report of a client with eighteen months of visits. */
export async function importFigures(figure: Figure): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-bench-'))
  const db = await openDatabase(dir)
  await seedDemo(db, Date.now(), PEOPLE.filter((p) => p.change).slice(0, 1))
  const lines = Array.from(
    { length: 10_000 },
    (_, i) => `Guest Number ${i},0555 ${100_000 + i},g${i}@example.org,harbour hand`,
  )
  const text = `name,phone,email,occupation\n${lines.join('\n')}`
  const began = performance.now()
  const table = readClientsFile(text)
  const drafts = draftClients(table, guessMapping(table), [])
  const clients = drafts.map(({ line: _l, problems: _p, mended: _m, same: _s, ...d }) => ({
    id: randomUUID(),
    ...d,
    service: 'face-shave' as const,
    skin: SKIN,
  }))
  await addImport(
    db,
    readBroughtIn(JSON.stringify({ id: randomUUID(), source: 'bench.csv', clients })),
  )
  figure('import.10k_lines.ms', performance.now() - began, 'ms')
  const [row] = await db.select('SELECT clientId FROM visits LIMIT 1')
  const id = row!['clientId'] as string
  const reports: number[] = []
  for (let i = 0; i < 5; i++) {
    const start = performance.now()
    await clientReport(db, id)
    reports.push(performance.now() - start)
  }
  figure('report.pdf.ms', median(reports), 'ms')
  await db.close()
  rmSync(dir, { recursive: true, force: true })
}
