/** A severe answer that nobody has looked into yet: who to ring, and what was found or advised. */
import css from './Return.module.css'
import { capital } from '../../../core/words.ts'
import { useFigures } from '../../state/figures.ts'
import { Text } from '@mantine/core'
import { alarmId, zoneWords } from '../../../core/visit/index.ts'
import { aftermathOf, type Aftermath } from '../../../core/looks/index.ts'
import { whenWords } from '../../../core/time/index.ts'
import { telephone } from '../../state/words.ts'
import { ReasonForm } from '../ReasonForm.tsx'
import { SeverityMark } from '../Severity.tsx'
import type { StationProps } from '../useStation.ts'

export function Alarm(props: StationProps & { endedAtMs: number }) {
  const figures = useFigures()
  const { visit, endedAtMs } = props
  const found = aftermathOf(figures, {
    visitId: visit.id,
    jobs: visit.jobs,
    endedAtMs,
    zones: visit.lookAt,
    answers: visit.answers,
    redAtChair: visit.atChair.redness,
  })
  if (!found) return null
  const word = visit.facts.decisions.find(
    (d) => d.finding === alarmId(visit.id) && d.takenBackAtMs === null && d.atMs > found.toldAtMs,
  )
  return (
    <section className={css.alarm} role={word ? undefined : 'alert'}>
      <div>
        <p>
          <SeverityMark grade={word ? 'take-care' : 'stop'} />{' '}
          <b>
            {capital(found.signs.join(', '))}
            {found.zones.length > 0 && `: ${zoneWords(found.zones)}`}.
          </b>{' '}
          Told {whenWords(found.toldAtMs)}
          {found.source === 'client' && ' by the client'}. No blade there until a look “seen here”
          finds it calm.
        </p>
        {word ? (
          <Text size="sm" c="dimmed">
            {word.workerName}, {whenWords(word.atMs)}: {word.reason}
          </Text>
        ) : (
          found.source !== 'seen' && <Looked {...props} found={found} />
        )}
      </div>
    </section>
  )
}

/** Written down once somebody has rung or looked; until then Today goes on alarming. */
function Looked({ page, visit, house }: StationProps & { found: Aftermath }) {
  const worker = house.workers.find((w) => w.id === house.workerId)
  const { phone } = page.client
  return (
    <ReasonForm
      visitId={visit.id}
      workerId={house.workerId}
      finding={alarmId(visit.id)}
      label={
        phone ? (
          <>
            Ring <a href={telephone(phone)}>{phone}</a>. What did you find and advise?
          </>
        ) : (
          'No telephone is kept. What did you find and advise?'
        )
      }
      description={`Kept with the name of ${worker?.name ?? 'who works here'}.`}
      act="Looked into"
    />
  )
}
