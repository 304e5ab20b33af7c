/** The first run: whose house it is. Nothing else is asked before there is an owner. */
import {
  Alert,
  Button,
  Group,
  PasswordInput,
  SegmentedControl,
  Stack,
  Text,
  TextInput,
} from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { ownerSchema } from '../../contract/people.ts'
import { DoorFrame } from './DoorFrame.tsx'
import { useDoor } from './session.ts'

interface Begun {
  house: string
  name: string
  role: string
  hand: 'right' | 'left'
  secret: string
}

export function FirstRun() {
  const { begin } = useDoor()
  const form = useForm<Begun>({
    initialValues: {
      house: '',
      name: '',
      role: 'barber',
      hand: 'right',
      secret: '',
    },
    validate: (values) =>
      yupResolver(ownerSchema)({ ...values, secret: values.secret || undefined }),
  })
  return (
    <DoorFrame house="A new house" under="It begins with its owner.">
      <form
        onSubmit={form.onSubmit(({ secret, ...values }) =>
          begin.mutate({ ...values, ...(secret && { secret }) }),
        )}
      >
        <Stack>
          <TextInput
            label="What is the house called?"
            required
            autoFocus
            maxLength={60}
            {...form.getInputProps('house')}
          />
          <Group grow>
            <TextInput
              label="Who are you?"
              required
              maxLength={60}
              {...form.getInputProps('name')}
            />
            <TextInput label="What do you do?" maxLength={60} {...form.getInputProps('role')} />
          </Group>
          <SegmentedControl
            aria-label="Your hand"
            data={[
              { value: 'right', label: 'right-handed' },
              { value: 'left', label: 'left-handed' },
            ]}
            {...form.getInputProps('hand')}
          />
          <PasswordInput
            label="Your figures, or a passphrase"
            description="Four to twelve figures, or 8 characters and more. Left empty, nobody signs in: whoever sits at this machine may do everything, and no other screen is let in."
            autoComplete="new-password"
            maxLength={200}
            {...form.getInputProps('secret')}
          />
          {begin.isError && (
            <Alert color="red" role="alert">
              {begin.error.message}
            </Alert>
          )}
          <Button type="submit" size="lg" loading={begin.isPending}>
            Begin
          </Button>
          <Text c="dimmed" size="sm">
            Health answers, consent and pictures are kept on this machine only. To look around
            first, stop and type <code>npm run demo</code>.
          </Text>
        </Stack>
      </form>
    </DoorFrame>
  )
}
