/** A plan in outline: which skin is worked, how it is parted into presses, and the front of what may be done there. */
import { bumpProneIn } from '../client.ts'
import { isRead } from '../grain/index.ts'
import {
  ROUTINE_CONSTANTS,
  SERVICES,
  serviceZones,
  zonesToChoose,
  type Service,
  type ServiceId,
} from '../services/index.ts'
import { DomainError } from '../errors.ts'
import { isSkin, mirrorZone, zoneStem, type ZoneId } from '../zones/index.ts'
import { LINE_WORDS, missingEdges } from '../lines/index.ts'
import { sum } from '../stats/index.ts'
import { listWords } from '../words.ts'
import { packCover } from './cover.ts'
import { frontOf, type Front } from './front.ts'
import { cutAtEdges, edgeBand, EDGE_CONSTANTS } from './edges.ts'
import type { Hazard } from './hands.ts'
import { laneShapes } from './lanes.ts'
import { laneStrokes } from './laneWork.ts'
import { ORDER_CONSTANTS } from './order.ts'
import { inputFor, type JobInput, type PlanInput } from './planInput.ts'
import { PRESS_CONSTANTS, pressesOf } from './presses.ts'
import type { Parted, ZoneQuestion } from './question.ts'
import { zoneSkin, type ZoneSkin } from './skin.ts'
import { bladeLifeStrokes, chooseTools, type ToolChoice } from './tools.ts'
import type { LeftOut } from './types.ts'
import { unitsOf, type WorkedArea } from './units.ts'
import { walkThrough } from './walk.ts'
import { acrossIn, fixedWay } from './ways.ts'
import { zoneWork, type ZoneWork } from './zonePlan.ts'

/** Least worked area of a zone, cm². */
const LEAST_CM2 = 0.3

/** Nothing is left to plan: the zones that stay, and why. */
export class NothingLeft extends DomainError {
  readonly leftOut: readonly LeftOut[]
  constructor(leftOut: readonly LeftOut[]) {
    const why = [...new Set(leftOut.map((z) => z.reason))].slice(0, 2).join(' ')
    super(
      'nothing-left',
      `Every zone of this service is left out, so there is nothing to plan. ${why}`.trim(),
    )
    this.leftOut = leftOut
  }
}

export const nothingLeft = (leftOut: readonly LeftOut[]) => new NothingLeft(leftOut)

/** Hazards a stroke runs away from: eyes, lips, ears, and hair that is kept. */
function hazardsOf({
  ground,
  lines,
  notes,
}: Pick<PlanInput, 'ground' | 'lines' | 'notes'>): Hazard[] {
  const out: Hazard[] = []
  for (const [id, zone] of ground.records) {
    if (!isSkin(id) && id !== 'base') out.push({ name: zoneStem(id), at: zone.centre.point })
    if (notes.keptZones.includes(id)) out.push({ name: 'kept hair', at: zone.centre.point })
  }
  for (const line of lines) {
    const step = Math.max(1, Math.floor(line.path.length / 8))
    for (let i = 0; i < line.path.length; i += step)
      out.push({ name: 'kept hair', at: line.path[i]!.point })
  }
  return out
}

/** The zones that are worked at all, each with its skin. */
export function openZones(input: JobInput): { skins: ZoneSkin[]; leftOut: LeftOut[] } {
  const { service, ground, lines, hand } = input
  const { alongLines, keeps }: Service = SERVICES[service]
  const bandOnly = alongLines !== undefined
  if (bandOnly && lines.every((l) => l.path.length < 2)) {
    throw new DomainError(
      'no-lines',
      'A line-up works along the lines: draw the cheek and the neck line at Read, under Lines.',
    )
  }
  const bordered = new Set(lines.flatMap((l) => alongLines?.[l.kind] ?? []))
  refuseWithoutEdges(input)
  const skins: ZoneSkin[] = []
  const leftOut: LeftOut[] = []
  let outside: LeftOut | undefined
  const { zones: asked } = input.group
  const all = asked ? zonesToChoose(service) : serviceZones(service)
  // A left hand goes over the zones as a right hand does in a mirror.
  const inOrder = hand === 'left' ? all.map(mirrorZone) : all
  for (const id of asked ? inOrder.filter((z) => asked.includes(z)) : inOrder) {
    const record = ground.records.get(id)!
    const leave = (reason: string) => leftOut.push({ zoneId: id, name: record.name, reason })
    const why = staysWhole(input, id)
    if (why !== undefined) {
      leave(why)
      continue
    }
    const skin = zoneSkinOf(input, id)
    if (skin.openCm2 < LEAST_CM2) {
      // A zone that no line comes near is simply not part of a line-up, nor what lies outside an outline part of its work.
      if (skin.outsideCm2 > 0)
        outside ??= {
          ...{ zoneId: id, name: record.name },
          reason: 'Nothing of this service lies inside the outline that was drawn at Read.',
        }
      else if (!bandOnly) leave(nothingOpen(skin))
      continue
    }
    if (bandOnly && !bordered.has(zoneStem(id))) {
      leave('Stays: no line of its own is drawn.')
      continue
    }
    skins.push(skin)
  }
  if (keeps && asked === null) {
    for (const record of ground.records.values())
      if (keeps.stems.includes(zoneStem(record.id)))
        leftOut.push({ zoneId: record.id, name: record.name, reason: keeps.why })
  }
  if (skins.length === 0) throw nothingLeft(outside ? [outside, ...leftOut] : leftOut)
  return { skins, leftOut }
}

