/** How the skin feels as a whole, and how nicks heal. */
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

const scale = Array.from({ length: 11 }, (_, i) => i)

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
    <fieldset className="look-feel" disabled={early}>
      <Pick
        label="Stings"
        value={feeling.stinging}
        choices={scale.map(String)}
        onPick={(stinging) => set({ stinging })}
      />
      <Pick
        label="Itches"
        value={feeling.itch}
        choices={scale.map(String)}
        onPick={(itch) => set({ itch })}
      />
      <Pick
        label="Dryness"
        value={feeling.dryness}
        choices={DRYNESS_WORDS}
        onPick={(dryness) => set({ dryness })}
      />
      {nicks.map((nick, i) => (
        <label key={nick.id}>
          Nick{nicks.length > 1 ? ` ${i + 1}` : ''}
          {nick.zoneId ? `, ${zoneName(nick.zoneId).toLowerCase()}` : ''}
          <select
            value={feeling.nicks?.[nick.id] ?? ''}
            onChange={(e) => {
              const { [nick.id]: _before, ...others } = feeling.nicks ?? {}
              const state = e.currentTarget.value as NickState | ''
              set({ nicks: state ? { ...others, [nick.id]: state } : others })
            }}
          >
            <option value="">–</option>
            {NICK_STATES.map((s) => (
              <option key={s} value={s}>
                {NICK_WORDS[s]}
              </option>
            ))}
          </select>
        </label>
      ))}
      {feeling.spreading && <b>Spreading, hot, or the client feels ill.</b>}
      {feeling.words && <q className="told-words">{feeling.words}</q>}
    </fieldset>
  )
}

function Pick({
  label,
  value,
  choices,
  onPick,
}: {
  label: string
  value: number | undefined
  choices: readonly string[]
  onPick: (value: number) => void
}) {
  return (
    <label>
      {label}
      <select
        value={value ?? ''}
        onChange={(e) => e.currentTarget.value !== '' && onPick(Number(e.currentTarget.value))}
      >
        <option value="">–</option>
        {choices.map((c, i) => (
          <option key={c} value={i}>
            {c}
          </option>
        ))}
      </select>
    </label>
  )
}
