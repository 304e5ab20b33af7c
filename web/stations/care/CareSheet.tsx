/** The care sheet: as text, on paper, as PDF, in the calendar. */
import { Button, CopyButton, Group, Stack, Table, Text, Title } from '@mantine/core'
import { Link } from 'react-router'
import { careText, type Clearance } from '../../../core/care/index.ts'
import { jobsWords } from '../../../core/services/index.ts'
import { daysWords, whenWords } from '../../../core/time/index.ts'
import { address } from '../../api/call.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { PanelHead } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import css from './Care.module.css'
import type { StationProps } from '../useStation.ts'

export function NotYet({ page, visit }: StationProps) {
  return (
    <Stack align="flex-start">
      <PanelHead title="Care" />
      <Text>
        The care sheet is made when the service is finished: dated, from what was done, the products
        used and the house’s schools.
      </Text>
      <Button
        component={Link}
        variant="strong"
        to={`/clients/${page.client.id}/${visit.plan ? 'chair' : 'plan'}`}
      >
        {visit.plan ? 'To the chair' : 'To the plan'}
      </Button>
    </Stack>
  )
}

export function CareSheet(props: StationProps) {
  const { page, visit, house } = props
  const { care } = visit
  if (!care) return <NotYet {...props} />
  const name = page.client.calledName || page.client.name
  const service = jobsWords(visit.jobs)
  const text = careText(care, name, service, whenWords)
  const of = (kind: Clearance['kind']) => care.clearances.filter((c) => c.kind === kind)
  return (
    <>
      <Group justify="space-between" gap="xs" className="no-print">
        <h1>Care</h1>
        <Group gap="xs">
          <CopyButton value={text} timeout={2000}>
            {({ copied, copy }) => (
              <Button size="sm" onClick={copy}>
                {copied ? 'Copied' : 'Copy as text'}
              </Button>
            )}
          </CopyButton>
          <Button size="sm" onClick={() => window.print()}>
            Print
          </Button>
          <Button
            component="a"
            size="sm"
            href={address('careSheet', { id: visit.id })}
            target="_blank"
            rel="noreferrer"
          >
            PDF
          </Button>
          <Button
            component="a"
            size="sm"
            href={address('careCalendar', { id: visit.id })}
            download="aftercare.ics"
          >
            Calendar file
          </Button>
        </Group>
      </Group>
      <Scroll label="Care sheet">
        <article className={`care-sheet ${css.sheet}`} aria-label="Care sheet">
          <header className="print-only">
            <h1>After your {service.toLowerCase()}</h1>
            <p>
              {name} · {whenWords(care.endedAtMs)} · {house.name}
            </p>
          </header>
          {care.today.length > 0 && (
            <>
              <Title order={2}>Today</Title>
              {care.today.map((sentence) => (
                <p key={sentence}>{sentence}</p>
              ))}
            </>
          )}
          <Title order={2}>Keep off</Title>
          <Table>
            <Table.Tbody>
              {of('avoid').map((c) => (
                <Row key={c.id} clearance={c} when={`until ${whenWords(c.untilMs)}`} />
              ))}
            </Table.Tbody>
          </Table>
          <Title order={2}>Do</Title>
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
                  <Table.Td className={css.until}>
                    {daysWords(visit.window.fromMs, visit.window.toMs)}
                  </Table.Td>
                </Table.Tr>
              )}
            </Table.Tbody>
          </Table>
          <Title order={2}>Normal, and not</Title>
          <p>{care.normal}</p>
          {of('watch').map((c) => (
            <p key={c.id}>
              {c.title}. {c.text}
            </p>
          ))}
          <p>
            <b>{care.notNormal}</b>
          </p>
          <p>The product label and a clinician’s advice come before this sheet.</p>
          {houseAddress(house) && <p>{houseAddress(house)}</p>}
          <p className="no-print">
            <Link to={`/clients/${page.client.id}/chair`}>
              What the service came to, and pictures
            </Link>
          </p>
        </article>
      </Scroll>
    </>
  )
}

function Row({ clearance: c, when }: { clearance: Clearance; when: string }) {
  return (
    <Table.Tr>
      <Table.Td>
        <b>{c.title}</b>
        <small>
          {c.text}{' '}
          <span className="no-print">
            <Estimate mark={c.mark} />
          </span>
        </small>
      </Table.Td>
      <Table.Td className={css.until}>{when}</Table.Td>
    </Table.Tr>
  )
}

/** Who to ring, where to go: the house's name, place and telephone. */
const houseAddress = (house: StationProps['house']) =>
  [house.name, house.settings.address, house.settings.phone].filter(Boolean).join(' · ')
