/** The hair marks of a field, worked out beside the page; while a stroke is drawn they follow it as fast as they can. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { FieldReading, Streamlets } from '../../core/grain/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import type { FlowAsk } from '../../core/grain/index.ts'
import { drawnBySoftware } from './drawing.ts'
import type { LoadedHead } from './loadHead.ts'
import type { HeadFlow } from './shared.ts'

/** Without a card a frame would hold the hand up: the hair follows once the hand has rested so long, ms. */
const REST_MS = 250

export function useFlow(
  head: LoadedHead,
  flow: HeadFlow | undefined,
  level: number,
): {
  marks: Streamlets | undefined
  /** Shows what a stroke would leave; null when it has ended. */
  follow: (drawing: readonly FieldReading[] | null) => void
} {
  const [marks, setMarks] = useState<Streamlets>()
  const ask = useMemo<FlowAsk | undefined>(
    () =>
      flow && {
        readings: flow.readings,
        reversed: flow.reversed ?? false,
        guesses: flow.guesses ?? false,
        level,
        faint: [...(flow.faint ?? [])] as ZoneId[],
      },
    [flow, level],
  )
  const current = useRef(ask)
  current.current = ask
  useEffect(() => {
    if (!ask) {
      setMarks(undefined)
      return
    }
    let wanted = true
    void head.worker.flow(ask).then((made) => {
      if (wanted) setMarks(made)
    })
    return () => {
      wanted = false
    }
  }, [head, ask])

  const drawing = useRef<{ waiting: readonly FieldReading[] | null; busy: boolean }>({
    waiting: null,
    busy: false,
  })
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(rest.current), [])
  const demand = useCallback(
    (readings: readonly FieldReading[] | null) => {
      const d = drawing.current
      d.waiting = readings
      if (d.busy) return
      // One demand at a time, always with the newest stroke.
      const next = async () => {
        d.busy = true
        while (d.waiting && current.current) {
          const now = d.waiting
          d.waiting = null
          const made = await head.worker.flow({ ...current.current, drawing: now })
          setMarks(made)
          if (d.waiting === now) break
        }
        d.busy = false
      }
      if (readings) void next()
    },
    [head],
  )
  const follow = useCallback(
    (readings: readonly FieldReading[] | null) => {
      clearTimeout(rest.current)
      if (readings && drawnBySoftware()) {
        rest.current = setTimeout(() => demand(readings), REST_MS)
      } else demand(readings)
    },
    [demand],
  )
  return { marks, follow }
}
