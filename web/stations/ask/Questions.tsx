/** The questions as quick taps; what was answered last time only as "still so?"; dates, places and words where they matter. */
import { Button, UnstyledButton } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import { useRef } from 'react'
import { dayWords } from '../../../core/time/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import {
  ruleEffect,
  RULES,
  type ScreeningRule,
  type Answer,
  type Asked,
} from '../../../core/screening/index.ts'
import { useView } from '../../state/view.ts'
import { todayIso } from '../../state/words.ts'
import type { StationProps } from '../useStation.ts'
import { PatchTest } from './PatchTest.tsx'

/** Changes what was asked, from what is shown now. */
export type Change = (change: (asked: Asked) => Partial<Asked>) => void

interface Props {
  readonly asked: Asked
  readonly frozen: boolean
  readonly onChange: Change
  readonly visit: StationProps['visit']
  readonly house: StationProps['house']
}

/** An answer that somebody has just given: it no longer has to be confirmed. */
function fresh({ still: _still, ...answer }: Answer): Answer {
  return answer
}

export function Questions({ asked, frozen, onChange, visit, house }: Props) {
  const figures = useFigures()
  const answer = (id: string, given: Answer) =>
    onChange((now) => ({ answers: { ...now.answers, [id]: fresh(given) } }))
  const more = useRef<HTMLUListElement>(null)
  const open = RULES.filter((r) => asked.answers[r.id] === undefined)
  const carried = RULES.filter((r) => asked.answers[r.id]?.still === 'ask')
  const since = carried.map((r) => asked.answers[r.id]!.since).find((d) => d !== undefined)
  const gated = RULES.some(
    (r) =>
      asked.answers[r.id]?.yes &&
      ruleEffect(figures, r, visit.service, house.rules).gate === 'clinician',
  )
  return (
    <>
      <div className="row-between">
        <p className="soft">
          {carried.length > 0
            ? `Asked ${since ? `on ${dayWords(since, todayIso())}` : 'last time'}: still so? Tap what has changed first.`
            : open.length === 0
              ? 'All asked. Tap to change: filled is yes, a dash is no.'
              : 'Tap what is so; then none of the rest.'}
        </p>
        {!frozen && carried.length > 0 && (
          <Button
            size="sm"

            onClick={() =>
              onChange((now) => ({
                answers: Object.fromEntries(
                  Object.entries(now.answers).map(([id, a]) => [id, fresh(a)]),
                ),
              }))
            }
          >
            Still so
          </Button>
        )}
        {!frozen && open.length > 0 && (
          <Button
            size="sm"

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
          </Button>
        )}
      </div>
      <ul className="more" ref={more}>
        {RULES.map((rule) => {
          const a = asked.answers[rule.id]
          if (!a?.yes) return null
          return (
            <More
              key={rule.id}
              rule={rule}
              answer={a}
              frozen={frozen}
              onAnswer={(given) => answer(rule.id, given)}
            />
          )
        })}
        {asked.answers['first-ever']?.yes && (
          <li>
            <PatchTest asked={asked} frozen={frozen} onChange={onChange} />
          </li>
        )}
        {gated && (
          <li>
            <ClinicianWord asked={asked} frozen={frozen} onChange={onChange} />
          </li>
        )}
      </ul>
      <ul className="chips">
        {RULES.map((rule) => {
          const a = asked.answers[rule.id]
          const state = a === undefined ? 'open' : a.yes ? 'yes' : 'no'
          return (
            <li key={rule.id}>
              <UnstyledButton
                className={`chip ${state} ${a?.still === 'ask' ? 'still' : ''}`}
                title={rule.question}
                aria-label={`${rule.question} ${{ open: 'Not asked yet', yes: 'Yes', no: 'No' }[state]}${a?.still === 'ask' ? ', still so?' : ''}`}
                aria-pressed={a?.yes ?? false}
                disabled={frozen}
                onClick={() => {
                  answer(rule.id, { ...a, yes: !a?.yes })
                  // A yes asks further above: when, where, which.
                  if (!a?.yes)
                    requestAnimationFrame(() => more.current?.scrollIntoView({ block: 'nearest' }))
                }}
              >
                <i aria-hidden />
                {rule.short}
              </UnstyledButton>
            </li>
          )
        })}
      </ul>
    </>
  )
}

