import fc from 'fast-check'
import { textOfFile } from './fileText.ts'

const ROW = 'name;telephone\r\nÅsa Brünn;+47 123\r\n'
const utf16 = (text: string, little: boolean, mark: boolean) => {
  const bytes = Buffer.from((mark ? '\ufeff' : '') + text, 'utf16le')
  return new Uint8Array(little ? bytes : bytes.swap16())
}

describe('the text of a file', () => {
  it.each([
    ['UTF-8', new Uint8Array(Buffer.from(ROW))],
    ['UTF-8 with a mark', new Uint8Array(Buffer.from('\ufeff' + ROW))],
    ['UTF-16, small end first, as spreadsheets save it', utf16(ROW, true, true)],
    ['UTF-16, great end first', utf16(ROW, false, true)],
    ['UTF-16 without a mark', utf16(ROW, true, false)],
    ['UTF-16 without a mark, great end first', utf16(ROW, false, false)],
    ['Windows-1252', new Uint8Array(Buffer.from(ROW, 'latin1'))],
  ])('is read from %s', (_name, bytes) => {
    expect(textOfFile(bytes)).toBe(ROW)
  })

  it('is read from any bytes without complaint', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (b) => typeof textOfFile(b) === 'string'),
    )
  })
})
