/** The door: who it is, and their figures; the same for a locked screen and for a change of worker. No client is named here. */
import { Button, Group, SimpleGrid, Text, Title, UnstyledButton } from '@mantine/core'
import { useForm } from '@mantine/form'
import { IconBackspace } from '@tabler/icons-react'
import { useState } from 'react'
import type { Session } from '../../contract/types.ts'
import { longDate } from '../../core/time/index.ts'
import css from './Door.module.css'
import { DoorFrame } from './DoorFrame.tsx'
import { useDoor } from './session.ts'
import { SecretField } from '../ui/SecretField.tsx'

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const
const first = (name: string) => name.split(' ')[0]!

export function SignIn({ session, onBack }: { session: Session; onBack?: () => void }) {
  const { signIn } = useDoor()
  const [who, setWho] = useState(session.worker?.id ?? session.workers[0]?.id ?? '')
  const form = useForm({ initialValues: { secret: '' } })
  const typed = form.values.secret
  const setTyped = (secret: string) => form.setFieldValue('secret', secret)
  const [forgotten, setForgotten] = useState(false)
  const worker = session.workers.find((w) => w.id === who)
  const go = () => {
    if (typed === '' || signIn.isPending) return
    signIn.mutate(
      { workerId: who, secret: typed },
      {
        onSuccess: () => onBack?.(),
        onSettled: () => setTyped(''),
      },
    )
  }
  const choose = (id: string) => {
    setWho(id)
    form.reset()
    signIn.reset()
  }
  return (
    <DoorFrame house={session.house} under={longDate(session.nowMs)}>
      <form onSubmit={form.onSubmit(go)}>
        <Title order={2}>Who is it?</Title>
        <Group gap="lg" mt="sm" role="group" aria-label="Who is it?">
          {session.workers.map((w) => (
            <UnstyledButton
              key={w.id}
              className={css.name}
              aria-pressed={w.id === who}
              onClick={() => choose(w.id)}
            >
              {first(w.name)}
            </UnstyledButton>
          ))}
        </Group>
        {worker ? (
          <>
            <SecretField
              now
              key={who}
              mt="md"
              label={`${first(worker.name)}, your figures or passphrase`}
              {...form.getInputProps('secret')}
              error={signIn.error?.message}
              autoFocus
            />
            <SimpleGrid cols={3} spacing={0} verticalSpacing={0} mt="sm" className={css.keys}>
              {KEYS.map((k) => (
                <UnstyledButton key={k} onClick={() => setTyped(typed + k)}>
                  {k}
                </UnstyledButton>
              ))}
              <UnstyledButton data-word onClick={() => setForgotten(true)}>
                forgotten
              </UnstyledButton>
              <UnstyledButton onClick={() => setTyped(`${typed}0`)}>0</UnstyledButton>
              <UnstyledButton
                aria-label="Take the last one back"
                onClick={() => setTyped(typed.slice(0, -1))}
              >
                <IconBackspace size={26} stroke={1.5} style={{ margin: 'auto' }} />
              </UnstyledButton>
            </SimpleGrid>
            <Button
              type="submit"
              variant="strong"
              fullWidth
              mt="md"
              disabled={typed === ''}
              loading={signIn.isPending}
            >
              Come in
            </Button>
          </>
        ) : (
          <Text mt="md">
            Nobody signs in here yet. Begin at the house’s own machine: House, Signing in.
          </Text>
        )}
        {forgotten && (
          <Text mt="md" role="status">
            The owner gives new ones: House, Signing in. An owner who has forgotten theirs stops
            Slow Tide at the machine itself and types <code>npm run new-secret -- NAME</code>.
          </Text>
        )}
        {session.mode === 'demo' && (
          <Text mt="md" c="dimmed">
            This is the demo:{' '}
            {Object.entries(session.demoSecrets)
              .map(([name, s]) => `${first(name)} ${s}`)
              .join(', ')}
            .
          </Text>
        )}
        {onBack && (
          <Button variant="bare" mt="sm" onClick={onBack}>
            Back
          </Button>
        )}
      </form>
    </DoorFrame>
  )
}
