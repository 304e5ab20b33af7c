/** One zone's plan: its lanes, how often they are gone over, with what, and why. */
import { bumpProneIn } from '../client.ts'
import { isTolerant } from './tolerance.ts'
import { capital, listWords } from '../words.ts'
import { type ZoneId, zoneInWords } from '../zones/index.ts'
import type { Figures } from '../house/index.ts'
import { wayWords } from '../telling/index.ts'
import { isRead, RELATION_WORDS } from '../grain/index.ts'
import { plannedHair } from '../hair/index.ts'
import { markMargin, markZones, MARK_WORDS } from '../screening/index.ts'
import { SERVICES, type Wanted } from '../services/index.ts'
import { rednessOdds, SKIN_CONSTANTS } from '../skin/index.ts'
import { oddsWords } from '../stats/index.ts'
import { shareCut, smoothHours } from './closeness.ts'
import {
  type BareLane,
  handChart,
  laneStrokes,
  longestStrokeMm,
  makeLane,
  PLAN_CONSTANTS,
} from './laneWork.ts'
import { laneDirection, type LaneShape } from './lanes.ts'
import {
  bumpOdds,
  sequenceFigures,
  sequenceKey,
  sequencesFor,
  type PassQuestion,
  type Sequence,
  type SequenceFigures,
  slipFor,
} from './passes.ts'
import type { Parted, ZoneQuestion } from './question.ts'
import type { ZoneSkin } from './skin.ts'
import { waysOf } from './ways.ts'
import type { Plan, PlannedPass, Reason, RefusedPass, ZonePlan } from './types.ts'

/** Seconds of changes that go with one press: stance, turn, looking again (measured over whole plans: 4.9). */
const CHANGE_SECONDS = 5

/** A zone with all that its rows of strokes are worked out from. */
export interface ZoneWork {
  readonly skin: ZoneSkin
  readonly shapes: readonly LaneShape[]
  readonly packed: string
  readonly tweezeCm2: number
  readonly question: PassQuestion
  readonly sequences: readonly Sequence[]
  readonly reasons: readonly Reason[]
  /** Why a way across was taken, by lane. */
  readonly whyAcross: (lane: LaneShape) => string | undefined
  /** True where a stroke that was wanted is turned along an edge. */
  readonly turned: (lane: LaneShape, wanted: Wanted) => boolean
  /** A stroke that would run at the edge beside a lane, turned along it; undefined where it may go as it is. */
  readonly offEdge: (lane: LaneShape, chart: number) => number | undefined
}

/** Less than this beside an edge is not worth a word, cm². */
const TOLD_TWEEZE_CM2 = 0.2

/** A zone's plan with its lanes, and those that were skipped by hand. */
export interface PlannedZone {
  readonly zone: ZonePlan
  readonly lanes: readonly BareLane[]
  readonly skipped: readonly BareLane[]
}

/** Whether a zone is worked on something of its own. */
const layerSlip = (q: ZoneQuestion, id: ZoneId) =>
  SERVICES[q.service].family === 'fuzz' && q.notes.hair[id]?.slip !== undefined

/** Readies a zone: what may be done there, and what each stroke would mean. */
export function zoneWork(q: ZoneQuestion, skin: ZoneSkin, parted: Parted): ZoneWork {
  const { service, client, screening, schools } = q
  const id = skin.zone.id
  const { shapes, packed } = parted
  const layer = q.notes.hair[id]
  const fuzz = plannedHair(id, client, q.notes.hair) === 'vellus'
  const { strokeOf, straightOf, offEdge, whyAcross } = waysOf(q, skin)
  const question: PassQuestion = {
    figures: q.figures,
    service,
    family: SERVICES[service].family,
    lanes: shapes,
    strokeOf,
    wordsOf: (lane, wanted) =>
      wayWords(id, lane.point, lane.normal, laneDirection(skin, lane, strokeOf(lane, wanted))),
    hair: fuzz ? 'fuzz' : 'terminal',
    coarse: layer?.coarseness ?? client.coarseness,
    tool: q.tools.blades[0]!.tool,
    firstTool: q.tools.first,
    growth: q.growth(id),
    sensitivity: q.sensitivity(id),
    bumps: q.bumps(id),
    wear: q.wear,
    reactivity: client.reactivity,
    bumpProne: bumpProneIn(client, id),
    curlTight: (layer?.curl ?? client.curl) === 'tight',
    setBackMm: client.setBackMm,
    tolerant: isTolerant(q.figures, q.sensitivity(id), q.record),
    thin:
      isTolerant(q.figures, q.sensitivity(id), q.record) &&
      ((layer?.coarseness ?? client.coarseness) === 'fine' || layer?.density === 'sparse'),
    schools,
    slip: slipFor(SERVICES[service].family, schools, layer),
    record: q.record,
    screening,
  }
  const reasons: Reason[] = []
  const sequences = sequencesFor(question, (reason) => reasons.push(reason))
  return {
    skin,
    shapes,
    packed,
    tweezeCm2: parted.tweezeCm2,
    question,
    sequences,
    reasons,
    whyAcross,
    turned: (lane, wanted) => offEdge(lane, straightOf(lane, wanted)) !== undefined,
    offEdge,
  }
}

