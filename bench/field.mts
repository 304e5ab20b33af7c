/** Speed and truth of the direction field: cold, one more reading, errors against hidden fields, the guided test, import. */
import { DEFAULTS } from '../core/house/index.ts'
import { wrapHalf } from '../core/grain/circular.ts'
import {
  carry,
  displayCarry,
  answerTest,
  beginTest,
  nextStroke,
  testResult,
  fieldGround,
  GrainField,
  guessReadings,
  fieldAt,
} from '../core/grain/index.ts'
import { catchOdds } from '../core/grain/feelTest.ts'
import { connect } from '../core/grain/connection.ts'
import { nestedDissection } from '../core/grain/dissection.ts'
import { biLaplacian, connectionLaplacian } from '../core/grain/laplacian.ts'
import { LdlFactor } from '../core/grain/ldl.ts'
import { singularities } from '../core/grain/topology.ts'
import {
  hiddenField,
  hiddenWhorl,
  noisyReadings,
  simpleAnswers,
  skinPoints,
} from '../core/grain/trials.ts'
import { headId, readGrowthMap, writeGrowthMap } from '../core/formats/index.ts'
import { dot, type Vec3, surfacePoint, Locator } from '../core/head/index.ts'
import { ZONE_IDS } from '../core/zones/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { HEAD, ZONES } from '../core/testing/head.ts'
import type { Page } from '@playwright/test'

type Figure = (name: string, value: number, unit: string) => void

