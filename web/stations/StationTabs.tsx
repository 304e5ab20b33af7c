/** The tabs of a station. Which one is open stands in the address, so that it stays when another visit is looked at. */
import { Tabs } from '@mantine/core'
import type { ReactNode } from 'react'
import { useSearchParams } from 'react-router'

type TabList<T extends string> = readonly (readonly [T, string])[]

/** The tab in the address, or the usual one where it names none of these. */
export function useTab<T extends string>(tabs: TabList<T>, usual: T) {
  const [search, setSearch] = useSearchParams()
  const tab = tabs.find(([id]) => id === search.get('tab'))?.[0] ?? usual
  const setTab = (to: T) =>
    setSearch(
      (at) => {
        at.set('tab', to)
        return at
      },
      { replace: true },
    )
  return [tab, setTab] as const
}

export function StationTabs<T extends string>({
  label,
  tabs,
  tab,
  onTab,
  after,
}: {
  label: string
  tabs: TabList<T>
  tab: T
  onTab: (tab: T) => void
  /** What stands behind the name of a tab: how many. */
  after?: (tab: T) => ReactNode
}) {
  return (
    <Tabs value={tab} onChange={(t) => onTab(t as T)} className="no-print">
      <Tabs.List aria-label={label}>
        {tabs.map(([id, name]) => (
          <Tabs.Tab key={id} value={id}>
            {name}
            {after?.(id)}
          </Tabs.Tab>
        ))}
      </Tabs.List>
    </Tabs>
  )
}