/** A part that is stroked on its own along an edge costs a turn of the hand there and one back. */
const ALONE_SHARE = 2

/** Seconds that a row of strokes takes in a zone, with its share of the changes between presses. */
export function sequenceSeconds(q: ZoneQuestion, work: ZoneWork, sequence: Sequence): number {
  return sequence.reduce(
    (sum, stroke) =>
      sum +
      work.shapes.reduce((s, lane) => {
        const chart = work.question.strokeOf(lane, stroke.wanted)
        // What is turned along an edge is a press of its own, or shares one with its neighbour.
        const share = work.turned(lane, stroke.wanted)
          ? ALONE_SHARE
          : lane.press
            ? Math.min(1, lane.areaCm2 / lane.press.areaCm2)
            : 1
        const { seconds } = laneStrokes(q, work.skin, lane, chart, stroke.bladeId)
        return s + seconds + share * CHANGE_SECONDS
      }, 0),
    0,
  )
}

/** What was thought of and is not planned. */
function refusedBeside(work: ZoneWork, chosen: Sequence, own: SequenceFigures): RefusedPass[] {
  const limit = work.question.figures(SKIN_CONSTANTS.rednessLimit)
  return work.sequences
    .filter((s) => sequenceKey(s) !== sequenceKey(chosen) && s.length >= chosen.length)
    .map((s) => ({ s, f: sequenceFigures(work.question, s) }))
    .filter(({ f }) => f.load > own.load)
    .map(({ s, f }): RefusedPass => ({
      relation: f.passes[f.passes.length - 1]!.relation,
      words: s.map((x) => x.wanted).join(', then '),
      reason:
        f.rednessOdds > limit
          ? `Redness of 2 or more would come ${oddsWords(f.rednessOdds)} of the time; the limit is ${oddsWords(limit)}.`
          : `The plan chosen stops before it: redness of 2 or more would come ${oddsWords(f.rednessOdds)} of the time instead of ${oddsWords(own.rednessOdds)}.`,
      load: f.load,
      gainHours: f.hours - own.hours,
      rednessOdds: f.rednessOdds,
    }))
}

/** What each later pass buys, in words. */
function gainWords(passes: readonly PlannedPass[]): Reason[] {
  let load = passes[0]?.load ?? 0
  return passes.slice(1).map((p, i) => {
    const before = load
    load += p.load
    return {
      text: `${capital(RELATION_WORDS[p.relation])} buys about ${Math.round(p.smoothHours - passes[i]!.smoothHours)} h of smoothness for a load of ${before.toFixed(1)} → ${load.toFixed(1)}.`,
      mark: 'H' as const,
    }
  })
}

