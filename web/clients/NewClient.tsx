/** A new client: the name is enough; the rest is asked at the chair. */
import { oneJob, SERVICE_IDS, SERVICES } from '../../core/services/index.ts'
import { CLIENT_TEXTS, eachText, skinToBegin } from '../../core/client.ts'
import { Modal, Select, TextInput } from '@mantine/core'
import { useForm } from '@mantine/form'
import { yupResolver } from 'mantine-form-yup-resolver'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { newClientSchema } from '../../contract/schemas.ts'
import type { Client } from '../../contract/types.ts'
import { useAddClient, useHouse } from '../api/queries.ts'
import { useAddVisit } from '../api/visitWrites.ts'
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
  })
  const problem = add.error ?? begin.error ?? house.error
  return (
    <form onSubmit={submit} className="stack">
      <TextInput label="Name" data-autofocus autoFocus required {...form.getInputProps('name')} />
      <div className="two">
        <TextInput label={CLIENT_TEXTS.calledName.title} {...form.getInputProps('calledName')} />
        <TextInput label={CLIENT_TEXTS.pronouns.title} {...form.getInputProps('pronouns')} />
      </div>
      <TextInput
        label={CLIENT_TEXTS.occupation.title}
        description="When skin must be in order for it: a mask that seals, a concert"
        {...form.getInputProps('occupation')}
      />
      <div className="two">
        <TextInput label={CLIENT_TEXTS.phone.title} type="tel" {...form.getInputProps('phone')} />
        <TextInput label={CLIENT_TEXTS.email.title} type="email" {...form.getInputProps('email')} />
      </div>
      <Select
        label="Service wanted"
        allowDeselect={false}
        data={SERVICE_IDS.map((id) => ({ value: id, label: SERVICES[id].name }))}
        {...form.getInputProps('service')}
      />
      {problem && (
        <p role="alert" className="problem">
          {problem.message}
        </p>
      )}
      <button
        className="strong deep"
        type="submit"
        disabled={add.isPending || begin.isPending || workerId === undefined}
      >
        Add and start asking
      </button>
    </form>
  )
}
