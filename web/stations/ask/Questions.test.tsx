/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { concerns, NOTHING_ASKED, RULES, type Asked } from '../../../core/screening/index.ts'
import { oneJob } from '../../../core/services/index.ts'
import { aHouse, aVisit } from '../../testing/house.ts'
import { render } from '../../testing/render.tsx'
import { Questions, Rest } from './Questions.tsx'

const user = userEvent.setup()
const asks = RULES.filter((r) => concerns(r, [oneJob('', 'face-shave')], {}))

/** The form with what is tapped in it. */
function setUp(begin: Partial<Asked> = {}, bornOn = '', frozen = false) {
  let now: Asked = { ...NOTHING_ASKED, ...begin }
  function Form() {
    const [asked, setAsked] = useState(now)
    const change = (by: (asked: Asked) => Partial<Asked>) => {
      now = { ...now, ...by(now) }
      setAsked(now)
    }
    return (
      <>
        <Rest asked={asked} asks={asks} onChange={change} />
        <Questions
          {...{ asked, frozen, bornOn }}
          visit={aVisit()}
          house={aHouse()}
          onChange={change}
        />
      </>
    )
  }
  render(<Form />)
  return () => now
}
const field = (words: RegExp) => screen.getByRole('button', { name: words })

describe('the questions', () => {
  it('ask what concerns the service, and the rest only on request', async () => {
    setUp()
    const list = screen.getByRole('list', { name: 'Questions' })
    expect(list.querySelectorAll('li')).toHaveLength(asks.length)
    await user.click(screen.getByRole('button', { name: /not concern/ }))
    expect(list.querySelectorAll('li')).toHaveLength(RULES.length)
    await user.click(screen.getByRole('button', { name: 'Only what concerns it' }))
    expect(list.querySelectorAll('li')).toHaveLength(asks.length)
  })

  it('a tap says yes, another no; nothing is answered by itself', async () => {
    const now = setUp()
    expect(field(/^Sunburn.* Not asked yet/)).toBeTruthy()
    await user.click(field(/^Sunburn/))
    expect(now().answers['sunburn']).toEqual({ yes: true })
    await user.click(field(/^Sunburn.* Yes/))
    expect(now().answers['sunburn']!.yes).toBe(false)
    expect(Object.keys(now().answers)).toEqual(['sunburn'])
  })

  it('no field changes its place when one is tapped; when and where are asked below', async () => {
    setUp()
    const list = screen.getByRole('list', { name: 'Questions' })
    const order = () => [...list.querySelectorAll('button')].map((b) => b.textContent)
    const before = order()
    await user.click(field(/^Sunburn/))
    expect(order()).toEqual(before)
    const more = screen.getByRole('group', { name: 'When, where and which' })
    expect(list.contains(more)).toBe(false)
    expect(more.textContent).toMatch(/Sunburn/)
  })

  it('a date is given by a short word', async () => {
    const now = setUp()
    await user.click(field(/^Sunburn/))
    await user.click(screen.getByRole('radio', { name: 'yesterday' }))
    expect(now().answers['sunburn']!.date).toMatch(/^\d{4}-\d{2}-\d{2}$/)
  })

  it('one tap says that none of the rest is so, and leaves what was told', async () => {
    const now = setUp()
    await user.click(field(/^Sunburn/))
    await user.click(screen.getByRole('button', { name: 'None of the rest' }))
    expect(Object.keys(now().answers).sort()).toEqual(asks.map((r) => r.id).sort())
    expect(Object.values(now().answers).filter((a) => a.yes)).toHaveLength(1)
    expect(screen.queryByRole('button', { name: 'None of the rest' })).toBeNull()
    expect(document.activeElement).not.toBe(document.body)
  })

  it('what was told last time is only confirmed, and a tap makes it fresh', async () => {
    const old = { yes: false, still: 'ask' as const, since: '2026-10-01' }
    const now = setUp({ answers: Object.fromEntries(asks.map((r) => [r.id, old])) })
    expect(field(/^Sunburn.* No, still so\?/)).toBeTruthy()
    await user.click(field(/^Sunburn/))
    expect(now().answers['sunburn']).not.toHaveProperty('still')
    await user.click(screen.getByRole('button', { name: 'Still so' }))
    for (const a of Object.values(now().answers)) expect(a).not.toHaveProperty('still')
  })

  it('the day of birth answers for age: there is nothing to tap', () => {
    setUp({ answers: { 'under-age': { yes: true } } }, '2012-01-01')
    const age = field(/^Under age\? Yes, by the day of birth/)
    expect((age as HTMLButtonElement).disabled).toBe(true)
    expect((field(/^Sunburn/) as HTMLButtonElement).disabled).toBe(false)
  })

  it('nothing can be tapped once the service runs', () => {
    setUp({}, '', true)
    for (const b of screen.getByRole('list', { name: 'Questions' }).querySelectorAll('button'))
      expect(b.disabled).toBe(true)
  })
})
