/** The person: name and how they like to be called; all that is kept can be exported, or erased. */
import { Anchor, Button, Group, Modal, SimpleGrid, Stack, Text, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { useDisclosure } from '@mantine/hooks'
import { yupResolver } from 'mantine-form-yup-resolver'
import { Link, useNavigate } from 'react-router'
import { clientChangeSchema } from '../../../contract/schemas.ts'
import type { Client } from '../../../contract/types.ts'
import { CLIENT_TEXTS, eachText, type ClientText } from '../../../core/client.ts'
import { ageOn } from '../../../core/screening/index.ts'
import { address } from '../../api/call.ts'
import { drawPaper, type Paper } from '../../api/papers.ts'
import { useChangeClient, useEraseClient } from '../../api/queries.ts'
import { useMay } from '../../people/session.ts'
import { todayIso } from '../../state/words.ts'
import { DateField } from '../../ui/DateField.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { useLeaveAsks } from '../../ui/useLeaveAsks.ts'

/** Texts that are typed in a line of their own; the day of birth is chosen. */
const LINES = Object.entries(CLIENT_TEXTS).filter(([id]) => id !== 'bornOn') as [
  ClientText,
  { title: string; most: number },
][]
type Field = 'name' | ClientText

/** Each field is kept when it is left, if it may be kept so; what may not stays typed, with why. */
export function ClientDetails({ client }: { client: Client }) {
  const change = useChangeClient(client.id)
  const form = useForm<Record<Field, string>>({
    initialValues: { name: client.name, ...eachText((id) => client[id]) },
    validate: yupResolver(clientChangeSchema),
  })
  useLeaveAsks(Object.keys(form.errors).length > 0)
  const keep = (field: Field, typed: string) => {
    const value = typed.trim()
    if (form.validateField(field).hasError || value === client[field]) return
    change.mutate(
      { [field]: value },
      { onError: (error) => form.setFieldError(field, error.message) },
    )
  }
  const line = (field: Field, label: string, most: number) => (
    <TextInput
      key={field}
      label={label}
      maxLength={most}
      {...form.getInputProps(field)}
      onBlur={(e) => keep(field, e.currentTarget.value)}
    />
  )
  const age = ageOn(client.bornOn, todayIso())
  return (
    <Stack gap="md" py="xs">
      <SimpleGrid cols={{ base: 1, sm: 2 }} verticalSpacing="xs">
        {line('name', 'Name', 80)}
        <DateField
          label={CLIENT_TEXTS.bornOn.title}
          description={
            age === undefined ? 'For whom is under age a guardian signs' : `${age} years`
          }
          defaultLevel="decade"
          inputWrapperOrder={['label', 'input', 'description', 'error']}
          minDate="1900-01-01"
          maxDate={todayIso()}
          clearable
          value={form.values.bornOn || undefined}
          error={form.errors['bornOn']}
          onChange={(day) => {
            form.setFieldValue('bornOn', day ?? '')
            if ((day ?? '') !== client.bornOn) change.mutate({ bornOn: day ?? '' })
          }}
        />
        {LINES.map(([id, { title, most }]) => line(id, title, most))}
      </SimpleGrid>
      <Export client={client} />
    </Stack>
  )
}

/** What can be had of all that is kept, and the way to have it erased. */
function Export({ client }: { client: Client }) {
  const [erasing, erase] = useDisclosure(false)
  const may = useMay()
  return (
    <Group justify="space-between" align="center">
      {may('takeOutClient') && <TakeOut client={client} />}
      {may('eraseClient') && (
        <Button variant="bare" size="sm" color="coral" onClick={erase.open}>
          Erase this client
        </Button>
      )}
      <Modal opened={erasing} onClose={erase.close} title="Erase this client">
        {erasing && <EraseForm client={client} />}
      </Modal>
    </Group>
  )
}

/** All that is kept, to take away; and who looked at it. */
function TakeOut({ client: { id, name } }: { client: Client }) {
  const may = useMay()
  const paper = (of: Paper, words: string) => (
    <Anchor
      href={address(of, { id })}
      onClick={(e) => {
        // In a new tab where that is asked for; else told how far it is.
        if (e.ctrlKey || e.metaKey || e.shiftKey) return
        e.preventDefault()
        void drawPaper(of, { id }, name)
      }}
    >
      {words}
    </Anchor>
  )
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
      , {paper('report', 'report (PDF)')},{' '}
      {paper('record', 'everything, with who looked at it (PDF)')}.
      {may('trail') && <Link to={`/house/trail?client=${id}`}> Who looked at it</Link>}
    </Text>
  )
}

function EraseForm({ client }: { client: Client }) {
  const erase = useEraseClient(client.id)
  const navigate = useNavigate()
  const form = useForm({
    initialValues: { confirmName: '' },
    validate: {
      confirmName: (typed) =>
        typed.trim() === client.name.trim() ? null : `That is not “${client.name}”.`,
    },
  })
  return (
    <form
      onSubmit={form.onSubmit(({ confirmName }) =>
        erase.mutate(confirmName, { onSuccess: () => void navigate('/clients') }),
      )}
    >
      <Stack gap="md">
        <Text>
          All visits, maps and answers of {client.name} are erased. This cannot be undone. Export
          the data first if anybody may need it.
        </Text>
        <TextInput
          label={`Type “${client.name}”`}
          data-autofocus
          {...form.getInputProps('confirmName')}
        />
        <Problem>{erase.error?.message}</Problem>
        <Button
          type="submit"
          variant="strong"
          loading={erase.isPending}
          disabled={form.values.confirmName.trim() !== client.name.trim()}
        >
          Erase for good
        </Button>
      </Stack>
    </form>
  )
}
