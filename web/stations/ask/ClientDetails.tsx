/** The person: name and how they like to be called; all that is kept can be taken out, or erased. */
import { Anchor, Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { CLIENT_TEXT_IDS, CLIENT_TEXTS } from '../../../core/client.ts'
import type { Client } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { useMay } from '../../people/session.ts'
import { useChangeClient, useEraseClient } from '../../api/queries.ts'
import { Problem } from '../../ui/Panel.tsx'

const FIELDS = [
  ['name', 'Name'],
  ...CLIENT_TEXT_IDS.map((field) => [field, CLIENT_TEXTS[field].title] as const),
] as const

export function ClientDetails({ client }: { client: Client }) {
  const change = useChangeClient(client.id)
  const [erasing, erase] = useDisclosure(false)
  const may = useMay()
  return (
    <Stack gap="md" py="xs">
      {FIELDS.map(([key, label]) => (
        <TextInput
          key={key}
          label={label}
          defaultValue={client[key]}
          onBlur={(e) => {
            const value = e.currentTarget.value.trim()
            if (value !== client[key]) change.mutate({ [key]: value })
          }}
        />
      ))}
      <Problem>{change.error?.message}</Problem>
      <Group justify="space-between" align="flex-start">
        {may('takeOutClient') && <TakeOut id={client.id} />}
        {may('eraseClient') && (
          <Button variant="bare" size="sm" color="coral" onClick={erase.open}>
            Erase this client
          </Button>
        )}
      </Group>
      <Modal opened={erasing} onClose={erase.close} title="Erase this client">
        {erasing && <EraseForm client={client} />}
      </Modal>
    </Stack>
  )
}

/** All that is kept, to take away; and who looked at it. */
function TakeOut({ id }: { id: string }) {
  const may = useMay()
  return (
    <Text size="sm">
      Export:{' '}
      <Anchor href={address('takeOutClient', { id })} download>
        everything (JSON)
      </Anchor>
      ,{' '}
      <Anchor href={address('readingsCsv', { id })} download>
        readings (CSV)
      </Anchor>
      ,{' '}
      <Anchor href={address('report', { id })} target="_blank" rel="noreferrer">
        report (PDF)
      </Anchor>
      ,{' '}
      <Anchor href={address('record', { id })} target="_blank" rel="noreferrer">
        everything, with who looked at it (PDF)
      </Anchor>
      .{may('trail') && <Link to={`/house/trail?client=${id}`}> Who looked at it</Link>}
    </Text>
  )
}

function EraseForm({ client }: { client: Client }) {
  const erase = useEraseClient(client.id)
  const navigate = useNavigate()
  const [typed, setTyped] = useState('')
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        erase.mutate(typed, { onSuccess: () => void navigate('/clients') })
      }}
    >
      <Stack gap="md">
        <p>
          All visits, maps and answers of {client.name} are erased. This cannot be undone. Export
          the data first if anybody may need it.
        </p>
        <TextInput
          label={`Type “${client.name}”`}
          value={typed}
          onChange={(e) => setTyped(e.currentTarget.value)}
          data-autofocus
        />
        <Problem>{erase.error?.message}</Problem>
        <Button
          type="submit"
          variant="strong"
          loading={erase.isPending}
          disabled={typed.trim() !== client.name.trim()}
        >
          Erase for good
        </Button>
      </Stack>
    </form>
  )
}
