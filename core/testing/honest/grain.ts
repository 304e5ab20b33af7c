/** How often "within X°" is right, for readers of known noise on hidden fields. */
import { DEFAULTS } from '../../house/index.ts'
import { dot, type SurfacePoint, type Vec3 } from '../../head/index.ts'
import { withinDeg } from '../../grain/confidence.ts'
import { fieldGround, GrainField, type FieldGround } from '../../grain/field.ts'
import { fieldAt } from '../../grain/sample.ts'
import { guessReadings } from '../../grain/guesses.ts'
import { readerOf, type ReaderSeen, readerSeen } from '../../grain/readers.ts'
import {
  hiddenField,
  noisyReadings,
  simpleAnswers,
  skinPoints,
  turned,
  type HiddenField,
} from '../../grain/trials.ts'
import { median, mulberry32 } from '../../stats/index.ts'
import { HEAD, ZONES } from '../head.ts'

export const degBetween = (a: Vec3, b: Vec3): number =>
  (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI

let bare: FieldGround | undefined
/** The head's ground without guesses. */
export const bareGround = (): FieldGround => (bare ??= fieldGround(DEFAULTS, HEAD.solve, []))

const PLACES = 60

/** What one map of another head tells of a reader. */
export function mapSeen(seed: number, noiseDeg: number): ReaderSeen | undefined {
  const random = mulberry32(seed + 31)
  const field = new GrainField(DEFAULTS, bareGround())
  const places = skinPoints(HEAD.display, MAP_READINGS, random)
  field.setAll(noisyReadings(hiddenField(random), places, (noiseDeg * Math.PI) / 180, random))
  return readerSeen([...field.residuals().values()])
}
const MAP_READINGS = 40

/** What was told of places and what was so. */
export interface Told {
  readonly places: number
  /** Share of those told something that lie within what was told. */
  readonly held: number
  /** By what was told: places and share. */
  readonly by: Readonly<Record<number, readonly [places: number, held: number]>>
}

/**
 * Reads hidden fields with so many readings of so much noise, and compares what is told with the truth.
 * @param maps other heads that the same reader has read before
 */
export function withinHeld(
  seed: number,
  fields: number,
  readings: number,
  noiseDeg: number,
  maps = 0,
): Told {
  const ground = bareGround()
  const readerDeg = readerOf(
    DEFAULTS,
    Array.from({ length: maps }, (_, i) => mapSeen(seed + i, noiseDeg) ?? []).flat(),
  )
  const by: Record<number, [number, number]> = {}
  for (let i = 0; i < fields; i++) {
    const random = mulberry32(seed + 7919 * i)
    const hidden = hiddenField(random)
    const field = new GrainField(DEFAULTS, ground)
    const noise = (noiseDeg * Math.PI) / 180
    const places = skinPoints(HEAD.display, readings, random)
    field.setAll(noisyReadings(hidden, places, noise, random).map((r) => ({ ...r, readerDeg })))
    const answer = field.told()
    for (const at of skinPoints(HEAD.display, PLACES, random)) {
      const found = fieldAt(ground, answer, at)
      const within = withinDeg(found.errorDeg)
      if (within === undefined) continue
      const row = (by[within] ??= [0, 0])
      row[0]++
      if (degBetween(found.direction, hidden(at)) <= within) row[1]++
    }
  }
  const all = Object.values(by)
  const places = all.reduce((s, [n]) => s + n, 0)
  return {
    places,
    held: all.reduce((s, [, n]) => s + n, 0) / places,
    by: Object.fromEntries(Object.entries(by).map(([deg, [n, k]]) => [deg, [n, k / n]])),
  }
}

/** Heads of four kinds: unlike the guesses, and more or less like them. */
export type HeadKind = 'unlike' | 'like' | 'neck-unlike'

/** A hidden head: hair as the guesses say, turned by waves of its own, or nothing like them. */
function hiddenHead(kind: HeadKind, random: () => number, guessed: HiddenField): HiddenField {
  const unlike = hiddenField(random)
  if (kind === 'unlike') return unlike
  const [ax, ay, az, phase] = [random(), random(), random(), 2 * Math.PI * random()]
  const wave = ({ point: [x, y, z] }: SurfacePoint) =>
    0.44 * Math.sin((2 * Math.PI * (ax * x + ay * y + az * z)) / 150 + phase)
  return (at) =>
    kind === 'neck-unlike' && at.point[1] < NECK_Y
      ? unlike(at)
      : turned(guessed(at), at.normal, wave(at))
}

/** Below this lies the neck, mm. */
const NECK_Y = -40

let guessedGround: FieldGround | undefined
/** The head's ground with the starting guesses. */
export const guessGround = (): FieldGround =>
  (guessedGround ??= fieldGround(DEFAULTS, HEAD.solve, guessReadings(DEFAULTS, ZONES)))

/** Median error of the field with and without guesses, degrees, and of a mean by distance. */
export function guessErrors(
  seed: number,
  heads: number,
  readings: number,
  kind: HeadKind,
): { withGuesses: number; without: number; kernel: number } {
  const [bareOne, guessedOne] = [bareGround(), guessGround()]
  const empty = new GrainField(DEFAULTS, guessedOne).answer()
  const guessed: HiddenField = (at) => fieldAt(guessedOne, empty, at).direction
  const errors = { withGuesses: [] as number[], without: [] as number[], kernel: [] as number[] }
  for (let i = 0; i < heads; i++) {
    const random = mulberry32(seed + 7919 * i)
    const hidden = hiddenHead(kind, random, guessed)
    const read = noisyReadings(
      hidden,
      skinPoints(HEAD.display, readings, random),
      Math.PI / 18,
      random,
    )
    const [a, b] = [new GrainField(DEFAULTS, bareOne), new GrainField(DEFAULTS, guessedOne)]
    a.setAll(read)
    b.setAll(read)
    const [x, y] = [a.answer(), b.answer()]
    for (const at of skinPoints(HEAD.display, PLACES, random)) {
      const truth = hidden(at)
      errors.without.push(degBetween(fieldAt(bareOne, x, at).direction, truth))
      errors.withGuesses.push(degBetween(fieldAt(guessedOne, y, at).direction, truth))
      errors.kernel.push(degBetween(simpleAnswers(read, at).kernel, truth))
    }
  }
  return {
    withGuesses: median(errors.withGuesses)!,
    without: median(errors.without)!,
    kernel: median(errors.kernel)!,
  }
}
