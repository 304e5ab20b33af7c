/** The result of asking, at once, with its reasons. */
import { Link } from 'react-router'
import { MARK_WORDS } from '../../../core/house/constants.ts'
import { CLOSING_SENTENCE, verdictWords } from '../../../core/screening/screen.ts'
import { dayWords } from '../../../core/time/dates.ts'
import { todayIso } from '../../state/words.ts'
import { SeverityMark } from '../Severity.tsx'
import { useScreening, type StationProps } from '../useStation.ts'

export function Result(props: StationProps) {
  const { page, visit } = props
  const screening = useScreening(props)
  const grave = screening.findings.filter((f) => f.severity !== 'note')
  const notes = screening.findings.filter((f) => f.severity === 'note')
  const shown = [...grave, ...notes].slice(0, 4)
  const cleared = screening.verdict === 'go' || screening.verdict === 'leave-out'
  return (
    <section className={`result result-${screening.verdict}`} aria-live="polite">
      <div className="result-head">
        <h1>{verdictWords(screening, todayIso())}</h1>
        {cleared && visit.state === 'open' && (
          <Link className="strong deep" to={`/clients/${page.client.id}/read`}>
            Read the grain
          </Link>
        )}
      </div>
      {shown.length > 0 && (
        <ul className="findings">
          {shown.map((f) => (
            <li key={f.ruleId}>
              <SeverityMark grade={f.severity} />
              <span>
                <b>{f.reason}.</b> {f.text} <abbr title={MARK_WORDS[f.mark]}>({f.mark})</abbr>
              </span>
            </li>
          ))}
          {screening.findings.length > shown.length && (
            <li>
              <span />
              <span>and {screening.findings.length - shown.length} more below.</span>
            </li>
          )}
        </ul>
      )}
      {screening.wouldChange.length > 0 && (
        <p className="would-change">
          <b>What would have to change:</b> {screening.wouldChange.join(' ')}
        </p>
      )}
      {screening.wholeFrom && (
        <p className="would-change">
          Nothing has to be left out for a date’s sake from{' '}
          {dayWords(screening.wholeFrom, todayIso())}.
        </p>
      )}
      <p className="closing">{CLOSING_SENTENCE}</p>
    </section>
  )
}
