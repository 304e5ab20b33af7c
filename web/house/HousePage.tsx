/** The house: who works here, which schools it follows, and every constant with its mark and source. */
import { MARK_WORDS } from '../../core/house/constants.ts'
import { CONSTANT_REGISTER } from '../../core/house/register.ts'
import { SCHOOL_IDS, SCHOOLS } from '../../core/house/schools.ts'
import { CLOSING_SENTENCE } from '../../core/screening/screen.ts'
import { useChangeHouse, useHouse } from '../api/queries.ts'

export function HousePage() {
  const house = useHouse()
  const change = useChangeHouse()
  return (
    <main className="page house">
      <div className="page-head">
        <h1>{house.data?.name ?? 'House'}</h1>
        <p>
          {house.data?.workers.map((w) => `${w.name}, ${w.role}, ${w.hand}-handed`).join(' · ')}
        </p>
      </div>
      {house.isPending && <p role="status">Opening the house …</p>}
      {(house.isError || change.isError) && (
        <p role="alert" className="problem">
          {(house.error ?? change.error)?.message}
        </p>
      )}
      <div className="house-columns">
        <section aria-labelledby="schools">
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
