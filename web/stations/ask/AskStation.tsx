/** Ask: who, what they want, skin and hair, what stands in the way; the result at once, with reasons. */
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { SkinAndHair } from '../../../core/client.ts'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { MARK_WORDS } from '../../../core/house/constants.ts'
import { RULES, SPOT_KINDS, SPOT_WORDS, type SpotKind } from '../../../core/screening/rules.ts'
import {
  CLOSING_SENTENCE,
  verdictWords,
  type Asked,
  type Spot,
} from '../../../core/screening/screen.ts'
import { SERVICE_IDS, SERVICES } from '../../../core/services.ts'
import { useChangeClient, useChangeVisit, useSaveAsked } from '../../api/queries.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { newId, todayIso, whenWords } from '../../state/words.ts'
import { SeverityMark } from '../Severity.tsx'
import {
  isFrozen,
  useFaintZones,
  useGrain,
  useScreening,
  useServiceZones,
  type StationProps,
} from '../useStation.ts'
import { ClientDetails } from './ClientDetails.tsx'

const SKIN_CHOICES: readonly {
  key: keyof SkinAndHair
  label: string
  choices: readonly (readonly [value: string, words: string])[]
}[] = [
  {
    key: 'reactivity',
    label: 'Skin',
    choices: [
      ['tough', 'tough'],
      ['average', 'average'],
      ['reactive', 'reactive'],
    ],
  },
  {
    key: 'faceHair',
    label: 'Face',
    choices: [
      ['beard', 'beard'],
      ['fuzz', 'fuzz'],
    ],
  },
  {
    key: 'coarseness',
    label: 'Hair',
    choices: [
      ['fine', 'fine'],
      ['medium', 'medium'],
      ['coarse', 'coarse'],
    ],
  },
  {
    key: 'curl',
    label: 'Curl',
    choices: [
      ['straight', 'straight'],
      ['wavy', 'wavy'],
      ['tight', 'tight'],
    ],
  },
  {
    key: 'bumpProne',
    label: 'Bumps',
    choices: [
      ['no', 'seldom'],
      ['yes', 'bump-prone'],
    ],
  },
]

/** Changes what was asked, from what is shown now. */
type Change = (change: (asked: Asked) => Partial<Asked>) => void

type Tab = 'questions' | 'skin' | 'marks' | 'person'
const TABS: readonly (readonly [Tab, string])[] = [
  ['questions', 'Questions'],
  ['skin', 'Skin and hair'],
  ['marks', 'Marks'],
  ['person', 'Person'],
]

export function AskStation(props: StationProps) {
  const { page, visit, house } = props
  const frozen = isFrozen(visit)
  const [tab, setTab] = useState<Tab>('questions')
  const [kind, setKind] = useState<SpotKind>('mole')
  const [radius, setRadius] = useState(4)
  const save = useSaveAsked(visit.id)
  const screening = useScreening(visit, house)
  const grain = useGrain(visit)
  const faint = useFaintZones(visit)
  const { asked } = visit
  const { change } = save

  const head = useHead()
  const zones = useServiceZones(visit)
  const place = (at: { zoneId: ZoneId; point: Spot['point']; normal: Spot['normal'] }) => {
    const { zoneId, point, normal } = at
    change((now) => ({
      spots: [...now.spots, { id: newId(), kind, zoneId, point, normal, radiusMm: radius }],
    }))
  }
  const placing = tab === 'marks' && !frozen
  const layers = useMemo(
    () => ({
      grain,
      faint,
      tints: screening.leaveOutZones.map((zoneId) => ({ zoneId, colour: '#BF4E36', opacity: 0.3 })),
      spots: asked.spots.map((s) => ({ ...s, name: SPOT_WORDS[s.kind] })),
      ...(placing && {
        onTap: (hit: Hit) => place(hit),
      }),
    }),
    // `place` reads what is shown when it is called.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [grain, faint, screening, asked, placing, kind, radius],
  )
  useHeadLayers(layers)

  return (
    <>
      <Result {...props} />
      <div className="switch tabs" role="group" aria-label="What to ask">
        {TABS.map(([id, name]) => (
          <button key={id} aria-pressed={tab === id} onClick={() => setTab(id)}>
            {name}
            {id === 'questions' && screening.unanswered > 0 && (
              <small> {screening.unanswered}</small>
            )}
            {id === 'marks' && asked.spots.length > 0 && <small> {asked.spots.length}</small>}
          </button>
        ))}
      </div>
      {save.error && (
        <p role="alert" className="problem">
          {save.error.message}
        </p>
      )}
      <div
        className="tab-body"
        tabIndex={0}
        role="region"
        aria-label={TABS.find((t) => t[0] === tab)![1]}
      >
        {tab === 'questions' && (
          <Questions asked={asked} frozen={frozen} onChange={change} visit={visit} />
        )}
        {tab === 'skin' && <Skin {...props} frozen={frozen} />}
        {tab === 'marks' && (
          <Marks
            spots={asked.spots}
            frozen={frozen}
            kind={kind}
            setKind={setKind}
            radius={radius}
            setRadius={setRadius}
            zones={zones}
            onPlace={(zoneId) => {
              const centre = head.data?.zoneById.get(zoneId)?.centre
              if (centre) place({ zoneId, ...centre })
            }}
            onChange={(spots) => change(() => ({ spots }))}
          />
        )}
        {tab === 'person' && <ClientDetails client={page.client} />}
      </div>
    </>
  )
}

