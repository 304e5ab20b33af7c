/** @jest-environment jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { VisitFinding } from '../../core/visit/index.ts'
import { openOutbox } from '../outbox/browser.ts'
import { aStation, aVisit, aWorker } from '../testing/house.ts'
import { render, spy } from '../testing/render.tsx'
import { serve } from '../testing/serve.ts'
import { Findings } from './Findings.tsx'
import { StationTabs, useTab } from './StationTabs.tsx'

const user = userEvent.setup()
beforeAll(openOutbox)

const finding = (over: Partial<VisitFinding> = {}): VisitFinding => ({
  ...{ about: 'rule', id: 'acids', severity: 'postpone', title: 'Acids', text: 'Wait two days.' },
  ...{ mark: 'H', holds: 'plan', lift: ['wait', 'decide'], by: 'practised' },
  ...over,
})
const list = () => screen.getByRole('list', { name: 'What is to be known' })

describe('what is to be known', () => {
  it('shows nothing where there is nothing', () => {
    render(<Findings findings={[]} {...aStation({})} />)
    expect(screen.queryByRole('list')).toBeNull()
  })

  it('the first few, and the rest when asked', async () => {
    const many = ['a', 'b', 'c', 'd', 'e'].map((id) => finding({ id, title: `Finding ${id}` }))
    render(<Findings findings={many} most={3} {...aStation({})} />)
    expect(within(list()).getAllByText(/^Finding/)).toHaveLength(3)
    await user.click(screen.getByRole('button', { name: 'and 2 more' }))
    expect(within(list()).getAllByText(/^Finding/)).toHaveLength(5)
  })

  it('each leads to where it is lifted', () => {
    const ways: readonly (readonly [Partial<VisitFinding>, string, string])[] = [
      [{ lift: ['sign'] }, 'Sign at Ask', '/clients/c1/ask?tab=consent'],
      [{ lift: ['read-grain'] }, 'Read it now', '/clients/c1/read'],
      [{ lift: ['plan'] }, 'To the plan', '/clients/c1/plan'],
      [{ lift: ['ask'], about: 'questions' }, 'Ask now', '/clients/c1/ask'],
      [{ lift: ['look'], visitId: 'v0' }, 'Look at that visit', '/clients/c1/return?visit=v0'],
    ]
    render(
      <Findings
        findings={ways.map(([over], i) => finding({ id: `f${i}`, ...over }))}
        {...aStation({})}
      />,
    )
    for (const [, words, to] of ways)
      expect(screen.getByRole('link', { name: words }).getAttribute('href')).toBe(to)
  })

  it('a house’s own estimate is lifted by a practised word', async () => {
    const asked = serve({ decide: () => aVisit() })
    render(<Findings findings={[finding()]} {...aStation({})} />)
    await user.click(screen.getByRole('button', { name: 'I have seen it and decide' }))
    await user.type(screen.getByLabelText(/what did you see/), 'skin calm, no sting')
    await user.click(screen.getByRole('button', { name: 'Decide so' }))
    await waitFor(() => expect(asked).toHaveLength(1))
    expect(asked[0]!.body).toMatchObject({ finding: 'acids', workerId: 'w1' })
    await waitFor(() => expect(screen.queryByLabelText(/what did you see/)).toBeNull())
  })

  it('a learner’s word does not lift it', async () => {
    const learner = aWorker({ level: 'learning' })
    render(<Findings findings={[finding()]} {...aStation({ house: { workers: [learner] } })} />)
    await user.click(screen.getByRole('button', { name: 'I have seen it and decide' }))
    expect(screen.getByText(/Only somebody practised may decide this/)).toBeTruthy()
    const act = screen.getByRole('button', { name: 'Decide so' })
    expect((act as HTMLButtonElement).disabled).toBe(true)
  })

  it('what nobody’s word lifts offers none', () => {
    render(<Findings findings={[finding({ lift: ['wait'], by: 'nobody' })]} {...aStation({})} />)
    expect(screen.queryByRole('button', { name: /decide/ })).toBeNull()
  })

  it('a word that was given can be taken back', async () => {
    const decided = {
      ...{ id: 'd1', visitId: 'v1', finding: 'acids', workerId: 'w1', workerName: 'Ines' },
      ...{ reason: 'calm', atMs: 0, takenBackAtMs: null },
    }
    const asked = serve({ takeBackDecision: () => aVisit() })
    render(<Findings findings={[finding({ decided })]} {...aStation({})} />)
    await user.click(screen.getByRole('button', { name: 'Take the word back' }))
    await waitFor(() =>
      expect(asked[0]).toMatchObject({ route: 'takeBackDecision', params: { id: 'd1' } }),
    )
  })

  it('at a visit that is over there is nothing to do about it any more', () => {
    render(<Findings findings={[finding()]} {...aStation({ visit: { state: 'finished' } })} />)
    expect(screen.queryByRole('button', { name: /decide/ })).toBeNull()
  })
})

describe('the tabs of a station', () => {
  const TABS = [
    ['looks', 'Looks'],
    ['hair', 'Hair'],
  ] as const
  function Page({ told }: { told: (tab: string) => void }) {
    const [tab, setTab] = useTab(TABS, 'looks')
    told(tab)
    return (
      <StationTabs
        label="What to look at"
        tabs={TABS}
        tab={tab}
        onTab={setTab}
        after={(id) => id === 'hair' && ' 3'}
      />
    )
  }

  it('stand in the address beside what else is there', async () => {
    const told = spy<[string]>()
    const { router } = render(<Page told={told} />, '/clients/c1/return?visit=v7')
    expect(told.calls.at(-1)).toEqual(['looks'])
    await user.click(screen.getByRole('tab', { name: 'Hair 3' }))
    expect(told.calls.at(-1)).toEqual(['hair'])
    expect(router.state.location.search).toBe('?visit=v7&tab=hair')
    // Another visit leaves the tab as it is.
    await router.navigate('/clients/c1/return?visit=v8&tab=hair')
    expect(told.calls.at(-1)).toEqual(['hair'])
  })

  it('one that is none is the usual one', () => {
    const told = spy<[string]>()
    render(<Page told={told} />, '/clients/c1/return?tab=nowhere')
    expect(told.calls.at(-1)).toEqual(['looks'])
  })
})
