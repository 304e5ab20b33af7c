/** Care: what to put on, what to keep off, until when; as text, on paper, in the calendar. */
import { useClipboard } from '@mantine/hooks'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { careText } from '../../../core/care/clearances.ts'
import { MARK_WORDS } from '../../../core/house/constants.ts'
import { SERVICES } from '../../../core/services.ts'
import { address } from '../../api/call.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { dateWords, whenWords } from '../../state/words.ts'
import type { StationProps } from '../useStation.ts'

export function CareStation({ page, visit, house }: StationProps) {
  const worked = useMemo(
    () => ({
      tints: Object.keys(
        visit.plan ? Object.fromEntries(visit.plan.zones.map((z) => [z.zoneId, 1])) : {},
      ).map((zoneId) => ({ zoneId: zoneId as never, colour: '#7fc6c6', opacity: 0.3 })),
    }),
    [visit.plan],
  )
  useHeadLayers(worked)
  const copy = useClipboard({ timeout: 2000 })
  const { care } = visit
  if (!care) {
    return (
      <section className="zone-detail">
        <h1>Care</h1>
        <p className="lead">
          The care sheet is made when the service is finished: dated, from what was done and the
          house’s schools.
        </p>
        <Link
          className="strong deep"
          to={`/clients/${page.client.id}/${visit.plan ? 'chair' : 'plan'}`}
        >
          {visit.plan ? 'To the chair' : 'To the plan'}
        </Link>
      </section>
    )
  }
  const name = page.client.calledName || page.client.name
  const service = SERVICES[visit.service].name
  const text = careText(care, name, service, whenWords)
  const avoid = care.clearances.filter((c) => c.kind === 'avoid')
  const act = care.clearances.filter((c) => c.kind === 'do')
  return (
    <>
      <div className="row-between no-print">
        <h1>Care</h1>
        <div className="buttons">
          <button className="strong" onClick={() => copy.copy(text)}>
            {copy.copied ? 'Copied' : 'Copy as text'}
          </button>
          <button className="strong" onClick={() => window.print()}>
            Print
          </button>
          <a
            className="strong deep"
            href={address('careCalendar', { id: visit.id })}
            download="aftercare.ics"
          >
            Calendar file
          </a>
        </div>
      </div>
      <article className="care-sheet scroll" tabIndex={0} aria-label="Care sheet">
        <header className="print-only">
          <h1>After your {service.toLowerCase()}</h1>
          <p>
            {name} · {whenWords(care.endedAtMs)} · {house.name}
          </p>
        </header>
        <h2>Keep off</h2>
        <table className="list tight">
          <tbody>
            {avoid.map((c) => (
              <tr key={c.id}>
                <td>
                  <b>{c.title}</b>
                  <small>
                    {c.text} <abbr title={MARK_WORDS[c.mark]}>({c.mark})</abbr>
                  </small>
                </td>
                <td className="until">until {whenWords(c.untilMs)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <h2>Do</h2>
        <p>{care.product}</p>
        <table className="list tight">
          <tbody>
            {act.map((c) => (
              <tr key={c.id}>
                <td>
                  <b>{c.title}</b>
                  <small>
                    {c.text} <abbr title={MARK_WORDS[c.mark]}>({c.mark})</abbr>
                  </small>
                </td>
                <td className="until">from {whenWords(c.fromMs)}</td>
              </tr>
            ))}
            {visit.window && (
              <tr>
                <td>
                  <b>Next visit</b>
                  <small>{visit.window.reasons[visit.window.reasons.length - 1]?.text}</small>
                </td>
                <td className="until">
                  {dateWords(visit.window.fromMs)} – {dateWords(visit.window.toMs)}
                </td>
              </tr>
            )}
          </tbody>
        </table>
        <p>{care.normal}</p>
        <p>
          <b>{care.notNormal}</b>
        </p>
        <p className="soft">The product label and a clinician’s advice come before this sheet.</p>
      </article>
    </>
  )
}
