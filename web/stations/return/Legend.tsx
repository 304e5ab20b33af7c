/** What the marks and grades of a look mean. */
import { Button } from '@mantine/core'
import { useState } from 'react'
import { SPOT_SHAPES, SKIN_SPOT_WORDS } from '../../../core/formats/index.ts'
import type { SpotKind } from '../../../core/looks/index.ts'
import { REDNESS_WORDS } from '../../../core/skin/index.ts'
import { REDNESS_COLOURS } from '../../../core/palette.ts'

export function SpotSign({ kind }: { kind: SpotKind }) {
  const { d, filled } = SPOT_SHAPES[kind]
  return (
    <svg viewBox="-4 -4 8 8" width="17" height="17" className="spot-sign" aria-hidden>
      <path d={d} className={filled ? 'filled' : ''} />
    </svg>
  )
}

/** The scale; a grade that is tapped says how it looks, on light and on dark skin. */
export function Grades() {
  const [told, setTold] = useState<number>()
  return (
    <>
      <div className="grades" role="group" aria-label="How each grade looks">
        {REDNESS_WORDS.map(([word, look], grade) => (
          <Button
            size="sm"
            key={word}
            title={look}
            aria-expanded={told === grade}
            onClick={() => setTold(told === grade ? undefined : grade)}
          >
            <i style={{ background: REDNESS_COLOURS[grade] }}>{grade}</i>
            {word}
          </Button>
        ))}
      </div>
      {told !== undefined && (
        <p className="soft look-help">
          {told} {REDNESS_WORDS[told]![0]}: {REDNESS_WORDS[told]![1]}.
        </p>
      )}
    </>
  )
}

export function MarkHelp({ means, earlier }: { means: SpotKind; earlier: number }) {
  return (
    <p className="soft look-help">
      Tap each {SKIN_SPOT_WORDS[means]}; a second tap takes it away.{' '}
      {earlier > 0 && 'Dashed: there before; tapped again it is followed.'}
    </p>
  )
}
