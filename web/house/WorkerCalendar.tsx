/** A worker's calendar: the book under a secret address, and their busy times out of a file. */
import { Button, CopyButton, FileButton, Group, Stack, Text } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { House } from '../../contract/types.ts'
import { call } from '../api/call.ts'
import { useMay } from '../people/session.ts'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'

export function WorkerCalendar({ worker }: { worker: House['workers'][number] }) {
  const may = useMay()
  const cache = useQueryClient()
  const first = worker.name.split(' ')[0]!
  const params = { id: worker.id }
  const again = () => void cache.invalidateQueries({ queryKey: ['week'] })
  const make = useMutation({ mutationFn: () => call('newFeed', { params, body: {} }) })
  const close = useMutation({
    mutationFn: () => call('takeBackFeed', { params }),
    onSuccess: () => {
      make.reset()
      tellDone(`No calendar of ${first} is open any more`)
    },
  })
  const bring = useMutation({
    mutationFn: async (file: File) =>
      call('bringInBusy', { body: { workerId: worker.id, text: await file.text() } }),
    onSuccess: again,
  })
  const remove = useMutation({
    mutationFn: () => call('removeBusy', { params }),
    onSuccess: () => {
      bring.reset()
      tellDone(`Busy times of ${first} are out`)
      again()
    },
  })
  if (!may('newFeed')) return null
  return (
    <Stack gap="xs" maw={820} component="section" aria-label={`Calendar of ${first}`}>
      <Text size="sm" fw={600}>
        {first}’s hours in a calendar
      </Text>
      <Text size="sm" c="dimmed">
        Whoever knows the address reads hours with initials and a word for the work. A new address
        closes the one before.
      </Text>
      <Group gap="xs">
        <Button size="sm" loading={make.isPending} onClick={() => make.mutate()}>
          Make an address
        </Button>
        <Button size="sm" variant="bare" loading={close.isPending} onClick={() => close.mutate()}>
          Take it back
        </Button>
      </Group>
      {make.data && (
        <Group gap="xs" role="status">
          <Text size="sm" style={{ overflowWrap: 'anywhere' }}>
            {make.data.url}
          </Text>
          <CopyButton value={make.data.url}>
            {({ copied, copy }) => (
              <Button size="compact-sm" onClick={copy}>
                {copied ? 'Copied' : 'Copy'}
              </Button>
            )}
          </CopyButton>
          <Text size="sm" c="dimmed">
            Told once: only its digest is kept.
          </Text>
        </Group>
      )}
      <Problem>{make.error?.message ?? close.error?.message}</Problem>
      <Text size="sm" fw={600}>
        {first}’s busy times
      </Text>
      <Group gap="xs">
        <FileButton accept=".ics,text/calendar" onChange={(file) => file && bring.mutate(file)}>
          {(props) => (
            <Button size="sm" loading={bring.isPending} {...props}>
              From a calendar file (.ics)
            </Button>
          )}
        </FileButton>
        <Button size="sm" variant="bare" loading={remove.isPending} onClick={() => remove.mutate()}>
          Take them out
        </Button>
      </Group>
      {bring.data && (
        <Text size="sm" role="status">
          {bring.data.times} busy times of the next year from {bring.data.events} events
          {bring.data.free > 0 && `, ${bring.data.free} of which take no time`}
          {bring.data.replaced > 0 && `; ${bring.data.replaced} that were here before are replaced`}
          . What they do then is not kept.
        </Text>
      )}
      <Problem>{bring.error?.message ?? remove.error?.message}</Problem>
    </Stack>
  )
}
