/** The questions as quick taps, with dates where a date matters, and the patch test. */
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { RULES } from '../../../core/screening/rules.ts'
import { type Asked } from '../../../core/screening/screen.ts'
import { SERVICES } from '../../../core/services.ts'
import { todayIso, whenWords } from '../../state/words.ts'
import { type StationProps } from '../useStation.ts'

/** Changes what was asked, from what is shown now. */
export type Change = (change: (asked: Asked) => Partial<Asked>) => void

export function Questions({
  asked,
  frozen,
  onChange,
  visit,
}: {
  asked: Asked
  frozen: boolean
  onChange: Change
  visit: StationProps['visit']
}) {
  const answer = (id: string, yes: boolean, date?: string) =>
    onChange((now) => ({
      answers: { ...now.answers, [id]: { yes, ...(date ? { date } : {}) } },
    }))
  const open = RULES.filter((r) => asked.answers[r.id] === undefined)
  const family = SERVICES[visit.service].family
  return (
    <>
      <div className="row-between">
        <p className="soft">
          {open.length === 0
            ? 'All asked. Tap to change: filled is yes, a dash is no.'
            : 'Tap what is so; then none of the rest.'}
        </p>
        {open.length > 0 && !frozen && (
          <button
            className="strong small"
            onClick={() =>
              onChange((now) => ({
                answers: {
                  ...Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
                  ...now.answers,
                },
              }))
            }
          >
            None of the rest
          </button>
        )}
      </div>
      <ul className="more">
        {RULES.map((rule) => {
          const a = asked.answers[rule.id]
          if (!a?.yes) return null
          if (rule.id === 'first-ever' && family === 'fuzz') {
            return (
              <li key={rule.id}>
                <PatchTest asked={asked} frozen={frozen} onChange={onChange} />
              </li>
            )
          }
          if (!rule.dateQuestion) return null
          return (
            <li key={rule.id}>
              <label className="when">
                {rule.short}: {rule.dateQuestion.toLowerCase()}
                <input
                  type="date"
                  max={todayIso()}
                  value={a.date ?? ''}
                  disabled={frozen}
                  onChange={(e) => answer(rule.id, true, e.currentTarget.value || undefined)}
                />
              </label>
            </li>
          )
        })}
      </ul>
      <ul className="chips">
        {RULES.map((rule) => {
          const a = asked.answers[rule.id]
          const state = a === undefined ? 'open' : a.yes ? 'yes' : 'no'
          return (
            <li key={rule.id}>
              <button
                className={`chip ${state}`}
                title={rule.question}
                aria-label={`${rule.question} ${{ open: 'Not asked yet', yes: 'Yes', no: 'No' }[state]}`}
                aria-pressed={a?.yes ?? false}
                disabled={frozen}
                onClick={() => answer(rule.id, !a?.yes, a?.date)}
              >
                <i aria-hidden />
                {rule.short}
              </button>
            </li>
          )
        })}
      </ul>
    </>
  )
}

const PATCH_PLACES: readonly ZoneId[] = [
  'jaw-left',
  'jaw-right',
  'neck-upper-left',
  'neck-upper-right',
]

function PatchTest({
  asked,
  frozen,
  onChange,
}: {
  asked: Asked
  frozen: boolean
  onChange: Change
}) {
  const test = asked.patchTest
  if (!test) {
    return (
      <div className="when">
        Place a patch test now at
        <select
          aria-label="Place of the patch test"
          value=""
          disabled={frozen}
          onChange={(e) =>
            onChange(() => ({
              patchTest: {
                zoneId: e.currentTarget.value as ZoneId,
                placedAtMs: Date.now(),
                result: 'waiting',
              },
            }))
          }
        >
          <option value="" disabled>
            choose the place
          </option>
          {PATCH_PLACES.map((z) => (
            <option key={z} value={z}>
              {zoneName(z)}
            </option>
          ))}
        </select>
      </div>
    )
  }
  return (
    <div className="when">
      <span>
        Patch test, {zoneName(test.zoneId)}, {whenWords(test.placedAtMs)}:
      </span>
      <div className="yes-no three" role="group" aria-label="What the patch test shows">
        {(['waiting', 'calm', 'reacted'] as const).map((result) => (
          <button
            key={result}
            aria-pressed={test.result === result}
            disabled={frozen}
            onClick={() => onChange(() => ({ patchTest: { ...test, result } }))}
          >
            {result}
          </button>
        ))}
      </div>
    </div>
  )
}
