/** One zone's plan: its lanes, how often they are gone over, with what, where the hands go. */
import type { Figures } from '../house/index.ts'
import { toRadians, wrapTurn, withinDeg as trustWithin } from '../grain/index.ts'
import { plannedHair } from '../hair/index.ts'
import { markMargin, markZones, MARK_WORDS } from '../screening/index.ts'
import { SERVICES, type Wanted } from '../services/index.ts'
import { rednessOdds, SKIN_CONSTANTS, type Sensitivity } from '../skin/index.ts'
import { oddsWords } from '../stats/index.ts'
import { BLADES } from '../kit/index.ts'
import { CLOSENESS_CONSTANTS, smoothHours } from './closeness.ts'
import { coverZone, COVER_CONSTANTS, packCover, patchesOf } from './cover.ts'
import { acrossWay } from './hands.ts'
import { longestStrokeMm, makeLane, PLAN_CONSTANTS } from './laneWork.ts'
import { chartBearing, laneDirection, laneShapes, type LaneShape } from './lanes.ts'
import { planPasses } from './passes.ts'
import type { ZoneQuestion } from './question.ts'
import type { ZoneSkin } from './skin.ts'
import type { Lane, Plan, PlannedPass, Reason, ZonePlan } from './types.ts'

/** A zone's plan with its lanes, and those that were skipped by hand. */
export interface PlannedZone {
  readonly zone: ZonePlan
  readonly lanes: readonly Lane[]
  readonly skipped: readonly Lane[]
}

/** Parts a zone into lanes; remembered. */
export function coverOf(
  figures: Figures,
  q: Pick<ZoneQuestion, 'client' | 'service' | 'schools' | 'screening' | 'memory'>,
  skin: ZoneSkin,
) {
  const fixed =
    SERVICES[q.service].family === 'fuzz' &&
    q.schools.fuzzDirection === 'down-to-centre' &&
    !q.screening.withGrainOnly
  const tolerance = q.client.bumpProne
    ? figures(COVER_CONSTANTS.toleranceBumpDeg)
    : figures(COVER_CONSTANTS.toleranceDeg)
  const key = `${skin.zone.id} ${fixed ? 'fixed' : tolerance}`
  let had = q.memory.covers.get(key)
  if (!had) {
    const cover = fixed ? patchesOf(skin) : coverZone(figures, skin, toRadians(tolerance))
    had = { cover, shapes: laneShapes(skin, cover), packed: packCover(cover) }
    q.memory.covers.set(key, had)
  }
  return had
}

