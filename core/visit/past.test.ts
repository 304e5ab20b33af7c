import { oneJob } from '../services/index.ts'
import { pastOf, type KeptPast } from './past.ts'

const did = (loads: Record<string, number> | null): KeptPast['jobs'] => [
  { ...oneJob('job', 'face-shave'), loads, leftMm: null },
]
const KEPT: KeptPast = {
  ...{ visitId: 'v', endedAtMs: 9 },
  ...{ jobs: did(null), atChair: null, answers: [] },
}

describe('a finished visit as the next one knows it', () => {
  it('of before anything was kept of it: nothing worked, nothing red', () => {
    expect(pastOf(KEPT)).toEqual({
      ...{ visitId: 'v', jobs: did(null), endedAtMs: 9, answers: [] },
      ...{ zones: [], worked: [], redAtChair: {} },
    })
  })

  it('counts as looked at what was worked, reddened or left out, each once', () => {
    const past = pastOf({
      ...KEPT,
      jobs: did({ chin: 1.2, 'jaw-left': 0.8 }),
      atChair: {
        redness: { chin: 2, 'upper-lip-left': 1 },
        leftOut: { 'jaw-right': 'a mole', 'jaw-left': 'it reddened' },
        nicks: { chin: 1 },
      },
    })
    expect([...past.zones].sort()).toEqual(['chin', 'jaw-left', 'jaw-right', 'upper-lip-left'])
    expect(past.redAtChair).toEqual({ chin: 2, 'upper-lip-left': 1 })
  })

  it('calls worked only what a blade went over to its end', () => {
    const atChair = { redness: {}, leftOut: { 'jaw-left': 'it reddened' }, nicks: {} }
    const past = pastOf({ ...KEPT, jobs: did({ chin: 1.2, 'jaw-left': 0.8 }), atChair })
    expect(past.worked).toEqual(['chin'])
  })
})
