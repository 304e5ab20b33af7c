/** Where practitioners disagree: which way this house goes. */
import { Stack } from '@mantine/core'
import { SCHOOL_IDS, SCHOOLS } from '../../core/house/index.ts'
import { PickOne } from '../ui/PickOne.tsx'
import type { PartProps } from './HousePage.tsx'

export const SchoolsPart = ({ house, change }: PartProps) => (
  <Stack gap="md" maw={560}>
    {SCHOOL_IDS.map((id) => (
      <PickOne
        key={id}
        label={SCHOOLS[id].question}
        data={SCHOOLS[id].choices.map((c, i) => ({
          value: c.id,
          label: `${c.text}${i === 0 ? ' (default)' : ''}`,
        }))}
        value={house.schools[id] as string}
        onChange={(choice) => change.mutate({ schools: { [id]: choice } })}
      />
    ))}
  </Stack>
)
