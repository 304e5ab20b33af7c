/** The six stations in the order people work, each with where it stands in a word or a figure. */
import { useFigures } from '../state/figures.ts'
import { NavLink, useSearchParams } from 'react-router'
import type { VisitPage, VisitSummary } from '../../contract/types.ts'
import { leftOpenSince } from '../../core/chair/leftOpen.ts'
import { USUAL_MOMENTS } from '../../core/looks/moments.ts'
import { replayLive } from '../../core/chair/service.ts'
import { verdictWords } from '../../core/screening/screen.ts'
import { dayWords } from '../../core/time/dates.ts'
import { dateWords, todayIso } from '../state/words.ts'
import { atWords } from '../state/words.ts'
import { holding } from '../../core/visit/gate.ts'
import { useGate } from './useGate.ts'
import { useGrain, useServiceZones, type StationProps } from './useStation.ts'

type Mark = 'done' | 'open' | 'stop'

export function StationStrip(props: StationProps) {
  const figures = useFigures()
  const { page, visit } = props
  const [search] = useSearchParams()
  const { screening, findings } = useGate(props)
  const held = visit.state === 'open' && holding(findings, 'start').length > 0
  const grain = useGrain(visit)
  const zones = useServiceZones(visit)
  const read = zones.filter((z) => grain[z]?.source === 'read').length
  const cares = screening.findings.filter((f) => f.severity === 'take-care').length
  const outs = screening.findings.filter((f) => f.severity === 'leave-out').length
  const asked =
    screening.verdict === 'go' && cares > 0
      ? `go, ${cares} take care`
      : screening.verdict === 'leave-out'
        ? `go, leave out ${outs}`
        : screening.verdict === 'not-asked'
          ? `${screening.unanswered + screening.toConfirm} to ask`
          : screening.verdict === 'postpone' && screening.until
            ? screening.until === todayIso()
              ? 'read patch test'
              : `until ${dayWords(screening.until, todayIso())}`
            : verdictWords(screening, todayIso()).replace(/\.$/, '').toLowerCase()
  // A rest that was amended on the way has another number of steps than the plan that was kept.
  const steps =
    visit.state === 'running' && visit.plan
      ? replayLive(visit.plan, visit.events).plan.steps.length
      : 0
  const last = page.visits.find((v) => v.state === 'finished')
  const stations: { id: string; name: string; words: string; mark: Mark }[] = [
    {
      id: 'ask',
      name: 'Ask',
      words: asked,
      mark:
        screening.verdict === 'postpone' || screening.verdict === 'refer'
          ? 'stop'
          : screening.verdict === 'not-asked'
            ? 'open'
            : 'done',
    },
    {
      id: 'read',
      name: 'Read',
      words: `${read} of ${zones.length} zones`,
      mark: read === zones.length ? 'done' : 'open',
    },
    {
      id: 'plan',
      name: 'Plan',
      words: visit.plan ? `kept, ${Math.round(visit.plan.totalMinutes)} min` : 'not kept yet',
      mark: visit.plan ? 'done' : 'open',
    },
    {
      id: 'chair',
      name: 'Chair',
      words:
        visit.state === 'finished'
          ? `done ${dateWords(visit.endedAtMs!)}`
          : visit.state === 'running'
            ? leftOpenSince(figures, visit.chair, Date.now()) !== undefined
              ? `left open since ${atWords(visit.chair.lastAtMs)}`
              : `step ${Math.min(visit.chair.index + 1, steps)} of ${steps}`
            : visit.slotAtMs
              ? `slot ${atWords(visit.slotAtMs)}`
              : 'not begun',
      mark: visit.state === 'finished' ? 'done' : held && visit.plan ? 'stop' : 'open',
    },
    {
      id: 'care',
      name: 'Care',
      words: careWords(visit, last),
      mark: visit.care || last ? 'done' : 'open',
    },
    {
      id: 'return',
      name: 'Return',
      words:
        visit.state === 'finished'
          ? `${visit.answers.length} of ${USUAL_MOMENTS.length} answers`
          : page.tide.window
            ? `due ${dateWords(page.tide.window.fromMs)}`
            : '–',
      mark: visit.answers.length > 1 ? 'done' : 'open',
    },
  ]
  const query = search.get('visit') ? `?visit=${search.get('visit')}` : ''
  return (
    <nav className="station-strip" aria-label="Stations">
      <div className="who-is">
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
          <span className={`dot dot-${s.mark}`} aria-hidden />
          <b>{s.name}</b>
          <small>{s.words}</small>
        </NavLink>
      ))}
    </nav>
  )
}

/** What is still to be kept off. */
function careWords({ care }: VisitPage, last: VisitSummary | undefined): string {
  if (!care) return last ? `of ${dateWords(last.endedAtMs!)}` : '–'
  const now = Date.now()
  const left = care.clearances.filter((c) => c.kind === 'avoid' && c.untilMs > now).length
  return left === 0 ? 'all is over' : `${left} to keep off`
}