const quantile = (list: number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))]!
const median = (list: number[]) => quantile(list, 0.5)
const deg = (a: Vec3, b: Vec3) => (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI
const NOISE = (10 * Math.PI) / 180
const SETS = 18

export function fieldFigures(figure: Figure): void {
  const guesses = guessReadings(DEFAULTS, ZONES)
  const held = () => process.memoryUsage().arrayBuffers / 1e6
  // Cold: the first factor and the first solve of this process.
  const c = connect(HEAD.solve)
  const matrix = biLaplacian(connectionLaplacian(c, 1e-9), c.areas)
  const order = nestedDissection(HEAD.solve.positions, matrix.start, matrix.columns)
  const one = new Float64Array(c.vertices).fill(1)
  const cold = performance.now()
  const factor = new LdlFactor(matrix, order)
  factor.finish(factor.halfSolve(one, one))
  figure('field.first.ms', performance.now() - cold, 'ms')
  const before = held()
  const began = performance.now()
  const ground = fieldGround(DEFAULTS, HEAD.solve, guesses)
  const field = new GrainField(DEFAULTS, ground)
  field.answer()
  // Connection, orders, both factors, guesses and a whole answer: what a worker does before the first stroke.
  figure('field.ground.ms', performance.now() - began, 'ms')
  const display = displayCarry(ground, HEAD.display)
  figure('field.worker.mb', held() - before, 'MB')

  const random = mulberry32(77)
  const readings = noisyReadings(
    hiddenField(random),
    skinPoints(HEAD.solve, 96, random),
    NOISE,
    random,
  )
  const times: number[] = []
  const whole: number[] = []
  for (const [i, r] of readings.entries()) {
    const t0 = performance.now()
    field.put(r)
    field.directions()
    const t1 = performance.now()
    const answer = field.answer()
    carry(display, answer)
    // The first ones are compiled as they run.
    if (i >= 16) {
      times.push(t1 - t0)
      whole.push(performance.now() - t0)
    }
  }
  figure('field.resolve.ms', median(times), 'ms')
  figure('field.resolve_p95.ms', quantile(times, 0.95), 'ms')
  figure('field.resolve_with_trust.ms', median(whole), 'ms')

  const bare = fieldGround(DEFAULTS, HEAD.solve, [])
  const errors = {
    field: [] as number[],
    guessed: [] as number[],
    kernel: [] as number[],
    nearest: [] as number[],
  }
  for (let seed = 0; seed < SETS; seed++) {
    const own = mulberry32(32_000 + seed)
    const hidden = hiddenField(own)
    const read = noisyReadings(hidden, skinPoints(HEAD.display, 32, own), NOISE, own)
    const [plain, guessed] = [new GrainField(DEFAULTS, bare), new GrainField(DEFAULTS, ground)]
    plain.setAll(read)
    guessed.setAll(read)
    const [a, b] = [plain.answer(), guessed.answer()]
    for (const at of skinPoints(HEAD.display, 300, own)) {
      const truth = hidden(at)
      const simple = simpleAnswers(read, at)
      errors.field.push(deg(fieldAt(bare, a, at).direction, truth))
      errors.guessed.push(deg(fieldAt(ground, b, at).direction, truth))
      errors.kernel.push(deg(simple.kernel, truth))
      errors.nearest.push(deg(simple.nearest, truth))
    }
  }
  figure('field.error.median_deg', median(errors.field), '°')
  figure('field.error.p95_deg', quantile(errors.field, 0.95), '°')
  // The hidden fields know nothing of the guesses: this is what guesses cost that are all wrong.
  figure('field.error_with_wrong_guesses.median_deg', median(errors.guessed), '°')
  figure('field.error_vs_kernel.ratio', median(errors.field) / median(errors.kernel), '')
  figure('field.error_vs_nearest.ratio', median(errors.field) / median(errors.nearest), '')

  const offsets: number[] = []
  let missed = 0
  for (let seed = 0; seed < SETS; seed++) {
    const own = mulberry32(64_000 + seed)
    const { field: hidden, whorl } = hiddenWhorl(own)
    const plain = new GrainField(DEFAULTS, bare)
    plain.setAll(noisyReadings(hidden, skinPoints(HEAD.display, 64, own), NOISE, own))
    const { re, im } = plain.directions()
    const away = singularities(bare.connection, re, im)
      .filter((s) => s.index > 0)
      .map((s) => {
        const v = 3 * bare.connection.indices[3 * s.triangle]!
        const p = bare.connection.positions
        return Math.hypot(p[v]! - whorl[0], p[v + 1]! - whorl[1], p[v + 2]! - whorl[2])
      })
    const nearest = Math.min(...away)
    if (nearest < 60) offsets.push(nearest)
    else missed++
  }
  figure('field.whorl_offset.mm', median(offsets), 'mm')
  figure('field.whorl_missed', missed / SETS, '')

  guidedTest(figure)
  mapImport(figure)
}

/** Answers to finish and the error then, with one answer in ten wrong. */
function guidedTest(figure: Figure): void {
  const random = mulberry32(5)
  const counts: number[] = []
  const errors: number[] = []
  for (let k = 0; k < 400; k++) {
    const truth = 2 * Math.PI * random()
    let test = beginTest()
    while (!testResult(DEFAULTS, test).done) {
      const { stroke } = nextStroke(DEFAULTS, test)
      test = answerTest(DEFAULTS, test, {
        stroke,
        catches: random() < catchOdds(DEFAULTS, stroke, truth),
      })
    }
    counts.push(test.answers.length)
    errors.push((Math.abs(wrapHalf(testResult(DEFAULTS, test).direction - truth)) * 180) / Math.PI)
  }
  figure('grain.test.answers', median(counts), '')
  figure('grain.test.error_deg', median(errors), '°')
}

/** Reading a map of 500 readings. */
function mapImport(figure: Figure): void {
  const random = mulberry32(9)
  const locator = new Locator(HEAD.display)
  const place = (point: Vec3) => {
    const { triangle, weights } = locator.nearest(point)
    return {
      zoneId: ZONE_IDS[HEAD.display.zones[triangle]!]!,
      ...surfacePoint(HEAD.display, triangle, weights[0], weights[1]),
    }
  }
  const now = Date.UTC(2026, 0, 1)
  const readings = noisyReadings(
    hiddenField(random),
    skinPoints(HEAD.display, 500, random),
    NOISE,
    random,
  ).map((r) => ({
    ...r,
    zoneId: place(r.point).zoneId,
    method: 'felt' as const,
    atMs: now,
  }))
  const id = headId(HEAD)
  const text = JSON.stringify(writeGrowthMap(id, readings, [], [], now))
  const times = Array.from({ length: 9 }, () => {
    const began = performance.now()
    const { taken } = readGrowthMap(text, id, place, now)
    if (taken.length < 480) throw new Error('The map was not read.')
    return performance.now() - began
  })
  figure('map.import.ms', median(times), 'ms')
}

/** Time between frames while a stroke is drawn over the head; software WebGL here, so a real card is far faster. */
export async function strokeFrames(page: Page, address: string, figure: Figure): Promise<void> {
  await page.goto(address)
  const head = page.getByTestId('head')
  await head.locator('canvas').waitFor()
  await page.waitForTimeout(2500)
  const box = (await head.boundingBox())!
  // As text: the compiler's own helpers do not exist in the page.
  await page.evaluate(`{
    window.frames_ = []
    window.watching = true
    let last = performance.now()
    const watch = (now) => {
      window.frames_.push(now - last)
      last = now
      if (window.watching) requestAnimationFrame(watch)
    }
    requestAnimationFrame(watch)
  }`)
  await page.mouse.move(box.x + box.width * 0.44, box.y + box.height * 0.5)
  await page.mouse.down()
  for (let i = 1; i <= 60; i++) {
    await page.mouse.move(
      box.x + box.width * (0.44 + 0.001 * i),
      box.y + box.height * (0.5 + 0.002 * i),
    )
  }
  const frames = await page.evaluate<number[]>('window.watching = false, window.frames_.slice(2)')
  await page.mouse.up()
  figure('read.stroke_frame.ms', quantile(frames, 0.95), 'ms, software WebGL')
  figure('read.stroke_frame_median.ms', median(frames), 'ms, software WebGL')
}
