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
  { id: 'growth', name: 'Growth', column: 'Grows to', verb: 'grows to', tone: 'hair' },
  {
    id: 'first-pass',
    name: 'First pass',
    column: 'Stroke to',
    verb: 'first pass to',
    tone: 'stroke',
  },
  { id: 'exfoliate', name: 'Exfoliate', column: 'Rub to', verb: 'rub to', tone: 'rub' },
]

export const mapUse = (id: MapUse) => MAP_USES.find((u) => u.id === id)!
