/** A new client: the name is enough; the rest is asked at the chair. */
import { focusWrong } from '../ui/focusWrong.ts'
import { oneJob, SERVICE_IDS, SERVICES } from '../../core/services/index.ts'
import { CLIENT_TEXTS, eachText, skinToBegin } from '../../core/client.ts'
import { Button, Modal, Select, SimpleGrid, Stack, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { newClientSchema } from '../../contract/schemas.ts'
import type { Client } from '../../contract/types.ts'
import { useAddClient, useHouse } from '../api/queries.ts'
import { useAddVisit } from '../api/visitWrites.ts'
import { newId } from '../state/words.ts'
import { Problem } from '../ui/Panel.tsx'
import { endAdding } from './adding.ts'

export function NewClient() {
  return (
    <Modal opened onClose={endAdding} title="New client" size="md" yOffset={90}>
      <NewClientForm onClose={endAdding} />
    </Modal>
  )
}

function NewClientForm({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const add = useAddClient()
  const house = useHouse()
  const form = useForm<Omit<Client, 'createdAtMs' | 'schools' | 'events'>>({
    initialValues: {
      id: newId(),
      name: '',
      ...eachText(() => ''),
      service: SERVICE_IDS[0]!,
      skin: skinToBegin('razor'),
    },
    validate: yupResolver(newClientSchema),
  })
  const clientId = form.getValues().id
  const begin = useAddVisit(clientId)
  const [visitId] = useState(newId)
  const workerId = house.data?.workerId
  const submit = form.onSubmit(async (values) => {
    if (workerId === undefined) return
    try {
      await add.mutateAsync({ ...values, skin: skinToBegin(SERVICES[values.service].family) })
      // They stand at the door: their visit begins now.
      await begin.mutateAsync({
        id: visitId,
        jobs: [oneJob(newId(), values.service)],
        workerId,
        slotAtMs: Date.now(),
      })
    } catch {
      // What went wrong stands above the button; what was typed stays, and may be sent again.
      return
    }
    onClose()
    await navigate(`/clients/${clientId}/ask`)
  }, focusWrong(form))
  const problem = add.error ?? begin.error ?? house.error
  return (
    <form onSubmit={submit} noValidate>
      <Stack gap="md">
        <TextInput label="Name" data-autofocus autoFocus required {...form.getInputProps('name')} />
        <SimpleGrid cols={{ base: 1, sm: 2 }}>
          <TextInput label={CLIENT_TEXTS.calledName.title} {...form.getInputProps('calledName')} />
          <TextInput label={CLIENT_TEXTS.pronouns.title} {...form.getInputProps('pronouns')} />
        </SimpleGrid>
        <TextInput
          label={CLIENT_TEXTS.occupation.title}
          description="When skin must be in order for it: a mask that seals, a concert"
          {...form.getInputProps('occupation')}
        />
        <SimpleGrid cols={{ base: 1, sm: 2 }}>
          <TextInput label={CLIENT_TEXTS.phone.title} type="tel" {...form.getInputProps('phone')} />
          <TextInput
            label={CLIENT_TEXTS.email.title}
            type="email"
            {...form.getInputProps('email')}
          />
        </SimpleGrid>
        <Select
          label="Service wanted"
          allowDeselect={false}
          data={SERVICE_IDS.map((id) => ({ value: id, label: SERVICES[id].name }))}
          {...form.getInputProps('service')}
        />
        <Problem>{problem?.message}</Problem>
        <Button
          variant="strong"
          type="submit"
          loading={add.isPending || begin.isPending}
          disabled={workerId === undefined}
        >
          Add and start asking
        </Button>
      </Stack>
    </form>
  )
}
