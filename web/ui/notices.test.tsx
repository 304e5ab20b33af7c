/** @jest-environment jsdom */
import { act, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { notifications } from '@mantine/notifications'
import { render, spy } from '../testing/render.tsx'
import { NoticeBoard } from './NoticeBoard.tsx'
import { endWorking, tellDone, tellFailed, tellWorking } from './notices.ts'

const user = userEvent.setup()
const told = async (words: string | RegExp) => screen.findByText(words)

describe('what is told for a moment', () => {
  beforeEach(() => void render(<NoticeBoard />))
  afterEach(() => act(() => notifications.clean()))

  it('what was done is told quietly, and is undone by its button, once', async () => {
    const undo = spy()
    act(() => tellDone('Pomade was removed.', undo))
    const words = await told('Pomade was removed.')
    expect(words.closest('[role]')!.getAttribute('role')).toBe('status')
    await user.click(screen.getByRole('button', { name: 'Undo' }))
    expect(undo.calls).toHaveLength(1)
  })

  it('what failed cuts in, says why, and is tried again', async () => {
    const again = spy()
    act(() => tellFailed('The house does not answer.', again))
    const words = await told('The house does not answer.')
    expect(words.closest('[role]')!.getAttribute('role')).toBe('alert')
    await user.click(screen.getByRole('button', { name: 'Try again' }))
    expect(again.calls).toHaveLength(1)
  })

  it('what cannot be undone offers no way to', async () => {
    act(() => tellDone('Figures were changed.'))
    await told('Figures were changed.')
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull()
  })

  it('what takes a while stays, says how far it is, and can be stopped', async () => {
    const stop = spy()
    act(() => tellWorking('report-1', 'The report is being drawn …', stop, 0.25))
    await told('The report is being drawn …')
    expect(screen.getByLabelText('How far it is').getAttribute('aria-valuenow')).toBe('25')
    act(() => tellWorking('report-1', 'The report is being drawn …', stop, 0.75))
    await waitFor(() =>
      expect(screen.getByLabelText('How far it is').getAttribute('aria-valuenow')).toBe('75'),
    )
    expect(screen.getAllByText('The report is being drawn …')).toHaveLength(1)
    await user.click(screen.getByRole('button', { name: 'Stop' }))
    expect(stop.calls).toHaveLength(1)
  })

  it('its end takes its place, or takes it away', async () => {
    act(() => tellWorking('a', 'Reading …'))
    await told('Reading …')
    act(() => endWorking('a', { kind: 'done', words: 'All is read.' }))
    await told('All is read.')
    expect(screen.queryByText('Reading …')).toBeNull()
    act(() => tellWorking('b', 'Sending …'))
    await told('Sending …')
    act(() => endWorking('b'))
    await waitFor(() => expect(screen.queryByText('Sending …')).toBeNull())
  })
})
