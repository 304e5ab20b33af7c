/** What the client took off at home: noted in a tap or two, what it costs the skin, and when the razor is over. */
import { ActionIcon, Button, Checkbox, Group, Stack, Text, Title } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useState } from 'react'
import { Link } from 'react-router'
import {
  HOME_TOOL_WORDS,
  HOME_TOOLS,
  homeLoad,
  homeWords,
  razorUses,
  type HomeTool,
} from '../../core/history/index.ts'
import { zonesOfJobs } from '../../core/services/index.ts'
import { dateWords } from '../../core/time/index.ts'
import { capital } from '../../core/words.ts'
import { areaOf, zoneStem, type ZoneId } from '../../core/zones/index.ts'
import { useAddHome, useRemoveHome } from '../api/homeWork.ts'
import { useFigures } from '../state/figures.ts'
import { newId, todayIso } from '../state/words.ts'
import { DateField } from '../ui/DateField.tsx'
import { Estimate } from '../ui/Estimate.tsx'
import { Problem } from '../ui/Panel.tsx'
import { named, PickOne } from '../ui/PickOne.tsx'
import { Toggles } from '../ui/Toggles.tsx'
import { useSchools, type StationProps } from './useStation.ts'

/** So many of the latest are listed. */
const LISTED = 4

export function HomeWork({ level = 2, ...props }: StationProps & { level?: 1 | 2 }) {
  const { page, visit, house } = props
  const figures = useFigures()
  const schools = useSchools(page, house)
  const add = useAddHome(page.client.id)
  const remove = useRemoveHome(page.client.id)
  const [latest] = page.home
  const [date, setDate] = useState<string | undefined>(todayIso())
  const [tool, setTool] = useState<HomeTool>(latest?.tool ?? 'cartridge')
  const [names, setNames] = useState<readonly string[]>([])
  const [fresh, setFresh] = useState(false)
  const [dull, setDull] = useState(false)
  const areas = areasHere(props)
  const zones = areas.filter((a) => names.includes(a.name)).flatMap((a) => a.zones)
  const note = (body: { zones: readonly ZoneId[]; tool: HomeTool; date: string }) =>
    add.mutate(
      { id: newId(), ...body, zones: [...body.zones], fresh, dull },
      {
        onSuccess: () => {
          setNames([])
          setFresh(false)
          setDull(false)
        },
      },
    )
  const cost = homeLoad(figures, tool, page.client.skin.coarseness)
  const razor = razorUses(page.home, tool, schools.homeRazor)
  return (
    <Stack component="section" gap="xs" aria-label="At home">
      <Title order={level}>At home</Title>
      {latest && (
        <Group gap="xs" wrap="nowrap">
          <Button
            size="sm"
            flex="none"
            disabled={add.isPending}
            onClick={() => note({ zones: latest.zones, tool: latest.tool, date: todayIso() })}
          >
            The same again today
          </Button>
          <Text size="sm">{homeWords(latest)}</Text>
        </Group>
      )}
      <Group gap="sm" align="end">
        <DateField
          label="Taken off on"
          w={160}
          value={date}
          maxDate={todayIso()}
          onChange={setDate}
        />
        <PickOne
          label="With"
          w={200}
          data={named(HOME_TOOLS, (t) => capital(HOME_TOOL_WORDS[t]))}
          value={tool}
          onChange={setTool}
        />
        <Checkbox
          label="fresh blade"
          checked={fresh}
          onChange={(e) => setFresh(e.currentTarget.checked)}
        />
        <Checkbox
          label="tugged or rusty"
          checked={dull}
          onChange={(e) => setDull(e.currentTarget.checked)}
        />
      </Group>
      <Toggles
        label="Where at home"
        of={areas.map(({ name }) => ({
          id: name,
          name: name.replace(/^the /, ''),
          on: names.includes(name),
        }))}
        onToggle={(id, on) => setNames(on ? [...names, id] : names.filter((n) => n !== id))}
      />
      <Group gap="sm">
        <Button
          size="sm"
          disabled={zones.length === 0 || date === undefined || add.isPending}
          onClick={() => date && note({ zones, tool, date })}
        >
          Note it
        </Button>
        <Text size="sm" c="dimmed">
          {cost.load - cost.withGrain > 0.05 ? (
            <>
              Direction unknown: load about{' '}
              <Estimate of="home-load">{cost.load.toFixed(1)}</Estimate> each time; with the grain
              alone {cost.withGrain.toFixed(1)}.{' '}
              <Link to={`/clients/${page.client.id}/cards/shave?visit=${visit.id}`}>Home card</Link>
            </>
          ) : (
            <>
              Load about <Estimate of="home-load">{cost.load.toFixed(1)}</Estimate> each time.
            </>
          )}
        </Text>
      </Group>
      {razor.uses > 0 && (
        <Text size="sm" c={razor.over ? 'coral.7' : 'dimmed'}>
          {capital(HOME_TOOL_WORDS[tool])}: {razor.uses} of at most {razor.most}{' '}
          {razor.most === 1 ? 'use' : 'uses'} since a fresh blade
          {razor.dull ? ', and it tugs or rusts' : ''}.
          {razor.over ? ' It is over: a fresh one before the next time.' : ''}
        </Text>
      )}
      {page.home.slice(0, LISTED).map((h) => (
        <Group key={h.id} gap="xs" wrap="nowrap">
          <Text size="sm">
            {dateWords(h.atMs)}: {homeWords(h)}
            {h.source === 'client' ? ', told by the client' : ''}
          </Text>
          <ActionIcon
            aria-label={`Take out: ${dateWords(h.atMs)}, ${homeWords(h)}`}
            title="Take it out"
            onClick={() => remove.mutate(h.id)}
          >
            <IconX size={16} stroke={1.5} />
          </ActionIcon>
        </Group>
      ))}
      <Problem>{add.error?.message ?? remove.error?.message}</Problem>
    </Stack>
  )
}

/** The areas of what the client comes for. */
function areasHere({ page, visit }: StationProps): { name: string; zones: ZoneId[] }[] {
  const zones = new Set([
    ...zonesOfJobs(visit.jobs),
    ...page.due.flatMap((d) => [...d.zones, ...d.later]),
  ])
  const by = new Map<string, ZoneId[]>()
  for (const zone of zones) {
    const { name } = areaOf(zoneStem(zone))
    by.set(name, [...(by.get(name) ?? []), zone])
  }
  return [...by].map(([name, own]) => ({ name, zones: own }))
}
