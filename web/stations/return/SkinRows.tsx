/** Redness, bumps and pustules zone by zone, for the keyboard and for counting without tapping. */
import { IconMinus, IconPlus } from '@tabler/icons-react'
import css from './Return.module.css'
import { Scroll } from '../../ui/Scroll.tsx'
import { ActionIcon, Table, Text, UnstyledButton } from '@mantine/core'
import { onRedness, REDNESS_COLOURS } from '../../../core/palette.ts'
import { type AtChair, type ZoneAnswer, withZone } from '../../../core/looks/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { REDNESS_WORDS } from '../../../core/skin/index.ts'
import { useView } from '../../state/view.ts'
import { useChosenInView } from '../useChosenInView.ts'
import type { Looking } from './useLook.ts'

export function SkinRows({
  zones,
  looking,
  atChair,
  early,
}: {
  zones: readonly ZoneId[]
  looking: Looking
  atChair: AtChair
  /** The moment has not come: nothing can be answered. */
  early: boolean
}) {
  const chosen = useView((s) => s.chosen)
  const list = useChosenInView(chosen)
  // What happened at the chair is looked at first.
  const ordered = [...zones].sort(
    (a, b) => Number(chairWords(atChair, a) === '') - Number(chairWords(atChair, b) === ''),
  )
  return (
    <Scroll label="Zone by zone" ref={list}>
      <Table highlightOnHover className={css.rows}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Zone</Table.Th>
            <Table.Th scope="col">Redness</Table.Th>
            <Table.Th scope="col">Bumps</Table.Th>
            <Table.Th scope="col">Pus</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {ordered.map((id) => (
            <SkinRow
              key={id}
              id={id}
              chosen={chosen === id}
              chair={chairWords(atChair, id)}
              early={early}
              zone={looking.look.zones.find((z) => z.zoneId === id)}
              answered={looking.answered}
              tapped={looking.look.spots.filter((s) => s.zoneId === id)}
              onChange={(c) => looking.change((look) => withZone(look, id, c))}
            />
          ))}
        </Table.Tbody>
      </Table>
    </Scroll>
  )
}

/** What happened to a zone at the chair, in a few words. */
function chairWords({ redness, nicks, leftOut }: AtChair, id: ZoneId): string {
  const nicked = nicks[id] ?? 0
  return [
    redness[id] === undefined ? '' : `at the chair: red ${redness[id]}`,
    nicked === 0 ? '' : nicked === 1 ? 'a nick' : `${nicked} nicks`,
    leftOut[id] === undefined ? '' : `left out, ${leftOut[id]}`,
  ]
    .filter(Boolean)
    .join('; ')
}

function SkinRow({
  id,
  zone,
  chosen,
  chair,
  early,
  answered,
  tapped,
  onChange,
}: {
  id: ZoneId
  chair: string
  early: boolean
  zone: ZoneAnswer | undefined
  chosen: boolean
  answered: boolean
  tapped: readonly { kind: string }[]
  onChange: (c: Partial<ZoneAnswer>) => void
}) {
  // Not answered is not clear: then no figure is chosen.
  const redness = zone?.redness ?? (answered ? 0 : undefined)
  const name = zoneName(id)
  const onHead = (kinds: readonly string[]) => tapped.filter((s) => kinds.includes(s.kind)).length
  return (
    <Table.Tr data-chosen={chosen || undefined}>
      <Table.Td>
        {name}
        {chair && (
          <Text size="xs" c="var(--coral)" display="block" span>
            {chair}
          </Text>
        )}
      </Table.Td>
      <Table.Td>
        <div className={css.pick} role="group" aria-label={`Redness, ${name}`}>
          {REDNESS_COLOURS.map((colour, grade) => (
            <UnstyledButton
              key={colour}
              disabled={early}
              aria-pressed={redness === grade}
              aria-label={`${grade}, ${REDNESS_WORDS[grade]![0]}`}
              title={REDNESS_WORDS[grade]![1]}
              style={
                redness === grade ? { background: colour, color: onRedness(grade) } : undefined
              }
              onClick={() => onChange({ redness: grade })}
            >
              {grade}
            </UnstyledButton>
          ))}
        </div>
      </Table.Td>
      <Table.Td>
        <Stepper
          label={`Bumps, ${name}`}
          value={zone?.bumps ?? 0}
          early={early}
          least={onHead(['bump', 'ingrown'])}
          onChange={(bumps) => onChange({ bumps })}
        />
      </Table.Td>
      <Table.Td>
        <Stepper
          label={`Pustules, ${name}`}
          value={zone?.pustules ?? 0}
          early={early}
          least={onHead(['pustule'])}
          onChange={(pustules) => onChange({ pustules })}
        />
      </Table.Td>
    </Table.Tr>
  )
}

/** Counts up and down, not below what was tapped on the head. */
function Stepper({
  label,
  value,
  least,
  early,
  onChange,
}: {
  label: string
  early: boolean
  value: number
  least: number
  onChange: (value: number) => void
}) {
  return (
    <div className={css.count} role="group" aria-label={label}>
      <ActionIcon
        size={32}
        aria-label="One fewer"
        title={value <= least && least > 0 ? 'Tapped on the head: take it away there' : undefined}
        disabled={early || value <= least}
        onClick={() => onChange(value - 1)}
      >
        <IconMinus size={16} />
      </ActionIcon>
      <b>{value}</b>
      <ActionIcon
        size={32}
        aria-label="One more"
        disabled={early}
        onClick={() => onChange(value + 1)}
      >
        <IconPlus size={16} />
      </ActionIcon>
    </div>
  )
}
