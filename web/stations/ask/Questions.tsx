/**
 * The questions in a ruled form whose fields keep their places: a tap says yes or no. When, where and which are asked below,
 * in a row of their own; what was answered last time is only confirmed.
 */
import { lowerFirst } from '../../../core/words.ts'
import { Button, Group, Text, TextInput, UnstyledButton } from '@mantine/core'
import { useRef, useState } from 'react'
import {
  concerns,
  ruleEffect,
  RULES,
  type Answer,
  type Asked,
  type ScreeningRule,
} from '../../../core/screening/index.ts'
import { jobsWords } from '../../../core/services/index.ts'
import { dayWords } from '../../../core/time/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useView } from '../../state/view.ts'
import { todayIso } from '../../state/words.ts'
import { DateField, WhenRow } from '../../ui/DateField.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { Toggles } from '../../ui/Toggles.tsx'
import { Words } from '../../ui/Words.tsx'
import type { StationProps } from '../useStation.ts'
import css from './Ask.module.css'
import { PatchTest } from './PatchTest.tsx'

/** Changes what was asked, from what is shown now. */
export type Change = (change: (asked: Asked) => Partial<Asked>) => void

interface Props {
  readonly asked: Asked
  readonly frozen: boolean
  /** The client's day of birth; empty where it is not known. */
  readonly bornOn: string
  readonly onChange: Change
  readonly visit: StationProps['visit']
  readonly house: StationProps['house']
}

/** An answer that somebody has just given: it no longer has to be confirmed. */
function fresh({ still: _still, ...answer }: Answer): Answer {
  return answer
}

const CLINICIAN = 'clinician'
const PATCH = 'patch'

/** What a yes asks further. */
const asksMore = (rule: ScreeningRule) =>
  rule.dateQuestion !== undefined || rule.zoneQuestion !== undefined || rule.kinds !== undefined

export function Questions({ asked, frozen, bornOn, onChange, visit, house }: Props) {
  const figures = useFigures()
  const [all, setAll] = useState(false)
  const [looking, setLooking] = useState<string>()
  const answer = (id: string, given: Answer) =>
    onChange((now) => ({ answers: { ...now.answers, [id]: fresh(given) } }))
  const asks = RULES.filter((r) => concerns(r, visit.jobs, house.rules))
  const moot = RULES.length - asks.length
  const shown = all ? RULES : asks
  const gated = asks.some(
    (r) =>
      asked.answers[r.id]?.yes &&
      visit.jobs.some((job) => ruleEffect(figures, r, job, house.rules).gate === 'clinician'),
  )
  const further = [
    ...(gated ? [[CLINICIAN, 'A clinician’s word'] as const] : []),
    ...(asked.answers['first-ever']?.yes ? [[PATCH, 'Patch test'] as const] : []),
    ...shown
      .filter((r) => asked.answers[r.id]?.yes && asksMore(r))
      .map((r) => [r.id, r.short] as const),
  ]
  const at = further.find(([id]) => id === looking)?.[0] ?? further[0]?.[0]
  const rule = RULES.find((r) => r.id === at)
  return (
    <>
      <Scroll label="Questions">
        <ul className={css.grid} aria-label="Questions">
          {shown.map((r) => (
            <li key={r.id}>
              <AnswerField
                rule={r}
                answer={asked.answers[r.id]}
                frozen={frozen}
                born={r.id === 'under-age' && bornOn !== ''}
                onTap={(yes) => {
                  answer(r.id, { ...asked.answers[r.id], yes })
                  if (yes) setLooking(r.id === 'first-ever' ? PATCH : r.id)
                }}
              />
            </li>
          ))}
        </ul>
      </Scroll>
      <div className={css.more} role="group" aria-label="When, where and which">
        {further.length > 1 && (
          <Words label="Asked further" data={further} value={at} onChange={setLooking} />
        )}
        {at === CLINICIAN && <ClinicianWord asked={asked} frozen={frozen} onChange={onChange} />}
        {at === PATCH && <PatchTest asked={asked} frozen={frozen} onChange={onChange} />}
        {rule && at !== PATCH && (
          <More
            key={rule.id}
            rule={rule}
            answer={asked.answers[rule.id]!}
            frozen={frozen}
            onAnswer={(given) => answer(rule.id, given)}
          />
        )}
        <Group justify="space-between" gap="xs">
          <p className={css.signs}>
            {(
              [
                ['no', 'no'],
                ['yes', 'yes'],
                ['open', 'not asked yet'],
                ['still', 'from last time'],
              ] as const
            ).map(([state, words]) => (
              <span key={state}>
                <i className={css.sign} data-state={state} aria-hidden /> {words}
              </span>
            ))}
          </p>
          {moot > 0 && (
            <Button
              variant="bare"
              size="compact-sm"
              aria-pressed={all}
              onClick={() => setAll(!all)}
            >
              {all
                ? 'Only what concerns it'
                : `${moot} ${moot === 1 ? 'does' : 'do'} not concern ${lowerFirst(jobsWords(visit.jobs))}`}
            </Button>
          )}
        </Group>
      </div>
    </>
  )
}

