/** How the skin feels as a whole, and how nicks heal. */
import { Fieldset, Group, Text } from '@mantine/core'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { DRYNESS_WORDS, NICK_STATES, type NickState } from '../../../core/looks/index.ts'
import { nickZone } from '../../../core/chair/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import type { VisitPage } from '../../../contract/types.ts'
import type { Looking } from './useLook.ts'

const NICK_WORDS: Record<NickState, string> = {
  closed: 'closed',
  scab: 'scab',
  open: 'open',
  mark: 'left a mark',
}

const SCALE = Array.from({ length: 11 }, (_, i) => String(i))

export function Feel({
  looking,
  visit,
  early,
}: {
  looking: Looking
  visit: VisitPage
  early: boolean
}) {
  const nicks = visit.chair.nicks.map((n) => ({ id: n.id, zoneId: nickZone(visit.plan, n) }))
  const { feeling } = looking.look
  const set = (change: Partial<typeof feeling>) =>
    looking.change((look) => ({ feeling: { ...look.feeling, ...change } }))
  return (
    <Fieldset variant="unstyled" disabled={early} aria-label="How it feels" flex="none">
      <Group gap="xs">
        <Scale
          label="Stings"
          value={feeling.stinging}
          of={SCALE}
          onPick={(stinging) => set({ stinging })}
        />
        <Scale label="Itches" value={feeling.itch} of={SCALE} onPick={(itch) => set({ itch })} />
        <Scale
          label="Dryness"
          value={feeling.dryness}
          of={DRYNESS_WORDS}
          wide
          onPick={(dryness) => set({ dryness })}
        />
        {nicks.map((nick, i) => (
          <PickOne
            key={nick.id}
            aria-label={`Nick${nicks.length > 1 ? ` ${i + 1}` : ''}${nick.zoneId ? `, ${zoneName(nick.zoneId).toLowerCase()}` : ''}`}
            placeholder="Nick: –"
            w={170}
            clearable
            data={named(NICK_STATES, (v) => NICK_WORDS[v])}
            value={feeling.nicks?.[nick.id]}
            onChange={(state) => set({ nicks: { ...feeling.nicks, [nick.id]: state } })}
            onClear={() => {
              const { [nick.id]: _before, ...others } = feeling.nicks ?? {}
              set({ nicks: others })
            }}
          />
        ))}
      </Group>
      {feeling.spreading && <b>Spreading, hot, or the client feels ill.</b>}
      {feeling.words && (
        <Text fs="italic">
          <q>{feeling.words}</q>
        </Text>
      )}
    </Fieldset>
  )
}

/** A feeling on its scale. */
const Scale = ({
  label,
  value,
  of,
  wide = false,
  onPick,
}: {
  label: string
  value: number | undefined
  of: readonly string[]
  wide?: boolean
  onPick: (value: number) => void
}) => (
  <PickOne
    aria-label={label}
    placeholder={`${label}: –`}
    w={wide ? 170 : 124}
    data={of.map((words, i) => ({ value: String(i), label: `${label}: ${words}` }))}
    value={value === undefined ? undefined : String(value)}
    onChange={(v) => onPick(Number(v))}
  />
)
