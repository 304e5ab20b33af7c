import {
  bumpAreaOf,
  bumpProneIn,
  skinOver,
  CLIENT_TEXT_IDS,
  CLIENT_TEXTS,
  eachText,
  hairIn,
  skinToBegin,
} from './client.ts'

describe('what is kept of a client in their own words', () => {
  it('is found by its heading, and no heading is taken for two', () => {
    const headings = [
      ...['Nickname', 'pronouns', 'Occupation', 'JOB TITLE', 'Mobile phone', 'tel', 'E-mail'],
      ...[
        'Notes',
        'comment',
        'preferred name',
        'title',
        'Date of birth',
        'DOB',
        'birthday',
        'Born',
      ],
    ]
    for (const heading of headings)
      expect(CLIENT_TEXT_IDS.filter((id) => CLIENT_TEXTS[id].guess.test(heading))).toHaveLength(1)
  })

  it.each([
    ['phone', '+44 (0)20 7946-0000', 'call me'],
    ['email', 'ada.reef@example.org', 'ada at example'],
    ['bornOn', '1990-12-31', '1990-13-31'],
    ['bornOn', '1992-02-29', '1990-02-29'],
  ] as const)('%s has a shape', (field, good, bad) => {
    const [shape, says] = CLIENT_TEXTS[field].shape
    expect([shape.test(good), shape.test(bad)]).toEqual([true, false])
    expect(says).toMatch(/^is not an? /)
  })

  it('makes one thing for each', () => {
    const most = eachText((_, { most }) => most)
    expect(Object.keys(most)).toEqual(CLIENT_TEXT_IDS)
    expect(most.note).toBe(500)
  })
})

describe('hair to expect', () => {
  it('is fuzz on a face without a beard, and a beard up to the cheek on one with it', () => {
    expect(hairIn('chin', 'fuzz')).toBe('vellus')
    expect(hairIn('chin', 'beard')).toBe('beard')
    expect(hairIn('cheek-upper-left', 'beard')).toBe('beard')
    expect(hairIn('cheek-upper-left', 'fuzz')).toBe('vellus')
  })

  it('begins as the kind of service suggests', () => {
    expect(skinToBegin('fuzz').faceHair).toBe('fuzz')
    expect(skinToBegin('razor').faceHair).toBe('beard')
  })
})

describe('skin that is prone to bumps', () => {
  const skin = { ...skinToBegin('razor'), bumpProne: true }

  it('is so everywhere unless places are told', () => {
    expect(
      ['chin', 'neck-lower-left', 'scalp-crown', 'shin-left'].map((z) => bumpAreaOf(z as never)),
    ).toEqual(['face', 'neck', 'head', 'body'])
    expect(bumpProneIn(skin, 'chin')).toBe(true)
    expect(bumpProneIn({ ...skin, bumpAreas: ['neck'] }, 'chin')).toBe(false)
    expect(bumpProneIn({ ...skin, bumpAreas: ['neck'] }, 'neck-lower-left')).toBe(true)
    expect(bumpProneIn({ ...skin, bumpProne: false, bumpAreas: ['neck'] }, 'neck-lower-left')).toBe(
      false,
    )
  })

  it('legs do not govern the face: over its zones the skin is as told for them', () => {
    const legs = { ...skin, bumpAreas: ['body'] as const }
    expect(skinOver(legs, ['chin', 'jaw-left']).bumpProne).toBe(false)
    expect(skinOver(legs, ['chin', 'shin-left']).bumpProne).toBe(true)
  })
})
