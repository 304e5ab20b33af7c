/** Service, worker, skin and hair. */
import { newId } from '../../state/words.ts'
import { oneJob, SERVICE_IDS, SERVICES } from '../../../core/services/index.ts'
import type { SkinAndHair } from '../../../core/client.ts'
import { SCHOOLS, schoolWords } from '../../../core/house/index.ts'
import { useChangeClient } from '../../api/queries.ts'
import { useChangeVisit } from '../../api/visitWrites.ts'
import type { StationProps } from '../useStation.ts'

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

export function Skin({ page, visit, house, frozen }: StationProps & { frozen: boolean }) {
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
            changeVisit.mutate({ jobs: [oneJob(visit.jobs[0]?.id ?? newId(), service)] })
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
      <OwnSchools
        client={page.client}
        house={house}
        onChange={(schools) => client.mutate({ schools })}
      />
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

/** Schools that may differ for one client. */
const OWN = [
  'beardPasses',
  'bumpProneShave',
  'fuzzDirection',
  'fuzzSlip',
  'faceOrder',
  'neckStretch',
] as const

function OwnSchools({
  client,
  house,
  onChange,
}: {
  client: StationProps['page']['client']
  house: StationProps['house']
  onChange: (schools: StationProps['page']['client']['schools']) => void
}) {
  const own = Object.keys(client.schools).length
  return (
    <details className="own-schools">
      <summary>
        Schools for this client <small>{own === 0 ? 'as the house' : `${own} of their own`}</small>
      </summary>
      {OWN.map((id) => (
        <label key={id} className="school">
          <span>{SCHOOLS[id].question}</span>
          <select
            value={client.schools[id] ?? ''}
            onChange={(e) => {
              const { [id]: _was, ...rest } = client.schools
              onChange(
                e.currentTarget.value === '' ? rest : { ...rest, [id]: e.currentTarget.value },
              )
            }}
          >
            <option value="">as the house: {schoolWords(id, house.schools[id])}</option>
            {SCHOOLS[id].choices.map((c) => (
              <option key={c.id} value={c.id}>
                {c.text}
              </option>
            ))}
          </select>
        </label>
      ))}
    </details>
  )
}
