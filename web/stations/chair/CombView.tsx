/** "Comb and compare": which side has more to do, answered where it is seen; the rest follows at once. */
import css from './Chair.module.css'
import { Button, Group } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import type { Draft } from '../../../core/chair/index.ts'
import { HEAVIER_SIDES, type HeavierSide } from '../../../core/hair/index.ts'
import type { ChairProps } from './ChairHead.tsx'
import { amended } from './panelProps.ts'
import { useReplan } from './useReplan.ts'

const WORDS: Readonly<Record<HeavierSide, string>> = {
  left: 'Client’s left',
  right: 'Client’s right',
  alike: 'Alike',
}

export function CombView({
  tell,
  ...props
}: ChairProps & { tell: (draft: Draft) => Promise<boolean> }) {
  const { live } = props.chair
  const [side, setSide] = useState<HeavierSide | undefined>()
  const { replanned, why, pending } = useReplan(props, live, side && { kind: 'heavier', side })
  // The answer is the order: it is told as soon as it is worked out.
  const told = useRef<unknown>(undefined)
  useEffect(() => {
    if (!replanned || told.current === replanned) return
    told.current = replanned
    void tell(amended(replanned))
  }, [replanned, tell])
  return (
    <>
      <Group gap="sm" role="group" aria-label="Side with more to do">
        {HEAVIER_SIDES.map((s) => (
          <Button
            key={s}
            size="lg"
            variant={s === side ? 'filled' : 'default'}
            aria-pressed={s === side}
            onClick={() => setSide(s)}
          >
            {WORDS[s]}
          </Button>
        ))}
      </Group>
      {(pending || why) && (
        <p role="status" className={css.notice}>
          {pending ? 'The lanes are put in that order…' : why}
        </p>
      )}
    </>
  )
}
