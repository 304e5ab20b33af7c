import fc from 'fast-check'
import { joinThree, withField } from './threeWay.ts'

const was = {
  phone: '1',
  note: '',
  skin: { curl: 'straight', coarse: 'fine' },
  spots: [{ id: 'a', kind: 'mole' }],
}

it('takes from each what only that one changed, within fields and lists too', () => {
  const mine = { ...was, phone: '2', skin: { ...was.skin, curl: 'coiled' } }
  const theirs = {
    ...was,
    note: 'late',
    skin: { ...was.skin, coarse: 'thick' },
    spots: [...was.spots, { id: 'b', kind: 'scar' }],
  }
  expect(joinThree(was, mine, theirs)).toEqual({
    value: { ...theirs, phone: '2', skin: { curl: 'coiled', coarse: 'thick' } },
    differ: [],
  })
})

it('tells what both changed differently, and keeps what stands here unless told otherwise', () => {
  const mine = { ...was, phone: '2', spots: [{ id: 'a', kind: 'scar' }] }
  const theirs = { ...was, phone: '3', spots: [{ id: 'a', kind: 'wart' }] }
  const { value, differ } = joinThree(was, mine, theirs)
  expect(value).toEqual(theirs)
  expect(differ).toEqual([
    { path: ['phone'], mine: '2', theirs: '3' },
    { path: ['spots', 'a', 'kind'], mine: 'scar', theirs: 'wart' },
  ])
  const careful = joinThree(
    { sunburn: { yes: false } },
    { sunburn: { yes: true } },
    { sunburn: { yes: false, seen: 1 } },
    { holds: (m) => m === true },
  )
  expect(careful).toEqual({ value: { sunburn: { yes: true, seen: 1 } }, differ: [] })
})

it('takes what belongs together whole, and passes over what says nothing', () => {
  const of = (name: string, atMs: number) => ({ consent: { name, path: `M${name}` }, atMs })
  const { value, differ } = joinThree({}, of('A', 1), of('B', 2), {
    whole: ['consent'],
    quiet: ['atMs'],
  })
  expect(value).toEqual({ consent: { name: 'B', path: 'MB' }, atMs: 2 })
  expect(differ.map((d) => d.path)).toEqual([['consent']])
})

it('what was taken out by one goes, unless the other changed it', () => {
  const none = { ...was, spots: [] }
  expect(joinThree(was, none, was).value).toEqual(none)
  const changed = { ...was, spots: [{ id: 'a', kind: 'scar' }] }
  expect(joinThree(was, none, changed).differ).toEqual([
    { path: ['spots', 'a'], mine: undefined, theirs: { id: 'a', kind: 'scar' } },
  ])
})

const tree = fc.letrec((tie) => ({
  value: fc.oneof({ maxDepth: 3 }, fc.integer({ min: 0, max: 3 }), fc.boolean(), tie('fields')),
  fields: fc.dictionary(fc.constantFrom('a', 'b', 'c'), tie('value'), { maxKeys: 3 }),
})).fields

it('loses nothing: one side alone is taken as it is, and every difference holds both', () => {
  fc.assert(
    fc.property(tree, tree, tree, (base, mine, theirs) => {
      expect(joinThree(base, mine, base).value).toEqual(mine)
      expect(joinThree(base, base, theirs).value).toEqual(theirs)
      const { value, differ } = joinThree(base, mine, theirs)
      // Settled for mine throughout it holds mine wherever both had changed; nothing else moves.
      const settled = differ.reduce((v, d) => withField(v, d.path, d.mine), value)
      expect(joinThree(base, mine, theirs, { holds: () => true }).value).toEqual(settled)
    }),
  )
})

it('changes one field and leaves the rest', () => {
  expect(withField(was, ['spots', 'a', 'kind'], 'scar').spots).toEqual([{ id: 'a', kind: 'scar' }])
  expect(withField(was, ['spots', 'c'], { id: 'c' }).spots.map((s) => s.id)).toEqual(['a', 'c'])
  expect(withField(was, ['spots', 'a'], undefined).spots).toEqual([])
  expect(withField({}, ['x', 'y'], 1)).toEqual({ x: { y: 1 } })
})
