/** Which blades of the house's kit may be used: by service, the kind of plan, the worker's practice and the client's skin. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import { type JobGroup, type ServiceId, SERVICES } from '../services/index.ts'
import { BLADE_CONSTANTS, BLADES, type Blade, type BladeId, type Level } from '../kit/index.ts'
import type { Reason } from './types.ts'

/** Blades that a plan may keep to. */
export interface ToolChoice {
  readonly blades: readonly Blade[]
  readonly ids: readonly BladeId[]
  /** Taken up before the razor. */
  readonly first?: BladeId
  readonly reasons: readonly Reason[]
}

export interface ToolQuestion {
  readonly service: ServiceId
  readonly group: Pick<JobGroup, 'method'>
  readonly level: Level
  readonly kit: readonly BladeId[]
  readonly client: SkinAndHair
  readonly schools: Schools
}

/**
 * The sets of blades that a plan may be made with, the usual one first.
 * @throws DomainError `no-blade` when the kit holds nothing for this service and worker
 */
export function chooseTools(q: ToolQuestion): ToolChoice[] {
  const reasons: Reason[] = []
  const service = SERVICES[q.service]
  const guarded = (id: BladeId) => ['guarded', 'headed'].includes(BLADES[id].tool)
  const owned = service.blades.filter(
    (id) => q.kit.includes(id) && (q.group.method === 'blade' || guarded(id)),
  )
  const mine = owned.filter((id) => q.level === 'practised' || !BLADES[id].practised)
  if (mine.length < owned.length) {
    const bare = owned.filter((id) => !mine.includes(id)).map((id) => BLADES[id].name)
    reasons.push({ text: `Only for practised hands: ${bare.join(', ')}.`, mark: 'C' })
  }
  if (mine.length === 0) {
    throw new DomainError(
      'no-blade',
      `The kit holds no ${q.group.method === 'guarded' ? 'guarded blade' : 'blade'} for ${service.name.toLowerCase()} that ${q.level === 'learning' ? 'somebody still learning may use' : 'can be used'}. Add one in Kit.`,
    )
  }
  const before = q.group.method === 'guarded' ? undefined : service.first
  const first =
    before && before.when(q.schools) && q.kit.includes(before.id) ? before.id : undefined
  const sets = (service.sets?.(q) ?? [{ ids: mine, why: '' }])
    .map(({ ids, why }) => ({ ids: mine.filter((id) => ids.includes(id)), why }))
    .filter(({ ids }) => ids.length > 0)
  return (sets.length > 0 ? sets : [{ ids: mine, why: '' }]).map(({ ids, why }) => ({
    blades: ids.map((id) => BLADES[id]),
    ids,
    ...(first && { first }),
    reasons: why ? [...reasons, { text: why, mark: 'C' as const }] : reasons,
  }))
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
