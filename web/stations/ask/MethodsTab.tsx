/** Which way of taking hair off suits the chosen place; and the question that everybody asks. */
import { Button, Table } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState } from 'react'
import { adviseMethods, lengthNow, METHOD_WORDS, THICKNESS } from '../../../core/screening/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { MARK_WORDS } from '../../../core/house/index.ts'
import { meanLeft } from '../../../core/history/index.ts'
import { DAY_MS, dayWords } from '../../../core/time/index.ts'
import { useView } from '../../state/view.ts'
import { todayIso } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'

const SAYS = { suits: 'suits', possible: 'possible', later: 'later', not: 'no' } as const

export function MethodsTab({ page, visit }: StationProps) {
  const figures = useFigures()
  const zones = useServiceZones(visit)
  const chosen = useView((s) => s.chosen)
  const zoneId = chosen && zones.includes(chosen) ? chosen : zones[0]!
  const [event, setEvent] = useState('')
  const [asked, setAsked] = useState(false)
  const growth = page.model.growth[zoneId]!
  const last = page.visits.find((v) => v.state === 'finished')
  const days = last?.endedAtMs ? (Date.now() - last.endedAtMs) / DAY_MS : undefined
  const [measured, setMeasured] = useState('')
  const guess = lengthNow(figures, growth, meanLeft(null), days)
  const lengthMm = measured === '' ? guess : Number(measured)
  const advice = useMemo(
    () =>
      adviseMethods(figures, {
        zoneId,
        client: page.client.skin,
        hair: visit.notes.hair,
        strays: visit.notes.strays,
        answers: visit.asked.answers,
        growth,
        lengthMm,
        today: todayIso(),
        event: event || undefined,
      }),
    [figures, zoneId, page.client.skin, visit.notes, visit.asked.answers, growth, lengthMm, event],
  )
  return (
    <div className="stack">
      <div className="row-between">
        <h2>{zoneName(zoneId)}</h2>
        <Button size="sm" aria-expanded={asked} onClick={() => setAsked(!asked)}>
          Thicker?
        </Button>
      </div>
      {asked && (
        <p className="notice" role="note">
          <b>{THICKNESS.question}</b> {THICKNESS.answer}{' '}
          <small>
            ({THICKNESS.mark}: {THICKNESS.source})
          </small>
        </p>
      )}
      <div className="lane-edit">
        <label>
          Length now
          <input
            type="number"
            className="text-input short"
            step="0.5"
            min="0"
            max="60"
            placeholder={guess.toFixed(1)}
            value={measured}
            onChange={(e) => setMeasured(e.currentTarget.value)}
          />
          mm
        </label>
        <label>
          In order for
          <input
            type="date"
            min={todayIso()}
            value={event}
            onChange={(e) => setEvent(e.currentTarget.value)}
          />
        </label>
      </div>
      <Table>
        <Table.Tbody>
          {advice.map((a) => (
            <Table.Tr key={a.method} className={`method-${a.says}`}>
              <Table.Th scope="row">{METHOD_WORDS[a.method]}</Table.Th>
              <Table.Td>
                <b>{SAYS[a.says]}</b>
                {a.from && <small> from {dayWords(a.from, todayIso())}</small>}
              </Table.Td>
              <Table.Td>
                {a.why} <abbr title={MARK_WORDS[a.mark]}>({a.mark})</abbr>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <p className="soft">
        Choose another zone on the head. Slow Tide runs blades and tweezers; the rest is advice.
        {measured === '' && ' The length is worked out from growth (H) until it is measured.'}
      </p>
    </div>
  )
}
