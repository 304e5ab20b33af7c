/** People of the house: what each may do, what they sign in with, where they are signed in. */
import {
  Alert,
  Button,
  Group,
  Modal,
  NativeSelect,
  PasswordInput,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { RANK_WORDS, RANKS, type Rank } from '../../contract/rights.ts'
import type { People } from '../../contract/types.ts'
import type { ToldBody } from '../../contract/routes.ts'
import { call } from '../api/call.ts'
import { useDoor, useMay, useSession } from '../people/session.ts'
import { newId } from '../state/words.ts'

const RANK_NAMES: Readonly<Record<Rank, string>> = {
  owner: 'owner',
  worker: 'worker',
  learner: 'learner',
  'front-desk': 'front desk',
}

export function PeoplePart() {
  const session = useSession()
  const may = useMay()
  return (
    <Stack gap="lg">
      {session.data?.mode === 'open' && (
        <Alert color="yellow" title="Nobody signs in">
          Whoever sits at this machine may see and change everything, and the trail cannot say who
          it was. Give yourself figures to begin.
        </Alert>
      )}
      {session.data?.mode === 'demo' && (
        <Text>The demo signs in by itself. Its figures stand on the lock screen.</Text>
      )}
      {session.data?.mode === 'open' ? <BeOwner /> : <OwnFigures />}
      {may('people') && <All />}
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
  const [name, setName] = useState('')
  const [secret, setSecret] = useState('')
  return (
    <Group align="flex-end">
      <TextInput
        label="Who are you?"
        value={name}
        maxLength={60}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <PasswordInput
        label="Your figures"
        w={200}
        value={secret}
        maxLength={200}
        autoComplete="new-password"
        onChange={(e) => setSecret(e.currentTarget.value)}
      />
      <Button
        disabled={!name.trim() || secret.length < 4}
        loading={begin.isPending}
        onClick={() =>
          begin.mutate({ house: session.data!.house, name, role: '', hand: 'right', secret })
        }
      >
        Be the owner
      </Button>
      {begin.isError && (
        <Text role="alert" c="red">
          {begin.error.message}
        </Text>
      )}
    </Group>
  )
}

function OwnFigures() {
  const { changeSecret, signOutEverywhere } = useDoor()
  const [before, setBefore] = useState('')
  const [secret, setSecret] = useState('')
  return (
    <div>
      <Title order={3}>Your own figures</Title>
      <Group align="flex-end" mt="xs">
        <PasswordInput
          label="As they are"
          w={180}
          value={before}
          maxLength={200}
          autoComplete="current-password"
          onChange={(e) => setBefore(e.currentTarget.value)}
        />
        <PasswordInput
          label="As they shall be"
          w={180}
          value={secret}
          maxLength={200}
          autoComplete="new-password"
          onChange={(e) => setSecret(e.currentTarget.value)}
        />
        <Button
          variant="default"
          disabled={secret.length < 4}
          loading={changeSecret.isPending}
          onClick={() =>
            changeSecret.mutate(
              { before, secret },
              {
                onSuccess: () => {
                  setBefore('')
                  setSecret('')
                },
              },
            )
          }
        >
          Change
        </Button>
        <Button variant="default" onClick={() => signOutEverywhere.mutate()}>
          Sign out everywhere
        </Button>
      </Group>
      {changeSecret.isError && (
        <Text role="alert" c="red">
          {changeSecret.error.message}
        </Text>
      )}
      {changeSecret.isSuccess && (
        <Text role="status">Changed. Other screens of yours are signed out.</Text>
      )}
    </div>
  )
}

function All() {
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
        <Button variant="default" onClick={() => setAdding(true)}>
          Add a worker
        </Button>
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
                <NativeSelect
                  aria-label={`What ${p.name} may do`}
                  value={p.rank}
                  data={RANKS.map((r) => ({ value: r, label: RANK_NAMES[r] }))}
                  onChange={(e) => change.mutate({ id: p.id, rank: e.currentTarget.value as Rank })}
                />
              </Table.Td>
              <Table.Td>
                {p.signsIn
                  ? `yes${p.sessions > 0 ? `, on ${p.sessions} ${p.sessions === 1 ? 'screen' : 'screens'}` : ''}`
                  : 'no'}
              </Table.Td>
              <Table.Td>
                <Group gap="xs" justify="flex-end">
                  <Button size="compact-sm" variant="default" onClick={() => setGiving(p.id)}>
                    New figures
                  </Button>
                  {p.sessions > 0 && (
                    <Button
                      size="compact-sm"
                      variant="default"
                      onClick={() => change.mutate({ id: p.id, signOut: true })}
                    >
                      Sign out
                    </Button>
                  )}
                  <Button
                    size="compact-sm"
                    variant="default"
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
  const [secret, setSecret] = useState('')
  return (
    <form
      className="stack"
      onSubmit={(e) => {
        e.preventDefault()
        onGive(secret)
      }}
    >
      <PasswordInput
        label="Four to twelve figures, or a passphrase"
        description="They change them themselves after signing in. Where they are signed in they are signed out."
        value={secret}
        maxLength={200}
        autoComplete="new-password"
        error={problem}
        data-autofocus
        onChange={(e) => setSecret(e.currentTarget.value)}
      />
      <Button type="submit" disabled={secret.length < 4}>
        Give them
      </Button>
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
  const [name, setName] = useState('')
  const [role, setRole] = useState('')
  const [hand, setHand] = useState<'right' | 'left'>('right')
  const [rank, setRank] = useState<Rank>('worker')
  const [secret, setSecret] = useState('')
  return (
    <form
      className="stack"
      onSubmit={(e) => {
        e.preventDefault()
        onAdd({
          id,
          name,
          role,
          hand,
          rank,
          level: rank === 'learner' ? 'learning' : 'practised',
          ...(secret && { secret }),
        })
      }}
    >
      <TextInput
        label="Name"
        required
        value={name}
        maxLength={60}
        data-autofocus
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <TextInput
        label="What they do"
        required
        value={role}
        maxLength={60}
        onChange={(e) => setRole(e.currentTarget.value)}
      />
      <NativeSelect
        label="Hand"
        value={hand}
        data={['right', 'left']}
        onChange={(e) => setHand(e.currentTarget.value as 'right' | 'left')}
      />
      <NativeSelect
        label="May"
        value={rank}
        data={RANKS.map((r) => ({ value: r, label: RANK_WORDS[r] }))}
        onChange={(e) => setRank(e.currentTarget.value as Rank)}
      />
      <PasswordInput
        label="Figures"
        value={secret}
        maxLength={200}
        autoComplete="new-password"
        onChange={(e) => setSecret(e.currentTarget.value)}
      />
      {problem && (
        <Text role="alert" c="red">
          {problem}
        </Text>
      )}
      <Button type="submit">Add</Button>
    </form>
  )
}
