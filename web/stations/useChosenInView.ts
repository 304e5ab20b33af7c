import { useEffect, useRef } from 'react'

/** Room that the sticky head of a list takes, px. */
const HEAD_PX = 36

/** Keeps the chosen row of a scrolling list in view, without moving anything round the list. */
export function useChosenInView(chosen: string | null | undefined) {
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const box = list.current
    const row = box?.querySelector<HTMLElement>('tr[data-chosen]')
    if (!box || !row) return
    const above = row.getBoundingClientRect().top - box.getBoundingClientRect().top - HEAD_PX
    const below = row.getBoundingClientRect().bottom - box.getBoundingClientRect().bottom
    if (above < 0) box.scrollTop += above
    else if (below > 0) box.scrollTop += below
  }, [chosen])
  return list
}
