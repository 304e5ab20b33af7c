/** Every constant with its mark and source: what counts here, its default, and the way back to it. */
import { Button, Table } from '@mantine/core'
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
            <Table>
              <Table.Thead className="hidden">
                <Table.Tr>
                  <Table.Th scope="col">What</Table.Th>
                  <Table.Th scope="col">Value</Table.Th>
                  <Table.Th scope="col">Mark</Table.Th>
                </Table.Tr>
              </Table.Thead>
              <Table.Tbody>
                {Object.entries(area.constants).map(([key, c]) => (
                  <Figure
                    key={key}
                    id={`${area.id}.${key}`}
                    constant={c}
                    value={figures[`${area.id}.${key}`]}
                    onChange={onChange}
                  />
                ))}
              </Table.Tbody>
            </Table>
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
    <Table.Tr>
      <Table.Td>
        {c.text}
        {c.source && <small>{c.source}</small>}
        {value !== undefined && (
          <small>
            default {c.byDefault} {c.unit}{' '}
            <Button variant="bare" size="sm" onClick={() => onChange({ figures: { [id]: null } })}>
              back to it
            </Button>
          </small>
        )}
      </Table.Td>
      <Table.Td data-num className="figure">
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
      </Table.Td>
      <Table.Td>
        <abbr title={MARK_WORDS[c.mark]}>{c.mark}</abbr>
      </Table.Td>
    </Table.Tr>
  )
}
