/** Who works here: renamed, added, retired; with which hand, and how practised. */
import { Group, Stack, Text, TextInput } from '@mantine/core'
import type { House } from '../../contract/types.ts'
import { readerWords } from '../../core/grain/index.ts'
import { PACE_KINDS, paceOf, paceWords } from '../../core/plan/index.ts'
import { useMay } from '../people/session.ts'
import { useFigures } from '../state/figures.ts'
import { Estimate } from '../ui/Estimate.tsx'
import { Words } from '../ui/Words.tsx'
import type { PartProps } from './HousePage.tsx'
import { Everybody } from './PeoplePart.tsx'
import { WorkerWeek } from './WorkerWeek.tsx'

export function WorkersPart({ house, change }: PartProps) {
  const may = useMay()
  return (
    <Stack gap="lg">
      {house.workers.map((w) => (
        <Worker
          key={w.id}
          worker={w}
          closed={house.closed}
          seen={house.paces[w.id] ?? []}
          maps={house.readers[w.id] ?? []}
          onChange={(worker) => change.mutate({ worker })}
        />
      ))}
      {may('people') && <Everybody />}
    </Stack>
  )
}

function Worker({
  worker,
  closed,
  seen,
  maps,
  onChange,
}: {
  worker: House['workers'][number]
  closed: House['closed']
  /** What their services told of their pace. */
  seen: House['paces'][string]
  /** What their maps told of how surely they read. */
  maps: House['readers'][string]
  onChange: (w: House['workers'][number]) => void
}) {
  const keep = (change: Partial<typeof worker>) => {
    const next = { ...worker, ...change }
    // A name is never lost to an empty field: it stays as it was.
    if (next.name.trim() && next.role.trim()) onChange(next)
  }
  const figures = useFigures()
  const paces = PACE_KINDS.flatMap((kind) => {
    const pace = paceOf(figures, kind, seen)
    return pace.services > 0 ? [paceWords(kind, pace)] : []
  })
  const reads = readerWords(figures, maps)
  return (
    <Stack gap={4} component="section" aria-label={worker.name}>
      <Group gap="sm">
        <TextInput
          aria-label="Name"
          defaultValue={worker.name}
          maxLength={60}
          w={250}
          onBlur={(e) =>
            e.currentTarget.value.trim() !== worker.name &&
            keep({ name: e.currentTarget.value.trim() })
          }
        />
        <TextInput
          aria-label={`What ${worker.name} does`}
          defaultValue={worker.role}
          maxLength={60}
          w={180}
          onBlur={(e) =>
            e.currentTarget.value.trim() !== worker.role &&
            keep({ role: e.currentTarget.value.trim() })
          }
        />
        <Words
          label={`Hand of ${worker.name}`}
          data={[
            ['right', 'right-handed'],
            ['left', 'left-handed'],
          ]}
          value={worker.hand}
          onChange={(hand) => keep({ hand })}
        />
        <Words
          label={`Practice of ${worker.name}`}
          data={[
            ['practised', 'practised'],
            ['learning', 'learning'],
          ]}
          value={worker.level}
          onChange={(level) => keep({ level })}
        />
      </Group>
      {paces.length > 0 && (
        <Text size="sm" c="dimmed">
          <Estimate of="pace">Strokes</Estimate>: {paces.join('; ')}.
        </Text>
      )}
      {reads && (
        <Text size="sm" c="dimmed">
          <Estimate of="reader">Readings of the grain</Estimate>: {reads}.
        </Text>
      )}
      <WorkerWeek worker={worker} closed={closed} onKeep={keep} />
    </Stack>
  )
}
