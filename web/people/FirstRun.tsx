/** The first run: whose house it is, who works in it, when it is open. Nothing else is asked before there is an owner. */
import { focusWrong } from '../ui/focusWrong.ts'
import {
  Button,
  Chip,
  Code,
  CopyButton,
  Group,
  RangeSlider,
  Stack,
  Text,
  TextInput,
} from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { ownerSchema } from '../../contract/people.ts'
import { USUAL_HOURS, USUALLY_CLOSED, weekdayWords } from '../../core/time/index.ts'
import { call } from '../api/call.ts'
import { browserSettings } from '../state/shape.ts'
import { newId } from '../state/words.ts'
import { Problem } from '../ui/Panel.tsx'
import { Words } from '../ui/Words.tsx'
import { DoorFrame } from './DoorFrame.tsx'
import { useDoor } from './session.ts'
import { SecretField } from '../ui/SecretField.tsx'

interface Begun {
  house: string
  name: string
  role: string
  hand: 'right' | 'left'
  secret: string
  /** A second pair of hands; nobody while the name is empty. */
  other: string
  otherHand: 'right' | 'left'
  hours: [number, number]
  closed: string[]
}

const HANDS = [
  ['right', 'right-handed'],
  ['left', 'left-handed'],
] as const
const MONDAY_FIRST = [1, 2, 3, 4, 5, 6, 0]
const DEMO = 'npm run demo'

/** What is known of the house besides its owner is kept once there is one; what fails can be said at House. */
async function furnish({ other, otherHand, hours, closed }: Begun): Promise<void> {
  const weekdays = closed.map(Number)
  await call('changeHouse', {
    body: {
      settings: browserSettings(),
      closed: {
        ...USUALLY_CLOSED,
        weekdays,
        hours: Object.fromEntries(MONDAY_FIRST.map((d) => [d, hours])),
      },
    },
  })
  if (other.trim())
    await call('addWorker', {
      body: {
        id: newId(),
        name: other.trim(),
        role: 'barber',
        hand: otherHand,
        level: 'practised',
        rank: 'worker',
      },
    })
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
      other: '',
      otherHand: 'right',
      hours: [...USUAL_HOURS],
      closed: ['0'],
    },
    validate: ({ house, name, role, hand, secret }) =>
      yupResolver(ownerSchema)({ house, name, role, hand, secret: secret || undefined }),
  })
  const { values } = form
  return (
    <DoorFrame house="A new house" under="Good day. It begins with its owner.">
      <form
        noValidate
        onSubmit={form.onSubmit((all) => {
          const { house, name, role, hand, secret } = all
          begin.mutate(
            { house, name, role, hand, ...(secret && { secret }) },
            { onSuccess: () => void furnish(all).catch(() => undefined) },
          )
        }, focusWrong(form))}
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
          <Words
            label="Your hand"
            data={HANDS}
            value={values.hand}
            onChange={(hand) => form.setFieldValue('hand', hand)}
          />
          <SecretField
            label="Your figures, or a passphrase"
            description="Four to twelve figures, or 8 characters and more. Left empty, nobody signs in: whoever sits at this machine may do everything, and no other screen is let in."
            {...form.getInputProps('secret')}
          />
          <TextInput
            label="Who else works here?"
            description="One more now, others later at House."
            maxLength={60}
            {...form.getInputProps('other')}
          />
          {values.other.trim() !== '' && (
            <Words
              label="Their hand"
              data={HANDS}
              value={values.otherHand}
              onChange={(hand) => form.setFieldValue('otherHand', hand)}
            />
          )}
          <div>
            <Text size="sm" c="dimmed">
              Open from {values.hours[0]}:00 to {values.hours[1]}:00, closed on
            </Text>
            <Chip.Group
              multiple
              value={values.closed}
              onChange={(days) => days.length < 7 && form.setFieldValue('closed', days)}
            >
              <Group gap={4} role="group" aria-label="Closed on these days of the week" wrap="wrap">
                {MONDAY_FIRST.map((d) => (
                  <Chip key={d} value={String(d)}>
                    {weekdayWords(d).slice(0, 3)}
                  </Chip>
                ))}
              </Group>
            </Chip.Group>
            <RangeSlider
              h={44}
              mx={9}
              min={6}
              max={22}
              value={values.hours}
              onChange={(hours) => form.setFieldValue('hours', hours)}
              thumbFromLabel="Opens"
              thumbToLabel="Closes"
            />
          </div>
          <Problem>{begin.error?.message}</Problem>
          <Button variant="strong" type="submit" loading={begin.isPending}>
            Begin
          </Button>
          <Text c="dimmed" size="sm">
            Health answers, consent and pictures are kept on this machine only. To look around
            first, stop and type <Code>{DEMO}</Code>: a made-up studio with its clients, in a folder
            of its own.
          </Text>
          <CopyButton value={DEMO}>
            {({ copied, copy }) => (
              <Button variant="bare" size="sm" onClick={copy}>
                {copied ? 'Copied' : 'Copy that command'}
              </Button>
            )}
          </CopyButton>
        </Stack>
      </form>
    </DoorFrame>
  )
}
