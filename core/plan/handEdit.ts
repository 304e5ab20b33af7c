/**
 * What a hand may change of a lane: the blade and the way go through the same rules as the plan's own choice. What is
 * refused says why; what is allowed may still stand above the house's limit, which the plan says.
 */
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import type { Relation } from '../grain/index.ts'
import type { Screening } from '../screening/index.ts'
import { SERVICES, type ServiceId } from '../services/index.ts'
import type { Figures, Schools } from '../house/index.ts'
import type { HairClass, SkinRecord } from '../skin/index.ts'
import { multiBladeRefusal } from './multiBlade.ts'
import { BLADES, type BladeId, type Level } from '../kit/index.ts'

export interface BladeQuestion {
  readonly service: ServiceId
  readonly level: Level
  readonly kit: readonly BladeId[]
}

/** Why a blade may not be taken; undefined when it may. */
export function bladeRefusal(q: BladeQuestion, id: BladeId, hair?: HairClass): string | undefined {
  const blade = BLADES[id]
  const { family, name } = SERVICES[q.service]
  const what = name.toLowerCase()
  if (!q.kit.includes(id)) return `The kit holds no ${blade.name}.`
  // A trimmer may go first, or stand in for a blade, wherever terminal hair is cut.
  const serves =
    SERVICES[q.service].blades.includes(id) || (family === 'razor' && blade.tool === 'trimmer')
  if (!serves) return `A ${blade.name} is not for ${what}.`
  const forFuzz = blade.tool === 'dermaplaning' || blade.tool === 'guarded'
  if (forFuzz && hair === 'terminal' && family === 'razor') {
    return `A ${blade.name} takes fuzz: coarse hair dulls it and is pulled.`
  }
  if (q.level === 'learning' && blade.practised) {
    return `A ${blade.name} is a bare blade, only for practised hands.`
  }
  return undefined
}

export interface WayQuestion {
  readonly figures: Figures
  readonly schools: Pick<Schools, 'multiBlade'>
  readonly record?: SkinRecord | undefined
  readonly service: ServiceId
  readonly pass: number
  readonly bladeId: BladeId
  readonly hair: HairClass
  readonly client: Pick<SkinAndHair, 'bumpProne'>
  readonly curlTight: boolean
  readonly screening: Pick<Screening, 'withGrainOnly'>
}

/** Why a lane may not be stroked so; undefined when it may. */
export function wayRefusal(q: WayQuestion, relation: Relation): string | undefined {
  const { tool } = BLADES[q.bladeId]
  if (tool === 'cartridge' && relation === 'against') {
    const why = multiBladeRefusal(q.figures, q.schools, q.record)
    if (why !== undefined) return `${why} Choose another blade or direction for this lane.`
  }
  if (relation === 'with') return undefined
  if (q.screening.withGrainOnly) return 'With the grain only: what was asked calls for care.'
  if (tool === 'trimmer') return undefined
  if (SERVICES[q.service].withOnly) return 'The razor on the line goes with the grain.'
  if (relation !== 'against') return undefined
  if (SERVICES[q.service].family === 'fuzz') return 'Fuzz is never stroked against its growth.'
  if (q.client.bumpProne && q.curlTight) {
    return 'Tightly curled hair turns back into the skin: on bump-prone skin never against it.'
  }
  if (q.pass === 1 && q.hair === 'terminal') {
    return 'Against the grain is never the first pass: uncut hair is pulled.'
  }
  return undefined
}

/**
 * Refuses a change by hand that the rules do not allow; and a cartridge against the grain, whoever chose it.
 * @throws DomainError `never-against`, `not-this-blade`, `not-this-way`
 */
export function checkHandEdit(
  q: BladeQuestion & WayQuestion,
  changed: { readonly blade: boolean; readonly way: boolean },
  relation: Relation,
): void {
  const blade = changed.blade ? bladeRefusal(q, q.bladeId, q.hair) : undefined
  if (blade) throw new DomainError('not-this-blade', `${blade} Choose another for this lane.`)
  const never =
    BLADES[q.bladeId].tool === 'cartridge' &&
    relation === 'against' &&
    multiBladeRefusal(q.figures, q.schools, q.record) !== undefined
  const way = never || changed.blade || changed.way ? wayRefusal(q, relation) : undefined
  if (way) throw new DomainError(never ? 'never-against' : 'not-this-way', way)
}