function Result({ page, visit, house }: StationProps) {
  const screening = useScreening(visit, house)
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
      <p className="closing">{CLOSING_SENTENCE}</p>
    </section>
  )
}

function Questions({
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

function Skin({ page, visit, house, frozen }: StationProps & { frozen: boolean }) {
  const client = useChangeClient(page.client.id)
  const changeVisit = useChangeVisit(visit.id)
  const { skin } = page.client
  const set = (key: keyof SkinAndHair, value: string) =>
    client.mutate({
      skin: { ...skin, [key]: key === 'bumpProne' ? value === 'yes' : value },
    })
  return (
    <div className="stack">
      <label className="school">
        <span>Service wanted</span>
        <select
          value={visit.service}
          disabled={frozen}
          onChange={(e) => {
            const service = e.currentTarget.value as typeof visit.service
            changeVisit.mutate({ service })
            client.mutate({ service })
          }}
        >
          {SERVICE_IDS.map((id) => (
            <option key={id} value={id}>
              {SERVICES[id].name}
            </option>
          ))}
        </select>
      </label>
      <label className="school">
        <span>Worker</span>
        <select
          value={visit.workerId}
          disabled={frozen}
          onChange={(e) => changeVisit.mutate({ workerId: e.currentTarget.value })}
        >
          {house.workers.map((w) => (
            <option key={w.id} value={w.id}>
              {w.name}, {w.hand}-handed
            </option>
          ))}
        </select>
      </label>
      {SKIN_CHOICES.map(({ key, label, choices }) => {
        const value = key === 'bumpProne' ? (skin.bumpProne ? 'yes' : 'no') : skin[key]
        return (
          <div className="choice" key={key}>
            <span id={`skin-${key}`}>{label}</span>
            <div className="switch" role="group" aria-labelledby={`skin-${key}`}>
              {choices.map(([id, words]) => (
                <button key={id} aria-pressed={value === id} onClick={() => set(key, id)}>
                  {words}
                </button>
              ))}
            </div>
          </div>
        )
      })}
      <p className="soft">
        Reactive skin gets fewer passes; tight curl and bumps keep the blade with the grain. What
        follows each visit corrects these first words.
      </p>
      {client.isError && (
        <p role="alert" className="problem">
          {client.error.message}
        </p>
      )}
    </div>
  )
}

function Marks(props: {
  spots: readonly Spot[]
  frozen: boolean
  kind: SpotKind
  setKind: (k: SpotKind) => void
  radius: number
  setRadius: (r: number) => void
  zones: readonly ZoneId[]
  onPlace: (zone: ZoneId) => void
  onChange: (spots: readonly Spot[]) => void
}) {
  const { spots, frozen, kind, setKind, radius, setRadius, zones, onPlace, onChange } = props
  return (
    <>
      <p className="soft">Choose what it is and its size, then tap it on the head.</p>
      <div className="switch wrap" role="group" aria-label="Kind of mark">
        {SPOT_KINDS.map((k) => (
          <button key={k} aria-pressed={kind === k} disabled={frozen} onClick={() => setKind(k)}>
            {SPOT_WORDS[k]}
          </button>
        ))}
      </div>
      <label className="choice">
        <span>Radius, mm</span>
        <input
          type="range"
          min={1}
          max={30}
          value={radius}
          disabled={frozen}
          onChange={(e) => setRadius(Number(e.currentTarget.value))}
        />
        <b className="figure">{radius}</b>
      </label>
      <label className="choice">
        <span>Or here</span>
        <select
          value=""
          disabled={frozen}
          onChange={(e) => onPlace(e.currentTarget.value as ZoneId)}
        >
          <option value="" disabled>
            in the middle of a zone
          </option>
          {zones.map((z) => (
            <option key={z} value={z}>
              {zoneName(z)}
            </option>
          ))}
        </select>
      </label>
      {spots.length === 0 ? (
        <p className="soft">No marks yet.</p>
      ) : (
        <ul className="plain-list">
          {spots.map((s) => (
            <li key={s.id}>
              <span>
                {SPOT_WORDS[s.kind]}, {zoneName(s.zoneId)}, {s.radiusMm} mm
              </span>
              <button
                className="link"
                disabled={frozen}
                onClick={() => onChange(spots.filter((x) => x.id !== s.id))}
              >
                Take away
              </button>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