/** What a yes asks further: when, where, which. */
function More({
  rule,
  answer,
  frozen,
  onAnswer,
}: {
  rule: ScreeningRule
  answer: Answer
  frozen: boolean
  onAnswer: (answer: Answer) => void
}) {
  const chosen = useView((s) => s.chosen)
  if (!rule.dateQuestion && !rule.zoneQuestion && !rule.kinds) return null
  const zones = answer.zones ?? []
  const { date: _date, zones: _zones, ...rest } = answer
  return (
    <li className="when">
      {rule.dateQuestion && (
        <label>
          {rule.short}: {rule.dateQuestion.toLowerCase()}
          <input
            type="date"
            max={todayIso()}
            value={answer.date ?? ''}
            disabled={frozen}
            onChange={(e) => {
              const date = e.currentTarget.value
              onAnswer({ ...rest, ...(zones.length > 0 && { zones }), ...(date && { date }) })
            }}
          />
        </label>
      )}
      {rule.kinds && (
        <span className="switch wrap" role="group" aria-label={`${rule.short}: which`}>
          {rule.kinds.map((kind) => {
            const on = answer.kinds?.includes(kind) ?? false
            return (
              <button
                key={kind}
                aria-pressed={on}
                disabled={frozen}
                onClick={() =>
                  onAnswer({
                    ...answer,
                    kinds: on
                      ? answer.kinds!.filter((k) => k !== kind)
                      : [...(answer.kinds ?? []), kind],
                  })
                }
              >
                {kind}
              </button>
            )
          })}
        </span>
      )}
      {rule.zoneQuestion && (
        <span className="where">
          {zones.length === 0
            ? 'where: all over'
            : `where: ${zones.map((z) => zoneName(z).toLowerCase()).join('; ')}`}
          {!frozen && chosen && !zones.includes(chosen) && (
            <Button
              variant="bare"
              size="sm"

              onClick={() => onAnswer({ ...answer, zones: [...zones, chosen] })}
            >
              add {zoneName(chosen).toLowerCase()}
            </Button>
          )}
          {!frozen && zones.length > 0 && (
            <Button
              variant="bare"
              size="sm"

              onClick={() => onAnswer({ ...rest, ...(answer.date && { date: answer.date }) })}
            >
              all over
            </Button>
          )}
        </span>
      )}
    </li>
  )
}

function ClinicianWord({ asked, frozen, onChange }: Pick<Props, 'asked' | 'frozen' | 'onChange'>) {
  const word = asked.clinician
  const set = (change: Partial<NonNullable<Asked['clinician']>>) =>
    onChange((now) => ({
      clinician: { who: 'Clinician', on: todayIso(), said: 'yes', ...now.clinician, ...change },
    }))
  return (
    <div className="when">
      <span>A clinician’s word:</span>
      <span className="yes-no" role="group" aria-label="What the clinician said">
        {(['yes', 'no'] as const).map((said) => (
          <Button
            size="sm"
            key={said}
            aria-pressed={word?.said === said}
            disabled={frozen}
            onClick={() => set({ said })}
          >
            {said === 'yes' ? 'go ahead' : 'do not'}
          </Button>
        ))}
      </span>
      {word && (
        <>
          <input
            className="text-input"
            aria-label="Who said it"
            maxLength={80}
            disabled={frozen}
            key={word.who}
            defaultValue={word.who}
            onBlur={(e) => {
              const who = e.currentTarget.value.trim()
              if (who && who !== word.who) set({ who })
            }}
          />
          <input
            type="date"
            aria-label="When it was said"
            max={todayIso()}
            value={word.on}
            disabled={frozen}
            onChange={(e) => e.currentTarget.value && set({ on: e.currentTarget.value })}
          />
        </>
      )}
    </div>
  )
}
