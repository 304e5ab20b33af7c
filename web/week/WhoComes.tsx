/** A client, found by a part of the name. */
import { Select } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useState } from 'react'
import type { ServiceId } from '../../core/services/index.ts'
import { useClients } from '../api/clientRows.ts'

interface Named {
  readonly id: string
  readonly name: string
}
export type Known = Named & { readonly service: ServiceId }

export function WhoComes({
  client,
  onChange,
}: {
  client: Named | undefined
  onChange: (c: Known | undefined) => void
}) {
  const [words, setWords] = useState(client?.name ?? '')
  const [asked] = useDebouncedValue(words, 120)
  const found = useClients({
    find: asked === client?.name ? '' : asked,
    sort: 'name',
    which: 'all',
  })
  const rows = found.data?.rows ?? []
  const data = rows.slice(0, 8).map((r) => ({ value: r.id, label: r.name }))
  if (client && !data.some((d) => d.value === client.id))
    data.unshift({ value: client.id, label: client.name })
  return (
    <Select
      label="Who comes"
      data-autofocus
      searchable
      required
      placeholder="a part of the name"
      data={data}
      value={client?.id ?? null}
      searchValue={words}
      onSearchChange={setWords}
      selectFirstOptionOnChange
      nothingFoundMessage={found.isPending ? 'Looking …' : 'Nobody of that name'}
      onChange={(id) => {
        const row = rows.find((r) => r.id === id)
        if (row) onChange({ id: row.id, name: row.name, service: row.service })
        else if (id === null) onChange(undefined)
      }}
    />
  )
}
