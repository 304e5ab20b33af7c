import { NO_PLACES, tappedNow, useTaps } from './taps.ts'
import { useTray } from './tray.ts'

const place = (zoneId: 'chin' | 'jaw-left', x: number) => ({
  ...{ zoneId, triangle: 0 },
  point: [x, 0, 0] as const,
  normal: [0, 0, 1] as const,
})
const taps = () => useTaps.getState()
beforeEach(() => {
  useTaps.setState({ mode: 'none', radiusMm: 8, places: NO_PLACES, grades: {} })
})

describe('taps on the head at the chair', () => {
  it('mean nothing until something asks for them', () => {
    taps().tap(place('chin', 0))
    expect(taps().places).toEqual([])
  })

  it('mark patches; a second tap on one takes it away, one beside it is another', () => {
    taps().begin('patches', 8)
    taps().tap(place('chin', 0))
    taps().tap(place('chin', 20))
    expect(taps().places).toHaveLength(2)
    taps().tap(place('chin', 3))
    expect(taps().places.map((p) => p.point[0])).toEqual([20])
    // The same place of another zone is not the patch.
    taps().tap(place('jaw-left', 20))
    expect(taps().places).toHaveLength(2)
  })

  it('mark one place, the last, where one is asked for', () => {
    taps().begin('one', 5)
    taps().tap(place('chin', 0))
    taps().tap(place('jaw-left', 4))
    expect(taps().places).toEqual([{ ...place('jaw-left', 4), radiusMm: 5 }])
  })

  it('mark whole zones at the first look, wherever in them', () => {
    taps().begin('zones')
    taps().tap(place('chin', 0))
    taps().tap(place('chin', 60))
    expect(taps().places).toEqual([])
    taps().tap(place('chin', 0))
    taps().grade('chin', 3)
    expect(tappedNow()).toEqual({ zones: ['chin'], grades: { chin: 3 } })
  })

  it('are of one size, changed together', () => {
    taps().begin('patches', 8)
    taps().tap(place('chin', 0))
    taps().tap(place('chin', 40))
    taps().setRadius(14)
    expect(taps().places.map((p) => p.radiusMm)).toEqual([14, 14])
    taps().clear()
    expect(taps().places).toEqual([])
  })

  it('mean again what they meant before, when what asked for them is over', () => {
    taps().begin('patches', 8)
    taps().tap(place('chin', 0))
    const end = taps().begin('one', 5)
    taps().tap(place('jaw-left', 0))
    end()
    expect(taps()).toMatchObject({ mode: 'patches', radiusMm: 8 })
    expect(taps().places.map((p) => p.zoneId)).toEqual(['chin'])
  })

  it('begin with what is there already', () => {
    const places = [{ ...place('chin', 0), radiusMm: 8 }]
    taps().begin('zones', 8, { places, grades: { chin: 2 } })
    expect(tappedNow()).toEqual({ zones: ['chin'], grades: { chin: 2 } })
  })
})

describe('the tray', () => {
  it('is ticked off and on again, each visit its own', () => {
    const { tick } = useTray.getState()
    tick('v', 'gloves')
    tick('v', 'towels')
    tick('w', 'gloves')
    tick('v', 'gloves')
    expect(useTray.getState().laid).toEqual({ v: ['towels'], w: ['gloves'] })
  })
})
