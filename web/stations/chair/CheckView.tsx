/** The second look: where most is missed is felt first; missed patches are tapped on the head and become lanes; only a choice with its name leaves them. */
import css from './Chair.module.css'
import { Button, Group, Text } from '@mantine/core'
import { useEffect, useMemo } from 'react'
import type { Draft } from '../../../core/chair/index.ts'
import { viewOf } from '../../../core/head/index.ts'
import { feelFirst, missHair, missWords } from '../../../core/history/index.ts'
import { isBodySitting, SERVICES } from '../../../core/services/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useView } from '../../state/view.ts'
import type { ChairProps } from './ChairHead.tsx'
import { useTaps } from './taps.ts'
import type { Proposal } from './useReplan.ts'

export function CheckView({
  tell,
  missed,
  ...props
}: ChairProps & { tell: (draft: Draft) => Promise<boolean>; missed: Proposal }) {
  const { live } = props.chair
  const { begin, places, clear } = useTaps()
  useEffect(() => begin('patches', 8), [begin])
  const left = live.state.patchesLeft.length
  if (places.length === 0) {
    const fuzz = SERVICES[live.plan.service].family === 'fuzz'
    return (
      <>
        <FeelFirst {...props} />
        <p className={css.notice}>
          {fuzz
            ? 'Nothing is gone over twice: tap what was missed, and it waits for the next visit.'
            : 'Missed a patch? Tap it on the head: it becomes a lane.'}
          {left > 0 && ` ${left} left as they are.`}
        </p>
      </>
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

/** Where this worker, or the house, misses most in such hair: in the order in which it is worth feeling. */
function FeelFirst({ chair, visit, page }: ChairProps) {
  const figures = useFigures()
  const turnTo = useView((s) => s.turnTo)
  const choose = useView((s) => s.choose)
  const { plan } = chair.live
  const { misses = [] } = visit.facts
  const first = useMemo(() => {
    const on = { coarseness: page.client.skin.coarseness, hair: visit.notes.hair }
    const zones = plan.zones.map(({ zoneId }) => ({ zoneId, hair: missHair(plan, on, zoneId) }))
    return feelFirst(figures, zones, misses)
  }, [figures, plan, misses, page.client.skin, visit.notes.hair])
  if (first.length === 0) return null
  const show = (zoneId: ZoneId) => {
    choose(zoneId)
    const lane = plan.lanes.find((l) => l.zoneId === zoneId)
    if (!lane || isBodySitting(plan.jobs)) return
    const v = viewOf(lane.normal)
    turnTo(v.yawDeg, v.pitchDeg)
  }
  return (
    <>
      <Text>Feel first where most is missed:</Text>
      <Group gap="sm" role="group" aria-label="Feel first">
        {first.map((f, i) => (
          <Button key={f.zoneId} size="sm" onClick={() => show(f.zoneId)}>
            {i + 1} {zoneName(f.zoneId)}: {missWords(f)}
          </Button>
        ))}
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
