import fc from 'fast-check'
import { draftClients, guessMapping, readClientsFile, type Mapping } from './clientsIn.ts'

const read = (
  text: string,
  known: { name: string; phone: string; email: string }[] = [],
  mapping?: Mapping,
) => {
  const table = readClientsFile(text)
  return { table, drafts: draftClients(table, mapping ?? guessMapping(table), known) }
}

describe('vCards', () => {
  // The form of RFC 6350, section 8 ("Authors' contact information"), with an invented person.
  const card = (more = '') =>
    `BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Maren Østby\r\nN:Østby;Maren;;;\r\nNICKNAME:Maz\r\nTITLE:Rope maker\r\nTEL;TYPE=home:0555 01 90\r\nTEL;TYPE=cell:+47 555 01 91\r\nEMAIL:maren@example.org\r\nBDAY:19960415\r\nNOTE:Line one\\, and\\nline two\r\n${more}END:VCARD\r\n`

  it('are read with their lines unfolded, escapes undone and the mobile number first', () => {
    const { drafts } = read(card('X-LONG:aaaa\r\n bbbb\r\n'))
    expect(drafts).toEqual([
      expect.objectContaining({
        name: 'Maren Østby',
        calledName: 'Maz',
        occupation: 'Rope maker',
        bornOn: '1996-04-15',
        phone: '+47 555 01 91',
        email: 'maren@example.org',
        note: 'Line one, and line two',
        problems: [],
        mended: [],
        same: undefined,
      }),
    ])
  })

  it('of the third version, and without a formatted name, are read too', () => {
    const { drafts } = read(
      'BEGIN:VCARD\nVERSION:3.0\nN:Dale;Rosa;;;\nTEL;TYPE=CELL:555123456\nEND:VCARD\n',
    )
    expect(drafts[0]).toMatchObject({ name: 'Rosa Dale', phone: '555123456' })
  })

  it('that are broken cost no other', () => {
    const { table, drafts } = read(`${card()}BEGIN:VCARD\nFN:No end\n${card()}`)
    expect(drafts).toHaveLength(2)
    expect(table.unread).toEqual([{ line: 13, why: 'The card has no end.' }])
    expect(drafts[1]!.same).toContain('line 1')
  })
})

describe('CSV', () => {
  it.each([
    ['1990-05-31', '1990-05-31'],
    ['31.5.1990', '1990-05-31'],
    ['3.4.1990', '1990-04-03'],
    ['31/05/1990', '1990-05-31'],
    ['05/31/1990', '1990-05-31'],
    ['4/4/1990', '1990-04-04'],
    // Could be the third of April or the fourth of March; and no such day.
    ['03/04/1990', ''],
    ['31/31/1990', ''],
    ['May 1990', ''],
  ])('a day of birth written %s is %s', (written, kept) => {
    const [draft] = read(`name,date of birth\nOle Brandt,${written}\n`).drafts
    expect(draft!.bornOn).toBe(kept)
    expect(draft!.mended).toHaveLength(kept ? 0 : 1)
  })

  it('finds its columns by their headings, and joins first and last names', () => {
    const { table, drafts } = read(
      '\uFEFFFirst name,Last name,Mobile,E-mail,Job title,Comments\nOle,Brandt,0555 11,ole@example.org,diver,"says ""hello"", often"\n',
    )
    expect(table.columns).toHaveLength(6)
    expect(drafts[0]).toMatchObject({
      name: 'Ole Brandt',
      phone: '0555 11',
      occupation: 'diver',
      note: 'says "hello", often',
    })
  })

  it('without headings takes the first column as the name until told otherwise', () => {
    const { drafts, table } = read('Ada Stone;0555 21\nBo Stone;0555 22\n')
    expect(drafts.map((d) => d.name)).toEqual(['Ada Stone', 'Bo Stone'])
    const again = draftClients(table, { name: 1 }, [])
    expect(again.map((d) => d.name)).toEqual(['0555 21', '0555 22'])
  })

  it('says what it mended and what it cannot take', () => {
    const { drafts } = read(`name,phone,email\n,0555,a@b\n${'n'.repeat(90)},call me,nobody\n`)
    expect(drafts[0]!.problems).toEqual(['There is no name.'])
    expect(drafts[1]!.name).toHaveLength(80)
    expect(drafts[1]!.mended).toHaveLength(3)
    expect(drafts[1]).toMatchObject({ phone: '', email: '' })
  })

  it('finds who is here already by name, number or mail, whatever the writing', () => {
    const known = [{ name: 'Zoë  Lang', phone: '+44 (0)555 010-222', email: 'Z@Example.org' }]
    const { drafts } = read(
      'name,phone,email\nzoe lang,,\nSomeone,0555010222,\nOther,,z@example.ORG\nNew,,\nnew,,\n',
      known,
    )
    expect(drafts.map((d) => d.same)).toEqual([
      'Zoë  Lang',
      'Zoë  Lang',
      'Zoë  Lang',
      undefined,
      'line 5, New',
    ])
  })

  it('refuses nothing and too much with a sentence', () => {
    expect(() => readClientsFile('   \n ')).toThrow('nobody in that file')
    expect(() => readClientsFile('x'.repeat(12_000_001))).toThrow('larger than 12 MB')
    expect(() => readClientsFile(`name\n${'a\n'.repeat(20_001)}`)).toThrow('more than 20,000')
  })

  it('never throws on any text, and never lets an unseen character into a name', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => {
        let table
        try {
          table = readClientsFile(`name,phone,email,note\n${text}`)
        } catch (error) {
          // Only a sentence of our own.
          expect((error as { code?: string }).code).toBeDefined()
          return
        }
        for (const d of draftClients(table, guessMapping(table), [])) {
          expect(d.name.length).toBeLessThanOrEqual(80)
          // eslint-disable-next-line no-control-regex
          expect(d.name).not.toMatch(/[\u0000-\u001f\u007f-\u009f\u202a-\u202e]/)
        }
      }),
      { numRuns: 300 },
    )
  })
})

describe('a column of services', () => {
  it('is taken by what a service is called; what is not known is said, and left to the choice for all', () => {
    const table = readClientsFile(
      'Name,Service\nAda Quill,Hot-towel face shave\nBo Reef,dermaplane\nCy Moor,Brazilian\nDi Pell,',
    )
    const drafts = draftClients(table, guessMapping(table), [])
    expect(drafts.map((d) => d.service)).toEqual(['face-shave', 'dermaplane', undefined, undefined])
    expect(drafts[2]!.mended.join()).toContain('“Brazilian” is no service of this house')
    expect(drafts[3]!.mended).toEqual([])
  })
})