/** Plans a zone with a row of strokes. */
export function planZone(
  q: ZoneQuestion,
  work: ZoneWork,
  sequence: Sequence,
  why: readonly Reason[] = [],
): PlannedZone {
  const { service, screening, choice } = q
  const { skin, shapes, packed, question } = work
  const id = skin.zone.id
  const layer = q.notes.hair[id]
  const answer = sequenceFigures(question, sequence)
  const spots = screening.leaveOutSpots.filter((s) => markZones(s).includes(id))
  const stays = skin.keptCm2 / (skin.keptCm2 + skin.openCm2)
  const avoid = [
    ...spots.map((s) =>
      s.trail
        ? `${MARK_WORDS[s.kind]}: leave the patch and ${markMargin(q.figures, s)} mm round it`
        : `${MARK_WORDS[s.kind]}: leave ${s.radiusMm + markMargin(q.figures, s)} mm round it`,
    ),
    ...(stays > 0.005
      ? [`keep-line: ${Math.max(1, Math.round(100 * stays))} % of this zone stays`]
      : []),
    ...(work.tweezeCm2 >= TOLD_TWEEZE_CM2
      ? ['the last strays beside the edge are for tweezers: no stroke runs at it']
      : []),
  ]
  const lanes: BareLane[] = []
  const skipped: BareLane[] = []
  sequence.forEach((stroke, i) => {
    for (const shape of shapes) {
      const pass = i + 1
      const laneId = `${id}:${pass}:${shape.letter}`
      const edit = choice.edits[laneId]
      // A hand may turn the stroke, but not at an eye or a lip.
      const byHand = edit?.way === undefined ? undefined : handChart(shape, edit.way)
      const chart =
        byHand === undefined
          ? question.strokeOf(shape, stroke.wanted)
          : (work.offEdge(shape, byHand) ?? byHand)
      const turned = byHand === undefined ? work.turned(shape, stroke.wanted) : chart !== byHand
      const lane = makeLane(
        q,
        skin,
        shape,
        { pass, chart, laneId, edit },
        {
          hair: question.hair,
          coarse: question.coarse,
          avoid,
          why: stroke.wanted === 'across' ? work.whyAcross(shape) : undefined,
          bladeId: stroke.bladeId,
          beside: turned ? shape.beside?.name : undefined,
          curlTight: question.curlTight,
        },
      )
      if (edit?.skip) skipped.push(lane)
      else lanes.push(lane)
    }
  })
  const largest = shapes.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
  const areaCm2 = shapes.reduce((s, l) => s + l.areaCm2, 0)
  const trust = shapes.reduce((s, l) => s + l.trust * l.areaCm2, 0) / areaCm2
  const read = isRead(q.figures, trust)
  const reasons: Reason[] = [...why, ...work.reasons, ...gainWords(answer.passes)]
  if (shapes.length > 1) {
    reasons.push({
      text: `The grain turns here: ${shapes.length} parts, each with one stroke.`,
      mark: 'H',
    })
  }
  if (!read) reasons.push({ text: 'Not read: the direction is a starting guess.', mark: 'H' })
  else if (lanes.some((l) => l.grain === 'unsure')) {
    reasons.push({
      text: 'Read, but not surely: more than a tenth of a part may grow over 45° otherwise. Feel it first.',
      mark: 'H',
    })
  }
  if ('alongLines' in SERVICES[service] && layer?.density === 'sparse') {
    reasons.push({
      text: `Sparse here: a false line, set ${q.figures(PLAN_CONSTANTS.falseLineMm)} mm into the beard where it stands dense.`,
      mark: 'H',
    })
  }
  const lead = lanes.find((l) => l.pass === 1) ?? lanes[0]
  const passes = totals(work, answer.passes, lanes)
  const last = passes[passes.length - 1]
  const over = overLimitWords(q.figures, last?.rednessOdds ?? 0)
  if (over) {
    reasons.unshift({ text: over, mark: 'H' })
    lanes.forEach((lane, i) => {
      if (lane.edited) lanes[i] = { ...lane, reasons: [{ text: over, mark: 'H' }, ...lane.reasons] }
    })
  }
  const main = q.tools.blades[0]!
  return {
    lanes,
    skipped,
    zone: {
      jobId: q.jobOf(id),
      zoneId: id,
      name: skin.zone.name,
      growthDirection: largest.growth,
      grainSource: read ? 'read' : 'guess',
      blade: lead?.blade ?? main.name,
      bladeAngleDeg: lead?.bladeAngleDeg ?? q.figures(main.angleDeg),
      usableWidthMm: lead?.usableWidthMm ?? q.figures(main.edgeMm),
      strokeLengthMm: lead?.strokeLengthMm ?? longestStrokeMm(q.figures, id),
      areaCm2,
      passes,
      refused: refusedBeside(work, sequence, answer),
      totalLoad: passes.reduce((s, p) => s + p.load, 0),
      smoothHours: last?.smoothHours ?? 0,
      rednessOdds: last?.rednessOdds ?? 0,
      bumpOdds: last?.bumpOdds ?? 0,
      avoid,
      reasons,
      ...(layerSlip(q, id) && { slip: work.question.slip }),
      cover: packed,
    },
  }
}

