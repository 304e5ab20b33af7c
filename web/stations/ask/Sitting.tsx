/** What the sitting is to do: its jobs, by what and where; and what else is due today. */
import { ActionIcon, Button, Collapse, Group, NumberInput, Stack, Text, Title } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { IconX } from '@tabler/icons-react'
import { useState } from 'react'
import { arrivalBy, dueWords, type DueWork } from '../../../core/ahead/index.ts'
import { DomainError } from '../../../core/errors.ts'
import {
  areaWords,
  areasOf,
  byMethod,
  checkSitting,
  everyDays,
  isPlanned,
  jobName,
  jobZones,
  kindOfWork,
  methodFacts,
  METHODS,
  oneJob,
  ROUTINE_CONSTANTS,
  ofService,
  SERVICE_IDS,
  SERVICES,
  type Job,
  withZones,
} from '../../../core/services/index.ts'
import { capital } from '../../../core/words.ts'
import { dateWords } from '../../../core/time/index.ts'
import { useChangeClient } from '../../api/queries.ts'
import { useChangeVisit, useSaveNotes } from '../../api/visitWrites.ts'
import { useFigures } from '../../state/figures.ts'
import { newId } from '../../state/words.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { Toggles } from '../../ui/Toggles.tsx'
import type { StationProps } from '../useStation.ts'

/** How long the hair is now: asked or measured; longer than a blade takes it goes down with clippers first. */
function LengthNow({ page, visit, frozen }: StationProps & { frozen: boolean }) {
  const figures = useFigures()
  const save = useSaveNotes(visit.id)
  const { tide } = page
  const by = arrivalBy(figures, tide.curve, tide.hairWords === 'Fuzz', Date.now())
  const over = figures(ROUTINE_CONSTANTS.clipperOverMm)
  const { lengthMm } = visit.notes
  return (
    <Group gap="sm" align="end">
      <NumberInput
        label="Hair now, as it is told or measured"
        w={310}
        suffix=" mm"
        min={0}
        max={300}
        decimalScale={1}
        disabled={frozen}
        placeholder={by ? `about ${by.nowMm.toFixed(1)} mm by the tide line` : 'not told'}
        value={lengthMm ?? ''}
        onChange={(v) => save.change(() => ({ lengthMm: typeof v === 'number' ? v : undefined }))}
      />
      {lengthMm !== undefined && lengthMm > over && (
        <Text size="sm">Over {over} mm: clippers first, planned with their minutes.</Text>
      )}
      <Problem>{save.error?.message}</Problem>
    </Group>
  )
}

export function Sitting({ frozen, ...station }: StationProps & { frozen: boolean }) {
  const { page, visit } = station
  const changeVisit = useChangeVisit(visit.id)
  const changeClient = useChangeClient(page.client.id)
  const [refused, setRefused] = useState<string>()
  const { jobs } = visit
  /** Keeps other jobs, where they can be one sitting. */
  const put = (next: readonly Job[]) => {
    try {
      checkSitting(next)
    } catch (e) {
      if (!(e instanceof DomainError)) throw e
      setRefused(`${e.message} What was chosen before stays.`)
      return
    }
    setRefused(undefined)
    changeVisit.mutate({ jobs: next })
    // What comes first is what the client comes for.
    const [lead] = next
    if (lead && isPlanned(lead.method) && lead.service !== page.client.service)
      changeClient.mutate({ service: lead.service })
  }
  const change = (job: Job) => put(jobs.map((j) => (j.id === job.id ? job : j)))
  const add = (job: Job) => put([...jobs, job])
  const others = page.due.filter((d) => !jobs.some((j) => kindOfWork(j) === kindOfWork(d)))
  return (
    <Stack gap="md" py="xs">
      <DueList
        title="Also due today"
        works={others.filter((d) => d.state !== 'waits')}
        frozen={frozen}
        onAdd={(due) => add(asJob(due))}
      />
      <LengthNow {...station} frozen={frozen} />
      {jobs.map((job, i) => (
        <JobRow
          key={job.id}
          job={job}
          lead={i === 0}
          frozen={frozen}
          onChange={change}
          {...(jobs.length > 1 && { onRemove: () => put(jobs.filter((j) => j.id !== job.id)) })}
        />
      ))}
      {!frozen && (
        <Group gap="sm">
          <Button size="sm" onClick={() => add(another(jobs))}>
            Another job
          </Button>
          <Text size="sm" c="dimmed">
            Blades are planned stroke by stroke; what is done by hand is recorded and timed.
          </Text>
        </Group>
      )}
      <Problem>{refused ?? changeVisit.error?.message}</Problem>
      <DueList title="Not yet" works={others.filter((d) => d.state === 'waits')} frozen={frozen} />
    </Stack>
  )
}

