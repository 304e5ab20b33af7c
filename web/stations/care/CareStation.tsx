/** Care: what goes home and until when; what was put on the skin; what would be sent; and when to serve before an event. */
import { Tabs } from '@mantine/core'
import { ON_SKIN } from '../../../core/palette.ts'
import { useMemo, useState } from 'react'
import { useHeadLayers } from '../../state/layers.ts'
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
type Tab = (typeof TABS)[number][0]

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
  const [tab, setTab] = useState<Tab>('sheet')
  return (
    <>
      <Tabs value={tab} onChange={(t) => setTab(t as Tab)} className="no-print">
        <Tabs.List aria-label="What to show of care">
          {TABS.map(([id, name]) => (
            <Tabs.Tab key={id} value={id}>
              {name}
            </Tabs.Tab>
          ))}
        </Tabs.List>
      </Tabs>
      {tab === 'sheet' && <CareSheet {...props} />}
      {tab === 'days' && <CareDays {...props} />}
      {tab === 'products' && <Products {...props} />}
      {tab === 'messages' && <Messages {...props} />}
      {tab === 'event' && <BeforeEvent {...props} />}
    </>
  )
}
