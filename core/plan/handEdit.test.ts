import { DEFAULT_SCHOOLS, DEFAULTS } from '../house/index.ts'
import type { DomainError } from '../errors.ts'
import { SERVICES, type ServiceId } from '../services/index.ts'
import { BLADE_IDS, BLADES } from '../kit/index.ts'
import { bladeRefusal, checkHandEdit, wayRefusal } from './handEdit.ts'

const ALL = { service: 'face-shave', level: 'practised', kit: BLADE_IDS } as const
const ids = Object.keys(SERVICES) as ServiceId[]
const bare = BLADE_IDS.find(
  (id) => BLADES[id].practised && SERVICES['face-shave'].blades.includes(id),
)!
const cartridge = BLADE_IDS.find((id) => BLADES[id].tool === 'cartridge')!
const trimmer = BLADE_IDS.find((id) => BLADES[id].tool === 'trimmer')!
const fuzzBlade = BLADE_IDS.find((id) => BLADES[id].tool === 'dermaplaning')!
const lane = {
  ...ALL,
  pass: 2,
  bladeId: bare,
  hair: 'terminal',
  client: { bumpProne: false },
  curlTight: false,
  screening: { withGrainOnly: false },
  ...{ figures: DEFAULTS, schools: DEFAULT_SCHOOLS },
} as const

describe('a blade chosen by hand', () => {
  it.each(ids)('of %s is one of its own; a trimmer may stand in where a razor works', (service) => {
    for (const id of BLADE_IDS) {
      const own = SERVICES[service].blades.includes(id)
      const may = own || (SERVICES[service].family === 'razor' && id === trimmer)
      const why = bladeRefusal({ ...ALL, service }, id)
      expect([id, why === undefined]).toEqual([id, may])
      if (why) expect(why).toContain(BLADES[id].name)
    }
  })

  it('lies in the kit, and bare only in practised hands', () => {
    expect(bladeRefusal({ ...ALL, kit: [] }, bare)).toMatch('The kit holds no')
    expect(bladeRefusal({ ...ALL, level: 'learning' }, bare)).toMatch('only for practised hands')
    expect(bladeRefusal(ALL, bare)).toBeUndefined()
  })
})

const OWN_RECORD = { multiBlade: 'own-record' } as const

describe('a way chosen by hand', () => {
  it.each<[string, object, 'with' | 'across' | 'against', RegExp | undefined]>([
    ['with the grain always', { screening: { withGrainOnly: true } }, 'with', undefined],
    ['across on a second pass', {}, 'across', undefined],
    ['against on a second pass', {}, 'against', undefined],
    ['against as the first pass', { pass: 1 }, 'against', /never the first pass/],
    ['against with a cartridge', { bladeId: cartridge }, 'against', /never goes against/],
    [
      'against with a cartridge where the record is too short',
      { bladeId: cartridge, schools: OWN_RECORD, record: { visits: 3, reddened: 0 } },
      'against',
      /own record bears it out: 6 answered visits without redness, so far 3/,
    ],
    [
      'against with a cartridge where it reddened',
      { bladeId: cartridge, schools: OWN_RECORD, record: { visits: 8, reddened: 1 } },
      'against',
      /so far 8, 1 of them red/,
    ],
    [
      'against with a cartridge where the record bears it out',
      { bladeId: cartridge, schools: OWN_RECORD, record: { visits: 6, reddened: 0 } },
      'against',
      undefined,
    ],
    [
      'across where care is called for',
      { screening: { withGrainOnly: true } },
      'across',
      /With the grain only/,
    ],
    [
      'against on bump-prone, tightly curled hair',
      { client: { bumpProne: true }, curlTight: true },
      'against',
      /turns back into the skin/,
    ],
    ['across on a beard line', { service: 'beard-line' }, 'across', /goes with the grain/],
    [
      'against on fuzz',
      { service: 'dermaplane', bladeId: fuzzBlade, hair: 'fuzz' },
      'against',
      /Fuzz is never/,
    ],
    ['against with a trimmer, first', { pass: 1, bladeId: trimmer }, 'against', undefined],
  ])('%s', (_name, over, relation, why) => {
    const found = wayRefusal({ ...lane, ...over }, relation)
    if (why) expect(found).toMatch(why)
    else expect(found).toBeUndefined()
  })

  const code = (
    q: object,
    changed: { blade: boolean; way: boolean },
    relation: 'across' | 'against',
  ) => {
    try {
      checkHandEdit({ ...lane, ...q }, changed, relation)
      return undefined
    } catch (error) {
      return (error as DomainError).code
    }
  }

  it('is looked at only where a hand changed something; a cartridge against the grain always', () => {
    const none = { blade: false, way: false }
    expect(code({ pass: 1 }, none, 'against')).toBeUndefined()
    expect(code({ pass: 1 }, { blade: false, way: true }, 'against')).toBe('not-this-way')
    expect(code({ bladeId: cartridge }, none, 'against')).toBe('never-against')
    expect(
      code(
        { bladeId: cartridge, screening: { withGrainOnly: true } },
        { blade: false, way: true },
        'across',
      ),
    ).toBe('not-this-way')
    expect(code({ bladeId: fuzzBlade }, { blade: true, way: false }, 'across')).toBe(
      'not-this-blade',
    )
  })
})
