/** When a client can come, and whether the house serves them first: what is proposed and offered keeps to it. */
import { Button, Checkbox, Group, Stack, Text } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { AnswerOf } from '../../contract/routes.ts'
import type { Week } from '../../contract/week.ts'
import { wishesProblem, wishWords } from '../../core/week/index.ts'
import { call } from '../api/call.ts'
import { write } from '../outbox/browser.ts'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'
import { workerName } from './useBook.ts'
import { WishesForm } from './WishesForm.tsx'

type Hours = AnswerOf<'hours'>

export function ClientHours({
  week,
  client,
}: {
  week: Pick<Week, 'workers'>
  client: { readonly id: string; readonly name: string }
}) {
  const cache = useQueryClient()
  const key = ['hours', client.id]
  const hours = useQuery({
    queryKey: key,
    queryFn: () => call('hours', { params: { id: client.id } }),
  })
  const [edited, setEdited] = useState<Hours>()
  const keep = useMutation({
    mutationFn: (body: Hours) =>
      write(
        'saveHours',
        {
          params: { id: client.id },
          body: { wishes: { ...body.wishes, days: [...body.wishes.days] }, first: body.first },
        },
        { clientId: client.id, what: `when ${client.name} can come` },
      ),
    onSuccess: (_, body) => {
      cache.setQueryData(key, body)
      setEdited(undefined)
      tellDone('Kept')
    },
  })
  if (!hours.data) return <Problem>{hours.error?.message}</Problem>
  const { wishes, first } = hours.data
  if (!edited) {
    const words = wishWords(wishes, (id) => workerName(week, id))
    return (
      <Group gap="xs" justify="space-between" wrap="nowrap">
        <Text size="sm">
          {words ? `Can come: ${words}.` : 'Can come at any hour.'}
          {first && ' Served first.'}
        </Text>
        <Button variant="bare" size="compact-sm" flex="none" onClick={() => setEdited(hours.data)}>
          Change
        </Button>
      </Group>
    )
  }
  return (
    <Stack gap="xs" component="section" aria-label={`When ${client.name} can come`}>
      <WishesForm
        week={week}
        value={edited.wishes}
        onChange={(w) => setEdited({ ...edited, wishes: w })}
      />
      <Checkbox
        label="The house serves them first where hours are short"
        checked={edited.first}
        onChange={(e) => setEdited({ ...edited, first: e.currentTarget.checked })}
      />
      <Problem>{keep.error?.message}</Problem>
      <Group gap="xs">
        <Button
          size="sm"
          variant="line"
          disabled={wishesProblem(edited.wishes) !== undefined}
          loading={keep.isPending}
          onClick={() => keep.mutate(edited)}
        >
          Keep
        </Button>
        <Button size="sm" variant="bare" onClick={() => setEdited(undefined)}>
          Leave it
        </Button>
      </Group>
    </Stack>
  )
}
