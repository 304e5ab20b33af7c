/** Every constant with its mark and source: what counts here, its default, and the way back to it. */
import { useState } from 'react'
import { MARK_WORDS, type Constant } from '../../core/house/index.ts'
import { CONSTANT_REGISTER, FIXED_FIGURES } from '../../core/register/index.ts'
import type { HouseEdit } from '../../contract/routes.ts'

export function Figures({
  figures,
  onChange,
}: {
  figures: Readonly<Record<string, number>>
  onChange: (edit: HouseEdit) => void
}) {
  return (
    <>
      {CONSTANT_REGISTER.map((area) => {
        const own = Object.keys(area.constants).filter((k) => `${area.id}.${k}` in figures).length
        return (
          <details key={area.id} className="constants">
            <summary>
              {area.title}{' '}
              <small>
                {Object.keys(area.constants).length}
                {own > 0 && `, ${own} of the house’s own`}
              </small>
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
                  <Figure
                    key={key}
                    id={`${area.id}.${key}`}
                    constant={c}
                    value={figures[`${area.id}.${key}`]}
                    onChange={onChange}
                  />
                ))}
              </tbody>
            </table>
          </details>
        )
      })}
    </>
  )
}

function Figure({
  id,
  constant: c,
  value,
  onChange,
}: {
  id: string
  constant: Constant
  /** The house's own; undefined while the default counts. */
  value: number | undefined
  onChange: (edit: HouseEdit) => void
}) {
  const [typed, setTyped] = useState<string>()
  const now = value ?? c.byDefault
  const keep = () => {
    const next = Number(typed)
    setTyped(undefined)
    if (typed?.trim() && Number.isFinite(next) && next !== now)
      onChange({ figures: { [id]: next } })
  }
  return (
    <tr>
      <td>
        {c.text}
        {c.source && <small>{c.source}</small>}
        {value !== undefined && (
          <small>
            default {c.byDefault} {c.unit}{' '}
            <button className="link" onClick={() => onChange({ figures: { [id]: null } })}>
              back to it
            </button>
          </small>
        )}
      </td>
      <td className="num figure">
        {FIXED_FIGURES.has(id) ? (
          now
        ) : (
          <input
            className={value === undefined ? 'text-input' : 'text-input own'}
            inputMode="decimal"
            aria-label={c.text}
            value={typed ?? String(now)}
            onChange={(e) => setTyped(e.currentTarget.value)}
            onBlur={keep}
            onKeyDown={(e) => {
              if (e.key === 'Enter') e.currentTarget.blur()
              if (e.key === 'Escape') setTyped(undefined)
            }}
          />
        )}{' '}
        {c.unit}
      </td>
      <td>
        <abbr title={MARK_WORDS[c.mark]}>{c.mark}</abbr>
      </td>
    </tr>
  )
}
