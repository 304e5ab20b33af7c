import type { MapUse, ReadingMethod } from '../../../core/grain/index.ts'

export const READING_METHOD_WORDS: Readonly<Record<ReadingMethod, string>> = {
  felt: 'felt',
  looked: 'looked',
  pad: 'pad',
  card: 'card',
  test: 'by test',
}

export const MAP_USES: readonly {
  readonly id: MapUse
  readonly name: string
  readonly column: string
  readonly verb: string
  readonly tone: 'hair' | 'stroke' | 'rub'
}[] = [
  { id: 'growth', name: 'Growth', column: 'Grows', verb: 'grows', tone: 'hair' },
  {
    id: 'first-pass',
    name: 'First pass',
    column: 'Stroke',
    verb: 'first pass',
    tone: 'stroke',
  },
  { id: 'exfoliate', name: 'Exfoliate', column: 'Rub', verb: 'rub', tone: 'rub' },
]

export const mapUse = (id: MapUse) => MAP_USES.find((u) => u.id === id)!
