/** What a client comes for, each kind of work with its window, from their history. */
import type { Figures } from '../../core/house/index.ts'
import { learnGrowth, readyAfter, windowAfter } from '../../core/history/index.ts'
import type { Growth } from '../../core/regrowth/index.ts'
import { isPlanned, oneJob, type ServiceId } from '../../core/services/index.ts'
import { pastJobs, type KeptPast } from '../../core/visit/index.ts'
import { upkeepLast, type UpkeepOutlook, upkeepsOf } from '../../core/ahead/index.ts'
import type { Client, House } from '../../contract/types.ts'
import { comesAgain, skinFrom, type History } from './model.ts'

/** Finished visits of a history, newest first, as the gate and the upkeep look at them. */
export const keptPast = (history: History): KeptPast[] =>
  history.visits
    .filter((v) => v.state === 'finished')
    .map((v) => ({
      visitId: v.id,
      jobs: v.left(),
      endedAtMs: v.endedAtMs!,
      atChair: { redness: v.redAtChair(), leftOut: {}, nicks: {} },
      answers: history.answers.get(v.id) ?? [],
    }))
    .sort((a, b) => b.endedAtMs - a.endedAtMs)

/** Each kind of work that comes again, the usual service first. */
export function upkeepOutlooks(
  figures: Figures,
  history: History,
  client: Pick<Client, 'service' | 'skin' | 'schools'>,
  house: Pick<House, 'schools' | 'closed'>,
  nowMs: number,
): UpkeepOutlook[] {
  const { skin } = client
  return upkeepsOf(figures, pastJobs(keptPast(history)), client.service, nowMs).map((upkeep) => {
    const last = upkeepLast(upkeep)
    const growth: Readonly<Record<string, Growth>> = learnGrowth(
      figures,
      skin,
      upkeep.zones,
      history.hair,
    )
    // What tears skin has no belief of its own: that of the blade on such skin stands in for it.
    const like = isPlanned(last.method) ? last : oneJob('', client.service)
    const skinOf = skinFrom(figures, history, skin, [like])
    const { home } = history
    const readyMs = readyAfter(figures, last, skinOf, home, skin.coarseness)
    const window = windowAfter(figures, last, comesAgain(house, client), growth, readyMs, home)
    return { ...upkeep, window, growth, skin: skinOf, home, coarse: skin.coarseness }
  })
}

/** The window that opens first, with its work. */
export const soonestUpkeep = <U extends Pick<UpkeepOutlook, 'window'>>(
  upkeeps: readonly U[],
): U | undefined =>
  upkeeps.reduce<U | undefined>(
    (a, b) => (b.window && (!a?.window || b.window.fromMs < a.window.fromMs) ? b : a),
    undefined,
  )

/** The usual service of somebody who was never here. */
export const usualJob = (service: ServiceId) => oneJob('usual', service)