const nothingOpen = (skin: ZoneSkin): string =>
  skin.keptCm2 > 0
    ? 'Kept: it lies behind a keep-line.'
    : skin.restsUntil !== undefined
      ? `Rests until ${skin.restsUntil}.`
      : 'Marks leave nothing to work here.'

/**
 * A service that keeps what lies between two edges is not planned until both are drawn.
 * @throws DomainError `no-lines`
 */
function refuseWithoutEdges({ service, lines }: JobInput): void {
  const { edges = [] }: Service = SERVICES[service]
  const missing = missingEdges(
    edges,
    lines.map((l) => ({ kind: l.kind, at: l.path })),
  )
  if (missing.length === 0) return
  const words =
    missing.length === 2 * edges.length
      ? ['the upper and the lower edge of both']
      : missing.map((m) => `${LINE_WORDS[m.kind]} (client’s ${m.side})`)
  throw new DomainError(
    'no-lines',
    `The brow itself stays, so its edges come first: draw ${listWords(words)} at Read, under Lines, or take the usual ones there.`,
  )
}

/** The worked skin of a zone; remembered. */
export function zoneSkinOf(input: PlanInput, id: ZoneId): ZoneSkin {
  const { memory, screening, lines } = input
  const { service } = inputFor(input, id)
  let skin = memory.skins.get(id)
  if (!skin) {
    skin = zoneSkin(input.figures, input.ground, input.flow, id, {
      spots: screening.leaveOutSpots,
      lines,
      outlines: input.outlines,
      worked: SERVICES[service].zones[zoneStem(id)]!,
      bandOnly: 'alongLines' in SERVICES[service],
    })
    memory.skins.set(id, skin)
  }
  return skin
}

/** Parts the skin into presses; remembered. */
export function partedOf(
  input: Pick<
    PlanInput,
    'figures' | 'ground' | 'client' | 'schools' | 'screening' | 'hand' | 'memory'
  >,
  service: ServiceId,
  skins: readonly ZoneSkin[],
): ReadonlyMap<ZoneId, Parted> {
  const { figures, client, schools, screening, hand, memory } = input
  const fixed =
    SERVICES[service].family === 'fuzz' &&
    schools.fuzzDirection === 'down-to-centre' &&
    !screening.withGrainOnly
  const toleranceDeg = figures(
    skins.some((s) => bumpProneIn(client, s.zone.id))
      ? PRESS_CONSTANTS.toleranceBumpDeg
      : PRESS_CONSTANTS.toleranceDeg,
  )
  const key = [fixed, toleranceDeg, hand, ...skins.map((s) => s.zone.id)].join()
  let had = memory.presses.get(key)
  if (!had) {
    const map = pressesOf({
      figures,
      ground: input.ground,
      skins,
      toleranceDeg,
      fixed: fixed ? fixedWay : undefined,
      mirrored: hand === 'left',
    })
    const parted = new Map(
      skins.map((skin) => {
        const { cover: whole, press } = map.zones.get(skin.zone.id)!
        const band = edgeBand(input.ground, skin, figures(EDGE_CONSTANTS.bandMm))
        const { cover, from, beside, tweezeCm2 } = cutAtEdges(
          skin,
          whole,
          band,
          figures(EDGE_CONSTANTS.leastCm2),
          hand === 'left',
        )
        return [
          skin.zone.id,
          {
            shapes: laneShapes(
              skin,
              cover,
              (l) => press[from[l]!],
              hand === 'left',
              (l) => beside[l],
            ),
            packed: packCover(cover),
            tweezeCm2,
          },
        ]
      }),
    )
    had = { map, parted }
    memory.presses.set(key, had)
  }
  return had.parted
}

/** A set of blades with the zones as they are worked with it. */
export interface WorkedSet {
  readonly question: ZoneQuestion
  readonly works: ReadonlyMap<ZoneId, ZoneWork>
  readonly areas: readonly WorkedArea[]
}

