/** Which blades of the house's kit may be used: by service, the kind of plan, the worker's practice and the client's skin. */
import type { Figures } from '../house/constants.ts'
import type { SkinAndHair } from '../client.ts'
import { DomainError } from '../errors.ts'
import { type ServiceId, SERVICES } from '../services/index.ts'
import { BLADE_CONSTANTS, BLADES, SERVICE_BLADES, type Blade, type BladeId } from '../kit/blades.ts'
import type { Reason, Style } from './types.ts'

/** How practised a worker is. */
export type Level = 'practised' | 'learning'

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
  readonly trimmerFirst: boolean
}

/** @throws DomainError `no-blade` when the kit holds nothing for this service and worker */
export function chooseTools(q: ToolQuestion): ToolChoice {
  const reasons: Reason[] = []
  const owned = SERVICE_BLADES[q.service].filter((id) => q.kit.includes(id))
  const mine = owned.filter((id) => q.level === 'practised' || !BLADES[id].practised)
  if (mine.length < owned.length) {
    const bare = owned.filter((id) => !mine.includes(id)).map((id) => BLADES[id].name)
    reasons.push({ text: `Only for practised hands: ${bare.join(', ')}.`, mark: 'C' })
  }
  let ids: BladeId[] = mine
  const only = (keep: readonly BladeId[], text: string) => {
    const left = ids.filter((id) => keep.includes(id))
    if (left.length === 0 || left.length === ids.length) return
    ids = left
    if (text) reasons.push({ text, mark: 'C' })
  }
  if (q.service === 'dermaplane') {
    if (q.style === 'gentlest')
      only(['guarded', 'brow-razor'], 'The gentlest plan takes a guarded edge.')
    else if (q.client.reactivity === 'reactive' && q.style === 'balanced')
      only(['guarded', 'brow-razor'], 'Reactive skin: a guarded edge instead of a bare one.')
    else only(['surgical-14', 'surgical-10'], '')
  }
  if (q.service === 'face-shave' || q.service === 'beard-line') {
    if (q.style === 'gentlest' && q.service === 'face-shave')
      only(['safety'], 'The gentlest plan takes the razor whose head holds the angle.')
    else only(['shavette'], '')
  }
  // One razor for the whole head: a wider one for a hollow is not worth laying this one down.
  if (q.service === 'head-shave') only([q.level === 'practised' ? 'shavette' : 'safety'], '')
  if (q.service === 'body-shave') {
    only(
      ['safety'],
      q.client.bumpProne ? 'Bump-prone: a single edge, not a multi-blade cartridge.' : '',
    )
  }
  if (ids.length === 0) {
    throw new DomainError(
      'no-blade',
      `The kit holds no blade for ${SERVICES[q.service].name.toLowerCase()} that ${q.level === 'learning' ? 'somebody still learning may use' : 'can be used'}. Add one in Kit.`,
    )
  }
  const first =
    q.service === 'beard-line' && q.trimmerFirst && q.kit.includes('trimmer')
      ? 'trimmer'
      : undefined
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
