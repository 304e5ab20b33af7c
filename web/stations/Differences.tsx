/** What two screens entered differently, one of them without the house: both are shown until somebody chooses. */
import { Button, Group, Stack, Text } from '@mantine/core'
import type { Difference } from '../../contract/types.ts'
import { CLIENT_TEXTS, type ClientText } from '../../core/client.ts'
import { momentWords, type Moment } from '../../core/looks/index.ts'
import { RULES } from '../../core/screening/index.ts'
import { whenWords } from '../../core/time/index.ts'
import { ALL_ZONE_IDS, zoneInWords, type ZoneId } from '../../core/zones/index.ts'
import { useSettle } from '../api/queries.ts'

export function Differences({
  clientId,
  differences,
}: {
  clientId: string
  differences: readonly Difference[]
}) {
  const settle = useSettle(clientId)
  if (differences.length === 0) return null
  return (
    <Stack
      component="section"
      c="ink"
      aria-label="Entered differently on two screens"
      gap={6}
      mb="sm"
      style={{ flex: 'none' }}
    >
      <Text fw={700}>Entered differently on two screens: tap the one that is right</Text>
      {differences.map((d) => (
        <Group key={d.id} gap="xs" wrap="wrap">
          <Text w={150}>{placeWords(d)}</Text>
          <Choice d={d} take="theirs" settle={settle} words="was here" />
          <Choice
            d={d}
            take="mine"
            settle={settle}
            words={`${d.worker || 'another screen'}, ${whenWords(d.enteredAtMs)}`}
          />
        </Group>
      ))}
      <Text size="sm" c="dimmed">
        Until then what stands here holds; of answers, the more careful one.
      </Text>
      {settle.isError && <Text role="alert">{settle.error.message}</Text>}
    </Stack>
  )
}

function Choice({
  d,
  take,
  settle,
  words,
}: {
  d: Difference
  take: 'mine' | 'theirs'
  settle: ReturnType<typeof useSettle>
  words: string
}) {
  const going = settle.variables
  return (
    <Group gap={6} wrap="nowrap">
      <Button
        size="compact-md"

        loading={settle.isPending && going?.id === d.id && going.take === take}
        onClick={() => settle.mutate({ id: d.id, take })}
      >
        {valueWords(d[take])}
      </Button>
      <Text size="sm" c="dimmed">
        {words}
      </Text>
    </Group>
  )
}

const FIELDS: Readonly<Record<string, string>> = {
  service: 'Comes for',
  name: 'Name',
  consent: 'Consent',
  patchTest: 'Patch test',
  redness: 'redness',
  bumps: 'bumps',
  pustules: 'pustules',
  yes: '',
  date: 'since',
}

const isZone = (id: string): id is ZoneId => (ALL_ZONE_IDS as readonly string[]).includes(id)

/** Where it differs, in words: "Telephone", "Sunburn", "24 h: chin redness". */
function placeWords({ what, path }: Difference): string {
  const [first = '', ...rest] = path
  const known =
    what === 'changeClient'
      ? Object.hasOwn(CLIENT_TEXTS, first)
        ? CLIENT_TEXTS[first as ClientText].title
        : undefined
      : what === 'saveSkinAnswer'
        ? momentWords(first as Moment)
        : RULES.find((r) => r.id === rest[0])?.short
  const within = what === 'saveAsked' && known ? rest.slice(1) : rest
  const words = within
    .filter((p) => !['zones', 'feeling', 'spots', 'answers'].includes(p))
    .map((p) => FIELDS[p] ?? (isZone(p) ? zoneInWords(p) : p))
  return [known ?? FIELDS[first] ?? first, ...words].filter(Boolean).join(', ')
}

function valueWords(value: Difference['mine']): string {
  if (value === null) return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'string') return value === '' ? 'nothing' : value
  if (typeof value === 'number') return String(value)
  const named = value as { name?: unknown; text?: unknown }
  return typeof named.name === 'string' ? named.name : 'the other entry'
}