/** What a zone is planned with, and the zones readied for it. */
function workedWith(
  input: JobInput,
  tools: ToolChoice,
  skins: readonly ZoneSkin[],
  parted: ReadonlyMap<ZoneId, Parted>,
): { question: ZoneQuestion; works: Map<ZoneId, ZoneWork> } {
  const hazards = hazardsOf(input)
  const parts = skins.flatMap((skin) =>
    parted.get(skin.zone.id)!.shapes.map((lane) => ({ skin, lane })),
  )
  const acrossOf = acrossIn({ hazards, hand: input.hand }, parts)
  const bare: ZoneQuestion = {
    ...input,
    ...{ jobOf: input.jobOf, tools, hazards, acrossOf, wear: 0 },
    room: input.room,
    landmarks: input.ground.landmarks,
  }
  const strokes = sum(
    parts.map(({ skin, lane }) => laneStrokes(bare, skin, lane, lane.growth, undefined).strokes),
  )
  const question = { ...bare, wear: meanWear(input, strokes) }
  const works = new Map(
    skins.map((skin) => [skin.zone.id, zoneWork(question, skin, parted.get(skin.zone.id)!)]),
  )
  return { question, works }
}

/** Mean used share of a blade's life over a pass of so many strokes. */
function meanWear({ figures, service, client, schools }: JobInput, strokes: number): number {
  const life = bladeLifeStrokes(figures, service, client)
  const onOne =
    SERVICES[service].changesByFeel && schools.headBlade === 'by-feel' ? strokes / 2 : strokes
  return 0.5 * Math.min(1, onOne / life)
}

/** What zones of one service are planned with by themselves, at the chair. */
export function zoneQuestion(
  asked: PlanInput,
  skins: readonly ZoneSkin[],
  given?: ReadonlyMap<ZoneId, Parted>,
): { question: ZoneQuestion; works: ReadonlyMap<ZoneId, ZoneWork> } {
  const input = inputFor(asked, skins[0]!.zone.id)
  const parted = given ?? partedOf(input, input.service, skins)
  const [tools] = chooseTools(input)
  return workedWith(input, tools!, skins, parted)
}

/** The front of a service on this skin, with what each set of blades is planned with; remembered. */
export function outline(
  input: JobInput,
  skins: readonly ZoneSkin[],
): { sets: WorkedSet[]; front: Front } {
  const { service, figures, memory } = input
  const parted = partedOf(input, service, skins)
  const all = chooseTools(input).map((tools): WorkedSet => {
    const { question, works } = workedWith(input, tools, skins, parted)
    return { question, works, areas: unitsOf(question, works) }
  })
  // A set that no zone bears has nothing of its own to offer beside one that some do.
  const borne = all.filter(({ areas }) =>
    areas.some(({ units }) => units.some((u) => u.allowed.length > 0)),
  )
  const sets = borne.length > 0 ? borne : all.slice(0, 1)
  const key = JSON.stringify([
    [input.schools, input.record, input.client, input.notes, input.kit, input.level, input.hand],
    [service, input.group.method],
    input.pace.ratio,
    [input.screening.withGrainOnly, input.screening.onePass, input.screening.leaveOutZones],
    [
      input.belief,
      skins.map((s) => [
        s.zone.id,
        input.sensitivity(s.zone.id),
        input.bumps(s.zone.id),
        input.growth(s.zone.id),
      ]),
    ],
  ])
  let front = memory.fronts.get(key)
  if (!front) {
    const guesses = skins.filter((s) => isGuess(input, s)).length
    const base =
      60 * (walkThrough(input, [], []).totalMinutes + guesses * figures(ROUTINE_CONSTANTS.feelMin))
    front = frontOf(
      figures,
      service,
      input.belief,
      sets.map(({ areas, question }) => ({
        areas,
        extraSeconds: question.tools.first ? figures(ORDER_CONSTANTS.toolSeconds) : 0,
      })),
      base,
    )
    memory.fronts.set(key, front)
  }
  return { sets, front }
}

/** True where nobody has read the grain of a zone: it is felt first. */
const isGuess = ({ figures }: JobInput, skin: ZoneSkin) =>
  !isRead(figures, skin.trust.reduce((s, t) => s + t, 0) / skin.count)

/** Why a zone is not worked at all. */
export function staysWhole(
  { screening, notes }: Pick<PlanInput, 'screening' | 'notes'>,
  id: ZoneId,
): string | undefined {
  if (screening.leaveOutZones.includes(id)) {
    return screening.zoneReasons?.[id] ?? 'Marked at Ask: the whole zone stays.'
  }
  if (notes.keptZones.includes(id)) return 'Kept: marked at Read.'
  return notes.hair[id]?.density === 'none' ? 'No hair grows here.' : undefined
}
