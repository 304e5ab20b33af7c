/** Which blades of the house's kit may be used: by service, the kind of plan, the worker's practice and the client's skin. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import { type ServiceId, SERVICES, type Style } from '../services/index.ts'
import { BLADE_CONSTANTS, BLADES, type Blade, type BladeId, type Level } from '../kit/index.ts'
import type { Reason } from './types.ts'

export interface ToolChoice {
  readonly blades: readonly Blade[]
  readonly ids: readonly BladeId[]
  /** Taken up before the razor. */
  readonly first?: BladeId
  readonly reasons: readonly Reason[]
}

export interface ToolQuestion {
  readonly service: ServiceId
  readonly style: Style
  readonly level: Level
  readonly kit: readonly BladeId[]
  readonly client: SkinAndHair
  readonly schools: Schools
}

/** @throws DomainError `no-blade` when the kit holds nothing for this service and worker */
export function chooseTools(q: ToolQuestion): ToolChoice {
  const reasons: Reason[] = []
  const service = SERVICES[q.service]
  const owned = service.blades.filter((id) => q.kit.includes(id))
  const mine = owned.filter((id) => q.level === 'practised' || !BLADES[id].practised)
  if (mine.length < owned.length) {
    const bare = owned.filter((id) => !mine.includes(id)).map((id) => BLADES[id].name)
    reasons.push({ text: `Only for practised hands: ${bare.join(', ')}.`, mark: 'C' })
  }
  const keep = service.keepTo?.(q)
  const kept = keep ? mine.filter((id) => keep.ids.includes(id)) : []
  const narrowed = kept.length > 0 && kept.length < mine.length
  if (narrowed && keep?.why) reasons.push({ text: keep.why, mark: 'C' })
  const ids = narrowed ? kept : mine
  if (ids.length === 0) {
    throw new DomainError(
      'no-blade',
      `The kit holds no blade for ${service.name.toLowerCase()} that ${q.level === 'learning' ? 'somebody still learning may use' : 'can be used'}. Add one in Kit.`,
    )
  }
  const before = service.first
  const first =
    before && before.when(q.schools) && q.kit.includes(before.id) ? before.id : undefined
  return { blades: ids.map((id) => BLADES[id]), ids, ...(first && { first }), reasons }
}

/** Expected strokes of a blade's life for a client's hair. */
export function bladeLifeStrokes(
  figures: Figures,
  service: ServiceId,
  client: SkinAndHair,
): number {
  if (SERVICES[service].family === 'fuzz') return figures(BLADE_CONSTANTS.lifeFuzz)
  return client.coarseness === 'coarse'
    ? figures(BLADE_CONSTANTS.lifeCoarse)
    : client.coarseness === 'fine'
      ? figures(BLADE_CONSTANTS.lifeFine)
      : Math.round((figures(BLADE_CONSTANTS.lifeCoarse) + figures(BLADE_CONSTANTS.lifeFine)) / 2)
}
