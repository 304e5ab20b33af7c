/** Backups of the house: when the last was made and last restored for trial, where they lie, and a button for each. */
import { Alert, Button, Group, Progress, Stack, Table, Text, TextInput, Title } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import * as y from 'yup'
import { safetyChangeSchema } from '../../contract/safety.ts'
import type { Safety } from '../../contract/types.ts'
import type { ToldBody } from '../../contract/routes.ts'
import { whenWords } from '../../core/time/index.ts'
import { Figure, Figures } from '../ui/Figures.tsx'
import { call } from '../api/call.ts'
import { SecretField } from '../ui/SecretField.tsx'

const WHY: Readonly<Record<Safety['backups'][number]['why'], string>> = {
  nightly: 'at night',
  asked: 'asked for',
  'before-fresh': 'before the demo began anew',
  'before-step': 'before the data changed its shape',
}
const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`

function useSafety() {
  const cache = useQueryClient()
  const safety = useQuery({
    queryKey: ['safety'],
    queryFn: () => call('safety'),
    refetchInterval: (q) => (q.state.data?.working ? 400 : 30_000),
  })
  const keep = {
    onSuccess: (told: Safety) => {
      cache.setQueryData(['safety'], told)
      void cache.invalidateQueries({ queryKey: ['today'] })
    },
  }
  return {
    safety,
    backUp: useMutation({ mutationFn: () => call('backUp', { body: {} }), ...keep }),
    prove: useMutation({ mutationFn: () => call('prove', { body: {} }), ...keep }),
    stop: useMutation({ mutationFn: () => call('stopSafety'), ...keep }),
    change: useMutation({
      mutationFn: (body: ToldBody<'changeSafety'>) => call('changeSafety', { body }),
      ...keep,
    }),
  }
}

export function SafetyPart() {
  const { safety, backUp, prove, stop, change } = useSafety()
  const problem = [safety, backUp, prove, stop, change].find((q) => q.isError)?.error
  const told = safety.data
  if (!told) return problem ? <p role="alert">{problem.message}</p> : <p role="status">Looking …</p>
  const [last] = told.backups
  return (
    <Stack gap="lg" mt="sm">
      {problem && (
        <Alert c="var(--coral)" role="alert">
          {problem.message}
        </Alert>
      )}
      {told.failure && (
        <Alert
          c="var(--coral)"
          role="alert"
          title={`${told.failure.what === 'backup' ? 'No backup was made' : 'The backup did not restore'}, ${whenWords(told.failure.atMs)}`}
        >
          {told.failure.problem}
        </Alert>
      )}
      <Figures label="Backups">
        <Figure name="Last backup">
          {last ? whenWords(last.madeAtMs) : 'none yet'}
          <Text c="dimmed" size="sm" ff="text" fw={400}>
            {last
              ? `${last.clients} clients, ${last.visits} visits, ${size(last.bytes)}`
              : `the first comes ${whenWords(told.nextAtMs)}`}
          </Text>
        </Figure>
        <Figure name="Last restored for trial">
          {told.provenAtMs === null ? 'not yet' : whenWords(told.provenAtMs)}
          <Text c="dimmed" size="sm" ff="text" fw={400}>
            every week, into a folder of its own, compared and taken away
          </Text>
        </Figure>
      </Figures>
      {told.working ? (
        <div role="status" aria-live="polite">
          <Group justify="space-between">
            <Text>{told.working.part} …</Text>
            <Button onClick={() => stop.mutate()}>Stop</Button>
          </Group>
          <Progress value={told.working.done * 100} mt="xs" aria-label="How far it is" />
        </div>
      ) : (
        <Group>
          <Button onClick={() => backUp.mutate()} loading={backUp.isPending}>
            Back up now
          </Button>
          <Button disabled={!last} onClick={() => prove.mutate()} loading={prove.isPending}>
            Restore the newest for trial
          </Button>
        </Group>
      )}
      <Places
        told={told}
        change={(body, onRefused) =>
          change.mutate(body, { onError: (error) => onRefused?.(error.message) })
        }
      />
      <div>
        <Title order={3}>Backups</Title>
        <Text c="dimmed" size="sm">
          The newest of each of 7 days, 4 weeks and 12 months. To take one: stop Slow Tide, then{' '}
          <code>npm run restore -- FILE</code>. Whoever was erased since stays erased.
        </Text>
        {told.backups.length === 0 ? (
          <Text mt="sm">There is none yet.</Text>
        ) : (
          <Table mt="sm" aria-label="Backups">
            <Table.Thead>
              <Table.Tr>
                <Table.Th>Made</Table.Th>
                <Table.Th>Why</Table.Th>
                <Table.Th>Holds</Table.Th>
                <Table.Th>Size</Table.Th>
                <Table.Th>Restored for trial</Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {told.backups.map((b) => (
                <Table.Tr key={b.name}>
                  <Table.Td>{whenWords(b.madeAtMs)}</Table.Td>
                  <Table.Td>{WHY[b.why]}</Table.Td>
                  <Table.Td>
                    {b.clients} clients, {b.visits} visits
                  </Table.Td>
                  <Table.Td>{size(b.bytes)}</Table.Td>
                  <Table.Td>
                    {b.problem ??
                      (b.provenAtMs === null ? 'no' : `yes, ${whenWords(b.provenAtMs)}`)}
                    {b.onSecond && ' · on the second disk too'}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        )}
      </div>
    </Stack>
  )
}

function Places({
  told,
  change,
}: {
  told: Safety
  change: (body: ToldBody<'changeSafety'>, onRefused?: (why: string) => void) => void
}) {
  const form = useForm({
    initialValues: { folder: told.folder, second: told.second ?? '' },
    validate: yupResolver(safetyChangeSchema.pick(['folder', 'second'])),
  })
  const lock = useForm({
    initialValues: { passphrase: '' },
    validate: yupResolver(
      y.object({ passphrase: y.string().min(8, 'At least 8 characters.').required('Type one.') }),
    ),
  })
  /** Kept when the field is left. */
  const keep = (field: 'folder' | 'second') => () => {
    const value = form.values[field].trim()
    if (form.validateField(field).hasError || value === (told[field] ?? '')) return
    change({ [field]: value || null }, (why) => form.setFieldError(field, why))
  }
  return (
    <Stack gap="sm" maw={620}>
      <Title order={3}>Where they lie</Title>
      {told.sameDisk && (
        <Text>
          Every copy lies on the disk of the data: if that disk goes, all of it goes. Name a folder
          on another disk.
        </Text>
      )}
      <TextInput
        label="Folder"
        description="Beside the data unless you name another."
        maxLength={400}
        {...form.getInputProps('folder')}
        onBlur={keep('folder')}
      />
      <TextInput
        label="Second copy on another disk"
        description={
          told.otherDisks.length > 0
            ? `Other disks here: ${told.otherDisks.join(', ')}`
            : 'No other disk is there just now.'
        }
        maxLength={400}
        {...form.getInputProps('second')}
        onBlur={keep('second')}
      />
      <form
        onSubmit={lock.onSubmit((typed) => {
          change(typed, (why) => lock.setFieldError('passphrase', why))
          lock.reset()
        })}
      >
        <Group align="flex-end">
          <SecretField
            style={{ flex: 1 }}
            label={told.locked ? 'New passphrase' : 'Passphrase'}
            description={
              told.locked
                ? 'Backups are locked. Without the passphrase they cannot be taken back: keep it on paper, elsewhere.'
                : 'Not locked: whoever has a backup can read it. With a passphrase of 8 characters or more it is locked by age.'
            }
            {...lock.getInputProps('passphrase')}
          />
          <Button type="submit">Lock</Button>
          {told.locked && (
            <Button onClick={() => change({ passphrase: null })}>Lock no more</Button>
          )}
        </Group>
      </form>
    </Stack>
  )
}
