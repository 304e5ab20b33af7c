/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { USUAL_SETTINGS } from '../../core/house/index.ts'
import { takeSettings } from '../state/shape.ts'
import { render, spy } from '../testing/render.tsx'
import { DateField, MomentField, WhenRow, isoDaysAgo } from './DateField.tsx'

const user = userEvent.setup()
afterEach(() => takeSettings(USUAL_SETTINGS))

function day(begin: string | undefined, more: object = {}) {
  const told = spy<[string | undefined]>()
  function Page() {
    const [value, setValue] = useState(begin)
    return (
      <>
        <DateField
          label="Born on"
          clearable
          value={value}
          onChange={(d) => {
            told(d)
            setValue(d)
          }}
          {...more}
        />
        <button>elsewhere</button>
      </>
    )
  }
  render(<Page />)
  return told.calls
}
const field = () => screen.getByLabelText<HTMLInputElement>('Born on')

describe('a day', () => {
  it('is taken once it is written to its end, not letter by letter', async () => {
    const told = day(undefined)
    await user.type(field(), '3 Apr 1990')
    expect(told).toHaveLength(0)
    await user.click(screen.getByRole('button', { name: 'elsewhere' }))
    expect(told).toEqual([['1990-04-03']])
    expect(field().value).toBe('3 Apr 1990')
  })

  it('is taken by Enter too, once', async () => {
    const told = day(undefined)
    await user.type(field(), '3 Apr 1990{Enter}')
    expect(told).toEqual([['1990-04-03']])
    await user.click(screen.getByRole('button', { name: 'elsewhere' }))
    expect(told).toHaveLength(1)
  })

  it('that is none leaves the one that was there', async () => {
    const told = day('1990-04-03')
    await user.clear(field())
    await user.type(field(), 'some day')
    await user.click(screen.getByRole('button', { name: 'elsewhere' }))
    expect(told.filter(([d]) => d !== undefined)).toHaveLength(0)
  })

  it('is written in the house’s order', () => {
    takeSettings({ ...USUAL_SETTINGS, dates: 'mdy' })
    day('1990-04-03')
    expect(field().value).toBe('Apr 3, 1990')
  })

  it('chosen in the calendar is taken at once', async () => {
    const told = day('2026-11-10')
    await user.click(field())
    await user.click(await screen.findByRole('button', { name: /^17 November 2026/ }))
    expect(told).toEqual([['2026-11-17']])
  })
})

describe('when something last was', () => {
  it('is said by a short word, or by a day', async () => {
    const told = spy<[string | undefined]>()
    const { rerender } = render(<WhenRow what="Sunburn" value={undefined} onChange={told} />)
    await user.click(screen.getByRole('radio', { name: '3 days ago' }))
    await user.click(screen.getByRole('radio', { name: 'today' }))
    expect(told.calls).toEqual([[isoDaysAgo(3)], [isoDaysAgo(0)]])
    rerender(<></>)
  })

  it('a day that is none of the short words chooses none of them', () => {
    render(<WhenRow what="Sunburn" value={isoDaysAgo(12)} onChange={() => {}} />)
    for (const radio of screen.getAllByRole('radio'))
      expect((radio as HTMLInputElement).checked).toBe(false)
  })
})

describe('a moment', () => {
  it('changes its day and keeps its hour', async () => {
    const told = spy<[number]>()
    const at = new Date(2026, 10, 10, 18, 30).getTime()
    render(<MomentField label="When" value={at} onChange={told} />)
    const [days] = screen.getAllByLabelText('When')
    await user.click(days!)
    await user.click(await screen.findByRole('button', { name: /^17 November 2026/ }))
    expect(new Date(told.calls.at(-1)![0])).toEqual(new Date(2026, 10, 17, 18, 30))
  })
})
