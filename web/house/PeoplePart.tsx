/** People of the house: what each may do, what they sign in with, where they are signed in. */
import { focusWrong } from '../ui/focusWrong.ts'
import { Alert, Button, Group, Modal, Stack, Table, Text, TextInput, Title } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { RANK_WORDS, RANKS, type Rank } from '../../contract/rights.ts'
import type { People } from '../../contract/types.ts'
import type { ToldBody } from '../../contract/routes.ts'
import { call } from '../api/call.ts'
import { useDoor, useSession } from '../people/session.ts'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { newWorkerSchema, ownerSchema, secretChangeSchema } from '../../contract/people.ts'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'
import { named, PickOne } from '../ui/PickOne.tsx'
import { Words } from '../ui/Words.tsx'
import { newId } from '../state/words.ts'
import { SecretField } from '../ui/SecretField.tsx'

const RANK_NAMES: Readonly<Record<Rank, string>> = {
  owner: 'owner',
  worker: 'worker',
  learner: 'learner',
  'front-desk': 'front desk',
}

export function PeoplePart() {
  const session = useSession()
  return (
    <Stack gap="lg">
      {session.data?.mode === 'open' && (
        <Alert title="Nobody signs in">
          Whoever sits at this machine may see and change everything, and the trail cannot say who
          it was. Give yourself figures to begin.
        </Alert>
      )}
      {session.data?.mode === 'demo' && (
        <Text>The demo signs in by itself. Its figures stand on the lock screen.</Text>
      )}
      {session.data?.mode === 'open' ? <BeOwner /> : <OwnFigures />}
      <div>
        <Title order={3}>What each may do</Title>
        {RANKS.map((rank) => (
          <Text key={rank}>{RANK_WORDS[rank]}.</Text>
        ))}
      </div>
    </Stack>
  )
}

function BeOwner() {
  const { begin } = useDoor()
  const session = useSession()
  const form = useForm({
    initialValues: { name: '', secret: '' },
    validate: yupResolver(ownerSchema.pick(['name']).concat(secretChangeSchema.pick(['secret']))),
  })
  const be = form.onSubmit(
    (typed) =>
      begin.mutate(
        { house: session.data!.house, role: '', hand: 'right', ...typed },
        { onError: (error) => form.setFieldError('secret', error.message) },
      ),
    focusWrong(form),
  )
  return (
    <form onSubmit={be}>
      <Group align="flex-start">
        <TextInput label="Who are you?" maxLength={60} {...form.getInputProps('name')} />
        <SecretField label="Your figures" w={240} {...form.getInputProps('secret')} />
        <Button type="submit" mt={30} loading={begin.isPending}>
          Be the owner
        </Button>
      </Group>
    </form>
  )
}

function OwnFigures() {
  const { changeSecret, signOutEverywhere } = useDoor()
  const form = useForm({
    initialValues: { before: '', secret: '' },
    validate: yupResolver(secretChangeSchema),
  })
  const change = form.onSubmit(
    (typed) =>
      changeSecret.mutate(typed, {
        onSuccess: () => {
          form.reset()
          tellDone('Changed. Other screens of yours are signed out.')
        },
        onError: (error) => form.setFieldError('before', error.message),
      }),
    focusWrong(form),
  )
  return (
    <form onSubmit={change}>
      <Title order={3}>Your own figures</Title>
      <Group align="flex-start" mt="xs">
        <SecretField now label="As they are" w={200} {...form.getInputProps('before')} />
        <SecretField label="As they shall be" w={240} {...form.getInputProps('secret')} />
        <Button type="submit" mt={30} loading={changeSecret.isPending}>
          Change
        </Button>
        <Button mt={30} onClick={() => signOutEverywhere.mutate()}>
          Sign out everywhere
        </Button>
      </Group>
    </form>
  )
}

