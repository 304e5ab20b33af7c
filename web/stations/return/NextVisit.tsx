/** When to meet again: the window with its odds, zone by zone; events; the visits through a date. */
import { ON_SKIN } from '../../../core/palette.ts'
import { MARK_WORDS } from '../../../core/house/index.ts'
import {
  clearOdds,
  seenOdds,
  workedZones,
  zoneWindows,
  type OddsInput,
} from '../../../core/regrowth/index.ts'
import { dateWords, longDate } from '../../../core/time/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { useFigures } from '../../state/figures.ts'
import type { VisitPage } from '../../../contract/types.ts'
import { useVisit } from '../../api/queries.ts'
import { useView } from '../../state/view.ts'
import type { StationProps } from '../useStation.ts'
import { Events } from './Events.tsx'
import { Series } from './Series.tsx'
import { useZoneTints } from './useZoneTints.ts'
import { useMemo, useState } from 'react'

/** Zones told one by one: those that decide. */
const ZONES_TOLD = 6

/** The last service of the kind the client comes for: from it the next visit is counted, whichever one is looked at. */
function useLastFinished({ page, visit }: StationProps): VisitPage | undefined {
  const last = page.visits.find((v) => v.state === 'finished' && v.service === page.client.service)
  const own = visit.id === last?.id
  const other = useVisit(own ? null : last?.id)
  return own ? visit : other.data
}

export function NextVisit(props: StationProps) {
  const figures = useFigures()
  const { page } = props
  const last = useLastFinished(props)
  const window = last?.window ?? page.tide.window
  const odds = useMemo((): OddsInput | undefined => {
    if (!last?.leftMm || last.endedAtMs === null) return undefined
    return {
      endedAtMs: last.endedAtMs,
      zones: workedZones(last.leftMm, last.loads),
      sensitivity: page.model.sensitivity,
      growth: page.model.growth,
      fading: page.model.fading,
      answers: last.answers,
    }
  }, [last, page.model])
  if (!window) {
    return (
      <>
        <h1>Next visit</h1>
        <p className="soft">The window of the next visit comes with the first service.</p>
      </>
    )
  }
  return (
    <>
      <h1>
        {dateWords(window.fromMs)} to {dateWords(window.toMs)}
      </h1>
      <div className="tab-body" tabIndex={0} role="region" aria-label="Next visit">
        {odds && (
          <p>
            Hair is seen by {dateWords(window.toMs)}:{' '}
            <b>{oddsWords(seenOdds(figures, odds, window.toMs))}</b>. Skin clear by{' '}
            {dateWords(window.fromMs)}: <b>{oddsWords(clearOdds(odds, window.fromMs))}</b>, by{' '}
            {dateWords(window.toMs)}: <b>{oddsWords(clearOdds(odds, window.toMs))}</b> (H).
          </p>
        )}
        <ul className="whys">
          {window.reasons.map((r) => (
            <li key={r.text}>
              {r.text} <abbr title={MARK_WORDS[r.mark]}>({r.mark})</abbr>
            </li>
          ))}
          <li>
            Earlier than {longDate(window.fromMs)} is too early for the skin; after{' '}
            {longDate(window.toMs)} hair shows.
          </li>
        </ul>
        {odds && <ZoneWindows odds={odds} fromMs={window.fromMs} />}
        <Events {...props} />
        {last && <Series {...props} last={last} />}
      </div>
    </>
  )
}

function ZoneWindows({ odds, fromMs }: { odds: OddsInput; fromMs: number }) {
  const figures = useFigures()
  const choose = useView((s) => s.choose)
  const chosen = useView((s) => s.chosen)
  const [all, setAll] = useState(false)
  const windows = useMemo(() => zoneWindows(figures, odds), [figures, odds])
  useZoneTints(
    useMemo(
      () =>
        odds.zones.map((z) => ({
          zoneId: z.zoneId,
          share: seenOdds(figures, { ...odds, zones: [z] }, fromMs),
        })),
      [figures, odds, fromMs],
    ),
    ON_SKIN.tide,
  )
  const shown = windows.filter((w, i) => all || i < ZONES_TOLD || w.zoneId === chosen)
  return (
    <section>
      <h2>Zone by zone</h2>
      <table className="list tight pick">
        <thead>
          <tr>
            <th scope="col">Zone</th>
            <th scope="col">clear enough from</th>
            <th scope="col">seen by</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((w) => (
            <tr key={w.zoneId} className={w.zoneId === chosen ? 'chosen' : ''}>
              <td>
                <button className="link" onClick={() => choose(w.zoneId)}>
                  {w.name}
                </button>
              </td>
              <td>{w.fromMs <= Date.now() ? 'now' : dateWords(w.fromMs)}</td>
              <td>{w.toMs === undefined ? 'not within 90 days' : dateWords(w.toMs)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {windows.length > shown.length && (
        <button className="link" onClick={() => setAll(true)}>
          All {windows.length} zones
        </button>
      )}
      <p className="soft">
        The head shows how likely hair is seen on {dateWords(fromMs)}: the fuller the colour, the
        likelier.
      </p>
    </section>
  )
}
