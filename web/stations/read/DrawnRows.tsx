/** What was drawn on the head, in rows: chosen by a tap, measured, taken away. */
import { Button, Text } from '@mantine/core'
import type { ReactNode } from 'react'
import { RowButton } from '../../ui/RowButton.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'

export function DrawnRows<D extends { readonly id: string }>({
  label,
  drawn,
  picked,
  frozen,
  size,
  name,
  onPick,
  onRemove,
}: {
  label: string
  drawn: readonly D[]
  picked: string | undefined
  frozen: boolean
  /** How large it is, or what it lacks. */
  size: (d: D) => ReactNode
  name: (d: D) => ReactNode
  onPick: (d: D) => void
  onRemove: (id: string) => void
}) {
  return (
    <Rows label={label}>
      {drawn.map((d) => (
        <Row
          key={d.id}
          chosen={d.id === picked}
          acts={
            <>
              <Text size="sm" c="dimmed">
                {size(d)}
              </Text>
              <Button variant="bare" size="sm" disabled={frozen} onClick={() => onRemove(d.id)}>
                Take away
              </Button>
            </>
          }
        >
          <RowButton aria-pressed={d.id === picked} onClick={() => onPick(d)}>
            {name(d)}
          </RowButton>
        </Row>
      ))}
    </Rows>
  )
}
