/** Every constant with its mark and source: what counts here, its default, and the way back to it. */
import { Accordion, Button, Group, NumberInput, Table, Text } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import type { Constant } from '../../core/house/index.ts'
import { CONSTANT_REGISTER, FIXED_FIGURES } from '../../core/register/index.ts'
import { useUnits } from '../state/shape.ts'
import { Estimate } from '../ui/Estimate.tsx'
import css from './House.module.css'
import type { HouseEdit } from '../../contract/routes.ts'

export function Figures({
  figures,
  onChange,
}: {
  figures: Readonly<Record<string, number>>
  onChange: (edit: HouseEdit) => void
}) {
  // An estimate's own "change" leads to its constant.
  const at = useSearchParams()[0].get('at') ?? ''
  const row = useRef<HTMLTableRowElement>(null)
  useEffect(() => row.current?.scrollIntoView({ block: 'center' }), [at])
  return (
    <Accordion multiple defaultValue={at ? [at.split('.')[0]!] : []} keepMounted={false}>
      {CONSTANT_REGISTER.map((area) => {
        const own = Object.keys(area.constants).filter((k) => `${area.id}.${k}` in figures).length
        return (
          <Accordion.Item key={area.id} value={area.id}>
            <Accordion.Control>
              {area.title}{' '}
              <Text span size="sm" c="dimmed">
                {Object.keys(area.constants).length}
                {own > 0 && `, ${own} of the house’s own`}
              </Text>
            </Accordion.Control>
            <Accordion.Panel>
              <Table aria-label={area.title}>
                <Table.Tbody>
                  {Object.entries(area.constants).map(([key, c]) => {
                    const id = `${area.id}.${key}`
                    return (
                      <Table.Tr
                        key={key}
                        ref={id === at ? row : null}
                        className={id === at ? css.at! : ''}
                      >
                        <Figure id={id} constant={c} value={figures[id]} onChange={onChange} />
                      </Table.Tr>
                    )
                  })}
                </Table.Tbody>
              </Table>
            </Accordion.Panel>
          </Accordion.Item>
        )
      })}
    </Accordion>
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
  const { unit } = useUnits()
  const now = value ?? c.byDefault
  const [typed, setTyped] = useState<number | string>(now)
  useEffect(() => setTyped(now), [now])
  const keep = () => {
    const next = Number(typed)
    if (typed === '' || !Number.isFinite(next)) setTyped(now)
    else if (next !== now) {
      onChange({ figures: { [id]: next } })
      // What is refused stays as it was.
      setTyped(now)
    }
  }
  return (
    <>
      <Table.Td py={6}>
        {c.text}
        {c.source && <small>{c.source}</small>}
        {value !== undefined && (
          <small>
            default {c.byDefault} {unit(c.unit)}{' '}
            <Button
              variant="bare"
              size="compact-sm"
              onClick={() => onChange({ figures: { [id]: null } })}
            >
              back to it
            </Button>
          </small>
        )}
      </Table.Td>
      <Table.Td data-num w={190}>
        <Group gap={6} justify="flex-end" wrap="nowrap">
          {FIXED_FIGURES.has(id) ? (
            now
          ) : (
            <NumberInput
              size="sm"
              w={96}
              className={value === undefined ? '' : css.own!}
              aria-label={c.text}
              value={typed}
              onChange={setTyped}
              onBlur={keep}
              onKeyDown={(e) => {
                if (e.key === 'Enter') e.currentTarget.blur()
                if (e.key === 'Escape') setTyped(now)
              }}
            />
          )}
          <span>{unit(c.unit)}</span>
        </Group>
      </Table.Td>
      <Table.Td data-num w={40}>
        <Estimate mark={c.mark} />
      </Table.Td>
    </>
  )
}
