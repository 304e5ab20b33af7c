/** @jest-environment jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import type { House, Safety } from '../../contract/types.ts'
import { useChangeHouse } from '../api/queries.ts'
import { takeSettings } from '../state/shape.ts'
import { aHouse } from '../testing/house.ts'
import { render, spy } from '../testing/render.tsx'
import { Refusal, serve } from '../testing/serve.ts'
import { USUAL_SETTINGS } from '../../core/house/index.ts'
import { ConsentText } from './ConsentText.tsx'
import { Hours } from './Hours.tsx'
import { LookPart } from './LookPart.tsx'
import { Everybody } from './PeoplePart.tsx'
import { PlacePart } from './PlacePart.tsx'
import { Probe } from './Probe.tsx'
import { SafetyPart } from './SafetyPart.tsx'

const user = userEvent.setup()
afterEach(() => takeSettings(USUAL_SETTINGS))

/** A part of House with what changes it. */
function part(
  Part: (p: { house: House; change: ReturnType<typeof useChangeHouse> }) => React.ReactNode,
  house = aHouse(),
  changeHouse: (asked: { body: object }) => unknown = ({ body }) => ({ ...house, ...body }),
) {
  const asked = serve({ changeHouse: changeHouse })
  function Page() {
    return <Part house={house} change={useChangeHouse()} />
  }
  render(<Page />)
  return () => asked.filter((a) => a.route === 'changeHouse').map((a) => a.body as object)
}

describe('the place', () => {
  it('is kept when it was changed, and not before', async () => {
    const sent = part(PlacePart)
    const keep = screen.getByRole('button', { name: 'Keep' })
    expect((keep as HTMLButtonElement).disabled).toBe(true)
    await user.type(screen.getByLabelText('Telephone'), '0555 01 00')
    await user.click(keep)
    await waitFor(() => expect(sent()).toHaveLength(1))
    expect(sent()[0]).toMatchObject({ settings: { phone: '0555 01 00', currency: 'EUR' } })
  })

  it('leaving it half typed asks first', async () => {
    serve({})
    function Page() {
      return <PlacePart house={aHouse()} change={useChangeHouse()} />
    }
    const { router } = render(<Page />)
    await user.type(screen.getByLabelText('Address'), '3 Chandlers’ Steps')
    void router.navigate('/away')
    await user.click(await screen.findByRole('button', { name: 'Stay' }))
    expect(screen.getByLabelText<HTMLInputElement>('Address').value).toBe('3 Chandlers’ Steps')
    void router.navigate('/away')
    await user.click(await screen.findByRole('button', { name: 'Leave' }))
    expect(await screen.findByText('away')).toBeTruthy()
  })
})

describe('how the house writes', () => {
  it('each choice is sent by itself, with an example of it', async () => {
    const house = aHouse()
    const sent = part(LookPart, house, ({ body }) => ({
      ...house,
      settings: { ...house.settings, ...(body as { settings: object }).settings },
    }))
    expect(screen.getByText('1.4 mm')).toBeTruthy()
    expect(screen.getByText('45 °C')).toBeTruthy()
    await user.click(screen.getByRole('radio', { name: '°F' }))
    await user.click(screen.getByRole('radio', { name: 'inches' }))
    await user.click(screen.getByRole('radio', { name: '6:30 PM' }))
    await waitFor(() => expect(sent()).toHaveLength(3))
    expect(sent()).toEqual([
      { settings: { warmth: 'F' } },
      { settings: { length: 'inch' } },
      { settings: { clock: 12 } },
    ])
  })
})