/** One more job: tweezers round the brows where there are none yet, as the least that is added. */
function another(jobs: readonly Job[]): Job {
  const brows: Job = { ...oneJob(newId(), 'brow-tidy'), method: 'tweezers', zones: ['glabella'] }
  const taken = jobs.some((j) => j.method === 'tweezers')
  return taken ? { ...brows, method: 'trimmer' } : brows
}

/** What is due, as a job of this sitting. */
const asJob = ({ service, method, zones, everyDays: days }: DueWork): Job =>
  everyDays({ ...withZones({ id: newId(), service, method, zones: [...zones] }, [], true) }, days)

function JobRow({
  job,
  lead,
  frozen,
  onChange,
  onRemove,
}: {
  job: Job
  lead: boolean
  frozen: boolean
  onChange: (job: Job) => void
  onRemove?: () => void
}) {
  const own = new Set(jobZones(job))
  const [open, places] = useDisclosure(false)
  const where = job.zones === null ? 'all that it works' : areaWords(jobZones(job))
  return (
    <section aria-label={jobName(job)}>
      <Group gap="xs" align="end" wrap="nowrap">
        <PickOne
          label={lead ? 'Service wanted' : 'And'}
          flex={1}
          disabled={frozen}
          data={named(SERVICE_IDS, (id) => SERVICES[id].name)}
          value={job.service}
          onChange={(service) => onChange(ofService(job, service))}
        />
        <PickOne
          label="By"
          w={170}
          disabled={frozen}
          data={named(METHODS, (m) => capital(methodFacts(m).name))}
          value={job.method}
          onChange={(method) => onChange(byMethod(job, method))}
        />
        <NumberInput
          label="Every, days"
          w={104}
          disabled={frozen}
          min={1}
          max={400}
          placeholder="usual"
          value={job.everyDays ?? ''}
          onBlur={(e) => {
            const days = Number.parseFloat(e.currentTarget.value)
            onChange(everyDays(job, days >= 1 && days <= 400 ? days : undefined))
          }}
        />
        {onRemove && !frozen && (
          <ActionIcon
            size={44}
            aria-label={`Take ${jobName(job)} out of the sitting`}
            title="Take it out"
            onClick={onRemove}
          >
            <IconX size={20} stroke={1.5} />
          </ActionIcon>
        )}
      </Group>
      <Button variant="bare" size="sm" aria-expanded={open} onClick={places.toggle}>
        Where: {where}
      </Button>
      <Collapse expanded={open} keepMounted={false}>
        <Toggles
          label={`Where: ${jobName(job)}`}
          disabled={frozen}
          of={areasOf(job.service).map(({ area, zones }) => ({
            id: area.name,
            name: area.name.replace(/^the /, ''),
            on: zones.some((z) => own.has(z)),
          }))}
          onToggle={(name, on) => {
            const found = areasOf(job.service).find((a) => a.area.name === name)
            if (found) onChange(withZones(job, found.zones, on))
          }}
        />
      </Collapse>
    </section>
  )
}

function DueList({
  title,
  works,
  frozen,
  onAdd,
}: {
  title: string
  works: readonly DueWork[]
  frozen: boolean
  onAdd?: (due: DueWork) => void
}) {
  if (works.length === 0) return null
  return (
    <section aria-label={title}>
      <Title order={2}>{title}</Title>
      {works.map((due) => (
        <DueRow key={kindOfWork(due)} due={due} frozen={frozen} onAdd={() => onAdd?.(due)} />
      ))}
    </section>
  )
}

function DueRow({ due, frozen, onAdd }: { due: DueWork; frozen: boolean; onAdd: () => void }) {
  return (
    <Group justify="space-between" gap="sm" wrap="nowrap" mt="xs">
      <div>
        <b>{due.name}</b>{' '}
        <Text span size="sm" c={due.state === 'waits' ? 'dimmed' : 'inherit'}>
          {dueWords(due, dateWords)} <Estimate mark="H" of="due-today" />
        </Text>
      </div>
      {due.state !== 'waits' && !frozen && (
        <Button size="sm" onClick={onAdd}>
          Add
        </Button>
      )}
    </Group>
  )
}
