/** When to meet again: the window with its odds, zone by zone; events; the visits through a date. */
import { Whys } from '../../ui/Whys.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { Button, Table, Text, Title } from '@mantine/core'
import { ON_SKIN } from '../../../core/palette.ts'
import { hairSince, skinAfter, skinSince } from '../../../core/history/index.ts'
import { usualWork, type DueWork } from '../../../core/ahead/index.ts'
import { kindOfWork } from '../../../core/services/index.ts'
import {
  visitOdds,
  workedZones,
  type VisitOdds,
  type VisitWindow,
  type ZoneOdds,
} from '../../../core/regrowth/index.ts'
import { dateWords, daysWords, longDate } from '../../../core/time/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { useFigures } from '../../state/figures.ts'
import type { VisitPage } from '../../../contract/types.ts'
import { useVisit } from '../../api/queries.ts'
import { useView } from '../../state/view.ts'
import type { StationProps } from '../useStation.ts'
import { Course } from './Course.tsx'
import { Events } from './Events.tsx'
import { LeftOut } from './LeftOut.tsx'
import { Quiet } from './Quiet.tsx'
import { Series } from './Series.tsx'
import { useZoneTints } from './useZoneTints.ts'
import { useMemo, useState } from 'react'

/** Zones told one by one: those that decide. */
const ZONES_TOLD = 6

/** The last visit of a kind of work: from it its next one is counted, whichever visit is looked at. */
function useLastOf({ visit }: StationProps, work: DueWork | undefined): VisitPage | undefined {
  const own = visit.id === work?.visitId
  const other = useVisit(own ? null : work?.visitId)
  return own ? visit : other.data
}

export function NextVisit(props: StationProps) {
  const figures = useFigures()
  const { page } = props
  const { window } = page.tide
  // What is due first; and what the client usually comes for, whose visits are laid out ahead.
  const work = page.due.find((d) => kindOfWork(d) === page.tide.id)
  const last = useLastOf(props, work)
  const usual = useLastOf(props, usualWork(page.due, page.client.service))
  const odds = useMemo(() => {
    if (!window || !work || !last?.leftMm || last.endedAtMs === null) return undefined
    const zones = [...work.zones, ...work.later]
    const left = Object.fromEntries(zones.map((z) => [z, last.leftMm![z] ?? 0]))
    const grows = Object.fromEntries(
      zones.flatMap((z) => {
        const own = page.model.growth[z]
        return own ? [[z, own] as const] : []
      }),
    )
    const { method } = work
    const after = { method, endedAtMs: last.endedAtMs, leftMm: left, answers: last.answers }
    const now = hairSince(figures, after, grows, page.home)
    const leftMm = now.leftMm!
    return visitOdds(
      figures,
      {
        ...skinAfter({
          ...{ service: work.service, method: work.method, leftMm, loads: last.loads },
          ...{ endedAtMs: last.endedAtMs, answers: last.answers },
          redAtChair: last.atChair.redness,
        }),
        zones: workedZones(leftMm, last.loads),
        ...{ skin: page.model, growth: now.growth },
        since: skinSince(figures, after, page.home, page.client.skin.coarseness),
      },
      window,
    )
  }, [figures, window, work, last, page])
  if (!window) {
    return (
      <>
        <h1>Next visit</h1>
        <Course {...props} />
        <Text size="sm" c="dimmed">
          The window of the next visit comes with the first service.
        </Text>
      </>
    )
  }
  return (
    <>
      <h1>
        {dateWords(window.fromMs)} to {dateWords(window.toMs)}
      </h1>
      {page.due.length > 1 && (
        <Text size="sm" c="dimmed">
          {page.tide.name}
        </Text>
      )}
      <Scroll label="Next visit">
        <Course {...props} />
        {odds && <OddsWords odds={odds} window={window} />}
        <Whys reasons={window.reasons} />
        {odds && <ZoneWindows zones={odds.zones} fromMs={window.fromMs} />}
        <Quiet {...props} window={window} />
        <LeftOut {...props} />
        <Events {...props} />
        <Others works={page.due.filter((d) => d !== work)} />
        {usual && <Series {...props} last={usual} />}
      </Scroll>
    </>
  )
}

/** What else the client comes for, each with its own days. */
function Others({ works }: { works: readonly DueWork[] }) {
  if (works.length === 0) return null
  return (
    <section>
      <Title order={2}>Also</Title>
      {works.map((w) => (
        <p key={kindOfWork(w)}>
          <b>{w.name}</b> {w.fromMs !== null && w.toMs !== null ? daysWords(w.fromMs, w.toMs) : ''}
        </p>
      ))}
    </section>
  )
}

/** What is likely when the window opens, and when it closes. */
function OddsWords({ odds, window }: { odds: VisitOdds; window: VisitWindow }) {
  return (
    <p>
      {odds.seenClearMs === undefined ? (
        <>
          {longDate(window.fromMs)}: skin clear with <b>{oddsWords(odds.clearAtOpening)}</b>,
        </>
      ) : (
        <>
          Skin was seen clear on {dateWords(odds.seenClearMs)}. {longDate(window.fromMs)}:
        </>
      )}{' '}
      hair seen with <b>{oddsWords(odds.seenAtOpening)}</b>; {longDate(window.toMs)}: hair seen with{' '}
      <Estimate of="next-odds">{oddsWords(odds.seenAtClosing)}</Estimate>.
    </p>
  )
}

function ZoneWindows({ zones, fromMs }: { zones: readonly ZoneOdds[]; fromMs: number }) {
  const choose = useView((s) => s.choose)
  const chosen = useView((s) => s.chosen)
  const [all, setAll] = useState(false)
  useZoneTints(
    useMemo(() => zones.map((z) => ({ zoneId: z.zoneId, share: z.seenAtOpening })), [zones]),
    ON_SKIN.tide,
  )
  const shown = zones.filter((z, i) => all || i < ZONES_TOLD || z.zoneId === chosen)
  return (
    <section>
      <Title order={2}>Zone by zone</Title>
      <Table highlightOnHover>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Zone</Table.Th>
            <Table.Th scope="col">
              <Estimate of="next-days">clear enough from</Estimate>
            </Table.Th>
            <Table.Th scope="col">seen about</Table.Th>
            <Table.Th scope="col">80 %</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {shown.map((w) => (
            <Table.Tr key={w.zoneId} data-chosen={w.zoneId === chosen || undefined}>
              <Table.Td>
                <Button variant="bare" size="sm" onClick={() => choose(w.zoneId)}>
                  {w.name}
                </Button>
              </Table.Td>
              <Table.Td>{w.clearMs <= Date.now() ? 'now' : dateWords(w.clearMs)}</Table.Td>
              <Table.Td>{dateWords(w.seenMs)}</Table.Td>
              <Table.Td>{daysWords(w.seenEarlyMs, w.seenLateMs)}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {zones.length > shown.length && (
        <Button variant="bare" size="sm" onClick={() => setAll(true)}>
          All {zones.length} zones
        </Button>
      )}
      <Text size="sm" c="dimmed">
        The head shows how likely hair is seen on {dateWords(fromMs)}: the fuller the colour, the
        likelier.
      </Text>
    </section>
  )
}
