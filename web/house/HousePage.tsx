/** The house: who works here, which schools it follows, and every constant with its mark and source. */
import type { House } from '../../contract/types.ts'
import { MARK_WORDS } from '../../core/house/constants.ts'
import { CONSTANT_REGISTER } from '../../core/house/register.ts'
import { SCHOOL_IDS, SCHOOLS } from '../../core/house/schools.ts'
import { CLOSING_SENTENCE } from '../../core/screening/screen.ts'
import { useChangeHouse, useHouse } from '../api/queries.ts'

function Worker({
  worker,
  onChange,
}: {
  worker: House['workers'][number]
  onChange: (w: House['workers'][number]) => void
}) {
  const keep = (change: Partial<typeof worker>) => {
    const next = { ...worker, ...change }
    // A name is never lost to an empty field: it stays as it was.
    if (next.name.trim() && next.role.trim()) onChange(next)
  }
  return (
    <div className="worker-row">
      <input
        className="text-input"
        aria-label="Name"
        defaultValue={worker.name}
        maxLength={60}
        onBlur={(e) =>
          e.currentTarget.value.trim() !== worker.name &&
          keep({ name: e.currentTarget.value.trim() })
        }
      />
      <input
        className="text-input"
        aria-label={`What ${worker.name} does`}
        defaultValue={worker.role}
        maxLength={60}
        onBlur={(e) =>
          e.currentTarget.value.trim() !== worker.role &&
          keep({ role: e.currentTarget.value.trim() })
        }
      />
      <div className="switch" role="group" aria-label={`Hand of ${worker.name}`}>
        {(['right', 'left'] as const).map((hand) => (
          <button key={hand} aria-pressed={worker.hand === hand} onClick={() => keep({ hand })}>
            {hand}-handed
          </button>
        ))}
      </div>
    </div>
  )
}

export function HousePage() {
  const house = useHouse()
  const change = useChangeHouse()
  return (
    <main className="page house">
      <div className="page-head">
        <h1>{house.data?.name ?? 'House'}</h1>
        <p>who works here, by which schools, with which constants</p>
      </div>
      {house.isPending && <p role="status">Opening the house …</p>}
      {(house.isError || change.isError) && (
        <p role="alert" className="problem">
          {(house.error ?? change.error)?.message}
        </p>
      )}
      <div className="house-columns">
        <section aria-labelledby="schools">
          <h2>Workers</h2>
          <p className="soft">
            Plans take the stance, the free hand and the turn of the head from the hand.
          </p>
          {house.data?.workers.map((w) => (
            <Worker key={w.id} worker={w} onChange={(worker) => change.mutate({ worker })} />
          ))}
          <h2 id="schools">Schools</h2>
          <p className="soft">
            Where practitioners disagree. New plans and aftercare follow these; plans already kept
            do not change.
          </p>
          {house.data &&
            SCHOOL_IDS.map((id) => (
              <label key={id} className="school">
                <span>{SCHOOLS[id].question}</span>
                <select
                  value={house.data.schools[id]}
                  onChange={(e) => change.mutate({ schools: { [id]: e.currentTarget.value } })}
                >
                  {SCHOOLS[id].choices.map((c, i) => (
                    <option key={c.id} value={c.id}>
                      {c.text}
                      {i === 0 ? ' (default)' : ''}
                    </option>
                  ))}
                </select>
              </label>
            ))}
        </section>
        <section aria-labelledby="constants">
          <h2 id="constants">Every constant</h2>
          <p className="soft">
            P published · C common practice · H house estimate. Editing them comes later.{' '}
            {CLOSING_SENTENCE}
          </p>
          {CONSTANT_REGISTER.map((area) => (
            <details key={area.id} className="constants">
              <summary>
                {area.title} <small>{Object.keys(area.constants).length}</small>
              </summary>
              <table className="list tight">
                <thead className="hidden">
                  <tr>
                    <th scope="col">What</th>
                    <th scope="col">Value</th>
                    <th scope="col">Mark</th>
                  </tr>
                </thead>
                <tbody>
                  {Object.entries(area.constants).map(([key, c]) => (
                    <tr key={key}>
                      <td>
                        {c.text}
                        {c.source && <small>{c.source}</small>}
                      </td>
                      <td className="num">
                        {c.value} {c.unit}
                      </td>
                      <td>
                        <abbr title={MARK_WORDS[c.mark]}>{c.mark}</abbr>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </details>
          ))}
        </section>
      </div>
    </main>
  )
}