describe('the probe', () => {
  const F = { ...USUAL_SETTINGS, warmth: 'F' as const }

  it('is calibrated in the house’s own degrees, and kept in °C', async () => {
    takeSettings(F)
    const sent = part(Probe, aHouse({ settings: F }))
    await user.type(screen.getByLabelText('In melting ice it shows, °F'), '33.8')
    await user.type(screen.getByLabelText('In the reference of 104 °F it shows, °F'), '104')
    await user.click(screen.getByRole('button', { name: 'Keep this calibration' }))
    await waitFor(() => expect(sent()).toHaveLength(1))
    const { probe } = sent()[0] as {
      probe: { iceShowsC: number; warm: { showsC: number; knownC: number } }
    }
    expect(probe.iceShowsC).toBeCloseTo(1, 9)
    expect(probe.warm.showsC).toBeCloseTo(40, 9)
    expect(probe.warm.knownC).toBe(40)
  })

  it('wants the ice first', async () => {
    const sent = part(Probe)
    await user.type(screen.getByLabelText('In the reference of 40 °C it shows, °C'), '40')
    await user.click(screen.getByRole('button', { name: 'Keep this calibration' }))
    expect(await screen.findByText('What it shows in melting ice is needed.')).toBeTruthy()
    expect(sent()).toHaveLength(0)
  })

  it('says how far off it may be, in degrees that have no nought of their own', () => {
    takeSettings(F)
    part(Probe, aHouse({ settings: F }))
    expect(screen.getByText(/it may be 5\.4 °F off/)).toBeTruthy()
  })
})

describe('hours', () => {
  function shown(weekdays: number[] = [0]) {
    const told = spy<[object]>()
    function Page() {
      const [closed, setClosed] = useState({ weekdays, dates: [] as string[] })
      return (
        <Hours
          closed={closed}
          onChange={(c) => {
            told(c)
            setClosed(c as typeof closed)
          }}
        />
      )
    }
    render(<Page />)
    return told.calls
  }

  it('a day is opened and closed by its switch', async () => {
    const told = shown()
    expect(within(screen.getByRole('group', { name: 'Sunday' })).getByText('closed')).toBeTruthy()
    await user.click(screen.getByRole('switch', { name: 'Open on Sunday' }))
    expect(told[0]).toEqual([{ weekdays: [], dates: [] }])
    await user.click(screen.getByRole('switch', { name: 'Open on Monday' }))
    expect(told[1]).toEqual([{ weekdays: [1], dates: [] }])
  })

  it('a house that never opens there is not', () => {
    shown([0, 1, 2, 3, 4, 5])
    const last = screen.getByRole('switch', { name: 'Open on Saturday' })
    expect((last as HTMLInputElement).disabled).toBe(true)
  })

  it('a date is written; what is none is said so, and the others stay', async () => {
    const told = shown()
    const field = screen.getByPlaceholderText('24 Dec')
    await user.type(field, '24 Dec{Enter}')
    expect(told.at(-1)).toEqual([{ weekdays: [0], dates: ['12-24'] }])
    await user.type(field, 'some day{Enter}')
    expect(await screen.findByText(/“some day” is no day/)).toBeTruthy()
    expect(told).toHaveLength(1)
  })
})

describe('the text that clients sign', () => {
  it('is used once it differs, or put back', async () => {
    const told = spy<[string]>()
    render(<ConsentText text="Our own words." onChange={told} />)
    const use = screen.getByRole('button', { name: 'Use this text' })
    expect((use as HTMLButtonElement).disabled).toBe(true)
    await user.type(screen.getByLabelText('Text of consent'), ' And more.')
    await user.click(use)
    await user.click(screen.getByRole('button', { name: 'Back to the default' }))
    expect(told.calls).toEqual([['Our own words. And more.'], ['']])
  })
})

