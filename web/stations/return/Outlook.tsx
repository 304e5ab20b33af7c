/** The window of the next visit with its reasons, and what has been learned so far. */
import { MARK_WORDS } from '../../../core/house/constants.ts'
import { meanSensitivity } from '../../../core/skin/sensitivity.ts'
import { useChangeVisit } from '../../api/queries.ts'
import { dateWords, longDate } from '../../state/words.ts'
import { type StationProps } from '../useStation.ts'

export function Outlook({ page, visit }: StationProps) {
  const window = visit.window ?? page.tide.window
  const change = useChangeVisit(visit.id)
  const rates = Object.values(page.model.sensitivity).map(meanSensitivity)
  const mean = rates.reduce((s, v) => s + v, 0) / Math.max(1, rates.length)
  return (
    <div className="stack">
      {window ? (
        <>
          <p className="big">
            {dateWords(window.fromMs)} to {dateWords(window.toMs)}
          </p>
          <p className="soft">
            From {longDate(window.fromMs)}. Hair felt about day {window.felt.even.toFixed(1)}, seen
            about day {window.seen.even.toFixed(1)} (80 %: {window.seen.early.toFixed(1)}–
            {window.seen.late.toFixed(1)}).
          </p>
          <ul className="whys">
            {window.reasons.map((r) => (
              <li key={r.text}>
                {r.text} <abbr title={MARK_WORDS[r.mark]}>({r.mark})</abbr>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="soft">The window of the next visit comes with the first service.</p>
      )}
      <p className="soft">
        {page.model.answeredServices === 0
          ? 'Nothing learned of this skin yet: plans start from what was told.'
          : `Learned from ${page.model.answeredServices} answered services: about ${mean.toFixed(2)} grades of redness per unit of load (H).`}
      </p>
      <label className="stack">
        <span className="soft">
          A change of routine that began with this visit (shown on the tide line)
        </span>
        <input
          className="text-input"
          defaultValue={visit.routine}
          maxLength={120}
          placeholder="single edge, with the grain only"
          onBlur={(e) => {
            const routine = e.currentTarget.value.trim()
            if (routine !== visit.routine) change.mutate({ routine })
          }}
        />
      </label>
    </div>
  )
}
