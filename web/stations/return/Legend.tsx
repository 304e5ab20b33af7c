/** What the marks and grades of a look mean. */
import css from './Return.module.css'
import { Text, UnstyledButton } from '@mantine/core'
import { useState } from 'react'
import { SPOT_SHAPES, SKIN_SPOT_WORDS } from '../../../core/formats/index.ts'
import type { SpotKind } from '../../../core/looks/index.ts'
import { REDNESS_WORDS } from '../../../core/skin/index.ts'
import { onRedness, REDNESS_COLOURS } from '../../../core/palette.ts'

export function SpotSign({ kind }: { kind: SpotKind }) {
  const { d, filled } = SPOT_SHAPES[kind]
  return (
    <svg viewBox="-4 -4 8 8" width="17" height="17" className={css.sign} aria-hidden>
      <path d={d} data-filled={filled || undefined} />
    </svg>
  )
}

/** The scale; a grade that is tapped says how it looks, on light and on dark skin. */
export function Grades() {
  const [told, setTold] = useState<number>()
  return (
    <>
      <div className={css.grades} role="group" aria-label="How each grade looks">
        {REDNESS_WORDS.map(([word, look], grade) => (
          <UnstyledButton
            key={word}
            className={css.grade}
            title={look}
            aria-expanded={told === grade}
            onClick={() => setTold(told === grade ? undefined : grade)}
          >
            <i style={{ background: REDNESS_COLOURS[grade], color: onRedness(grade) }}>{grade}</i>
            {word}
          </UnstyledButton>
        ))}
      </div>
      {told !== undefined && (
        <Text size="sm" c="dimmed">
          {told} {REDNESS_WORDS[told]![0]}: {REDNESS_WORDS[told]![1]}.
        </Text>
      )}
    </>
  )
}

export function MarkHelp({ means, earlier }: { means: SpotKind; earlier: number }) {
  return (
    <Text size="sm" c="dimmed">
      Tap each {SKIN_SPOT_WORDS[means]}; a second tap takes it away.{' '}
      {earlier > 0 && 'Dashed: there before; tapped again it is followed.'}
    </Text>
  )
}
