/** The six stations in the order people work, each with where it stands in a word or a figure. */
import { stationStates } from '../../core/visit/index.ts'
import { replayLive } from '../../core/chair/index.ts'
import { dateWords } from '../../core/time/index.ts'
import { useFigures } from '../state/figures.ts'
import { NavLink, useSearchParams } from 'react-router'
import { todayIso } from '../state/words.ts'
import { atWords } from '../state/words.ts'
import css from './StationStrip.module.css'
import { useGate } from './useGate.ts'
import { useGrain, useStrokedZones, type StationProps } from './useStation.ts'

export function StationStrip(props: StationProps) {
  const figures = useFigures()
  const { page, visit } = props
  const [search] = useSearchParams()
  const gate = useGate(props)
  const grain = useGrain(visit)
  const zones = useStrokedZones(visit)
  const stations = stationStates(
    figures,
    visit,
    {
      gate,
      zones,
      read: zones.filter((z) => grain[z]?.source === 'read'),
      // A rest that was amended on the way has another number of steps than the plan that was kept.
      steps:
        visit.state === 'running' && visit.plan
          ? replayLive(visit.plan, visit.events).plan.steps.length
          : 0,
      lastEndedAtMs: page.visits.find((v) => v.state === 'finished')?.endedAtMs ?? undefined,
      dueFromMs: page.tide.window?.fromMs,
    },
    { nowMs: Date.now(), today: todayIso(), date: dateWords, at: atWords },
  )
  const query = search.get('visit') ? `?visit=${search.get('visit')}` : ''
  return (
    <nav className={`${css.strip} no-print`} aria-label="Stations">
      <div className={css.who}>
        <b>{page.client.name}</b>
        <small>
          {[
            page.client.calledName && `“${page.client.calledName}”`,
            page.client.pronouns,
            page.client.occupation,
          ]
            .filter(Boolean)
            .join(' · ')}
        </small>
      </div>
      {stations.map((s) => (
        <NavLink key={s.id} to={`/clients/${page.client.id}/${s.id}${query}`}>
          <span className={css.dot} data-mark={s.mark} aria-hidden />
          <b>{s.name}</b>
          <small>{s.words}</small>
        </NavLink>
      ))}
    </nav>
  )
}
