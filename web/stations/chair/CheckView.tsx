/** The second look: missed patches are tapped on the head and become lanes; only a choice with its name leaves them. */
import css from './Chair.module.css'
import { Button, Group } from '@mantine/core'
import { useEffect } from 'react'
import type { Draft } from '../../../core/chair/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import type { ChairProps } from './ChairHead.tsx'
import { useTaps } from './taps.ts'
import type { Proposal } from './useReplan.ts'

export function CheckView({
  chair,
  tell,
  missed,
}: ChairProps & { tell: (draft: Draft) => Promise<boolean>; missed: Proposal }) {
  const { begin, places, clear } = useTaps()
  useEffect(() => begin('patches', 8), [begin])
  const left = chair.live.state.patchesLeft.length
  if (places.length === 0) {
    const fuzz = SERVICES[chair.live.plan.service].family === 'fuzz'
    return (
      <p className={css.notice}>
        {fuzz
          ? 'Nothing is gone over twice: tap what was missed, and it waits for the next visit.'
          : 'Missed a patch? Tap it on the head: it becomes a lane.'}
        {left > 0 && ` ${left} left as they are.`}
      </p>
    )
  }
  const drop = async () => {
    if (await tell(leaveDraft())) clear()
  }
  return (
    <>
      {missed.why && <p className={css.notice}>{missed.why}</p>}
      <Group gap="sm">
        <Button size="lg" onClick={() => void drop()}>
          Leave {places.length === 1 ? 'this patch' : `these ${places.length} patches`} undone
        </Button>
        <Button size="lg" onClick={clear}>
          I did not mean to tap
        </Button>
      </Group>
    </>
  )
}

/** The tapped patches as left undone: the record says so. */
export function leaveDraft(): Draft {
  const { places } = useTaps.getState()
  return {
    kind: 'patches-left',
    detail: { patches: places.map(({ zoneId, point }) => ({ zoneId, point })) },
  }
}
