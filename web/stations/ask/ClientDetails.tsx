/** The person: name and how they like to be called; all that is kept can be taken out, or erased. */
import { Button, Modal, TextInput } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { CLIENT_TEXT_IDS, CLIENT_TEXTS } from '../../../core/client.ts'
import type { Client } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { useMay } from '../../people/session.ts'
import { useChangeClient, useEraseClient } from '../../api/queries.ts'

const FIELDS = [
  ['name', 'Name'],
  ...CLIENT_TEXT_IDS.map((field) => [field, CLIENT_TEXTS[field].title] as const),
] as const

export function ClientDetails({ client }: { client: Client }) {
  const change = useChangeClient(client.id)
  const [erasing, erase] = useDisclosure(false)
  const may = useMay()
  return (
    <div className="stack">
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
      {change.isError && (
        <p role="alert" className="problem">
          {change.error.message}
        </p>
      )}
      <div className="row-between">
        {may('takeOutClient') && <TakeOut id={client.id} />}
        {may('eraseClient') && (
          <Button variant="bare" size="sm" color="coral" onClick={erase.open}>
            Erase this client
          </Button>
        )}
      </div>
      <Modal opened={erasing} onClose={erase.close} title="Erase this client">
        {erasing && <EraseForm client={client} />}
      </Modal>
    </div>
  )
}

/** All that is kept, to take away; and who looked at it. */
function TakeOut({ id }: { id: string }) {
  const may = useMay()
  return (
    <span>
      Take out:{' '}
      <a className="link" href={address('takeOutClient', { id })} download>
        everything (JSON)
      </a>
      ,{' '}
      <a className="link" href={address('readingsCsv', { id })} download>
        readings (CSV)
      </a>
      ,{' '}
      <a className="link" href={address('report', { id })} target="_blank" rel="noreferrer">
        report (PDF)
      </a>
      ,{' '}
      <a className="link" href={address('record', { id })} target="_blank" rel="noreferrer">
        everything, with who looked at it (PDF)
      </a>
      .{may('trail') && <Link to={`/house?part=trail&client=${id}`}> Who looked at it</Link>}
    </span>
  )
}

function EraseForm({ client }: { client: Client }) {
  const erase = useEraseClient(client.id)
  const navigate = useNavigate()
  const [typed, setTyped] = useState('')
  return (
    <form
      className="stack"
      onSubmit={(e) => {
        e.preventDefault()
        erase.mutate(typed, { onSuccess: () => void navigate('/clients') })
      }}
    >
      <p>
        All visits, maps and answers of {client.name} are erased. This cannot be undone. Take the
        data out first if anybody may need it.
      </p>
      <TextInput
        label={`Type “${client.name}”`}
        value={typed}
        onChange={(e) => setTyped(e.currentTarget.value)}
        data-autofocus
      />
      {erase.isError && (
        <p role="alert" className="problem">
          {erase.error.message}
        </p>
      )}
      <Button type="submit" disabled={typed.trim() !== client.name.trim() || erase.isPending}>
        Erase for good
      </Button>
    </form>
  )
}
