/** A new client: the name is enough; the rest is asked at the chair. */
import { Modal, Select, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { useNavigate } from 'react-router'
import { newClientSchema } from '../../contract/schemas.ts'
import type { Client } from '../../contract/types.ts'
import { skinToBegin } from '../../core/client.ts'
import { SERVICE_IDS, SERVICES } from '../../core/services.ts'
import { call } from '../api/call.ts'
import { useAddClient, useHouse } from '../api/queries.ts'
import { newId } from '../state/words.ts'

export function NewClient({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title="New client"
      size="md"
      yOffset={90}
      transitionProps={{ duration: 0 }}
    >
      {opened && <NewClientForm onClose={onClose} />}
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
      calledName: '',
      pronouns: '',
      occupation: '',
      phone: '',
      email: '',
      note: '',
      service: 'face-shave',
      skin: skinToBegin('razor'),
    },
    validate: yupResolver(newClientSchema),
  })
  const submit = form.onSubmit(async (values) => {
    const client = await add.mutateAsync({
      ...values,
      skin: skinToBegin(SERVICES[values.service].family),
    })
    // They stand at the door: their visit begins now.
    await call('addVisit', {
      params: { id: client.id },
      body: {
        id: newId(),
        service: client.service,
        workerId: house.data?.workerId,
        slotAtMs: Date.now(),
      },
    })
    onClose()
    await navigate(`/clients/${client.id}/ask`)
  })
  return (
    <form onSubmit={submit} className="stack">
      <TextInput label="Name" data-autofocus autoFocus required {...form.getInputProps('name')} />
      <div className="two">
        <TextInput label="Likes to be called" {...form.getInputProps('calledName')} />
        <TextInput label="Pronouns (if told)" {...form.getInputProps('pronouns')} />
      </div>
      <TextInput
        label="What they do"
        description="When skin must be in order for it: a mask that seals, a concert"
        {...form.getInputProps('occupation')}
      />
      <div className="two">
        <TextInput label="Telephone" type="tel" {...form.getInputProps('phone')} />
        <TextInput label="E-mail" type="email" {...form.getInputProps('email')} />
      </div>
      <Select
        label="Service wanted"
        allowDeselect={false}
        data={SERVICE_IDS.map((id) => ({ value: id, label: SERVICES[id].name }))}
        {...form.getInputProps('service')}
      />
      {add.isError && (
        <p role="alert" className="problem">
          {add.error.message}
        </p>
      )}
      <button className="strong deep" type="submit" disabled={add.isPending}>
        Add and start asking
      </button>
    </form>
  )
}