/** Plans a zone of which something is left to work; parted as it was before where that is given. */
export function planZone(
  q: ZoneQuestion,
  skin: ZoneSkin,
  parted: { readonly shapes: LaneShape[]; readonly packed: string } = coverOf(q.figures, q, skin),
): PlannedZone {
  const { service, client, screening, schools, choice } = q
  const { family } = SERVICES[service]
  const id = skin.zone.id
  const { shapes, packed } = parted
  const layer = q.notes.hair[id]
  const kind = plannedHair(id, client, q.notes.hair)
  const hair = kind === 'vellus' ? 'fuzz' : 'terminal'
  const growthRate = q.growth(id)
  const sensitivity = q.sensitivity(id)
  const across = new Map<string, { chart: number; why: string }>()
  const strokeOf = (lane: LaneShape, wanted: Wanted): number => {
    if (wanted === 'with') return lane.growth
    if (wanted === 'against') return wrapTurn(lane.growth + Math.PI)
    if (wanted === 'fixed') {
      const inward = lane.point[0] === 0 ? 0 : -Math.sign(lane.point[0]) * 0.6
      return chartBearing(skin, lane, [inward, -0.8, 0])
    }
    let found = across.get(lane.letter)
    if (!found) {
      const charts = [
        wrapTurn(lane.growth + Math.PI / 2),
        wrapTurn(lane.growth - Math.PI / 2),
      ] as const
      const ways = [
        laneDirection(skin, lane, charts[0]),
        laneDirection(skin, lane, charts[1]),
      ] as const
      const { way, why } = acrossWay(id, lane.point, ways, q.hazards)
      found = { chart: charts[way], why }
      across.set(lane.letter, found)
    }
    return found.chart
  }
  const main = q.tools.blades[0]!
  const curlTight = (layer?.curl ?? client.curl) === 'tight'
  const answer = planPasses({
    figures: q.figures,
    service,
    family,
    style: choice.style,
    lanes: shapes,
    strokeOf,
    hair,
    tool: main.tool,
    firstTool: q.tools.first && BLADES[q.tools.first].tool,
    growthMmPerDay: growthRate.mean,
    sensitivity,
    reactivity: client.reactivity,
    bumpProne: client.bumpProne,
    curlTight,
    thin:
      client.reactivity === 'tough' &&
      ((layer?.coarseness ?? client.coarseness) === 'fine' || layer?.density === 'sparse'),
    schools,
    screening,
  })
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
  ]
  const lanes: Lane[] = []
  const skipped: Lane[] = []
  for (const planned of answer.passes) {
    for (const shape of shapes) {
      const laneId = `${id}:${planned.pass}:${shape.letter}`
      const edit = choice.edits[laneId]
      const lane = makeLane(
        q,
        skin,
        shape,
        planned,
        laneId,
        edit,
        strokeOf(shape, planned.wanted),
        {
          hair,
          avoid,
          why: planned.relation === 'across' ? across.get(shape.letter)?.why : undefined,
          first: planned.pass === 1 ? q.tools.first : undefined,
          parts: shapes.length,
          curlTight,
        },
      )
      if (edit?.skip) skipped.push(lane)
      else lanes.push(lane)
    }
  }
  const largest = shapes.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
  const trust = shapes.reduce((s, l) => s + l.trust * l.areaCm2, 0) / skin.openCm2
  const read = trustWithin(q.figures, trust) !== undefined
  const reasons: Reason[] = [...answer.reasons]
  if (shapes.length > 1) {
    reasons.push({
      text: `The grain turns here: ${shapes.length} lanes, each with one straight stroke.`,
      mark: 'H',
    })
  }
  if (!read) reasons.push({ text: 'Not read: the direction is a starting guess.', mark: 'H' })
  if (SERVICES[service].alongLines && layer?.density === 'sparse') {
    reasons.push({
      text: `Sparse here: a false line, set ${q.figures(PLAN_CONSTANTS.falseLineMm)} mm into the beard where it stands dense.`,
      mark: 'H',
    })
  }
  const lead = lanes.find((l) => l.pass === 1) ?? lanes[0]
  const passes = totals(q.figures, answer.passes, lanes, shapes, sensitivity, growthRate.mean, hair)
  const last = passes[passes.length - 1]
  const over = overLimitWords(q.figures, last?.rednessOdds ?? 0)
  if (over) {
    reasons.unshift({ text: over, mark: 'H' })
    lanes.forEach((lane, i) => {
      if (lane.edited) lanes[i] = { ...lane, reasons: [{ text: over, mark: 'H' }, ...lane.reasons] }
    })
  }
  return {
    lanes,
    skipped,
    zone: {
      jobId: q.jobId,
      zoneId: id,
      name: skin.zone.name,
      growthDirection: largest.growth,
      grainSource: read ? 'read' : 'guess',
      blade: lead?.blade ?? main.name,
      bladeAngleDeg: lead?.bladeAngleDeg ?? q.figures(main.angleDeg),
      usableWidthMm: lead?.usableWidthMm ?? q.figures(main.edgeMm),
      strokeLengthMm: lead?.strokeLengthMm ?? longestStrokeMm(q.figures, id),
      areaCm2: skin.openCm2,
      passes,
      refused: answer.refused,
      totalLoad: passes.reduce((s, p) => s + p.load, 0),
      smoothHours: last?.smoothHours ?? 0,
      rednessOdds: last?.rednessOdds ?? 0,
      avoid,
      reasons,
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

/** How many zones of a plan stand above the house's limit, and the worst by how much; undefined when none does. */
export function overLimitReason(
  figures: Figures,
  { zones, overLimit = [] }: Pick<Plan, 'zones' | 'overLimit'>,
): Reason | undefined {
  if (overLimit.length === 0) return undefined
  const worst = overLimit.reduce((a, b) => (b.odds > a.odds ? b : a))
  const name = worst.name.charAt(0).toLowerCase() + worst.name.slice(1)
  return {
    text: `${overLimit.length} of ${zones.length} zones ${overLimit.length === 1 ? 'stands' : 'stand'} above the house’s limit, ${name} the most: ${overLimitWords(figures, worst.odds)}`,
    mark: 'H',
  }
}

/** What a zone's passes come to once hands have changed or skipped some of their lanes. */
function totals(
  figures: Figures,
  passes: readonly PlannedPass[],
  lanes: readonly Lane[],
  shapes: readonly LaneShape[],
  sensitivity: Sensitivity,
  growthMmPerDay: number,
  hair: 'terminal' | 'fuzz',
): PlannedPass[] {
  const felt = figures(
    hair === 'terminal' ? CLOSENESS_CONSTANTS.feltMm : CLOSENESS_CONSTANTS.feltFuzzMm,
  )
  const area = shapes.reduce((s, l) => s + l.areaCm2, 0)
  const left = new Map<string, number>()
  let load = 0
  const out: PlannedPass[] = []
  for (const p of passes) {
    const own = lanes.filter((l) => l.pass === p.pass)
    if (own.length === 0) continue
    const share = own.reduce((s, l) => s + (l.areaCm2 / area) * l.load, 0)
    load += share
    for (const l of own) left.set(l.letter, Math.min(left.get(l.letter) ?? Infinity, l.leftMm))
    const done = shapes.filter((s) => left.has(s.letter))
    const leftMm =
      done.reduce((s, l) => s + l.areaCm2 * left.get(l.letter)!, 0) /
      done.reduce((s, l) => s + l.areaCm2, 0)
    const largest = own.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
    out.push({
      pass: p.pass,
      relation: largest.relation,
      strokeBearing: largest.strokeBearing,
      load: share,
      leftMm,
      smoothHours: smoothHours(leftMm, growthMmPerDay, felt),
      rednessOdds: rednessOdds(sensitivity, load),
    })
  }
  return out
}
