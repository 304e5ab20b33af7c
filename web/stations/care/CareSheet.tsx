/** The care sheet: as text, on paper, as PDF, in the calendar. */
import { Button, Table } from '@mantine/core'
import { useClipboard } from '@mantine/hooks'
import { Link } from 'react-router'
import { careText, type Clearance } from '../../../core/care/index.ts'
import { MARK_WORDS } from '../../../core/house/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { daysWords, whenWords } from '../../../core/time/index.ts'
import { address } from '../../api/call.ts'
import type { StationProps } from '../useStation.ts'

export function NotYet({ page, visit }: StationProps) {
  return (
    <section className="zone-detail">
      <h1>Care</h1>
      <p className="lead">
        The care sheet is made when the service is finished: dated, from what was done, the products
        used and the house’s schools.
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

export function CareSheet(props: StationProps) {
  const { page, visit, house } = props
  const copy = useClipboard({ timeout: 2000 })
  const { care } = visit
  if (!care) return <NotYet {...props} />
  const name = page.client.calledName || page.client.name
  const service = SERVICES[visit.service].name
  const text = careText(care, name, service, whenWords)
  const of = (kind: Clearance['kind']) => care.clearances.filter((c) => c.kind === kind)
  return (
    <>
      <div className="row-between no-print">
        <h1>Care</h1>
        <div className="buttons">
          <Button onClick={() => copy.copy(text)}>{copy.copied ? 'Copied' : 'Copy as text'}</Button>
          <Button onClick={() => window.print()}>Print</Button>
          <a
            className="strong"
            href={address('careSheet', { id: visit.id })}
            target="_blank"
            rel="noreferrer"
          >
            PDF
          </a>
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
        {care.today.length > 0 && (
          <>
            <h2>Today</h2>
            {care.today.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </>
        )}
        <h2>Keep off</h2>
        <Table>
          <Table.Tbody>
            {of('avoid').map((c) => (
              <Row key={c.id} clearance={c} when={`until ${whenWords(c.untilMs)}`} />
            ))}
          </Table.Tbody>
        </Table>
        <h2>Do</h2>
        <p>{care.product}</p>
        <Table>
          <Table.Tbody>
            {of('do').map((c) => (
              <Row key={c.id} clearance={c} when={`from ${whenWords(c.fromMs)}`} />
            ))}
            {visit.window && (
              <Table.Tr>
                <Table.Td>
                  <b>Next visit</b>
                  <small>{visit.window.reasons[visit.window.reasons.length - 1]?.text}</small>
                </Table.Td>
                <Table.Td className="until">
                  {daysWords(visit.window.fromMs, visit.window.toMs)}
                </Table.Td>
              </Table.Tr>
            )}
          </Table.Tbody>
        </Table>
        <h2>Normal, and not</h2>
        <p>{care.normal}</p>
        {of('watch').map((c) => (
          <p key={c.id}>
            {c.title}. {c.text}
          </p>
        ))}
        <p>
          <b>{care.notNormal}</b>
        </p>
        <p className="soft">The product label and a clinician’s advice come before this sheet.</p>
        <p className="no-print">
          <Link to={`/clients/${page.client.id}/chair`}>
            What the service came to, and pictures
          </Link>
        </p>
      </article>
    </>
  )
}

function Row({ clearance: c, when }: { clearance: Clearance; when: string }) {
  return (
    <Table.Tr>
      <Table.Td>
        <b>{c.title}</b>
        <small>
          {c.text} <abbr title={MARK_WORDS[c.mark]}>({c.mark})</abbr>
        </small>
      </Table.Td>
      <Table.Td className="until">{when}</Table.Td>
    </Table.Tr>
  )
}
