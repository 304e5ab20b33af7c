/** A nick is noted at once; here it is told where, how large, what was done. */
import css from './Chair.module.css'
import { useEffect, useState } from 'react'
import { NICK_CARE, type NickCare } from '../../../core/chair/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { Panel, Pick } from './Panel.tsx'
import type { PanelProps } from './panelProps.ts'
import { useTaps } from './taps.ts'

const SIZES = [1, 2, 4, 8] as const
const CARE_WORDS: Readonly<Record<NickCare, string>> = {
  pressure: 'light pressure',
  styptic: 'styptic',
  cold: 'cold',
  plaster: 'plaster',
}

export function NickPanel({ chair, tell, onClose }: PanelProps) {
  const nick = chair.live.state.nicks[chair.live.state.nicks.length - 1]
  const { begin, places } = useTaps()
  const [sizeMm, setSize] = useState<number>(2)
  const [did, setDid] = useState<readonly NickCare[]>(['pressure', 'styptic'])
  const [contact, setContact] = useState(false)
  useEffect(() => begin('one', 3), [begin])
  if (!nick) return null
  const at = places[0]
  const save = async () => {
    onClose()
    const where = at && { zoneId: at.zoneId, point: at.point, normal: at.normal }
    await tell({
      kind: 'nick-told',
      detail: { of: nick.id, sizeMm, did, contact, ...where },
    })
  }
  return (
    <Panel
      name="The nick"
      title={at ? `Nick: ${zoneName(at.zoneId)}` : 'Nick noted. Tap where it is on the head.'}
      onClose={onClose}
      closeWords="no more to say"
      choices={[{ words: 'Keep it so', strong: true, pick: save }]}
    >
      <div className={css.row} role="group" aria-label="How large">
        {SIZES.map((s) => (
          <Pick key={s} on={sizeMm === s} onPick={() => setSize(s)}>
            {s} mm
          </Pick>
        ))}
      </div>
      <div className={css.row} role="group" aria-label="What was done">
        {NICK_CARE.map((c) => (
          <Pick
            key={c}
            on={did.includes(c)}
            onPick={() => setDid(did.includes(c) ? did.filter((x) => x !== c) : [...did, c])}
          >
            {CARE_WORDS[c]}
          </Pick>
        ))}
      </div>
      <div className={css.row}>
        <Pick on={contact} onPick={() => setContact(!contact)}>
          blood touched me or a tool that stays
        </Pick>
      </div>
      {contact && (
        <p className={css.note}>
          Wash it off now, fresh gloves. The tool is out of use until it is disinfected for its
          whole contact time. Broken skin or eyes: follow your local rule for contact with blood
          today.
        </p>
      )}
    </Panel>
  )
}