describe('everybody', () => {
  const people = {
    people: [
      {
        id: 'w1',
        name: 'Ines',
        role: 'barber',
        rank: 'owner',
        signsIn: true,
        gone: false,
        sessions: 2,
      },
      {
        id: 'w2',
        name: 'Joren',
        role: 'esthetician',
        rank: 'worker',
        signsIn: false,
        gone: false,
        sessions: 0,
      },
    ],
  }

  it('says who signs in and where, and changes what each may do', async () => {
    const asked = serve({ people: () => people, changeWorker: () => people })
    render(<Everybody />)
    expect(await screen.findByText('yes, on 2 screens')).toBeTruthy()
    await user.click(screen.getByRole('combobox', { name: 'What Joren may do' }))
    await user.click(await screen.findByRole('option', { name: 'learner' }))
    await waitFor(() => expect(asked.at(-1)!.route).toBe('changeWorker'))
    expect(asked.at(-1)).toMatchObject({ params: { id: 'w2' }, body: { rank: 'learner' } })
  })

  it('a worker needs a name and what they do; figures may wait', async () => {
    const asked = serve({ people: () => people, addWorker: () => people })
    render(<Everybody />)
    await user.click(screen.getByRole('button', { name: 'Add a worker' }))
    const dialog = within(await screen.findByRole('dialog'))
    await user.click(dialog.getByRole('button', { name: 'Add' }))
    expect(await dialog.findByText('A worker needs a name.')).toBeTruthy()
    await user.type(dialog.getByLabelText(/^Name/), 'Mara Quill')
    await user.type(dialog.getByLabelText(/^What they do/), 'barber')
    await user.type(dialog.getByLabelText('Figures'), '12')
    await user.click(dialog.getByRole('button', { name: 'Add' }))
    expect(await dialog.findByText(/Four to twelve figures, or a passphrase of 8/)).toBeTruthy()
    await user.clear(dialog.getByLabelText('Figures'))
    await user.click(dialog.getByRole('button', { name: 'Add' }))
    await waitFor(() => expect(asked.at(-1)!.route).toBe('addWorker'))
    expect(asked.at(-1)!.body).toMatchObject({ name: 'Mara Quill', role: 'barber', rank: 'worker' })
    expect(asked.at(-1)!.body).not.toHaveProperty('secret')
  })
})

describe('backups', () => {
  const told: Safety = {
    ...{ demo: false, dataDir: '/data', folder: '/data/backups', second: null, otherDisks: [] },
    ...{ sameDisk: true, locked: false, working: null, failure: null, lastAtMs: null },
    ...{ provenAtMs: null, nextAtMs: Date.UTC(2026, 10, 26), backups: [] },
  }

  it('say that there is none yet, and where they lie', async () => {
    serve({ safety: () => told })
    render(<SafetyPart />)
    expect(await screen.findByText('There is none yet.')).toBeTruthy()
    expect(screen.getByText(/Every copy lies on the disk of the data/)).toBeTruthy()
    const trial = screen.getByRole('button', { name: 'Restore the newest for trial' })
    expect((trial as HTMLButtonElement).disabled).toBe(true)
  })

  it('a folder is kept when its field is left, and refused at it', async () => {
    const asked = serve({
      safety: () => told,
      changeSafety: ({ body }) => {
        if ((body as { second: string }).second === '/nowhere')
          throw new Refusal(422, 'no-folder', 'There is no such folder.')
        return told
      },
    })
    render(<SafetyPart />)
    const second = await screen.findByLabelText('Second copy on another disk')
    await user.click(second)
    await user.tab()
    expect(asked.some((a) => a.route === 'changeSafety')).toBe(false)
    await user.type(second, '/nowhere')
    await user.tab()
    expect(await screen.findAllByText('There is no such folder.')).not.toHaveLength(0)
    expect((second as HTMLInputElement).value).toBe('/nowhere')
    await user.clear(second)
    await user.type(second, '/mnt/second')
    await user.tab()
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ second: '/mnt/second' }))
  })

  it('are locked by a passphrase that is long enough', async () => {
    const asked = serve({ safety: () => told, changeSafety: () => told })
    render(<SafetyPart />)
    await user.type(await screen.findByLabelText('Passphrase'), 'short')
    await user.click(screen.getByRole('button', { name: 'Lock' }))
    expect(await screen.findByText('At least 8 characters.')).toBeTruthy()
    await user.type(screen.getByLabelText('Passphrase'), ' and long')
    await user.click(screen.getByRole('button', { name: 'Lock' }))
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ body: { passphrase: 'short and long' } }),
    )
  })

  it('can be stopped while they are made', async () => {
    const asked = serve({
      safety: () => ({ ...told, working: { what: 'backup', part: 'Copying', done: 0.4 } }),
      stopSafety: () => told,
    })
    render(<SafetyPart />)
    expect(await screen.findByText('Copying …')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Stop' }))
    await waitFor(() => expect(asked.some((a) => a.route === 'stopSafety')).toBe(true))
  })
})