/** By how much odds stand above the house's limit, in a sentence; undefined when they do not. */
export function overLimitWords(figures: Figures, odds: number): string | undefined {
  const limit = figures(SKIN_CONSTANTS.rednessLimit)
  if (odds <= limit) return undefined
  const points = Math.max(1, Math.round(100 * (odds - limit)))
  return `Redness of 2 or more in about ${oddsWords(odds)}: ${points} ${points === 1 ? 'point' : 'points'} above the house’s limit of ${oddsWords(limit)}.`
}

/** Which zones of a plan stand above the house's limit, by how much, and what would bring it down; undefined when none does. */
export function overLimitReason(
  figures: Figures,
  { zones, overLimit = [] }: Pick<Plan, 'zones' | 'overLimit'>,
): Reason | undefined {
  if (overLimit.length === 0) return undefined
  const worst = overLimit.reduce((a, b) => (b.odds > a.odds ? b : a))
  const name = worst.name.charAt(0).toLowerCase() + worst.name.slice(1)
  const others = overLimit
    .filter((z) => z !== worst)
    .map((z) => `${zoneInWords(z.zoneId)} ${oddsWords(z.odds)}`)
  const passes = Math.max(
    ...overLimit.map((o) => zones.find((z) => z.zoneId === o.zoneId)?.passes.length ?? 1),
  )
  const down =
    passes > 1
      ? 'One pass less there, the trimmer, or leaving them out would bring it down.'
      : 'A guarded blade or the trimmer there, or leaving them out, would bring it down.'
  return {
    text: `${overLimit.length} of ${zones.length} zones ${overLimit.length === 1 ? 'stands' : 'stand'} above the house’s limit, ${name} the most: ${overLimitWords(figures, worst.odds)}${others.length > 0 ? ` Also ${listWords(others)}.` : ''} ${down}`,
    mark: 'H',
  }
}

/** What a zone's passes come to once hands have changed or skipped some of their lanes. */
function totals(
  { question, shapes }: ZoneWork,
  passes: readonly PlannedPass[],
  lanes: readonly BareLane[],
): PlannedPass[] {
  const { figures, sensitivity, growth, bumps } = question
  const coarse = question.hair === 'terminal' ? question.coarse : undefined
  const area = shapes.reduce((s, l) => s + l.areaCm2, 0)
  const left = new Map<string, number>()
  const cut = new Map<string, number>()
  let load = 0
  const out: PlannedPass[] = []
  for (const p of passes) {
    const own = lanes.filter((l) => l.pass === p.pass)
    if (own.length === 0) continue
    const share = own.reduce((s, l) => s + (l.areaCm2 / area) * l.load, 0)
    load += share
    for (const l of own) {
      left.set(l.letter, Math.min(left.get(l.letter) ?? Infinity, l.leftMm))
      if (l.bladeId !== 'trimmer') cut.set(l.letter, (cut.get(l.letter) ?? 0) + 1)
    }
    const done = shapes.filter((s) => left.has(s.letter))
    const doneCm2 = done.reduce((s, l) => s + l.areaCm2, 0)
    const leftMm = done.reduce((s, l) => s + l.areaCm2 * left.get(l.letter)!, 0) / doneCm2
    const shareDone =
      done.reduce(
        (s, l) => s + l.areaCm2 * shareCut(figures, Math.max(1, cut.get(l.letter) ?? 0), coarse),
        0,
      ) / doneCm2
    const largest = own.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
    out.push({
      pass: p.pass,
      relation: largest.relation,
      strokeBearing: largest.strokeBearing,
      load: share,
      leftMm,
      smoothHours: smoothHours(figures, leftMm, growth, shareDone),
      rednessOdds: rednessOdds(sensitivity, load),
      bumpOdds: bumpOdds(figures, bumps, load),
    })
  }
  return out
}
