/** What was left out comes back: when, how long it would take alone, and a short visit for it. */
import { Button, Group, Text, Title } from '@mantine/core'
import { useNavigate } from 'react-router'
import { comesBack } from '../../../core/ahead/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { capital, listWords } from '../../../core/words.ts'
import { theZone } from '../../../core/zones/index.ts'
import { useAddVisit } from '../../api/visitWrites.ts'
import { useFigures } from '../../state/figures.ts'
import { newId } from '../../state/words.ts'
import { Problem } from '../../ui/Panel.tsx'
import type { StationProps } from '../useStation.ts'

export function LeftOut({ page, visit }: StationProps) {
  const figures = useFigures()
  const navigate = useNavigate()
  const add = useAddVisit(page.client.id)
  const last = page.visits.find((v) => v.state === 'finished')
  if (!visit.plan || visit.endedAtMs === null || last?.id !== visit.id) return null
  const back = comesBack(figures, {
    ...{ plan: visit.plan, atChair: visit.atChair, endedAtMs: visit.endedAtMs },
    noonOf: (day) => Date.parse(`${day}T12:00:00`),
  })
  if (!back) return null
  const open = page.visits.some((v) => v.state !== 'finished')
  const begin = () =>
    add.mutate(
      {
        id: newId(),
        jobs: [{ ...back.job, id: newId() }],
        workerId: visit.workerId,
        slotAtMs: Math.max(back.fromMs, Date.now()),
      },
      { onSuccess: () => void navigate(`/clients/${page.client.id}/ask`) },
    )
  return (
    <section aria-label="Left out, comes back">
      <Title order={2} mt="md">
        Left out, comes back
      </Title>
      <Text size="sm">
        {capital(listWords(back.zones.map(theZone)))}: {listWords(back.reasons)}. Look again from{' '}
        <b>{dateWords(back.fromMs)}</b>; alone it takes about {back.minutes} min.
      </Text>
      <Problem>{add.error?.message}</Problem>
      {open ? (
        <Text size="sm" c="dimmed">
          The next visit is laid out already: it is worked there once its skin is calm.
        </Text>
      ) : (
        <Group my={6}>
          <Button size="sm" loading={add.isPending} onClick={begin}>
            Lay out a short visit for it
          </Button>
        </Group>
      )}
    </section>
  )
}