/** One tap for all that is not so, or still so. */
export function Rest({
  asked,
  asks,
  onChange,
}: Pick<Props, 'asked' | 'onChange'> & { asks: readonly ScreeningRule[] }) {
  const open = asks.filter((r) => asked.answers[r.id] === undefined)
  // What was pressed goes; the hand stays where it was.
  const place = useRef<HTMLDivElement>(null)
  const act = (by: () => void) => () => {
    by()
    place.current?.focus()
  }
  const carried = asks.filter((r) => asked.answers[r.id]?.still === 'ask')
  const since = carried.map((r) => asked.answers[r.id]!.since).find((d) => d !== undefined)
  const stillSo = () =>
    onChange((now) => ({
      answers: Object.fromEntries(Object.entries(now.answers).map(([id, a]) => [id, fresh(a)])),
    }))
  const noneOfTheRest = () =>
    onChange((now) => ({
      answers: { ...Object.fromEntries(asks.map((r) => [r.id, { yes: false }])), ...now.answers },
    }))
  return (
    <Group gap="xs" wrap="nowrap" ref={place} tabIndex={-1} role="group" aria-label="All others">
      {carried.length > 0 && (
        <>
          <Text fz={14} c="dimmed">
            asked {since ? dayWords(since, todayIso()) : 'last time'}
          </Text>
          <Button size="sm" onClick={act(stillSo)} title="Tap what has changed first">
            Still so
          </Button>
        </>
      )}
      {open.length > 0 && (
        <Button size="sm" onClick={act(noneOfTheRest)} title="Tap what is so first">
          None of the rest
        </Button>
      )}
    </Group>
  )
}

const STATE_WORDS = { open: 'Not asked yet', yes: 'Yes', no: 'No' } as const

/** A field of the form. It has three states, which a checkbox has not. */
function AnswerField({
  rule,
  answer: a,
  frozen,
  born,
  onTap,
}: {
  rule: ScreeningRule
  answer: Answer | undefined
  frozen: boolean
  /** Whether the day of birth has answered it. */
  born: boolean
  onTap: (yes: boolean) => void
}) {
  const state = a === undefined ? 'open' : a.yes ? 'yes' : 'no'
  const still = a?.still === 'ask'
  return (
    <UnstyledButton
      className={css.answer}
      data-state={state}
      title={born ? 'By the day of birth, under Person' : rule.question}
      aria-label={`${rule.question} ${STATE_WORDS[state]}${born ? ', by the day of birth' : ''}${still ? ', still so?' : ''}`}
      aria-pressed={a?.yes ?? false}
      disabled={frozen || born}
      onClick={() => onTap(!a?.yes)}
    >
      <i className={css.sign} data-state={still && state === 'no' ? 'still' : state} aria-hidden />
      {rule.short}
    </UnstyledButton>
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
  if (!asksMore(rule)) return null
  const zones = answer.zones ?? []
  const { date: _date, zones: _zones, ...rest } = answer
  const what = `${rule.short}: ${(rule.dateQuestion ?? 'when').toLowerCase()}`
  return (
    <Group gap="md" mih={52}>
      <Text fw={650} size="sm">
        {rule.short}
        {rule.dateQuestion && (
          <Text span inherit fw={400} display="block" c="dimmed">
            {rule.dateQuestion.toLowerCase()}
          </Text>
        )}
      </Text>
      {rule.dateQuestion && (
        <WhenRow
          what={what}
          value={answer.date}
          disabled={frozen}
          onChange={(date) =>
            onAnswer({ ...rest, ...(zones.length > 0 && { zones }), ...(date && { date }) })
          }
        />
      )}
      {rule.kinds && (
        <Toggles
          label={`${rule.short}: which`}
          disabled={frozen}
          of={rule.kinds.map((kind) => ({
            id: kind,
            name: kind,
            on: answer.kinds?.includes(kind) ?? false,
          }))}
          onToggle={(kind, on) =>
            onAnswer({
              ...answer,
              kinds: on
                ? [...(answer.kinds ?? []), kind]
                : (answer.kinds ?? []).filter((k) => k !== kind),
            })
          }
        />
      )}
      {rule.zoneQuestion && (
        <Text size="sm">
          {zones.length === 0
            ? 'where: all over'
            : `where: ${zones.map((z) => zoneName(z).toLowerCase()).join('; ')}`}
          {!frozen && chosen && !zones.includes(chosen) && (
            <Button
              variant="bare"
              size="compact-sm"
              onClick={() => onAnswer({ ...answer, zones: [...zones, chosen] })}
            >
              add {zoneName(chosen).toLowerCase()}
            </Button>
          )}
          {!frozen && zones.length > 0 && (
            <Button
              variant="bare"
              size="compact-sm"
              onClick={() => onAnswer({ ...rest, ...(answer.date && { date: answer.date }) })}
            >
              all over
            </Button>
          )}
        </Text>
      )}
    </Group>
  )
}

function ClinicianWord({ asked, frozen, onChange }: Pick<Props, 'asked' | 'frozen' | 'onChange'>) {
  const word = asked.clinician
  const set = (change: Partial<NonNullable<Asked['clinician']>>) =>
    onChange((now) => ({
      clinician: { who: 'Clinician', on: todayIso(), said: 'yes', ...now.clinician, ...change },
    }))
  return (
    <Group gap="md" mih={52}>
      <Text fw={650} size="sm">
        A clinician’s word
      </Text>
      <Words
        label="What the clinician said"
        data={[
          ['yes', 'go ahead'],
          ['no', 'do not'],
        ]}
        value={word?.said}
        disabled={frozen}
        onChange={(said) => set({ said })}
      />
      {word && (
        <>
          <TextInput
            aria-label="Who said it"
            maxLength={80}
            w={150}
            disabled={frozen}
            key={word.who}
            defaultValue={word.who}
            onBlur={(e) => {
              const who = e.currentTarget.value.trim()
              if (who && who !== word.who) set({ who })
            }}
          />
          <DateField
            aria-label="When it was said"
            w={150}
            maxDate={todayIso()}
            value={word.on}
            disabled={frozen}
            onChange={(on) => on && set({ on })}
          />
        </>
      )}
    </Group>
  )
}
