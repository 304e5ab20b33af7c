/** Care: what goes home and until when; what was put on the skin; what would be sent; and when to serve before an event. */
import { ON_SKIN } from '../../../core/palette.ts'
import { useMemo } from 'react'
import { useHeadLayers } from '../../state/layers.ts'
import { StationTabs, useTab } from '../StationTabs.tsx'
import type { StationProps } from '../useStation.ts'
import { BeforeEvent } from './BeforeEvent.tsx'
import { CareDays } from './CareDays.tsx'
import { CareSheet } from './CareSheet.tsx'
import { Messages } from './Messages.tsx'
import { Products } from './Products.tsx'

const TABS = [
  ['sheet', 'Sheet'],
  ['days', '7 days'],
  ['products', 'Products'],
  ['messages', 'Messages'],
  ['event', 'Event'],
] as const

export function CareStation(props: StationProps) {
  const { visit } = props
  const worked = useMemo(
    () => ({
      tints: (visit.plan?.zones ?? []).map((z) => ({
        zoneId: z.zoneId,
        colour: ON_SKIN.water,
        opacity: 0.3,
      })),
    }),
    [visit.plan],
  )
  useHeadLayers(worked)
  const [tab, setTab] = useTab(TABS, 'sheet')
  return (
    <>
      <StationTabs label="What to show of care" tabs={TABS} tab={tab} onTab={setTab} />
      {tab === 'sheet' && <CareSheet {...props} />}
      {tab === 'days' && <CareDays {...props} />}
      {tab === 'products' && <Products {...props} />}
      {tab === 'messages' && <Messages {...props} />}
      {tab === 'event' && <BeforeEvent {...props} />}
    </>
  )
}