/** Everybody who may sign in: added, given figures, retired. */
export function Everybody() {
  const cache = useQueryClient()
  const people = useQuery({ queryKey: ['people'], queryFn: () => call('people') })
  const keep = {
    onSuccess: (told: People) => {
      cache.setQueryData(['people'], told)
      void cache.invalidateQueries({ queryKey: ['house'] })
      void cache.invalidateQueries({ queryKey: ['session'] })
    },
  }
  const change = useMutation({
    mutationFn: ({ id, ...body }: { id: string } & ToldBody<'changeWorker'>) =>
      call('changeWorker', { params: { id }, body }),
    ...keep,
  })
  const add = useMutation({
    mutationFn: (body: ToldBody<'addWorker'>) => call('addWorker', { body }),
    ...keep,
  })
  const [adding, setAdding] = useState(false)
  const [giving, setGiving] = useState<string | null>(null)
  const problem = people.error ?? change.error
  return (
    <div>
      <Group justify="space-between">
        <Title order={3}>Everybody</Title>
        <Button onClick={() => setAdding(true)}>Add a worker</Button>
      </Group>
      {problem && (
        <Text role="alert" c="red">
          {problem.message}
        </Text>
      )}
      <Table mt="xs" aria-label="People">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Name</Table.Th>
            <Table.Th>May</Table.Th>
            <Table.Th>Signs in</Table.Th>
            <Table.Th>
              <span className="hidden">Change</span>
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {people.data?.people.map((p) => (
            <Table.Tr key={p.id} opacity={p.gone ? 0.6 : 1}>
              <Table.Td>
                {p.name}
                <Text size="sm" c="dimmed">
                  {p.role}
                  {p.gone && ', has left'}
                </Text>
              </Table.Td>
              <Table.Td>
                <PickOne
                  aria-label={`What ${p.name} may do`}
                  w={150}
                  data={named(RANKS, (r) => RANK_NAMES[r])}
                  value={p.rank}
                  onChange={(rank) => change.mutate({ id: p.id, rank })}
                />
              </Table.Td>
              <Table.Td>
                {p.signsIn
                  ? `yes${p.sessions > 0 ? `, on ${p.sessions} ${p.sessions === 1 ? 'screen' : 'screens'}` : ''}`
                  : 'no'}
              </Table.Td>
              <Table.Td>
                <Group gap="xs" justify="flex-end">
                  <Button size="compact-sm" onClick={() => setGiving(p.id)}>
                    New figures
                  </Button>
                  {p.sessions > 0 && (
                    <Button
                      size="compact-sm"

                      onClick={() => change.mutate({ id: p.id, signOut: true })}
                    >
                      Sign out
                    </Button>
                  )}
                  <Button
                    size="compact-sm"

                    onClick={() => change.mutate({ id: p.id, gone: !p.gone })}
                  >
                    {p.gone ? 'Is back' : 'Has left'}
                  </Button>
                </Group>
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      <Modal opened={giving !== null} onClose={() => setGiving(null)} title="New figures">
        {giving !== null && (
          <NewFigures
            onGive={(secret) =>
              change.mutate({ id: giving, secret }, { onSuccess: () => setGiving(null) })
            }
            problem={change.error?.message}
          />
        )}
      </Modal>
      <Modal opened={adding} onClose={() => setAdding(false)} title="A new worker">
        {adding && (
          <NewWorker
            onAdd={(body) => add.mutate(body, { onSuccess: () => setAdding(false) })}
            problem={add.error?.message}
          />
        )}
      </Modal>
    </div>
  )
}

function NewFigures({
  onGive,
  problem,
}: {
  onGive: (secret: string) => void
  problem: string | undefined
}) {
  const form = useForm({
    initialValues: { secret: '' },
    validate: yupResolver(secretChangeSchema.pick(['secret'])),
  })
  return (
    <form onSubmit={form.onSubmit(({ secret }) => onGive(secret), focusWrong(form))}>
      <Stack gap="md">
        <SecretField
          label="Four to twelve figures, or a passphrase"
          description="They change them themselves after signing in. Where they are signed in they are signed out."
          data-autofocus
          {...form.getInputProps('secret')}
        />
        <Problem>{problem}</Problem>
        <Button type="submit">Give them</Button>
      </Stack>
    </form>
  )
}

function NewWorker({
  onAdd,
  problem,
}: {
  onAdd: (body: ToldBody<'addWorker'>) => void
  problem: string | undefined
}) {
  const [id] = useState(newId)
  const form = useForm<{
    name: string
    role: string
    hand: 'right' | 'left'
    rank: Rank
    secret: string
  }>({
    initialValues: {
      name: '',
      role: '',
      hand: 'right',
      rank: 'worker',
      secret: '',
    },
    // No figures typed are none given.
    validate: ({ name, role, secret }) =>
      yupResolver(newWorkerSchema.pick(['name', 'role', 'secret']))({
        ...{ name, role },
        ...(secret && { secret }),
      }),
  })
  return (
    <form
      noValidate
      onSubmit={form.onSubmit(
        ({ secret, ...of }) =>
          onAdd({
            id,
            ...of,
            level: of.rank === 'learner' ? 'learning' : 'practised',
            ...(secret && { secret }),
          }),
        focusWrong(form),
      )}
    >
      <Stack gap="md">
        <TextInput
          label="Name"
          required
          maxLength={60}
          data-autofocus
          {...form.getInputProps('name')}
        />
        <TextInput label="What they do" required maxLength={60} {...form.getInputProps('role')} />
        <Words
          label="Hand"
          data={[
            ['right', 'right-handed'],
            ['left', 'left-handed'],
          ]}
          value={form.values.hand}
          onChange={(hand) => form.setFieldValue('hand', hand)}
        />
        <PickOne
          label="May"
          data={named(RANKS, (r) => RANK_WORDS[r])}
          value={form.values.rank}
          onChange={(rank) => form.setFieldValue('rank', rank)}
        />
        <SecretField label="Figures" {...form.getInputProps('secret')} />
        <Problem>{problem}</Problem>
        <Button variant="strong" type="submit">
          Add
        </Button>
      </Stack>
    </form>
  )
}
