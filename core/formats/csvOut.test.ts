/** No cell of a table can run anything in a spreadsheet that opens it; and what was written is read again. */
import fc from 'fast-check'
import Papa from 'papaparse'
import { csvOf, safeCell } from './csvOut.ts'

const LINE = String.fromCharCode(0x2028)
const FULL = String.fromCharCode(0xff1d)
const BLANK = String.fromCharCode(0xa0)
const ZERO = String.fromCharCode(0x200b)
const MARK = String.fromCharCode(0xfeff)
const MINUS = String.fromCharCode(0x2212)

describe('cells', () => {
  it.each([
    '=1+1',
    '+1',
    '-1+cmd',
    '@SUM(A1)',
    // A line break behind it hid it from a pattern that stops at one.
    '=1+1\n',
    '=HYPERLINK("x")\nharmless',
    '=1\r\n2',
    '\t=1',
    '\r=1',
    '\n=1',
    ' =1',
    `${BLANK}=1`,
    `${ZERO}=1`,
    `${MARK}=1`,
    `${LINE}=1`,
    `${FULL}1+1`,
    `${MINUS}1`,
    '"=1',
  ])('that begin like a formula are made plain text: %j', (cell) => {
    const safe = safeCell(cell)
    if (cell.startsWith('"')) expect(safe).toBe(cell)
    else expect(safe).toBe(`'${cell}`)
  })

  it.each(['chin', '1+1', 'a=b', 'it burns - a little', '', 'Müller'])(
    'that do not are left as they are: %j',
    (cell) => expect(safeCell(cell)).toBe(cell),
  )

  it('that are numbers stay numbers, below nought too', () => {
    expect(safeCell(-3)).toBe(-3)
    expect(csvOf(['n'], [{ n: -3 }])).toBe('n\r\n-3\r\n')
  })
})

it('a table is read again cell by cell, none beginning like a formula', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.string({ unit: 'binary' }), fc.string()), {
        minLength: 1,
        maxLength: 5,
      }),
      (rows) => {
        const text = csvOf(
          ['a', 'b'],
          rows.map(([a, b]) => ({ a, b })),
        )
        const read = Papa.parse<string[]>(text, { delimiter: ',', newline: '\r\n' }).data.slice(
          1,
          -1,
        )
        expect(read).toEqual(rows.map((r) => r.map(safeCell)))
        for (const cell of read.flat()) expect(cell).not.toMatch(/^\s*[=+@-]/)
      },
    ),
  )
})
